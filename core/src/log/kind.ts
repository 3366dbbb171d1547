import type { z } from 'zod'
import type { FactKind } from '../fact/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { LogEntry } from './entry.ts'
import { type Shaped, shapeOf } from './shapes.ts'

/** What happened, in a few words; and as typed, or in the person's own words. */
export interface Description {
  says: string
  detail: string
}

/** What an entry is put into words with: lengths in `unit`, shown in steps of `leastStep`. */
export interface Wording {
  unit: LengthUnit
  leastStep: number
  /** The words of another entry of the log, by its id. */
  targetSays: (id: string) => string
  /** The name of a row of reference data, by its id. */
  nameOf: (id: string) => string
}

/** An entry that states a fact, with its place in the chain. */
export interface Link<Fact extends LogEntry = LogEntry> {
  entry: Fact
  /** What the fact is about. A later entry about the same subject takes its place. */
  subject: string
  /** The kind of fact, for what reaches whole kinds; undefined where only what it depends on makes it stale. */
  factKind: FactKind | undefined
  /** The later fact that took its place, if any. */
  supersededBy?: Link<Fact>
  /** The earlier one whose place it took, if any. */
  replaces?: Link<Fact>
  /**
   * The first entry that reached it while it stood, and the words that follow 'before'. `unsure`: it may have been made after. `all`:
   * the tag that it and all that reached the fact since have.
   */
  reached?: { entry: LogEntry; past: string; unsure: boolean; all?: string | undefined }
  /** Another about the same subject that may have been made after it, though it is shown before. */
  rival?: Fact
}

/** Something that makes facts stale. */
export interface Act {
  /** Follows 'before': 'taken before the vise was moved'. */
  past: string
  whom: (link: Link) => boolean
  /** What it does beside that, for those who follow the log: 'part-moved'. */
  tag?: string
}

/** An act with its place in the log. */
export interface PlacedAct extends Act {
  entry: LogEntry
  place: number
}

/** An act that reaches whole kinds of fact. */
export const reaching = (past: string, kinds: readonly FactKind[], tag?: string): Act => ({
  past,
  whom: ({ factKind }) => factKind !== undefined && kinds.includes(factKind),
  ...(tag === undefined ? {} : { tag }),
})

/** What is so with the control or the machine, and changes what an entry makes stale. */
export type Given = ReadonlySet<string>

/** Follows a log from entry to entry and knows what holds again after one of its kind. */
export interface Follower<Entry extends LogEntry> {
  happened(act: Act): void
  recorded(link: Link): void
  /** `standing` are the facts that stand, `acts` those so far, `placeOf` the place of a link's entry. */
  restores(
    entry: Entry,
    standing: Iterable<Link>,
    acts: readonly PlacedAct[],
    placeOf: (link: Link) => number,
  ): { past: string; again: Link[]; reached: (link: Link) => boolean }
}

export type EntrySchema = z.ZodObject & z.ZodType<LogEntry>
export type EntryBy<Schema extends z.ZodType> = z.output<Schema> & LogEntry

/** What is to be said of every kind of entry. One that lacks a part does not compile. */
export interface Common<Schema extends EntrySchema, Group extends string> {
  /** How it is validated. Any change of it is a new shape: `reshapedSchema`, and one more `upcast`. */
  schema: Schema
  /** From each older shape to the one after it. */
  upcast: Shaped['upcast']
  /** Where in the traveler it belongs, for who looks for it in the logbook. */
  group: Group
  /** How it is said in the logbook. */
  describe(entry: EntryBy<Schema>, wording: Wording): Description
  /** What is left out of it in a list of a machine's entries: nothing, or what is long. */
  slim: 'whole' | ((entry: EntryBy<Schema>) => EntryBy<Schema>)
  /**
   * What of the machine it says that stands beyond its setup, until it is said again: each thing by a name ('tool-length/5'). Whoever
   * asks how a machine stands is given the setups in which each was said last, and not every setup that there ever was.
   */
  onMachine: 'nothing' | ((entry: EntryBy<Schema>) => readonly string[])
  /** Whether it is taken over when a job is set up again. */
  carried: boolean
  /** Whether it is written at the machine, or as well at a desk. */
  written: 'at-machine' | 'anywhere'
  /** What it makes stale by itself; `before` is the fact about the same subject that stood until then. */
  makesStale: 'nothing' | ((entry: EntryBy<Schema>, before: Link | undefined, given: Given) => Act[])
}

/** What is to be said of a kind that states a fact. */
export interface StatesFact<Schema extends EntrySchema> {
  /** What the fact is about; undefined where this entry states none. A later one about the same takes its place. */
  subject(entry: EntryBy<Schema>): string | undefined
  /** Ids of the entries that it depends on: it is stale when one of them is. */
  dependsOn(entry: EntryBy<Schema>): readonly string[]
  /** The kind of fact that happenings reach; undefined where only what it depends on makes it stale. */
  factKind(entry: EntryBy<Schema>): FactKind | undefined
  /** How it came, in one word that stands before 'before': 'measured'. */
  taken: string
  /** What was taken again when another takes its place: 'the angle'; or what happened then, for all that depends on it. */
  replaced: string | { past: string } | ((entry: EntryBy<Schema>) => string)
  /** What it was found with, by id, where that says what stands on the machine: a vise. */
  foundWith?(entry: EntryBy<Schema>): string | undefined
  /**
   * What it says to have happened by differing from the one that it takes the place of, or from what was found last on the machine
   * (`last`, of any kind). Where the order of two tablets is not certain it is asked against each that may have been before.
   */
  implies?(entry: EntryBy<Schema>, before: EntryBy<Schema> | undefined, last: string | undefined): Act[]
  /**
   * All that it may say to have happened, whatever it took the place of: asked where an entry that cannot be read may have stood
   * before it. Every kind has it whose acts look at what stood before.
   */
  mayImply?(entry: EntryBy<Schema>): Act[]
  /** Follows a log for what this kind of entry brings back. */
  follow?(): Follower<EntryBy<Schema>>
}

/** A kind of entry: all that there is to say of it. */
export interface EntryKind<
  Schema extends EntrySchema = EntrySchema,
  Group extends string = string,
  IsFact extends boolean = boolean,
> extends Common<Schema, Group> {
  kind: EntryBy<Schema>['kind']
  /** The number of today's shape; the first is 1. */
  shape: number
  /** What it says of the fact that its entries state, if they state any. */
  fact: IsFact extends true ? StatesFact<Schema> : undefined
  is(entry: LogEntry | undefined): entry is EntryBy<Schema>
}

function kindOf<Schema extends EntrySchema, Group extends string, Fact>(
  common: Common<Schema, Group>,
  fact: Fact,
) {
  const { kind } = common.schema.shape as unknown as { kind: z.ZodLiteral<string> }
  return {
    ...common,
    kind: kind.value as EntryBy<Schema>['kind'],
    shape: shapeOf(kind.value, common.schema, common.upcast),
    fact,
    is: (entry: LogEntry | undefined): entry is EntryBy<Schema> => entry?.kind === kind.value,
  }
}

/** A kind of entry that states no fact. */
export const defineEntry = <Schema extends EntrySchema, const Group extends string>(
  of: Common<Schema, Group>,
): EntryKind<Schema, Group, false> => kindOf(of, undefined)

/** A kind of entry that states a fact, which stands until another about the same subject, and goes stale. */
export const defineFact = <Schema extends EntrySchema, const Group extends string>({
  subject,
  dependsOn,
  factKind,
  taken,
  replaced,
  foundWith,
  implies,
  mayImply,
  follow,
  ...common
}: Common<Schema, Group> & StatesFact<Schema>): EntryKind<Schema, Group, true> =>
  kindOf(common, {
    subject,
    dependsOn,
    factKind,
    taken,
    replaced,
    ...(foundWith ? { foundWith } : {}),
    ...(implies ? { implies } : {}),
    ...(mayImply ? { mayImply } : {}),
    ...(follow ? { follow } : {}),
  })

/** Any kind, for a list of them. */
// biome-ignore lint/suspicious/noExplicitAny: a list holds kinds of every schema, and each is asked about its own entries only
export type AnyKind = EntryKind<any, string, boolean>

/** The entries of some kinds. */
export type EntriesOf<Kinds extends AnyKind> = z.output<Kinds['schema']>

/** The entries of those kinds that state a fact. */
export type FactsOf<Kinds extends AnyKind> = Kinds extends { fact: undefined } ? never : EntriesOf<Kinds>

import { costAt, measureAngle } from '../angle/index.ts'
import { isHeight, toolLength } from '../pickup/index.ts'
import { convertLength, type TypedLength } from '../quantity/index.ts'
import type { Entry, EntryOf } from './entries.ts'
import { type FactKind, HAPPENINGS, type Happening, IMPLIED, type Implied } from './happenings.ts'
import { type FactEntry, STOP_CHECK } from './subjects.ts'

/** An entry that states a fact, with its place in the chain. */
export interface Link {
  entry: FactEntry
  /** What the fact is about. A later entry about the same subject takes its place. */
  subject: string
  /** The later entry that took its place, if any. */
  supersededBy?: Link
  /** The first entry that reached it while it stood, and the words that follow 'before'. `unsure`: it may have been made after. */
  reached?: { entry: Entry; past: string; unsure: boolean }
  /** Another about the same subject that may have been made after it, though it is shown before. */
  rival?: FactEntry
}

/** The kind of fact that an entry states, for the table; undefined where only its basis makes it stale. */
function factKindOf(entry: FactEntry): FactKind | undefined {
  switch (entry.kind) {
    case 'pickup':
      // What lies on the rotary's axis stays there, however the part is clamped.
      return entry.reading.method === 'centre-line' ? 'centre-line' : `offset-${entry.reading.axis}`
    case 'centre-line':
      return 'centre-line'
    case 'flat':
      return 'offset-A'
    case 'work-shift':
      return 'work-shift'
    case 'tool-length':
      return 'tool-length'
    case 'angled':
      return 'angle'
    case 'identified':
      return 'part'
    case 'swept':
      return 'squareness'
    case 'upright':
      return 'upright'
    case 'cleared':
      return 'clearance'
    case 'gripped':
      return 'grip'
    case 'lengths':
      return 'lengths'
    case 'ticked':
      return entry.item === STOP_CHECK ? 'stop-check' : 'hold-check'
    case 'laid-out':
      return 'layout'
    case 'start-checked':
      return 'start-check'
    default:
      return undefined
  }
}

const isReached = (by: Pick<Happening, 'reaches'>, { entry }: Link) => {
  const kind = factKindOf(entry)
  return kind !== undefined && by.reaches.includes(kind)
}

function reaches({ what, tool }: EntryOf<'happened'>, link: Link): boolean {
  const table = HAPPENINGS[what]
  if (!isReached(table, link)) return false
  if (!table.onlyItsTool) return true
  return toolOf(link.entry) === tool
}

/** The tool whose length a fact states or was found with. */
const toolOf = (entry: FactEntry) =>
  entry.kind === 'tool-length'
    ? entry.tool
    : entry.kind === 'pickup' && isHeight(entry.reading)
      ? entry.reading.tool
      : undefined

/** Lengths of one tool that differ by more than this are two lengths and not one measured twice, in mm: three times the doubt of their difference. */
const SAME_LENGTH_MM = 0.05

/** Whether a Z was found with a length of this tool that is not the one measured now. */
function foundWithOther(entry: EntryOf<'tool-length'>, { entry: by }: Link): boolean {
  if (by.kind !== 'pickup' || !isHeight(by.reading) || by.reading.tool !== entry.tool) return false
  const measured = toolLength(entry, { unit: 'mm', leastStep: 0 }).value
  const { value, unit } = by.reading.toolLength
  return Math.abs(convertLength(value, unit, 'mm') - measured) > SAME_LENGTH_MM
}

/** Angles that differ by more than this many times the doubt of their difference are two angles and not one measured twice. By judgement. */
const SAME_ANGLE_DOUBTS = 3

/** Whether the part was found to lie otherwise than it did, though nobody said that it was moved: it was tapped square, or slipped. */
function liesOtherwise(now: EntryOf<'angled'>, before: Link | undefined): boolean {
  if (before?.entry.kind !== 'angled' || before.reached) return false
  const [a, b] = [now, before.entry].map(({ reading }) => measureAngle(reading, { unit: 'mm', leastStep: 0 }))
  if (!a || !b) return false
  const apart = Math.abs(((a.value - b.value + 540) % 360) - 180)
  return apart > SAME_ANGLE_DOUBTS * Math.hypot(a.doubt.value, b.doubt.value)
}

/** Whether an angle is not in a program, nor an earlier one: built to be turned by it, or proved though ignoring it costs more than is allowed. */
function leavesOut(
  of: FactEntry,
  { offset, reading, reach, allowed }: EntryOf<'angled'>,
  before: Link | undefined,
): boolean {
  if ('rests' in of && before && of.rests?.includes(before.entry.id)) return false
  if (of.kind === 'coded') return of.sheet.turned && of.offset === offset
  if (of.kind !== 'proved' || of.frame !== offset) return false
  const { value } = measureAngle(reading, { unit: 'mm', leastStep: 0 })
  const inMm = (length: TypedLength) => convertLength(length.value, length.unit, 'mm')
  return costAt(inMm(reach), value) > inMm(allowed)
}

const isXOrY = ({ entry }: Link, offset: string) =>
  entry.kind === 'pickup' && entry.offset === offset && entry.reading.axis !== 'Z'

/**
 * Whether a sweep says that the vise was let loose or its bolts changed since the last one: anything but a look at a
 * tight vise that was tight before. Zeros that were taken from it before then no longer hold.
 */
const loosened = (now: EntryOf<'swept'>, before: FactEntry | undefined) =>
  now.sweep.bolts !== 'tight' || (before?.kind === 'swept' && before.sweep.bolts !== 'tight')

/** Places of a vise that differ by more than this are two places and not one measured twice, in mm. By judgement. */
const SAME_PLACE_MM = 2

const apart = (a: TypedLength, b: TypedLength) =>
  Math.abs(convertLength(a.value, a.unit, 'mm') - convertLength(b.value, b.unit, 'mm')) > SAME_PLACE_MM

/** The vise that a fact was found with, where it says so. */
export const viseOf = (entry: FactEntry | undefined): string | undefined =>
  entry?.kind === 'cleared' || entry?.kind === 'swept' ? entry.vise?.id : undefined

/**
 * What an entry says to have happened by differing from the one before it about the same subject, and from the vise that was said to
 * stand on the table last.
 */
function impliedBy(
  entry: FactEntry,
  before: FactEntry | undefined,
  vise: string | undefined,
): Implied | undefined {
  const own = viseOf(entry)
  if (own !== undefined && vise !== undefined && own !== vise) return IMPLIED['other-vise']
  if (entry.kind === 'swept') return loosened(entry, before) ? IMPLIED.squared : undefined
  if (entry.kind === 'cleared' && before?.kind === 'cleared' && own === before.vise.id)
    return apart(entry.jawAt, before.jawAt) ? IMPLIED['vise-elsewhere'] : undefined
  if (entry.kind === 'gripped' && before?.kind === 'gripped') {
    if (entry.collet.id !== before.collet.id) return IMPLIED['other-collet']
    return entry.stop !== before.stop ? IMPLIED['other-stop'] : undefined
  }
  return undefined
}

/** Whether a program has a serial number written into it that was given out. */
const writesNumber = (of: FactEntry, { series, first, last }: EntryOf<'numbered'>, counts: boolean) =>
  of.kind === 'coded' &&
  of.sheet.items.some(
    (item) =>
      item.cycle === 'engrave' &&
      !item.off &&
      item.params.text.trim() === series &&
      item.params.serial >= first &&
      item.params.serial <= last &&
      !(counts && item.params.way === 'cycle' && item.params.sits !== 'arc'),
  )

/** Whether a proof is of a program that a saving gave another text. */
const provesText = (of: FactEntry, { title, after }: EntryOf<'saved'>) =>
  of.kind === 'proved' && of.title === title && of.hash !== after.hash

/** Whether a program that a saving changed runs on a pallet as it was before. */
const runsProgram = (of: FactEntry, { title, text }: EntryOf<'saved'>) =>
  of.kind === 'palleted' &&
  of.plan.pallets.some(({ program }) => program.title === title && program.text !== text)

/** Something that makes facts stale, with its place in the log. */
export interface Act {
  entry: Entry
  place: number
  past: string
  whom: (link: Link) => boolean
}

/** What an entry that states no fact makes stale. */
export function actsOf(entry: Entry, counts: boolean): Pick<Act, 'past' | 'whom'>[] {
  if (entry.kind === 'happened')
    return [{ past: HAPPENINGS[entry.what].past, whom: (link) => reaches(entry, link) }]
  if (entry.kind === 'numbered')
    return [
      { past: 'its serial number was given out', whom: ({ entry: of }) => writesNumber(of, entry, counts) },
    ]
  if (entry.kind === 'saved')
    return [
      { past: 'time was saved in it', whom: ({ entry: of }) => provesText(of, entry) },
      { past: `time was saved in ${entry.title}`, whom: ({ entry: of }) => runsProgram(of, entry) },
    ]
  return []
}

/** What a fact makes stale by differing from the one that stood before it. */
export function impliedActs(
  entry: FactEntry,
  before: FactEntry | undefined,
  vise = viseOf(before),
): Pick<Act, 'past' | 'whom'>[] {
  const implied = impliedBy(entry, before, vise)
  if (!implied) return []
  const reached = (link: Link) => isReached(implied, link)
  // What was found with the vise that stands there now does not wait for another to be told of it.
  const withOtherVise = (link: Link) => viseOf(link.entry) !== viseOf(entry) && reached(link)
  return [{ past: implied.past, whom: implied === IMPLIED['other-vise'] ? withOtherVise : reached }]
}

/**
 * What has places of the drawing in it that count from part zero: taking a zero again leaves them as they are, putting it elsewhere on
 * the drawing does not.
 */
const countsFromZero = (of: FactEntry, offset: string) =>
  of.kind === 'laid-out' || ((of.kind === 'coded' || of.kind === 'gauging') && of.offset === offset)

/** All that a fact makes stale, against the one that stood before it about the same subject, and the vise that was said last. */
export function factActs(
  entry: FactEntry,
  before: Link | undefined,
  vise: string | undefined,
): Pick<Act, 'past' | 'whom'>[] {
  const acts = impliedActs(entry, before?.entry, vise)
  if (entry.kind === 'tool-length')
    acts.push({ past: IMPLIED['other-length'].past, whom: (each) => foundWithOther(entry, each) })
  if (entry.kind === 'pickup' && entry.moved)
    acts.push({
      past: `${entry.reading.axis}0 was put elsewhere on the drawing`,
      whom: ({ entry: of }) => countsFromZero(of, entry.offset),
    })
  if (entry.kind === 'angled') {
    if (liesOtherwise(entry, before))
      acts.push({ past: IMPLIED['lies-otherwise'].past, whom: (each) => isXOrY(each, entry.offset) })
    acts.push({ past: 'the angle was measured', whom: (each) => leavesOut(each.entry, entry, before) })
  }
  return acts
}

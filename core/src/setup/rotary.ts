import { type Finding, type Freshness, finding, type Verdict, verdictOf, worstFirst } from '../fact/index.ts'
import { effectiveStrikes } from '../log/index.ts'
import type { Machine, RotaryAxis } from '../machine/index.ts'
import { pickupSettings, type ReadingOf } from '../pickup/index.ts'
import {
  asTyped,
  computedLength,
  convertLength,
  type LengthUnit,
  type TypedLength,
} from '../quantity/index.ts'
import {
  CENTRE_LINE,
  type Centre,
  type EarlierCentre,
  type EarlierFlat,
  type Flat,
  flatSubject,
  judgeCentre,
  judgeFlat,
  measureCentre,
  measureFlat,
} from '../rotary/index.ts'
import { editedNote } from './edited.ts'
import type { Chain, EntryOf, Logged } from './kinds.ts'
import type { ReadyState } from './ready.ts'

/** The centre line of the machine's rotary, as it was found in a setup. */
export interface CentreFact {
  entry: EntryOf<'centre-line'>
  freshness: Freshness
  centre: Centre
  findings: Finding[]
  verdict: Verdict
}

/** The rotary's own angle of a work offset, in degrees. */
export interface FlatFact {
  entry: EntryOf<'flat'>
  /** The word of the rotary: 'A'. */
  axis: RotaryAxis['word']
  freshness: Freshness
  flat: Flat
  findings: Finding[]
  verdict: Verdict
}

interface Context {
  chain: Chain
  machine: Machine
  unit: LengthUnit
}

/** The fact that one of a subject took the place of, and whether it still held then. */
function before<Kind extends 'centre-line' | 'flat'>(id: string, kind: Kind, { chain }: Context) {
  const link = chain.links.get(id)?.replaces
  return link?.entry.kind === kind
    ? { entry: link.entry as EntryOf<Kind>, fresh: link.reached === undefined }
    : undefined
}

export function asEarlierCentre({ Y, Z }: Centre, fresh: boolean): EarlierCentre {
  const of = (axis: Centre['Y']) => axis && { value: axis.value, doubt: axis.doubt.value }
  const [y, z] = [of(Y), of(Z)]
  return { fresh, ...(y ? { Y: y } : {}), ...(z ? { Z: z } : {}) }
}

export const asEarlierFlat = ({ value, turned, tilt, doubt }: Flat, fresh: boolean): EarlierFlat => ({
  value,
  turned,
  tilt,
  doubt: doubt.value,
  fresh,
})

/** The centre line that stands in a setup; nothing where none was found, or where the machine has no rotary any more. */
export function centreFact(context: Context): CentreFact | undefined {
  const { chain, machine, unit } = context
  const entry = chain.standing.get(CENTRE_LINE)?.entry
  if (entry?.kind !== 'centre-line' || !machine.rotary) return undefined
  const settings = pickupSettings(machine, unit)
  const centre = measureCentre(entry.reading, settings)
  const last = before(entry.id, 'centre-line', context)
  const findings = worstFirst([
    ...judgeCentre(entry.reading, centre, {
      machine,
      unit,
      last: last && asEarlierCentre(measureCentre(last.entry.reading, settings), last.fresh),
    }),
    ...editedNote(entry.machine, 'centre line', machine),
  ])
  return {
    entry,
    centre,
    findings,
    verdict: verdictOf(findings),
    freshness: chain.freshnessOf(entry.id),
  }
}

/** The rotary's angle of an offset; nothing where it was not taken, or where the machine has no rotary any more. */
export function flatFact(
  offset: string,
  context: Context & { centre: CentreFact | undefined },
): FlatFact | undefined {
  const { chain, machine, unit, centre } = context
  const entry = chain.standing.get(flatSubject(offset))?.entry
  const { rotary } = machine
  if (entry?.kind !== 'flat' || !rotary) return undefined
  const settings = pickupSettings(machine, unit)
  const flat = measureFlat(entry.reading, rotary, settings)
  const last = before(entry.id, 'flat', context)
  const findings = worstFirst([
    ...judgeFlat(entry.reading, flat, rotary, {
      machine,
      unit,
      centreY: centre?.freshness.state === 'fresh' ? centre.centre.Y?.value : undefined,
      last: last && asEarlierFlat(measureFlat(last.entry.reading, rotary, settings), last.fresh),
    }),
    ...editedNote(entry.machine, rotary.word, machine),
  ])
  return {
    entry,
    axis: rotary.word,
    flat,
    findings,
    verdict: verdictOf(findings),
    freshness: chain.freshnessOf(entry.id),
  }
}

/** The line of the ready list that has everything homed. */
const HOMED = 'home'

/**
 * Nobody said that the rotary was homed since the machine was, neither by its line of the ready list nor by what it showed: its angle counts from wherever it was switched on. `entries` are those of
 * every setup on the machine.
 */
export function rotaryNotHomed(
  { home, lines }: Pick<ReadyState, 'home' | 'lines'>,
  entries: readonly Logged[],
  { rotary, name }: Pick<Machine, 'rotary' | 'name'>,
): Finding[] {
  if (!rotary) return []
  if (home?.freshness.state === 'fresh' && home.entry.shown.rotary !== undefined) return []
  const ticked = lines.some(
    ({ item, state }) => item.id === HOMED && state === 'done' && /rotary/i.test(item.says),
  )
  if (ticked) return []
  const strikes = effectiveStrikes(entries)
  const said = entries.some(
    (entry) => entry.kind === 'happened' && entry.what === 'rotary-homed' && !strikes.has(entry.id),
  )
  if (said && (!home || home.freshness.state === 'fresh')) return []
  return [
    finding(
      'look',
      'rotary-not-homed',
      'turned',
      `Nobody has said that the rotary of ${name} was homed.`,
      `${rotary.word} counts from its home; without it, from wherever it was switched on.`,
      'Home it, and tick that or read what it shows in Ready.',
    ),
  ]
}

/** An angle of the rotary was taken, and the page of the machine knows of none now: it cannot be told what it means. */
export const rotaryGone = (offset: string, { chain, machine }: Context): Finding[] =>
  chain.standing.has(flatSubject(offset)) && !machine.rotary
    ? [
        finding(
          'stop',
          'rotary-gone',
          'rotary',
          `The angle of the rotary was taken for ${offset}, and the page of ${machine.name} has no rotary.`,
          'Which way it counts is not known now.',
          "Say on the machine's page which axis it is, or strike the angle out in the logbook.",
        ),
      ]
    : []

/** Where an offset's zero lies against the centre line: on it, or so far over it. */
export interface OnCentreLine {
  axis: 'Y' | 'Z'
  reading: ReadingOf<'centre-line'>
  rests: [string]
}

/**
 * Y and Z of an offset from the centre line: Y on it, Z as the drawing has the line (0 at the centre, less than nothing where zero is
 * the top of the part). Nothing of what no longer holds or cannot be.
 */
export function onCentreLine(
  { entry, freshness, verdict, centre }: CentreFact,
  drawingZ: TypedLength,
): OnCentreLine[] {
  if (freshness.state === 'stale' || verdict === 'stop') return []
  return ([centre.Y, centre.Z] as const).flatMap((of) =>
    of
      ? [
          {
            axis: of.axis,
            rests: [entry.id] as [string],
            reading: {
              method: 'centre-line' as const,
              axis: of.axis,
              base: computedLength(of.value, of.unit),
              baseDoubt: computedLength(of.doubt.value, of.unit),
              drawingPosition: of.axis === 'Y' ? asTyped(0, of.unit) : drawingZ,
            },
          },
        ]
      : [],
  )
}

/** Where the drawing has the centre line if Z zero is on top of the part, in `unit`; nothing where nobody measured the part. */
export function lineUnderTop({ entry: { reading } }: CentreFact, unit: LengthUnit): number | undefined {
  const { across } = reading
  return across && -convertLength(across.value, across.unit, unit) / 2
}

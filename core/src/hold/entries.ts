import type { z } from 'zod'
import { ALL_AXES } from '../fact/index.ts'
import {
  type Act,
  defineFact,
  dependsOn,
  entrySchema,
  type Link,
  reaching,
  versionRef,
} from '../log/index.ts'
import { convertLength, describeTyped, formatWithUnit, type TypedLength } from '../quantity/index.ts'
import { gripChoice, measuredLengths } from './grip-draft.ts'
import { squareness } from './squaring.ts'
import { STOPS } from './stop.ts'
import { type Bolts, sweep } from './sweep.ts'
import { jawUpright, uprightness } from './upright.ts'
import { visePlace } from './vise-place.ts'

const SQUARENESS = 'squareness'
export const UPRIGHT = 'upright'
export const CLEARANCE = 'clearance'
export const GRIP = 'grip'
export const lengthsSubject = (collet: string) => `lengths/${collet}`

const BOLT_WORDS: Record<Bolts, string> = {
  one: 'one bolt',
  snug: 'second bolt snug',
  tight: 'both bolts tight',
}

/** Places of a vise that differ by more than this are two places and not one measured twice, in mm. By judgement. */
const SAME_PLACE_MM = 2

const apart = (a: TypedLength, b: TypedLength) =>
  Math.abs(convertLength(a.value, a.unit, 'mm') - convertLength(b.value, b.unit, 'mm')) > SAME_PLACE_MM

/** What a fact of this step says to have happened by differing from the one that it takes the place of. */
const SQUARED = reaching('the vise was squared', ['offset-X', 'offset-Y', 'angle'])
const OTHER_VISE = reaching('another vise was put on', [
  ...ALL_AXES,
  'angle',
  'squareness',
  'upright',
  'clearance',
  'layout',
])
const VISE_ELSEWHERE = reaching('the vise was put elsewhere', [
  ...ALL_AXES,
  'angle',
  'squareness',
  'upright',
  'layout',
])
const OTHER_COLLET = reaching(
  'another collet was chosen',
  ['offset-Z', 'work-shift', 'hold-check', 'stop-check'],
  'part-moved',
)
const OTHER_STOP = reaching('another stop was chosen', ['offset-Z', 'work-shift', 'stop-check'], 'part-moved')

/** The vise that a fact of this step was found with, where it says so. */
const viseOf = ({ entry }: Link): string | undefined =>
  swept.is(entry) || cleared.is(entry) ? entry.vise?.id : undefined

/** What was found with the vise that stands there now does not wait for another to be told of it. */
const perhapsOtherVise = (own: string | undefined): Act[] =>
  own === undefined ? [] : [{ ...OTHER_VISE, whom: (link) => viseOf(link) !== own && OTHER_VISE.whom(link) }]

const otherVise = (own: string | undefined, last: string | undefined): Act[] | undefined =>
  own !== undefined && last !== undefined && own !== last ? perhapsOtherVise(own) : undefined

/** A sweep of a jaw with an indicator. */
export const swept = defineFact({
  schema: entrySchema('swept', {
    sweep,
    vise: versionRef.optional().describe('whose jaw it is; nothing in entries from before it was kept'),
  }),
  upcast: [],
  subject: () => SQUARENESS,
  dependsOn: () => [],
  factKind: () => 'squareness',
  taken: 'swept',
  replaced: 'the basis',
  foundWith: ({ vise }) => vise?.id,
  /**
   * Whether the vise was let loose or its bolts changed since the last sweep: anything but a look at a tight vise that was tight
   * before. Zeros that were taken from it before then no longer hold.
   */
  implies: (now, before, last) =>
    otherVise(now.vise?.id, last) ??
    (now.sweep.bolts !== 'tight' || (before && before.sweep.bolts !== 'tight') ? [SQUARED] : []),
  mayImply: ({ vise }) => [SQUARED, ...perhapsOtherVise(vise?.id)],
  makesStale: 'nothing',
  describe: ({ sweep: of }, { unit }) => {
    const squared = squareness(of, unit)
    const points = of.points.map(({ at, reading }) => `${describeTyped(at)} reads ${describeTyped(reading)}`)
    return {
      says: squared.ok
        ? `Jaw swept, ${BOLT_WORDS[of.bolts]}: out of square ${formatWithUnit(squared.outOfSquare.value, unit)} over the part`
        : `Jaw swept, ${BOLT_WORDS[of.bolts]}`,
      detail: [`bolt at ${describeTyped(of.pivot)}`, ...points].join(', '),
    }
  },
  group: 'hold',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** Two readings on the fixed jaw. */
export const upright = defineFact({
  schema: entrySchema('upright', { ...jawUpright.shape, machine: versionRef }),
  upcast: [],
  subject: () => UPRIGHT,
  dependsOn: () => [],
  factKind: () => 'upright',
  taken: 'read',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: (entry, { unit }) => {
    const { lean, lift } = uprightness(entry, unit)
    return {
      says: `Fixed jaw read: leans ${formatWithUnit(lean.value, unit)} over the part, ${lift.value < 0 ? 'goes down' : 'rises'} ${formatWithUnit(Math.abs(lift.value), unit)}`,
      detail: `${describeTyped(entry.up)} over ${describeTyped(entry.height)} up the face, ${describeTyped(entry.lift)} on top as it is clamped`,
    }
  },
  group: 'hold',
  slim: 'whole',
  onMachine: () => ['upright'],
  carried: false,
  written: 'at-machine',
})

/** A vise, placed: whether it clears. */
export const cleared = defineFact({
  schema: entrySchema('cleared', { vise: versionRef, machine: versionRef, ...visePlace.shape }),
  upcast: [],
  subject: () => CLEARANCE,
  dependsOn: () => [],
  factKind: () => 'clearance',
  taken: 'measured',
  replaced: 'the basis',
  foundWith: ({ vise }) => vise.id,
  implies: (now, before, last) =>
    otherVise(now.vise.id, last) ??
    (before && now.vise.id === before.vise.id && apart(now.jawAt, before.jawAt) ? [VISE_ELSEWHERE] : []),
  mayImply: ({ vise }) => [VISE_ELSEWHERE, ...perhapsOtherVise(vise.id)],
  makesStale: 'nothing',
  describe: (entry, { nameOf }) => ({
    says: `Clearance of the vise: fixed jaw at ${describeTyped(entry.jawAt)} along the table`,
    detail: `${nameOf(entry.vise.id)}, ${describeTyped(entry.wanted)} wanted, Z down to ${describeTyped(entry.lowestZ)}`,
  }),
  group: 'hold',
  slim: 'whole',
  onMachine: () => ['vise'],
  carried: true,
  written: 'at-machine',
})

const grippedSchema = entrySchema('gripped', {
  collet: versionRef,
  ...gripChoice.shape,
  rests: dependsOn(0, 1).describe('the measured lengths whose ratio was used'),
})

function grippedDetail({ stop, operation, bars, allowed }: z.output<typeof grippedSchema>): string {
  const known =
    bars.known === 'tolerance'
      ? `bar ${describeTyped(bars.diameter)}, spread ${describeTyped(bars.spread)}`
      : `${bars.diameters.length} bars measured: ${bars.diameters.map(describeTyped).join(', ')}`
  return `stop: ${STOPS[stop].name}, ${operation} operation, ${operation === 'first' ? 'to face' : 'length tolerance'} ${describeTyped(allowed)}, ${known}`
}

/** A collet and a stop, chosen. */
export const gripped = defineFact({
  schema: grippedSchema,
  upcast: [],
  subject: () => GRIP,
  dependsOn: ({ rests }) => rests,
  factKind: () => 'grip',
  taken: 'chosen',
  replaced: 'the basis',
  implies: (now, before) => {
    if (!before) return []
    if (now.collet.id !== before.collet.id) return [OTHER_COLLET]
    return now.stop === before.stop ? [] : [OTHER_STOP]
  },
  mayImply: () => [OTHER_COLLET, OTHER_STOP],
  makesStale: 'nothing',
  describe: (entry, { nameOf }) => ({
    says: `Collet and stop chosen: ${nameOf(entry.collet.id)}`,
    detail: grippedDetail(entry),
  }),
  group: 'hold',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** Lengths of parts against the diameters of their bars, measured on a collet: the ratio that it really has. */
export const lengths = defineFact({
  schema: entrySchema('lengths', { collet: versionRef, ...measuredLengths.shape }),
  upcast: [],
  subject: ({ collet }) => lengthsSubject(collet.id),
  dependsOn: () => [],
  factKind: () => 'lengths',
  taken: 'measured',
  replaced: 'the ratio',
  makesStale: 'nothing',
  describe: ({ pairs, what, collet }, { nameOf }) => ({
    says: `${pairs.length} ${what === 'face' ? 'face positions' : 'lengths'} measured on ${nameOf(collet.id)}`,
    detail: pairs
      .map(({ diameter, length }) => `${describeTyped(diameter)}: ${describeTyped(length)}`)
      .join(', '),
  }),
  group: 'hold',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

import { z } from 'zod'
import { offsetName } from '../control/index.ts'
import {
  defineEntry,
  defineFact,
  dependsOn,
  entrySchema,
  type Link,
  versionRef,
  words,
} from '../log/index.ts'
import { convertLength, describeTyped, formatWithUnit, typedLength } from '../quantity/index.ts'
import { identification, identify } from './identify.ts'
import { pickUp } from './pick-up.ts'
import { isHeight, reading } from './reading.ts'
import { partWords, readingDetail } from './reading-words.ts'
import { setterHeight, setterReading } from './setter.ts'
import { stockAsked, ZERO_WORDS } from './stock.ts'
import { toolLength, toolLengthReading } from './tool-length.ts'
import { toolsTogether } from './tools-together.ts'
import { workShift, workShiftReading } from './work-shift.ts'

export const pickupSubject = (offset: string, axis: string) => `offset/${offset}/${axis}`
export const checkSubject = (offset: string) => `check/${offset}`
export const stockSubject = (offset: string) => `stock/${offset}`
export const WORK_SHIFT = 'work-shift'
export const PART = 'part'

/** A work offset, or the geometry of a lathe's tool, along one axis. */
export const pickup = defineFact({
  schema: entrySchema('pickup', {
    offset: offsetName,
    reading,
    machine: versionRef,
    rests: dependsOn(1, 1)
      .optional()
      .describe('the pickup that a copy was made from, or the centre line that it lies on'),
    moved: typedLength
      .optional()
      .describe(
        'part zero was put elsewhere on the drawing, so far along the axis; what was read is as it was before',
      ),
  }),
  upcast: [],
  subject: ({ offset, reading: { axis } }) => pickupSubject(offset, axis),
  dependsOn: ({ rests }) => rests ?? [],
  // What lies on the rotary's axis stays there, however the part is clamped.
  factKind: ({ reading: { method, axis } }) => (method === 'centre-line' ? 'centre-line' : `offset-${axis}`),
  taken: 'taken',
  replaced: ({ reading: { axis } }) => axis,
  makesStale: 'nothing',
  describe: (entry, wording) => {
    const { axis, value } = pickUp(entry.reading, wording)
    return {
      says: `${entry.offset} ${axis} is ${formatWithUnit(value, wording.unit)}`,
      detail: [
        readingDetail(entry.reading),
        ...(entry.moved ? [`part zero put ${describeTyped(entry.moved)} along ${axis}`] : []),
      ].join(', '),
    }
  },
  group: 'zero',
  slim: 'whole',
  onMachine: ({ offset, reading: { axis } }) => [pickupSubject(offset, axis)],
  carried: true,
  written: 'at-machine',
})

/** Whether a fact is X or Y of an offset. */
export const isXOrY = ({ entry }: Link, offset: string) =>
  pickup.is(entry) && entry.offset === offset && entry.reading.axis !== 'Z'

/** The tool whose length a fact states or was found with. */
export const toolOf = ({ entry }: Pick<Link, 'entry'>): number | undefined =>
  measuredLength.is(entry)
    ? entry.tool
    : pickup.is(entry) && isHeight(entry.reading)
      ? entry.reading.tool
      : undefined

/** Lengths of one tool that differ by more than this are two lengths and not one measured twice, in mm: three times the doubt of their difference. */
const SAME_LENGTH_MM = 0.05

const lengthSchema = entrySchema('tool-length', { ...toolLengthReading.shape, machine: versionRef })

/** Whether a Z was found with a length of this tool that is not the one measured now. */
function foundWithOther(entry: z.output<typeof lengthSchema>, { entry: by }: Link): boolean {
  if (!pickup.is(by) || !isHeight(by.reading) || by.reading.tool !== entry.tool) return false
  const measured = toolLength(entry, { unit: 'mm', leastStep: 0 }).value
  const { value, unit } = by.reading.toolLength
  return Math.abs(convertLength(value, unit, 'mm') - measured) > SAME_LENGTH_MM
}

/** The length of a tool, which it keeps from one setup to the next. */
export const measuredLength = defineFact({
  schema: lengthSchema,
  upcast: [],
  subject: ({ tool }) => `tool-length/${tool}`,
  dependsOn: () => [],
  factKind: () => 'tool-length',
  taken: 'measured',
  replaced: 'the length of a tool',
  makesStale: (entry) => [
    {
      past: 'its tool was found to have another length',
      whom: (link) => foundWithOther(entry, link),
    },
  ],
  describe: (entry, wording) => ({
    says: `T${entry.tool} is ${formatWithUnit(toolLength(entry, wording).value, wording.unit)} long`,
    detail: Object.entries(entry)
      .flatMap(([name, part]) => partWords(name, part))
      .join(', '),
  }),
  group: 'zero',
  slim: 'whole',
  onMachine: ({ tool }) => [`tool-length/${tool}`],
  carried: false,
  written: 'at-machine',
})

/** The height of a tool setter, which the machine keeps. */
export const setter = defineEntry({
  schema: entrySchema('setter', { reading: setterReading, machine: versionRef }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ reading: of }, wording) => {
    const { value, doubt } = setterHeight(of, wording)
    const parts = Object.entries(of).flatMap(([name, part]) => partWords(name, part))
    return {
      says: `Tool setter at ${formatWithUnit(value, wording.unit)}, within ${formatWithUnit(doubt.value, wording.unit)}`,
      detail: [of.how === 'master' ? 'by a master' : 'taken over', ...parts].join(', '),
    }
  },
  group: 'zero',
  slim: 'whole',
  onMachine: () => ['setter'],
  carried: false,
  written: 'at-machine',
})

/** A lathe's work shift: one tool at the face of a part that was moved. */
export const shifted = defineFact({
  schema: entrySchema('work-shift', {
    offset: offsetName.describe('the tool whose geometry was used: T4'),
    reading: workShiftReading,
    rests: dependsOn(1, 1).describe('the Z of that tool'),
    machine: versionRef,
  }),
  upcast: [],
  subject: () => WORK_SHIFT,
  dependsOn: ({ rests }) => rests,
  factKind: () => 'work-shift',
  taken: 'taken',
  replaced: 'the work shift',
  makesStale: 'nothing',
  follow: () =>
    toolsTogether({
      isToolZ: ({ entry }) =>
        pickup.is(entry) && entry.reading.method === 'faced' && /^T\d/.test(entry.offset),
      looksAtPart: ({ entry }) => checked.is(entry),
    }),
  describe: (entry, wording) => {
    const { value, doubt } = workShift(entry.reading, wording)
    const parts = Object.entries(entry.reading).flatMap(([name, part]) => partWords(name, part))
    return {
      says: `Work shift ${formatWithUnit(value, wording.unit)}, within ${formatWithUnit(doubt.value, wording.unit)}`,
      detail: [`by ${entry.offset}`, ...parts].join(', '),
    }
  },
  group: 'zero',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

const IDENTIFIED = { right: 'the right part', turned: 'the other way round', wrong: 'not the right part' }

/** A look at the part: the right one, the right way round. */
export const identified = defineFact({
  schema: entrySchema('identified', identification.shape),
  upcast: [],
  subject: () => PART,
  dependsOn: () => [],
  factKind: () => 'part',
  taken: 'measured',
  replaced: 'the look at the part',
  makesStale: 'nothing',
  describe: (entry, { unit }) => ({
    says: `Part looked at: ${IDENTIFIED[identify(entry, unit).as]}`,
    detail: entry.distances
      .map(
        ({ name, measured, drawing, within }) =>
          `${name} ${describeTyped(measured)}, drawing ${describeTyped(drawing)} within ${describeTyped(within)}`,
      )
      .join('; '),
  }),
  group: 'zero',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** The block that was measured, against the part that is asked for. */
export const stock = defineFact({
  schema: entrySchema('stock', {
    offset: offsetName.describe('the offset whose part comes out of it'),
    asked: stockAsked,
    rests: dependsOn(1, 3).describe('the pickups that measured the block'),
  }),
  upcast: [],
  subject: ({ offset }) => stockSubject(offset),
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'compared',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: ({ offset, asked }) => {
    const { finished, offTop, offLow, zero, seat } = asked
    const sizes = [finished.X, finished.Y, ...(finished.Z ? [finished.Z] : [])].map(describeTyped)
    return {
      says: `Block of ${offset} held against a part of ${sizes.join(' by ')}`,
      detail: [
        `X zero at the ${ZERO_WORDS.X[zero.X]}, Y at the ${ZERO_WORDS.Y[zero.Y]}, Z at the ${ZERO_WORDS.Z[zero.Z]}`,
        `${describeTyped(offTop)} off the top`,
        ...(offLow.X ? [`${describeTyped(offLow.X)} off the left`] : []),
        ...(offLow.Y ? [`${describeTyped(offLow.Y)} off the front`] : []),
        ...(seat ? [`seat at ${describeTyped(seat)}`] : []),
      ].join(', '),
    }
  },
  group: 'zero',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** A pointed tool over part zero, looked at. */
export const checked = defineFact({
  schema: entrySchema('checked', {
    offset: offsetName,
    rests: dependsOn(1, 4).describe('the pickups that were looked at, and the look at the part'),
    result: z.enum(['agrees', 'off']),
    stood: z
      .object({ toolLength: typedLength, height: typedLength.describe('of the point above part zero') })
      .optional()
      .describe('where Z was stopped for the look'),
    byHand: z
      .literal(true)
      .optional()
      .describe('gone there by hand: the program that loads the offset and goes there was not taken'),
    note: words(300),
  }).refine(({ result, note }) => result === 'agrees' || note.length > 0, {
    error: 'Say how far off it stood, and which way.',
    path: ['note'],
  }),
  upcast: [],
  subject: ({ offset }) => checkSubject(offset),
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'checked',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: (entry) => ({
    says:
      entry.result === 'agrees'
        ? `${entry.offset} checked with a pointed tool: it stands over part zero`
        : `${entry.offset} checked with a pointed tool: it stands off`,
    detail: [
      ...(entry.stood
        ? [
            `point ${describeTyped(entry.stood.height)} above, tool length ${describeTyped(entry.stood.toolLength)}`,
          ]
        : []),
      ...(entry.byHand ? ['gone there by hand, without the program'] : []),
      ...(entry.note ? [entry.note] : []),
    ].join('. '),
  }),
  group: 'zero',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

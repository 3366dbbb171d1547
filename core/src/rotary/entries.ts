import type { z } from 'zod'
import { formatAngle } from '../angle/index.ts'
import { offsetName } from '../control/index.ts'
import { type Description, defineFact, entrySchema, versionRef, type Wording } from '../log/index.ts'
import { partWords } from '../pickup/index.ts'
import { describeTyped, formatWithUnit } from '../quantity/index.ts'
import { measureCentre } from './centre.ts'
import { centreReading, FLAT_METHODS, flatReading, type Sides } from './reading.ts'

export const CENTRE_LINE = 'centre-line'
export const flatSubject = (offset: string) => `flat/${offset}`

const centreLineSchema = entrySchema('centre-line', { reading: centreReading, machine: versionRef })
const flatSchema = entrySchema('flat', {
  offset: offsetName.describe('the offset whose rotary angle it gives'),
  reading: flatReading,
  machine: versionRef,
})

/** `says`: which flat, and where the rotary stood. `detail`: the readings as typed. What A comes to is told by the way that it counts. */
function flatWords({ offset, reading }: z.output<typeof flatSchema>): Description {
  const parts =
    reading.method === 'touches'
      ? [
          `faces ${reading.faces}`,
          ...[reading.first, reading.second].map(
            ({ y, z }, n) => `touch ${n + 1} at Y ${describeTyped(y)} Z ${describeTyped(z)}`,
          ),
        ]
      : Object.entries(reading).flatMap(([name, part]) => partWords(name, part))
  return {
    says: `Rotary's zero of ${offset} from a flat, touched at ${formatAngle(reading.turned)} deg`,
    detail: [
      FLAT_METHODS[reading.method],
      ...parts,
      `${formatAngle(reading.drawing)} deg in the program`,
    ].join(', '),
  }
}

/** `says`: where the centre line lies, and what runs out. `detail`: the readings as typed. */
function centreWords({ reading }: z.output<typeof centreLineSchema>, settings: Wording): Description {
  const { Y, Z, runsOut } = measureCentre(reading, settings)
  const at = [Y, Z].flatMap((of) => (of ? [`${of.axis} ${formatWithUnit(of.value, of.unit)}`] : []))
  const sides = (of: Sides) => [
    `at ${formatAngle(of.turned)} deg`,
    ...Object.entries(of).flatMap(([name, part]) => partWords(name, part)),
  ]
  const { first, half, height, ...rest } = reading
  return {
    says: `Rotary's centre line at ${at.join(', ')}${runsOut ? `; the part runs out ${formatWithUnit(runsOut.value, settings.unit)}` : ''}`,
    detail: [
      ...sides(first),
      ...(half ? sides(half) : []),
      ...Object.entries({ ...rest, ...height }).flatMap(([name, part]) => partWords(name, part)),
      ...(height ? [`T${height.tool}`] : []),
    ].join(', '),
  }
}

/** The centre line of a rotary. It minds neither clamping nor the vise. */
export const centreLine = defineFact({
  schema: centreLineSchema,
  upcast: [],
  subject: () => CENTRE_LINE,
  dependsOn: () => [],
  factKind: () => 'centre-line',
  taken: 'found',
  replaced: 'the centre line',
  makesStale: 'nothing',
  describe: centreWords,
  group: 'zero',
  slim: 'whole',
  onMachine: () => [CENTRE_LINE],
  carried: true,
  written: 'at-machine',
})

/** A rotary's zero from a flat of the part. */
export const flat = defineFact({
  schema: flatSchema,
  upcast: [],
  subject: ({ offset }) => flatSubject(offset),
  dependsOn: () => [],
  factKind: () => 'offset-A',
  taken: 'measured',
  replaced: 'the flat',
  makesStale: 'nothing',
  describe: flatWords,
  group: 'zero',
  slim: 'whole',
  onMachine: ({ offset }) => [flatSubject(offset)],
  carried: true,
  written: 'at-machine',
})

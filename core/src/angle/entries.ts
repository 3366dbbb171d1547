import type { z } from 'zod'
import { offsetName } from '../control/index.ts'
import {
  type Act,
  type Description,
  defineFact,
  entrySchema,
  type Link,
  versionRef,
  type Wording,
} from '../log/index.ts'
import { isXOrY, pointWords } from '../pickup/index.ts'
import { describeTyped } from '../quantity/index.ts'
import { formatAngle, measureAngle } from './measure.ts'
import { ANGLE_METHODS, angleAsked, angleReading } from './reading.ts'

export const angleSubject = (offset: string) => `angle/${offset}`

const angledSchema = entrySchema('angled', {
  offset: offsetName.describe('the offset whose part it is'),
  reading: angleReading,
  ...angleAsked.shape,
  machine: versionRef,
})
type Angled = z.output<typeof angledSchema>

/** Angles that differ by more than this many times the doubt of their difference are two angles and not one measured twice. By judgement. */
const SAME_ANGLE_DOUBTS = 3

/** Whether the part was found to lie otherwise than it did, though nobody said that it was moved: it was tapped square, or slipped. */
function liesOtherwise(now: Angled, before: Link | undefined): boolean {
  if (!before || !angled.is(before.entry) || before.reached) return false
  const [a, b] = [now, before.entry].map(({ reading }) => measureAngle(reading, { unit: 'mm', leastStep: 0 }))
  if (!a || !b) return false
  const apart = Math.abs(((a.value - b.value + 540) % 360) - 180)
  return apart > SAME_ANGLE_DOUBTS * Math.hypot(a.doubt.value, b.doubt.value)
}

const otherLie = ({ offset }: Angled): Act => ({
  past: 'the part was found to lie otherwise',
  whom: (each) => isXOrY(each, offset),
})

/** `says`: what came of it. `detail`: the points as typed. */
function angledWords({ offset, reading }: Angled, settings: Wording): Description {
  const { value, doubt } = measureAngle(reading, settings)
  const detail =
    reading.method === 'edge'
      ? reading.points.map(pointWords)
      : reading.method === 'holes'
        ? [reading.first, reading.second].map(pointWords)
        : reading.method === 'features'
          ? reading.features.map(({ name, measured }) => `${name} at ${pointWords(measured)}`)
          : [`base ${describeTyped(reading.base)}`]
  return {
    says: `Part of ${offset} lies at ${formatAngle(value)} deg, within ${formatAngle(doubt.value)}`,
    detail: [ANGLE_METHODS[reading.method], ...detail].join(', '),
  }
}

/** How the part lies against the drawing. */
export const angled = defineFact({
  schema: angledSchema,
  upcast: [],
  subject: ({ offset }) => angleSubject(offset),
  dependsOn: () => [],
  factKind: () => 'angle',
  taken: 'measured',
  replaced: 'the angle',
  makesStale: (entry, before) => (liesOtherwise(entry, before) ? [otherLie(entry)] : []),
  mayImply: (entry) => [otherLie(entry)],
  describe: angledWords,
  group: 'angle',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

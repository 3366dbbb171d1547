import type { Material } from '../cutting/index.ts'
import { type CycleCase, placesOf } from '../cycles/cycle/index.ts'
import {
  between,
  cutLetters,
  type EngraveParams,
  engraveSizes,
  hasSerial,
  holeUnder,
  pointsAlong,
} from '../cycles/engraving/index.ts'
import { tapSizes, widest } from '../cycles/tapping/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { formatLength } from '../quantity/index.ts'
import type { CycleSheet, Item } from './sheet.ts'

/** Where the line of a text runs, as points, half its width, and the box round it. */
interface Line {
  text: string
  half: number
  points: [number, number][]
  least: [number, number]
  greatest: [number, number]
}

function lineOf(params: EngraveParams, on: CycleCase, material: Material): Line {
  const sizes = engraveSizes(params, on, material)
  const half = sizes.lineWidth / 2
  const strokes = cutLetters(sizes).flatMap((letter) => letter.strokes)
  const points = pointsAlong(strokes, Math.max(sizes.height / 8, half))
  const least: [number, number] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY]
  const greatest: [number, number] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const point of points)
    for (const axis of [0, 1] as const) {
      least[axis] = Math.min(least[axis], point[axis])
      greatest[axis] = Math.max(greatest[axis], point[axis])
    }
  return { text: sizes.text, half, points, least, greatest }
}

/** Whether two lines come together; the boxes round them say at once where they cannot. */
function meet(a: Line, b: Line): boolean {
  const reach = a.half + b.half
  for (const axis of [0, 1] as const)
    if (a.least[axis] - reach > b.greatest[axis] || b.least[axis] - reach > a.greatest[axis]) return false
  return between(a.points, b.points) < reach
}

/** The holes that a cycle makes, with the largest radius that is cut at the top. */
function holesMade(item: Item, on: CycleCase, material: Material) {
  if (item.cycle !== 'tap') return []
  const { params } = item
  const sizes = tapSizes(params, on, material)
  const radius = widest(params, sizes)
  return placesOf(params, on.unit).map((place) => ({ ...place, radius }))
}

/** What the texts of a program have to do with its other cycles: one runs into a hole or another text, or counts twice. By cycle. */
export function neighbourFindings(
  { items }: Pick<CycleSheet, 'items'>,
  on: CycleCase,
  material: Material,
): Map<string, Finding[]> {
  const found = new Map<string, Finding[]>()
  const working = items.filter(({ off }) => !off)
  const lines = new Map<Item, Line>()
  for (const item of working) if (item.cycle === 'engrave') lines.set(item, lineOf(item.params, on, material))
  if (lines.size === 0) return found
  const holes = working.flatMap((item) => holesMade(item, on, material))
  const say = (value: number) => formatLength(value, on.unit)
  const counting = working.find((item) => item.cycle === 'engrave' && hasSerial(item.params.text))
  for (const [item, own] of lines) {
    const of: Finding[] = []
    const hole = holeUnder(own.points, holes, own.half)
    if (hole)
      of.push(
        finding(
          'look',
          'text-over-hole',
          'x',
          `The text runs into the hole at X ${say(hole.x)} Y ${say(hole.y)}.`,
          'What falls into the hole is missing, and its edge takes a burr.',
          'Move the text, or make it smaller.',
        ),
      )
    for (const [other, theirs] of lines)
      if (other !== item && meet(own, theirs))
        of.push(
          finding(
            'look',
            'text-over-text',
            'x',
            `It runs into the text ${theirs.text}.`,
            'Neither can be read.',
            'Move one of the two.',
          ),
        )
    if (item !== counting && item.cycle === 'engrave' && hasSerial(item.params.text))
      of.push(
        finding(
          'stop',
          'serial-again',
          'text',
          'Another text of this program carries a serial number.',
          'One part has one number; a control that counts would give it two.',
          'Keep one, or build the other as a program of its own.',
        ),
      )
    if (of.length > 0) found.set(item.id, of)
  }
  return found
}

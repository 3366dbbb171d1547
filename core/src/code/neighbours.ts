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
import { tapSizes } from '../cycles/tapping/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { formatLength } from '../quantity/index.ts'
import type { Item, Sheet } from './sheet.ts'

/** Where the line of a text runs, as points, and half its width. */
function lineOf(params: EngraveParams, on: CycleCase, material: Material) {
  const sizes = engraveSizes(params, on, material)
  const half = sizes.lineWidth / 2
  const strokes = cutLetters(sizes).flatMap((letter) => letter.strokes)
  return { text: sizes.text, half, points: pointsAlong(strokes, Math.max(sizes.height / 8, half)) }
}

/** The holes that a cycle makes, with the largest radius that is cut at the top. */
function holesMade(item: Item, on: CycleCase, material: Material) {
  if (item.cycle !== 'tap') return []
  const { params } = item
  const sizes = tapSizes(params, on, material)
  const radius = Math.max(
    params.chamfer ? sizes.chamfer.diameter / 2 : 0,
    params.drill ? sizes.drillDiameter / 2 : 0,
    params.tapping ? sizes.thread.major / 2 : 0,
  )
  return placesOf(params, on.unit).map((place) => ({ ...place, radius }))
}

/** What a text of a program has to do with the program's other cycles: it runs into a hole or another text, or counts twice. */
export function neighbourFindings(item: Item, of: Sheet, on: CycleCase, material: Material): Finding[] {
  if (item.cycle !== 'engrave') return []
  const others = of.items.filter((each) => each.id !== item.id && !each.off)
  const own = lineOf(item.params, on, material)
  const found: Finding[] = []
  const say = (value: number) => formatLength(value, on.unit)
  const hole = holeUnder(
    own.points,
    others.flatMap((each) => holesMade(each, on, material)),
    own.half,
  )
  if (hole)
    found.push(
      finding(
        'look',
        'text-over-hole',
        'x',
        `The text runs into the hole at X ${say(hole.x)} Y ${say(hole.y)}.`,
        'What falls into the hole is missing, and its edge takes a burr.',
        'Move the text, or make it smaller.',
      ),
    )
  for (const other of others) {
    if (other.cycle !== 'engrave') continue
    const theirs = lineOf(other.params, on, material)
    if (between(own.points, theirs.points) < own.half + theirs.half)
      found.push(
        finding(
          'look',
          'text-over-text',
          'x',
          `It runs into the text ${theirs.text}.`,
          'Neither can be read.',
          'Move one of the two.',
        ),
      )
    if (
      hasSerial(item.params.text) &&
      hasSerial(other.params.text) &&
      of.items.indexOf(other) < of.items.indexOf(item)
    )
      found.push(
        finding(
          'stop',
          'serial-again',
          'text',
          'Another text of this program carries a serial number.',
          'One part has one number; a control that counts would give it two.',
          'Keep one, or build the other as a program of its own.',
        ),
      )
  }
  return found
}

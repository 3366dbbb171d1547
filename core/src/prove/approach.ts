import { type Finding, finding } from '../fact/index.ts'
import { endOf, type Motion, ROW } from '../program/index.ts'
import { convertLength, formatLength, type LengthUnit } from '../quantity/index.ts'
import { rowsOfBlock } from './press.ts'
import { type KnownLengths, type Unmeasured, unmeasured } from './unmeasured.ts'

/** The first time a tool comes down to the part: what the operator should see as distance to go in Z, stop by stop. */
export interface Approach {
  tool: number
  /** The blocks that bring it down, in order. */
  stops: {
    block: number
    line: number
    /** Z to go when the block is about to run. */
    toGo: number
    /** Where the tip stands above the part's top before it runs (below: negative), and after. */
    above: number
    after: number
    /** What of these rests on a length that nobody measured: it is not to be shown as a number. */
    unknown?: Unmeasured
  }[]
}

/** More stops than these are not shown: the tool is down by then. */
const MOST_STOPS = 6

/** First approaches of every tool of a mill, against the height of the part's top, as far as the lengths of the tools are known. */
export function approaches(motion: Motion, top: number, lengths: KnownLengths): Approach[] {
  const found: Approach[] = []
  const done = new Set<number>()
  let current: Approach | undefined
  let tool = -1
  for (let block = 0; block < motion.blocks; block++) {
    const { from, to } = rowsOfBlock(motion, block)
    for (let row = from; row < to; row++) {
      const event = motion.kind[row] === ROW.EVENT ? motion.events[motion.aux[row] as number] : undefined
      if (event?.does === 'tool' || (tool < 0 && event === undefined)) {
        tool = motion.states[motion.state[row] as number]?.tool ?? 0
        current = done.has(tool) ? undefined : { tool, stops: [] }
        done.add(tool)
        if (current) found.push(current)
      }
      if (event || !current) continue
      const [before, after] = [endOf(motion, row - 1)[2], endOf(motion, row)[2]]
      const unknown = unmeasured(motion, row, lengths)
      if (before - after > 1e-9)
        current.stops.push({
          ...(unknown ? { unknown } : {}),
          block,
          line: motion.blockLine[block] as number,
          toGo: after - before,
          above: before - top,
          after: after - top,
        })
      // Once it is in the part, or has been shown often enough, the approach is over.
      if (after < top + 1e-9 || current.stops.length >= MOST_STOPS) current = undefined
      if (current && current.stops.length > 0 && motion.kind[row] === ROW.LINE) current = undefined
    }
  }
  return found.filter(({ stops }) => stops.length > 0)
}

/** What could make the control show something else. */
export interface ApproachFacts {
  unit: LengthUnit
  tool: number
  lengths: ReadonlyMap<number, number>
  /** Z of offsets by name, and the one in force. */
  offsetsZ: ReadonlyMap<string, number>
  offset: string
}

/** Differences smaller than this are the display's rounding, in mm. */
const SAME_MM = 0.02

/** Says which of offset, length or unit is off, from what the control shows against what it should. */
export function judgeApproach(expected: number, shown: number, facts: ApproachFacts): Finding {
  const { unit, tool, lengths, offsetsZ, offset } = facts
  const same = convertLength(SAME_MM, 'mm', unit)
  const near = (a: number, b: number) => Math.abs(a - b) <= same
  const say = (value: number) => formatLength(value, unit)
  if (near(shown, expected))
    return finding(
      'note',
      'approach-agrees',
      'shown',
      'It agrees.',
      `${say(expected)} is expected, ${say(shown)} is shown.`,
    )
  if (near(shown, -expected))
    return finding(
      'look',
      'approach-sign',
      'shown',
      `The same distance the other way: typed with the wrong sign, or the tool stands on the other side of the place.`,
      `${say(expected)} is expected.`,
      'Look at the sign on the control.',
    )
  const scaled = (
    [
      ['mm', 25.4],
      ['inch', 1 / 25.4],
    ] as const
  ).find(([, by]) => Math.abs(shown - expected * by) <= Math.max(same * by, Math.abs(expected * by) * 1e-3))
  if (scaled)
    return finding(
      'stop',
      'approach-unit',
      'shown',
      `The unit is off: what is shown is the expected distance in ${scaled[0]}.`,
      `${say(expected)} ${unit} is expected.`,
      'Check G20 and G21, and the unit of the control’s display.',
    )
  const off = shown - expected
  const own = lengths.get(tool)
  if (own !== undefined && near(off, -own))
    return finding(
      'stop',
      'approach-no-length',
      'shown',
      `The length of T${tool} is missing: it is off by just that, ${say(own)}.`,
      'Without G43 and its H the spindle nose goes to where the tip should.',
      `Do not press. Check G43 H${tool} and the length table.`,
    )
  if (own !== undefined && near(off, own))
    return finding(
      'stop',
      'approach-length-twice',
      'shown',
      `The length of T${tool} counts twice, or its sign is wrong: it is off by ${say(own)}.`,
      'The work offset may have been taken with the length in it already.',
      'Do not press. Check the length table and how Z was taken.',
    )
  for (const [other, length] of lengths)
    if (other !== tool && own !== undefined && near(off, length - own))
      return finding(
        'stop',
        'approach-other-length',
        'shown',
        `The length of T${other} is used instead of that of T${tool}.`,
        `They differ by ${say(length - own)}, and so does what is shown.`,
        `Do not press. Check H, and which tool is in the spindle.`,
      )
  const z = offsetsZ.get(offset)
  for (const [name, value] of offsetsZ)
    if (name !== offset && z !== undefined && near(off, value - z))
      return finding(
        'stop',
        'approach-other-offset',
        'shown',
        `${name} is in force instead of ${offset}.`,
        `Their Z differ by ${say(value - z)}, and so does what is shown.`,
        'Do not press. Check the work offset.',
      )
  return finding(
    'stop',
    'approach-off',
    'shown',
    `It is off by ${say(Math.abs(off))}, ${off < 0 ? 'too deep' : 'too high'}.`,
    `${say(expected)} is expected, ${say(shown)} is shown. It is no other length, offset or unit that Dogleg knows of.`,
    'Do not press. Compare the work offset, the tool length and the position on the control with the setup.',
  )
}

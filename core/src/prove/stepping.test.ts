import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference, housingProgram } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { type Motion, ROW, read } from '../program/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { pathPicture } from './picture.ts'
import { programFinding } from './program-finding.ts'
import {
  alongRow,
  blockAt,
  blockOfLine,
  blockOfRow,
  cumulate,
  nextBlock,
  nextFindingBlock,
  nextToolBlock,
} from './stepping.ts'

const [machine] = demoReference.machines as [Machine]
const [profile] = BUILT_IN_PROFILES as [Profile]
const motionOf = (text: string) => read(text, { machine, profile, unit: 'inch' }).motion
const lineAt = ({ blockLine }: Motion, block: number) => blockLine[block]

describe('stepping', () => {
  const CALLS = 'G20 G90\nG0 X1.\nM98 P5\nG0 X9.\nM30\nO5\nG0 X2.\nX3.\nM99'
  const calls = motionOf(CALLS)

  it('into a subprogram, or over it, forwards and back', () => {
    const through = (into: boolean, way: 1 | -1) => {
      const lines: (number | undefined)[] = []
      for (let at = way > 0 ? 0 : calls.blocks - 1; at >= 0 && at < calls.blocks; ) {
        lines.push(lineAt(calls, at))
        const next = nextBlock(calls, at, way, into)
        if (next === at) break
        at = next
      }
      return lines
    }
    expect(through(true, 1)).toEqual([1, 2, 3, 7, 8, 9, 4, 5])
    expect(through(false, 1)).toEqual([1, 2, 3, 4, 5])
    expect(through(false, -1)).toEqual([5, 4, 3, 2, 1])
  })

  it('to the next tool, to the next finding and round again, to a line', () => {
    const motion = motionOf(housingProgram)
    const first = nextToolBlock(motion, 0)
    expect(lineAt(motion, first)).toBe(8)
    expect(lineAt(motion, nextToolBlock(motion, first))).toBe(20)
    expect(nextToolBlock(motion, motion.blocks - 1)).toBe(motion.blocks)
    const findings = [14, 26].map((line) => programFinding('look', 'x', line, '', ''))
    const one = nextFindingBlock(motion, 0, findings) ?? -1
    const two = nextFindingBlock(motion, one, findings) ?? -1
    expect([one, two].map((block) => lineAt(motion, block))).toEqual([14, 26])
    expect(nextFindingBlock(motion, two, findings)).toBe(one)
    expect(blockOfLine(motion, 3)).toBeUndefined()
  })

  it('every row belongs to the block that makes it, and every time to a block', () => {
    const motion = motionOf(housingProgram)
    for (let row = 0; row < motion.count; row++) {
      const block = blockOfRow(motion, row)
      expect(motion.blockRow[block]).toBeLessThanOrEqual(row)
      expect(lineAt(motion, block)).toBe(motion.line[row])
    }
    const { rows, total } = cycleTime(motion, speedsOf(machine, profile, 'inch'))
    let sum = 0
    const sums = Float64Array.from(rows, (seconds) => {
      sum += seconds
      return sum
    })
    expect(blockAt(motion, sums, 0)).toBe(blockOfRow(motion, 0))
    expect(blockAt(motion, sums, total + 1)).toBe(blockOfRow(motion, motion.count - 1))
    const blocks = Array.from({ length: 50 }, (_, n) => blockAt(motion, sums, (total * n) / 50))
    expect(blocks).toEqual(blocks.toSorted((a, b) => a - b))
  })
})

describe('the picture of a path', () => {
  it('has every move once, joined end to end, with what comes before each row counted', () => {
    const motion = motionOf(housingProgram)
    const { rapid, feed, rapidBefore, feedBefore } = pathPicture(motion, speedsOf(machine, profile, 'inch'))
    expect(rapid.length / 6).toBe(rapidBefore[motion.count])
    expect(feed.length / 6).toBe(feedBefore[motion.count])
    for (let row = 0; row < motion.count; row++) {
      const pieces =
        (rapidBefore[row + 1] ?? 0) -
        (rapidBefore[row] ?? 0) +
        (feedBefore[row + 1] ?? 0) -
        (feedBefore[row] ?? 0)
      const kind = motion.kind[row]
      if (kind === ROW.EVENT) expect(pieces).toBe(0)
      else if (kind === ROW.LINE) expect(pieces).toBe(1)
    }
    // The last feed piece ends where the last feed row does.
    const last = [...motion.kind].findLastIndex((kind) => kind === ROW.LINE || kind === ROW.TAP_OUT)
    expect(feed.at(-1)).toBeCloseTo(motion.z[last] ?? Number.NaN, 5)
  })

  it('moves the tip along the path that is really taken, by its length', () => {
    // A dogleg of 3 along X and 1 along Y, both at one speed at once: first both, then X alone.
    const motion = motionOf('G20 G90 G0 X0. Y0. Z0.\nX3. Y1.\nM30')
    const once = Number.POSITIVE_INFINITY
    const speeds = { ...speedsOf(machine, profile, 'inch'), acceleration: [once, once, once] as const }
    const row = motion.count - 2
    const whole = Math.SQRT2 + 2
    expect(alongRow(motion, row, Math.SQRT2 / whole, speeds)).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(1, 9),
      0,
    ])
    expect(alongRow(motion, row, 1, speeds)).toEqual([3, 1, 0])
    expect(alongRow(motion, row, 0, speeds)).toEqual([0, 0, 0])
  })

  it('adds up the seconds of the rows', () => {
    expect([...cumulate(Float32Array.from([1, 0, 2.5]))]).toEqual([1, 1, 3.5])
  })
})

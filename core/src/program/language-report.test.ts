import { describe, expect, it } from 'vitest'
import { endOf, ROW } from './motion.ts'
import { read } from './read.ts'
import { moves, onMill, plain, rowsOf } from './testing.ts'

// Worked examples of the report on RS274/NGC (NISTIR 6556, 2000), from memory: their numbers
// were not compared with the print. Those of canned cycles (3.5.16) are in read.test.ts.
const on = onMill({ profile: plain })

describe('examples of the report on the language', () => {
  it('3.5.3.2: from X7 Y7 Z9, G17 G2 X10 Y16 I3 J4 Z9 is an arc about X10 Y11 with a radius of 5', () => {
    const { motion, diagnostics } = read(
      'G20 G90 F10.\nG1 X7. Y7. Z9.\nG17 G2 X10. Y16. I3. J4. Z9.\nM30',
      on,
    )
    expect(diagnostics).toEqual([])
    const row = rowsOf(motion).find((each) => motion.kind[each] === ROW.ARC_CW) as number
    const at = 6 * (motion.aux[row] as number)
    const [cx, cy, , sweep, from, to] = motion.arcs.subarray(at, at + 6)
    expect([cx, cy, from, to]).toEqual([10, 11, 5, 5])
    expect(sweep).toBeLessThan(0)
    expect(endOf(motion, row)).toEqual([10, 16, 9])
  })

  it('3.5.3.2: from another Z it is a helix', () => {
    const { motion } = read('G20 G90 F10.\nG1 X7. Y7. Z2.\nG17 G2 X10. Y16. I3. J4. Z9.\nM30', on)
    const row = rowsOf(motion).find((each) => motion.kind[each] === ROW.ARC_CW) as number
    expect([endOf(motion, row - 1)[2], endOf(motion, row)[2]]).toEqual([2, 9])
  })

  it('3.5.3.1: G17 G2 X10 Y15 R20 Z5 is the short way round, with a radius below 0 the long way', () => {
    const sweepOf = (r: number) => {
      const { motion } = read(`G20 G90 F10.\nG1 X0. Y0. Z5.\nG17 G2 X10. Y15. R${r}. Z5.\nM30`, on)
      const row = rowsOf(motion).find((each) => motion.kind[each] === ROW.ARC_CW) as number
      return motion.arcs[6 * (motion.aux[row] as number) + 3] as number
    }
    const half = Math.asin(Math.hypot(10, 15) / 2 / 20)
    expect(sweepOf(20)).toBeCloseTo(-2 * half, 9)
    expect(sweepOf(-20)).toBeCloseTo(2 * half - 2 * Math.PI, 9)
  })

  it('3.5.18: at X4 without offsets, G92 X7 makes it be called X7: the zero is at -3', () => {
    expect(moves('G20 G90 G0 X4.\nG92 X7.\nX0.\nM30', on).at(-1)).toMatch(/^rapid -3 /)
  })

  it('3.5.18: once more G92 counts from what was set before', () => {
    expect(moves('G20 G90 G0 X4.\nG92 X7.\nG0 X9.\nG92 X2.\nX0.\nM30', on).at(-1)).toMatch(/^rapid 4 /)
  })

  it('3.5.19: under G93 a feed of 2 is half a minute a move, whatever its length', () => {
    const { motion } = read('G20 G90 G93\nG1 X3. F2.\nX3.5 F2.\nM30', on)
    const rows = rowsOf(motion).filter((row) => motion.kind[row] === ROW.LINE)
    for (const row of rows) {
      const length = Math.hypot(
        ...endOf(motion, row).map((to, axis) => to - (endOf(motion, row - 1)[axis] as number)),
      )
      expect(length / (motion.feed[row] as number)).toBeCloseTo(0.5, 6)
    }
  })
})

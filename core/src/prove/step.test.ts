import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES } from '../control/index.ts'
import { demoReference, housingLayout, housingProgram, housingSlips, withSlip } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { judgeApproach } from './approach.ts'
import { pressOf } from './press.ts'
import { type Proof, type ProveCase, prove } from './prove.ts'

const [machine, lathe] = demoReference.machines as [Machine, Machine]
const [profile] = BUILT_IN_PROFILES as [(typeof BUILT_IN_PROFILES)[number]]
const lengths = [
  { tool: 3, length: 5.0265 },
  { tool: 7, length: 4.512 },
  { tool: 12, length: 3.125 },
]
const proofOf = (text: string, on = machine, known: ProveCase['lengths'] = lengths) =>
  prove({
    text,
    machine: on,
    profile,
    unit: 'inch',
    frame: 'G54',
    offsets: [{ name: 'G54', axes: { X: -18.351, Y: -6.1205, Z: -15.346 } }],
    lengths: known,
    tools: demoReference.tools,
    layout: housingLayout,
  })
const seen = (proof: Proof, isLathe = false) => ({
  motion: proof.program.motion,
  unit: 'inch' as const,
  speeds: proof.speeds,
  lathe: isLathe,
  top: proof.top,
})
const pressAt = (proof: Proof, line: number, isLathe = false) => {
  const block = [...proof.program.motion.blockLine].indexOf(line)
  return pressOf(seen(proof, isLathe), block)
}

describe('what the next press will do', () => {
  const proof = proofOf(housingProgram)
  it.each([
    [9, 'rapid, 17.1510 to the left, 7.8205 to the front at 10.8340 above the top of the part'],
    [10, 'spindle clockwise, 4500 rpm'],
    [11, 'rapid, 8.8340 down, to 2.0000 above the top of the part'],
    [13, 'feed, 0.4000 down, to 0.3000 below the top of the part'],
    [15, 'counter-clockwise arc, 0.2500 to the back at 0.3000 below the top of the part'],
  ])('line %d', (line, says) => {
    expect(pressAt(proof, line).says).toBe(says)
  })
  it('a tool change goes home first', () => {
    expect(pressAt(proof, 20).says).toMatch(/^rapid, 9\.8340 up, .*changes to T3$/)
  })
  it('says what it passes through', () => {
    const slip = housingSlips.find(({ code }) => code === 'return-low')
    const crash = slip && proofOf(withSlip(slip))
    if (!crash) throw new Error('no slip')
    const { motion } = crash.program
    const block = [...motion.blockLine].indexOf(26)
    expect(pressOf({ ...seen(crash), findings: crash.findings, bodies: crash.bodies }, block).says).toMatch(
      /^rapid, 2.3000 to the front at 0.1000 above the top of the part: passes through clamp 1, then the cycle G83/,
    )
  })
  it('distance to go is that of the first move, axis by axis, before the press', () => {
    expect(pressAt(proof, 12).toGo.map((each) => Number(each.toFixed(4)))).toEqual([0, 0, -1.9])
  })
  it('a cycle is said with its depth, and its path has every move', () => {
    const press = pressAt(proof, 24)
    expect(press.says).toMatch(/then the cycle G83: \d+ moves, to Z -0.9000/)
    expect(press.path.length).toBeGreaterThan(10)
  })
  it('on a lathe X is a diameter, inwards and towards the chuck', () => {
    const turned = proofOf('G20 T0101\nG0 X2. Z1.\nX1. Z-.5\nM30', lathe)
    expect(pressAt(turned, 3, true)).toMatchObject({
      says: 'rapid, 1.0000 inwards, 1.5000 towards the chuck',
      toGo: [-1, 0, -1.5],
    })
  })
})

describe('a text whose moves are turned', () => {
  const text = (mark: string) => `G20 G90 G17 G54\nG68 X0. Y0. R1.\nG0 X1. Y0. ${mark}\nG69\nM30`
  const codes = (of: string) =>
    proofOf(of).findings.flatMap(({ code, line }) => (code === 'turned-twice' ? [line] : []))
  it('is stopped where the control turns it once more', () => {
    expect(codes(text('(MOVES TURNED 1.000 DEG)'))).toHaveLength(1)
    expect(codes(text(''))).toEqual([])
    expect(codes(text('(MOVES TURNED 1.000 DEG)').replace('G68 X0. Y0. R1.', ''))).toEqual([])
    expect(proofOf(text('(MOVES TURNED 1.000 DEG)')).verdict).toBe('stop')
  })
})

describe('a length that nobody measured', () => {
  // The same program, with T3 measured and T7 not.
  const without = (stale?: string) =>
    proofOf(
      housingProgram,
      machine,
      lengths.flatMap((each) => (each.tool !== 7 ? [each] : stale ? [{ ...each, stale }] : [])),
    )
  const proof = without()
  const at = (line: number) =>
    pressOf({ ...seen(proof), lengths: proof.lengths }, [...proof.program.motion.blockLine].indexOf(line))

  it('gives no number for how far Z goes where it comes into force, and numbers again after it', () => {
    expect(at(11)).toMatchObject({ unknown: { tool: 7, toGo: true, before: true, after: false } })
    expect(at(11).says).toBe(
      'rapid, down by what the length of T7 leaves unknown, to 2.0000 above the top of the part',
    )
    expect(at(12).unknown).toBeUndefined()
    expect(at(12).says).toBe('rapid, 1.9000 down, to 0.1000 above the top of the part')
    expect(at(25).unknown).toBeUndefined()
    // Along X at the top: no height of the tip is said.
    expect(at(9).says).toBe('rapid, 17.1510 to the left, 7.8205 to the front')
  })

  it('is said stop by stop for the first time down, and for a stale length too', () => {
    for (const { approaches } of [proof, without('measured before its tool was measured again')]) {
      const [first, second] = approaches
      expect(first?.stops.map(({ unknown }) => unknown?.toGo ?? false)).toEqual([true, false, false])
      expect(second?.stops.every(({ unknown }) => unknown === undefined)).toBe(true)
    }
  })
})

describe('the first approach of a tool', () => {
  const { approaches } = proofOf(housingProgram)
  it('is what the control should show, stop by stop, above the part', () => {
    expect(approaches[0]).toMatchObject({
      tool: 7,
      stops: [
        { line: 11, toGo: -8.834, above: 10.834, after: 2 },
        { line: 12, toGo: -1.9, above: 2 },
        { line: 13 },
      ],
    })
  })
  const facts = {
    unit: 'inch' as const,
    tool: 7,
    lengths: new Map(lengths.map(({ tool, length }) => [tool, length])),
    offsetsZ: new Map([
      ['G54', -15.346],
      ['G55', -14],
    ]),
    offset: 'G54',
  }
  it.each([
    [-1.9, 'approach-agrees'],
    [-1.9 - 4.512, 'approach-no-length'],
    [-1.9 + 4.512, 'approach-length-twice'],
    [-1.9 + (5.0265 - 4.512), 'approach-other-length'],
    [-1.9 + 1.346, 'approach-other-offset'],
    [-1.9 * 25.4, 'approach-unit'],
    [-1.9 / 25.4, 'approach-unit'],
    [1.9, 'approach-sign'],
    [-2.4, 'approach-off'],
  ])('%d is %s', (shown, code) => expect(judgeApproach(-1.9, shown, facts).code).toBe(code))

  it('names the one slip that was made at the control, whatever the numbers', () => {
    /** Thousandths; the machine comes from home, Z 0, to a height above part zero. */
    const length = fc.integer({ min: 2000, max: 9000 }).map((value) => value / 1000)
    const zero = fc.integer({ min: -18_000, max: -12_000 }).map((value) => value / 1000)
    const slip = fc.constantFrom('none', 'no-length', 'other-length', 'other-offset', 'mm' as const)
    fc.assert(
      fc.property(length, length, zero, zero, slip, (own, other, z, otherZ, made) => {
        const height = 1
        /** What a control shows as distance to go, with these in its tables. */
        const toGo = (offset: number, used: number) => offset + used + height
        const expected = toGo(z, own)
        const shown = {
          none: expected,
          'no-length': toGo(z, 0),
          'other-length': toGo(z, other),
          'other-offset': toGo(otherZ, own),
          mm: expected * 25.4,
        }[made]
        // Where two slips come to the same number, either may be named.
        const scale = [expected * 24.4, expected * (1 / 25.4 - 1), -2 * expected]
        const numbers = [own, -own, other - own, otherZ - z, 0, ...scale]
        const far = numbers.every((a, n) => numbers.every((b, m) => n === m || Math.abs(a - b) > 0.05))
        fc.pre(far && Math.abs(expected) > 0.1)
        const judged = judgeApproach(expected, shown, {
          unit: 'inch',
          tool: 1,
          lengths: new Map([
            [1, own],
            [2, other],
          ]),
          offsetsZ: new Map([
            ['G54', z],
            ['G55', otherZ],
          ]),
          offset: 'G54',
        })
        const codes = {
          none: 'approach-agrees',
          'no-length': 'approach-no-length',
          'other-length': 'approach-other-length',
          'other-offset': 'approach-other-offset',
          mm: 'approach-unit',
        }
        expect(judged.code).toBe(codes[made])
      }),
    )
  })

  it('a wrong length shows at the first stop: the two agree with each other', () => {
    const slip = housingSlips.find(({ code }) => code === 'length-wrong')
    if (!slip) throw new Error('no slip')
    const [wrong] = proofOf(withSlip(slip)).approaches
    const off = (wrong?.stops[0]?.toGo ?? 0) - -8.834
    expect(judgeApproach(-8.834, -8.834 + off, facts).code).toBe('approach-other-length')
  })
})

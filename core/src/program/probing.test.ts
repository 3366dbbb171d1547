import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES } from '../control/index.ts'
import { ROW } from './motion.ts'
import { type Program, read } from './read.ts'
import { boxStandIn, type ReadOptions, type StandIn } from './read-options.ts'
import { complaints, onMill, testMill, twoLine } from './testing.ts'

const probe = { tool: 20, stylus: 0.25, reach: 2, body: 1.25, overtravel: 0.25 }
const machine = { ...testMill, probe }
const run = (text: string, more: Partial<ReadOptions> = {}): Program =>
  read(`G20 G90\n${text}\nM30`, onMill({ machine, ...more }))
const strict = (holds: StandIn['holds']): StandIn => ({ holds, strict: true })
/** Results of the compact profile. */
const [X, Y, Z, SIZE, ANGLE] = [185, 186, 187, 188, 189]

describe('what a probe finds is where the part is (geometry)', () => {
  it('a bore anywhere within reach has its true diameter and centre: across, across from the middle, across again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: 600, max: 3000 }),
        (dx, dy, d) => {
          const [cx, cy, radius] = [1 + dx / 1000, 2 + dy / 1000, d / 2000]
          const standIn = strict((x, y, z) => z < 0 && Math.hypot(x - cx, y - cy) >= radius)
          const { variables, alarm } = run(`G0 X1. Y2. Z-.5\nG65 P9814 D${(2 * radius).toFixed(4)} Q.2`, {
            standIn,
          })
          expect(alarm).toBeUndefined()
          expect(variables.get(X)).toBeCloseTo(cx, 8)
          expect(variables.get(Y)).toBeCloseTo(cy, 8)
          expect(variables.get(SIZE)).toBeCloseTo(2 * radius, 7)
        },
      ),
    )
  })

  it('an edge that leans has its angle, counter-clockwise positive, touched along either axis from either side', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -200, max: 200 }),
        fc.constantFrom('X', 'Y'),
        fc.constantFrom(1, -1),
        (hundredths, axis, way) => {
          const degrees = hundredths / 100
          const t = Math.tan((degrees * Math.PI) / 180)
          // Turned counter-clockwise, a face along Y goes to X minus as Y grows; one along X to Y plus as X grows.
          const standIn = strict((x, y, z) => z < 0 && way * (axis === 'X' ? x + t * y : y - t * x) >= 0)
          const at = axis === 'X' ? `X${-way * 0.5} Y0.` : `X0. Y${-way * 0.5}`
          const { variables } = run(`G0 ${at} Z-.5\nG65 P9843 ${axis}0. D2. Q.2`, { standIn })
          expect(variables.get(ANGLE)).toBeCloseTo(degrees, 6)
        },
      ),
    )
  })

  it('the ball stops half its width before the face, and the result is the face', () => {
    const standIn = boxStandIn([0, 0, -1], [4, 2, 0])
    const { motion, variables } = run('G0 X-.5 Y1. Z-.5\nG65 P9811 X.02 Q.1', { standIn })
    const touches = [...motion.kind].flatMap((kind, row) => (kind === ROW.PROBE ? [motion.x[row]] : []))
    expect(touches[0]).toBeCloseTo(-0.125, 9)
    expect(variables.get(X)).toBe(0)
    expect(run('G0 X1. Y1. Z1.\nG65 P9811 Z.03 Q.1', { standIn }).variables.get(Z)).toBe(0)
  })
})

describe('what a probe does not find stops the program, where the part is held to be what it is', () => {
  const block = strict((x, y, z) => x >= 0 && x <= 4 && y >= 0 && y <= 2 && z <= 0)
  it.each<[string, string, string | undefined]>([
    ['a face', 'G0 X-.5 Y1. Z-.5\nG65 P9811 X0. Q.1', undefined],
    ['nothing', 'G0 X-.5 Y1. Z-.5\nG65 P9811 X-.3 Q.1', 'met nothing'],
    ['a move through it', 'G0 X-.5 Y1. Z-.5\nG65 P9810 X5.', 'met something'],
    ['a move beside it', 'G0 X-.5 Y3. Z-.5\nG65 P9810 X5.', undefined],
    ['a start in it', 'G0 X1. Y1. Z-.5\nG65 P9811 X2. Q.1', 'stood against'],
  ])('%s', (_, text, says) => {
    const { alarm, variables } = run(`${text}\n#100= 1`, { standIn: block })
    if (says === undefined) expect(alarm).toBeUndefined()
    else expect(alarm?.says).toContain(says)
    expect(variables.has(100)).toBe(says === undefined)
  })
})

describe('what a program leaves behind', () => {
  it('its variables, those that were there before it, and its alarm with number, line and words', () => {
    const { variables, alarm } = run('#101= #100 + 1\nIF [#101 GT 2] THEN #3000= 7 (TOO FAR)\n#102= 1', {
      variables: new Map([[100, 1.5]]),
    })
    expect([...variables]).toEqual([
      [100, 1.5],
      [101, 2.5],
    ])
    expect(alarm).toEqual({ line: 3, number: 7, says: 'TOO FAR' })
  })

  it.each([
    ['DPRNT[BORE*A*#100[44]]', 'BORE A 1.2346'],
    ['DPRNT[#100[22]*#101[40]]', '1.23 -3'],
    ['POPEN\nDPRNT[NOT*SET*#102[43]]\nPCLOS', 'NOT SET 0.000'],
  ])('%s prints "%s"', (text, line) => {
    const variables = new Map([
      [100, 1.23456],
      [101, -3],
    ])
    expect(run(text, { variables }).printed).toEqual([line])
  })
  it('what is no line to print is said', () => {
    expect(complaints('G20\nDPRNT[#100]', onMill())).toEqual(['statement 2'])
    expect(complaints('G20\nDPRNT', onMill())).toEqual(['statement 2'])
  })

  it('calls and reads: which tool, how it turned, whether it was on, what was held back', () => {
    const { probing } = run(
      'T20 M6\nM3 S500\nG65 P9832\nG103 P1\nG0 X0. Y0. Z-.1\nG65 P9811 X.2 Q.07\n#100= #185\nG103\n#101= #188',
    )
    expect(probing.calls.map(({ macro, tool, turning, on }) => [macro, tool, turning, on])).toEqual([
      ['on', 20, 3, false],
      ['surface', 20, 3, true],
    ])
    expect(probing.calls[1]).toMatchObject({ over: 0.07, results: [X] })
    expect(probing.reads).toEqual([
      { line: 8, variable: X, held: true, call: 1 },
      { line: 10, variable: SIZE, held: false, call: 1 },
    ])
  })

  it('in every profile the results go to its own variables', () => {
    for (const profile of BUILT_IN_PROFILES) {
      if (!profile.probing) continue
      const { probing } = run(`G0 X0. Y0. Z-.1\nG65 P${profile.probing.boreBoss} D1. Q.1`, { profile })
      const { results } = profile.probing
      expect(probing.calls[0]?.results).toEqual([results.X, results.Y, results.size])
    }
    expect(twoLine.probing?.results.size).toBe(138)
  })
})

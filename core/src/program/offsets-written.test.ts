import { describe, expect, it } from 'vitest'
import { read } from './read.ts'
import { boxStandIn } from './read-options.ts'
import { compact, complaints, moves, onLathe, onMill, twoLine } from './testing.ts'

// G10 L2 (RS274/NGC, NISTIR 6556, 3.5.6, from memory); L20 for further offsets is common practice and the profile's.

const G54 = { X: -10, Y: -5, Z: -15 }
const known = onMill({
  offsets: new Map([
    ['G54', G54],
    ['G55', { X: -12, Y: -5, Z: -15 }],
  ]),
})
const ends = (text: string, options = known) => moves(text, options).at(-1)

describe('an offset that a program writes', () => {
  it.each([
    // Written where it stood: nothing moves. Half an inch further right: the tool goes there.
    ['G10 L2 P1 X-10. Y-5. Z-15.', 'rapid 1 1 1'],
    ['G10 L2 P1 X-9.5', 'rapid 1.5 1 1'],
    ['G10 L2 P1 X-10. Z-14.', 'rapid 1 1 2'],
    ['G91 G10 L2 P1 X.5\nG90', 'rapid 1.5 1 1'],
    // Another offset than the one in force, until it is called.
    ['G10 L2 P2 X-9.', 'rapid 1 1 1'],
    ['G10 L2 P2 X-9.\nG55', 'rapid 2 1 1'],
    ['G10 L20 P7 X-8. Y-5. Z-15.\nG154 P7', 'rapid 3 1 1'],
  ])('%s: what comes after goes by it', (line, last) => {
    const text = `G20 G90 G54\n${line}\nG0 X1. Y1. Z1.`
    expect(ends(text)).toBe(last)
    expect(complaints(`${text}\nM30`, known)).toEqual(['loads-offset 2'])
  })

  it('is in the unit of the program, and a variable that shows it shows what was written', () => {
    expect(ends('G21 G90 G54\nG10 L2 P1 X-241.3\nG0 X25.4 Y25.4 Z25.4')).toBe('rapid 1.5 1 1')
    expect(ends('G21 G90 G54\n#5221=-241.3\nG0 X25.4 Y25.4 Z25.4')).toBe('rapid 1.5 1 1')
    expect(ends('G20 G90 G54\n#5241=-9.\nG55 G0 X1. Y1. Z1.')).toBe('rapid 2 1 1')
    expect(ends('G20 G90 G54\nG10 L2 P2 X-9.\n#1=#5241+10.\nG0 X#1 Y1. Z1.')).toBe('rapid 1 1 1')
  })

  it('is not followed where nobody can say how far: the old message stands, and the path goes on as it was', () => {
    const unknown = onMill()
    expect(moves('G20 G90 G54\nG10 L2 P1 X-9.\nG0 X1. Y1. Z1.', unknown).at(-1)).toBe('rapid 1 1 1')
    for (const [line, options] of [
      ['G10 L2 P1 X-9.', unknown],
      ['G91 G10 L20 P9 X1.', known],
      ['G10 P1 X-9.', onLathe()],
    ] as const)
      expect(
        read(`G20 G90\n${line}\nM30`, options).diagnostics.find(({ code }) => code === 'offset-not-followed')
          ?.says,
      ).toContain('is used as it was before')
  })
})

describe('the tables of tools that a program writes (G10 L10 to L13, common practice)', () => {
  const lengths = new Map([[3, 4]])
  const radii = new Map([[3, 0.25]])
  const profile = { ...compact, reading: { ...compact.reading, noPoint: 'whole' as const } }
  const of = onMill({ lengths, radii, profile })
  const z = (text: string) => moves(`G20 G90 T3 M6\n${text}\nG43 H3 G0 X0. Y0. Z1.`, of).at(-1)
  const looks = (text: string, options = of) =>
    read(`G20 G90 T3 M6\n${text}\nM30`, options).diagnostics.map(({ code, does }) => `${code}: ${does}`)

  it('a length: the tip goes as much higher or deeper as it is more or less than the tool has', () => {
    expect(z('')).toBe('rapid 0 0 1')
    expect(z('G10 L10 P3 R4.')).toBe('rapid 0 0 1')
    expect(z('G10 L10 P3 R3.9')).toBe('rapid 0 0 0.9')
    expect(z('G91 G10 L10 P3 R.1\nG90')).toBe('rapid 0 0 1.1')
    expect(z('#2003=3.9')).toBe('rapid 0 0 0.9')
    expect(z('G91\n#2003=3.9\nG90')).toBe('rapid 0 0 0.9')
    expect(z('G21 G10 L10 P3 R99.06\nG20')).toBe('rapid 0 0 0.9')
    expect(z('#2003=#2003-.1')).toBe('rapid 0 0 0.9')
    expect(looks('G10 L10 P3 R3.9')).toEqual([
      'loads-length: It is 0.1 less than the setup has: the tip goes that much deeper.',
    ])
    expect(looks('G10 L10 P3 R4.')).toEqual(['loads-length: It is what the setup has.'])
    expect(looks('G10 L10 P5 R4.')[0]).toContain('no length of that tool')
  })

  it('a diameter or its wear: compensation goes by it', () => {
    const side = (line: string) =>
      moves(`G20 G90 T3 M6\n${line}\nG0 X0. Y0. Z0.\nG1 G42 D3 X1. F9.\nY1.\nG40 Y2.`, of).filter((each) =>
        each.startsWith('line'),
      )[0]
    expect(side('')).toBe('line 1.25 0 -4')
    expect(side('G10 L12 P3 R.6')).toBe('line 1.3 0 -4')
    expect(side('G91 G10 L12 P3 R.1\nG90')).toBe('line 1.3 0 -4')
    expect(side('G10 L13 P3 R.02')).toBe('line 1.26 0 -4')
    expect(side('G10 L12 P3 R.6\nG10 L13 P3 R.02')).toBe('line 1.31 0 -4')
  })

  it('stops where it is not followed: a tool that nobody knows, in increments; on a lathe; another table; no number', () => {
    for (const [line, options] of [
      ['G91 G10 L10 P9 R.1', of],
      ['G10 L10 R4.', of],
      ['G10 L10 P3', of],
      ['G10 L14 P3 R4.', of],
      ['G10 L10 P0 R4.', of],
      ['G10 L10 P3 R4.', onLathe()],
    ] as const)
      expect(looks(line, options).map((each) => each.split(':')[0])).toContain('offset-not-followed')
  })
})

describe('the angle of a rotary in an offset', () => {
  const turns = (text: string, zeros: Record<string, number>) => {
    const program = read(`G20 G90 G54\n${text}\nM30`, {
      ...known,
      rotaryZeros: new Map(Object.entries(zeros)),
    })
    const { motion, offsets } = program
    return {
      last: motion.rotary ? motion.rotary[motion.count - 1] : 0,
      codes: program.diagnostics.map(({ code }) => code),
      written: offsets.map(({ offset, rotary }) => `${offset} ${rotary}`),
    }
  }

  it('counts from the main offset: another one, or one that is written, turns as much further', () => {
    const zeros = { G54: 10, G55: 100 }
    expect(turns('G0 A30.', zeros)).toMatchObject({ last: 30, codes: [] })
    expect(turns('G55 G0 A30.', zeros)).toMatchObject({ last: 120, codes: [] })
    expect(turns('G55 G0 A30.\nG91 G0 A5.', zeros)).toMatchObject({ last: 125 })
    expect(turns('G10 L2 P1 A12.5\nG0 A30.', zeros)).toMatchObject({
      last: 32.5,
      codes: ['loads-offset'],
      written: ['G54 12.5'],
    })
    expect(turns('G91 G10 L2 P2 A-5.\nG90 G55\nG0 A0.', zeros)).toMatchObject({ last: 85 })
    expect(turns('G10 L2 P1 X-9.5 A12.5\nG0 A0.', zeros)).toMatchObject({ last: 2.5, written: ['G54 12.5'] })
  })

  it('says where it is turned in an offset whose angle nobody knows, and does not follow one from nowhere', () => {
    expect(turns('G55 G0 A30.', { G54: 10 })).toMatchObject({ last: 30, codes: ['rotary-not-known'] })
    expect(turns('G55 G0 A30.', {})).toMatchObject({ last: 30, codes: [] })
    expect(turns('G10 L2 P1 A12.5\nG0 A30.', {})).toMatchObject({
      last: 30,
      codes: ['offset-not-followed'],
      written: [],
    })
    expect(turns('G91 G10 L2 P2 A12.5', { G54: 0 })).toMatchObject({
      codes: ['offset-not-followed'],
      written: [],
    })
  })
})

describe('a probe call with S', () => {
  const part = boxStandIn([0.1, -0.2, -1], [2.1, 1.8, 0.05])
  const probed = (line: string, profile = compact, offset = 'G54') =>
    read(`G20 G90 ${offset}\nG0 X1. Y.8 Z.5\n${line}\nM30`, {
      ...known,
      profile,
      machine: { ...known.machine, probe: { tool: 20, stylus: 0.2, reach: 2, body: 1, overtravel: 0.2 } },
      frame: offset,
      offsets: new Map([[offset, G54]]),
      standIn: part,
    })
  const written = (line: string, profile = compact, offset = 'G54') =>
    probed(line, profile, offset).offsets.map(({ offset: name, axes }) => [
      name,
      ...Object.entries(axes).map(([axis, value]) => `${axis}${Number(value.toFixed(6))}`),
    ])

  // The part lies a tenth further right, two tenths nearer and 0.05 higher than it was said to: so does the offset then.
  it.each([
    ['G65 P9811 Z0. S1', [['G54', 'Z-14.95']]],
    ['G65 P9812 X2. Z-.2 R.2 S1', [['G54', 'X-9.9']]],
    ['G65 P9812 Y2. Z-.2 R.2 S1', [['G54', 'Y-5']]],
    ['G65 P9814 D2. Z-.2 R.2 S1', [['G54', 'X-9.9', 'Y-5']]],
    ['G65 P9811 Z0.', []],
  ])('%s moves the offset by as much as the feature lies elsewhere', (line, expected) => {
    expect(written(line)).toEqual(expected)
  })

  it('names further offsets as the profile has them', () => {
    expect(written('G65 P9811 Z0. S154.07', compact, 'G154 P7')).toEqual([['G154 P7', 'Z-14.95']])
    expect(written('G65 P9811 Z0. S107.', twoLine, 'G54.1 P7')).toEqual([['G54.1 P7', 'Z-14.95']])
  })

  it('of an offset that the control lacks is an alarm of the macro', () => {
    expect(probed('G65 P9811 Z0. S77').diagnostics.map(({ code }) => code)).toContain('probe-words')
  })

  it('keeps each variable that it sets with the block that did', () => {
    const { sets, motion } = probed('G65 P9811 Z0. S1\n#101= #187')
    const line = (block: number) => motion.blockLine[block]
    expect(sets.map(({ variable, value, block }) => [variable, value, line(block)])).toEqual([
      [187, 0.05, 3],
      [101, 0.05, 4],
    ])
  })
})

import { describe, expect, it } from 'vitest'
import type { Driven } from '../control/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { explainWord } from './explain.ts'
import { endOf, FLAG, ROW } from './motion.ts'
import { read } from './read.ts'
import { complaints, DRIVEN, onLathe, onMill, rowsOf, withDriven } from './testing.ts'

const driving = (more: Partial<Driven> = {}) =>
  onLathe({ profile: withDriven({ ...DRIVEN, face: null, ...more }) })
const HEAD = 'G20 G98 T0505\nM154\nM133 P3000\n'
const program = (text: string) => `${HEAD}${text}\nM135\nM155\nG28 U0.\nM30`

/** Radius, Z and angle of the rows that move. */
const places = (text: string, options = driving()) => {
  const { motion } = read(program(text), options)
  return rowsOf(motion)
    .filter((row) => motion.kind[row] !== ROW.EVENT && (motion.line[row] as number) > 3)
    .map((row) => {
      const [x, , z] = endOf(motion, row)
      return `${motion.kind[row]} ${x} ${Number(z.toFixed(6))} ${motion.rotary?.[row] ?? 0}`
    })
}

describe('the spindle of a lathe as an axis (common practice)', () => {
  it('turns to C, and by H from where it stands', () => {
    expect(places('G0 X2. Z.1 C90.\nH-30.\nG1 Z-.2 H10. F5.').slice(0, 3)).toEqual([
      `${ROW.RAPID} 1 0.1 90`,
      `${ROW.RAPID} 1 0.1 60`,
      `${ROW.LINE} 1 -0.2 70`,
    ])
  })

  it('drills a circle of holes in the face, each by its angle alone, by the words of the first', () => {
    const found = places('G0 X2. Z.5\nG83 C0. Z-.5 R.1 Q.3 F5.\nC120.\nH120.\nG80\nG0 Z1.')
    const bottoms = found.filter((each) => each.includes(' -0.5 '))
    expect(bottoms).toEqual([`${ROW.LINE} 1 -0.5 0`, `${ROW.LINE} 1 -0.5 120`, `${ROW.LINE} 1 -0.5 240`])
    // A peck of 0.3 from 0.1 down to -0.5: twice.
    expect(found.filter((each) => each === `${ROW.LINE} 1 -0.2 120`)).toHaveLength(1)
  })

  it('what a driven tool cuts is not cut with everything standing, and its speed is that of the feed by the turn', () => {
    const { motion } = read(program('G0 X2. Z.1 C0.\nG1 Z-.2 F5.'), driving())
    const cuts = rowsOf(motion).filter((row) => motion.kind[row] === ROW.LINE)
    expect(cuts.every((row) => (motion.flags[row] as number) & FLAG.SPINDLE)).toBe(true)
    expect(motion.states[motion.state[cuts[0] as number] as number]).toMatchObject({ rpm: 3000, turning: 3 })
    expect(motion.events).toContainEqual({ does: 'spindle', rpm: 3000, turning: 3, driven: true })
  })

  it('the driven tool speeds up and stops by itself: the spindle need not', () => {
    const options = driving()
    const speeds = { ...speedsOf(options.machine, options.profile, 'inch'), spindleAcceleration: 50 }
    const spindleTime = (text: string) => cycleTime(read(text, options).motion, speeds).parts.spindle
    // 3000 rpm is 50 turns a second: 1 s up and 1 s down.
    expect(spindleTime(program(''))).toBeCloseTo(2, 6)
    expect(spindleTime('G20 T0505\nG97 S1500 M3\nM133 P3000\nM135\nM5\nM30')).toBeCloseTo(
      0.5 + 1 + 1 + 0.5,
      6,
    )
  })

  it.each([
    ['an angle before the axis is on', 'G20 G98 T0505\nG0 C90.\nM30', 'axis-off 2'],
    ['the axis on a spindle that turns', 'G20 G97 T0505 S500 M3\nM154\nM30', 'axis-turning 2'],
    ['the spindle started as an axis', program('S500 M3'), 'axis-started 4'],
    ['a driven tool without a speed', 'G20 T0505\nM133\nM30', 'driven-no-speed 2'],
    ['feed by the turn of nobody', program('G99 G1 X2. F.005'), 'driven-feed 4'],
    ['tapping by a driven tool', program('G84 X2. Z-.5 R.1 F10.'), 'driven-tap 4'],
    ['an angle along an arc', program('G18 G0 X2. Z0.\nG2 X2.4 Z-.2 R.2 F5. C30.'), 'word-not-seen 5'],
    ['an angle in a turning pass', program('G0 X2. Z0.\nG90 X1.5 Z-1. C30. F5.'), 'word-not-seen 5'],
    [
      'an angle in a threading cycle',
      program('G0 X2. Z0.\nG76 X1.5 Z-1. P500 Q200 F.05 C30.'),
      'word-not-seen 5',
    ],
  ])('says at its line: %s', (_, text, expected) => {
    expect(complaints(text, driving())).toContain(expected)
  })

  it.each([
    ['no codes for the axis', { axis: null }, 'G20 G98 T0505\nM133 P100\nG0 C90.\nM135\nM30'],
    [
      'M3 and S for the driven tool',
      { turns: { clockwise: 13, counter: 14, off: 15, speed: 'S' } },
      'G20 G98 T0505\nM154\nM13 S900\nG1 Z-1. C5. F9.\nM15\nM30',
    ],
  ] as const)('is right by the profile: %s', (_, more, text) => {
    expect(complaints(text, driving(more))).toEqual([])
  })

  it('no word of it is seen where the profile has none', () => {
    const found = complaints(program('G0 C90.'), onLathe({ profile: withDriven(null) }))
    expect(found).toEqual(expect.arrayContaining(['unknown-code 2', 'unknown-code 3', 'word-not-seen 4']))
  })

  it('on a mill a rotary along an arc is a stop too', () => {
    expect(complaints('G20 G90 G54 G1 X0. Y0. F5.\nG2 X1. Y0. I.5 A90.\nM30', onMill())).toContain(
      'word-not-seen 2',
    )
  })

  it('each of its words is explained by what the profile has, on a lathe only', () => {
    const face = { on: 'G112', off: 'G113', x: 'radius', across: 'Y' } as const
    const profile = withDriven({ ...DRIVEN, face })
    const says = (letter: string, value: number, kind: 'mill' | 'lathe' = 'lathe') =>
      explainWord(letter, value, kind, profile)
    expect(says('M', 133)).toBe('Driven tool on, clockwise: P is its speed in rpm.')
    expect(says('M', 134)).toMatch(/counter-clockwise: P/)
    expect(says('M', 135)).toBe('Driven tool off.')
    expect(says('M', 154)).toBe('Makes the spindle an axis.')
    expect(says('M', 155)).toBe('Lets the spindle go as an axis.')
    expect(says('G', 112)).toBe('Polar interpolation: X and Y make the face of the part.')
    expect(says('G', 113)).toBe('Polar interpolation off.')
    expect(says('C', 30)).toBe('angle of the spindle, degrees')
    expect(explainWord('C', 30, 'lathe', withDriven({ ...DRIVEN, face: { ...face, across: 'C' } }))).toMatch(
      /on the face, a length across X$/,
    )
    expect(says('H', 5)).toMatch(/from where the spindle stands/)
    expect([says('M', 133, 'mill'), says('G', 112, 'mill')]).toEqual([undefined, undefined])
    expect(says('C', 1, 'mill')).toMatch(/rotary axis about Z/)
    expect(explainWord('M', 154, 'lathe', withDriven(null))).toBeUndefined()
  })
})

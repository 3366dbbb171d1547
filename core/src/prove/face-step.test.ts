import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Driven, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { speedsOf } from '../timing/index.ts'
import { pressOf } from './press.ts'

const [, machine] = demoReference.machines as [Machine, Machine]
const [compact] = BUILT_IN_PROFILES as readonly [Profile]
const FACE = { on: 'G112', off: 'G113', x: 'diameter', across: 'Y' } as const
const driving = (face: Driven['face'] = FACE): Profile => ({
  ...compact,
  reading: { ...compact.reading, driven: { turns: null, axis: null, face } },
})

/** What the press at a line does. */
function pressAt(line: number, profile = driving()) {
  const text =
    'G20 G98 T0101\nG0 X2. Z0.1 C0.\nC90.\nC0.\nG112\nG1 X1. Y.5 F10.\nG3 X-1. R.5\nZ-.1\nG113\nM30'.replace(
      'Y',
      profile.reading.driven?.face?.across ?? 'Y',
    )
  const { motion } = read(text, { machine, profile, unit: 'inch' })
  const speeds = speedsOf(machine, profile, 'inch')
  return pressOf(
    { motion, unit: 'inch', speeds, lathe: true, top: undefined },
    [...motion.blockLine].indexOf(line),
  )
}

describe('a press at a lathe whose spindle turns to an angle', () => {
  it('shows the angle to go where it is an axis', () => {
    expect(pressAt(3)).toMatchObject({ turns: 90, toGo: [0, 0, 0], says: 'rapid, turning 90°' })
    expect(pressAt(4).turns).toBe(-90)
  })

  it('on the face it shows what is written to go, and the pieces are one move', () => {
    const straight = pressAt(6)
    expect(straight.across).toBe('Y')
    expect(straight.turns).toBeUndefined()
    expect(straight.toGo.map((each) => Number(each.toFixed(9)))).toEqual([-1, 0.5, 0])
    // From (1, 0) to (0.5, 0.5) on the part: 45 degrees.
    expect(straight.says).toBe('feed on the face, X -1.0000, Y 0.5000, turning 45°')
    const round = pressAt(7)
    expect(round.rows.to - round.rows.from).toBeGreaterThan(10)
    expect(round.says).toBe('feed on the face, X -2.0000, turning 90°')
  })

  it('X as a radius, and the letter of the profile', () => {
    const other = pressAt(6, driving({ on: 'G112', off: 'G113', x: 'radius', across: 'C' }))
    expect(other.toGo.map((each) => Number(each.toFixed(9)))).toEqual([0, 0.5, 0])
    expect(other.across).toBe('C')
  })
})

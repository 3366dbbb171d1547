import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import type { Profile } from '../control/index.ts'
import { read } from './read.ts'
import { compact, complaints, moves, onLathe, onMill, plain, twoLine } from './testing.ts'

const pointed = (of: Profile): Profile => ({ ...of, reading: { ...of.reading, noPoint: 'whole' } })
const radii = new Map([[1, 0.1]])
const MILL = onMill({ profile: pointed(twoLine), radii })
const COMMA = onLathe({ profile: pointed(twoLine) })
const WORDS = onLathe({ profile: pointed(compact) })
const HEAD = 'G20 G90 G17 F10.\nG0 X0. Y0. Z0.\n'
const TURN = 'G20 T0101\nG97 S500 M3\nG98 F10.\nG0 X2. Z.1\n'
const path = (text: string, options = MILL, head = HEAD) => moves(`${head}${text}\nM30`, options).slice(1)
const said = (text: string, options = MILL, head = HEAD) => complaints(`${head}${text}\nM30`, options)

describe('chamfers and roundings of corners (common practice; numbers by hand)', () => {
  it('on a mill: so far before the corner and after it; and an arc that touches both moves', () => {
    expect(path('G1 X1. ,C.1\nY1. ,R.2\nX0.')).toEqual([
      'line 0.9 0 0',
      'line 1 0.1 0',
      'line 1 0.8 0',
      'ccw 0.8 1 0',
      'line 0 1 0',
    ])
    // To the right, clockwise.
    expect(path('G1 X1. ,R.2\nY-1.')).toEqual(['line 0.8 0 0', 'cw 1 -0.2 0', 'line 1 -1 0'])
  })

  it('at a corner that is not square the arc begins R tan(t/2) before it', () => {
    // A turn of 60 deg: 0.2 tan 30 = 0.11547.
    const [first, second] = path('G1 X1. ,R.2\nX1.5 Y.8660254')
    expect(Number(first?.split(' ')[1])).toBeCloseTo(1 - 0.11547, 5)
    expect(Number(second?.split(' ')[1])).toBeCloseTo(1 + 0.11547 * 0.5, 5)
  })

  it('on a lathe, by comma words or by I, K and R: a size is a true length, not a diameter', () => {
    const expected = ['line 1 0 -0.95', 'line 1.05 0 -1', 'line 1.3 0 -1', 'cw 1.5 0 -1.2', 'line 1.5 0 -2']
    const turned = (first: string, second: string) => `G1 Z-1. ${first}\nX3. ${second}\nZ-2.`
    expect(path(turned(',C.05', ',R.2'), COMMA, TURN)).toEqual(
      expected.map((each) => each.replace('cw', 'ccw')),
    )
    expect(path(turned('I.05', 'R.2'), WORDS, TURN)).toEqual(path(turned(',C.05', ',R.2'), COMMA, TURN))
    expect(path(turned('K-.05', 'R.2'), WORDS, TURN)).toEqual(path(turned(',C.05', ',R.2'), COMMA, TURN))
  })

  it('compensation goes beside the corner that is made', () => {
    expect(path('G1 G41 D1 Y1.\nX1. ,R.3\nY0.\nG40 X2.')).toEqual(
      path('G1 G41 D1 Y1.\nX.7\nG2 X1. Y.7 R.3\nG1 Y0.\nG40 X2.'),
    )
  })

  it('a line of a drawing is written by its angle from +Z, and one of its ends', () => {
    // From radius 1 at Z0.1 up at 135 deg (towards -Z and +X) to radius 1.5: half an inch along Z.
    expect(path('G1 X3. ,A135.', COMMA, TURN)).toEqual(['line 1.5 0 -0.4'])
    expect(path('G1 Z-.4 ,A135.', COMMA, TURN)).toEqual(['line 1.5 0 -0.4'])
    expect(path('G1 Z-.4 A135.', WORDS, TURN)).toEqual(['line 1.5 0 -0.4'])
  })

  it('two lines by their angles meet where they cross, with what the first asks for at its end', () => {
    // Along Z first (180 deg), then out along X (90 deg) to radius 2 at Z-1: they meet at radius 1, Z-1.
    expect(path('G1 ,A180.\nX4. Z-1. ,A90.', COMMA, TURN)).toEqual(['line 1 0 -1', 'line 2 0 -1'])
    expect(path('G1 A180. R.2\nX4. Z-1. A90.', WORDS, TURN)).toEqual([
      'line 1 0 -0.8',
      'cw 1.2 0 -1',
      'line 2 0 -1',
    ])
    // 135 deg out from radius 1, Z0.1, then along Z to Z-2 at radius 1.5.
    expect(path('G1 ,A135.\nX3. Z-2. ,A180.', COMMA, TURN)).toEqual(['line 1.5 0 -0.4', 'line 1.5 0 -2'])
  })

  it.each([
    ['longer than the move before it', 'G1 X1. ,C1.5\nY2.', 'corner 3'],
    ['longer than the move after it', 'G1 X1. ,R.5\nY.2', 'corner 3'],
    ['two on one move that have no room', 'G1 X1. ,C.6\nY1. ,C.6\nX0.', 'corner 4'],
    ['at the end of everything', 'G1 X1. ,C.1', 'corner 3'],
    ['before a rapid', 'G1 X1. ,C.1\nG0 Y1.', 'corner 3'],
    ['before an arc', 'G1 X1. ,R.1\nG3 X2. Y1. R1.', 'corner 3'],
    ['before Z', 'G1 X1. ,C.1\nZ-1.', 'corner 3'],
    ['before another plane', 'G1 X1. ,C.1\nG18 Z-1.', 'corner 3'],
    ['before a dwell', 'G1 X1. ,C.1\nG4 P1.\nY1.', 'corner 3'],
  ])('alarms: %s', (_, text, code) => {
    expect(said(text)).toContain(code)
    expect(
      read(`${HEAD}${text}\nM30`, MILL).diagnostics.find((each) => each.code === 'corner')?.severity,
    ).toBe('stop')
  })

  it.each([
    ['an angle that is left open', 'G1 ,A135.\nX3. Z-1.', 'angle-open 6'],
    ['an angle along X to another X', 'G1 X3. ,A180.', 'angle-parallel 5'],
    ['two angles that never meet', 'G1 ,A135.\nX3. Z-1. ,A135.', 'angle-parallel 6'],
    ['an angle that goes backwards', 'G1 ,A0.\nX4. Z-1. ,A90.', 'angle-back 6'],
  ])('says: %s', (_, text, code) => {
    expect(said(text, COMMA, TURN)).toContain(code)
  })

  it('is as much larger as the program is scaled, and not followed where that differs along its axes', () => {
    expect(path('G51 X0. Y0. Z0. P2.\nG1 X1. ,C.1\nY1.\nG50')).toEqual([
      'line 1.8 0 0',
      'line 2 0.2 0',
      'line 2 2 0',
    ])
    expect(said('G51 X0. Y0. Z0. I2. J1. K1.\nG1 X1. ,C.1\nY1.\nG50')).toEqual(['corner 4'])
  })

  it('stops where the control does not take them, or not there', () => {
    expect(said('G1 X1. ,C.1\nY1.', onMill({ profile: pointed(plain) }))).toEqual(['word-not-seen 3'])
    expect(said('G0 X1. ,C.1\nY1.')).toEqual(['word-not-seen 3'])
    expect(said('G2 X1. Y1. R1. ,R.1\nG1 Y2.')).toEqual(['word-not-seen 3'])
    expect(said('G1 X1. ,A45.')).toEqual(['word-not-seen 3'])
    expect(said('G1 Z-1. A45.', COMMA, TURN)).toEqual(['word-not-seen 5'])
    expect(said('G1 X1. ,Q.1\nY1.')).toEqual(['not-a-word 3'])
    expect(said('G1 X1. ,C.1 ,C.2\nY1.')).toContain('word-twice 3')
  })
})

describe('two ways to say one thing', () => {
  it('corners by their words, or written out', () => {
    const size = fc.integer({ min: 1, max: 400 })
    const steps = fc.array(
      fc.record({
        long: fc.integer({ min: 1000, max: 3000 }),
        turn: fc.integer({ min: -130, max: 130 }),
        size,
        round: fc.boolean(),
      }),
      {
        minLength: 1,
        maxLength: 6,
      },
    )
    fc.assert(
      fc.property(steps, (all) => {
        let [x, y, heading] = [0, 0, 0]
        const word = (a: number, b: number) => `X${a.toFixed(9)} Y${b.toFixed(9)}`
        const ours: string[] = []
        const theirs: string[] = []
        for (const { long, turn, size: thousandths, round } of all) {
          // As much as half of the shortest move has room for.
          const radius = thousandths / 1000
          const back = round ? radius * Math.tan((Math.abs(turn) * Math.PI) / 360) : radius
          const fits = back < 0.49 && turn !== 0
          const [cos, sin] = [Math.cos(heading), Math.sin(heading)]
          x += (cos * long) / 1000
          y += (sin * long) / 1000
          heading += (turn * Math.PI) / 180
          ours.push(`G1 ${word(x, y)}${fits ? ` ,${round ? 'R' : 'C'}${radius}` : ''}`)
          if (!fits) {
            theirs.push(`G1 ${word(x, y)}`)
            continue
          }
          theirs.push(`G1 ${word(x - back * cos, y - back * sin)}`)
          const to = word(x + back * Math.cos(heading), y + back * Math.sin(heading))
          theirs.push(round ? `${turn > 0 ? 'G3' : 'G2'} ${to} R${radius}` : `G1 ${to}`)
        }
        const last = `G1 ${word(x + 2 * Math.cos(heading), y + 2 * Math.sin(heading))}`
        const [a, b] = [
          [...ours, last],
          [...theirs, last],
        ].map((lines) => path(lines.join('\n'))) as [string[], string[]]
        expect(a.length).toBe(b.length)
        a.forEach((each, n) => {
          const [kind, ...numbers] = each.split(' ')
          const [other, ...others] = (b[n] as string).split(' ')
          expect(kind).toBe(other)
          for (const [axis, value] of numbers.entries())
            expect(Number(value)).toBeCloseTo(Number(others[axis]), 6)
        })
      }),
      { numRuns: times(300, 3_000) },
    )
  })
})

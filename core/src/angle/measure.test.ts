import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { degrees, distance, halfTurn, type PlanePoint, turned } from '../geometry/index.ts'
import { asTyped, fixedDigits } from '../quantity/index.ts'
import { emptyAngleDraft, readAngleDraft } from './draft.ts'
import { fitsOffset } from './fits-offset.ts'
import { judgeAngle } from './judge-angle.ts'
import { costAt, measureAngle } from './measure.ts'
import type { AngleReading } from './reading.ts'

const inch = { unit: 'inch', leastStep: 0.0001 } as const
const fine = { unit: 'inch', leastStep: 1e-9 } as const
const at = (x: number, y: number) => ({ x: asTyped(x, 'inch'), y: asTyped(y, 'inch') })
const text = ({ x, y }: PlanePoint) => `${fixedDigits(x, 8)} ${fixedDigits(y, 8)}`
const draft = { ...emptyAngleDraft(0.002, 'inch', 'probe') }
const edge = (...points: [number, number][]): AngleReading => ({
  method: 'edge',
  device: 'probe',
  points: points.map(([x, y]) => at(x, y)),
  nominal: 0,
})

describe('an angle from points', () => {
  it('from two touches: atan2(dy, dx), doubt sqrt 2 u / L (derived)', () => {
    const found = measureAngle(edge([-10, -5], [-6, -4.9]), inch)
    expect(found.value).toBeCloseTo(degrees(Math.atan2(0.1, 4)), 10)
    const base = Math.hypot(4, 0.1)
    const u = Math.hypot(0.0001, 0.0001 / Math.sqrt(12))
    expect(found.doubt.value).toBeCloseTo(degrees((Math.SQRT2 * u) / base), 9)
  })

  it('leads back to how the part lies, from every method, typed as text', () => {
    const number = (least: number, greatest: number) => fc.double({ min: least, max: greatest, noNaN: true })
    fc.assert(
      fc.property(
        fc.constantFrom('edge' as const, 'holes' as const, 'features' as const),
        number(-9, 9),
        fc.constantFrom(0, 90, -90, 180, 37),
        fc.record({ x: number(-20, -5), y: number(-12, -4) }),
        fc.uniqueArray(fc.integer({ min: 0, max: 12 }), { minLength: 2, maxLength: 6 }),
        (method, lies, nominal, zero, places) => {
          // The drawing has the features along its own direction; the part is turned, and shifted to where it lies.
          const drawn = places.map((t, i) =>
            turned({ x: t, y: method === 'features' ? (i % 3) + 1 : 0 }, nominal, { x: 0, y: 0 }),
          )
          const measured = drawn.map((point) => {
            const { x, y } = turned(point, lies, { x: 0, y: 0 })
            return { x: x + zero.x, y: y + zero.y }
          })
          const read = readAngleDraft(
            {
              ...draft,
              method,
              nominal: String(nominal),
              points: measured.map(text).join('\n'),
              holes: measured.slice(0, 2).map(text).join('\n'),
              features: drawn
                .map((point, i) => `F${i} ${text(point)} ${text(measured[i] ?? point)}`)
                .join('\n'),
            },
            'inch',
          )
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          const way = method === 'holes' && (places[0] ?? 0) > (places[1] ?? 0) ? 180 : 0
          expect(Math.abs(halfTurn(measureAngle(read.reading, inch).value - lies - way))).toBeLessThan(1e-5)
        },
      ),
    )
  })

  it('scatters by its doubt (JCGM 101:2008, Monte Carlo), for a line through five touches', () => {
    let state = 12_345
    const uniform = () => {
      state = (state * 16_807) % 2_147_483_647
      return state / 2_147_483_647
    }
    const noise = () => 0.0001 * Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
    const values = Array.from(
      { length: 3000 },
      () =>
        measureAngle(
          edge(...[0, 1, 2, 3, 4].map((x): [number, number] => [x, Number(noise().toFixed(9))])),
          fine,
        ).value,
    )
    const exact = measureAngle(edge([0, 0], [1, 0], [2, 0], [3, 0], [4, 0]), fine)
    expect(sampleStandardDeviation(values) / exact.doubt.value).toBeCloseTo(1, 1)
  })

  it('names the touch that spoils the fit, and the angle without it', () => {
    const spoilt = measureAngle(edge([0, 0], [1, 0.001], [2, 0.012], [3, 0.003], [4, 0.004]), inch)
    expect(spoilt.spoiler?.name).toBe('touch 3')
    expect(spoilt.spoiler?.without).toBeCloseTo(degrees(Math.atan(0.001)), 6)
    expect(spoilt.findings.map(({ says }) => says).join()).toMatch(
      /touch 3 spoils the fit: without it the angle is 0\.057 deg/,
    )
    expect(measureAngle(edge([0, 0], [1, 0.001], [2, 0.002]), inch)).toMatchObject({ findings: [] })
  })

  it('finds a touch that was entered twice, features at another distance, and a direction that cannot be', () => {
    const codes = (reading: AngleReading) => measureAngle(reading, inch).findings.map(({ code }) => code)
    expect(codes(edge([0, 0], [4, 0], [4, 0]))).toEqual(['same-point-twice'])
    expect(codes(edge([0, 0], [0.2, 4]))).toEqual(['large-angle'])
    const pair = (name: string, x: number, measured: number) => ({
      name,
      nominal: at(x, 0),
      measured: at(measured, 0),
    })
    expect(
      codes({ method: 'features', device: 'probe', features: [pair('A', 0, 0), pair('B', 4, 4.02)] }),
    ).toEqual(['distance-differs'])
  })
})

describe('what cannot be an angle is said in a sentence', () => {
  const says = (change: object) => {
    const read = readAngleDraft({ ...draft, ...change }, 'inch')
    return read.ok
      ? ''
      : Object.values(read.problems)
          .map((problem) => problem?.says)
          .join(' ')
  }
  it.each([
    [{ points: '-10 -5' }, /1 of at least 2 lines/],
    [{ points: '-10 -5\n-10 -5\n-10 -5' }, /all these touches are at one place/i],
    [{ points: '-10,5 -5\n-9 -5' }, /decimal point/],
    [{ points: '0 0\n4 0', nominal: '400' }, /more than a full turn/],
    [{ points: '0 0\n4 0', reach: '0' }, /more than zero/],
    [{ method: 'holes', holes: '0 0\n4 0\n5 0' }, /two holes are wanted/],
    [{ method: 'holes', holes: '1 1\n1 1' }, /one place/],
    [{ method: 'features', features: 'A 0 0 1 1\nB 0 0 2 2' }, /all at one place/],
    [{ method: 'shown', angle: '0.2', base: '-3' }, /base must be more than zero/],
  ])('%o', (change, expected) => expect(says(change)).toMatch(expected))

  it('a feature that was not measured is left out, and said', () => {
    const read = readAngleDraft(
      { ...draft, method: 'features', features: 'A 0 0 -10 -5\nB 4 0 -6 -5\nC 4 2 - -' },
      'inch',
    )
    expect(read).toMatchObject({ ok: true, skipped: ['C 4 2 - -'] })
  })
})

describe('what to do about it', () => {
  const question = { reach: 4, allowed: 0.002, needsSquare: false, canTurn: true, unit: 'inch' } as const
  const lying = (angle: number) =>
    measureAngle(edge([0, 0], [4, Number((4 * Math.tan((angle * Math.PI) / 180)).toFixed(9))]), inch)
  it('costs the chord 2 L sin(theta / 2) at the farthest cut: what turning a point there moves it by', () => {
    // Half a turn takes it to the other side, 2 L away; 60 degrees make a triangle of equal sides.
    expect(costAt(4, 180)).toBeCloseTo(8, 12)
    expect(costAt(4, 60)).toBeCloseTo(4, 12)
    expect(costAt(4, -90)).toBeCloseTo(4 * Math.SQRT2, 12)
    for (const angle of [-170, -30, 0.02, 5, 100, 179])
      expect(costAt(4, angle)).toBeCloseTo(
        distance({ x: 4, y: 0 }, turned({ x: 4, y: 0 }, angle, { x: 0, y: 0 })),
        12,
      )
  })
  it('leaves what costs less than is allowed, turns the program for more, squares up what other things rest on', () => {
    const advised = (angle: number, more = {}) => judgeAngle(lying(angle), { ...question, ...more }).advised
    expect(advised(0.028)).toBe('leave')
    expect(advised(0.03)).toBe('turn')
    expect(advised(1.321, { needsSquare: true })).toBe('square')
    expect(advised(8)).toBe('square')
    // Two holes told the wrong way round: half a turn was 'leave it, costs 0.0000'.
    const swapped = measureAngle(
      {
        method: 'holes',
        device: 'probe',
        first: at(3, 0),
        second: at(0, 0),
        nominal: 0,
      },
      inch,
    )
    const judged = judgeAngle(swapped, question)
    expect(judged.cost).toBeCloseTo(8, 6)
    expect([judged.advised, judged.says]).toEqual([
      'square',
      'It lies turned round, or readings are swapped.',
    ])
    expect(judgeAngle(lying(1.321), { ...question, canTurn: false }).says).toBe(
      'Turn the moves of the program.',
    )
  })
  it('says that a short base cannot tell', () => {
    const short = measureAngle(edge([0, 0], [0.2, 0]), inch)
    expect(judgeAngle(short, { ...question, reach: 12 }).findings.map(({ code }) => code)).toEqual([
      'angle-doubt-over-allowed',
    ])
  })
  it('knows whether the zero fits it: an old one stops, one touch on a turned face is looked at', () => {
    const fits = (method: 'edge-finder' | 'corner', stale: boolean, measuredAt?: string) =>
      fitsOffset({
        offset: 'G54',
        zeros: (['X', 'Y'] as const).map((axis, i) => ({ axis, method, stale, at: `2026-11-25T0${i}` })),
        measuredAt,
        angle: lying(1),
        reach: 4,
        allowed: 0.002,
        unit: 'inch',
      }).map(({ severity, code }) => `${severity} ${code}`)
    expect(fits('corner', false)).toEqual([])
    expect(fits('edge-finder', false)).toEqual(['look zero-on-turned-face'])
    expect(fits('corner', true)).toEqual(['stop zero-before-move'])
    expect(fits('corner', false, '2026-11-25T00:30')).toEqual(['note zeros-around-angle'])
  })
})

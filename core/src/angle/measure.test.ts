import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
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
const draft = { ...emptyAngleDraft(0.002, 'inch', 'probe', 4) }
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
    const number = (least: number, greatest: number) => evenly(least, greatest)
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

describe('the numbers of an angle, by hand', () => {
  /** What a probe and a display of a tenth leave open of one place, in inches. */
  const place = Math.hypot(0.0001, 0.0001 / Math.sqrt(12))
  const shown = (angle: number, base = 5): AngleReading => ({
    method: 'shown',
    device: 'probe',
    angle,
    base: asTyped(base, 'inch'),
  })

  it('of two touches: the arithmetic has the differences, whichever was typed first', () => {
    for (const reading of [edge([-10, -5], [-6, -4.9]), edge([-6, -4.9], [-10, -5])])
      expect(measureAngle(reading, inch).working[0]).toMatchObject({
        arithmetic: 'atan2(0.1000, 4.0000)',
        means: expect.stringContaining('nothing is left over'),
        gives: '1.432 deg',
      })
    expect(measureAngle(edge([0, 0], [2, 0], [4, 0]), inch).working[0]).toMatchObject({
      arithmetic: 'least squares line through 3 touches',
      means: '',
    })
  })

  it('of two centres and of a probe cycle: sqrt 2 u / L (derived)', () => {
    const of = measureAngle(
      { method: 'holes', device: 'probe', first: at(1, 2), second: at(4, 6), nominal: 50 },
      inch,
    )
    expect(of.value).toBeCloseTo(degrees(Math.atan2(4, 3)) - 50, 9)
    expect(of.working[0]?.arithmetic).toBe('atan2(4.0000, 3.0000)')
    expect(of.doubt.value).toBeCloseTo(degrees((Math.SQRT2 * place) / 5), 9)
    // The variable of the control shows more digits than its display: only the probe is in doubt.
    expect(measureAngle(shown(0.3), inch).doubt.value).toBeCloseTo(degrees((Math.SQRT2 * 0.0001) / 5), 9)
    expect(measureAngle(shown(10), inch).findings).toEqual([])
    expect(measureAngle(shown(-10.001), inch).findings.map(({ code }) => code)).toEqual(['large-angle'])
  })

  const feature = (name: string, x: number, y: number, mx: number, my: number) => ({
    name,
    nominal: at(x, y),
    measured: at(mx, my),
  })
  const features = (...of: ReturnType<typeof feature>[]): AngleReading => ({
    method: 'features',
    device: 'probe',
    features: of,
  })

  it('of many features: the one that spoils the fit, the angle without it, and what is left', () => {
    // Turned by nothing and shifted by (-10, -5); C stands .02 too far to the right.
    const found = measureAngle(
      features(
        feature('A', 0, 0, -10, -5),
        feature('B', 4, 0, -6, -5),
        feature('C', 4, 3, -5.98, -2),
        feature('D', 0, 3, -10, -2),
      ),
      inch,
    )
    expect(found.spoiler).toMatchObject({ name: 'C', without: expect.closeTo(0, 9) })
    expect(found.residuals.map(({ name }) => name)).toEqual(['A', 'B', 'C', 'D'])
    expect(Math.max(...found.residuals.map(({ value }) => value))).toBe(found.residuals[2]?.value)
    expect(found.findings[0]?.says).toBe('C spoils the fit: without it the angle is 0.000 deg.')
    expect(found.base).toBeCloseTo(5, 12)
    // Sum of squares over 2 x 4 coordinates less the three that the fit takes.
    const squares = found.residuals.reduce((sum, { value }) => sum + value ** 2, 0)
    expect(found.scatter).toBeCloseTo(Math.sqrt(squares / 5), 12)
  })

  it('of an edge that the drawing has at any direction: what it lies beside that, whichever way it was touched', () => {
    for (const nominal of [30, -70, 120]) {
      const [from, to] = [0, 4].map((x) => turned({ x, y: 0 }, nominal + 1.25, { x: 0, y: 0 })) as [
        PlanePoint,
        PlanePoint,
      ]
      for (const points of [
        [from, to],
        [to, from],
      ])
        expect(
          measureAngle(
            { method: 'edge', device: 'probe', nominal, points: points.map(({ x, y }) => at(x, y)) },
            fine,
          ).value,
        ).toBeCloseTo(1.25, 9)
    }
  })

  it('a spoiler up the page weighs as one along it', () => {
    // As above, but C stands .03 too high.
    const found = measureAngle(
      features(
        feature('A', 0, 0, -10, -5),
        feature('B', 4, 0, -6, -5),
        feature('E', 2, 1, -8, -4),
        feature('C', 4, 3, -6, -1.97),
        feature('D', 0, 3, -10, -2),
      ),
      inch,
    )
    expect(found.spoiler).toMatchObject({ name: 'C', without: expect.closeTo(0, 9) })
  })

  it('of two features: how much further apart or nearer they are than on the drawing', () => {
    const says = (measured: number) =>
      measureAngle(features(feature('A', 0, 0, 0, 0), feature('B', 4, 0, measured, 0)), inch).findings.map(
        (each) => each.says,
      )
    expect(says(4.02)).toEqual(['The two features are 0.0200 in further apart than on the drawing.'])
    expect(says(3.98)).toEqual(['The two features are 0.0200 in nearer than on the drawing.'])
    // Three times sqrt 2 of a tenth may be: .00042.
    expect(says(4.0004)).toEqual([])
    expect(says(4.00045)).toHaveLength(1)
  })

  it('names a spoiler of four touches, against any direction; none where no single one is to blame', () => {
    const line = (nominal: number, ...offs: number[]): AngleReading => ({
      method: 'edge',
      device: 'probe',
      points: offs.map((off, index) => {
        const { x, y } = turned({ x: index, y: off }, nominal, { x: 0, y: 0 })
        return at(x, y)
      }),
      nominal,
    })
    for (const nominal of [0, 30, -70]) {
      const { spoiler } = measureAngle(line(nominal, 0, 0.001, 0.013, 0.003), inch)
      expect(spoiler).toMatchObject({
        name: 'touch 3',
        without: expect.closeTo(degrees(Math.atan(0.001)), 6),
      })
    }
    expect(measureAngle(line(0, 0, 0.01, 0), inch).spoiler).toBeUndefined()
    const all = measureAngle(line(0, 0, 0.004, 0.0001, 0.004), inch)
    expect(all.spoiler).toBeUndefined()
    expect(all.findings.map(({ says }) => says)).toEqual([
      expect.stringMatching(/^The points do not fit: touch [23] is off by 0\.0024 in\./),
    ])
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
    [{ method: 'shown', angle: '0.2', base: '0' }, /base must be more than zero/],
    [{ points: '-10 -5\n-10 -5' }, /all these touches are at one place/i],
    [{ points: '0 0\n4 0', allowed: '0' }, /length above zero/],
  ])('%o', (change, expected) => expect(says(change)).toMatch(expected))

  it('a feature that was not measured is left out, and said', () => {
    const read = readAngleDraft(
      { ...draft, method: 'features', features: 'A 0 0 -10 -5\nB 4 0 -6 -5\nC 4 2 - -' },
      'inch',
    )
    expect(read).toMatchObject({ ok: true, skipped: ['C 4 2 - -'] })
    // One without a name has its place in the list.
    const unnamed = readAngleDraft(
      { ...draft, method: 'features', features: '0 0 -10 -5\n4 0 -6 -5' },
      'inch',
    )
    expect(unnamed).toMatchObject({
      reading: { features: [{ name: 'feature 1' }, { name: 'feature 2' }] },
    })
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
  it('takes an edge as it is said: up to it, and beyond it', () => {
    const shown = (angle: number) =>
      measureAngle({ method: 'shown', device: 'probe', angle, base: asTyped(40, 'inch') }, inch)
    const says = (angle: number, more = {}) => judgeAngle(shown(angle), { ...question, ...more }).says
    expect(says(5)).toBe('Turn the program.')
    expect(says(-5.001)).toBe('Square the part up first.')
    expect(says(60)).toBe('Square the part up first.')
    expect(says(-60.001)).toBe('It lies turned round, or readings are swapped.')
    expect(says(1, { allowed: costAt(4, 1) })).toBe('Leave it.')
    const doubt = costAt(4, shown(0).doubt.value)
    expect(judgeAngle(shown(0), { ...question, allowed: doubt }).findings).toEqual([])
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
  it('names the axes that do not fit it, one or both', () => {
    type Zero = Parameters<typeof fitsOffset>[0]['zeros'][number]
    const says = (zeros: readonly Partial<Zero>[], more: Partial<Parameters<typeof fitsOffset>[0]> = {}) =>
      fitsOffset({
        offset: 'G54',
        zeros: zeros.map((of, i) => ({
          axis: i === 0 ? 'X' : 'Y',
          method: 'corner',
          stale: false,
          at: `2026-11-25T0${i}`,
          ...of,
        })),
        measuredAt: undefined,
        angle: lying(1),
        reach: 4,
        allowed: 0.002,
        unit: 'inch',
        ...more,
      }).map((each) => each.says)
    expect(says([{ stale: true }, {}])).toEqual([expect.stringMatching(/^X of G54 is from before/)])
    expect(says([{ stale: true }, { stale: true }])).toEqual([
      expect.stringMatching(/^X and Y of G54 are from before/),
    ])
    expect(says([])).toEqual([expect.stringMatching(/^X and Y of G54 are not taken/)])
    expect(says([{}])).toEqual([expect.stringMatching(/^Y of G54 is not taken/)])
    expect(says([{ axis: 'Y' }])).toEqual([expect.stringMatching(/^X of G54 is not taken/)])
    const touch = { method: 'edge-finder' } as const
    expect(says([touch, {}])).toEqual([expect.stringMatching(/^X of G54 was taken by touching/)])
    expect(says([touch, touch])).toEqual([expect.stringMatching(/^X and Y of G54 were taken by touching/)])
    expect(says([touch, touch], { allowed: costAt(4, lying(1).value) })).toEqual([])
    // Taken at the very time: not before it.
    expect(says([{}, {}], { measuredAt: '2026-11-25T00' })).toEqual([])
    expect(says([{}, {}], { measuredAt: '2026-11-25T01' })).toEqual([
      expect.stringMatching(/^X of G54 was taken before the angle/),
    ])
    expect(says([{}, {}], { measuredAt: '2026-11-25T02' })).toEqual([])
  })
})

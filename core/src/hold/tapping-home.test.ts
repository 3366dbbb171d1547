import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { convergence } from './index.ts'
import { type Case, FIRST, square } from './testing.ts'

/** A vise on its bolt, seen from above: the jaw turns about the bolt, and dials stand at fixed places along X. */
function simulatedVise({ pivot, setback, angle }: { pivot: number; setback: number; angle: number }) {
  let theta = angle
  return {
    /** Where the jaw stands at x, plus towards the dial: a line at `setback` from the bolt, turned about it by theta. */
    at: (x: number) => Math.tan(theta) * (x - pivot) + setback / Math.cos(theta) - setback,
    turn: (by: number) => {
      theta += by
    },
  }
}

/** Taps until the dial at x, zeroed as `zero`, shows the target: turns by halving. The hand stops up to `slip` away. */
function tapUntil(vise: ReturnType<typeof simulatedVise>, x: number, zero: number, target: number) {
  for (let step = 0.05; step > 1e-9; step /= 2) {
    for (const way of [1, -1]) {
      const before = Math.abs(vise.at(x) - zero - target)
      vise.turn(way * step)
      if (Math.abs(vise.at(x) - zero - target) >= before) vise.turn(-way * step)
    }
  }
}

describe('a simulated vise', () => {
  const DIAL = 0.0005
  const rounded = (value: number) => Math.round(value / DIAL) * DIAL
  const place = fc.record({
    pivot: evenly(-3, 9),
    from: evenly(0, 1.5),
    to: evenly(4, 6),
    setback: evenly(1, 4),
    angle: evenly(-0.009, 0.009),
  })
  const four = (value: number) => Math.round(value * 1e4) / 1e4

  it('is square to the step of the dial after one tap to the target, for any bolt, points and angle', () => {
    fc.assert(
      fc.property(place, ({ pivot: anywhere, from, to, setback, angle }) => {
        const [pivot, a, b] = [four(anywhere), four(from), four(to)]
        const vise = simulatedVise({ pivot, setback, angle })
        const zero = vise.at(a)
        const points: Case['points'] = [
          [a, 0],
          [b, four(vise.at(b) - zero)],
        ]
        const { tap } = square({ pivot, points })
        tapUntil(vise, tap.at, zero, tap.target)
        expect(Math.abs(vise.at(b) - vise.at(a))).toBeLessThanOrEqual(DIAL)
      }),
    )
  })

  it('is square after at most three taps of a noisy hand on a dial that reads in steps', () => {
    fc.assert(
      fc.property(place, fc.array(evenly(-1, 1), { minLength: 3, maxLength: 3 }), (vised, slips) => {
        const [pivot, a, b] = [four(vised.pivot), four(vised.from), four(vised.to)]
        // A bolt in the middle of the sweep is a bad choice, and a hand cannot steady the dial much below its step.
        fc.pre(Math.max(Math.abs(b - pivot), Math.abs(a - pivot)) > 3)
        const vise = simulatedVise({ ...vised, pivot })
        for (const slip of slips) {
          const zero = vise.at(a)
          const reading = four(rounded(vise.at(b) - zero))
          const { tap } = square({
            pivot,
            points: [
              [a, 0],
              [b, reading],
            ],
          })
          if (Math.abs(reading) <= DIAL) break
          // The hand stops within a tenth of the way, or a quarter step of the dial.
          const off = slip * Math.max(0.1 * tap.by, DIAL / 4)
          tapUntil(vise, tap.at, zero, tap.target + off)
        }
        expect(Math.abs(vise.at(b) - vise.at(a))).toBeLessThanOrEqual(1.5 * DIAL)
      }),
    )
  })

  it('tells about which place the vise really turned, when the bolt was entered wrongly', () => {
    const vise = simulatedVise({ pivot: -2.5, setback: 3, angle: 0.005 })
    const look = () => {
      const zero = vise.at(0.25)
      return {
        zero,
        points: [
          [0.25, 0],
          [5.75, Math.round((vise.at(5.75) - zero) * 1e6) / 1e6],
        ] as Case['points'],
      }
    }
    const before = look()
    const entered = square({ pivot: -1, points: before.points })
    tapUntil(vise, 5.75, before.zero, entered.tap.target)
    const now = convergence(entered, square({ pivot: -1, points: look().points }))
    expect(now?.turnedAbout).toBeCloseTo(-2.5, 1)
    expect(now?.findings[0]?.code).toBe('not-there-yet')
  })
})

describe('the sweep after a tap', () => {
  const then = (far: number, now: Partial<Case> = {}) =>
    convergence(
      square(FIRST),
      square({
        ...FIRST,
        points: [
          [0.25, 0],
          [5.75, far],
        ],
        ...now,
      }),
    )
  const code = (far: number) => then(far)?.findings.map((each) => each.code)

  it('says nothing where the jaw is square, and what is wrong where it is not', () => {
    expect(code(0.0005)).toEqual([])
    expect(code(-0.06)).toEqual(['worse'])
    expect(code(-0.029)).toEqual(['hardly-moved'])
    expect(code(0.02)).toEqual(['gone-past'])
    expect(code(-0.018)).toEqual(['not-there-yet'])
  })

  it('knows readings that were written down with the sign reversed, by what is left of the slope', () => {
    // The jaw really stood at +0.030; the target for -0.030 was followed on the dial.
    const vise = simulatedVise({ pivot: -1, setback: 0, angle: Math.atan(0.03 / 5.5) })
    tapUntil(vise, 5.75, vise.at(0.25), square(FIRST).tap.target)
    const left = vise.at(5.75) - vise.at(0.25)
    expect(code(Math.round(left * 1e4) / 1e4)).toEqual(['sign-reversed'])
    expect(code(Math.round(-left * 1e4) / 1e4)).toEqual(['sign-reversed'])
  })

  it('has nothing to compare after a sweep with both bolts', () => {
    expect(convergence(square({ ...FIRST, bolts: 'tight' }), square(FIRST))).toBeUndefined()
  })
})

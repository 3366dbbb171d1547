import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { cycleTime, rapidSeconds } from './cycle-time.ts'
import { speedsOf } from './machine-speeds.ts'
import { cornerSpeedSquared, restToRest, turnsFromRest } from './trapezoid.ts'

const [compact, , plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
/** Numbers that can be computed with a pencil: 10 in/s in X and Y, 5 in Z; 50 and 25 in/s2. */
const mill: Machine = {
  ...(demoReference.machines[0] as Machine),
  rapids: { X: 600, Y: 600, Z: 300 },
  dynamics: {
    acceleration: { X: 50, Y: 50, Z: 25 },
    smoothing: 0,
    topFeed: 600,
    cornerTolerance: 0.001,
    spindleTop: 8000,
    tapTop: 6000,
    spindleAcceleration: 20,
    spindleTimed: false,
    toolChange: 4,
    rotary: { top: 3600, acceleration: 360 },
  },
}
const speeds = speedsOf(mill, compact, 'inch')
const timeOf = (text: string, profile = compact) =>
  cycleTime(read(text, { profile, machine: mill, unit: 'inch' }).motion, speedsOf(mill, profile, 'inch'))
const AT_ZERO = 'G20 G90 G0 X0. Y0. Z0.\n'

describe('rapids, worked by hand', () => {
  // 10 in at 10 in/s and 50 in/s2: 0.2 s up, 0.2 s down over 2 in, 0.8 s along the other 8: 1.2 s. 1 in: 2 sqrt(1/50).
  it('rest to rest, long and short', () => {
    expect(restToRest(10, 10, 50)).toBeCloseTo(1.2, 12)
    expect(restToRest(1, 10, 50)).toBeCloseTo(2 * Math.sqrt(1 / 50), 12)
  })
  it('dogleg: as long as the slowest axis; straight: all stretched to it', () => {
    // X 10: 1.2 s; Z 5 at 5 in/s and 25 in/s2: 1.2 s; Z 10: 2.2 s.
    expect(rapidSeconds(10, 0, 10, speeds)).toBeCloseTo(2.2, 12)
    // Straight over (10, 0, 10): Z holds the path to 5 sqrt 2 and 25 sqrt 2: the same 2.2 s.
    expect(rapidSeconds(10, 0, 10, { ...speeds, straightRapids: true })).toBeCloseTo(2.2, 12)
  })
  it('straight is never quicker than dogleg', () => {
    const d = evenly(-20, 20)
    fc.assert(
      fc.property(d, d, d, (x, y, z) => {
        const straight = rapidSeconds(x, y, z, { ...speeds, straightRapids: true })
        expect(straight).toBeGreaterThanOrEqual(rapidSeconds(x, y, z, speeds) - 1e-9)
      }),
    )
  })
})

describe('a lathe', () => {
  const lathe: Machine = {
    ...mill,
    kind: 'lathe',
    axes: { ...mill.axes, Y: null },
    rapids: { X: 600, Y: null, Z: 300 },
    dynamics: {
      ...(mill.dynamics as NonNullable<Machine['dynamics']>),
      acceleration: { X: 50, Y: null, Z: 25 },
    },
  }
  const of = (xSpeeds: Machine['xSpeeds']) => speedsOf({ ...lathe, xSpeeds }, compact, 'inch')
  it('has the speeds of X as they are said: the slide’s, or of the diameter and then half; not halved unasked', () => {
    expect([of('slide').rapid[0], of('slide').acceleration[0]]).toEqual([10, 50])
    expect([of('diameter').rapid[0], of('diameter').acceleration[0]]).toEqual([5, 25])
    expect(of(null).rapid[0]).toBe(10)
    expect(of(null).assumed.join()).toContain('slide')
    expect(of(null).unsure.speed).toEqual([2, 1, 1])
    expect(of('slide').assumed).toEqual([])
    // Z is not asked, nor is a mill.
    expect(of('diameter').rapid[2]).toBe(5)
    expect(speedsOf({ ...mill, xSpeeds: 'diameter' }, compact, 'inch').rapid[0]).toBe(10)
  })
  it('goes on turning while the turret is indexed; a mill stops for its change', () => {
    const text = 'G20\nT0101\nG97 S1200 M3\nT0202\nT0101\nM5\nM30'
    const parts = (machine: Machine) =>
      cycleTime(
        read(text, { profile: compact, machine, unit: 'inch' }).motion,
        speedsOf(machine, compact, 'inch'),
      ).parts
    // 20 turns a second up and down once, at the machine's own rate.
    const once = (2 * 20) / (mill.dynamics?.spindleAcceleration as number)
    expect(parts({ ...lathe, xSpeeds: 'slide' }).spindle).toBeCloseTo(once, 6)
    expect(parts({ ...lathe, xSpeeds: 'slide' }).toolChange).toBeCloseTo(3 * 4, 6)
    expect(speedsOf(mill, compact, 'inch').stopsToChange).toBe(true)
  })
})

describe('a corner', () => {
  it('is rounded by a circle that touches both sides and passes it at the tolerance (geometry)', () => {
    for (const turn of [1, 20, 45, 90, 120, 170]) {
      const v2 = cornerSpeedSquared(Math.cos((turn * Math.PI) / 180), 40, 0.003)
      // v^2 = a r; the centre stands on the bisector, r / sin(half the angle between the sides) from the corner.
      const r = v2 / 40
      const half = ((180 - turn) / 2 / 180) * Math.PI
      expect(r / Math.sin(half) - r).toBeCloseTo(0.003, 9)
    }
    expect(cornerSpeedSquared(1, 40, 0.003)).toBe(Number.POSITIVE_INFINITY)
    expect(cornerSpeedSquared(-1, 40, 0.003)).toBe(0)
  })
})

describe('what is not known of a machine', () => {
  const { rapids, dynamics } = mill
  const lathe = { ...mill, kind: 'lathe' as const, xSpeeds: null }
  const of = (machine: Machine) => speedsOf(machine, compact, 'inch')
  it('is taken as usual, and said; the speeds of X are asked only where there are some', () => {
    expect(of({ ...lathe, rapids: null, dynamics: null }).assumed).toEqual([
      'rapid speeds',
      'accelerations, tool change and spindle',
    ])
    for (const some of [{ rapids: null }, { dynamics: null }])
      expect(of({ ...lathe, ...some }).assumed.at(-1)).toMatch(/X are the slide/)
    expect(of({ ...mill, rapids, dynamics }).openRapids).toEqual([])
    if (!dynamics) throw new Error('the mill has its dynamics')
    expect(of({ ...mill, dynamics: { ...dynamics, smoothing: null } })).toMatchObject({
      openRapids: ['whether the ramps of its axes are rounded'],
      unsure: { smoothing: 0.06, acceleration: 1 },
    })
    // The usual of a middling machine: 15 m/min, 1.5 m/s2, in inches.
    const usual = of({ ...mill, rapids: null, dynamics: null })
    expect(usual.rapid[0]).toBeCloseTo(15_000 / 25.4 / 60, 9)
    expect(usual.acceleration[2]).toBeCloseTo(1_500 / 25.4, 9)
    expect(usual).toMatchObject({ tapTop: 2_000 / 60, spindleAcceleration: 40, toolChange: 5, rotaryTop: 50 })
  })
})

describe('feed', () => {
  it('one move: 10 in at 60 in/min from rest to rest', () => {
    // 1 in/s and 50 in/s2: 10 s and 0.02 s for the ramps.
    expect(timeOf(`${AT_ZERO}G1 X10. F60.\nM30`).parts.cutting).toBeCloseTo(10.02, 4)
  })
  it('straight on is not slowed; back is a full stop; square is slowed by the tolerance', () => {
    const one = timeOf(`${AT_ZERO}G1 X10. F60.\nM30`).parts.cutting
    expect(timeOf(`${AT_ZERO}G1 X5. F60.\nX10.\nM30`).parts.cutting).toBeCloseTo(one, 4)
    expect(timeOf(`${AT_ZERO}G1 X5. F60.\nX0.\nM30`).parts.cutting).toBeCloseTo(one + 0.02, 4)
    // v^2 = a t s / (1 - s), s = sin 45.
    const s = Math.SQRT1_2
    expect(cornerSpeedSquared(0, 50, 0.001)).toBeCloseTo((50 * 0.001 * s) / (1 - s), 12)
    const square = timeOf(`${AT_ZERO}G1 X5. F60.\nY5.\nM30`).parts.cutting
    // Down from 1 to v and up again costs (1 - v)^2 / a.
    const v = Math.sqrt((50 * 0.001 * s) / (1 - s))
    expect(square).toBeCloseTo(one + (1 - v) ** 2 / 50, 4)
    // G61 stops at the corner: (1 - 0)^2 / a.
    expect(timeOf(`${AT_ZERO}G61 G1 X5. F60.\nY5.\nM30`).parts.cutting).toBeCloseTo(one + 1 / 50, 4)
  })
  it('looks ahead over many short moves: as quick as one long one', () => {
    const short = Array.from({ length: 1000 }, (_, n) => `X${((n + 1) / 100).toFixed(2)}`).join('\n')
    expect(timeOf(`${AT_ZERO}G1 F600.\n${short}\nM30`).parts.cutting).toBeCloseTo(
      timeOf(`${AT_ZERO}G1 F600. X10.\nM30`).parts.cutting,
      3,
    )
  })
  it('never takes less than the length at the feed', () => {
    const block = fc.record({
      x: fc.integer({ min: -50, max: 50 }),
      y: fc.integer({ min: -50, max: 50 }),
      f: fc.integer({ min: 1, max: 500 }),
    })
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 30 }), (blocks) => {
        let [x, y, least] = [0, 0, 0]
        const lines = blocks.map((each) => {
          least += (60 * Math.hypot(each.x / 10 - x, each.y / 10 - y)) / each.f
          ;[x, y] = [each.x / 10, each.y / 10]
          return `G1 X${x.toFixed(1)} Y${y.toFixed(1)} F${each.f}.`
        })
        expect(timeOf(`${AT_ZERO}${lines.join('\n')}\nM30`).parts.cutting).toBeGreaterThanOrEqual(
          least * (1 - 1e-5),
        )
      }),
    )
  })
})

describe('feed along a path, whatever it is', () => {
  const places = fc.array(fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 })), {
    minLength: 2,
    maxLength: 12,
  })
  type Places = readonly (readonly [number, number])[]
  const say = (value: number) => (value / 10).toFixed(2)
  /** Seconds of cutting along the places, which are tenths of an inch; the way to the first of them is a rapid. */
  const along = (all: Places, feed = 120, before = '', on = mill) => {
    const [[x, y] = [0, 0], ...rest] = all
    const lines = rest.map(([nx, ny]) => `X${say(nx)} Y${say(ny)}`).join('\n')
    const text = `G20 G90 G0 X${say(x)} Y${say(y)} Z0.\n${before}\nG1 F${feed}.\n${lines}\nM30`
    const options = { profile: compact, machine: on, unit: 'inch' as const }
    return cycleTime(read(text, options).motion, speedsOf(on, compact, 'inch')).parts.cutting
  }
  const holds = (property: (all: Places) => void) => fc.assert(fc.property(places, property), depth(60, 600))

  it('takes as long backwards, and mirrored', () =>
    holds((all) => {
      const once = along(all)
      expect(along([...all].reverse())).toBeCloseTo(once, 3)
      expect(along(all.map(([x, y]) => [-x, y]))).toBeCloseTo(once, 3)
      expect(along(all.map(([x, y]) => [y, x]))).toBeCloseTo(once, 3)
    }))
  it('takes as long in pieces', () =>
    holds((all) => {
      const halved = all.flatMap(([x, y], n): Places => {
        const next = all[n + 1]
        return next
          ? [
              [x, y],
              [(x + next[0]) / 2, (y + next[1]) / 2],
            ]
          : [[x, y]]
      })
      expect(along(halved)).toBeCloseTo(along(all), 3)
    }))
  it('is never slower with more feed, a wider tolerance or stronger axes', () =>
    holds((all) => {
      const once = along(all)
      expect(along(all, 240)).toBeLessThanOrEqual(once + 1e-4)
      expect(along(all, 120, 'G187 E.01')).toBeLessThanOrEqual(along(all, 120, 'G187 E.002') + 1e-4)
      if (!mill.dynamics) throw new Error('the mill has its dynamics')
      const strong = { ...mill.dynamics, acceleration: { X: 100, Y: 100, Z: 50 } }
      expect(along(all, 120, '', { ...mill, dynamics: strong })).toBeLessThanOrEqual(once + 1e-4)
    }))
  it('with a stop at every corner is the sum of its moves, each from rest to rest', () =>
    holds((all) => {
      const sum = all.slice(1).reduce((seconds, [x, y], n) => {
        const [px, py] = all[n] as readonly [number, number]
        const [dx, dy] = [(x - px) / 10, (y - py) / 10]
        const length = Math.hypot(dx, dy)
        if (length === 0) return seconds
        // The axis that reaches its 50 in/s2 first holds the path.
        return seconds + restToRest(length, 2, (50 * length) / Math.max(Math.abs(dx), Math.abs(dy)))
      }, 0)
      expect(along(all, 120, 'G61')).toBeCloseTo(sum, 3)
    }))
})

describe('what is not a move', () => {
  it('tapping: t = N/S + S/A, or 2 sqrt(N/A) where the spindle never gets there (trade.md 7, derived)', () => {
    // 0.5 in of 1/4-20 at 600: 10 turns at 10 turns/s with 20 turns/s2.
    expect(turnsFromRest(10, 10, 20)).toBeCloseTo(10 / 10 + 10 / 20, 12)
    expect(turnsFromRest(1, 10, 20)).toBeCloseTo(2 * Math.sqrt(1 / 20), 12)
    const { parts } = timeOf(`${AT_ZERO}S600 M3\nG84 Z-.4 R.1 F30. J4\nM30`)
    expect(parts.tappingOut).toBeCloseTo(2 * Math.sqrt(10 / 20), 4)
  })
  it('tool change, spindle up and back, dwell', () => {
    const { parts } = timeOf('G20 T1 M6\nS1200 M3\nG4 P500\nM4\nM30')
    // 20 turns a second at 20 a second squared: one second up, two through zero.
    expect(parts).toMatchObject({ toolChange: 4, spindle: 3, dwell: 0.5 })
  })
  it('is all there is: the parts make the total, and the rows do', () => {
    const time = timeOf(`${AT_ZERO}T1 M6\nS600 M3\nG1 X1. F10.\nG84 Z-.4 R.1 F30.\nG80 G0 Z5.\nM30`, plain)
    expect(time.rows.reduce((sum, row) => sum + row, 0)).toBeCloseTo(time.total, 3)
  })
})

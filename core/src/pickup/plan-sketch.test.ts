import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { type PlanePoint, radians, turned } from '../geometry/index.ts'
import { fixedDigits } from '../quantity/index.ts'
import { type PickupDraft, readDraft } from './draft.ts'
import { pickUp } from './pick-up.ts'
import { type PlanSketch, planSketch } from './plan-sketch.ts'

const text = ({ x, y }: PlanePoint) => `${fixedDigits(x, 7)} ${fixedDigits(y, 7)}`
const settings = { unit: 'inch', leastStep: 0.0001 } as const
const number = (least: number, greatest: number) => evenly(least, greatest)

const circle = fc
  .record({
    centre: fc.record({ x: number(-20, -5), y: number(-12, -4) }),
    radius: number(0.5, 3),
    tip: number(0.05, 0.4),
    side: fc.constantFrom('bore', 'boss'),
    n: fc.integer({ min: 3, max: 9 }),
    drawing: fc.record({ x: number(-3, 3), y: number(-3, 3) }),
  })
  .map(
    ({ centre, radius, tip, side, n, drawing }): PickupDraft => ({
      axis: 'X',
      method: 'circle',
      choices: { side, device: 'probe' },
      fields: {
        diameter: fixedDigits(tip, 4),
        points: Array.from({ length: n }, (_, i) =>
          text(turned({ x: centre.x + radius, y: centre.y }, (360 * i) / n, centre)),
        ).join('\n'),
        drawingX: fixedDigits(drawing.x, 4),
        drawingY: fixedDigits(drawing.y, 4),
      },
    }),
  )

const corner = fc
  .record({
    at: fc.record({ x: number(-20, -5), y: number(-12, -4) }),
    slant: number(-10, 10),
    tip: number(0.05, 0.4),
    inside: fc.boolean(),
  })
  .map(({ at, slant, tip, inside }): PickupDraft => {
    const way = inside ? -1 : 1
    const place = (along: number, off: number, direction: number) => {
      const [c, s] = [Math.cos(radians(direction)), Math.sin(radians(direction))]
      return { x: at.x + way * along * c - off * s, y: at.y + way * along * s + off * c }
    }
    return {
      axis: 'Y',
      method: 'corner',
      choices: { device: 'probe', directionX: '+', directionY: '+' },
      fields: {
        diameter: fixedDigits(tip, 6),
        pointsX: [1, 2].map((t) => text(place(t, tip / 2, 90 + slant))).join('\n'),
        pointsY: [1, 3].map((t) => text(place(t, -tip / 2, slant))).join('\n'),
        cornerAngle: '90',
        drawingX: '0',
        drawingY: '0',
      },
    }
  })

const within = ({ least, greatest }: PlanSketch, { x, y }: PlanePoint) =>
  x >= least.x && x <= greatest.x && y >= least.y && y <= greatest.y

/** Distance of a point from the straight line through two others. */
const offLine = (p: PlanePoint, a: PlanePoint, b: PlanePoint) =>
  Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / Math.hypot(b.x - a.x, b.y - a.y)

describe('the picture of touches in plan', () => {
  it('has part zero where the arithmetic has it, and shows all that it names', () => {
    fc.assert(
      fc.property(fc.oneof(circle, corner), (draft) => {
        const read = readDraft(draft, 'inch')
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        const picture = planSketch(draft, 'inch')
        for (const reading of read.readings) {
          const { axis, value } = pickUp(reading, settings)
          expect(picture.zero?.[axis === 'X' ? 'x' : 'y']).toBeCloseTo(value, 6)
        }
        const places = [...picture.touches, picture.zero, picture.corner?.at, picture.circle?.centre]
        for (const place of places) if (place) expect(within(picture, place)).toBe(true)
      }),
    )
  })

  it('draws each tip touching: the bore, the boss, the faces lie half a tip from where the spindle stood', () => {
    fc.assert(
      fc.property(circle, (draft) => {
        const { touches, circle: drawn, tip } = planSketch(draft, 'inch')
        for (const { x, y } of touches) {
          const away = Math.hypot(x - (drawn?.centre.x ?? 0), y - (drawn?.centre.y ?? 0))
          expect(Math.abs(away - (drawn?.radius ?? 0))).toBeCloseTo(tip / 2, 5)
        }
      }),
    )
    fc.assert(
      fc.property(corner, (draft) => {
        const { touches, corner: drawn, tip } = planSketch(draft, 'inch')
        if (!drawn) throw new Error('no corner')
        for (const touch of touches) {
          const along = drawn.along[touch.field === 'pointsX' ? 0 : 1]
          expect(offLine(touch, drawn.at, along)).toBeCloseTo(tip / 2, 5)
        }
      }),
    )
  })

  it('tells an inside from an outside corner by where the touches lie', () => {
    const draft = (inside: boolean): PickupDraft => ({
      axis: 'X',
      method: 'corner',
      choices: { device: 'sensor', directionX: '+', directionY: '+' },
      fields: {
        pointsX: inside ? '-10 -6' : '-10 -4',
        pointsY: inside ? '-11 -5\n-14 -5' : '-9 -5\n-6 -5',
        cornerAngle: '90',
      },
    })
    expect(planSketch(draft(false), 'inch').corner).toMatchObject({ inside: false, at: { x: -10, y: -5 } })
    expect(planSketch(draft(true), 'inch').corner?.inside).toBe(true)
  })

  it('means something before there are enough touches', () => {
    const empty = { axis: 'X', method: 'circle', choices: {}, fields: {} } as const
    for (const points of ['', '-10 -5', 'abc', '-10 -5\n-9 -5\n-8 -5']) {
      const picture = planSketch({ ...empty, fields: { points } }, 'mm')
      expect(picture.circle).toBeUndefined()
      expect(picture.greatest.x).toBeGreaterThan(picture.least.x)
    }
  })
})

import { describe, expect, it } from 'vitest'
import { cutsOf } from './plan.ts'
import { cutOutline, type Insert, leftStanding, lowEnd, type Section, wantedDepth } from './section.ts'

// Worked with a pencil from the drawing's numbers.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)

describe('a groove in section, worked by hand', () => {
  const plainSection: Section = {
    low: 0,
    high: 1,
    depth: 0.5,
    corner: 0.1,
    edge: { kind: 'none', size: 0 },
  }
  const insert: Insert = { width: 0.25, corner: 0, programmed: 'low' }
  it('is as deep as drawn: corners, chamfers, round edges, nothing beyond', () => {
    const of = (u: number, edge: Section['edge'] = plainSection.edge) =>
      wantedDepth({ ...plainSection, edge }, u)
    expect([of(-0.001), of(0.1), of(0.5), of(0.9), of(1.001)]).toEqual([0, 0.5, 0.5, 0.5, 0])
    // Three, four, five: .02 in, .08 from the middle of the corner: .06 up.
    expect(of(0.02)).toBeCloseTo(0.46, 12)
    expect(of(0.98)).toBeCloseTo(0.46, 12)
    expect(of(0)).toBeCloseTo(0.4, 12)
    const chamfer = { kind: 'chamfer', size: 0.1 } as const
    expect([of(-0.03, chamfer), of(1.03, chamfer), of(-0.1, chamfer), of(-0.11, chamfer)]).toEqual([
      near(0.07),
      near(0.07),
      near(0),
      0,
    ])
    const round = { kind: 'round', size: 0.1 } as const
    // .04 out of .1: .06 across, .08 up of its centre: .02 deep.
    expect([of(-0.04, round), of(1.04, round), of(-0.1, round)]).toEqual([near(0.02), near(0.02), near(0)])
  })
  it('an insert stands with its programmed end there', () => {
    expect(lowEnd(1, insert)).toBe(1)
    expect(lowEnd(1, { ...insert, programmed: 'high' })).toBe(0.75)
  })
  const down = (u: number, v: number) => ({ from: { u, v: -0.1 }, to: { u, v } })
  it('what single plunges leave: walls, floor, rings, areas', () => {
    const square: Section = { ...plainSection, corner: 0 }
    // From .05, .35 and .7, .25 wide: .05 stands at each wall and between the first two, .1 between the others.
    const plunges = (v: number) => [down(0.05, v), down(0.35, v), down(0.7, v)]
    const ringsOf = (section: Section, v: number) =>
      leftStanding(section, plunges(v), insert).rings.map(({ from, to, height }) =>
        [from, to, height].map((each) => Number(each.toFixed(2))),
      )
    // Away from the corners, of which .1 is wanted round; a floor that stands .02 too high is one ring from wall to wall.
    expect(ringsOf(plainSection, 0.5)).toEqual([
      [0.3, 0.35, 0.5],
      [0.6, 0.7, 0.5],
    ])
    expect(ringsOf(square, 0.48)).toEqual([[0, 1, 0.5]])
    const left = leftStanding(square, plunges(0.48), insert)
    expect(left.walls).toEqual({ low: expect.closeTo(0.05, 5), high: expect.closeTo(0.05, 5) })
    expect(left.floor).toBeCloseTo(0.5, 9)
    expect(left.standing).toBeCloseTo(0.25 * 0.5 + 0.75 * 0.02, 5)
    expect([left.overcut, left.gouge, left.cornerMade]).toEqual([near(0), near(0), 0])
  })
  it('what is cut too deep, too wide, and not at all', () => {
    const square: Section = { ...plainSection, corner: 0 }
    const deep = leftStanding(square, [{ from: { u: 0, v: 0.52 }, to: { u: 0.75, v: 0.52 } }], insert)
    expect([deep.gouge, deep.floor]).toEqual([near(0.02), near(0)])
    expect(deep.overcut).toBeCloseTo(0.02, 5)
    expect(deep.walls).toEqual({ low: expect.closeTo(0, 5), high: expect.closeTo(0, 5) })
    const wide = leftStanding(square, [{ from: { u: -0.03, v: 0.5 }, to: { u: 0.76, v: 0.5 } }], insert)
    expect(wide.walls).toEqual({ low: expect.closeTo(-0.03, 5), high: expect.closeTo(-0.01, 5) })
    expect(wide.gouge).toBeCloseTo(0.03, 5)
    expect(wide.overcut).toBeCloseTo(0.04 * 0.5, 4)
    const none = leftStanding(square, [], insert)
    expect(none.walls).toEqual({ low: 1, high: 1 })
    expect([none.standing, none.floor]).toEqual([expect.closeTo(0.5, 5), near(0.5)])
  })
  it('along an arc and down a slope, with a round corner', () => {
    const round: Insert = { width: 0.4, corner: 0.1, programmed: 'high' }
    const [cut] = cutsOf([{ to: { u: 0.6, v: 0.3 }, feed: 0.004, part: 'finish' }], { u: 0.4, v: 0.1 })
    const left = leftStanding({ ...plainSection, corner: 0 }, [cut as NonNullable<typeof cut>], round)
    const at = (u: number) => left.outline.reduce((a, b) => (Math.abs(b.u - u) < Math.abs(a.u - u) ? b : a)).v
    // At the end its flat reaches from .3 to .5, .3 deep; at the start from .1 to .3, .1 deep.
    expect(at(0.4)).toBeCloseTo(0.3, 6)
    expect(at(0.08)).toBeGreaterThan(0)
    // On the low side the corner's circle (centre .1 in, .1 up of the tip) goes down the slope: its envelope lies r over
    // sqrt 2 further in and deeper. Over u = .2 its centre would be at u + r / sqrt 2.
    const side = 0.1 / Math.SQRT2
    const centre = 0.2 + side
    // The centre of the low corner starts at (.1, 0) and goes to (.3, .2).
    expect(at(0.2)).toBeCloseTo(centre - 0.1 + side, 3)
  })
  it('joins the cuts of moves: rapids move the start and cut nothing', () => {
    const cuts = cutsOf(
      [
        { to: { u: 1, v: 0 }, part: 'aside' },
        { to: { u: 1, v: 0.2 }, feed: 0.004, part: 'plunge' },
        { to: { u: 1.1, v: 0.3 }, centre: { u: 1.1, v: 0.2 }, feed: 0.004, part: 'finish' },
      ],
      { u: 0, v: 0 },
    )
    expect(cuts).toEqual([
      { from: { u: 1, v: 0 }, to: { u: 1, v: 0.2 } },
      { from: { u: 1, v: 0.2 }, to: { u: 1.1, v: 0.3 }, centre: { u: 1.1, v: 0.2 } },
    ])
  })

  it('is the same wherever it lies', () => {
    const edged: Section = { ...plainSection, edge: { kind: 'chamfer', size: 0.06 } }
    const moved = (by: number): Section => ({ ...edged, low: edged.low + by, high: edged.high + by })
    const cuts = (by: number) => [down(0.05 + by, 0.5), down(0.35 + by, 0.52), down(0.7 + by, 0.47)]
    const [here, there] = [0, 3].map((by) => leftStanding(moved(by), cuts(by), insert)) as [
      ReturnType<typeof leftStanding>,
      ReturnType<typeof leftStanding>,
    ]
    expect(there.walls).toEqual({ low: near(here.walls.low, 6), high: near(here.walls.high, 6) })
    for (const key of ['floor', 'standing', 'overcut', 'gouge'] as const)
      expect(there[key]).toBeCloseTo(here[key], 6)
    expect(there.rings.map(({ from, to, height }) => [from, to, height])).toEqual(
      here.rings.map(({ from, to, height }) => [near(from + 3, 6), near(to + 3, 6), near(height, 6)]),
    )
    // Nothing cut leaves the whole width at either wall.
    expect(leftStanding(moved(3), [], insert).walls).toEqual({ low: near(1), high: near(1) })
  })
  it('along an arc to its very end, and the short way round where angles begin anew', () => {
    const circle = (degrees: number) => ({
      u: 2 + 0.2 * Math.cos((degrees * Math.PI) / 180),
      v: 0.3 + 0.2 * Math.sin((degrees * Math.PI) / 180),
    })
    const depth = (from: number, to: number, u: number) => {
      const outline = cutOutline(
        [{ from: circle(from), to: circle(to), centre: { u: 2, v: 0.3 } }],
        { width: 0.01, corner: 0, programmed: 'low' },
        1.7,
        2.3,
      )
      return outline.reduce((a, b) => (Math.abs(b.u - u) < Math.abs(a.u - u) ? b : a)).v
    }
    // From 170 to 190 degrees it goes by the left, no deeper than where it began: sin 170 is .17365.
    expect(depth(170, 190, 1.805)).toBeCloseTo(0.3 + 0.2 * 0.17365, 3)
    expect(depth(190, 170, 1.805)).toBeCloseTo(0.3 + 0.2 * 0.17365, 3)
    expect(depth(170, 190, 2)).toBe(0)
    // From the left to the deepest place: there it is .5 deep, just before it nearly.
    expect(depth(180, 90, 2.005)).toBeCloseTo(0.5, 4)
    expect(depth(90, 180, 2.005)).toBeCloseTo(0.5, 4)
    expect(depth(180, 90, 1.9)).toBeCloseTo(0.3 + 0.2 * Math.sin(Math.acos(-0.5)), 2)
  })
})

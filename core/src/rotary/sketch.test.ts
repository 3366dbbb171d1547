import { describe, expect, it } from 'vitest'
import { measureCentre } from './centre.ts'
import { readCentreDraft, startingCentre, startingFlat } from './draft.ts'
import { centreSketch, flatSketch } from './sketch.ts'

const flat = { ...startingFlat('probe'), y1: '-8.5', y2: '-7.5', z1: '-10', z2: '-9.98' }
const length = (a: { right: number; up: number }, b: { right: number; up: number }) =>
  Math.hypot(a.right - b.right, a.up - b.up)

describe('the picture of a flat', () => {
  it('shows a small tilt as much as can be seen, on the side where it is, and a large one as it is', () => {
    expect(flatSketch(flat, undefined)).toMatchObject({ looks: 90, shownTilt: 0 })
    expect(flatSketch(flat, { tilt: 0.2 })).toMatchObject({ looks: 94, shownTilt: 4 })
    expect(flatSketch(flat, { tilt: -12 })).toMatchObject({ looks: 78, shownTilt: -12 })
    // Its back is high: the second tip, at the back, is higher than the first.
    const { tips } = flatSketch(flat, { tilt: 1 })
    expect(tips[1].right).toBeGreaterThan(tips[0].right)
    expect(tips[1].up).toBeGreaterThan(tips[0].up)
  })

  it('has the tips outside of the flat, in the order of the touches, whichever way it faces', () => {
    const order = (faces: 'up' | 'front' | 'back', z1: string, z2: string) =>
      flatSketch({ ...flat, faces, z1, z2 }, undefined).tips
    expect(order('front', '-11', '-10')[0].up).toBeLessThan(order('front', '-11', '-10')[1].up)
    expect(order('front', '-10', '-11')[0].up).toBeGreaterThan(order('front', '-10', '-11')[1].up)
    expect(order('front', '-11', '-10')[0].right).toBeLessThan(-0.8)
    expect(order('back', '-11', '-10')[0].right).toBeGreaterThan(0.8)
    const turned = flatSketch({ ...flat, y1: '-7.5', y2: '-8.5' }, undefined).tips
    expect(turned[0].right).toBeGreaterThan(turned[1].right)
    const { ends } = flatSketch(flat, { tilt: 7 })
    // A chord 0.72 off the middle of a circle of 1 (3-4-5 like: 2 sqrt(1 - 0.72^2)).
    expect(length(ends[0], ends[1])).toBeCloseTo(2 * Math.sqrt(1 - 0.72 ** 2), 9)
    expect(flatSketch({ ...flat, method: 'level', faces: 'front' }, undefined).looks).toBe(90)
  })
})

describe('the picture of a centre line', () => {
  const draft = {
    ...startingCentre('sensor', 'inch'),
    turned: '0',
    halfTurned: '180',
    front: '-9.003',
    back: '-6.997',
    halfFront: '-9.006',
    halfBack: '-7',
  }
  it('has the part off the axis on the side where it is, and opposite after half a turn', () => {
    const read = readCentreDraft(draft, 'inch')
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    const centre = measureCentre(read.value, { unit: 'inch', leastStep: 0.0001 })
    const { first, half } = centreSketch(draft, centre, 'inch')
    expect(first).toEqual({ right: 0.06, up: 0 })
    expect(half).toEqual({ right: -0.06, up: -0 })
    expect(centreSketch(draft, undefined, 'inch')).toMatchObject({
      first: { right: 0, up: 0 },
      half: undefined,
    })
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { degrees } from '../geometry/index.ts'
import { fixedDigits } from '../quantity/index.ts'
import { type AngleDraft, angleDraftOf, emptyAngleDraft, readAngleDraft } from './draft.ts'
import { measureAngle } from './measure.ts'
import { angleSketch } from './sketch.ts'

const settings = { unit: 'inch', leastStep: 0.0001 } as const
const draft = (points: string, more: Partial<AngleDraft> = {}): AngleDraft => ({
  ...emptyAngleDraft(0.002, 'inch', 'probe', 4),
  points,
  ...more,
})
const angleOf = (of: AngleDraft) => {
  const read = readAngleDraft(of, 'inch')
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return { read, angle: measureAngle(read.reading, settings) }
}

describe('the picture of a part that lies askew', () => {
  it('is turned the right way, so far that it can be seen, and says by how much more than it is', () => {
    fc.assert(
      fc.property(evenly(-9, 9), (lies) => {
        fc.pre(Math.abs(lies) > 0.01)
        const rise = fixedDigits(4 * Math.tan((lies * Math.PI) / 180), 7)
        const of = draft(`0 0\n4 ${rise}`)
        const { angle } = angleOf(of)
        const picture = angleSketch(of, angle, 'inch')
        const [zero, far] = picture.lies
        const drawn = degrees(Math.atan2((far?.y ?? 0) - (zero?.y ?? 0), (far?.x ?? 0) - (zero?.x ?? 0)))
        expect(drawn).toBeCloseTo(picture.shownBy, 9)
        expect(Math.sign(drawn)).toBe(Math.sign(lies))
        expect(Math.abs(drawn)).toBeGreaterThanOrEqual(Math.min(4, Math.abs(lies)) - 1e-6)
        expect(picture.exaggerated * angle.value).toBeCloseTo(picture.shownBy, 9)
        // The touches stand on the drawn edge, in their order, inside the part.
        for (const { x, y } of picture.points) {
          expect(degrees(Math.atan2(y, x))).toBeCloseTo(drawn, 4)
          expect(Math.hypot(x, y)).toBeLessThanOrEqual(picture.reach)
        }
      }),
    )
  })

  it('lies as the drawing has it while nothing is known, and names the point that spoils the fit', () => {
    const empty = angleSketch(draft(''), undefined, 'mm')
    expect(empty.lies).toEqual(empty.nominal)
    expect(empty.points).toEqual([])
    const of = draft('0 0\n1 .001\n2 .012\n3 .003\n4 .004')
    const { angle } = angleOf(of)
    expect(
      angleSketch(of, angle, 'inch')
        .points.filter(({ worst }) => worst)
        .map(({ name }) => name),
    ).toEqual(['touch 3'])
  })

  it('is the same from the form and from the reading that was recorded, by every method', () => {
    for (const of of [
      draft('0 0\n4 .1'),
      draft('', { method: 'holes', holes: '0 0\n4 .1', nominal: '0' }),
      draft('', { method: 'features', features: 'A 0 0 -5 -5\nB 4 0 -1 -4.9\nC 4 2 -1.05 -2.9' }),
      draft('', { method: 'shown', angle: '.25', base: '4' }),
    ]) {
      const { read, angle } = angleOf(of)
      if (!read.ok) throw new Error('not read')
      const recorded = angleDraftOf(read.reading, read.asked)
      expect(angleOf(recorded).angle.value).toBeCloseTo(angle.value, 12)
      expect(angleSketch(recorded, angle, 'inch')).toEqual(angleSketch(of, angle, 'inch'))
    }
  })
})

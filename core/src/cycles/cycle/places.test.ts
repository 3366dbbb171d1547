import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { circlesByDiameter, noPlaces, type PlacesDraft, places, placesOf } from './places.ts'

const of = (draft: Partial<PlacesDraft>) => {
  const read = places.read({ ...noPlaces, ...draft }, 'inch')
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return placesOf(read.value, 'inch')
}
const near = (a: number, b: number) => expect(a).toBeCloseTo(b, 9)

describe('places of holes', () => {
  it('on a bolt circle lie on it, evenly, and begin where the angle says', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: -180, max: 180 }),
        fc.integer({ min: 1, max: 5000 }),
        (count, angle, diameter) => {
          const points = of({
            pattern: 'circle',
            count: String(count),
            angle: String(angle),
            diameter: String(diameter / 1000),
            x: '1',
            y: '-2',
          })
          expect(points).toHaveLength(count)
          const chord = (diameter / 1000) * Math.sin(Math.PI / count)
          points.forEach(({ x, y }, n) => {
            near(Math.hypot(x - 1, y + 2), diameter / 2000)
            // Chord of a regular polygon: D sin(180/n) (common practice).
            const next = points[(n + 1) % count] as { x: number; y: number }
            if (count > 1) near(Math.hypot(next.x - x, next.y - y), chord)
          })
          const radius = diameter / 2000
          near((points[0]?.x ?? 0) - 1, radius * Math.cos((angle * Math.PI) / 180))
          near((points[0]?.y ?? 0) + 2, radius * Math.sin((angle * Math.PI) / 180))
        },
      ),
    )
  })

  it('of four holes on a 2 inch circle from 45 degrees are at 0.7071 (handbook coordinates)', () => {
    expect(
      of({ pattern: 'circle', count: '4', angle: '45', diameter: '2' }).map(({ x, y }) => [
        x.toFixed(4),
        y.toFixed(4),
      ]),
    ).toEqual([
      ['0.7071', '0.7071'],
      ['-0.7071', '0.7071'],
      ['-0.7071', '-0.7071'],
      ['0.7071', '-0.7071'],
    ])
    // Exact at the quarters: no 6e-17 in a program.
    expect(of({ pattern: 'circle', count: '4', angle: '0', diameter: '2' })).toEqual([
      { x: 1, y: 0 },
      { x: 0, y: 1 },
      { x: -1, y: 0 },
      { x: 0, y: -1 },
    ])
  })

  it('of a grid run to and fro; of an arc stand at both its ends', () => {
    expect(of({ pattern: 'grid', count: '3', spacing: '1', rows: '2', rowSpacing: '.5' })).toEqual([
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 2, y: 0 },
      { x: 2, y: 0.5 },
      { x: 1, y: 0.5 },
      { x: 0, y: 0.5 },
    ])
    const arc = of({ pattern: 'arc', count: '3', diameter: '2', angle: '0', span: '90' })
    near(arc[0]?.x ?? 0, 1)
    near(arc[1]?.x ?? 0, Math.SQRT1_2)
    near(arc[2]?.y ?? 0, 1)
  })

  it('are read from a list or a table with a heading, in either unit; a slip is named by its line', () => {
    expect(of({ list: 'X,Y\n1.5,2\n25.4mm,0' })).toEqual([
      { x: 1.5, y: 2 },
      { x: 1, y: 0 },
    ])
    const wrong = places.read({ ...noPlaces, list: '1 2\n3' }, 'inch')
    expect(wrong.ok ? '' : wrong.problems.list?.says).toContain('Line 2')
    expect(places.read({ ...noPlaces, list: '' }, 'inch').ok).toBe(false)
    // What another pattern asks for does not stand in the way.
    expect(of({ pattern: 'row', count: '2', list: 'nonsense', diameter: '' })).toHaveLength(2)
  })

  it('of an outline come by diameter', () => {
    const circles = [
      { x: 0, y: 0, diameter: 0.25 },
      { x: 2, y: 0, diameter: 0.5 },
      { x: 1, y: 0, diameter: 0.25 },
    ]
    expect(circlesByDiameter(circles).map(({ diameter, places: at }) => [diameter, at.length])).toEqual([
      [0.25, 2],
      [0.5, 1],
    ])
  })
})

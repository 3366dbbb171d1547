import { describe, expect, it } from 'vitest'
import { circlesOfDxf, pathsOfDxf } from './dxf.ts'

/** An outline as the DXF reference has it: pairs of a group code and a value, a line each. */
const outline = (units: number | undefined, ...entities: (string | number)[][]) =>
  [
    ...(units === undefined ? [] : [0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, units, 0, 'ENDSEC']),
    0,
    'SECTION',
    2,
    'ENTITIES',
    ...entities.flat(),
    0,
    'ENDSEC',
    0,
    'EOF',
  ].join('\n')
const circle = (x: number, y: number, radius: number) => [
  0,
  'CIRCLE',
  8,
  '0',
  10,
  x,
  20,
  y,
  30,
  0,
  40,
  radius,
]
const line = [0, 'LINE', 8, '0', 10, 0, 20, 0, 30, 0, 11, 5, 21, 5, 31, 0]

describe('the circles of an outline', () => {
  it('are in the unit that the outline names: 1 is inch, 4 is mm (DXF reference, $INSUNITS)', async () => {
    const text = outline(4, circle(25.4, -50.8, 2.55), line)
    expect(await circlesOfDxf(text, 'mm')).toEqual([{ x: 25.4, y: -50.8, diameter: 5.1 }])
    const [inch] = await circlesOfDxf(text, 'inch')
    expect(inch?.x).toBeCloseTo(1, 12)
    expect(inch?.y).toBeCloseTo(-2, 12)
    expect(inch?.diameter).toBeCloseTo(5.1 / 25.4, 12)
    expect(await circlesOfDxf(outline(1, circle(1, 2, 0.125)), 'mm')).toEqual([
      { x: 25.4, y: 50.8, diameter: 6.35 },
    ])
  })
  it('are in the unit of the setup where the outline names none', async () => {
    for (const units of [undefined, 0])
      expect(await circlesOfDxf(outline(units, circle(1, 2, 0.5)), 'mm')).toEqual([
        { x: 1, y: 2, diameter: 1 },
      ])
  })
  it('are none in an outline of lines, and refused in feet or where it is no outline', async () => {
    expect(await circlesOfDxf(outline(1, line), 'inch')).toEqual([])
    await expect(circlesOfDxf(outline(2, circle(1, 2, 0.5)), 'inch')).rejects.toThrow(
      /neither in inch nor in mm/,
    )
    await expect(circlesOfDxf('this is a shopping list', 'inch')).rejects.toThrow()
  })
})

describe('the lines of an outline', () => {
  const arc = [0, 'ARC', 8, '0', 10, 1, 20, 2, 30, 0, 40, 0.5, 50, 350, 51, 80]
  const polyline = [0, 'LWPOLYLINE', 8, '0', 90, 3, 70, 1, 10, 0, 20, 0, 42, 1, 10, 2, 20, 0, 10, 2, 20, 2]
  it('are lines, arcs counter-clockwise, circles and polylines with their bulges, in the unit of the setup', async () => {
    const paths = await pathsOfDxf(outline(1, line, arc, circle(0, 0, 1), polyline), 'mm')
    expect(paths.length).toBe(4)
    expect(paths[0]?.vertices).toMatchObject([
      { x: 0, y: 0 },
      { x: 127, y: 127 },
    ])
    const [from, to] = [paths[1]?.vertices[0], paths[1]?.vertices.at(-1)]
    // 90 degrees from 350 to 80: a bulge of tan 22.5 in one piece.
    expect(paths[1]?.vertices.length).toBe(2)
    expect(from?.bulge).toBeCloseTo(Math.tan(Math.PI / 8), 9)
    expect(from?.x).toBeCloseTo(25.4 * (1 + 0.5 * Math.cos((350 * Math.PI) / 180)), 9)
    expect(to?.y).toBeCloseTo(25.4 * (2 + 0.5 * Math.sin((80 * Math.PI) / 180)), 9)
    expect(paths[2]?.vertices.map(({ bulge }) => bulge)).toMatchObject(
      [1, 1, 1].map((each) => expect.closeTo(each, 9)),
    )
    expect(paths[3]).toMatchObject({ closed: true, vertices: [{ bulge: 1 }, { x: 50.8 }, { y: 50.8 }] })
  })
})

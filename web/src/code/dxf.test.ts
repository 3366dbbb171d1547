import Drawing from 'dxf-writer'
import makerjs from 'makerjs'
import { describe, expect, it } from 'vitest'
import { circlesOfDxf, dxfSaid, pathsOfDxf } from './dxf.ts'

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
    const { paths, unread } = await pathsOfDxf(outline(1, line, arc, circle(0, 0, 1), polyline), 'mm')
    expect(unread).toEqual([])
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
    // A circle is closed: two halves.
    expect(paths[2]?.closed).toBe(true)
    expect(paths[2]?.vertices.map(({ bulge }) => bulge)).toMatchObject(
      [1, 1].map((each) => expect.closeTo(each, 9)),
    )
    expect(paths[3]).toMatchObject({ closed: true, vertices: [{ bulge: 1 }, { x: 50.8 }, { y: 50.8 }] })
  })
})

describe('curves and blocks of an outline', () => {
  /** Points of the lines, arcs left out: for what has none. */
  const points = (paths: readonly { vertices: readonly { x: number; y: number }[] }[]) =>
    paths.flatMap(({ vertices }) => vertices)

  it('an ellipse and a spline of a general drawing library come in as chords, and their number is said', async () => {
    const drawing = new Drawing() as Drawing & {
      drawEllipse: (...of: number[]) => void
      drawSpline: (points: number[][], degree: number, knots: number[], weights: number[]) => void
    }
    drawing.setUnits('Millimeters')
    drawing.drawEllipse(10, 20, 30, 0, 0.5, 0, 2 * Math.PI)
    // The quarter circle of The NURBS Book: weights 1, root of a half, 1.
    drawing.drawSpline(
      [
        [40, 0],
        [40, 40],
        [0, 40],
      ],
      2,
      [0, 0, 0, 1, 1, 1],
      [1, Math.SQRT1_2, 1],
    )
    const { paths, curves, unread } = await pathsOfDxf(drawing.toDxfString(), 'mm')
    expect([paths.length, curves, unread]).toEqual([2, 2, []])
    for (const { x, y } of points(paths.slice(0, 1)))
      expect(((x - 10) / 30) ** 2 + ((y - 20) / 15) ** 2).toBeCloseTo(1, 6)
    for (const { x, y } of points(paths.slice(1))) expect(Math.hypot(x, y)).toBeCloseTo(40, 6)
    expect(dxfSaid({ curves, unread }, 'mm')).toBe('2 curves are chords within 0.01 mm.')
  })

  it('an outline that another library draws in pieces comes back as the closed lines that it was', async () => {
    const model = {
      models: {
        plate: new makerjs.models.RoundRectangle(40, 20, 5),
        slot: makerjs.model.move(new makerjs.models.Slot([5, 10], [15, 10], 2), [3, 0]),
        oval: makerjs.model.move(new makerjs.models.Oval(8, 4), [28, 8]),
      },
    }
    const { paths, unread } = await pathsOfDxf(
      makerjs.exporter.toDXF(model, { units: makerjs.unitType.Millimeter }),
      'mm',
    )
    expect(unread).toEqual([])
    expect(paths.map(({ closed }) => closed)).toEqual([true, true, true])
    // The library's own measure of the whole way round.
    const own = Object.values(model.models).reduce(
      (sum, each) => sum + makerjs.measure.modelPathLength(each),
      0,
    )
    const around = paths.reduce(
      (sum, { vertices }) =>
        sum +
        vertices.reduce((way, { x, y, bulge = 0 }, n) => {
          const next = vertices[(n + 1) % vertices.length] as { x: number; y: number }
          const chord = Math.hypot(next.x - x, next.y - y)
          const sweep = 4 * Math.atan(Math.abs(bulge))
          return way + (sweep < 1e-9 ? chord : (chord * sweep) / 2 / Math.sin(sweep / 2))
        }, 0),
      0,
    )
    expect(around).toBeCloseTo(own, 4)
  })

  const block = (name: string, ...entities: (string | number)[][]) => [
    ...[0, 'BLOCK', 8, '0', 2, name, 70, 0, 10, 1, 20, 0, 30, 0],
    ...entities.flat(),
    ...[0, 'ENDBLK', 8, '0'],
  ]
  const withBlocks = (blocks: (string | number)[][], ...entities: (string | number)[][]) =>
    [
      0,
      'SECTION',
      2,
      'BLOCKS',
      ...blocks.flat(),
      0,
      'ENDSEC',
      ...outline(undefined, ...entities).split('\n'),
    ].join('\n')
  const insert = (name: string, ...more: (string | number)[]) => [0, 'INSERT', 8, '0', 2, name, ...more]

  it('blocks come in where they are inserted: turned, larger, in rows, in each other; circles for holes too', async () => {
    const blocks = [
      block('HOLE', circle(2, 0, 0.5)),
      block('PAIR', insert('HOLE', 10, 1, 20, 0, 30, 0), insert('HOLE', 10, 1, 20, 3, 30, 0)),
    ]
    // Base point X1: what is at X2 of the block is 1 from where it is inserted. Turned by 90 degrees that is up.
    const turned = insert('HOLE', 10, 10, 20, 10, 30, 0, 41, 2, 42, 2, 50, 90)
    expect(await circlesOfDxf(withBlocks(blocks, turned), 'mm')).toEqual([
      { x: expect.closeTo(10, 9), y: expect.closeTo(12, 9), diameter: 2 },
    ])
    const rows = insert('PAIR', 10, 0, 20, 0, 30, 0, 70, 2, 71, 1, 44, 100, 45, 0)
    const found = await circlesOfDxf(withBlocks(blocks, rows), 'mm')
    expect(found.map(({ x, y }) => [x, y])).toEqual([
      [1, 0],
      [1, 3],
      [101, 0],
      [101, 3],
    ])
    // Squeezed a circle is an ellipse: chords in an outline, and no hole.
    const squeezed = withBlocks(blocks, insert('HOLE', 10, 0, 20, 0, 30, 0, 41, 4, 42, 1))
    expect(await circlesOfDxf(squeezed, 'mm')).toEqual([])
    const { paths } = await pathsOfDxf(squeezed, 'mm')
    for (const { x, y } of points(paths)) expect(((x - 4) / 2) ** 2 + (y / 0.5) ** 2).toBeCloseTo(1, 6)
  })

  it('a block that inserts itself ends, and what is not taken is counted by kind', async () => {
    const text = withBlocks(
      [block('LOOP', line, insert('LOOP', 10, 1, 20, 1, 30, 0))],
      insert('LOOP', 10, 0, 20, 0, 30, 0),
      insert('NOWHERE', 10, 0, 20, 0, 30, 0),
      [0, 'TEXT', 8, '0', 10, 0, 20, 0, 30, 0, 40, 1, 1, 'A'],
      [0, 'HATCH', 8, '0', 2, 'SOLID'],
      [0, 'HATCH', 8, '0', 2, 'SOLID'],
      [0, 'SPLINE', 8, '0', 70, 8, 71, 3, 11, 0, 21, 0, 31, 0, 11, 1, 21, 1, 31, 0],
    )
    const { paths, unread } = await pathsOfDxf(text, 'mm')
    expect(paths.length).toBeGreaterThan(0)
    const counted = Object.fromEntries(unread.map(({ kind, count }) => [kind, count]))
    expect(counted).toEqual({ HATCH: 2, INSERT: 2, TEXT: 1, SPLINE: 1 })
    expect(dxfSaid({ curves: 0, unread }, 'mm')).toMatch(/^Not taken: .*2 HATCH/)
    expect(dxfSaid({ curves: 0, unread: [] }, 'mm')).toBe('')
  })

  it('what is drawn from behind is mirrored (DXF reference: extrusion direction)', async () => {
    const behind = [...circle(3, 2, 1), 210, 0, 220, 0, 230, -1]
    const arc = [0, 'ARC', 8, '0', 10, 1, 20, 0, 30, 0, 40, 1, 50, 0, 51, 90, 210, 0, 220, 0, 230, -1]
    const { paths } = await pathsOfDxf(outline(4, arc), 'mm')
    expect(paths[0]?.vertices[0]).toMatchObject({ x: expect.closeTo(-2, 9), y: 0 })
    expect(paths[0]?.vertices[0]?.bulge).toBeLessThan(0)
    expect(await circlesOfDxf(outline(4, behind), 'mm')).toEqual([{ x: -3, y: 2, diameter: 2 }])
    // A line's places are the drawing's own, whichever side it is seen from; an ellipse runs the other way round.
    const under = outline(4, [...line, 210, 0, 220, 0, 230, -1])
    expect((await pathsOfDxf(under, 'mm')).paths[0]?.vertices).toMatchObject([
      { x: 0, y: 0 },
      { x: 5, y: 5 },
    ])
    const quarter = (z: number) =>
      outline(4, [
        0,
        'ELLIPSE',
        8,
        '0',
        10,
        0,
        20,
        0,
        30,
        0,
        11,
        2,
        21,
        0,
        31,
        0,
        40,
        0.5,
        41,
        0,
        42,
        1.5707963,
        230,
        z,
      ])
    expect((await pathsOfDxf(quarter(1), 'mm')).paths[0]?.vertices.at(-1)?.y).toBeCloseTo(1, 5)
    expect((await pathsOfDxf(quarter(-1), 'mm')).paths[0]?.vertices.at(-1)?.y).toBeCloseTo(-1, 5)
  })
})

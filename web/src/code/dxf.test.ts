import { describe, expect, it } from 'vitest'
import { circlesOfDxf } from './dxf.ts'

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

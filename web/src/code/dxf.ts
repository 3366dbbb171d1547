import type { DrawnCircle } from '@dogleg/core/cycles/cycle'
import { convertLength, type LengthUnit } from '@dogleg/core/quantity'

/** What is wrong with an outline, in a sentence for the page. */
class Unclear extends Error {
  override name = 'Unclear'
}

/** Units that a DXF names ($INSUNITS) and a shop drawing has. */
const UNITS: Record<number, LengthUnit> = { 1: 'inch', 4: 'mm' }

interface Entity {
  type: string
  center?: { x: number; y: number }
  radius?: number
}

/**
 * The circles of a DXF outline, in the setup's unit. An outline that names no unit is taken to be in the setup's.
 * Throws Unclear where it names one that no shop drawing has. The reader is loaded with the first file.
 */
export async function circlesOfDxf(text: string, unit: LengthUnit): Promise<DrawnCircle[]> {
  const { default: DxfParser } = await import('dxf-parser')
  const drawing = new DxfParser().parseSync(text)
  if (!drawing) throw new Error('no drawing')
  const named = Number(drawing.header?.$INSUNITS ?? 0)
  const own = named === 0 ? unit : UNITS[named]
  if (!own) throw new Unclear('The outline is neither in inch nor in mm. Save it again in one of the two.')
  return (drawing.entities as Entity[]).flatMap(({ type, center, radius }) =>
    type === 'CIRCLE' && center && radius && Number.isFinite(radius)
      ? [
          {
            x: convertLength(center.x, own, unit),
            y: convertLength(center.y, own, unit),
            diameter: convertLength(2 * radius, own, unit),
          },
        ]
      : [],
  )
}

import type { DrawnCircle } from '@dogleg/core/cycles/cycle'
import type { OutlinePath, Vertex } from '@dogleg/core/cycles/wrapping'
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
  /** Radians. */
  startAngle?: number
  endAngle?: number
  vertices?: readonly Vertex[]
  /** A polyline that is closed. */
  shape?: boolean
}

/**
 * What a DXF outline is drawn of, and what turns its lengths into those of the setup. An outline that names no unit is taken
 * to be in the setup's. Throws Unclear where it names one that no shop drawing has. The reader is loaded with the first file.
 */
async function entitiesOf(text: string, unit: LengthUnit) {
  const { default: DxfParser } = await import('dxf-parser')
  const drawing = new DxfParser().parseSync(text)
  if (!drawing) throw new Error('no drawing')
  const named = Number(drawing.header?.$INSUNITS ?? 0)
  const own = named === 0 ? unit : UNITS[named]
  if (!own) throw new Unclear('The outline is neither in inch nor in mm. Save it again in one of the two.')
  return {
    entities: drawing.entities as Entity[],
    length: (value: number) => convertLength(value, own, unit),
  }
}

/** The circles of a DXF outline, in the setup's unit. */
export async function circlesOfDxf(text: string, unit: LengthUnit): Promise<DrawnCircle[]> {
  const { entities, length } = await entitiesOf(text, unit)
  return entities.flatMap(({ type, center, radius }) =>
    type === 'CIRCLE' && center && radius && Number.isFinite(radius)
      ? [{ x: length(center.x), y: length(center.y), diameter: length(2 * radius) }]
      : [],
  )
}

/** A circle or arc as vertices with bulges; an arc runs counter-clockwise (DXF). */
function roundPath(
  { x, y }: { x: number; y: number },
  radius: number,
  from: number,
  to: number,
): OutlinePath {
  const sweep = to > from ? to - from : to - from + 2 * Math.PI
  const pieces = Math.max(1, Math.ceil(sweep / Math.PI - 1e-9))
  const bulge = Math.tan(sweep / pieces / 4)
  return {
    closed: false,
    vertices: Array.from({ length: pieces + 1 }, (_, n) => {
      const at = from + (sweep * n) / pieces
      return { x: x + radius * Math.cos(at), y: y + radius * Math.sin(at), bulge }
    }),
  }
}

/** The lines, arcs, circles and polylines of a DXF outline, in the setup's unit. */
export async function pathsOfDxf(text: string, unit: LengthUnit): Promise<OutlinePath[]> {
  const { entities, length } = await entitiesOf(text, unit)
  const own = ({ x, y, bulge }: Vertex): Vertex => ({
    x: length(x),
    y: length(y),
    ...(bulge === undefined ? {} : { bulge }),
  })
  return entities.flatMap(
    ({ type, center, radius, startAngle, endAngle, vertices, shape }): OutlinePath[] => {
      if (center && radius && (type === 'CIRCLE' || type === 'ARC')) {
        const [from, to] = type === 'ARC' ? [startAngle ?? 0, endAngle ?? 0] : [0, 2 * Math.PI]
        return [roundPath(own(center), length(radius), from, to)]
      }
      if (vertices && (type === 'LINE' || type === 'LWPOLYLINE' || type === 'POLYLINE'))
        return [{ vertices: vertices.map(own), closed: shape === true }]
      return []
    },
  )
}

import type { DrawnCircle } from '@dogleg/core/cycles/cycle'
import {
  AS_DRAWN,
  ellipseIn,
  ellipsePath,
  evenScale,
  isSound,
  joined,
  type OutlinePath,
  type Placing,
  pathIn,
  placedIn,
  placePoint,
  splinePath,
  type Vertex,
} from '@dogleg/core/outline'
import { convertLength, type LengthUnit } from '@dogleg/core/quantity'

/** What is wrong with an outline, in a sentence for the page. */
class Unclear extends Error {
  override name = 'Unclear'
}

/** Units that a DXF names ($INSUNITS) and a shop drawing has. */
const UNITS: Record<number, LengthUnit> = { 1: 'inch', 4: 'mm' }

/** How far a chord may be from its curve, and how near two ends must be to be one. */
const CURVE_WITHIN: Record<LengthUnit, number> = { inch: 0.0005, mm: 0.01 }
const ENDS_WITHIN: Record<LengthUnit, number> = { inch: 0.0002, mm: 0.005 }

/** Blocks within blocks, and pieces in all: a drawing that inserts itself, or a hostile one, ends here. */
const DEEPEST = 8
const MOST_PIECES = 50_000

interface Point {
  x: number
  y: number
}

/** What the reader gives of the kinds that are taken; all of it may be missing. */
interface Entity {
  type: string
  center?: Point
  radius?: number
  /** Radians; of an ellipse its parameters. */
  startAngle?: number
  endAngle?: number
  majorAxisEndPoint?: Point
  axisRatio?: number
  vertices?: readonly (Vertex & { splineControlPoint?: boolean })[]
  /** A polyline that is closed. */
  shape?: boolean
  is3dPolygonMesh?: boolean
  isPolyfaceMesh?: boolean
  degreeOfSplineCurve?: number
  controlPoints?: readonly Point[]
  knotValues?: readonly number[]
  weights?: readonly number[]
  closed?: boolean
  /** A block that is inserted. */
  name?: string
  position?: Point
  xScale?: number
  yScale?: number
  /** Degrees. */
  rotation?: number
  columnCount?: number
  rowCount?: number
  columnSpacing?: number
  rowSpacing?: number
  extrusionDirectionZ?: number
  extrusionDirection?: { z: number }
}

interface Drawing {
  entities: Entity[]
  blocks: Record<string, { position?: Point; entities?: Entity[] }>
  /** Entities that the reader does not know at all, by the block that they are in ('' for the drawing itself). */
  unknown: Map<string, Map<string, number>>
}

interface Group {
  code: number
  value: unknown
}
interface Scanner {
  next: () => Group
  isEOF: () => boolean
}

/** Kinds that the reader knows; others it drops. */
const KNOWN = new Set(
  'POINT 3DFACE ARC ATTDEF CIRCLE DIMENSION ELLIPSE INSERT LINE LWPOLYLINE MTEXT POLYLINE SOLID SPLINE TEXT VERTEX SEQEND ATTRIB SECTION ENDSEC BLOCK ENDBLK EOF'.split(
    ' ',
  ),
)

/** What the reader drops, found by the text's own pairs of code and value. */
function unknownIn(text: string): Drawing['unknown'] {
  const lines = text.split(/\r\n|\r|\n/)
  const found: Drawing['unknown'] = new Map()
  let section = ''
  let block = ''
  let [wantsSection, wantsBlock] = [false, false]
  for (let n = 0; n + 1 < lines.length; n += 2) {
    const code = (lines[n] as string).trim()
    const value = (lines[n + 1] as string).trim()
    if (code === '2' && wantsSection) {
      section = value
      wantsSection = false
    } else if (code === '2' && wantsBlock) {
      block = value
      wantsBlock = false
    }
    if (code !== '0') continue
    if (value === 'SECTION') wantsSection = true
    if (value === 'BLOCK') wantsBlock = true
    if (value === 'ENDBLK' || value === 'ENDSEC') block = ''
    if ((section !== 'ENTITIES' && section !== 'BLOCKS') || KNOWN.has(value)) continue
    const kinds = found.get(block) ?? new Map<string, number>()
    kinds.set(value, (kinds.get(value) ?? 0) + 1)
    found.set(block, kinds)
  }
  return found
}

/** The values of an entity by group code, in order, up to the next entity. */
function valuesOf(scanner: Scanner): (code: number) => number[] {
  const groups: Group[] = []
  for (let group = scanner.next(); !scanner.isEOF() && group.code !== 0; group = scanner.next())
    groups.push(group)
  return (wanted) => groups.filter(({ code }) => code === wanted).map(({ value }) => Number(value))
}

/** A reader for one kind of entity, in place of the parser's own. */
const readerOf = (kind: string, read: (all: (code: number) => number[]) => Omit<Entity, 'type'>) =>
  class {
    readonly ForEntityName = kind
    parseEntity = (scanner: Scanner): Entity => ({ type: kind, ...read(valuesOf(scanner)) })
  }

const pointOf = (all: (code: number) => number[], code: number) => ({
  x: all(code)[0] ?? Number.NaN,
  y: all(code + 10)[0] ?? Number.NaN,
})
const seenFrom = (all: (code: number) => number[]) => ({ extrusionDirectionZ: all(230)[0] ?? 1 })

/**
 * Kinds of which the parser leaves out what matters here: from which side a circle or an ellipse is drawn (230), the
 * weights of a spline (41). Codes as the DXF reference has them.
 */
const OWN_READERS = [
  readerOf('CIRCLE', (all) => ({
    center: pointOf(all, 10),
    radius: all(40)[0] ?? Number.NaN,
    ...seenFrom(all),
  })),
  readerOf('ELLIPSE', (all) => ({
    center: pointOf(all, 10),
    majorAxisEndPoint: pointOf(all, 11),
    axisRatio: all(40)[0] ?? Number.NaN,
    startAngle: all(41)[0] ?? 0,
    endAngle: all(42)[0] ?? 2 * Math.PI,
    ...seenFrom(all),
  })),
  readerOf('SPLINE', (all) => {
    const weights = all(41)
    return {
      degreeOfSplineCurve: all(71)[0] ?? 3,
      controlPoints: all(10).map((x, n) => ({ x, y: all(20)[n] ?? Number.NaN })),
      knotValues: all(40),
      ...(weights.length > 0 ? { weights } : {}),
      closed: ((all(70)[0] ?? 0) & 1) !== 0,
    }
  }),
]

async function parse(text: string) {
  const { default: DxfParser } = await import('dxf-parser')
  const parser = new DxfParser()
  for (const own of OWN_READERS)
    parser.registerEntityHandler(own as unknown as Parameters<typeof parser.registerEntityHandler>[0])
  return parser.parseSync(text)
}

/**
 * What a DXF outline is drawn of, and what turns its lengths into those of the setup. An outline that names no unit is taken
 * to be in the setup's. Throws Unclear where it names one that no shop drawing has. The reader is loaded with the first file.
 */
async function drawingOf(text: string, unit: LengthUnit) {
  const drawing = await parse(text)
  if (!drawing) throw new Error('no drawing')
  const named = Number(drawing.header?.$INSUNITS ?? 0)
  const own = named === 0 ? unit : UNITS[named]
  if (!own) throw new Unclear('The outline is neither in inch nor in mm. Save it again in one of the two.')
  const scale = convertLength(1, own, unit)
  return {
    drawing: {
      entities: drawing.entities as unknown as Entity[],
      blocks: (drawing.blocks ?? {}) as unknown as Drawing['blocks'],
      unknown: unknownIn(text),
    },
    placing: { ...AS_DRAWN, a: scale, d: scale },
  }
}

/** Kinds whose places count in a system of their own; those of the others are the drawing's (DXF reference). */
const OWN_SYSTEM = new Set(['CIRCLE', 'ARC', 'LWPOLYLINE', 'POLYLINE', 'INSERT'])
const fromBehind = ({ extrusionDirectionZ, extrusionDirection }: Entity) =>
  (extrusionDirectionZ ?? extrusionDirection?.z ?? 1) < 0

/** What is drawn from behind is mirrored. */
const asSeen = (of: Entity, placing: Placing): Placing =>
  OWN_SYSTEM.has(of.type) && fromBehind(of) ? placedIn({ ...AS_DRAWN, a: -1 }, placing) : placing

/** Where the block of an INSERT comes to lie, once for each row and column of it. */
function placingsOf(of: Entity, base: Point, outer: Placing): Placing[] {
  const angle = ((of.rotation ?? 0) * Math.PI) / 180
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
  const [sx, sy] = [of.xScale ?? 1, of.yScale ?? 1]
  const turned = { a: cos * sx, b: sin * sx, c: -sin * sy, d: cos * sy, e: 0, f: 0 }
  const { x, y } = of.position ?? { x: 0, y: 0 }
  const [bx, by] = placePoint(turned, base.x, base.y)
  const [columns, rows] = [Math.max(1, of.columnCount ?? 1), Math.max(1, of.rowCount ?? 1)]
  return Array.from({ length: Math.min(MOST_PIECES, columns * rows) }, (_, n) => {
    const [right, up] = [
      (n % columns) * (of.columnSpacing ?? 0),
      Math.floor(n / columns) * (of.rowSpacing ?? 0),
    ]
    const [e, f] = [x + right * cos - up * sin - bx, y + right * sin + up * cos - by]
    return placedIn({ ...turned, e, f }, outer)
  })
}

/** Every entity of a drawing with where it lies, blocks that are inserted taken apart. */
function* eachEntity(
  drawing: Drawing,
  placing: Placing,
  told: (kind: string, count: number) => void,
): Generator<{ of: Entity; placing: Placing }> {
  let pieces = 0
  function* within(
    name: string,
    entities: readonly Entity[],
    at: Placing,
    depth: number,
  ): Generator<{ of: Entity; placing: Placing }> {
    for (const [kind, count] of drawing.unknown.get(name) ?? []) told(kind, count)
    for (const of of entities) {
      if (++pieces > MOST_PIECES) throw new Unclear(`The outline has more than ${MOST_PIECES} pieces.`)
      const block = of.type === 'INSERT' ? drawing.blocks[of.name ?? ''] : undefined
      if (of.type !== 'INSERT') yield { of, placing: asSeen(of, at) }
      else if (!block?.entities || depth >= DEEPEST) told('INSERT', 1)
      else
        for (const place of placingsOf(of, block.position ?? { x: 0, y: 0 }, asSeen(of, at)))
          yield* within(of.name ?? '', block.entities, place, depth + 1)
    }
  }
  yield* within('', drawing.entities, placing, 0)
}

/** The circles of a DXF outline, in the setup's unit; also those of blocks that are inserted. */
export async function circlesOfDxf(text: string, unit: LengthUnit): Promise<DrawnCircle[]> {
  const { drawing, placing } = await drawingOf(text, unit)
  const circles: DrawnCircle[] = []
  for (const { of, placing: at } of eachEntity(drawing, placing, () => {})) {
    const { type, center, radius } = of
    const scale = evenScale(at)
    if (type !== 'CIRCLE' || !center || !radius || scale === undefined) continue
    if (!Number.isFinite(center.x + center.y + radius)) continue
    const [x, y] = placePoint(at, center.x, center.y)
    circles.push({ x, y, diameter: 2 * radius * scale })
  }
  return circles
}

/** A circle or arc as vertices with bulges; an arc runs counter-clockwise (DXF). */
function roundPath({ x, y }: Point, radius: number, from: number, to: number): OutlinePath {
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

/** One entity as a line of the outline; undefined where it is none that is taken. */
function pathOf(of: Entity, placing: Placing, tolerance: number): OutlinePath | undefined {
  const { type, center, radius, vertices } = of
  if (
    center &&
    radius &&
    Number.isFinite(center.x + center.y + radius) &&
    (type === 'CIRCLE' || type === 'ARC')
  ) {
    const [from, to] = type === 'ARC' ? [of.startAngle ?? 0, of.endAngle ?? 0] : [0, 2 * Math.PI]
    return pathIn(roundPath(center, radius, from, to), placing, tolerance)
  }
  if (vertices && (type === 'LINE' || type === 'LWPOLYLINE' || type === 'POLYLINE')) {
    if (of.is3dPolygonMesh || of.isPolyfaceMesh) return undefined
    // The frame that a polyline was fitted to is no part of it.
    const drawn = vertices.filter(({ splineControlPoint }) => !splineControlPoint)
    return pathIn({ vertices: drawn, closed: of.shape === true }, placing, tolerance)
  }
  if (type === 'ELLIPSE' && center && of.majorAxisEndPoint && of.axisRatio) {
    const { x, y } = of.majorAxisEndPoint
    if (!Number.isFinite(center.x + center.y + x + y + of.axisRatio)) return undefined
    // Seen from behind its parameter runs the other way round.
    const minor = fromBehind(of) ? -of.axisRatio : of.axisRatio
    const ellipse = {
      centre: [center.x, center.y] as const,
      u: [x, y] as const,
      v: [-y * minor, x * minor] as const,
      from: of.startAngle ?? 0,
      to: of.endAngle ?? 2 * Math.PI,
    }
    return ellipsePath(ellipseIn(ellipse, placing), tolerance)
  }
  if (type === 'SPLINE' && of.controlPoints) {
    const spline = {
      degree: of.degreeOfSplineCurve ?? 3,
      points: of.controlPoints.map(({ x, y }) => placePoint(placing, x, y)),
      knots: of.knotValues ?? [],
      ...(of.weights ? { weights: of.weights } : {}),
      closed: of.closed === true,
    }
    return isSound(spline) ? splinePath(spline, tolerance) : undefined
  }
  return undefined
}

export interface DrawnPaths {
  paths: OutlinePath[]
  /** Curves that came in as chords. */
  curves: number
  /** What is in the drawing and was not taken, by kind, as the format names it. */
  unread: { kind: string; count: number }[]
}

/**
 * The lines, arcs, circles, polylines, ellipses and splines of a DXF outline, also those of blocks that are inserted, in the
 * setup's unit. Curves are chords within CURVE_WITHIN; ends that meet are joined.
 */
export async function pathsOfDxf(text: string, unit: LengthUnit): Promise<DrawnPaths> {
  const { drawing, placing } = await drawingOf(text, unit)
  const unread = new Map<string, number>()
  const told = (kind: string, count: number) => unread.set(kind, (unread.get(kind) ?? 0) + count)
  const tolerance = CURVE_WITHIN[unit]
  const paths: OutlinePath[] = []
  let curves = 0
  for (const { of, placing: at } of eachEntity(drawing, placing, told)) {
    const path = pathOf(of, at, tolerance)
    if (!path) told(of.type, 1)
    else {
      paths.push(path)
      if (of.type === 'ELLIPSE' || of.type === 'SPLINE') curves++
    }
  }
  return {
    paths: joined(paths, ENDS_WITHIN[unit]),
    curves,
    unread: [...unread].map(([kind, count]) => ({ kind, count })),
  }
}

/** What was left out and how near the curves are, in a sentence; empty where there is nothing to say. */
export function dxfSaid({ curves, unread }: Omit<DrawnPaths, 'paths'>, unit: LengthUnit): string {
  const within = `${CURVE_WITHIN[unit]} ${unit === 'inch' ? 'in' : 'mm'}`
  const left = unread.map(({ kind, count }) => `${count} ${kind}`).join(', ')
  return [
    curves > 0 ? `${curves === 1 ? 'One curve is' : `${curves} curves are`} chords within ${within}.` : '',
    left ? `Not taken: ${left}.` : '',
  ]
    .filter(Boolean)
    .join(' ')
}

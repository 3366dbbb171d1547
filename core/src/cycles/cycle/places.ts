import { z } from 'zod'
import { cosineOf, sineOf } from '../../geometry/index.ts'
import { convertLength, type LengthUnit, readRows, type TypedLength } from '../../quantity/index.ts'
import { type Field, formOf, type KeptOf, length, number, oneOf, type TypedOf } from './fields.ts'

/** Holes beyond these are not taken in one operation. */
export const MOST_PLACES = 5_000

export interface HolePlace {
  x: number
  y: number
}

const typedPlaces = z.object({
  text: z.string().max(400_000),
  unit: z.enum(['inch', 'mm']),
  points: z.array(z.tuple([z.number(), z.number()])).max(MOST_PLACES),
})

/** Places typed or pasted, a line each, kept as typed beside what they meant. */
const list: Field<z.infer<typeof typedPlaces>, string> = {
  kept: typedPlaces,
  typed: z.string(),
  blank: { text: '', unit: 'inch', points: [] },
  read: (text, unit) => {
    const read = readRows(text, unit, {
      columns: ['X', 'Y'],
      needs: 'Type or paste the places, X and Y on a line each.',
      least: 1,
      most: MOST_PLACES,
    })
    if (!read.ok) return read
    const points = read.rows.map(({ cells }): [number, number] => [
      cells[0]?.value ?? 0,
      cells[1]?.value ?? 0,
    ])
    return { ok: true, value: { text, unit, points } }
  },
  write: ({ text }) => text,
}

const count = number({ least: 1, most: 1_000, whole: true, says: 'Type a whole number from 1 to 1000.' })
const degrees = number({ least: -360, most: 360, says: 'Type degrees, from -360 to 360.' })

/** Where the holes are, in the numbers of the drawing. */
export const placesForm = {
  pattern: oneOf(['list', 'row', 'grid', 'circle', 'arc']),
  list,
  x: length(),
  y: length(),
  count,
  spacing: length(),
  angle: degrees,
  rows: count,
  rowSpacing: length(),
  diameter: length({ above: 0, says: 'The diameter must be more than zero.' }),
  span: degrees,
}
export type Pattern = KeptOf<typeof placesForm>['pattern']

const ASKED: Record<Pattern, readonly string[]> = {
  list: ['list'],
  row: ['x', 'y', 'count', 'spacing', 'angle'],
  grid: ['x', 'y', 'count', 'spacing', 'angle', 'rows', 'rowSpacing'],
  circle: ['x', 'y', 'count', 'diameter', 'angle'],
  arc: ['x', 'y', 'count', 'diameter', 'angle', 'span'],
}

/** Whether a field is asked for with this pattern. */
export const placeFieldAsked = (pattern: Pattern, field: string) =>
  field === 'pattern' || ASKED[pattern].includes(field)

/** The form by itself. */
export const places = formOf(placesForm, (draft) => (field) => placeFieldAsked(draft.pattern, String(field)))
export type Places = KeptOf<typeof placesForm>
export type PlacesDraft = TypedOf<typeof placesForm>

export const noPlaces: PlacesDraft = {
  pattern: 'list',
  list: '',
  x: '0',
  y: '0',
  count: '4',
  spacing: '1',
  angle: '0',
  rows: '2',
  rowSpacing: '1',
  diameter: '2',
  span: '90',
}

/**
 * The places of the holes in order, in `unit`; a grid runs to and fro, so that no row begins with a long way back.
 * A circle begins at `angle` and goes counter-clockwise; an arc has its first and last hole at its ends.
 */
export function placesOf(of: Places, unit: LengthUnit): HolePlace[] {
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const [x, y] = [own(of.x), own(of.y)]
  const { pattern, count, angle } = of
  if (pattern === 'list')
    return of.list.points.map(([px, py]) => ({
      x: convertLength(px, of.list.unit, unit),
      y: convertLength(py, of.list.unit, unit),
    }))
  const [cos, sin] = [cosineOf(angle), sineOf(angle)]
  if (pattern === 'row' || pattern === 'grid') {
    const [step, rowStep] = [own(of.spacing), own(of.rowSpacing)]
    const rows = pattern === 'row' ? 1 : of.rows
    return Array.from({ length: rows * count }, (_, n) => {
      const row = Math.floor(n / count)
      const along = (row % 2 === 0 ? n % count : count - 1 - (n % count)) * step
      const across = row * rowStep
      return { x: x + along * cos - across * sin, y: y + along * sin + across * cos }
    })
  }
  const radius = own(of.diameter) / 2
  const step = pattern === 'circle' ? 360 / count : count > 1 ? of.span / (count - 1) : 0
  return Array.from({ length: count }, (_, n) => ({
    x: x + radius * cosineOf(angle + n * step),
    y: y + radius * sineOf(angle + n * step),
  }))
}

/** Two places of the same hole, nearer to each other than `least` along X and Y, if any: by their numbers from 1. */
export function doublePlace(points: readonly HolePlace[], least: number): [number, number] | undefined {
  const order = points.map((_, index) => index).sort((a, b) => (points[a]?.x ?? 0) - (points[b]?.x ?? 0))
  for (let n = 1; n < order.length; n++) {
    const at = points[order[n] as number] as HolePlace
    for (let m = n - 1; m >= 0; m--) {
      const other = points[order[m] as number] as HolePlace
      if (at.x - other.x >= least) break
      if (Math.abs(at.y - other.y) < least) {
        const [a, b] = [order[n] as number, order[m] as number]
        return a < b ? [a + 1, b + 1] : [b + 1, a + 1]
      }
    }
  }
  return undefined
}

/** A circle of an outline, in the drawing's own numbers. */
export interface DrawnCircle {
  x: number
  y: number
  diameter: number
}

/** The circles of an outline by diameter, the largest group first: holes of one kind have one diameter. */
export function circlesByDiameter(
  circles: readonly DrawnCircle[],
): { diameter: number; places: HolePlace[] }[] {
  const groups = new Map<string, { diameter: number; places: HolePlace[] }>()
  for (const { x, y, diameter } of circles) {
    const key = diameter.toFixed(4)
    const group = groups.get(key) ?? { diameter, places: [] }
    group.places.push({ x, y })
    groups.set(key, group)
  }
  return [...groups.values()].sort((a, b) => b.places.length - a.places.length)
}

/** Places as they are typed into the list. */
export const asList = (points: readonly HolePlace[]) =>
  points.map(({ x, y }) => `${Number(x.toFixed(6))} ${Number(y.toFixed(6))}`).join('\n')

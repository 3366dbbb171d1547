import { z } from 'zod'
import {
  type FieldProblems,
  formatLength,
  type LengthUnit,
  lengthFields,
  readDegrees,
  readRows,
  type TypedLength,
} from '../quantity/index.ts'
import { type AngleAsked, type AngleReading, angleAsked, angleDevice, angleReading } from './reading.ts'

/** What stands in the form of an angle: everything as typed, nothing promised. */
export const angleDraft = z.object({
  method: z.enum(['edge', 'holes', 'features', 'shown']),
  device: angleDevice,
  /** Touches on an edge, two holes: X and Y a line; features: the drawing's X and Y and the machine's, a line. */
  points: z.string(),
  holes: z.string(),
  features: z.string(),
  nominal: z.string(),
  angle: z.string(),
  base: z.string(),
  reach: z.string(),
  allowed: z.string(),
  needsSquare: z.boolean(),
})
export type AngleDraft = z.infer<typeof angleDraft>
export type AngleField = Exclude<keyof AngleDraft, 'method' | 'device' | 'needsSquare'>

export type AngleProblems = FieldProblems

export type AngleDraftRead =
  | { ok: true; reading: AngleReading; asked: AngleAsked; skipped: readonly string[] }
  /** The angle's own fields may be understood while what is asked of it is not. */
  | { ok: false; problems: AngleProblems; reading?: AngleReading | undefined }

type Told = { empty: boolean; says: string }

const NEEDS: Record<'points' | 'holes' | 'features', string> = {
  points: 'Type X and Y of the spindle at each touch, a line each.',
  holes: 'Type X and Y of the two centres, a line each.',
  features:
    'Type X and Y on the drawing, then X and Y on the machine, a feature to a line. A name may stand in front.',
}

/** A feature that was not measured: a line that ends with a dash or the word for it. */
const NOT_MEASURED = /(?:^|[\s,;\t])(?:-|\?|missing|none)(?:[\s,;\t]+(?:-|\?))?\s*$/i

function pointsIn(typed: string, unit: LengthUnit, needs: string, least: number) {
  const list = readRows(typed, unit, { columns: ['X', 'Y'], needs, least })
  if (!list.ok) return list
  return {
    ok: true as const,
    value: list.rows.map(({ cells }) => ({ x: cells[0] as TypedLength, y: cells[1] as TypedLength })),
  }
}

function featuresIn(typed: string, unit: LengthUnit) {
  const lines = typed.split(/\r\n|\r|\n/)
  const measured = lines.filter((line) => !NOT_MEASURED.test(line))
  const skipped = lines.filter((line) => NOT_MEASURED.test(line)).map((line) => line.trim())
  const list = readRows(measured.join('\n'), unit, {
    columns: ['X', 'Y', 'MX', 'MY'],
    needs: NEEDS.features,
    least: 2,
  })
  if (!list.ok) return list
  const value = list.rows.map(({ name, cells: [x, y, mx, my] }, index) => ({
    name: name ?? `feature ${index + 1}`,
    nominal: { x, y },
    measured: { x: mx, y: my },
  }))
  return { ok: true as const, value, skipped }
}

/** Turns the form into a reading and what is asked of it, or says what each field still needs. Lengths are read in `unit`. */
export function readAngleDraft(draft: AngleDraft, unit: LengthUnit): AngleDraftRead {
  const problems: AngleProblems = {}
  let skipped: readonly string[] = []
  const note = (field: AngleField, told: Told) => {
    problems[field] = { says: told.says, empty: told.empty }
    return undefined
  }
  const take = <T>(field: AngleField, entry: { ok: true; value: T } | ({ ok: false } & Told)) =>
    entry.ok ? entry.value : note(field, entry)
  const length = lengthFields(unit, problems)
  const nominal = () =>
    take('nominal', readDegrees(draft.nominal, "Type the drawing's direction; 0 along X, 90 along Y."))

  const parts: Record<string, unknown> = { method: draft.method, device: draft.device }
  if (draft.method === 'edge') {
    parts.points = take('points', pointsIn(draft.points, unit, NEEDS.points, 2))
    parts.nominal = nominal()
  } else if (draft.method === 'holes') {
    const two = take('holes', pointsIn(draft.holes, unit, NEEDS.holes, 2))
    if (two && two.length > 2)
      note('holes', {
        empty: false,
        says: `That is ${two.length} lines; two holes are wanted. For more choose many features.`,
      })
    else if (two) Object.assign(parts, { first: two[0], second: two[1] })
    parts.nominal = nominal()
  } else if (draft.method === 'features') {
    const list = featuresIn(draft.features, unit)
    if (list.ok) {
      parts.features = list.value
      skipped = list.skipped
    } else note('features', list)
  } else {
    parts.device = 'probe'
    parts.angle = take('angle', readDegrees(draft.angle))
    parts.base = length('base', draft.base)
  }
  const own = Object.keys(problems).length === 0 ? angleReading.safeParse(parts) : undefined
  if (own && !own.success) {
    const field = ({ points: 'points', second: 'holes', features: 'features' } as const)[
      String(own.error.issues[0]?.path[0])
    ]
    for (const { path, message } of own.error.issues)
      problems[field ?? String(path[0])] ??= { says: message, empty: false }
  }
  const reading = own?.success ? own.data : undefined
  const asked = angleAsked.safeParse({
    reach: length('reach', draft.reach),
    allowed: length('allowed', draft.allowed),
    needsSquare: draft.needsSquare,
  })
  if (!asked.success)
    for (const { path, message } of asked.error.issues)
      problems[String(path[0])] ??= { says: message, empty: false }
  return reading && asked.success && Object.keys(problems).length === 0
    ? { ok: true, reading, asked: asked.data, skipped }
    : { ok: false, problems, reading }
}

/** A recorded angle as a form in its own unit, for the picture and to be taken again. */
export function angleDraftOf(reading: AngleReading, asked: AngleAsked): AngleDraft {
  const point = ({ x, y }: { x: TypedLength; y: TypedLength }) => `${x.value} ${y.value}`
  return {
    method: reading.method,
    device: reading.device,
    points: reading.method === 'edge' ? reading.points.map(point).join('\n') : '',
    holes: reading.method === 'holes' ? [reading.first, reading.second].map(point).join('\n') : '',
    features:
      reading.method === 'features'
        ? reading.features
            .map(
              ({ name, nominal, measured }) =>
                `${name.replace(/\s/g, '')} ${point(nominal)} ${point(measured)}`,
            )
            .join('\n')
        : '',
    nominal: 'nominal' in reading ? String(reading.nominal) : '0',
    angle: reading.method === 'shown' ? String(reading.angle) : '',
    base: reading.method === 'shown' ? String(reading.base.value) : '',
    reach: String(asked.reach.value),
    allowed: String(asked.allowed.value),
    needsSquare: asked.needsSquare,
  }
}

/** An empty form: an edge along X, and the tolerance of part zero for what is allowed. `reach` is that of the part, where it is known. */
export const emptyAngleDraft = (
  tolerance: number,
  unit: LengthUnit,
  device: AngleDraft['device'],
  reach?: number,
): AngleDraft => ({
  method: 'edge',
  device,
  points: '',
  holes: '',
  features: '',
  nominal: '0',
  angle: '',
  base: '',
  reach: reach === undefined ? '' : formatLength(reach, unit),
  allowed: formatLength(tolerance, unit),
  needsSquare: false,
})

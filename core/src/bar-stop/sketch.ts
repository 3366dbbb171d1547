import { type LengthUnit, readLength } from '../quantity/index.ts'
import { type BarStopDraft, type BarStopField, DIAMETERS_OUT } from './task.ts'

/** What a field stands for in the picture while nothing is understood in it. [inch, mm] */
const STAND_INS: Partial<Record<BarStopField, Record<LengthUnit, number>>> = {
  standsOut: { inch: 2.5, mm: 60 },
  away: { inch: 0.5, mm: 12 },
}
const USUAL_DIAMETER: Record<LengthUnit, number> = { inch: 1, mm: 25 }

/** A bar in its chuck with the stop in front of it, along Z from part zero, in the setup's unit. */
export interface BarStopSketch {
  push: boolean
  chuck: number
  end: number
  /** Where the face of the stop stands before it slows down. */
  clear: number
  /** The most that may stand out, where it is said. */
  most?: number
  radius: number
  least: number
  greatest: number
  values: Partial<Record<BarStopField, number>>
  known: ReadonlySet<BarStopField>
}

/** Works out the picture of the form, however much has been typed. */
export function barStopSketch(
  draft: BarStopDraft,
  unit: LengthUnit,
  diameter: number | undefined,
): BarStopSketch {
  const known = new Set<BarStopField>()
  const values: BarStopSketch['values'] = {}
  const typed = (field: BarStopField) => {
    const read = readLength(draft[field], unit)
    if (!read.ok) return undefined
    known.add(field)
    values[field] = read.value
    return read.value
  }
  if (/^[Tt]?\s*\d{1,2}$/.test(draft.tool.trim())) known.add('tool')
  const standIn = (field: BarStopField) => STAND_INS[field]?.[unit] ?? 0
  const out = Math.abs(typed('standsOut') ?? standIn('standsOut')) || standIn('standsOut')
  const face = typed('face') ?? 0
  // Without a chuck the bar ends where part zero and the facing say.
  const chuck = typed('chuck') ?? face - out
  const end = chuck + out
  const clear = end + (Math.abs(typed('away') ?? standIn('away')) || standIn('away'))
  const most = typed('most')
  typed('x')
  typed('feed')
  const radius = (diameter ?? USUAL_DIAMETER[unit]) / 2
  const shown = most !== undefined && most > 0 && most < DIAMETERS_OUT * 2 * out ? chuck + most : end
  return {
    push: draft.way === 'push',
    chuck,
    end,
    clear,
    ...(most !== undefined && most > 0 ? { most } : {}),
    radius,
    least: Math.min(chuck, 0),
    greatest: Math.max(clear, shown, 0),
    values,
    known,
  }
}

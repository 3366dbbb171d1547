import { z } from 'zod'
import { type DraftRead, type FieldProblems, type LengthUnit, lengthFields } from '../quantity/index.ts'

/** How the bar comes to stand out as far as it should: pulled against a stop, or pushed back by a pusher. */
export const barWay = z.enum(['pull', 'push'])
export type BarWay = z.infer<typeof barWay>

/** What stands in the form: everything as typed. */
export const barStopDraft = z.object({
  way: barWay,
  tool: z.string(),
  standsOut: z.string(),
  chuck: z.string(),
  face: z.string(),
  most: z.string(),
  x: z.string(),
  away: z.string(),
  feed: z.string(),
})
export type BarStopDraft = z.infer<typeof barStopDraft>
export type BarStopField = Exclude<keyof BarStopDraft, 'way'>

/** A stop or pusher in the turret and the bar that goes to it. Lengths in one unit, X as a diameter. */
export interface BarStopTask {
  way: BarWay
  /** Station of the turret, and the geometry that it is called with. */
  tool: number
  /** From the face of the chuck or collet to the end of the bar. */
  standsOut: number
  /** Z of the chuck's face from part zero: minus, where part zero is the finished face. */
  chuck: number
  /** What is to be faced off the end of the bar. */
  face: number
  /** The most that may stand out of this chuck, for this bar. */
  most: number
  /** Where the middle of the stop stands on the bar. */
  x: number
  /** How far before the end of the bar the turret slows down, and how far it goes away before it goes home. */
  away: number
  /** Length a minute, from there to the bar. */
  feed: number
}

/** Common practice: half an inch before the bar it slows down, to 20 in/min; what is pushed is pushed as slowly. */
const USUAL: Record<LengthUnit, Pick<BarStopDraft, 'away' | 'feed' | 'x'>> = {
  inch: { away: '.500', feed: '20', x: '0' },
  mm: { away: '12', feed: '500', x: '0' },
}

/** The form as it comes: how it is gone about is usual, the rest nobody has said yet. */
export const startingBarStop = (unit: LengthUnit): BarStopDraft => ({
  way: 'pull',
  tool: '',
  standsOut: '',
  chuck: '',
  face: '',
  most: '',
  ...USUAL[unit],
})

/** Bars that stand out further than so many diameters bend and chatter without a centre. Common practice. */
export const DIAMETERS_OUT = 3

/** Turns the form into a task, or says what each field still needs. Lengths are read in `unit`. */
export function readBarStop(draft: BarStopDraft, unit: LengthUnit): DraftRead<BarStopTask> {
  const problems: FieldProblems = {}
  const length = lengthFields(unit, problems)
  const of = (field: Exclude<BarStopField, 'tool'>) => length(field, draft[field])?.value ?? 0
  const station = /^[Tt]?\s*(\d{1,2})$/.exec(draft.tool.trim())?.[1]
  const tool = station === undefined ? undefined : Number(station)
  if (tool === undefined || tool < 1)
    problems.tool =
      draft.tool.trim() === ''
        ? { says: 'Type the station of the stop.', empty: true }
        : { says: 'A station is a whole number from 1 to 99, such as T9.', empty: false }
  const task: BarStopTask = {
    way: draft.way,
    tool: tool ?? 0,
    standsOut: of('standsOut'),
    chuck: of('chuck'),
    face: of('face'),
    most: of('most'),
    x: of('x'),
    away: of('away'),
    feed: of('feed'),
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, value: task }
}

/** Where the stop's face comes to stand, in Z from part zero. */
export const stopAt = ({ chuck, standsOut }: BarStopTask) => chuck + standsOut

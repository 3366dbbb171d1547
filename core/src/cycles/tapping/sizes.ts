import { type Material, materialIn, roundRpm, rpmFor } from '../../cutting/index.ts'
import { convertLength, roundTo, type TypedLength } from '../../quantity/index.ts'
import { type CycleCase, type HolePlace, placesOf, printed } from '../cycle/index.ts'
import { peckDepths } from '../drilling/index.ts'
import type { TapParams } from './params.ts'
import { multipleToTry, type RetractLimits, type TapStroke } from './retract.ts'
import {
  findThread,
  percentFormed,
  percentOfThread,
  TAP_LEADS,
  type Thread,
  tapDrill,
  threadIn,
} from './threads.ts'

/** Everything that a set of tapped holes comes to, in the case's unit: what was typed, and what is computed where nothing was. */
export interface TapSizes {
  thread: Thread
  places: HolePlace[]
  /** Free height for the spindle to come into step. */
  r: { tap: number; other: number }
  clearance: number
  top: number
  /** Full thread, and the unfinished threads at the tap's tip. */
  threadDepth: number
  lead: number
  tapDepth: number
  /** Full diameter, and the drill's point below it. */
  drillDiameter: number
  drillDepth: number
  pointLength: number
  drillPeck: number
  /** Percent of the full thread; null where it means nothing: a taper thread is as large as it is deep. */
  percent: number | null
  /** Room under the tap for chips, down to where the drill's full diameter ends. */
  room: number
  chamfer: { diameter: number; depth: number }
  tapPecks: readonly number[]
  rpm: { chamfer: number; drill: number; tap: number }
  /** Length a turn. */
  feeds: { chamfer: number; drill: number }
  /** Feed of the tap as it is printed, and the lead that it makes. */
  tapFeed: { printed: number; lead: number }
  stroke: TapStroke
  limits: RetractLimits
  /** What the tap comes out at, and the word for it; no word where the control's own is left. */
  multiple: { value: number; written: boolean }
}

/** Least R plane: 2 pitches or 0.1 in, 2.5 mm (trade.md 7). */
const leastR = (unit: 'inch' | 'mm') => (unit === 'inch' ? 0.1 : 2.5)
/** How far a drill goes on where it comes out. By judgement. */
const breakthrough = (unit: 'inch' | 'mm') => (unit === 'inch' ? 0.02 : 0.5)
/** Pitches of room for chips under a cut tap; a form tap makes none. By judgement. */
const ROOM = { cut: 2, form: 1 }
/** A chamfer is this much wider than the thread. By judgement. */
const CHAMFER = 1.06
/** A peck is this many diameters. Common practice. */
const PECK = 1
/** Feeds a turn are computed in steps of this. */
const leastFeed = (unit: 'inch' | 'mm') => (unit === 'inch' ? 0.0001 : 0.001)
/** What is taken where the machine's page says nothing of its spindle. */
const USUAL_ACCELERATION = 40
const USUAL_TAP_TOP = 2_000

const pointLength = (diameter: number, angle: number) =>
  angle >= 180 ? 0 : diameter / 2 / Math.tan((angle * Math.PI) / 360)

/** The thread of the form, in the case's unit. */
export function threadOf(params: Pick<TapParams, 'thread' | 'ownMajor' | 'ownPitch'>, on: CycleCase): Thread {
  const found = params.thread === 'own' ? undefined : findThread(params.thread)
  if (found) return threadIn(found, on.unit)
  const own = ({ value, unit }: TypedLength) => convertLength(value, unit, on.unit)
  const [major, pitch] = [own(params.ownMajor), own(params.ownPitch)]
  // What is drilled for a cut tap leaves about 77 % of the thread: D - P (ISO 2306).
  return {
    id: 'own',
    series: on.unit === 'inch' ? 'UNC' : 'M fine',
    unit: on.unit,
    major,
    pitch,
    drill: major - pitch,
    angle: 60,
  }
}

/** Turns at which feed a minute can be printed as it is: a little less than asked for, where that makes it exact. */
function evenRpm(rpm: number, pitch: number, on: CycleCase): number {
  const exact = (each: number) => Math.abs(printed(each * pitch, on) - each * pitch) < 1e-9
  const asked = roundRpm(rpm)
  if (exact(asked)) return asked
  const perInch = Math.round(1 / pitch)
  if (Math.abs(1 / pitch - perInch) < 1e-9) {
    const even = Math.floor(asked / perInch) * perInch
    if (even > 0.8 * asked && exact(even)) return even
  }
  return asked
}

/** Feed a minute or a turn; a lathe's is a turn's. */
function feedOf(params: TapParams, rpm: number, pitch: number, on: CycleCase) {
  const aMinute = params.feedMode === 'minute' && on.machine.kind === 'mill'
  const feed = printed(aMinute ? rpm * pitch : pitch, on)
  return { printed: feed, lead: aMinute ? feed / rpm : feed }
}

function retractOf(params: TapParams, stroke: TapStroke, limits: RetractLimits, on: CycleCase) {
  const word = on.profile.reading.tapRetract
  const usual = word?.usual ?? 1
  if (!word) return { value: usual, written: false }
  if (params.holder === 'floating') return { value: 1, written: true }
  switch (params.multiple) {
    case 'left':
      return { value: usual, written: false }
    case 'typed':
      return { value: params.multipleTyped, written: true }
    case 'best':
      return { value: multipleToTry(stroke, limits, isTimed(on.machine)), written: true }
  }
}

/** Whether somebody has timed how the spindle of a machine speeds up. */
const isTimed = ({ dynamics }: CycleCase['machine']) => dynamics?.spindleTimed === true

/** The limits of coming out quickly, for this control and machine. */
export const retractLimits = ({ profile, machine }: CycleCase): RetractLimits => ({
  most: profile.reading.tapRetract?.most ?? 1,
  decimal: profile.reading.tapRetract?.decimal ?? false,
  topSpeed: (machine.dynamics?.tapTop ?? USUAL_TAP_TOP) / 60,
})

/** All sizes of a set of tapped holes. `material` gives the speeds that were not typed. */
export function tapSizes(params: TapParams, on: CycleCase, material: Material): TapSizes {
  const { unit, machine } = on
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const thread = threadOf(params, on)
  const { pitch, major } = thread
  const through = params.hole === 'through'
  const lead = TAP_LEADS[params.lead] * pitch
  const threadDepth = own(through ? params.thickness : params.threadDepth)
  const tapDepth = params.tapDepth ? own(params.tapDepth) : threadDepth + lead
  const drillDiameter = params.drillDiameter
    ? own(params.drillDiameter)
    : convertLength(tapDrill(thread, params.tap), thread.unit, unit)
  const roomWanted = params.tapping ? ROOM[params.tap] * pitch : 0
  const drillDepth = params.drillDepth
    ? own(params.drillDepth)
    : through
      ? threadDepth + breakthrough(unit)
      : (params.tapping ? tapDepth : threadDepth) + roomWanted
  const r = params.rPlane ? own(params.rPlane) : undefined
  const rTap = r ?? Math.max(2 * pitch, leastR(unit))
  const chamferDiameter = params.chamferDiameter ? own(params.chamferDiameter) : CHAMFER * major

  const speeds = materialIn(material, unit)
  const top = machine.dynamics?.spindleTop ?? Number.POSITIVE_INFINITY
  const rpmOf = (surface: number, diameter: number) =>
    Math.min(roundRpm(rpmFor(surface, diameter, unit)), top)
  const limits = retractLimits(on)
  const tapRpm =
    params.tapTurns ??
    evenRpm(
      Math.min(rpmOf(params.tap === 'cut' ? speeds.tapping : speeds.forming, major), limits.topSpeed * 60),
      pitch,
      on,
    )
  const drillRpm = params.drillTurns ?? rpmOf(speeds.drilling, drillDiameter)
  const chamferRpm = params.chamferTurns ?? rpmOf(speeds.drilling, chamferDiameter)
  const drillFeed = params.drillFeed
    ? own(params.drillFeed)
    : Math.max(leastFeed(unit), roundTo((speeds.drillFeed / 100) * drillDiameter, unit === 'inch' ? 4 : 3))
  const peckDepth = params.tapPeckDepth ? own(params.tapPeckDepth) : 4 * pitch
  const [rPrinted, zPrinted] = [printed(own(params.top) + rTap, on), printed(own(params.top) - tapDepth, on)]
  const tapPecks = params.tapPeck ? peckDepths(rPrinted, zPrinted, printed(peckDepth, on)) : [zPrinted]
  const stroke: TapStroke = {
    strokes: tapPecks.map((depth) => Math.max(0, rPrinted - depth) / pitch),
    speed: tapRpm / 60,
    acceleration: machine.dynamics?.spindleAcceleration ?? USUAL_ACCELERATION,
  }
  const rule = params.tap === 'cut' ? percentOfThread : percentFormed
  return {
    thread,
    places: placesOf(params, unit),
    r: { tap: rTap, other: r ?? leastR(unit) },
    clearance: own(params.clearance),
    top: own(params.top),
    threadDepth,
    lead,
    tapDepth,
    drillDiameter,
    drillDepth,
    pointLength: pointLength(drillDiameter, params.point),
    drillPeck: params.drillPeck ? own(params.drillPeck) : PECK * drillDiameter,
    percent: thread.taper ? null : rule(major, pitch, drillDiameter),
    room: drillDepth - tapDepth,
    chamfer: { diameter: chamferDiameter, depth: pointLength(chamferDiameter, params.chamferAngle) },
    tapPecks,
    rpm: { chamfer: chamferRpm, drill: drillRpm, tap: tapRpm },
    feeds: { chamfer: drillFeed, drill: drillFeed },
    tapFeed: feedOf(params, tapRpm, pitch, on),
    stroke,
    limits,
    multiple: retractOf(params, stroke, limits, on),
  }
}

/** The largest radius that is cut at the top of a hole. */
export const widest = (
  params: Pick<TapParams, 'chamfer' | 'drill' | 'tapping'>,
  sizes: Pick<TapSizes, 'chamfer' | 'drillDiameter' | 'thread'>,
) =>
  Math.max(
    params.chamfer ? sizes.chamfer.diameter / 2 : 0,
    params.drill ? sizes.drillDiameter / 2 : 0,
    params.tapping ? sizes.thread.major / 2 : 0,
  )

import type { Profile } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'

/** How quickly a machine moves, in the unit asked for, per second. */
export interface MachineSpeeds {
  /** X, Y, Z; on a lathe X is a radius and Y never moves. */
  rapid: readonly [number, number, number]
  acceleration: readonly [number, number, number]
  topFeed: number
  cornerTolerance: number
  /** Turns a second, turns a second squared. */
  tapTop: number
  spindleAcceleration: number
  toolChange: number
  /** The spindle stops for a tool change; a turret is indexed while it turns. */
  stopsToChange: boolean
  /** Degrees a second, degrees a second squared. */
  rotaryTop: number
  rotaryAcceleration: number
  straightRapids: boolean
  /** How far the way of a dogleg rapid is open, by what the machine's page does not say. */
  unsure: {
    /** X, Y, Z: a top may be so many times as high, or as low. */
    speed: readonly [number, number, number]
    /** The same of every acceleration. */
    acceleration: number
    /** Most seconds that an axis may lag behind its trapezoid, because its ramps are rounded. */
    smoothing: number
  }
  /** What leaves it open, in words. */
  openRapids: string[]
  /** What is not known of the machine and was taken as usual, in words. */
  assumed: string[]
}

/** What is taken where a machine's page does not say: a middling machine. Common practice, by judgement; in mm. */
const USUAL = { rapid: 15_000, acceleration: 1_500, topFeed: 10_000, cornerTolerance: 0.025 }
const USUAL_SPINDLE = {
  tapTop: 2_000,
  acceleration: 40,
  toolChange: 5,
  rotary: 3_000,
  rotaryAcceleration: 600,
}

/**
 * What a dogleg rapid may differ by where the page does not say: tops by up to three to one between the axes, accelerations
 * from a quarter to four times the usual, ramps rounded over up to 0.06 s. By judgement.
 */
const UNSURE = { speed: Math.sqrt(3), acceleration: 4, smoothing: 0.06 }

/** The speeds of a machine as its page says them, with what is usual where it does not. */
export function speedsOf(machine: Machine, profile: Profile, unit: LengthUnit): MachineSpeeds {
  const own = (value: number) => convertLength(value, machine.unit, unit)
  const usual = (value: number) => convertLength(value, 'mm', unit)
  const { rapids, dynamics, kind, xSpeeds } = machine
  const half = kind === 'lathe' && xSpeeds === 'diameter' ? 0.5 : 1
  const openX = kind === 'lathe' && xSpeeds === null && (rapids !== null || dynamics !== null)
  const rapid = (axis: 'X' | 'Y' | 'Z') => {
    const of = rapids?.[axis]
    return (of ? own(of) : usual(USUAL.rapid)) / 60
  }
  const acceleration = (axis: 'X' | 'Y' | 'Z') => {
    const of = dynamics?.acceleration[axis]
    return of ? own(of) : usual(USUAL.acceleration)
  }
  return {
    rapid: [rapid('X') * half, rapid('Y'), rapid('Z')],
    acceleration: [acceleration('X') * half, acceleration('Y'), acceleration('Z')],
    topFeed: (dynamics ? own(dynamics.topFeed) : usual(USUAL.topFeed)) / 60,
    cornerTolerance: dynamics ? own(dynamics.cornerTolerance) : usual(USUAL.cornerTolerance),
    tapTop: (dynamics?.tapTop ?? USUAL_SPINDLE.tapTop) / 60,
    spindleAcceleration: dynamics?.spindleAcceleration ?? USUAL_SPINDLE.acceleration,
    toolChange: dynamics?.toolChange ?? USUAL_SPINDLE.toolChange,
    stopsToChange: kind === 'mill',
    rotaryTop: (dynamics?.rotary?.top ?? USUAL_SPINDLE.rotary) / 60,
    rotaryAcceleration: dynamics?.rotary?.acceleration ?? USUAL_SPINDLE.rotaryAcceleration,
    straightRapids: profile.reading.rapids === 'straight',
    unsure: {
      speed: rapids ? [openX ? 2 : 1, 1, 1] : [UNSURE.speed, UNSURE.speed, UNSURE.speed],
      acceleration: dynamics ? 1 : UNSURE.acceleration,
      smoothing: dynamics?.smoothing ?? UNSURE.smoothing,
    },
    openRapids: [
      ...(rapids ? [] : ['how quick the axes are']),
      ...(openX ? ['whether the speeds of X are the slide’s or of the diameter'] : []),
      ...(dynamics ? [] : ['how the axes speed up']),
      ...(dynamics && dynamics.smoothing === null ? ['whether the ramps of its axes are rounded'] : []),
    ],
    assumed: [
      ...(rapids ? [] : ['rapid speeds']),
      ...(dynamics ? [] : ['accelerations, tool change and spindle']),
      ...(openX ? ['that speeds of X are the slide’s, not of the diameter'] : []),
    ],
  }
}

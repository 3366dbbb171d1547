import type { LinearAxis } from '../machine/index.ts'
import type { Frame } from './plan-geometry.ts'
import type { ProgramRun, RunPlan } from './run-plan.ts'
import type { Alarm, BoltState, FinderKind, HeldAgainst, Looks, Tally } from './state-schema.ts'
import type { World } from './world.ts'

/** What is in the spindle of a mill, or at work in the turret of a lathe. */
export type Mounted =
  | { kind: 'nothing' }
  | { kind: 'tool'; tool: number }
  | {
      kind: FinderKind
      /** How far off the next touch is; drawn anew each time that it comes free. */
      touch: number
      /** An edge finder runs off to the side. */
      kicked: boolean
      /** Bent, bumped or broken: what an edge finder or sensor is then off by. */
      harmed: { says: string; off: number } | null
      /** An indicator: where it looks, how far off the high spot it stands (radians), what its dial was set to zero at. */
      looks: Looks
      aside: number
      zero: number
      /** Times that it was bumped. */
      bumps: number
      /** A probe: where it triggered last. */
      triggered: { axis: LinearAxis; at: number } | null
    }

/** A simulated machine as it stands. Positions are machine positions of spindle (or turret) and gauge line. */
export interface SimulatedState {
  world: World
  at: Record<LinearAxis, number>
  /** Numbers of chance that were drawn. */
  drawn: number
  rpm: number
  mounted: Mounted
  /** What is keyed in at the control. On a lathe the geometry of a tool is the offset T1, T2 … */
  offsets: Readonly<Record<string, Partial<Record<LinearAxis, number>>>>
  lengths: Readonly<Record<number, number>>
  /** Common variables as programs have set them, in the unit of the program that did. */
  variables: Readonly<Record<number, number>>
  /** The vise of a mill. */
  vise: { frame: Frame; left: BoltState; right: BoltState } | null
  /** What stands on the table of a mill. */
  table: 'vise' | 'rotary'
  /** A rotary, in degrees: what is shown, and how far that is off until it is homed. */
  turn: { shown: number; off: number } | null
  /** Degrees of the rotary as they are keyed in, by offset. */
  rotaryZeros: Readonly<Record<string, number>>
  held: HeldAgainst | null
  /** Whether the block is in the vise. */
  partIn: boolean
  /** The bar of a lathe as it is by now: what is turned from the face to a place; the pip that a face cut left. */
  bar: {
    face: number
    diameter: number
    turned: { diameter: number; to: number } | null
    pip: boolean
  } | null
  alarm: Alarm | null
  /** What the micrometer showed last, on a lathe. */
  measured: number | null
  /** What just happened, in a sentence. */
  says: string
  tally: Tally
  /** Seconds that the work took so far, as computed for a steady hand. */
  worked: number
  /** The program that it was handed, and how far it is. */
  run: ProgramRun | null
  plan: RunPlan | null
}

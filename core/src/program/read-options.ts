import type { Profile } from '../control/index.ts'
import type { LinearAxis, Machine, Nose } from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'

/** A part that probing meets, in the frame of the main offset. */
export interface StandIn {
  /** Whether a place lies in the material. */
  holds: (x: number, y: number, z: number) => boolean
  /**
   * A touch that meets nothing and a protected move that meets something end the program, as on the machine. Without it
   * they are said, and the program is read on.
   */
  strict?: boolean
  /** How much before the face the next touch triggers, in the unit of the setup: a probe does not repeat to the last digit. 0 where it is not said. */
  scatter?: () => number
}

/** A block of stock. */
export const boxStandIn = (
  least: readonly [number, number, number],
  greatest: readonly [number, number, number],
): StandIn => ({
  holds: (x, y, z) =>
    x >= least[0] &&
    x <= greatest[0] &&
    y >= least[1] &&
    y <= greatest[1] &&
    z >= least[2] &&
    z <= greatest[2],
})

/** What a program is read against. Lengths in `unit`. */
export interface ReadOptions {
  profile: Profile
  machine: Machine
  /** The setup's unit: the motion is in it. */
  unit: LengthUnit
  /** The name of the offset whose part zero is the origin of the motion. */
  frame?: string
  /** Machine positions over part zero, as far as they are known, by offset name (G54, G154 P3, T1). */
  offsets?: ReadonlyMap<string, Partial<Record<LinearAxis, number>>>
  /** Where the machine shows the rotary when the program has it at 0, in degrees, as far as it is known, by offset name. */
  rotaryZeros?: ReadonlyMap<string, number>
  /** How far part zero of a lathe lies along Z from where the tools have it by their geometry; 0 where it is not said. */
  workShift?: number
  /** What the length table holds, by H number (which is the tool's own number). */
  lengths?: ReadonlyMap<number, number>
  /** Radii of cutters, by D number (which is the tool's own number). */
  radii?: ReadonlyMap<number, number>
  /** On a lathe the nose of each insert, by the number of its geometry (which is the tool's own number). */
  noses?: ReadonlyMap<number, Nose>
  standIn?: StandIn
  /** What variables hold before the program begins, in the program's own unit. */
  variables?: ReadonlyMap<number, number>
  /** The serial number that the control engraves next; 0 where nobody said. */
  serial?: number
  /** Blocks beyond this are taken for a loop without end. */
  mostBlocks?: number
  /** Work that may be spent on loops, cycles and expressions, in the units of `work.ts`; MOST_WORK where it is not said. */
  mostWork?: number
  /** Slashed lines are skipped, as with the switch on the panel. */
  skipOptional?: boolean
  /** Called now and then with the share read (0 to 1); reading stops when it gives false. */
  onProgress?: (share: number) => boolean
}

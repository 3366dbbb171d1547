import { besideOf } from './compensation-radius.ts'
import type { ModalState } from './motion.ts'
import type { Polar } from './ways.ts'

/** What a control knows of itself, as far as rows are made by it. */
type Known = Omit<
  ModalState,
  | 'length'
  | 'beside'
  | 'tip'
  | 'rpm'
  | 'cycle'
  | 'rotation'
  | 'mapping'
  | 'scaled'
  | 'polar'
  | 'face'
  | 'shift'
  | 'toMachine'
> &
  Parameters<typeof besideOf>[0] & {
    lengthCode: 43 | 44 | 49
    h: number
    motion: number
    rotation: ModalState['rotation']
    mapping: { radius: number } | null
    polar: Polar | null
    face: { words: ModalState['face'] } | null
    driven: ModalState['turning']
    shiftX: number
    shiftY: number
    shiftZ: number
    rpm: () => number
    toMachine: () => ModalState['toMachine']
  }

/** What of a control's state holds while a row is made. */
export function modalState(of: Known): ModalState {
  return {
    tool: of.tool,
    offset: of.offset,
    length: of.lengthCode === 49 || of.h === 0 ? null : { h: of.h, sign: of.lengthCode === 43 ? 1 : -1 },
    compensation: of.compensation,
    d: of.d,
    ...besideOf(of),
    rpm: of.rpm(),
    turning: of.turning || of.driven,
    coolant: of.coolant,
    inch: of.inch,
    absolute: of.absolute,
    plane: of.plane,
    feedMode: of.feedMode,
    exactStop: of.exactStop,
    pathTolerance: of.pathTolerance,
    retract: of.retract,
    cycle: of.motion > 3 && of.motion !== 33 ? of.motion : 0,
    rotation: of.rotation ? { x: of.rotation.x, y: of.rotation.y, degrees: of.rotation.degrees } : null,
    mapping: of.mapping?.radius ?? null,
    scaled: of.scaled?.times ?? null,
    polar: of.polar !== null,
    face: of.face?.words ?? null,
    shift: [of.shiftX, of.shiftY, of.shiftZ],
    toMachine: of.toMachine(),
  }
}

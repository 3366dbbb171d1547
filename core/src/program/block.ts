import type { OwnCode } from '../control/index.ts'
import { gCode } from './codes.ts'
import { polarTarget } from './polar.ts'
import type { ReadOptions } from './read-options.ts'
import type { Run } from './run.ts'
import { bit, EXPRESSION, POINT, place } from './scan.ts'
import type { TextIndex } from './text-index.ts'

const MOVES = bit('X') | bit('Y') | bit('Z')

/** Codes that this control has a number of its own for. */
export interface Codes {
  rotationOn?: number
  rotationOff?: number
  scalingOn?: number
  scalingOff?: number
  mirrorOn?: number
  mirrorOff?: number
  polarOn?: number
  polarOff?: number
  circle?: number
  arcOfHoles?: number
  lineOfHoles?: number
  pocketClockwise?: number
  pocketCounter?: number
  oneSide?: number
  faceOn?: number
  faceOff?: number
  extended?: number
  text?: number
  mapping?: number
  pathTolerance?: number
  lookAhead?: number
  load?: number
  /** Left-hand tapping on a lathe. */
  leftTap?: number
}

/** Codes that mean the same wherever they are, and that a control has or has not, as its profile says. */
export const OF_PROFILE: ReadonlySet<number> = new Set([
  12, 12.1, 13, 13.1, 15, 16, 50, 50.1, 51, 51.1, 60, 70, 71, 72, 100, 101,
])

/** Codes of the standard that a profile names for what they are. */
const OWN_AS_STANDARD = new Set([10, 68, 69, ...OF_PROFILE])

const numberOf = (code: string | null | undefined) => (code ? Number(code.slice(1)) : undefined)

export function codesOf({ profile, machine }: ReadOptions): Codes {
  const { reading } = profile
  const ofMill = (code: string | null | undefined) => (machine.kind === 'mill' ? numberOf(code) : undefined)
  const ofLathe = (code: string | undefined) => (machine.kind === 'lathe' ? numberOf(code) : undefined)
  const codes = {
    rotationOn: ofMill(profile.rotation?.on),
    rotationOff: ofMill(profile.rotation?.off),
    scalingOn: reading.positions.scaling ? ofMill('G51') : undefined,
    scalingOff: reading.positions.scaling ? ofMill('G50') : undefined,
    mirrorOn: ofMill(reading.positions.mirror?.on),
    mirrorOff: ofMill(reading.positions.mirror?.off),
    polarOn: reading.positions.polar ? ofMill('G16') : undefined,
    polarOff: reading.positions.polar ? ofMill('G15') : undefined,
    circle: reading.positions.patterns ? ofMill('G70') : undefined,
    arcOfHoles: reading.positions.patterns ? ofMill('G71') : undefined,
    lineOfHoles: reading.positions.patterns ? ofMill('G72') : undefined,
    pocketClockwise: reading.positions.pockets ? ofMill('G12') : undefined,
    pocketCounter: reading.positions.pockets ? ofMill('G13') : undefined,
    oneSide: reading.positions.oneSide ? ofMill('G60') : undefined,
    faceOn: ofLathe(reading.driven?.face?.on),
    faceOff: ofLathe(reading.driven?.face?.off),
    extended: numberOf(profile.offsets.extended?.code),
    text: ofMill(reading.text),
    mapping: ofMill(reading.mapping?.code),
    pathTolerance: numberOf(reading.pathTolerance),
    lookAhead: numberOf(reading.lookAhead),
    load: numberOf(profile.loadOffset?.code),
    leftTap: machine.kind === 'lathe' ? numberOf(reading.leftTap) : undefined,
  }
  // A profile that gives a code of the standard another meaning is not believed.
  const believed = (code: number | undefined) => {
    if (code === undefined) return false
    return OWN_AS_STANDARD.has(code) || (gCode(code, 'mill')?.standing ?? 'not-seen') === 'not-seen'
  }
  return Object.fromEntries(Object.entries(codes).filter(([, code]) => believed(code))) as Codes
}

/** One block while it is carried out. */
export interface Block {
  run: Run
  index: TextIndex
  codes: Codes
  /** G and M codes in order. */
  g: number[]
  m: number[]
  /** Codes that the profile says are the machine's own, each with its word. */
  own: { own: OwnCode; word: number }[]
  /** Its words are handed to a program that it calls: they are no modes and no moves. */
  handsOver?: boolean
  /** It has a code that is not followed: of its words no more is said. */
  unseen?: boolean
  /** It alone ends in an exact stop (G9). */
  exactOnce?: boolean
  /** Lines to go on with, where it is not the next one. */
  next?: number
  /** Told of the block once its modes hold, before it moves. */
  listen: ((block: Block) => void) | undefined
  /** Carries out the block whose words are in the scanner: for cycles that read lines of their own. */
  carryOut: (block: Block) => void
}

export const has = (run: Run, letter: string) => (run.scan.mask & bit(letter)) !== 0
export const wordValue = (run: Run, letter: string) => run.scan.value(letter)

/**
 * A length word in the setup's unit; undefined where there is none. A number without a decimal point is read as the
 * profile says, and said where that matters.
 */
export function lengthOf(run: Run, letter: string): number | undefined {
  const { scan } = run
  if (!has(run, letter)) return undefined
  const slot = scan.slot[place(letter)] as number
  const value = scan.values[slot] as number
  return value * incrementOf(run, slot, value) * run.scale
}

/** What a number without a decimal point is multiplied with. */
function incrementOf(run: Run, slot: number, value: number): number {
  const { scan } = run
  if ((scan.marks[slot] as number) & (POINT | EXPRESSION) || value === 0) return 1
  const least = run.options.profile.reading.noPoint === 'least-increment'
  run.saidPoint = true
  const word = scan.text.slice(scan.from[slot], scan.to[slot])
  const size = run.inch ? 0.0001 : 0.001
  const end = (scan.to[slot] as number) - run.lineAt
  run.wrong('missing-point', least ? 'stop' : 'note', `${word} has no decimal point.`, {
    does: least
      ? `This control reads it as ${Number((value * size).toPrecision(9))}.`
      : `Read as ${value}. A control that counts least increments reads ${Number((value * size).toPrecision(9))}.`,
    word: slot,
    mend: { says: `Write ${word}.`, from: end, to: end, insert: '.' },
  })
  return least ? size : 1
}

/** Where the axis words of the block lead, in the program. */
export function target(run: Run, { machine }: { machine: boolean }): [number, number, number] {
  const absolute = run.absolute || machine
  const [x, y, z] = [lengthOf(run, 'X'), lengthOf(run, 'Y'), lengthOf(run, 'Z')]
  const base = absolute ? [0, 0, 0] : [run.wx, run.wy, run.wz]
  const to: [number, number, number] = [
    x === undefined ? run.wx : (base[0] as number) + x,
    y === undefined ? run.wy : (base[1] as number) + y,
    z === undefined ? run.wz : (base[2] as number) + z,
  ]
  if (!machine) polarTarget(run, to, (letter) => lengthOf(run, letter))
  return to
}

export const movesAxes = (run: Run) => (run.scan.mask & MOVES) !== 0
export const ROTARY = ['A', 'B', 'C'] as const

/** Seconds of a dwell: P, or X or U. */
export function dwellOf(run: Run): number {
  const p = wordValue(run, 'P')
  const { scan } = run
  if (p !== undefined) {
    const point = (scan.marks[scan.slot[place('P')] as number] as number) & (POINT | EXPRESSION)
    const milli = run.options.profile.reading.dwell === 'milliseconds' && !point
    return Math.max(0, milli ? p / 1000 : p)
  }
  const seconds = wordValue(run, 'X') ?? wordValue(run, 'U')
  return Math.max(0, seconds ?? 0)
}

/** Target of a lathe's axis words: X as a diameter, U and W from where the tool stands. In radius and Z. */
export function turningTarget(run: Run): [number, number, number] {
  const [x, z, u, w] = [lengthOf(run, 'X'), lengthOf(run, 'Z'), lengthOf(run, 'U'), lengthOf(run, 'W')]
  return [x === undefined ? run.wx + (u ?? 0) / 2 : x / 2, run.wy, z === undefined ? run.wz + (w ?? 0) : z]
}

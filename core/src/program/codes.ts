import type { MachineKind } from '../machine/index.ts'

/**
 * How far a code is read. 'exact': what it does to the path, the modes and the time is followed. 'harmless': it moves no axis
 * and takes no time that counts. 'not-seen': it may move something, and the reader does not follow it.
 */
export type Standing = 'exact' | 'harmless' | 'not-seen'

/** Codes of one modal group cancel each other; two of them in one block contradict each other. 0 is not modal. */
export interface CodeMeaning {
  group: number
  says: string
  standing: Standing
}

const MOTION = 1
const PLANE = 2
const DISTANCE = 3
const FEED_MODE = 5
const UNITS = 6
const COMPENSATION = 7
const LENGTH = 8
const RETURN = 10
const OFFSET = 12
const PATH = 13
const SPEED = 14
const MODAL_MACRO = 15
const ROTATION = 16
const POLAR = 17
const SCALING = 11
const MIRROR = 18

const of = (group: number, says: string): CodeMeaning => ({ group, says, standing: 'exact' })
const harmless = (group: number, says: string): CodeMeaning => ({ group, says, standing: 'harmless' })
const notSeen = (says: string, group = 0): CodeMeaning => ({ group, says, standing: 'not-seen' })

/** Codes that mean the same on both kinds. Groups as in RS274/NGC (NISTIR 6556, table 4), with further ones after them. */
const BOTH: Record<number, CodeMeaning> = {
  0: of(MOTION, 'Rapid: each axis at its own top speed.'),
  1: of(MOTION, 'Straight line at feed.'),
  2: of(MOTION, 'Arc, clockwise.'),
  3: of(MOTION, 'Arc, counter-clockwise.'),
  4: of(0, 'Dwell.'),
  5: notSeen('A curve through points.'),
  9: of(0, 'Exact stop at the end of this block.'),
  10: of(0, 'Writes an offset.'),
  17: of(PLANE, 'Arcs lie in X Y.'),
  18: of(PLANE, 'Arcs lie in Z X.'),
  19: of(PLANE, 'Arcs lie in Y Z.'),
  20: of(UNITS, 'Lengths are in inches.'),
  21: of(UNITS, 'Lengths are in mm.'),
  28: of(0, 'Home, by way of the point given.'),
  29: of(0, 'Back from home, by way of the point of the last G28.'),
  30: of(0, 'Second home, by way of the point given.'),
  31: of(0, 'A move that ends where a signal comes.'),
  40: of(COMPENSATION, 'Cutter compensation off.'),
  52: of(0, 'Local shift of part zero.'),
  53: of(0, 'This block is in machine positions.'),
  54: of(OFFSET, 'Work offset 1.'),
  55: of(OFFSET, 'Work offset 2.'),
  56: of(OFFSET, 'Work offset 3.'),
  57: of(OFFSET, 'Work offset 4.'),
  58: of(OFFSET, 'Work offset 5.'),
  59: of(OFFSET, 'Work offset 6.'),
  61: of(PATH, 'Exact stop at every end.'),
  64: of(PATH, 'Corners are rounded within the path tolerance.'),
  65: of(0, 'Calls a macro once.'),
  66: of(MODAL_MACRO, 'Calls a macro after every move.'),
  67: of(MODAL_MACRO, 'No macro after moves.'),
  80: of(MOTION, 'Canned cycle off.'),
}

const MILL: Record<number, CodeMeaning> = {
  41: of(COMPENSATION, 'Cutter compensation to the left of the path.'),
  42: of(COMPENSATION, 'Cutter compensation to the right of the path.'),
  12: of(0, 'A round pocket, clockwise.'),
  13: of(0, 'A round pocket, counter-clockwise.'),
  15: of(POLAR, 'Positions are along the axes again.'),
  16: of(POLAR, 'Positions are a radius and an angle.'),
  38.2: of(0, 'A move that ends where the probe touches.'),
  43: of(LENGTH, 'Tool length is added: H says which.'),
  44: of(LENGTH, 'Tool length is taken away: H says which.'),
  49: of(LENGTH, 'Tool length off.'),
  50: of(SCALING, 'Scaling off.'),
  50.1: of(MIRROR, 'Mirroring off.'),
  51: of(SCALING, 'Scales the program.'),
  51.1: of(MIRROR, 'Mirrors the program.'),
  60: of(0, 'Comes to its place from one side.'),
  68: of(ROTATION, 'Turns the program about X Y by R degrees.'),
  69: of(ROTATION, 'Turning off.'),
  70: of(0, 'Holes of the canned cycle on a circle about where the tool stands.'),
  71: of(0, 'Holes of the canned cycle on an arc about where the tool stands.'),
  72: of(0, 'Holes of the canned cycle on a line from where the tool stands.'),
  73: of(MOTION, 'Chip-breaking drilling: short pecks, a small retreat after each.'),
  74: of(MOTION, 'Left-hand tapping.'),
  76: of(MOTION, 'Fine boring: stops turned, shifts off the wall, comes out.'),
  81: of(MOTION, 'Drilling.'),
  82: of(MOTION, 'Drilling with a dwell at the bottom.'),
  83: of(MOTION, 'Peck drilling: all the way out after each peck.'),
  84: of(MOTION, 'Right-hand tapping.'),
  85: of(MOTION, 'Boring: in and out at feed.'),
  86: of(MOTION, 'Boring: spindle stops, out at rapid.'),
  87: of(MOTION, 'Back boring.'),
  88: of(MOTION, 'Boring: dwell, spindle stops, out by hand.'),
  89: of(MOTION, 'Boring with a dwell: in and out at feed.'),
  90: of(DISTANCE, 'Positions are from part zero.'),
  91: of(DISTANCE, 'Distances are from where the tool stands.'),
  92: of(0, 'Sets what the position here is called.'),
  93: of(FEED_MODE, 'Feed is moves a minute: F is 1 over the time.'),
  94: of(FEED_MODE, 'Feed is length a minute.'),
  95: of(FEED_MODE, 'Feed is length a turn of the spindle.'),
  98: of(RETURN, 'Between holes: back to the level where the cycle began.'),
  99: of(RETURN, 'Between holes: back to the R plane only.'),
  150: notSeen('A pocket of any outline: how it is cleared is the control’s own.'),
  100: of(MIRROR, 'Mirroring off.'),
  101: of(MIRROR, 'Mirrors the program.'),
}

const LATHE: Record<number, CodeMeaning> = {
  41: of(COMPENSATION, 'Nose compensation to the left of the path.'),
  42: of(COMPENSATION, 'Nose compensation to the right of the path.'),
  12.1: of(0, 'Polar interpolation: X and C make the face of the part.'),
  13.1: of(0, 'Polar interpolation off.'),
  32: of(MOTION, 'One pass of a thread: F is the lead.'),
  50: of(0, 'S is the highest spindle speed.'),
  34: of(MOTION, 'One pass of a thread with a lead that changes: K each turn.'),
  60: notSeen('Comes to its place from one side.'),
  70: of(0, 'Finishing cut along the contour from P to Q.'),
  71: of(0, 'Roughing along Z down to the contour from P to Q.'),
  72: of(0, 'Roughing along X to the contour from P to Q.'),
  73: of(0, 'Repeats the contour from P to Q, nearer each time.'),
  74: of(0, 'Face grooving or pecking along Z.'),
  75: of(0, 'Grooving along X with pecks.'),
  76: of(0, 'Threading in several passes.'),
  90: of(MOTION, 'Turning pass: in, along, out, back.'),
  92: of(MOTION, 'Threading pass: in, along, out, back.'),
  94: of(MOTION, 'Facing pass: along, in, out, back.'),
  96: of(SPEED, 'Constant surface speed: S is feet or metres a minute.'),
  97: of(SPEED, 'Constant spindle speed: S is the spindle speed in rpm.'),
  98: of(FEED_MODE, 'Feed is length a minute.'),
  99: of(FEED_MODE, 'Feed is length a turn.'),
  80: of(MOTION, 'Cycle off.'),
  83: of(MOTION, 'Peck drilling on the centre line.'),
  84: of(MOTION, 'Tapping on the centre line.'),
}

const M_CODES: Record<number, CodeMeaning> = {
  0: of(4, 'Stops until cycle start is pressed.'),
  1: of(4, 'Stops if optional stop is on.'),
  2: of(4, 'End.'),
  3: of(7, 'Spindle on, clockwise.'),
  4: of(7, 'Spindle on, counter-clockwise.'),
  5: of(7, 'Spindle off.'),
  6: of(6, 'Tool change.'),
  7: harmless(8, 'Coolant on: mist.'),
  8: harmless(8, 'Coolant on.'),
  9: harmless(8, 'Coolant off.'),
  19: of(7, 'Spindle stops at its marked angle.'),
  29: of(0, 'Rigid tapping is announced.'),
  23: of(0, 'Threads run out at an angle.'),
  24: of(0, 'Threads run out square.'),
  30: of(4, 'End, and back to the start.'),
  48: harmless(9, 'The overrides count.'),
  49: harmless(9, 'The overrides do not count.'),
  61: of(0, 'Calls pallet 1.'),
  62: of(0, 'Calls pallet 2.'),
  97: of(0, 'Calls lines of this same program: P is their N number.'),
  98: of(0, 'Calls a subprogram: P is its number.'),
  99: of(0, 'Back to where the call came from.'),
  198: of(0, 'Calls a program of another file: P is its number.'),
}

/** What a G code means on this kind of machine, read or not; undefined where nothing is known of it. */
export const gCode = (code: number, kind: MachineKind): CodeMeaning | undefined =>
  (kind === 'mill' ? MILL : LATHE)[code] ?? BOTH[code]

/** What an M code means, read or not; undefined where nothing is known of it. */
export const mCode = (code: number): CodeMeaning | undefined => M_CODES[code]

/** A code of the table with where it stands. */
export interface ListedCode extends CodeMeaning {
  letter: 'G' | 'M'
  code: number
  on: 'both' | MachineKind
}

/** Every code that the table has, by letter and number. */
export function listedCodes(): ListedCode[] {
  const list = (letter: 'G' | 'M', on: ListedCode['on'], table: Record<number, CodeMeaning>) =>
    Object.entries(table).map(([code, meaning]) => ({ letter, code: Number(code), on, ...meaning }))
  // A code of one kind comes before that of both.
  const both = Object.fromEntries(
    Object.entries(BOTH).filter(([code]) => !(code in MILL) || !(code in LATHE)),
  )
  return [
    ...list('G', 'both', both),
    ...list('G', 'mill', MILL),
    ...list('G', 'lathe', LATHE),
    ...list('M', 'both', M_CODES),
  ].sort((a, b) => a.letter.localeCompare(b.letter) || a.code - b.code || a.on.localeCompare(b.on))
}

/** What a letter carries, for the hover text and for messages. */
export const LETTERS: Record<MachineKind, Record<string, string>> = {
  mill: {
    A: 'rotary axis about X, degrees',
    B: 'rotary axis about Y, degrees',
    C: 'rotary axis about Z, degrees',
    D: 'number of the diameter offset',
    F: 'feed',
    H: 'number of the length offset',
    I: 'arc centre along X, from the start',
    J: 'arc centre along Y, from the start',
    K: 'arc centre along Z, from the start',
    L: 'repeats',
    N: 'line number',
    O: 'program number',
    P: 'a number that the code of this block asks for, or a dwell',
    Q: 'depth of a peck',
    R: 'R plane, radius or angle, as the code of this block asks',
    S: 'spindle speed, rpm',
    T: 'tool number',
    X: 'position along X',
    Y: 'position along Y',
    Z: 'position along Z',
  },
  lathe: {
    D: 'depth of cut, or an offset number',
    F: 'feed',
    I: 'arc centre along X, from the start (a radius)',
    K: 'arc centre along Z, from the start',
    N: 'line number',
    O: 'program number',
    P: 'first line of a contour, or a dwell',
    Q: 'last line of a contour',
    R: 'radius, taper or retreat, as the code of this block asks',
    S: 'spindle speed',
    T: 'tool and its offset number',
    U: 'X from where the tool stands, in diameter',
    W: 'Z from where the tool stands',
    X: 'position along X, in diameter',
    Z: 'position along Z',
  },
}

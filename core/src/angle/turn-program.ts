import { movesTurned, type Profile, turnedLine, writeComment, writeNumber } from '../control/index.ts'
import { type PlanePoint, turned } from '../geometry/index.ts'
import { type ProgramBlock, readBlocks, type Word } from '../program/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import { formatAngle } from './measure.ts'

/** How a program's moves are turned; `about` in `unit`. */
export interface ProgramTurn {
  /** The work offset that the moves are in. */
  offset: string
  unit: LengthUnit
  /** Degrees, counter-clockwise seen from +Z. */
  by: number
  about: PlanePoint
}

/** A line that cannot be turned, and why. */
interface Refused {
  line: number
  says: string
}

export type TurnedProgram =
  | {
      ok: true
      text: string
      /** Blocks that were changed. */
      changed: number
      /** The least and greatest places that turned absolute moves go to, in the work offset, in `unit`; undefined without any. */
      extent: { least: PlanePoint; greatest: PlanePoint } | undefined
      notes: string[]
    }
  | { ok: false; refused: Refused[]; more: number }

/** Lines that are named; a program that cannot be turned seldom fails at one. */
const MOST_REFUSED = 20

/** Drilling cycles whose positions are turned and whose other words stand along Z. */
const CYCLES = new Set([73, 74, 81, 82, 83, 84, 85, 86, 88, 89])
const MOTIONS = new Set([0, 1, 2, 3])
/** Codes that mean the same turned or not. */
const SAME_TURNED = new Set([
  4, 9, 17, 20, 21, 40, 41, 42, 43, 44, 49, 53, 61, 64, 80, 90, 91, 93, 94, 95, 98, 99, 28, 30, 103, 187,
])

const WHY: Record<number, string> = {
  10: 'G10 changes an offset from within the program.',
  12: 'a circular pocket cycle is not known here.',
  13: 'a circular pocket cycle is not known here.',
  16: 'polar coordinates.',
  18: 'another plane than XY.',
  19: 'another plane than XY.',
  51: 'scaling or mirroring.',
  52: 'a shift of the coordinates.',
  65: 'a macro: its moves stand elsewhere.',
  66: 'a macro: its moves stand elsewhere.',
  68: 'the program is turned there already.',
  76: 'the bar backs off in a direction of its own.',
  87: 'the bar backs off in a direction of its own.',
  92: 'a shift of the coordinates.',
  107: 'moves that are wrapped round an axis.',
}

interface State {
  absolute: boolean
  motion: number
  unit: LengthUnit
  /** Where the program stands in its own coordinates, as far as it says so. */
  at: { x?: number | undefined; y?: number | undefined }
  incrementalMoves: number
}

/** A move of a block in the plane, before it is turned. */
interface PlaneMove {
  /** Where it goes, absolute, or how far, incremental. */
  to?: PlanePoint
  relative: boolean
  /** Centre of an arc from its start. */
  centre?: PlanePoint
}

const value = (words: readonly Word[], letter: string) => words.find((word) => word.letter === letter)?.value

function modesOf(codes: readonly number[], state: State) {
  for (const code of codes) {
    if (code === 90 || code === 91) state.absolute = code === 90
    else if (code === 20 || code === 21) state.unit = code === 20 ? 'inch' : 'mm'
    else if (MOTIONS.has(code) || CYCLES.has(code)) state.motion = code
    else if (code === 80) state.motion = -1
  }
}

const isOffset = (code: number) => (code >= 54 && code <= 59.9) || code === 154

/** What is against turning a block, in words; undefined where nothing is. */
function against(
  { words, unclear }: ProgramBlock,
  codes: readonly number[],
  offset: string,
): string | undefined {
  if (unclear !== undefined) return `"${unclear.slice(0, 20)}" is not understood.`
  for (const code of codes) {
    if (isOffset(code)) {
      const p = value(words, 'P')
      const name = code === 154 || code === 54.1 ? `G${code} P${p}` : `G${code}`
      if (name !== offset) return `${name} is another work offset: its zero and its angle are its own.`
    } else if (!MOTIONS.has(code) && !CYCLES.has(code) && !SAME_TURNED.has(code))
      return WHY[code] ? `G${code}: ${WHY[code]}` : `G${code} is not known here.`
  }
  if (words.some(({ letter, value: m }) => letter === 'M' && (m === 97 || m === 98)))
    return 'a subprogram: its moves stand elsewhere.'
  if (words.some(({ variable }) => variable !== undefined))
    return 'a macro variable: its value is not known here.'
  if (words.some(({ letter }) => 'ABCUVW'.includes(letter))) return 'a rotary or a second axis.'
  if (words.some(({ letter }) => letter === ',A')) return 'the angle of a line.'
  for (const letter of 'XYIJR')
    if (words.filter((word) => word.letter === letter).length > 1) return `${letter} stands there twice.`
  return undefined
}

/** The plane move of a block, or why it cannot be known; undefined where it does not move in the plane. */
function moveOf(
  { words, optional }: ProgramBlock,
  codes: readonly number[],
  state: State,
): PlaneMove | string | undefined {
  const [x, y] = [value(words, 'X'), value(words, 'Y')]
  const moves = x !== undefined || y !== undefined
  if (codes.includes(4)) return undefined
  if (codes.includes(53)) {
    if (moves) state.at = {}
    return undefined
  }
  if (codes.includes(28) || codes.includes(30)) {
    if (moves && (state.absolute || (x ?? 0) !== 0 || (y ?? 0) !== 0))
      return 'a home return by way of a point: write it with G91 and X0 Y0.'
    if (moves) state.at = {}
    return undefined
  }
  const [i, j] = [value(words, 'I'), value(words, 'J')]
  const isArc = state.motion === 2 || state.motion === 3
  const centre = isArc && (i !== undefined || j !== undefined) ? { centre: { x: i ?? 0, y: j ?? 0 } } : {}
  if (!moves && !centre.centre) return undefined
  if (state.motion < 0 && moves) return 'X or Y without a motion code before it.'
  if (!state.absolute) {
    const by = { x: x ?? 0, y: y ?? 0 }
    state.incrementalMoves += 1
    state.at =
      state.at.x === undefined || state.at.y === undefined || optional
        ? {}
        : { x: state.at.x + by.x, y: state.at.y + by.y }
    return { ...(moves ? { to: by } : {}), relative: true, ...centre }
  }
  if (!moves) return { relative: false, ...centre }
  const to = { x: x ?? state.at.x, y: y ?? state.at.y }
  if (to.x === undefined || to.y === undefined)
    return `${to.x === undefined ? 'X' : 'Y'} is not known here: write X and Y on this line.`
  // A block that may be skipped leaves open where the next one starts.
  state.at = optional ? {} : { x: to.x, y: to.y }
  return { to: { x: to.x, y: to.y }, relative: false, ...centre }
}

const ORIGIN: PlanePoint = { x: 0, y: 0 }

/** Puts the new values of two words into a line: in place, and one that was missing before or behind the other, in their order. */
function withWords(line: string, words: readonly Word[], pairs: [letter: string, text: string][]): string {
  const edits: { from: number; to: number; text: string }[] = []
  const known = pairs.map(([letter]) => words.find((each) => each.letter === letter))
  pairs.forEach(([letter, text], index) => {
    const word = known[index]
    const [before, after] = [known[index - 1], known[index + 1]]
    if (word) edits.push({ from: word.from, to: word.to, text: letter + text })
    else if (before) edits.push({ from: before.to, to: before.to, text: ` ${letter}${text}` })
    else if (after) edits.push({ from: after.from, to: after.from, text: `${letter}${text} ` })
  })
  return edits
    .sort((a, b) => b.from - a.from || b.to - a.to)
    .reduce((text, edit) => text.slice(0, edit.from) + edit.text + text.slice(edit.to), line)
}

interface Walked {
  moves: { line: number; move: PlaneMove; unit: LengthUnit; words: Word[] }[]
  refused: Refused[]
  incremental: number
}

const EVERY = 2000

/** Goes through a program and finds each move in the plane. Never throws. */
function walk(text: string, { offset, unit }: ProgramTurn, onProgress?: (share: number) => void): Walked {
  const blocks = readBlocks(text)
  const state: State = { absolute: true, motion: -1, unit, at: {}, incrementalMoves: 0 }
  const walked: Walked = { moves: [], refused: [], incremental: 0 }
  blocks.forEach((block, index) => {
    if (index % EVERY === 0) onProgress?.(index / blocks.length)
    const codes = block.words.filter(({ letter }) => letter === 'G').map((word) => word.value)
    const { line, words } = block
    const refusal = against(block, codes, offset)
    if (refusal) {
      walked.refused.push({ line, says: refusal })
      return
    }
    modesOf(codes, state)
    const move = moveOf(block, codes, state)
    if (typeof move === 'string') walked.refused.push({ line, says: move })
    else if (move) walked.moves.push({ line, move, unit: state.unit, words })
  })
  walked.incremental = state.incrementalMoves
  return walked
}

/** A move, turned: a place about the point, a distance or a centre about the origin. */
function turnedMove({ to, relative, centre }: PlaneMove, by: number, about: PlanePoint): PlaneMove {
  return {
    relative,
    ...(to ? { to: turned(to, by, relative ? ORIGIN : about) } : {}),
    ...(centre ? { centre: turned(centre, by, ORIGIN) } : {}),
  }
}

const near = (a: PlanePoint | undefined, b: PlanePoint | undefined, within: number) =>
  a === b ||
  (a !== undefined && b !== undefined && Math.abs(a.x - b.x) <= within && Math.abs(a.y - b.y) <= within)

/**
 * Turns the moves of a program about a point: lines, arcs by I and J or by R, drilling positions, absolute and
 * incremental, in the XY plane. What cannot be turned is refused, line by line, and then nothing is given.
 * Moves in machine coordinates and home returns stay as they are. The first that is turned says so in a comment: a text is not
 * turned twice. What was written is read again, and must give the
 * turned moves to half of the last digit that is printed.
 */
export function turnProgram(
  text: string,
  turning: ProgramTurn,
  profile: Profile,
  onProgress?: (share: number) => void,
): TurnedProgram {
  const already = turnedLine(text)
  if (already !== undefined)
    return {
      ok: false,
      refused: [
        {
          line: already,
          says: 'the moves are turned already, as the comment says: open the text as it was before.',
        },
      ],
      more: 0,
    }
  const walked = walk(text, turning, (share) => onProgress?.(share / 2))
  if (walked.refused.length > 0)
    return {
      ok: false,
      refused: walked.refused.slice(0, MOST_REFUSED),
      more: Math.max(0, walked.refused.length - MOST_REFUSED),
    }
  if (walked.moves.length === 0)
    return {
      ok: false,
      refused: [{ line: 1, says: 'There is no move in X or Y to turn in this text.' }],
      more: 0,
    }
  const lines = text.split(/\r\n|\r|\n/)
  const about = (unit: LengthUnit): PlanePoint => ({
    x: convertLength(turning.about.x, turning.unit, unit),
    y: convertLength(turning.about.y, turning.unit, unit),
  })
  const wanted: PlaneMove[] = []
  let extent: { least: PlanePoint; greatest: PlanePoint } | undefined
  for (const { line, move, unit, words } of walked.moves) {
    const now = turnedMove(move, turning.by, about(unit))
    wanted.push(now)
    const number = (of: number) => writeNumber(of, unit, profile)
    const pairs: [string, string][] = []
    if (now.to) pairs.push(['X', number(now.to.x)], ['Y', number(now.to.y)])
    let changed = withWords(lines[line - 1] ?? '', words, pairs)
    if (now.centre) {
      const again = readBlocks(changed)[0]?.words ?? []
      changed = withWords(changed, again, [
        ['I', number(now.centre.x)],
        ['J', number(now.centre.y)],
      ])
    }
    lines[line - 1] = changed
    if (now.to && !now.relative) {
      const [x, y] = [
        convertLength(now.to.x, unit, turning.unit),
        convertLength(now.to.y, unit, turning.unit),
      ]
      extent = {
        least: { x: Math.min(x, extent?.least.x ?? x), y: Math.min(y, extent?.least.y ?? y) },
        greatest: { x: Math.max(x, extent?.greatest.x ?? x), y: Math.max(y, extent?.greatest.y ?? y) },
      }
    }
  }
  const first = (walked.moves[0]?.line ?? 1) - 1
  lines[first] += ` ${writeComment(movesTurned(formatAngle(turning.by)), profile)}`
  const result = lines.join('\n')
  const read = walk(result, turning, (share) => onProgress?.(0.5 + share / 2))
  const same =
    read.refused.length === 0 &&
    read.moves.length === wanted.length &&
    read.moves.every(({ move, unit }, index) => {
      const half =
        0.5 * 10 ** -(unit === 'inch' ? profile.numbers.inchDigits : profile.numbers.mmDigits) + 1e-9
      return near(move.to, wanted[index]?.to, half) && near(move.centre, wanted[index]?.centre, half)
    })
  if (!same)
    return {
      ok: false,
      refused: [{ line: 1, says: 'The turned text does not read back as it is meant.' }],
      more: 0,
    }
  return {
    ok: true,
    text: result,
    changed: walked.moves.length,
    extent,
    notes:
      walked.incremental > 0
        ? [
            `${walked.incremental} moves are incremental: each is rounded by itself, and the roundings add up along the path.`,
          ]
        : [],
  }
}

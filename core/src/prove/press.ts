import { endOf, FLAG, isArc, type Motion, type OnFace, ROW } from '../program/index.ts'
import { formatLength, type LengthUnit } from '../quantity/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import type { Body, Triple } from './body.ts'
import { pathOf } from './path.ts'
import type { ProgramFinding } from './program-finding.ts'
import { bandAtFull, isBand, type RapidStop } from './rapid.ts'
import { type KnownLengths, type Unmeasured, unmeasured } from './unmeasured.ts'

/** What the next press of cycle start will do. */
export interface Press {
  block: number
  line: number
  /** Rows of the motion that it makes. */
  rows: { from: number; to: number }
  /**
   * Distance to go for each axis, as the control shows it before the press; on a lathe X as a diameter. On the face of a turned part (polar
   * interpolation) X and the length across it, as they are written: common practice, from memory.
   */
  toGo: Triple
  /** The letter of the second of them, where that lies across X on the face. */
  across?: 'C' | 'Y'
  /** Degrees that the spindle of a lathe turns by meanwhile, as an axis. */
  turns?: number
  /** The corners of the path that it will take, its rapids as they go at 100 %. */
  path: Triple[]
  /** Where a rapid may go elsewhere, because the page leaves open how: place by place the box that the tip is in. */
  bands: RapidStop[][]
  says: string
  /** What of its heights rests on a length that nobody measured: Z to go is then not to be shown as a number. */
  unknown?: Unmeasured
}

/** More bands than these are not drawn of one press. */
const MOST_BANDS = 20

/** The rows of a block. */
export const rowsOfBlock = (motion: Motion, block: number) => ({
  from: motion.blockRow[block] ?? motion.count,
  to: block + 1 < motion.blocks ? (motion.blockRow[block + 1] as number) : motion.count,
})

/** Words for a distance along an axis, as the operator sees it: mills from the front, lathes with the spindle on the left. */
const WAYS: Record<'mill' | 'lathe', readonly (readonly [string, string])[]> = {
  mill: [
    ['to the right', 'to the left'],
    ['to the back', 'to the front'],
    ['up', 'down'],
  ],
  lathe: [
    ['outwards', 'inwards'],
    ['to the back', 'to the front'],
    ['away from the chuck', 'towards the chuck'],
  ],
}

interface Seen {
  motion: Motion
  unit: LengthUnit
  speeds: MachineSpeeds
  lathe: boolean
  /** Height of the part's top, where there is a part. */
  top: number | undefined
  /** Findings: those that hit something in these rows are said. */
  findings?: readonly ProgramFinding[]
  bodies?: readonly Body[]
  /** Lengths of the tools, where what is not measured is to be said. */
  lengths?: KnownLengths
}

/** What the rows go through, by name. */
function hitWords({ findings = [], bodies = [] }: Seen, { from, to }: Press['rows']): string {
  const namesOf = (sure: boolean) => {
    const names = findings.flatMap(({ row, body, severity }) => {
      const here = row !== undefined && row >= from && row < to && (severity === 'stop') === sure
      const hit = here && bodies.find(({ id }) => id === body)
      return hit ? [hit.name] : []
    })
    return [...new Set(names)].join(' and ')
  }
  const [does, may] = [namesOf(true), namesOf(false)]
  return (does ? `: passes through ${does}` : '') + (may ? `: may pass through ${may}` : '')
}

/** The rows of a block as words, the first that moves first. */
function spoken(seen: Seen, rows: Press['rows']): string {
  const { motion, unit, lathe } = seen
  const words: string[] = []
  let moves = 0
  /** The first row after the one that is said. */
  let rest: number | undefined
  const face = onFace(motion, rows)
  for (let row = rows.from; row < rows.to; row++) {
    const kind = motion.kind[row] as number
    if (kind === ROW.EVENT) {
      words.push(eventWords(motion, row))
      continue
    }
    // The pieces of a move on the face are one.
    if (face && moves === 1) continue
    moves++
    if (moves > 1) continue
    if (face) words.push(faceWords(seen, face, rows) + hitWords(seen, rows))
    else {
      rest = row + 1
      words.push(moveWords(seen, row) + hitWords(seen, { from: row, to: row + 1 }))
    }
  }
  const later = rest === undefined ? '' : hitWords(seen, { from: rest, to: rows.to })
  const code = motion.states[motion.state[rows.from] as number]?.cycle ?? 0
  const cycle = moves > 1 && (motion.flags[rows.to - 1] as number) & FLAG.CYCLE
  if (cycle) {
    const lowest = Math.min(...rowNumbers(rows).map((row) => endOf(motion, row)[lathe ? 0 : 2]))
    const depth = lathe ? `X ${formatLength(2 * lowest, unit)}` : `Z ${formatLength(lowest, unit)}`
    words.push(`then the cycle${code ? ` G${code}` : ''}: ${moves} moves, to ${depth}${later}`)
  } else if (moves > 1) words.push(`then ${moves - 1} more ${moves === 2 ? 'move' : 'moves'}${later}`)
  return words.filter(Boolean).join(', ') || 'nothing moves'
}

const rowNumbers = ({ from, to }: Press['rows']) =>
  Array.from({ length: Math.min(to - from, 5_000) }, (_, n) => from + n)

function eventWords(motion: Motion, row: number): string {
  const event = motion.events[motion.aux[row] as number]
  switch (event?.does) {
    case 'dwell':
      return `waits ${Number(event.seconds.toFixed(2))} s`
    case 'tool':
      return `changes to T${event.tool}`
    case 'spindle':
      return event.turning
        ? `${event.driven ? 'driven tool' : 'spindle'} ${event.turning === 3 ? 'clockwise' : 'counter-clockwise'}, ${Math.round(event.rpm)} rpm`
        : `${event.driven ? 'driven tool' : 'spindle'} off`
    case 'stop':
      return `stops${event.optional ? ' if optional stop is on' : ''}${event.says ? `: ${event.says}` : ''}`
    case 'pallet':
      return `calls pallet ${event.pallet}`
    default:
      return 'the program ends'
  }
}

/** How places are written where the moves of a block go along the face of a turned part, whose pieces are one move; undefined elsewhere. */
const onFace = ({ states, state, kind }: Motion, { from, to }: Press['rows']) =>
  (to > from && kind[to - 1] !== ROW.EVENT && states[state[to - 1] as number]?.face) || undefined

/** The spindle's angle when a row ends, in degrees. */
const angleAt = ({ rotary }: Motion, row: number) => (row < 0 ? 0 : (rotary?.[row] ?? 0))

const turnedBy = (motion: Motion, { from, to }: Press['rows']) =>
  angleAt(motion, to - 1) - angleAt(motion, from - 1)

/** How far a block goes on the face, as it is written: along X, across it, along Z. */
function faceToGo(motion: Motion, { times }: OnFace, { from, to }: Press['rows']): Triple {
  const place = (row: number): Triple => {
    const [radius, , z] = endOf(motion, row)
    const angle = (angleAt(motion, row) * Math.PI) / 180
    return [times * radius * Math.cos(angle), radius * Math.sin(angle), z]
  }
  const [begin, end] = [place(from - 1), place(to - 1)]
  return [end[0] - begin[0], end[1] - begin[1], end[2] - begin[2]]
}

function faceWords({ motion, unit }: Seen, face: OnFace, rows: Press['rows']): string {
  const letters = ['X', face.across, 'Z']
  const parts = faceToGo(motion, face, rows).flatMap((d, axis) =>
    Math.abs(d) < 1e-9 ? [] : [`${letters[axis]} ${formatLength(d, unit)}`],
  )
  const turned = `turning ${Number(Math.abs(turnedBy(motion, rows)).toFixed(3))}°`
  return `feed on the face, ${[...parts, turned].join(', ')}`
}

const unknownAt = ({ motion, lathe, lengths }: Seen, row: number) =>
  lengths && !lathe ? unmeasured(motion, row, lengths) : undefined

function moveWords(seen: Seen, row: number): string {
  const { motion, unit, lathe, top } = seen
  const kind = motion.kind[row] as number
  const from = endOf(motion, row - 1)
  const to = endOf(motion, row)
  const ways = WAYS[lathe ? 'lathe' : 'mill']
  const unknown = unknownAt(seen, row)
  const parts = ([0, 1, 2] as const).flatMap((axis) => {
    if (axis === 2 && unknown?.toGo)
      return [`${to[2] > from[2] ? 'up' : 'down'} by what the length of T${unknown.tool} leaves unknown`]
    const d = (to[axis] - from[axis]) * (lathe && axis === 0 ? 2 : 1)
    return Math.abs(d) < 1e-9 ? [] : [`${formatLength(Math.abs(d), unit)} ${ways[axis]?.[d > 0 ? 0 : 1]}`]
  })
  const names: Record<number, string> = {
    [ROW.RAPID]: 'rapid',
    [ROW.LINE]: 'feed',
    [ROW.ARC_CW]: 'clockwise arc',
    [ROW.ARC_CCW]: 'counter-clockwise arc',
    [ROW.IN_STEP]: lathe ? 'thread' : 'tap in',
    [ROW.TAP_OUT]: 'tap out',
    [ROW.PROBE]: 'protected move',
  }
  const name = names[kind] ?? 'move'
  const turning = turnedBy(motion, { from: row, to: row + 1 })
  const rotary = Math.abs(turning) > 1e-9 ? `, turning ${Number(Math.abs(turning).toFixed(3))}°` : ''
  if (parts.length === 0)
    return isArc(kind) ? `${name}, once round` : rotary ? `${name}${rotary}` : `${name}, no distance`
  const height = lathe || top === undefined || unknown?.after ? '' : heightWords(from[2], to[2], top, unit)
  return `${name}, ${parts.join(', ')}${rotary}${height}`
}

/** Where it goes against the top of the part. */
function heightWords(from: number, to: number, top: number, unit: LengthUnit): string {
  const above = to - top
  const place =
    Math.abs(above) < 1e-9
      ? 'level with the part'
      : `${formatLength(Math.abs(above), unit)} ${above > 0 ? 'above' : 'below'} the top of the part`
  return Math.abs(from - to) < 1e-9 ? ` at ${place}` : `, to ${place}`
}

/** What the press that starts a block does: distance to go, the path that it really takes, one plain sentence. */
export function pressOf(seen: Seen, block: number): Press {
  const { motion, speeds, lathe } = seen
  const rows = rowsOfBlock(motion, block)
  let first = rows.from
  while (first < rows.to && motion.kind[first] === ROW.EVENT) first++
  const moves = first < rows.to
  const [from, to] = moves
    ? [endOf(motion, first - 1), endOf(motion, first)]
    : [
        [0, 0, 0],
        [0, 0, 0],
      ]
  const path: Triple[] = []
  const bands: RapidStop[][] = []
  for (let row = rows.from; row < Math.min(rows.to, rows.from + 2_000); row++) {
    if (motion.kind[row] !== ROW.EVENT) path.push(...pathOf(motion, row, speeds))
    if (motion.kind[row] !== ROW.RAPID || bands.length >= MOST_BANDS) continue
    const [begin, end] = [endOf(motion, row - 1), endOf(motion, row)]
    if (isBand(begin, end, speeds)) bands.push(bandAtFull(begin, end, speeds))
  }
  const face = moves ? onFace(motion, rows) : undefined
  const turns = lathe && moves ? turnedBy(motion, { from: first, to: face ? rows.to : first + 1 }) : 0
  const straight = ([0, 1, 2] as const).map(
    (axis) => ((to[axis] as number) - (from[axis] as number)) * (lathe && axis === 0 ? 2 : 1),
  ) as [number, number, number]
  const unknown = moves ? unknownAt(seen, first) : undefined
  return {
    ...(unknown ? { unknown } : {}),
    block,
    line: motion.blockLine[block] ?? 0,
    rows,
    toGo: face ? faceToGo(motion, face, rows) : straight,
    ...(face ? { across: face.across } : turns === 0 ? {} : { turns }),
    path,
    bands,
    says: spoken(seen, rows),
  }
}

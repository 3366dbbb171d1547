import { layText, type Stroke, textStrokes } from '../../lettering/index.ts'
import { alongArc, endOf, FLAG, isArc, type Motion, ROW, read } from '../../program/index.ts'
import { convertLength, type TypedLength } from '../../quantity/index.ts'
import type { CycleCase } from '../cycle/index.ts'
import type { WrapParams } from './params.ts'

/** A move over the flat layout: X along the axis, Y round it, Z from the surface (negative is in the part). */
export type FlatMove =
  | { does: 'rapid'; x: number; y: number; z: number }
  | { does: 'feed'; x: number; y: number; z: number; feed: number }
  | { does: 'arc'; x: number; y: number; z: number; cx: number; cy: number; clockwise: boolean; feed: number }

export type FlatArc = Extract<FlatMove, { does: 'arc' }>

/** What the layout is made of, before heights and feeds. */
export interface Layout {
  /** Lines that are cut at one depth. */
  strokes: Stroke[]
  /** Places that are drilled. */
  holes: [x: number, y: number][]
  /** Moves of a program, with heights and feeds of their own. */
  moves: FlatMove[]
  /** What of a program could not be taken, in words; the first of each kind. */
  lost: { line: number; says: string }[]
  /** A program's own tools, whose changes are left out. */
  tools: number[]
}

const empty = (): Layout => ({ strokes: [], holes: [], moves: [], lost: [], tools: [] })

/** The lengths of the lines of a scale, the one at zero first: long, middle or short. */
function lineLength(params: WrapParams, n: number, own: (of: TypedLength) => number): number {
  const falls = (every: number) => every > 0 && n % every === 0
  if (falls(params.longEvery)) return own(params.longLine)
  return falls(params.middleEvery) ? own(params.middleLine) : own(params.shortLine)
}

/**
 * Graduations with their numerals. Each is computed from the whole (n divisions of a turn end where they began), never from
 * the one before it. `about`: length once round.
 */
function scaleOf(params: WrapParams, about: number, own: (of: TypedLength) => number): Layout {
  const { divisions, covers } = params
  const whole = covers === 'turn' ? about : (about * params.span) / 360
  const marks = covers === 'turn' ? divisions : divisions + 1
  const layout = empty()
  const height = own(params.numeralHeight)
  for (let n = 0; n < marks; n++) {
    const y = (whole * n) / divisions
    const length = lineLength(params, n, own)
    layout.strokes.push([
      [0, y],
      [length, y],
    ])
    if (params.numeralEvery === 0 || n % params.numeralEvery !== 0) continue
    const said = String(params.numeralFirst + (n / params.numeralEvery) * params.numeralStep)
    const { width } = layText(said)
    const at = length + own(params.numeralGap)
    // Round: read with the axis upright, its middle on the line. Along: read along the axis.
    const pose =
      params.numeralsRun === 'round'
        ? { x: at + height, y: y - (width * height) / 2, angle: 90, height, stretch: 1 }
        : { x: at, y: y - height / 2, angle: 0, height, stretch: 1 }
    layout.strokes.push(...textStrokes(said, pose))
  }
  return layout
}

function slotsOf(params: WrapParams, about: number, own: (of: TypedLength) => number): Layout {
  const layout = empty()
  for (let n = 0; n < params.slots; n++) {
    if (params.slotsRun === 'along') {
      const y = (about * n) / params.slots
      layout.strokes.push([
        [0, y],
        [own(params.slotLength), y],
      ])
    } else {
      const x = n * own(params.slotPitch)
      layout.strokes.push([
        [x, 0],
        [x, (about * params.slotSpan) / 360],
      ])
    }
  }
  return layout
}

/** Rows of holes, to and fro along the axis, so that none begins with a long way back. */
function holesOf(params: WrapParams, about: number, own: (of: TypedLength) => number): Layout {
  const layout = empty()
  for (let n = 0; n < params.holes; n++)
    for (let row = 0; row < params.rows; row++) {
      const along = n % 2 === 0 ? row : params.rows - 1 - row
      layout.holes.push([along * own(params.rowSpacing), (about * n) / params.holes])
    }
  return layout
}

/** The moves of a flat program: X, Y and Z as they are, Z zero at the surface. */
function programMoves(params: WrapParams, on: CycleCase, chord: number, clearance: number): Layout {
  const layout = empty()
  const { motion, diagnostics } = read(params.program, {
    profile: on.profile,
    machine: on.machine,
    unit: on.unit,
    mostBlocks: 20_000,
  })
  const wrong = diagnostics.find(({ severity }) => severity === 'stop')
  if (wrong) layout.lost.push({ line: wrong.line, says: wrong.says })
  const lose = (row: number, says: string) => {
    if (!layout.lost.some((each) => each.says === says))
      layout.lost.push({ line: motion.line[row] as number, says })
  }
  for (let row = 0; row < motion.count; row++) {
    const kind = motion.kind[row] as number
    const flags = motion.flags[row] as number
    if (kind === ROW.EVENT) {
      const event = motion.events[motion.aux[row] as number]
      if (event?.does === 'tool' && !layout.tools.includes(event.tool)) layout.tools.push(event.tool)
      continue
    }
    if (flags & FLAG.TO_MACHINE) continue
    const [x, y, z] = endOf(motion, row)
    const feed = motion.feed[row] as number
    if (flags & FLAG.MAPPED || turns(motion, row)) lose(row, 'It turns the rotary axis already.')
    else if (kind === ROW.RAPID) layout.moves.push({ does: 'rapid', x, y, z: Math.min(z, clearance) })
    else if (kind === ROW.LINE) layout.moves.push({ does: 'feed', x, y, z, feed })
    else if (isArc(kind)) addArc(layout.moves, motion, row, chord)
    else lose(row, 'It taps, threads or probes: that cannot be wrapped.')
  }
  return layout
}

const turns = ({ rotary }: Motion, row: number) =>
  rotary !== null && (rotary[row] ?? 0) !== (row > 0 ? (rotary[row - 1] ?? 0) : 0)

/** An arc of the flat stays one; one in another plane, or that spirals, becomes chords. */
function addArc(moves: FlatMove[], motion: Motion, row: number, chord: number): void {
  const [x, y, z] = endOf(motion, row)
  const feed = motion.feed[row] as number
  const base = 6 * (motion.aux[row] as number)
  const [cx, cy, , sweep, from, to] = motion.arcs.subarray(base, base + 6) as unknown as number[]
  const flat = (motion.states[motion.state[row] as number]?.plane ?? 17) === 17
  const level = Math.abs(endOf(motion, row - 1)[2] - z) < 1e-9
  if (flat && level && Math.abs((from as number) - (to as number)) < 1e-6) {
    moves.push({
      does: 'arc',
      x,
      y,
      z,
      cx: cx as number,
      cy: cy as number,
      clockwise: (sweep as number) < 0,
      feed,
    })
    return
  }
  const pieces = chordsOf(Math.abs(sweep as number), Math.max(from as number, to as number), chord)
  for (let n = 1; n <= pieces; n++) {
    const [px, py, pz] = alongArc(motion, row, n / pieces)
    moves.push({ does: 'feed', x: px, y: py, z: pz, feed })
  }
}

/** How many chords keep within a distance of an arc: sagitta = R (1 - cos(half step)). */
export function chordsOf(sweep: number, radius: number, chord: number): number {
  if (radius <= 0) return 1
  const step = 2 * Math.acos(Math.max(0, 1 - chord / radius))
  return Math.min(5_000, Math.max(1, Math.ceil(sweep / Math.max(step, 1e-4) - 1e-9)))
}

/** An arc of the flat from where the tool stands: its radius, its sweep (signed, a full circle where it ends where it begins), and its points. */
export function arcFrom({ x, y, cx, cy, clockwise }: FlatArc, from: { x: number; y: number }) {
  const size = Math.hypot(x - cx, y - cy)
  const begin = Math.atan2(from.y - cy, from.x - cx)
  let sweep = Math.atan2(y - cy, x - cx) - begin
  if (Math.hypot(x - from.x, y - from.y) <= 1e-12 * Math.max(1, size)) sweep = 0
  if (clockwise && sweep >= 0) sweep -= 2 * Math.PI
  if (!clockwise && sweep <= 0) sweep += 2 * Math.PI
  /** Ends of so many equal pieces, the last just where the arc ends. */
  const ends = (pieces: number): [number, number][] =>
    Array.from({ length: pieces }, (_, n) => {
      if (n === pieces - 1) return [x, y]
      const at = begin + (sweep * (n + 1)) / pieces
      return [cx + size * Math.cos(at), cy + size * Math.sin(at)]
    })
  return { size, sweep, ends }
}

/** The layout of the form. `about`: length once round on the circle that its lengths are true on. */
export function layoutOf(
  params: WrapParams,
  about: number,
  chord: number,
  clearance: number,
  on: CycleCase,
): Layout {
  const own = ({ value, unit }: TypedLength) => convertLength(value, unit, on.unit)
  switch (params.what) {
    case 'scale':
      return scaleOf(params, about, own)
    case 'slots':
      return slotsOf(params, about, own)
    case 'holes':
      return holesOf(params, about, own)
    case 'program':
      return programMoves(params, on, chord, clearance)
    case 'text': {
      const height = own(params.textHeight)
      const said = params.text.trim()
      const { width } = layText(said)
      // Along: its middle height on flat Y zero. Round: its middle there, feet towards the end that X counts from.
      const pose =
        params.runs === 'along'
          ? { x: 0, y: -height / 2, angle: 0, height, stretch: 1 }
          : { x: height, y: (-width * height) / 2, angle: 90, height, stretch: 1 }
      return { ...empty(), strokes: textStrokes(said, pose) }
    }
  }
}

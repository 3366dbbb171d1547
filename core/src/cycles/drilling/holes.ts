import type { Block } from '../../control/index.ts'
import {
  type CycleCase,
  type HolePlace,
  type Pen,
  type PlacedHole,
  type PlannedRow,
  penOf,
  printed,
} from '../cycle/index.ts'

/** How a hole is drilled: in one go, with a dwell (seconds), out after every peck, or with a short retreat to break the chip. */
export type HoleWay =
  | { way: 'plain' }
  | { way: 'dwell'; seconds: number }
  | { way: 'peck'; q: number }
  | { way: 'break'; q: number }

/** Holes of one depth by one tool. Lengths in the case's unit, the feed a minute. */
export interface Holes {
  places: readonly PlacedHole[]
  /** Where the tip ends. */
  z: number
  r: number
  /** The height that it comes from, and returns to where `returns` says so. */
  initial: number
  returns: 'initial' | 'r'
  feed: number
  how: HoleWay
  /** Fields that the words come from. */
  fields: { place: string; z: string; r: string; q?: string; feed: string; returns: string; dwell?: string }
}

export interface HoleWork {
  blocks: Block[]
  planned: PlannedRow[]
}

/** Depths of the pecks, down from the R plane; the last is the bottom. */
export function peckDepths(r: number, z: number, q: number): number[] {
  const pecks = Math.max(1, Math.ceil((r - z) / q - 1e-9))
  return Array.from({ length: pecks }, (_, n) => (n === pecks - 1 ? z : r - (n + 1) * q))
}

/** How far a peck comes back, or stays above where it left off: the control's own setting. */
const retreatOf = ({ profile, unit }: CycleCase) => profile.reading.retreat[unit]

/** What one hole does from the R plane down, and out again to `out`. */
function planHole(
  of: Holes,
  on: CycleCase,
  at: HolePlace,
  { z, r, q, feed }: { z: number; r: number; q: number; feed: number },
  out: number,
): PlannedRow[] {
  const rapid = (height: number): PlannedRow => ({ does: 'rapid', to: [at.x, at.y, height] })
  const cut = (height: number): PlannedRow => ({ does: 'feed', to: [at.x, at.y, height], feed })
  const rows: PlannedRow[] = []
  if (of.how.way === 'peck' || of.how.way === 'break') {
    const depths = peckDepths(r, z, q)
    const back = retreatOf(on)
    depths.forEach((depth, n) => {
      rows.push(cut(depth))
      if (n === depths.length - 1) return
      if (of.how.way === 'break') rows.push(rapid(Math.min(r, depth + back)))
      else rows.push(rapid(r), rapid(Math.min(r, depth + Math.min(back, q))))
    })
  } else rows.push(cut(z))
  if (of.how.way === 'dwell' && of.how.seconds > 0) rows.push({ does: 'dwell', seconds: of.how.seconds })
  rows.push(rapid(out))
  return rows
}

const CODE: Record<HoleWay['way'], string> = { plain: 'G81', dwell: 'G82', peck: 'G83', break: 'G73' }

/** A dwell as this control counts it. */
export function dwellWord(seconds: number, { profile }: Pick<CycleCase, 'profile'>): string {
  return profile.reading.dwell === 'milliseconds'
    ? `P${Math.round(seconds * 1000)}`
    : `P${Number(seconds.toFixed(3))}${Number.isInteger(seconds) ? '.' : ''}`
}

/** Whether the control has the cycle for this way; else the holes are written out. */
const hasCycle = ({ profile: { reading } }: CycleCase, way: HoleWay['way']) =>
  reading.drilling && (way !== 'break' || reading.chipBreak)

/** Drilling on a mill: by the control's cycle, or move by move where it has none; and what it does. */
export function writeHoles(of: Holes, on: CycleCase): HoleWork {
  const pen = penOf(on.profile, on.unit)
  const round = (value: number) => printed(value, on)
  const q = 'q' in of.how ? round(of.how.q) : 0
  const [z, r, initial, feed] = [round(of.z), round(of.r), round(of.initial), round(of.feed)]
  const out = of.returns === 'initial' ? Math.max(initial, r) : r
  const { fields } = of
  const { places } = of
  const planned: PlannedRow[] = places.flatMap(({ meant }, n) => [
    { does: 'rapid', to: [meant.x, meant.y, n === 0 ? initial : out] },
    { does: 'rapid', to: [meant.x, meant.y, r] },
    ...planHole(of, on, meant, { z, r, q, feed }, out),
  ])
  const at = (hole: PlacedHole) => pen.place(hole, fields.place)
  if (hasCycle(on, of.how.way)) {
    const head = (hole: PlacedHole): Block =>
      pen.block([
        pen.code(of.returns === 'initial' ? 'G98' : 'G99', fields.returns),
        pen.code(CODE[of.how.way], fields.q ?? fields.z),
        ...at(hole),
        pen.length('Z', z, fields.z),
        pen.length('R', r, fields.r),
        'q' in of.how ? pen.length('Q', q, fields.q) : undefined,
        of.how.way === 'dwell' ? pen.code(dwellWord(of.how.seconds, on), fields.dwell) : undefined,
        pen.length('F', feed, fields.feed),
      ])
    return {
      planned,
      blocks: [
        ...places.map((hole, n) => (n === 0 ? head(hole) : pen.block(at(hole)))),
        pen.block(['G80'], 'cycle off'),
      ],
    }
  }
  const field = (height: number) =>
    height === z ? fields.z : height === r ? fields.r : (fields.q ?? fields.returns)
  return {
    planned,
    blocks: places.flatMap((hole, n) => [
      pen.block(['G0', ...at(hole)], `hole ${n + 1}`),
      pen.block(['G0', pen.length('Z', r, fields.r)]),
      ...planHole(of, on, hole.meant, { z, r, q, feed }, out).flatMap((row) =>
        upAndDown(row, on, pen, fields, { field, f: feed }),
      ),
    ]),
  }
}

/** A row along Z, or a wait, written out; `field` names where a height comes from, `f` is the word of the feed. */
function upAndDown(
  row: PlannedRow,
  on: CycleCase,
  pen: Pen,
  fields: Holes['fields'],
  { field, f }: { field: (height: number) => string | undefined; f: number },
): Block[] {
  if (row.does === 'dwell') return [pen.block(['G4', pen.code(dwellWord(row.seconds, on), fields.dwell)])]
  if (row.does !== 'feed' && row.does !== 'rapid') return []
  const z = row.to[2] ?? 0
  return row.does === 'feed'
    ? [pen.block(['G1', pen.length('Z', z, field(z)), pen.length('F', f, fields.feed)])]
    : [pen.block(['G0', pen.length('Z', z, field(z))])]
}

/** Drilling on a lathe's centre line, with feed a turn. The turns do not change on the way: the spindle holds its speed. */
export function writeCentreHole(
  of: Omit<Holes, 'places' | 'returns'> & { aTurn: number; rpm: number },
  on: CycleCase,
): HoleWork {
  const pen = penOf(on.profile, on.unit)
  const round = (value: number) => printed(value, on)
  const q = 'q' in of.how ? round(of.how.q) : 0
  const [z, r, initial, aTurn] = [round(of.z), round(of.r), round(of.initial), round(of.aTurn)]
  const feed = aTurn * of.rpm
  const { fields } = of
  const seconds = of.how.way === 'dwell' ? of.how.seconds : 0
  const rapid = (height: number): PlannedRow => ({ does: 'rapid', to: [0, null, height] })
  const cut = (height: number): PlannedRow => ({ does: 'feed', to: [0, null, height], feed })
  // No cycle of a lathe breaks chips with a short retreat: it is written out.
  const cycle = on.profile.reading.drilling && of.how.way !== 'break' && of.how.way !== 'plain'
  const depths = 'q' in of.how ? peckDepths(r, z, q) : [z]
  const back = retreatOf(on)
  const down: PlannedRow[] = depths.flatMap((depth, n): PlannedRow[] => {
    if (n === depths.length - 1)
      return [cut(depth), ...(seconds > 0 ? [{ does: 'dwell' as const, seconds }] : [])]
    return of.how.way === 'break'
      ? [cut(depth), rapid(Math.min(r, depth + back))]
      : [cut(depth), rapid(r), rapid(depth + Math.min(q, back))]
  })
  const planned: PlannedRow[] = [rapid(r), ...down, rapid(r), rapid(initial)]
  const off = pen.block(['G0', pen.length('Z', initial, 'clearance')])
  if (cycle)
    return {
      planned,
      blocks: [
        pen.block([
          pen.code('G83', fields.q ?? fields.z),
          pen.length('Z', z, fields.z),
          pen.length('R', r, fields.r),
          'q' in of.how ? pen.length('Q', q, fields.q) : undefined,
          seconds > 0 ? pen.code(dwellWord(seconds, on), fields.dwell) : undefined,
          pen.length('F', aTurn, fields.feed),
        ]),
        pen.block(['G80'], 'cycle off'),
        off,
      ],
    }
  return {
    planned,
    blocks: planned.flatMap((row) =>
      upAndDown(row, on, pen, fields, { field: (height) => (height === z ? fields.z : fields.r), f: aTurn }),
    ),
  }
}

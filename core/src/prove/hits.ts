import type { ToolShape } from '../machine/index.ts'
import { endOf, isArc, type Motion, ROW } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import type { AboveTool } from './above-tool.ts'
import { type Body, type Box, boundsOf, type Solid, solidsBeside, solidsOf, type Triple } from './body.ts'
import { pathOf } from './path.ts'
import { goesStraight, rapidBand, sureCurves } from './rapid.ts'
import { MilledStock } from './stock.ts'
import { boxesMeet, type Place, placeAt, sweep } from './sweep.ts'
import { partBox, type ToolPart, toolParts } from './tool-parts.ts'
import { TurnedStock } from './turned-stock.ts'

/** A piece of a tool going into something. */
export interface Hit {
  row: number
  body: Body
  part: ToolPart['name']
  /** The tool number, of what is in another station of a turret. */
  tool?: number
  /** Where the tip stands when it first does. */
  at: Triple
  /**
   * Whether it does on a path that the machine takes as its page has it; else only somewhere in the band that a rapid
   * may take, where the page does not say how the axes speed up.
   */
  sure: boolean
}

/** Hits beyond these are not looked for. */
export const MOST_HITS = 400
/** Rows that are looked at together before each by itself. */
const TOGETHER = 32

export interface CrashCase {
  motion: Motion
  bodies: readonly Body[]
  /** Shapes by tool number, in the unit of the motion. */
  tools: ReadonlyMap<number, ToolShape>
  speeds: MachineSpeeds
  lathe: boolean
  /** What is above each tool and moves with it; nothing where it is left out. */
  above?: ((tool: number) => AboveTool) | undefined
  /** Rapids are looked at as they go at 100 % only, instead of at every override and in all that is not known. */
  atFull?: boolean
  /** Called now and then with the share done; stops when it gives false. */
  onProgress?: ((share: number) => boolean) | undefined
}

interface Target {
  body: Body
  box: Box
  solids: Solid[]
  /** The same in planes beside the centre line of a lathe, by their distance from it. */
  beside: Map<number, Solid[]>
}

/** What a piece of a tool can meet of a body. */
function solidsFor(target: Target, part: ToolPart): Solid[] {
  const beside = part.form === 'flat' ? (part.beside ?? 0) : 0
  if (beside === 0) return target.solids
  let known = target.beside.get(beside)
  if (!known) {
    known = solidsBeside(target.body, beside)
    target.beside.set(beside, known)
  }
  return known
}

/**
 * Where the tip stands a share of the way from one place to the next; where only a box is known, as near to the middle of
 * a body as it may be.
 */
function between(a: Place, b: Place, t: number, { least, greatest }: Box): Triple {
  const on = (axis: 0 | 1 | 2) => {
    const low = a.least[axis] + (b.least[axis] - a.least[axis]) * t
    const high = a.greatest[axis] + (b.greatest[axis] - a.greatest[axis]) * t
    return Math.max(low, Math.min(high, (least[axis] + greatest[axis]) / 2))
  }
  return [on(0), on(1), on(2)]
}

/** What the tip's box must be grown by to hold the whole tool. */
function reachOf(parts: readonly ToolPart[]): Box {
  const boxes = parts.map(partBox)
  const least = (axis: 0 | 1 | 2) => Math.min(0, ...boxes.map((box) => box.least[axis]))
  const greatest = (axis: 0 | 1 | 2) => Math.max(0, ...boxes.map((box) => box.greatest[axis]))
  return { least: [least(0), least(1), least(2)], greatest: [greatest(0), greatest(1), greatest(2)] }
}

/** What belongs to the tool itself. */
const OWN: ReadonlySet<ToolPart['name']> = new Set(['cutter', 'shank', 'holder'])

/** All that moves when a tool does: its pieces, and what is above it. */
const allParts = ({ tools, lathe, above }: CrashCase, tool: number): ToolPart[] => [
  ...toolParts(tools.get(tool), lathe),
  ...(above?.(tool).parts ?? []),
]

/** Whether a hit of this piece in this row counts at all, before what has been cut is looked at. */
function matters(kind: number, role: Body['role'], part: ToolPart['name']): boolean {
  if (role !== 'part') return true
  // Cutting is what the cutter is there for; a probe is there to touch.
  if (part === 'cutter') return kind === ROW.RAPID
  return kind !== ROW.PROBE || !OWN.has(part)
}

/** A place on the way of a row: the tip's, and how far along it is, counted in pieces of the path. */
interface Meeting {
  at: Triple
  along: number
}

/** First meeting of a path with a solid, or none. */
function firstOn(path: readonly Place[], part: ToolPart, target: Target): Meeting | undefined {
  const solids = solidsFor(target, part)
  for (let n = 1; n < path.length; n++) {
    const [from, to] = [path[n - 1], path[n]] as [Place, Place]
    let first = Number.POSITIVE_INFINITY
    for (const solid of solids) first = Math.min(first, sweep(part, from, to, solid))
    if (first <= 1) return { at: between(from, to, first, target.box), along: n - 1 + first }
  }
  return undefined
}

/** The ways that a row may go. */
interface Ways {
  /** What it surely does, at one override or another. */
  sure: Place[][]
  /** All that it may do, where that is more. */
  may: Place[][]
}

/** Row by row; a rapid on more than one axis has many. */
function waysOf({ motion, speeds, atFull }: CrashCase, row: number): Ways {
  if (motion.kind[row] !== ROW.RAPID || atFull)
    return { sure: [pathOf(motion, row, speeds).map(placeAt)], may: [] }
  const [from, to] = [endOf(motion, row - 1), endOf(motion, row)]
  return goesStraight(from, to, speeds)
    ? { sure: [[placeAt(from), placeAt(to)]], may: [] }
    : { sure: sureCurves(from, to, speeds), may: rapidBand(from, to, speeds) }
}

/** Walks the motion and says which rows need a closer look: those whose box, with the tool's reach, meets a body's. */
function suspects(
  of: CrashCase,
  targets: readonly Target[],
  visit: (row: number, near: Target[]) => boolean,
): boolean {
  const { motion } = of
  const { count, kind, x, y, z } = motion
  const reaches = new Map<number, Box>()
  const reachWith = (number: number) => {
    const known = reaches.get(number) ?? reachOf(allParts(of, number))
    reaches.set(number, known)
    return known
  }
  let reach = reachWith(0)
  let tool = -1
  const [xs, ys, zs] = motion.start
  const near: Target[] = []
  for (let begin = 0; begin < count; begin += TOGETHER) {
    if (begin % (TOGETHER * 512) === 0 && of.onProgress && !of.onProgress(begin / count)) return false
    const end = Math.min(count, begin + TOGETHER)
    let [x0, y0, z0] =
      begin > 0 ? [x[begin - 1] as number, y[begin - 1] as number, z[begin - 1] as number] : [xs, ys, zs]
    let [x1, y1, z1] = [x0, y0, z0]
    let curved = false
    let same = true
    for (let row = begin; row < end; row++) {
      const px = x[row] as number
      const py = y[row] as number
      const pz = z[row] as number
      if (px < x0) x0 = px
      else if (px > x1) x1 = px
      if (py < y0) y0 = py
      else if (py > y1) y1 = py
      if (pz < z0) z0 = pz
      else if (pz > z1) z1 = pz
      if (isArc(kind[row] as number)) curved = true
      const now = motion.states[motion.state[row] as number]?.tool ?? 0
      if (now !== tool) {
        same = row === begin && same
        tool = now
        reach = reachWith(tool)
      }
    }
    const meets = (target: Target) =>
      x0 + reach.least[0] < target.box.greatest[0] &&
      x1 + reach.greatest[0] > target.box.least[0] &&
      y0 + reach.least[1] < target.box.greatest[1] &&
      y1 + reach.greatest[1] > target.box.least[1] &&
      z0 + reach.least[2] < target.box.greatest[2] &&
      z1 + reach.greatest[2] > target.box.least[2]
    near.length = 0
    // With arcs (which bulge) or two tools in it, the group says nothing.
    for (const target of targets) if (curved || !same || meets(target)) near.push(target)
    if (near.length === 0) continue
    for (let row = begin; row < end; row++) {
      if (kind[row] === ROW.EVENT) continue
      if (!visit(row, near)) return true
    }
  }
  return true
}

/** The box that the tip stays in during a row; an arc's is its whole circle's. */
function tipBox(motion: Motion, row: number): Box {
  const from: Triple =
    row > 0
      ? [motion.x[row - 1] as number, motion.y[row - 1] as number, motion.z[row - 1] as number]
      : motion.start
  const to: Triple = [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]
  const least: [number, number, number] = [
    Math.min(from[0], to[0]),
    Math.min(from[1], to[1]),
    Math.min(from[2], to[2]),
  ]
  const greatest: [number, number, number] = [
    Math.max(from[0], to[0]),
    Math.max(from[1], to[1]),
    Math.max(from[2], to[2]),
  ]
  if (isArc(motion.kind[row] as number)) {
    const base = 6 * (motion.aux[row] as number)
    const radius = Math.max(motion.arcs[base + 4] as number, motion.arcs[base + 5] as number)
    for (const axis of [0, 1, 2] as const) {
      const centre = motion.arcs[base + axis] as number
      least[axis] = Math.min(least[axis], centre - radius)
      greatest[axis] = Math.max(greatest[axis], centre + radius)
    }
  }
  return { least, greatest }
}

/**
 * Every place where a tool or its holder goes into something: rapids along the path that they really take, feed moves and
 * arcs along theirs. Into the part a rapid counts where there is still material, and so do shank and holder at feed.
 */
export function findHits(of: CrashCase): Hit[] {
  const { motion, bodies, lathe } = of
  const targets = bodies.map(
    (body): Target => ({
      body,
      box: boundsOf(body),
      solids: solidsOf(body, lathe),
      beside: new Map(),
    }),
  )
  const hits: Hit[] = []
  const boxes = new Map<number, { parts: ToolPart[]; reach: Box }>()
  const toolOf = (row: number) => {
    const number = motion.states[motion.state[row] as number]?.tool ?? 0
    let known = boxes.get(number)
    if (!known) {
      const parts = allParts(of, number)
      known = { parts, reach: reachOf(parts) }
      boxes.set(number, known)
    }
    return known
  }
  const material = new Material(of, targets)
  /** The piece of a tool that is first in a body on a path. */
  const firstPart = (row: number, path: readonly Place[], parts: readonly ToolPart[], target: Target) => {
    let first: { part: ToolPart; meeting: Meeting } | undefined
    for (const part of parts) {
      if (!matters(motion.kind[row] as number, target.body.role, part.name)) continue
      let meeting = firstOn(path, part, target)
      if (meeting && target.body.role === 'part') meeting = material.firstOn(row, path, part, target)
      if (meeting && (!first || meeting.along < first.meeting.along)) first = { part, meeting }
    }
    return first
  }
  /** The same on the first of many paths on which there is one. */
  const firstAmong = (row: number, paths: readonly Place[][], parts: readonly ToolPart[], target: Target) => {
    for (const path of paths) {
      const first = firstPart(row, path, parts, target)
      if (first) return { ...first, path }
    }
    return undefined
  }
  suspects(of, targets, (row, near) => {
    const { parts, reach } = toolOf(row)
    const tip = tipBox(motion, row)
    const whole: Box = {
      least: [tip.least[0] + reach.least[0], tip.least[1] + reach.least[1], tip.least[2] + reach.least[2]],
      greatest: [
        tip.greatest[0] + reach.greatest[0],
        tip.greatest[1] + reach.greatest[1],
        tip.greatest[2] + reach.greatest[2],
      ],
    }
    let ways: Ways | undefined
    for (const target of near) {
      if (!boxesMeet(whole, target.box)) continue
      // A rapid stays in the box from its start to its end: where nothing of the tool meets there, no way of it does.
      if (motion.kind[row] === ROW.RAPID && !parts.some((part) => firstOn([tip, tip], part, target))) continue
      ways ??= waysOf(of, row)
      const { sure, may } = ways
      // The band holds every way: where it meets nothing, none of them does.
      const perhaps = firstAmong(row, may, parts, target)
      if (may.length > 0 && !perhaps) continue
      const surely = firstAmong(row, sure, parts, target)
      const first = surely ?? perhaps
      if (!first) continue
      hits.push({
        row,
        body: target.body,
        part: first.part.name,
        ...(first.part.form === 'flat' && first.part.tool !== undefined ? { tool: first.part.tool } : {}),
        at: first.meeting.at,
        sure: surely !== undefined,
      })
      // The way out again is the same crash.
      if (surely && target.body.role === 'part' && first.part.name === 'cutter')
        material.cutAlong(surely.path, first.part, target)
    }
    return hits.length < MOST_HITS
  })
  return hits.slice(0, MOST_HITS)
}

/** What is left of one part, on either kind of machine. */
type Left = { milled: MilledStock } | { turned: TurnedStock }

const leftOf = ({ body, box }: Target, lathe: boolean): Left =>
  lathe
    ? { turned: new TurnedStock(box, (body.shape === 'cylinder' && body.bore) || 0) }
    : { milled: new MilledStock(box) }

/** What is left of the parts while the program cuts them, row by row, as far as somebody asks. */
class Material {
  private readonly of: CrashCase
  private readonly lefts = new Map<Target, Left>()
  private readonly cutters = new Map<number, ToolPart>()
  /** The first row that has not cut yet. */
  private next = 0

  constructor(of: CrashCase, targets: readonly Target[]) {
    this.of = of
    for (const target of targets)
      if (target.body.role === 'part') this.lefts.set(target, leftOf(target, of.lathe))
  }

  /** Where a piece of a tool first meets what is left when a row begins. */
  firstOn(row: number, path: readonly Place[], part: ToolPart, target: Target): Meeting | undefined {
    this.cutUpTo(row)
    const left = this.lefts.get(target)
    for (let n = 1; n < path.length; n++) {
      const [from, to] = [path[n - 1], path[n]] as [Place, Place]
      const share = left ? meetsLeft(left, from, to, part) : Number.POSITIVE_INFINITY
      if (share <= 1) return { at: between(from, to, share, target.box), along: n - 1 + share }
    }
    return undefined
  }

  /** Takes away what a cutter sweeps on a path on which its place is known. */
  cutAlong(path: readonly Place[], part: ToolPart, target: Target): void {
    const left = this.lefts.get(target)
    for (let n = 1; left && n < path.length; n++)
      cutLeft(left, (path[n - 1] as Place).least, (path[n] as Place).least, part)
  }

  private cutterOf(row: number): ToolPart {
    const { motion, tools, lathe } = this.of
    const number = motion.states[motion.state[row] as number]?.tool ?? 0
    let cutter = this.cutters.get(number)
    if (!cutter) {
      cutter = toolParts(tools.get(number), lathe)[0] as ToolPart
      this.cutters.set(number, cutter)
    }
    return cutter
  }

  /**
   * Once a rotary has turned the part, what was cut lies elsewhere: the stock is taken whole again, but for where the tool
   * then stands in it. That errs on the side of a warning.
   */
  private afterTurn(row: number): void {
    const { motion, lathe } = this.of
    const { rotary, kind } = motion
    if (!rotary) return
    let last = row - 1
    while (last >= this.next && (rotary[last] as number) === (last > 0 ? (rotary[last - 1] as number) : 0))
      last--
    if (last < this.next) return
    for (const target of this.lefts.keys()) {
      const left = leftOf(target, lathe)
      this.lefts.set(target, left)
      if (kind[last] === ROW.RAPID) continue
      const at: Triple = [motion.x[last] as number, motion.y[last] as number, motion.z[last] as number]
      cutLeft(left, at, at, this.cutterOf(last))
    }
    this.next = last + 1
  }

  /** Rows at feed cut; a rapid and a probe do not. */
  private cutUpTo(row: number): void {
    const { motion, speeds } = this.of
    this.afterTurn(row)
    for (; this.next < row; this.next++) {
      const kind = motion.kind[this.next] as number
      if (kind === ROW.RAPID || kind === ROW.EVENT || kind === ROW.PROBE) continue
      const cutter = this.cutterOf(this.next)
      const reach = cutReach(cutter)
      const tip = tipBox(motion, this.next)
      let path: Place[] | undefined
      for (const target of this.lefts.keys()) {
        const { least, greatest } = target.box
        const beside = ([0, 1, 2] as const).some(
          (axis) =>
            tip.greatest[axis] + reach.greatest[axis] < least[axis] ||
            tip.least[axis] + reach.least[axis] > greatest[axis],
        )
        if (beside) continue
        path ??= pathOf(motion, this.next, speeds).map(placeAt)
        this.cutAlong(path, cutter, target)
      }
    }
  }
}

/** On a mill the stock is known by heights only: all above the tip is cut. */
const cutReach = (cutter: ToolPart): Box =>
  partBox(cutter.form === 'round' ? { ...cutter, to: Number.POSITIVE_INFINITY } : cutter)

/** A piece of a tool of the one kind of machine is never asked of the other's stock. */
const meetsLeft = (left: Left, from: Place, to: Place, part: ToolPart): number => {
  if ('turned' in left && part.form === 'flat') return left.turned.meets(from, to, part)
  if ('milled' in left && part.form === 'round') return left.milled.meets(from, to, part)
  if ('milled' in left && part.form === 'block') return left.milled.meetsBlock(from, to, part)
  return Number.POSITIVE_INFINITY
}

function cutLeft(left: Left, from: Triple, to: Triple, part: ToolPart): void {
  if ('turned' in left && part.form === 'flat') left.turned.cut(from, to, part)
  else if ('milled' in left && part.form === 'round') left.milled.cut(from, to, part)
}

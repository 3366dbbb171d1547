import type { SimulatedView } from './view-schema.ts'

interface Place {
  x: number
  y: number
}

export interface SketchBox {
  least: Place
  greatest: Place
}

/** A body in the side view: along X, and its heights. */
interface SideBody {
  id: string
  role: string
  x0: number
  x1: number
  bottom: number
  top: number
}

/** The table of a mill as it is drawn: from above, and from the front. Machine positions, in the machine's unit. */
export interface TableSketch {
  plan: SketchBox
  side: SketchBox
  bodies: readonly SideBody[]
  /** How far the tip stands over what is highest of the part (of the vise where it is out); minus below. */
  over: number
  overWhat: 'part' | 'vise'
  /** Whether the tip is in the picture from above, and from the front; else at its edge. */
  inPlan: boolean
  inSide: boolean
  tip: Place
  tipInSide: Place
}

const clamped = (value: number, least: number, greatest: number) => Math.min(greatest, Math.max(least, value))

/** What the picture of a mill's table shows: all that stands there with room around it, and the tip at the edge where it is further off. */
export function tableSketch({ seen }: SimulatedView): TableSketch | undefined {
  if (!seen || seen.bodies.length === 0) return undefined
  const xs = seen.bodies.flatMap(({ corners }) => corners.map(({ x }) => x))
  const ys = seen.bodies.flatMap(({ corners }) => corners.map(({ y }) => y))
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const room = 0.22 * (x1 - x0)
  const plan = { least: { x: x0 - room, y: y0 - room }, greatest: { x: x1 + room, y: y1 + room } }
  const bottom = Math.min(...seen.bodies.map(({ bottom: low }) => low))
  const top = Math.max(...seen.bodies.map(({ top: high }) => high))
  const side = {
    least: { x: plan.least.x, y: bottom },
    greatest: { x: plan.greatest.x, y: top + 0.45 * (x1 - x0) },
  }
  const part = seen.bodies.find(({ role }) => role === 'part')
  const tip = {
    x: clamped(seen.tip.x, plan.least.x, plan.greatest.x),
    y: clamped(seen.tip.y, plan.least.y, plan.greatest.y),
  }
  const tipInSide = {
    x: tip.x,
    y: clamped(seen.tipZ, side.least.y, side.greatest.y),
  }
  return {
    plan,
    side,
    bodies: seen.bodies.map(({ id, role, corners, bottom: low, top: high }) => ({
      id,
      role,
      x0: Math.min(...corners.map(({ x }) => x)),
      x1: Math.max(...corners.map(({ x }) => x)),
      bottom: low,
      top: high,
    })),
    over: seen.tipZ - (part?.top ?? top),
    overWhat: part ? 'part' : 'vise',
    inPlan: tip.x === seen.tip.x && tip.y === seen.tip.y,
    inSide: tipInSide.x === seen.tip.x && tipInSide.y === seen.tipZ,
    tip,
    tipInSide,
  }
}

/** Across a rotary as it is drawn, from its right end: Y to the right, Z up. */
export interface EndSketch {
  box: SketchBox
  /** The chuck, then the part: its middle, its radius, the ends of its flat where it has one. */
  round: readonly { id: string; role: string; middle: Place; radius: number; flat: readonly Place[] }[]
  tip: Place
  /** Whether the tip is in the picture; else at its edge. */
  inSight: boolean
}

/** What the picture across a rotary shows; nothing where none is on the table. */
export function endSketch({ end }: SimulatedView): EndSketch | undefined {
  const [chuck] = end?.round ?? []
  if (!end || !chuck) return undefined
  const reach = 1.15 * chuck.radius
  const { y, z } = chuck.middle
  const box = { least: { x: y - reach, y: z - reach }, greatest: { x: y + reach, y: z + 2 * reach } }
  const place = (at: { y: number; z: number }): Place => ({ x: at.y, y: at.z })
  const tip = {
    x: clamped(end.tip.y, box.least.x, box.greatest.x),
    y: clamped(end.tip.z, box.least.y, box.greatest.y),
  }
  return {
    box,
    round: end.round.map(({ id, role, middle, radius, flat }) => ({
      id,
      role,
      middle: place(middle),
      radius,
      flat: flat.map(place),
    })),
    tip,
    inSight: tip.x === end.tip.y && tip.y === end.tip.z,
  }
}

/** The bar of a lathe as it is drawn: Z to the right from the chuck's face, X up as a radius. */
export function barSketch({ bar }: SimulatedView) {
  if (!bar) return undefined
  const length = 1.6 * bar.face
  const height = 1.3 * bar.diameter
  const tip = bar.tip && { x: clamped(bar.tip.Z, 0, length), y: clamped(bar.tip.X / 2, 0, height) }
  return {
    box: { least: { x: -0.5 * bar.diameter, y: -0.6 * bar.diameter }, greatest: { x: length, y: height } },
    face: bar.face,
    radius: bar.diameter / 2,
    turned: bar.turned && { radius: bar.turned.diameter / 2, to: bar.turned.to },
    tip,
    inSight: !!bar.tip && tip?.x === bar.tip.Z && tip.y === bar.tip.X / 2,
  }
}

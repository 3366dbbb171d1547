/** A speed over the surface that is held: the spindle speed in rpm times the radius, and the highest in rpm. */
export interface SurfaceSpeed {
  perRadius: number
  top: number
}

/** Pieces that an arc is seen as. */
const ARC_PIECES = 256

/** Integral of 1 / n over the radius from the centre on: x / top within the clamp's radius, x^2 / (2 k) beyond it; the same on the far side. */
function slowness(x: number, { perRadius, top }: SurfaceSpeed): number {
  const r = Math.abs(x)
  const clamped = perRadius / top
  const sum = r <= clamped ? r / top : clamped / top + (r * r - clamped * clamped) / (2 * perRadius)
  return Math.sign(x) * sum
}

/** Spindle speed in rpm at a radius (its sign is the side of the centre line). */
export const rpmAtRadius = (x: number, { perRadius, top }: SurfaceSpeed): number =>
  Math.abs(x) * top <= perRadius ? top : perRadius / Math.abs(x)

/**
 * Spindle speed in rpm over a straight move from one radius to another: the one that, held, would take as long as the spindle that
 * speeds up towards the centre and stops at its clamp. Time = integral of dr / (f n) (trade.md 7).
 */
export function rpmAlong(from: number, to: number, of: SurfaceSpeed): number {
  // A clamp of nothing: it does not turn.
  if (of.top <= 0) return 0
  const way = to - from
  if (Math.abs(way) < 1e-9) return rpmAtRadius(from, of)
  return way / (slowness(to, of) - slowness(from, of))
}

/** The same over an arc in X and Z: `at` is the radius at a share of it. */
export function rpmRound(at: (share: number) => number, of: SurfaceSpeed): number {
  let sum = 0
  for (let n = 0; n < ARC_PIECES; n++) sum += 1 / rpmAlong(at(n / ARC_PIECES), at((n + 1) / ARC_PIECES), of)
  return ARC_PIECES / sum
}

/**
 * Seconds from rest to rest over a distance at a top speed (length a second) and an acceleration (length a second
 * squared): up, along, down; without the middle where the distance is short. Equations of motion.
 */
export function restToRest(distance: number, speed: number, acceleration: number): number {
  if (distance <= 0) return 0
  const ramp = (speed * speed) / acceleration
  return distance >= ramp ? distance / speed + speed / acceleration : 2 * Math.sqrt(distance / acceleration)
}

/**
 * The square of the speed at which a corner can be taken without leaving it by more than a tolerance: an arc that touches
 * both sides and passes the corner at that distance has radius r = tolerance s / (1 - s), s the sine of half the angle
 * between the sides, and v^2 = a r (derived). `cosine` is that of the turn: 1 straight on, -1 back.
 */
export function cornerSpeedSquared(cosine: number, acceleration: number, tolerance: number): number {
  if (cosine > 0.999999) return Number.POSITIVE_INFINITY
  if (cosine < -0.999999) return 0
  const s = Math.sqrt((1 + cosine) / 2)
  return (acceleration * tolerance * s) / (1 - s)
}

/** Seconds to make N turns with a spindle that starts and stops (turns a second, turns a second squared). trade.md 7, derived. */
export const turnsFromRest = (turns: number, speed: number, acceleration: number) =>
  restToRest(turns, speed, acceleration)

/** Sine of degrees, exact at the quarters of a turn. */
export function sineOf(degrees: number): number {
  const turn = ((degrees % 360) + 360) % 360
  if (turn === 0 || turn === 180) return 0
  if (turn === 90) return 1
  if (turn === 270) return -1
  return Math.sin((turn * Math.PI) / 180)
}

/** Cosine of degrees, exact at the quarters of a turn. */
export const cosineOf = (degrees: number) => sineOf(degrees + 90)

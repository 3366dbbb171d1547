import { ROW } from '../program/index.ts'
import type { Tried } from './try.ts'

/** Where the ball's centre is at a time, and the line that runs. */
export interface PlayPoint {
  x: number
  y: number
  z: number
  /** Seconds from the first move of the probe. */
  t: number
  line: number
}

/** The way of the probe with its times, from its first protected move on. */
export function playOf({ program: { motion }, rows }: Pick<Tried, 'program' | 'rows'>): PlayPoint[] {
  const points: PlayPoint[] = []
  let t = 0
  for (let row = 0; row < motion.count; row++) {
    const { [row]: kind } = motion.kind
    if (points.length === 0 && kind !== ROW.PROBE) continue
    if (points.length > 0) t += rows[row] as number
    if (kind === ROW.RAPID) break
    points.push({
      x: motion.x[row] as number,
      y: motion.y[row] as number,
      z: motion.z[row] as number,
      t,
      line: motion.line[row] as number,
    })
  }
  return points
}

/** Where it is at a share (0 to 1) of the whole time; undefined where it does not move. */
export function placeAt(points: readonly PlayPoint[], share: number): PlayPoint | undefined {
  const last = points.at(-1)
  if (!last) return undefined
  const t = share * last.t
  const next = points.findIndex((each) => each.t >= t)
  const [to, from] = [points[next] ?? last, points[Math.max(0, next - 1)] ?? last]
  const part = to.t > from.t ? (t - from.t) / (to.t - from.t) : 1
  const between = (a: number, b: number) => a + (b - a) * part
  return {
    x: between(from.x, to.x),
    y: between(from.y, to.y),
    z: between(from.z, to.z),
    t,
    line: to.line,
  }
}

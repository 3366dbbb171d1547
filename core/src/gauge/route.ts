/** A place over which the probe comes down, in the plane. */
export interface Stop {
  x: number
  y: number
}

/** Up to this many places the shortest way is found exactly. */
const EXACT = 11

const between = (a: Stop, b: Stop) => Math.hypot(a.x - b.x, a.y - b.y)

/** Length of the way that visits places in this order, from `start`. */
export const lengthOfWay = (start: Stop, stops: readonly Stop[]) =>
  stops.reduce((sum, stop, index) => sum + between(index === 0 ? start : (stops[index - 1] as Stop), stop), 0)

/** The shortest of all ways (Held and Karp's dynamic programming, 1962): indices in the order of the visit. */
function exact(start: Stop, stops: readonly Stop[]): number[] {
  const n = stops.length
  const best = new Float64Array((1 << n) * n).fill(Number.POSITIVE_INFINITY)
  const before = new Int8Array((1 << n) * n).fill(-1)
  for (let k = 0; k < n; k++) best[(1 << k) * n + k] = between(start, stops[k] as Stop)
  for (let set = 1; set < 1 << n; set++)
    for (let last = 0; last < n; last++) {
      const length = best[set * n + last] as number
      if (!Number.isFinite(length)) continue
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue
        const at = (set | (1 << next)) * n + next
        const longer = length + between(stops[last] as Stop, stops[next] as Stop)
        if (longer < (best[at] as number)) {
          best[at] = longer
          before[at] = last
        }
      }
    }
  let set = (1 << n) - 1
  let last = 0
  for (let k = 1; k < n; k++) if ((best[set * n + k] as number) < (best[set * n + last] as number)) last = k
  const order: number[] = []
  while (last >= 0 && set > 0) {
    order.unshift(last)
    const previous = before[set * n + last] as number
    set &= ~(1 << last)
    last = previous
  }
  return order
}

/** Nearest next, then stretches turned round as long as that makes it shorter. */
function nearly(start: Stop, stops: readonly Stop[]): number[] {
  const left = new Set(stops.keys())
  const order: number[] = []
  let at = start
  while (left.size > 0) {
    let next = -1
    for (const k of left)
      if (next < 0 || between(at, stops[k] as Stop) < between(at, stops[next] as Stop)) next = k
    left.delete(next)
    order.push(next)
    at = stops[next] as Stop
  }
  const length = (of: readonly number[]) =>
    lengthOfWay(
      start,
      of.map((k) => stops[k] as Stop),
    )
  for (let better = true; better; ) {
    better = false
    for (let i = 0; i < order.length - 1; i++)
      for (let j = i + 1; j < order.length; j++) {
        const turned = [...order.slice(0, i), ...order.slice(i, j + 1).reverse(), ...order.slice(j + 1)]
        if (length(turned) < length(order) - 1e-9) {
          order.splice(0, order.length, ...turned)
          better = true
        }
      }
  }
  return order
}

/** The order in which places are visited by the shortest way from `start`: exact up to eleven places, nearly so beyond. */
export function shortestOrder(start: Stop, stops: readonly Stop[]): number[] {
  if (stops.length < 2) return [...stops.keys()]
  return stops.length <= EXACT ? exact(start, stops) : nearly(start, stops)
}

/** What it costs from each place to each other, from the start to each, and from each to where it goes on: seconds, or a length. */
export interface Legs {
  between: readonly (readonly number[])[]
  fromStart: readonly number[]
  toEnd: readonly number[]
}

/** Places up to this many are tried in every order. */
export const MOST_EXACT = 11

export function lengthOf(order: readonly number[], { between, fromStart, toEnd }: Legs): number {
  if (order.length === 0) return 0
  let sum = (fromStart[order[0] as number] as number) + (toEnd[order.at(-1) as number] as number)
  for (let n = 1; n < order.length; n++)
    sum += (between[order[n - 1] as number] as readonly number[])[order[n] as number] as number
  return sum
}

/** Always on to the nearest that is left: what a hand would do. */
export function nearestNeighbour({ between, fromStart }: Legs): number[] {
  const left = new Set(fromStart.keys())
  const order: number[] = []
  let legs = fromStart
  while (left.size > 0) {
    let best = -1
    for (const place of left) if (best < 0 || (legs[place] as number) < (legs[best] as number)) best = place
    order.push(best)
    left.delete(best)
    legs = between[best] as readonly number[]
  }
  return order
}

/** The shortest of all orders, by sets of places (Held and Karp 1962). */
function exact(legs: Legs): number[] {
  const n = legs.fromStart.length
  const sets = 1 << n
  const cost = new Float64Array(sets * n).fill(Number.POSITIVE_INFINITY)
  const before = new Int8Array(sets * n).fill(-1)
  for (let place = 0; place < n; place++) cost[(1 << place) * n + place] = legs.fromStart[place] as number
  for (let set = 1; set < sets; set++)
    for (let last = 0; last < n; last++) {
      const now = cost[set * n + last] as number
      if (now === Number.POSITIVE_INFINITY) continue
      for (let next = 0; next < n; next++) {
        if (set & (1 << next)) continue
        const to = (set | (1 << next)) * n + next
        const sum = now + ((legs.between[last] as readonly number[])[next] as number)
        if (sum < (cost[to] as number)) {
          cost[to] = sum
          before[to] = last
        }
      }
    }
  const all = sets - 1
  let last = 0
  for (let place = 1; place < n; place++)
    if (
      (cost[all * n + place] as number) + (legs.toEnd[place] as number) <
      (cost[all * n + last] as number) + (legs.toEnd[last] as number)
    )
      last = place
  const order: number[] = []
  for (let set = all; last >= 0; ) {
    order.unshift(last)
    const earlier = before[set * n + last] as number
    set &= ~(1 << last)
    last = earlier
  }
  return order
}

/** Turns stretches round, and moves short ones elsewhere, as long as it gets shorter. */
function improved(start: readonly number[], legs: Legs): number[] {
  let order = [...start]
  let best = lengthOf(order, legs)
  for (let better = true; better; ) {
    better = false
    for (let from = 0; from < order.length; from++)
      for (let to = from + 1; to <= order.length; to++) {
        const turned = [...order.slice(0, from), ...order.slice(from, to).reverse(), ...order.slice(to)]
        const moved =
          to - from > 3
            ? []
            : Array.from({ length: order.length - (to - from) + 1 }, (_, at) => {
                const rest = [...order.slice(0, from), ...order.slice(to)]
                rest.splice(at, 0, ...order.slice(from, to))
                return rest
              })
        for (const next of [turned, ...moved]) {
          const length = lengthOf(next, legs)
          if (length < best - 1e-9) {
            order = next
            best = length
            better = true
          }
        }
      }
  }
  return order
}

/** Places beyond these are not improved further than the nearest neighbour: it would take too long. */
const MOST_IMPROVED = 40

/**
 * The order in which places are visited quickest, from where the tool comes to where it goes on. Exact up to eleven places; beyond,
 * the better of the order given and the nearest neighbour, improved: never longer than either.
 */
export function shortestOrder(legs: Legs): number[] {
  const n = legs.fromStart.length
  if (n <= 1) return [...legs.fromStart.keys()]
  if (n <= MOST_EXACT) return exact(legs)
  const starts = [[...legs.fromStart.keys()], nearestNeighbour(legs)]
  const orders = n > MOST_IMPROVED ? starts : starts.map((order) => improved(order, legs))
  return orders.reduce((a, b) => (lengthOf(b, legs) < lengthOf(a, legs) ? b : a))
}

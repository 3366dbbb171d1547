/** A place of the drawing, px. */
interface Spot {
  x: number
  y: number
}

/** So many numbers say the order; more are not read. */
const MOST = 40
/** Holes after these get no number, but for the last. */
const MOST_LOOKED_AT = 400
/** What a number of three digits takes, and where that begins right of the middle of its hole and above it, px. */
const NUMBER = { width: 34, height: 15, right: 5, above: 7 }

/**
 * Which of the places get their number: in their order, each where no number stands yet and where it would lie on no other hole. The
 * last one has its own whatever lies there.
 */
export function numberedPlaces(places: readonly Spot[]): number[] {
  const last = places.length - 1
  if (last < 0) return []
  const isFree = ({ x, y }: Spot, numbered: readonly number[]) =>
    numbered.every((other) => {
      const at = places[other] as Spot
      return Math.abs(x - at.x) >= NUMBER.width || Math.abs(y - at.y) >= NUMBER.height
    }) &&
    places.every(
      (hole) =>
        hole.x <= x + NUMBER.right ||
        hole.x >= x + NUMBER.right + NUMBER.width ||
        hole.y >= y - NUMBER.above ||
        hole.y <= y - NUMBER.above - NUMBER.height,
    )
  const numbered = [last]
  for (const [index, spot] of places.slice(0, Math.min(last, MOST_LOOKED_AT)).entries()) {
    if (numbered.length === MOST) break
    if (isFree(spot, numbered)) numbered.push(index)
  }
  return numbered.sort((a, b) => a - b)
}

/** How large a hole is drawn, px: smaller where the next one would lie on it. */
export function holeRadius(places: readonly Spot[], most: number): number {
  const ways = places
    .slice(1)
    .map(({ x, y }, index) => Math.hypot(x - (places[index]?.x ?? x), y - (places[index]?.y ?? y)))
    .filter((way) => way > 0)
  return Math.max(
    1.5,
    ways.reduce((least, way) => Math.min(least, 0.4 * way), most),
  )
}

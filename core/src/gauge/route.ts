import { distance, shortestOrder } from '../geometry/index.ts'

/** A place over which the probe comes down, in the plane. */
export interface Stop {
  x: number
  y: number
}

/** The way from `start` over the stops; it goes on from any of them. */
const legsFrom = (start: Stop, stops: readonly Stop[]) => ({
  between: stops.map((a) => stops.map((b) => distance(a, b))),
  fromStart: stops.map((each) => distance(start, each)),
  toEnd: stops.map(() => 0),
})

/** The order in which places are visited by the shortest way from `start`: indices, in the order of the visit. */
export const shortestRoute = (start: Stop, stops: readonly Stop[]) => shortestOrder(legsFrom(start, stops))

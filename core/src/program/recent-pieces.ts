import { crosses, type Piece } from '../geometry/index.ts'

/** The last pieces of a path beside another, in a ring: as many as a control reads ahead. */
export class RecentPieces {
  private readonly most: number
  private readonly written: Piece[] = []
  private readonly beside: Piece[] = []
  /** The least and the greatest place of each, in X and Y of the plane. */
  private readonly boxes: Float64Array
  private done = 0

  constructor(most: number) {
    this.most = most
    this.boxes = new Float64Array(4 * most)
  }

  clear(): void {
    this.done = 0
  }

  /** Whether a path crosses one of the last that it did not cross as it is written. */
  cross(written: Piece, beside: Piece): boolean {
    const { boxes, most } = this
    const { from, to, sweep, centre } = beside
    const arcs = sweep !== 0
    const reach = arcs ? Math.max(beside.radii[0], beside.radii[1]) : 0
    const left = arcs ? centre.x - reach : Math.min(from.x, to.x)
    const right = arcs ? centre.x + reach : Math.max(from.x, to.x)
    const low = arcs ? centre.y - reach : Math.min(from.y, to.y)
    const high = arcs ? centre.y + reach : Math.max(from.y, to.y)
    let narrow = false
    // The one just before it meets it at their corner.
    for (let back = 2; back <= most && back <= this.done && !narrow; back++) {
      const at = (this.done - back) % most
      const box = 4 * at
      if (
        (boxes[box] as number) > right ||
        (boxes[box + 1] as number) > high ||
        (boxes[box + 2] as number) < left ||
        (boxes[box + 3] as number) < low
      )
        continue
      narrow = crosses(this.beside[at] as Piece, beside) && !crosses(this.written[at] as Piece, written)
    }
    const at = this.done % most
    this.written[at] = written
    this.beside[at] = beside
    boxes[4 * at] = left
    boxes[4 * at + 1] = low
    boxes[4 * at + 2] = right
    boxes[4 * at + 3] = high
    this.done++
    return narrow
  }
}

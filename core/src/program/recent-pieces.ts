import { crosses, linesCross, type Piece, pieceLength, straight } from '../geometry/index.ts'

/** Numbers of a piece in `ends`. */
const NUMBERS = 8

/**
 * The last pieces of a path beside another, in a ring: as many as a control reads ahead. As numbers, since nearly all are
 * straight and every move is held against all of them.
 */
export class RecentPieces {
  private readonly most: number
  /** Of each: X and Y of where the path beside it begins and ends, then of where it does itself. */
  readonly ends: Float64Array
  /** Those that are not both straight. */
  private readonly arcs: ([written: Piece, beside: Piece] | undefined)[]
  /** The least and the greatest place of each path beside that is held against an arc. */
  private readonly boxes: Float64Array
  private done = 0
  /** Where the next one goes in the ring, which has room for it beside all that it is held against. */
  private next = 0

  constructor(most: number) {
    this.most = most
    this.ends = new Float64Array(NUMBERS * (most + 1))
    this.boxes = new Float64Array(4 * (most + 1))
    this.arcs = Array.from({ length: most + 1 })
  }

  clear(): void {
    this.done = 0
  }

  /**
   * Whether a path crosses one of the last that it did not cross as it is written. `round` is the radius where it was led round a corner from
   * the one before it, which it then must not cross either; 0 where both meet.
   */
  cross(written: Piece, beside: Piece, round = 0): boolean {
    const { from, to } = written
    const { from: start, to: end, centre, radii } = beside
    const closes = round > 0 && this.done > 0 && this.closes(this.slot(1), written, beside, round)
    if (written.sweep === 0 && beside.sweep === 0) {
      const { ends } = this
      const at = this.place
      ends[at] = start.x
      ends[at + 1] = start.y
      ends[at + 2] = end.x
      ends[at + 3] = end.y
      ends[at + 4] = from.x
      ends[at + 5] = from.y
      ends[at + 6] = to.x
      ends[at + 7] = to.y
      return this.crossLine() || closes
    }
    if (beside.sweep === 0) this.box(this.next, start.x, start.y, end.x, end.y)
    else {
      const reach = Math.max(radii[0], radii[1])
      this.box(this.next, centre.x - reach, centre.y - reach, centre.x + reach, centre.y + reach)
    }
    let narrow = closes
    for (let back = 2; back <= this.most && back <= this.done && !narrow; back++) {
      const at = this.slot(back)
      if (!this.arcs[at]) this.boxOfLine(at)
      narrow = this.isNear(at) && this.crossesAt(at, written, beside)
    }
    this.arcs[this.next] = [written, beside]
    this.goOn()
    return narrow
  }

  /** Where in `ends` the numbers of the next piece go. */
  get place(): number {
    return NUMBERS * this.next
  }

  /** The same of a straight move and the straight path beside it, whose numbers stand in `ends` at `place`. */
  crossLine(): boolean {
    const { ends, arcs, most, done, next } = this
    const own = NUMBERS * next
    let narrow = false
    // The one just before it meets it at their corner.
    for (let back = 2; back <= most && back <= done && !narrow; back++) {
      const at = this.slot(back)
      const base = NUMBERS * at
      if (arcs[at]) narrow = this.crossesAt(at, this.lineAt(own + 4), this.lineAt(own))
      else narrow = linesCross(ends, base, own) && !linesCross(ends, base + 4, own + 4)
    }
    if (arcs[next]) arcs[next] = undefined
    this.goOn()
    return narrow
  }

  /** The place in the ring of the one so many before the next. */
  private slot(back: number): number {
    const at = this.next - back
    return at < 0 ? at + this.most + 1 : at
  }

  private goOn(): void {
    this.done++
    this.next = this.next === this.most ? 0 : this.next + 1
  }

  /** Lines among lines are held against each other without boxes: theirs are made when an arc comes. */
  private boxOfLine(at: number): void {
    const { from, to } = this.lineAt(NUMBERS * at)
    this.box(at, from.x, from.y, to.x, to.y)
  }

  /** The box between two of its corners. */
  private box(at: number, ax: number, ay: number, bx: number, by: number): void {
    const { boxes } = this
    const base = 4 * at
    boxes[base] = Math.min(ax, bx)
    boxes[base + 1] = Math.min(ay, by)
    boxes[base + 2] = Math.max(ax, bx)
    boxes[base + 3] = Math.max(ay, by)
  }

  /** Whether the box of one meets that of the next. */
  private isNear(at: number): boolean {
    const { boxes } = this
    const a = 4 * at
    const b = 4 * this.next
    return (
      (boxes[a] as number) <= (boxes[b + 2] as number) &&
      (boxes[a + 1] as number) <= (boxes[b + 3] as number) &&
      (boxes[a + 2] as number) >= (boxes[b] as number) &&
      (boxes[a + 3] as number) >= (boxes[b + 1] as number)
    )
  }

  /** What stands at a place of the ring: as it is written, and beside it. */
  private piecesAt(at: number): [written: Piece, beside: Piece] {
    const base = NUMBERS * at
    return this.arcs[at] ?? [this.lineAt(base + 4), this.lineAt(base)]
  }

  private crossesAt(at: number, written: Piece, beside: Piece): boolean {
    const [wrote, went] = this.piecesAt(at)
    return crosses(went, beside) && !crosses(wrote, written)
  }

  /** Whether both sides of a corner that was led round come together again, but for where they do as they are written, well away from it. */
  private closes(at: number, written: Piece, beside: Piece, round: number): boolean {
    const [wrote, went] = this.piecesAt(at)
    if (!crosses(went, beside)) return false
    const away = (2 * round) / Math.min(pieceLength(wrote), pieceLength(written))
    return !crosses(wrote, written, Math.min(away, 0.5))
  }

  private lineAt(at: number): Piece {
    const { ends } = this
    const [from, to] = [
      { x: ends[at] as number, y: ends[at + 1] as number },
      { x: ends[at + 2] as number, y: ends[at + 3] as number },
    ]
    return straight(from, to)
  }
}

import type { Box, Triple } from './body.ts'
import type { Place } from './sweep.ts'
import type { BlockPart, RoundPart } from './tool-parts.ts'

/** Cells along the longer side of the part. */
const CELLS = 192
/** Depths that differ by less are the same, as a share of a cell. */
const SAME = 0.02

/**
 * What is left of a part on a mill while it is cut: the height of the material over a grid. A rapid through the place
 * where the part was is no crash once it has been cut away. Coarse: it is only asked where the exact sweep has already
 * met the part's box, and walls cut along a cell count as cut.
 */
export class MilledStock {
  private readonly cell: number
  private readonly nu: number
  private readonly nv: number
  private readonly u0: number
  private readonly v0: number
  private readonly top: number
  private readonly height: Float32Array

  constructor({ least, greatest }: Box) {
    this.u0 = least[0]
    this.v0 = least[1]
    const [spanU, spanV] = [greatest[0] - this.u0, greatest[1] - this.v0]
    this.cell = Math.max(spanU, spanV) / CELLS
    this.nu = Math.max(1, Math.ceil(spanU / this.cell))
    this.nv = Math.max(1, Math.ceil(spanV / this.cell))
    this.top = greatest[2]
    this.height = new Float32Array(this.nu * this.nv).fill(this.top)
  }

  /** The cells that lie between two places along U and V, as bounds. */
  private range(u0: number, u1: number, v0: number, v1: number): [number, number, number, number] {
    const clamp = (of: number, most: number) => Math.max(0, Math.min(most, of))
    return [
      clamp(Math.floor((u0 - this.u0) / this.cell), this.nu),
      clamp(Math.ceil((u1 - this.u0) / this.cell), this.nu),
      clamp(Math.floor((v0 - this.v0) / this.cell), this.nv),
      clamp(Math.ceil((v1 - this.v0) / this.cell), this.nv),
    ]
  }

  private steps(from: Place, to: Place, radius: number): number {
    const across = Math.max(
      Math.hypot(to.least[0] - from.least[0], to.least[1] - from.least[1]),
      Math.hypot(to.greatest[0] - from.greatest[0], to.greatest[1] - from.greatest[1]),
    )
    return Math.min(
      4_000,
      Math.max(1, Math.ceil(across / Math.max(this.cell / 2, Math.min(radius / 4, this.cell)))),
    )
  }

  private each(
    from: Place,
    to: Place,
    radius: number,
    visit: (cell: number, height: number, inside: boolean) => boolean,
  ): number {
    const steps = this.steps(from, to, radius)
    for (let n = 0; n <= steps; n++) {
      const share = n / steps
      const u0 = from.least[0] + (to.least[0] - from.least[0]) * share
      const u1 = from.greatest[0] + (to.greatest[0] - from.greatest[0]) * share
      const v0 = from.least[1] + (to.least[1] - from.least[1]) * share
      const v1 = from.greatest[1] + (to.greatest[1] - from.greatest[1]) * share
      const height = from.least[2] + (to.least[2] - from.least[2]) * share
      const [i0, i1, j0, j1] = this.range(u0 - radius, u1 + radius, v0 - radius, v1 + radius)
      for (let j = j0; j < j1; j++)
        for (let i = i0; i < i1; i++) {
          const u = this.u0 + (i + 0.5) * this.cell
          const v = this.v0 + (j + 0.5) * this.cell
          const du = u < u0 ? u0 - u : u > u1 ? u - u1 : 0
          const dv = v < v0 ? v0 - v : v > v1 ? v - v1 : 0
          const square = du * du + dv * dv
          const inside = square < radius * radius
          // A cell that the tool only grazes is looked at too, but not cut.
          if (!inside && square > (radius + this.cell * 0.7) ** 2) continue
          if (visit(j * this.nu + i, height, inside)) return share
        }
    }
    return Number.POSITIVE_INFINITY
  }

  /** Takes away what a cutter sweeps: two discs and the band between them, row by row, every cell in it once. */
  cut([x0, y0, z0]: Triple, [x1, y1, z1]: Triple, { radius }: Pick<RoundPart, 'radius'>): void {
    const { cell, nu, nv } = this
    // What is only touched is not cut.
    const r = radius - 1e-9 * cell
    if (r <= 0) return
    const [dx, dy, dz] = [x1 - x0, y1 - y0, z1 - z0]
    const square = dx * dx + dy * dy
    const length = Math.sqrt(square)
    const first = Math.max(0, Math.ceil((Math.min(y0, y1) - r - this.v0) / cell - 0.5))
    const last = Math.min(nv - 1, Math.floor((Math.max(y0, y1) + r - this.v0) / cell - 0.5))
    for (let j = first; j <= last; j++) {
      const y = this.v0 + (j + 0.5) * cell
      let low = Number.POSITIVE_INFINITY
      let high = Number.NEGATIVE_INFINITY
      const ends = [x0, y0, x1, y1]
      for (let n = 0; n < 4; n += 2) {
        const off = y - (ends[n + 1] as number)
        if (Math.abs(off) > r) continue
        const half = Math.sqrt(r * r - off * off)
        low = Math.min(low, (ends[n] as number) - half)
        high = Math.max(high, (ends[n] as number) + half)
      }
      if (length > 0) {
        // The band: within r of the line, and beside the piece of it that is run through.
        const off = y - y0
        let [a, b] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY]
        if (dy !== 0) {
          const [p, q] = [(off * dx - r * length) / dy, (off * dx + r * length) / dy]
          a = Math.min(p, q)
          b = Math.max(p, q)
        } else if (Math.abs(off) > r) b = Number.NEGATIVE_INFINITY
        if (dx !== 0) {
          const [p, q] = [(-off * dy) / dx, (square - off * dy) / dx]
          a = Math.max(a, Math.min(p, q))
          b = Math.min(b, Math.max(p, q))
        } else if (off * dy < 0 || off * dy > square) b = Number.NEGATIVE_INFINITY
        if (a <= b) {
          low = Math.min(low, x0 + a)
          high = Math.max(high, x0 + b)
        }
      }
      const begin = Math.max(0, Math.ceil((low - this.u0) / cell - 0.5))
      const end = Math.min(nu - 1, Math.floor((high - this.u0) / cell - 0.5))
      for (let i = begin; i <= end; i++) {
        let height = z0
        if (dz !== 0) {
          // The tool stands over the cell from one share of the way to another: the lower end counts.
          const [cx, cy] = [x0 - this.u0 - (i + 0.5) * cell, y0 - y]
          const half = cx * dx + cy * dy
          const root =
            square > 0 ? Math.sqrt(Math.max(0, half * half - square * (cx * cx + cy * cy - r * r))) : 0
          const share = square > 0 ? (-half + (dz < 0 ? root : -root)) / square : dz < 0 ? 1 : 0
          height = z0 + dz * Math.max(0, Math.min(1, share))
        }
        const at = j * nu + i
        if (height < (this.height[at] as number)) this.height[at] = height
      }
    }
  }

  /**
   * When a piece of a tool that moves in a straight line first meets what is left: a share of the move, or Infinity. Of
   * a tip that is only known to be in a box, the whole box is looked at.
   */
  meets(from: Place, to: Place, { radius, from: above }: Pick<RoundPart, 'radius' | 'from'>): number {
    const slack = this.cell * SAME
    let met = 0
    const share = this.each(from, to, radius, (cell, height, inside) => {
      const left = this.height[cell] as number
      if (height + above >= left - slack) return false
      met = left
      // Beside something that was cut, a grazed cell is the wall that was left; only untouched ground counts there.
      return inside || (left === this.top && this.untouched(cell))
    })
    // Coming down it meets the ground between two looks: where it is as low as that.
    const down = to.least[2] - from.least[2]
    if (share === Number.POSITIVE_INFINITY || share === 0 || down >= 0) return share
    const at = (met - above - from.least[2]) / down
    return at > share - 1 / this.steps(from, to, radius) && at < share ? at : share
  }

  /** The same for what is square: it is looked at as a cylinder of a cell's width at every place that it covers. */
  meetsBlock(from: Place, to: Place, { x, y, from: above }: BlockPart): number {
    const covered = ({ least, greatest }: Place): Place => ({
      least: [least[0] + x[0], least[1] + y[0], least[2]],
      greatest: [greatest[0] + x[1], greatest[1] + y[1], greatest[2]],
    })
    return this.meets(covered(from), covered(to), { radius: this.cell, from: above })
  }

  private untouched(cell: number): boolean {
    const [i, j] = [cell % this.nu, Math.floor(cell / this.nu)]
    for (let y = Math.max(0, j - 1); y <= Math.min(this.nv - 1, j + 1); y++)
      for (let x = Math.max(0, i - 1); x <= Math.min(this.nu - 1, i + 1); x++)
        if (this.height[y * this.nu + x] !== this.top) return false
    return true
  }
}

import type { PathPicture } from '@dogleg/core/prove'
import { BufferAttribute, BufferGeometry, LineBasicMaterial, LineSegments, WebGLRenderer } from 'three'
import { cameraOf } from './cameras.ts'
import { cutLots, type Lot, stepLots, wholeLots } from './lots.ts'
import type { Eye, Size } from './view-frame.ts'

/** The ground of every drawing, as in the page's style: the lines stand on it, bodies and tool over them. */
const GROUND = '#1b3d8f'

/** Nothing shines through, so that a step can be painted over what stands. */
const COLOURS = {
  rapid: { done: '#84a2e8', toCome: '#587bcb' },
  feed: { done: '#eef4ff', toCome: '#6c88cc' },
  written: { done: '#d9a441', toCome: '#d9a441' },
} as const

/** Pieces painted at once: as many as the graphics card does in a part of a frame, found out as it goes. */
const FIRST_BUDGET = 20_000
const LEAST_BUDGET = 4_000
const QUICK_MS = 6
const SLOW_MS = 16
/** A path of no more pieces is painted whole at each step. */
const SMALL = 1_000
/** After steps back in a larger one, it is painted anew: what is done stands over what is to come again. */
const SETTLE_MS = 200

/** A picture as the graphics card takes it; shared by all the views. */
export interface PathGeometry {
  picture: PathPicture
  rapid: BufferGeometry
  feed: BufferGeometry
  /** Empty where nothing is led beside it. */
  written: BufferGeometry
}

export function geometryOf(picture: PathPicture): PathGeometry {
  const of = (points: Float32Array) =>
    new BufferGeometry().setAttribute('position', new BufferAttribute(points, 3))
  return {
    picture,
    rapid: of(picture.rapid),
    feed: of(picture.feed),
    written: of(picture.written ?? new Float32Array(0)),
  }
}

/** How far the part is turned once the rows before this one have run, in radians. */
const turnedAt = ({ turned }: PathPicture, row: number) => (row > 0 ? (turned?.[row - 1] ?? 0) : 0)

const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

/**
 * One view of the path, in a canvas that is not the page's to paint. A large path is painted in pieces, each waited
 * for, so that the graphics card has time for the page between them; a step paints only what it changes.
 */
export class PathPainter {
  private readonly renderer: WebGLRenderer
  private readonly line = new LineSegments()
  private readonly material = new LineBasicMaterial({ depthTest: false })
  private geometry: PathGeometry | undefined
  private seen: { eye: Eye; size: Size; ratio: number } | undefined
  private row = 0
  private lots: Lot[] = []
  private fresh = true
  private budget = FIRST_BUDGET
  private painting: Promise<void> | undefined
  private settle: ReturnType<typeof setTimeout> | undefined
  private ended = false

  /** Throws where there is no graphics card, nor anything that does its work. */
  constructor(canvas: OffscreenCanvas) {
    this.renderer = new WebGLRenderer({
      canvas,
      antialias: true,
      depth: false,
      preserveDrawingBuffer: true,
    })
    this.renderer.autoClear = false
    this.renderer.setClearColor(GROUND)
    this.line.frustumCulled = false
    this.line.material = this.material
    canvas.addEventListener('webglcontextrestored', () => this.whole())
  }

  show(geometry: PathGeometry | undefined, row: number): void {
    this.geometry = geometry
    this.row = row
    this.whole()
  }

  look(eye: Eye, size: Size, ratio: number): void {
    this.seen = { eye, size, ratio }
    this.whole()
  }

  /** Goes to a row. */
  at(row: number): void {
    const before = this.row
    this.row = row
    if (!this.geometry || row === before) return
    const { picture } = this.geometry
    const pieces = (picture.rapid.length + picture.feed.length) / 6
    // A part that has turned takes the whole path with it.
    if (pieces <= SMALL || turnedAt(picture, before) !== turnedAt(picture, row)) {
      this.whole()
      return
    }
    this.lots.push(...stepLots(picture, before, row))
    if (row < before) {
      clearTimeout(this.settle)
      this.settle = setTimeout(() => this.whole(), SETTLE_MS)
    }
    this.paint()
  }

  /** Ends when everything that was asked for stands on screen. */
  async idle(): Promise<void> {
    while (this.painting) await this.painting
  }

  end(): void {
    this.ended = true
    clearTimeout(this.settle)
    this.material.dispose()
    this.renderer.dispose()
    this.renderer.forceContextLoss()
  }

  private whole(): void {
    clearTimeout(this.settle)
    this.fresh = true
    this.lots = this.geometry ? wholeLots(this.geometry.picture, this.row) : []
    this.paint()
  }

  private paint(): void {
    this.painting ??= this.paintAll().finally(() => {
      this.painting = undefined
    })
  }

  private async paintAll(): Promise<void> {
    // What is asked for in the same turn is painted at once.
    await Promise.resolve()
    while (!this.ended && this.seen && (this.fresh || this.lots.length > 0)) {
      const began = performance.now()
      const first = this.fresh
      const { now, rest } = cutLots(this.lots, this.budget)
      this.lots = rest
      this.paintLots(now, this.seen)
      await this.finished()
      const took = performance.now() - began
      // The first pieces of a picture carry the whole of it to the graphics card: they say nothing of the others.
      if (first || rest.length === 0) continue
      if (took > SLOW_MS) this.budget = Math.max(LEAST_BUDGET, this.budget / 2)
      else if (took < QUICK_MS) this.budget *= 2
    }
  }

  private paintLots(lots: readonly Lot[], { eye, size, ratio }: NonNullable<PathPainter['seen']>): void {
    const camera = cameraOf(eye, size)
    this.turnLine()
    if (this.fresh) {
      this.renderer.setPixelRatio(ratio)
      this.renderer.setSize(size.width, size.height, false)
      this.renderer.clear()
      this.fresh = false
    }
    for (const { of, done, from, to } of lots) {
      const geometry = this.geometry?.[of]
      if (!geometry) continue
      geometry.setDrawRange(2 * from, 2 * (to - from))
      this.material.color.set(COLOURS[of][done ? 'done' : 'toCome'])
      this.line.geometry = geometry
      this.renderer.render(this.line, camera)
    }
  }

  /** Turns the path as the part stands, about the part's axis. */
  private turnLine(): void {
    const picture = this.geometry?.picture
    const turned = picture ? turnedAt(picture, this.row) : 0
    const { y = 0, z = 0 } = picture?.axis ?? {}
    const [cos, sin] = [Math.cos(turned), Math.sin(turned)]
    this.line.rotation.x = turned
    this.line.position.set(0, y - y * cos + z * sin, z - y * sin - z * cos)
    this.line.updateMatrixWorld()
  }

  /** Waits until the graphics card has done what it was given. */
  private async finished(): Promise<void> {
    const gl = this.renderer.getContext()
    if (!(gl instanceof WebGL2RenderingContext)) return
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0)
    gl.flush()
    if (!fence) return
    while (!this.ended && gl.clientWaitSync(fence, 0, 0) === gl.TIMEOUT_EXPIRED) await sleep(1)
    gl.deleteSync(fence)
  }
}

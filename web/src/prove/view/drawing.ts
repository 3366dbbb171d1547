import type { PathPicture } from '@dogleg/core/prove'
import { type Remote, transfer, wrap } from 'comlink'
import { type Ended, howItEnded, untilItEnds } from '../../ui/worker-ended.tsx'
import type { Drawer } from './draw-worker.ts'
import type { Eye, Size } from './view-frame.ts'

/** A canvas that the path is drawn in. */
export interface DrawnView {
  look(eye: Eye, size: Size): void
  detach(): void
}

/** The path as lines on the graphics card, drawn by a worker in as many canvases as the page has of it. */
export class Drawing {
  private open: { worker: Worker; drawer: Remote<Drawer>; failed: Promise<never> } | undefined
  private attached = 0
  private row = 0

  private get work() {
    if (!this.open) {
      const worker = new Worker(new URL('./draw-worker.ts', import.meta.url), { type: 'module' })
      const failed = untilItEnds(worker)
      // Whoever attaches a view hears of it.
      failed.catch(() => undefined)
      this.open = { worker, drawer: wrap<Drawer>(worker), failed }
    }
    return this.open
  }

  /** Draws in a canvas from now on; `onFailed` where nothing can be drawn here. */
  attach(canvas: HTMLCanvasElement, onFailed: (ended: Ended) => void): DrawnView {
    const id = ++this.attached
    const { drawer, failed } = this.work
    let good = true
    const refused = (error?: unknown) => {
      if (good) onFailed(howItEnded(error))
      good = false
    }
    try {
      const off = canvas.transferControlToOffscreen()
      Promise.race([drawer.attach(id, transfer(off, [off])), failed]).catch(refused)
    } catch {
      refused()
    }
    return {
      look: (eye, size) => {
        if (good) void drawer.look(id, eye, size, Math.min(2, window.devicePixelRatio)).catch(refused)
      },
      detach: () => {
        good = false
        void drawer.detach(id)
      },
    }
  }

  /** Another picture, which is handed over, or none; ends when it stands in every view. */
  async show(picture: PathPicture | undefined): Promise<void> {
    if (!picture) {
      await this.open?.drawer.show(undefined, 0)
      return
    }
    const memory = Object.values(picture).flatMap((part) =>
      ArrayBuffer.isView(part) ? [part.buffer as ArrayBuffer] : [],
    )
    await this.work.drawer.show(transfer(picture, memory), this.row)
  }

  /** What comes before a row is done, the rest is to come. */
  at(row: number): void {
    if (row === this.row) return
    this.row = row
    void this.open?.drawer.at(row)
  }

  end(): void {
    this.open?.worker.terminate()
    this.open = undefined
  }
}

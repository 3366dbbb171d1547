import type { PathPicture } from '@dogleg/core/prove'
import { expose } from 'comlink'
import { geometryOf, type PathGeometry, PathPainter } from './path-painter.ts'
import type { Eye, Size } from './view-frame.ts'

// Paths are painted here, so that the page does not wait for the graphics card.
const views = new Map<number, PathPainter>()
let geometry: PathGeometry | undefined
let row = 0

const drawer = {
  attach(id: number, canvas: OffscreenCanvas): void {
    const view = new PathPainter(canvas)
    view.show(geometry, row)
    views.set(id, view)
  },
  detach(id: number): void {
    views.get(id)?.end()
    views.delete(id)
  },
  look(id: number, eye: Eye, size: Size, ratio: number): void {
    views.get(id)?.look(eye, size, ratio)
  },
  /** Another picture, or none; ends when it stands in every view. */
  async show(picture: PathPicture | undefined, at: number): Promise<void> {
    const before = geometry
    geometry = picture && geometryOf(picture)
    row = at
    for (const view of views.values()) view.show(geometry, row)
    before?.rapid.dispose()
    before?.feed.dispose()
    before?.written.dispose()
    await Promise.all([...views.values()].map((view) => view.idle()))
  },
  at(next: number): void {
    row = next
    for (const view of views.values()) view.at(row)
  },
}
export type Drawer = typeof drawer

expose(drawer)

import { useEffect, useRef, useState } from 'react'
import type { Ended } from '../../ui/worker-ended.tsx'
import type { Drawing, DrawnView } from './drawing.ts'
import type { Eye, Size } from './view-frame.ts'

/** The path, drawn by the worker; `eye` says from where. */
export function PathCanvas({ drawing, eye, size }: { drawing: Drawing; eye: Eye; size: Size }) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<DrawnView>(undefined)
  const [failed, setFailed] = useState<Ended>()
  useEffect(() => {
    // A canvas can be handed over once only: each time it is a new one.
    const canvas = document.createElement('canvas')
    canvas.className = 'block size-full'
    host.current?.append(canvas)
    const attached = drawing.attach(canvas, setFailed)
    view.current = attached
    return () => {
      attached.detach()
      canvas.remove()
    }
  }, [drawing])
  useEffect(() => view.current?.look(eye, size), [eye, size])
  return (
    <>
      <div ref={host} className="absolute inset-0" aria-hidden />
      {failed && (
        <p className="absolute inset-x-0 top-12 z-10 bg-layout p-2 text-sm text-scribe">
          {failed === 'not-here'
            ? 'The path is not drawn: that part of Dogleg is not on this tablet yet.'
            : 'This browser draws no lines on the graphics card: the path is not shown, the next move is.'}
        </p>
      )}
    </>
  )
}

import type { PointerEvent, RefObject } from 'react'
import { useState } from 'react'
import type { Frame } from './frame.ts'

/** Where a pointer is, in the coordinates of the drawing. */
function inDrawing(svg: SVGSVGElement, { clientX, clientY }: PointerEvent) {
  const point = new DOMPoint(clientX, clientY).matrixTransform(svg.getScreenCTM()?.inverse())
  return { x: point.x, y: point.y }
}

/**
 * Dragging along the axis of a drawing. The frame is held still while something is dragged, so that the picture does
 * not run away under the finger. `onMove` gets the length along the axis, snapped to `snap`.
 */
export function useDrag<Name extends string>(
  svg: RefObject<SVGSVGElement | null>,
  frame: Frame,
  snap: number,
  onMove: (name: Name, at: number) => void,
) {
  const [held, setHeld] = useState<{ name: Name; frame: Frame }>()
  const handlers = (name: Name) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.preventDefault()
      event.currentTarget.setPointerCapture(event.pointerId)
      setHeld({ name, frame })
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      if (held?.name !== name || !svg.current) return
      const { x, y } = inDrawing(svg.current, event)
      const at = held.frame.lengthAt(held.frame.upright ? y : x)
      onMove(name, Math.round(at / snap) * snap)
    },
    onPointerUp: () => setHeld(undefined),
    onPointerCancel: () => setHeld(undefined),
  })
  return { frame: held?.frame ?? frame, handlers }
}

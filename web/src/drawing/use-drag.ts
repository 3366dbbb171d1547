import { fixedDigits, type LengthUnit } from '@dogleg/core/quantity'
import type { PointerEvent, RefObject } from 'react'
import { useState } from 'react'
import type { Frame } from './frame.ts'

/** What a place that is dragged snaps to: sixteenths of an inch, whole mm. */
const SNAP: Record<LengthUnit, number> = { inch: 1 / 16, mm: 1 }

/** A place that was dragged, as it is typed into its field. */
export const draggedText = (at: number, unit: LengthUnit) => fixedDigits(at, unit === 'inch' ? 4 : 0)

/** Where a pointer is, in the coordinates of the drawing. */
function inDrawing(svg: SVGSVGElement, { clientX, clientY }: PointerEvent) {
  const point = new DOMPoint(clientX, clientY).matrixTransform(svg.getScreenCTM()?.inverse())
  return { x: point.x, y: point.y }
}

/**
 * Dragging along the axis of a drawing. The frame is held still while something is dragged, so that the picture does
 * not run away under the finger. `onMove` gets the length along the axis, in the drawing's unit, snapped.
 */
export function useDrag<Name extends string>(
  svg: RefObject<SVGSVGElement | null>,
  frame: Frame,
  unit: LengthUnit,
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
      onMove(name, Math.round(at / SNAP[unit]) * SNAP[unit])
    },
    onPointerUp: () => setHeld(undefined),
    onPointerCancel: () => setHeld(undefined),
  })
  return { frame: held?.frame ?? frame, handlers }
}

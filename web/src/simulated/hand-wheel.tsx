import { type PointerEvent, useEffect, useRef, useState } from 'react'

/** Degrees of the wheel from click to click: a finger can stop on one. */
const CLICK_DEGREES = 12
const MARKS = Array.from({ length: 360 / CLICK_DEGREES }, (_, n) => n * CLICK_DEGREES)
/** How far a page is scrolled by one notch of a mouse's wheel, at least, in px. */
const NOTCH_PX = 50
const SIZE = 92
const MIDDLE = SIZE / 2

/** The angle of a pointer about the middle of the wheel, clockwise in degrees. */
function angleAt(event: PointerEvent<SVGSVGElement>): number {
  const { left, top, width, height } = event.currentTarget.getBoundingClientRect()
  return (Math.atan2(event.clientY - top - height / 2, event.clientX - left - width / 2) * 180) / Math.PI
}

/** The turn from one angle to another, the short way. */
const between = (from: number, to: number) => ((to - from + 540) % 360) - 180

/**
 * The handwheel itself: turned by dragging it round, clockwise plus, or by scrolling over it, up plus. The keys beside it do the same
 * for the keyboard.
 */
export function HandWheel({ onClicks }: { onClicks: (clicks: number) => void }) {
  const svg = useRef<SVGSVGElement>(null)
  const [turned, setTurned] = useState(0)
  const held = useRef<{ at: number; over: number }>(undefined)
  const turn = (clicks: number) => {
    if (clicks === 0) return
    setTurned((before) => before + clicks * CLICK_DEGREES)
    onClicks(clicks)
  }
  const latest = useRef(turn)
  latest.current = turn
  useEffect(() => {
    const element = svg.current
    let over = 0
    // The page does not scroll under the wheel, which only a listener that is not passive can say.
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      over -= event.deltaY
      const clicks = Math.trunc(over / NOTCH_PX)
      if (clicks === 0) return
      over = 0
      // However far a notch scrolls on this PC, it is one click.
      latest.current(Math.sign(clicks))
    }
    element?.addEventListener('wheel', onWheel, { passive: false })
    return () => element?.removeEventListener('wheel', onWheel)
  }, [])
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      width={SIZE}
      height={SIZE}
      aria-hidden
      data-testid="hand-wheel"
      className="shrink-0 cursor-grab touch-none active:cursor-grabbing"
      onPointerDown={(event) => {
        event.preventDefault()
        event.currentTarget.setPointerCapture?.(event.pointerId)
        held.current = { at: angleAt(event), over: 0 }
      }}
      onPointerMove={(event) => {
        const from = held.current
        if (!from) return
        const at = angleAt(event)
        const over = from.over + between(from.at, at)
        const clicks = Math.trunc(over / CLICK_DEGREES)
        held.current = { at, over: over - clicks * CLICK_DEGREES }
        turn(clicks)
      }}
      onPointerUp={() => {
        held.current = undefined
      }}
      onPointerCancel={() => {
        held.current = undefined
      }}
    >
      <circle
        cx={MIDDLE}
        cy={MIDDLE}
        r={MIDDLE - 2}
        fill="var(--color-stock-shade)"
        stroke="var(--color-ink)"
        strokeWidth={2}
      />
      <g transform={`rotate(${turned} ${MIDDLE} ${MIDDLE})`}>
        {MARKS.map((degrees) => (
          <line
            key={degrees}
            x1={MIDDLE}
            x2={MIDDLE}
            y1={4}
            y2={degrees % 60 === 0 ? 12 : 8}
            stroke="var(--color-ink)"
            strokeWidth={1.5}
            transform={`rotate(${degrees} ${MIDDLE} ${MIDDLE})`}
          />
        ))}
        <circle cx={MIDDLE} cy={25} r={9} fill="var(--color-ink)" />
      </g>
    </svg>
  )
}

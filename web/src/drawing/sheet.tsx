import { type ReactNode, type RefObject, useRef } from 'react'
import { useExample } from './example.ts'
import { readable, useReadable } from './readable.ts'

interface SheetProps {
  /** What the drawing shows, for who cannot see it. */
  label: string
  width: number
  height: number
  /** How tall it may grow on the page, as a class. */
  tallest?: string
  /** Given where something can be dragged: the page then does not scroll under the finger. */
  ref?: RefObject<SVGSVGElement | null>
  children: ReactNode
}

/** A drawing on layout blue: 'this is the part'. */
export function CycleSheet({ label, width, height, tallest = '', ref, children }: SheetProps) {
  const example = useExample()
  const own = useRef<SVGSVGElement>(null)
  const svg = ref ?? own
  useReadable(svg, width, height)
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={example ? `An example: ${example}` : label}
      className={`on-layout w-full rounded-sm bg-layout ${tallest && 'h-full'} ${tallest} ${ref ? 'touch-none' : ''}`}
    >
      {children}
      {example && (
        <text
          x={width - 14}
          y={height - 14}
          textAnchor="end"
          style={{ fontSize: readable(17) }}
          fontWeight={600}
          fill="var(--color-brass)"
          stroke="var(--color-layout)"
          strokeWidth={5}
          strokeLinejoin="round"
          paintOrder="stroke"
        >
          An example: {example}
        </text>
      )}
    </svg>
  )
}

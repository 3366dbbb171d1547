import type { FieldName, Sketch } from '@dogleg/core/pickup'
import type { LengthUnit } from '@dogleg/core/quantity'
import type { ReactNode } from 'react'
import { box, type Frame } from '../../drawing/frame.ts'
import { Dimension } from '../../drawing/marks.tsx'

/** How the mark of a field stands. */
interface FieldMark {
  lit: boolean
  known: boolean
}

/** What every drawing of a pickup is made from. */
export interface PartProps {
  sketch: Sketch
  frame: Frame
  unit: LengthUnit
  mark: (field: FieldName) => FieldMark
  onPick: (field: FieldName) => void
  /** The number as it is written in the drawing; a question mark while it is not known. */
  number: (field: FieldName, value: number) => string
  /** A length that follows from the others. */
  length: (value: number) => string
  /** What a field holds, as it is understood; a question mark while it is not known. */
  typed: (field: FieldName) => string
}

/** A group that belongs to a field: pressing it brings the field. */
export function Of({
  field,
  onPick,
  children,
}: {
  field: FieldName
  onPick: PartProps['onPick']
  children: ReactNode
}) {
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a shortcut to a field that the keyboard reaches by itself
    <g
      // The press itself would take the focus away again.
      onMouseDown={(event) => {
        event.preventDefault()
        onPick(field)
      }}
      className="cursor-pointer"
    >
      {children}
    </g>
  )
}

/** The part along the axis: one body or several. */
export function Bodies({
  sketch,
  frame,
  v1,
  v2,
}: Pick<PartProps, 'sketch' | 'frame'> & { v1: number; v2: number }) {
  return sketch.bodies.map(({ from, to }) => (
    <Body key={from} frame={frame} from={from} to={to} v1={v1} v2={v2} />
  ))
}

/** A solid body, seen along the axis. */
export function Body({
  frame,
  from,
  to,
  v1,
  v2,
}: {
  frame: Frame
  from: number
  to: number
  v1: number
  v2: number
}) {
  return (
    <rect
      {...box(frame, from, to, v1, v2)}
      fill="var(--color-scribe)"
      fillOpacity={0.13}
      stroke="var(--color-scribe)"
      strokeWidth={2}
    />
  )
}

/** The feature's place on the drawing, where it is not part zero itself. */
export function DrawingPosition({
  sketch,
  frame,
  mark,
  number,
  onPick,
  v,
  base,
  aside = 0,
}: PartProps & { v: number; base: number; aside?: number }) {
  if (sketch.feature === sketch.zero) return null
  return (
    <Of field="drawingPosition" onPick={onPick}>
      <Dimension
        frame={frame}
        from={sketch.zero}
        to={sketch.feature}
        v={v}
        base={base}
        name="drawing"
        aside={aside}
        label={number('drawingPosition', sketch.feature - sketch.zero)}
        {...mark('drawingPosition')}
      />
    </Of>
  )
}

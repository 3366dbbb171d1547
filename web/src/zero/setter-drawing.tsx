import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { box, frame } from '../drawing/frame.ts'
import { Dimension, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 330
const HEIGHT = 470

interface SetterDrawingProps {
  unit: LengthUnit
  /** Machine Z of its top, where a tool of no length would trigger it. */
  height: number | undefined
  /** Machine Z of the spindle with the tool on it. */
  at: number | undefined
  name: string
  /** Of that tool. */
  length: number | undefined
}

/** A tool on the setter: the spindle stands as much higher than the setter as the tool is long. */
export function SetterDrawing({ unit, height, at, name, length }: SetterDrawingProps) {
  const inch = unit === 'inch' ? 1 : 25
  const top = height ?? (at === undefined ? -16 * inch : at - (length ?? 4 * inch))
  const nose = at ?? top + 4 * inch
  const span = Math.max(Math.abs(nose - top), inch)
  const up = frame(Math.min(top, nose) - 0.3 * span, Math.max(top, nose) + 0.1 * span, {
    upright: true,
    from: HEIGHT - 50,
    to: 60,
    middle: WIDTH / 2 - 30,
  })
  const number = (value: number | undefined) => (value === undefined ? '?' : formatLength(value, unit))
  const [setter, spindle] = [up.place(top, 0), up.place(nose, 0)]
  return (
    <CycleSheet label="A tool on the setter" width={WIDTH} height={HEIGHT} tallest="max-h-[30rem]">
      <rect
        {...box(up, top, top - 0.3 * span, -44, 44)}
        fill="var(--color-brass)"
        fillOpacity={0.25}
        stroke="var(--color-brass)"
        strokeWidth={2}
      />
      <rect x={setter.x - 22} y={setter.y} width={44} height={8} fill="var(--color-brass)" />
      <rect
        {...box(up, top, nose, -9, 9)}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
        strokeDasharray={at === undefined ? '5 4' : undefined}
      />
      <path
        d={`M ${spindle.x - 30} ${spindle.y} h 60 l 8 -24 h -76 z`}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Words at={{ x: spindle.x, y: spindle.y - 32 }} ink="measured" bold>
        {number(at)}
      </Words>
      <Words at={{ x: setter.x + 56, y: setter.y + 26 }} anchor="start" ink="measured" bold>
        {number(height)}
      </Words>
      <Words at={{ x: setter.x, y: HEIGHT - 18 }} plain>
        the setter
      </Words>
      <Dimension
        frame={up}
        from={top}
        to={nose}
        v={64}
        base={12}
        ink="measured"
        name={name}
        label={number(length)}
        known={length !== undefined}
      />
    </CycleSheet>
  )
}

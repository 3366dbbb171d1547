import { type BarStopDraft, type BarStopField, barStopSketch } from '@dogleg/core/bar-stop'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { frame } from '../drawing/frame.ts'
import { Dimension, Head, Scribe, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 420
const MIDDLE = 178

interface BarStopDrawingProps {
  draft: BarStopDraft
  unit: LengthUnit
  /** Of the bar, where it is known. */
  diameter: number | undefined
  lit: BarStopField | undefined
}

/** The bar in its chuck from the side, the spindle on the left: how far it stands out, and where the stop comes to stand. */
export function BarStopDrawing({ draft, unit, diameter, lit }: BarStopDrawingProps) {
  const sketch = barStopSketch(draft, unit, diameter)
  const { chuck, end, clear, most, radius, values, known, push } = sketch
  const along = frame(sketch.least, sketch.greatest, {
    upright: false,
    from: 60,
    to: WIDTH - 70,
    middle: MIDDLE,
  })
  const at = (z: number, v = 0) => along.place(z, v)
  const high = Math.max(14, Math.min(60, radius * along.scale))
  const number = (field: BarStopField) => {
    const value = values[field]
    return value === undefined ? '?' : formatLength(value, unit)
  }
  const mark = (field: BarStopField) => ({ lit: lit === field, known: known.has(field) })
  const stop = at(end)
  const away = at(clear)
  return (
    <CycleSheet
      label="The bar in its chuck and the stop in front of it, from the side"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[27rem]"
    >
      <rect
        x={at(chuck).x - 58}
        y={MIDDLE - high - 42}
        width={58}
        height={2 * (high + 42)}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Words at={{ x: at(chuck).x - 29, y: MIDDLE - high - 52 }} plain>
        chuck
      </Words>
      <rect
        x={at(chuck).x - 58}
        y={MIDDLE - high}
        width={stop.x - at(chuck).x + 58}
        height={2 * high}
        fill="var(--color-scribe)"
        fillOpacity={0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <line
        x1={24}
        x2={WIDTH - 24}
        y1={MIDDLE}
        y2={MIDDLE}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="18 4 4 4"
      />
      <line
        x1={at(0).x}
        x2={at(0).x}
        y1={MIDDLE - high - 70}
        y2={MIDDLE + high + 20}
        stroke="var(--color-scribe)"
        strokeWidth={2}
        strokeDasharray="14 4 3 4"
      />
      <Words at={{ x: at(0).x, y: MIDDLE - high - 78 }} bold>
        Z0
      </Words>
      {most !== undefined && (
        <Words
          at={{ x: Math.min(at(chuck + most).x, WIDTH - 60), y: MIDDLE + high + 46 }}
          bold={lit === 'most'}
          plain
        >
          may stand out
        </Words>
      )}
      {most !== undefined && (
        <line
          x1={at(chuck + most).x}
          x2={at(chuck + most).x}
          y1={MIDDLE - high - 30}
          y2={MIDDLE + high + 30}
          stroke="var(--color-hazard)"
          strokeWidth={lit === 'most' ? 4 : 2}
          strokeDasharray="4 5"
          className="lights-up"
        />
      )}
      <rect
        x={stop.x}
        y={MIDDLE - 26}
        width={46}
        height={52}
        fill="var(--color-brass)"
        fillOpacity={lit === 'tool' || lit === 'x' ? 0.6 : 0.3}
        stroke="var(--color-brass)"
        strokeWidth={2}
        className="lights-up"
      />
      <Words at={{ x: stop.x + 23, y: MIDDLE + 5 }} ink="measured" bold>
        {known.has('tool') ? `T${draft.tool.replace(/\D/g, '')}` : '?'}
      </Words>
      <Scribe
        from={{ x: away.x + 46, y: MIDDLE - 46 }}
        to={{ x: stop.x + 46, y: MIDDLE - 46 }}
        ink="measured"
        lit={lit === 'feed' || lit === 'away'}
      />
      <Head
        at={{ x: stop.x + 46, y: MIDDLE - 46 }}
        dx={-1}
        dy={0}
        ink="measured"
        lit={lit === 'feed' || lit === 'away'}
      />
      <Words at={{ x: Math.min((away.x + stop.x) / 2 + 46, WIDTH - 90), y: MIDDLE - 56 }} ink="measured">
        {push ? 'pushes' : 'feeds'} {number('away')}
      </Words>
      <Dimension
        frame={along}
        from={chuck}
        to={end}
        v={high + 48}
        base={high}
        ink="measured"
        name="stands out"
        label={number('standsOut')}
        {...mark('standsOut')}
      />
      <Dimension
        frame={along}
        from={chuck}
        to={0}
        v={high + 104}
        base={high}
        name="chuck from part zero"
        label={number('chuck')}
        {...mark('chuck')}
      />
      <Words at={{ x: 14, y: HEIGHT - 12 }} anchor="start" plain>
        {push
          ? 'The pusher brings the bar back to there, and holds it'
          : 'The stop goes there; the bar is pulled against it'}
      </Words>
    </CycleSheet>
  )
}

import type { DecisionSketch } from '@dogleg/core/gauge'
import { frame } from '../drawing/frame.ts'
import { Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 700
const HEIGHT = 300

interface DecisionDrawingProps {
  sketch: DecisionSketch
  /** What happens within and beyond, in words. */
  says: { within: string; beyond: string }
  format: (value: number) => string
  name: string
  lit: string | undefined
}

/** A result on its scale: the tolerance, where nothing is done, where it is corrected, where it stops. */
export function DecisionDrawing({ sketch, says, format, name, lit }: DecisionDrawingProps) {
  const { least, greatest, lower, upper, middle, deadBand, limits } = sketch
  const along = frame(least, greatest, { upright: false, from: 20, to: WIDTH - 20, middle: 0 })
  const at = (value: number) => along.place(value, 0).x
  const band = (from: number, to: number, y: number, height: number, ink: string, opacity: number) => (
    <rect
      x={at(from)}
      width={Math.max(0, at(to) - at(from))}
      y={y}
      height={height}
      fill={ink}
      fillOpacity={opacity}
    />
  )
  const mark = (value: number, words: string, y: number, strong: boolean) => (
    <g>
      <line
        x1={at(value)}
        x2={at(value)}
        y1={92}
        y2={y - 34}
        stroke={strong ? 'var(--color-brass)' : 'var(--color-scribe)'}
        strokeWidth={strong ? 4 : 2}
      />
      <Words at={{ x: at(value), y: y + 2 }} row={-1} plain bold={strong}>
        {words}
      </Words>
      <Words at={{ x: at(value), y: y + 2 }} bold={strong}>
        {format(value)}
      </Words>
    </g>
  )
  const stops = limits ?? ([lower, upper] as const)
  return (
    <CycleSheet
      label={`${name}: ${format(lower)} to ${format(upper)}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-full"
    >
      {band(least, greatest, 92, 60, 'var(--color-layout-deep)', 0.9)}
      {band(stops[0], stops[1], 92, 60, 'var(--color-scribe)', 0.16)}
      {band(lower, upper, 122, 30, 'var(--color-scribe)', 0.4)}
      {deadBand &&
        band(deadBand[0], deadBand[1], 92, 30, 'var(--color-brass)', lit === 'deadBand' ? 0.9 : 0.45)}
      <Words at={{ x: at(middle), y: 50 }} plain bold={lit === 'deadBand' || lit === 'share'} size={17}>
        {says.within}
      </Words>
      <Words at={{ x: 24, y: 50 }} anchor="start" plain size={17}>
        {says.beyond}
      </Words>
      <Words at={{ x: WIDTH - 24, y: 50 }} anchor="end" plain size={17}>
        {says.beyond}
      </Words>
      {mark(lower, 'lower', 226, lit === 'tolerance')}
      {mark(upper, 'upper', 226, lit === 'tolerance')}
      {mark(middle, 'middle', 226, lit === 'nominal')}
      {limits && (
        <>
          {mark(limits[0], 'stops below', 284, lit === 'limit')}
          {mark(limits[1], 'stops above', 284, lit === 'limit')}
        </>
      )}
    </CycleSheet>
  )
}

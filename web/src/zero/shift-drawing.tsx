import type { WorkShiftDraft } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Head, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 460
const HEIGHT = 300
const AXIS = 190
const WAS = 240
/** How far the two faces are drawn apart: that they are, and which way, not by how much. */
const APART = 70

interface ShiftDrawingProps {
  unit: LengthUnit
  shift: number | undefined
  tool: string
  lit: keyof WorkShiftDraft | undefined
}

/** The face as the tools have it, dashed, and where it lies now, with the tool at it. */
export function ShiftDrawing({ unit, shift, tool, lit }: ShiftDrawingProps) {
  const way = shift === undefined ? 1 : Math.sign(shift)
  const face = WAS + way * APART
  const known = shift !== undefined
  const at = lit === 'machinePosition' || lit === 'tool'
  return (
    <CycleSheet
      label={
        known
          ? `The face lies ${formatLength(Math.abs(shift), unit)} ${shift < 0 ? 'nearer to' : 'further from'} the chuck than the tools have it`
          : 'The face where the tools have it, and where it lies now'
      }
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[20rem]"
    >
      <rect
        x={30}
        y={AXIS - 80}
        width={60}
        height={160}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe-dim)"
      />
      <rect
        x={90}
        y={AXIS - 46}
        width={face - 90}
        height={92}
        fill="var(--color-scribe)"
        fillOpacity={0.15}
        stroke="var(--color-scribe)"
        strokeWidth={lit === 'drawingPosition' ? 3.5 : 2}
      />
      <line
        x1={WAS}
        x2={WAS}
        y1={AXIS - 70}
        y2={AXIS + 84}
        stroke="var(--color-scribe-dim)"
        strokeWidth={1.5}
        strokeDasharray="6 4"
      />
      <line
        x1={30}
        x2={WIDTH - 20}
        y1={AXIS}
        y2={AXIS}
        stroke="var(--color-scribe-dim)"
        strokeDasharray="12 4 3 4"
      />
      <path
        d={`M ${face} ${AXIS - 40} l 14 -40 h 34 v 26 z`}
        fill="var(--color-brass)"
        fillOpacity={0.3}
        stroke="var(--color-brass)"
        strokeWidth={at ? 3.5 : 2}
      />
      <Words at={{ x: face + 56, y: AXIS - 62 }} anchor="start" ink="measured" bold>
        {tool}
      </Words>
      {way !== 0 && (
        <g>
          <line
            x1={WAS}
            x2={face}
            y1={AXIS + 72}
            y2={AXIS + 72}
            stroke="var(--color-brass)"
            strokeWidth={2}
            strokeDasharray={known ? undefined : '5 4'}
          />
          <Head at={{ x: face, y: AXIS + 72 }} dx={way} dy={0} ink="measured" known={known} />
        </g>
      )}
      <Words at={{ x: (WAS + face) / 2, y: AXIS + 98 }} ink="measured" bold>
        {known ? formatLength(shift, unit, { plus: true }) : '?'}
      </Words>
      <Words at={{ x: WAS, y: AXIS - 84 }} plain>
        as the tools have it
      </Words>
      <Words at={{ x: 60, y: AXIS + 98 }} plain>
        chuck
      </Words>
    </CycleSheet>
  )
}

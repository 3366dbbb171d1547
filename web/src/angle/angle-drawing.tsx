import { type AngleField, type AngleSketch, formatAngle } from '@dogleg/core/angle'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Words } from '../drawing/marks.tsx'
import { plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 470
const HEIGHT = 440

interface AngleDrawingProps {
  sketch: AngleSketch
  angle: number | undefined
  unit: LengthUnit
  lit: AngleField | undefined
}

/** The part as the drawing has it (dashed) and as it lies, turned by what can be seen; the points that were measured. */
export function AngleDrawing({ sketch, angle, unit, lit }: AngleDrawingProps) {
  const all = [...sketch.nominal, ...sketch.lies, ...sketch.points]
  const on = plan(
    { x: Math.min(...all.map(({ x }) => x)), y: Math.min(...all.map(({ y }) => y)) },
    { x: Math.max(...all.map(({ x }) => x)), y: Math.max(...all.map(({ y }) => y)) },
    { left: 50, top: 60, width: WIDTH - 100, height: HEIGHT - 190 },
  )
  const zero = on.place({ x: 0, y: 0 })
  const reach = sketch.reach * on.scale
  const far = on.place(sketch.lies[1] ?? { x: 0, y: 0 })
  const plainFar = on.place(sketch.nominal[1] ?? { x: 0, y: 0 })
  const turnedBy = (-sketch.shownBy * Math.PI) / 180
  const arc = 0.62 * reach
  const arcEnd = { x: zero.x + arc * Math.cos(turnedBy), y: zero.y + arc * Math.sin(turnedBy) }
  const times = Math.round(sketch.exaggerated)
  return (
    <CycleSheet
      label="Plan view of the part as it lies"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[29rem]"
    >
      <polygon
        points={polygon(sketch.nominal.map(on.place))}
        fill="none"
        stroke="var(--color-scribe-dim)"
        strokeWidth={1.5}
        strokeDasharray="8 6"
      />
      <polygon
        points={polygon(sketch.lies.map(on.place))}
        fill="var(--color-scribe)"
        fillOpacity={0.13}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      {angle !== undefined && angle !== 0 && (
        <g>
          <path
            d={`M ${zero.x + arc} ${zero.y} A ${arc} ${arc} 0 0 ${angle > 0 ? 0 : 1} ${arcEnd.x} ${arcEnd.y}`}
            fill="none"
            stroke="var(--color-brass)"
            strokeWidth={2.5}
          />
          <Words at={{ x: zero.x + 0.5 * reach, y: zero.y - 0.24 * reach }} ink="measured" bold size={24}>
            {formatAngle(angle)} deg
          </Words>
          <line
            x1={plainFar.x}
            y1={plainFar.y}
            x2={far.x}
            y2={far.y}
            stroke="var(--color-brass)"
            strokeWidth={lit === 'reach' || lit === 'allowed' ? 4 : 2}
          />
        </g>
      )}
      <g stroke="var(--color-scribe)" strokeWidth={2} strokeDasharray="14 4 3 4">
        <line x1={zero.x - 30} x2={zero.x + 40} y1={zero.y} y2={zero.y} />
        <line x1={zero.x} x2={zero.x} y1={zero.y - 40} y2={zero.y + 30} />
      </g>
      <Words at={{ x: zero.x - 6, y: zero.y + 48 }} anchor="start" bold>
        X0 Y0
      </Words>
      {sketch.points.map((point, index) => {
        const at = on.place(point)
        return (
          <g key={point.name}>
            <circle
              cx={at.x}
              cy={at.y}
              r={point.worst ? 11 : 7}
              fill={point.worst ? 'none' : 'var(--color-brass)'}
              stroke="var(--color-brass)"
              strokeWidth={point.worst ? 4 : 2}
            />
            {(point.worst || sketch.points.length <= 6) && (
              <Words
                at={{ x: at.x, y: at.y + (index % 2 === 0 ? 28 : -16) }}
                ink="measured"
                bold={point.worst}
                plain
              >
                {point.worst ? `${point.name}: off the fit` : point.name}
              </Words>
            )}
          </g>
        )
      })}
      <Words at={{ x: plainFar.x, y: zero.y + 66 }} anchor="end" ink="part" plain>
        {`farthest cut ${formatLength(sketch.reach, unit)} from part zero`}
      </Words>
      <Words at={{ x: 14, y: HEIGHT - 14 }} anchor="start" plain>
        {angle === undefined
          ? 'Dashed: as the drawing has it'
          : times > 1
            ? `Dashed: the drawing. The angle is drawn ${times > 999 ? 'very much' : `${times} times`} larger`
            : 'Dashed: as the drawing has it. The angle is true'}
      </Words>
    </CycleSheet>
  )
}

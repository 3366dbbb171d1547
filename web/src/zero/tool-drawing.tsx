import { type ToolLengthDraft, toolSketch } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { box, frame } from '../drawing/frame.ts'
import { Dimension, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 330
const HEIGHT = 470

/** The master and the tool, each on the same block: how much higher the spindle stands is how much longer the tool is. */
export function ToolDrawing({
  draft,
  unit,
  length,
}: {
  draft: ToolLengthDraft
  unit: LengthUnit
  length: number | undefined
}) {
  const sketch = toolSketch(draft, unit)
  const up = frame(sketch.least, sketch.greatest, {
    upright: true,
    from: HEIGHT - 60,
    to: 50,
    middle: WIDTH / 2,
  })
  const number = (known: boolean, value: number) => (known ? formatLength(value, unit) : '?')
  const tools = [
    { name: 'master', v: -95, nose: sketch.master, known: sketch.known.has('masterPosition'), side: -1 },
    { name: 'this tool', v: 95, nose: sketch.tool, known: sketch.known.has('machinePosition'), side: 1 },
  ]
  return (
    <CycleSheet
      label="The master and the tool on the same block"
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[30rem]"
    >
      <rect
        {...box(up, sketch.block, sketch.least, -150, 150)}
        fill="var(--color-brass)"
        fillOpacity={0.25}
        stroke="var(--color-brass)"
        strokeWidth={2}
      />
      <Words at={{ x: WIDTH / 2, y: HEIGHT - 12 }} row={-1.3} ink="measured" plain>
        the same block
      </Words>
      {tools.map(({ name, v, nose, known, side }) => {
        const at = up.place(nose, v)
        return (
          <g key={name}>
            <rect
              {...box(up, sketch.block, nose, v - 8, v + 8)}
              fill="var(--color-layout-deep)"
              stroke="var(--color-scribe)"
              strokeWidth={2}
              strokeDasharray={known ? undefined : '5 4'}
            />
            <path
              d={`M ${at.x - 26} ${at.y} h 52 l 8 -20 h -68 z`}
              fill="var(--color-layout-deep)"
              stroke="var(--color-scribe)"
              strokeWidth={2}
            />
            <Words at={{ x: at.x, y: at.y - 28 }} ink="measured" bold>
              {number(known, nose)}
            </Words>
            <Words
              at={{ x: at.x - side * 14, y: up.place(sketch.block, 0).y - 14 }}
              anchor={side < 0 ? 'start' : 'end'}
              plain
            >
              {name}
            </Words>
          </g>
        )
      })}
      <Dimension
        frame={up}
        from={sketch.master}
        to={sketch.tool}
        v={-24}
        base={-60}
        ink="measured"
        name={(sketch.longerBy ?? 0) < 0 ? 'shorter by' : 'longer by'}
        label={sketch.longerBy === undefined ? '?' : formatLength(Math.abs(sketch.longerBy), unit)}
        known={sketch.longerBy !== undefined}
      />
      <Words at={{ x: WIDTH / 2, y: HEIGHT - 12 }} bold size={18}>
        {length === undefined ? '' : `length ${formatLength(length, unit)}`}
      </Words>
    </CycleSheet>
  )
}

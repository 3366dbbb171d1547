import { type ToolShape, toolShape } from '@dogleg/core/machine'
import { toolParts } from '@dogleg/core/prove'
import { formatLength } from '@dogleg/core/quantity'
import { Sheet } from '../drawing/sheet.tsx'
import { TOOL_NUMBERS } from '../reference/library-numbers.ts'
import { readTyped, type Typed } from '../reference/typed-form.ts'

const [WIDTH, HEIGHT] = [320, 480]

/** The tool as it is described, to scale, tip down. */
export function ToolPreview({ draft, lathe }: { draft: Typed<ToolShape>; lathe: boolean }) {
  const read = readTyped(toolShape, TOOL_NUMBERS, draft, draft.unit)
  if (!read.ok)
    return (
      <p className="rounded-sm bg-layout p-3 text-scribe">
        The picture comes when every field is understood.
      </p>
    )
  const { stickOut, holderLength } = read.row
  const parts = toolParts(read.row)
  const widest = Math.max(...parts.map(({ radius }) => radius))
  const scale = Math.min((WIDTH - 120) / (2 * widest), (HEIGHT - 60) / (stickOut + holderLength))
  const bottom = HEIGHT - 30
  const x = (WIDTH - 60) / 2
  const says = (at: number) => formatLength(at, draft.unit)
  return (
    <Sheet
      label={`Tool ${read.row.number} from the side, ${lathe ? 'along Z' : 'tip down'}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[34rem]"
    >
      {parts.map(({ name, radius, from, to }) => (
        <rect
          key={name}
          x={x - radius * scale}
          y={bottom - to * scale}
          width={2 * radius * scale}
          height={(to - from) * scale}
          className={`stroke-scribe ${name === 'cutter' ? 'fill-scribe/40' : name === 'holder' ? 'fill-scribe/10' : 'fill-scribe/20'}`}
          strokeWidth={2}
        />
      ))}
      {parts.map(({ name, to }) => (
        <g key={name}>
          <path
            d={`M${x} ${bottom - to * scale}H${WIDTH - 84}`}
            className="stroke-scribe-dim"
            strokeDasharray="4 4"
          />
          <text x={WIDTH - 80} y={bottom - to * scale + 5} className="digits fill-scribe text-[15px]">
            {says(to)}
          </text>
        </g>
      ))}
      <path d={`M${x - 40} ${bottom}H${x + 40}`} className="stroke-scribe" strokeWidth={2} />
    </Sheet>
  )
}

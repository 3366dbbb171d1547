import { type ToolShape, tipOf, toolOnLathe, toolShape } from '@dogleg/core/machine'
import { partBox, type ToolPart, toolParts } from '@dogleg/core/prove'
import { formatLength } from '@dogleg/core/quantity'
import { CycleSheet } from '../drawing/sheet.tsx'
import { TOOL_NUMBERS } from '../reference/library-numbers.ts'
import { readTyped, type Typed } from '../reference/typed-form.ts'

/** Room round the tool: for what the lengths are, to the right of it or under it. */
const EDGE = 30
const LABELS = 84
/** Room over it for which way it is seen. */
const HEADING = 20

/** A piece in the picture: from a lower to a higher place, rightwards and upwards, in the tool's own unit. */
interface Drawn {
  name: ToolPart['name']
  right: readonly [number, number]
  up: readonly [number, number]
}

/** On a mill X to the right and Z up; on a lathe Z to the right and X up, as the work area is seen. */
function drawn(part: ToolPart): Drawn {
  const { least, greatest } = partBox(part)
  const [right, up] = part.form === 'flat' ? ([2, 0] as const) : ([0, 2] as const)
  return { name: part.name, right: [least[right], greatest[right]], up: [least[up], greatest[up]] }
}

const FILLS: Partial<Record<ToolPart['name'], string>> = {
  cutter: 'fill-scribe/40',
  shank: 'fill-scribe/20',
  holder: 'fill-scribe/10',
}
const POINTS = {
  outside: 'Spindle on the left, centre line below',
  inside: 'Spindle on the left, the wall of the bore above',
  face: 'Spindle and face on the left',
} as const

/** The tool as it is described, to scale: tip down, on a lathe as it stands in the turret. */
export function ToolPreview({ draft, lathe }: { draft: Typed<ToolShape>; lathe: boolean }) {
  const read = readTyped(toolShape, TOOL_NUMBERS, draft, draft.unit)
  if (!read.ok)
    return (
      <p className="rounded-sm bg-layout p-3 text-scribe">
        The picture comes when every field is understood.
      </p>
    )
  const { side } = toolOnLathe(read.row)
  const tip = lathe ? tipOf(read.row) : undefined
  const nose = read.row.nose ?? 0
  const pieces = toolParts(read.row, lathe).map(drawn)
  /** Whether its lengths run to the right, as those of a bar do. */
  const lies = lathe && side !== 'outside'
  const [width, height] = lies ? [352, 300] : [320, 480]
  const bounds = (axis: 'right' | 'up') =>
    [
      Math.min(0, ...pieces.map((piece) => piece[axis][0])),
      Math.max(0, ...pieces.map((piece) => piece[axis][1])),
    ] as const
  const [across, high] = [bounds('right'), bounds('up')]
  const room = {
    right: width - 2 * EDGE - (lies ? 0 : LABELS),
    up: height - 2 * EDGE - (lies ? LABELS : 0) - (lathe ? HEADING : 0),
  }
  const scale = Math.min(room.right / (across[1] - across[0]), room.up / (high[1] - high[0]))
  const slack = {
    right: (room.right - (across[1] - across[0]) * scale) / 2,
    up: (room.up - (high[1] - high[0]) * scale) / 2,
  }
  const x = (value: number) => EDGE + slack.right + (value - across[0]) * scale
  const y = (value: number) => height - EDGE - (lies ? LABELS : 0) - slack.up - (value - high[0]) * scale
  const says = (at: number) => formatLength(at, draft.unit)
  return (
    <CycleSheet
      label={`Tool ${read.row.number}: ${lathe ? POINTS[side] : 'from the side, tip down'}`}
      width={width}
      height={height}
      tallest="max-h-[34rem]"
    >
      {pieces.map(({ name, right, up }) => (
        <rect
          key={name}
          x={x(right[0])}
          y={y(up[1])}
          width={(right[1] - right[0]) * scale}
          height={(up[1] - up[0]) * scale}
          className={`stroke-scribe ${FILLS[name]}`}
          strokeWidth={2}
        />
      ))}
      {pieces.map(({ name, right, up }, n) =>
        lies ? (
          <g key={name}>
            <path
              d={`M${x(right[1])} ${y(up[0])}V${height - LABELS + 22 * n}`}
              className="stroke-scribe-dim"
              strokeDasharray="4 4"
            />
            <text
              x={x(right[1]) + (x(right[1]) < width / 2 ? 6 : -6)}
              y={height - LABELS + 4 + 22 * n}
              textAnchor={x(right[1]) < width / 2 ? 'start' : 'end'}
              className="digits fill-scribe text-base"
            >
              {says(right[1] - pieceStart(pieces))}
            </text>
          </g>
        ) : (
          <g key={name}>
            <path
              d={`M${x((right[0] + right[1]) / 2)} ${y(up[1])}H${width - 84}`}
              className="stroke-scribe-dim"
              strokeDasharray="4 4"
            />
            <text x={width - 80} y={y(up[1]) + 5} className="digits fill-scribe text-base">
              {says(up[1])}
            </text>
          </g>
        ),
      )}
      <path
        d={`M${x(0) - 9} ${y(0)}H${x(0) + 9}M${x(0)} ${y(0) - 9}V${y(0) + 9}`}
        className="stroke-stock"
        strokeWidth={2}
      />
      {tip && nose > 0 && (
        <circle
          cx={x(-tip.z * nose)}
          cy={y(-tip.x * nose)}
          r={nose * scale}
          className="fill-none stroke-brass"
          strokeWidth={2}
        />
      )}
      {tip && (
        <text x={EDGE} y={40} className="fill-brass text-base font-semibold">
          tip {tip.number}
          {nose > 0 ? `, nose ${says(nose)}` : ''}
        </text>
      )}
      {lathe && (
        <text x={EDGE} y={20} className="fill-scribe text-base">
          {POINTS[side]}
        </text>
      )}
    </CycleSheet>
  )
}

/** Where the lengths of a tool that lies begin: at its end towards the chuck. */
const pieceStart = (pieces: readonly Drawn[]) => Math.min(...pieces.map(({ right }) => right[0]))

import { formatAngle } from '@dogleg/core/angle'
import type { RotaryAxis } from '@dogleg/core/machine'
import { formatLength, type LengthUnit, readLength } from '@dogleg/core/quantity'
import {
  type Centre,
  type CentreDraft,
  type CentreField,
  centreSketch,
  type Flat,
  type FlatDraft,
  type FlatField,
  flatSketch,
} from '@dogleg/core/rotary'
import { Head, Tip, Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 360
const HEIGHT = 400
const MIDDLE = { x: 180, y: 215 }
const RADIUS = 105

/** That of a centre line, which stands over its answer. */
const LOW = { width: 480, height: 270, middle: { x: 240, y: 148 }, radius: 84 }

type SketchAt = { right: number; up: number }
const placed = (middle: { x: number; y: number }, radius: number) => (at: SketchAt) => ({
  x: middle.x + at.right * radius,
  y: middle.y - at.up * radius,
})
const place = placed(MIDDLE, RADIUS)

/** Where front and back are, and where the axis is. */
function Around() {
  const { x, y } = MIDDLE
  return (
    <g>
      <Words at={{ x: 16, y: HEIGHT - 14 }} anchor="start" plain>
        front
      </Words>
      <Words at={{ x: WIDTH - 16, y: HEIGHT - 14 }} anchor="end" plain>
        back
      </Words>
      <path
        d={`M ${x - 16} ${y} h 32 M ${x} ${y - 16} v 32`}
        stroke="var(--color-brass)"
        strokeWidth={1.5}
        strokeDasharray="8 3 2 3"
      />
    </g>
  )
}

/** The way that the part goes as the number counts up: an arrow round it, over its top. */
function CountsUp({ rotary: { word, top } }: { rotary: RotaryAxis }) {
  const r = RADIUS + 62
  const at = (degrees: number) => ({
    x: MIDDLE.x + r * Math.cos((degrees * Math.PI) / 180),
    y: MIDDLE.y - r * Math.sin((degrees * Math.PI) / 180),
  })
  const [from, to] = top === 'front' ? [at(62), at(118)] : [at(118), at(62)]
  const sweep = top === 'front' ? 0 : 1
  const way = top === 'front' ? -1 : 1
  return (
    <g>
      <path
        d={`M ${from.x} ${from.y} A ${r} ${r} 0 0 ${sweep} ${to.x} ${to.y}`}
        fill="none"
        stroke="var(--color-scribe-dim)"
        strokeWidth={1.5}
      />
      <Head
        at={to}
        dx={way * Math.sin((118 * Math.PI) / 180)}
        dy={Math.abs(Math.cos((118 * Math.PI) / 180))}
        known={false}
      />
      <Words at={{ x: MIDDLE.x, y: 26 }} plain>
        {word} counts up: its top goes to the {top}
      </Words>
    </g>
  )
}

interface FlatDrawingProps {
  draft: FlatDraft
  flat: Flat | undefined
  rotary: RotaryAxis
  lit: FlatField | undefined
}

/** The part from its right end, with the flat as it lies and the two touches on it. */
export function FlatDrawing({ draft, flat, rotary, lit }: FlatDrawingProps) {
  const { ends, tips, tipRadius } = flatSketch(draft, flat)
  const [a, b] = [place(ends[0]), place(ends[1])]
  const known = flat !== undefined
  const says = known
    ? `The flat is turned by ${formatAngle(flat.tilt)} deg${Math.abs(flat.tilt) < 4 ? ', drawn larger' : ''}`
    : 'The flat, as it faces'
  return (
    <CycleSheet label={says} width={WIDTH} height={HEIGHT} tallest="max-h-[27rem]">
      <CountsUp rotary={rotary} />
      <path
        // From end to end the long way round, and back along the flat.
        d={`M ${a.x} ${a.y} A ${RADIUS} ${RADIUS} 0 1 0 ${b.x} ${b.y} Z`}
        fill="var(--color-scribe)"
        fillOpacity={0.14}
        stroke="var(--color-scribe)"
        strokeWidth={1.5}
      />
      <line
        x1={a.x}
        y1={a.y}
        x2={b.x}
        y2={b.y}
        stroke="var(--color-scribe)"
        strokeWidth={3.5}
        strokeDasharray={known ? undefined : '6 4'}
      />
      {tips.map((tip, n) => {
        const at = place(tip)
        const touch = n + 1
        const field = draft.method === 'level' ? ['front', 'back'][n] : `${touch}`
        const isLit = lit === field || lit === `y${touch}` || lit === `z${touch}`
        return (
          <g key={touch}>
            <Tip at={at} radius={tipRadius * RADIUS} lit={isLit} />
            <Words
              at={{
                x: at.x + (tip.right < -0.7 ? -24 : tip.right > 0.7 ? 24 : 0),
                y: at.y + (tip.up > 0.6 ? -18 : 5),
              }}
              ink="measured"
              bold
              plain
            >
              {draft.method === 'level' ? (n === 0 ? 'front' : 'back') : touch}
            </Words>
          </g>
        )
      })}
      <Around />
      <Words at={{ x: MIDDLE.x, y: MIDDLE.y + 52 }} ink="measured" bold>
        {known ? `${formatAngle(flat.tilt)}°` : '?'}
      </Words>
      {known && Math.abs(flat.tilt) < 4 && flat.tilt !== 0 && (
        <Words at={{ x: MIDDLE.x, y: MIDDLE.y + 52 }} row={1.1} plain>
          drawn larger
        </Words>
      )}
    </CycleSheet>
  )
}

interface CentreDrawingProps {
  draft: CentreDraft
  centre: Centre | undefined
  unit: LengthUnit
  lit: CentreField | undefined
}

/** What the rotary holds from its right end: touched at the front, the back and the top, and once more by half a turn. */
export function CentreDrawing({ draft, centre, unit, lit }: CentreDrawingProps) {
  const { first, half, tipRadius } = centreSketch(draft, centre, unit)
  const across = readLength(draft.across, unit)
  const reach = 1 + tipRadius
  const touches = [
    { names: ['front', 'halfFront'], at: { right: first.right - reach, up: first.up } },
    { names: ['back', 'halfBack'], at: { right: first.right + reach, up: first.up } },
    { names: ['top', 'halfTop'], at: { right: first.right, up: first.up + reach } },
  ] as const
  const { middle: axis, radius } = LOW
  const at = placed(axis, radius)
  const middle = at(first)
  const other = half && at(half)
  return (
    <CycleSheet
      label="The part in the rotary from its right end, with its touches and the centre line"
      width={LOW.width}
      height={LOW.height}
      tallest="max-h-[17rem]"
    >
      {other && (
        <circle
          cx={other.x}
          cy={other.y}
          r={radius}
          fill="none"
          stroke="var(--color-scribe-dim)"
          strokeWidth={1.5}
          strokeDasharray="6 4"
        />
      )}
      <circle
        cx={middle.x}
        cy={middle.y}
        r={radius}
        fill="var(--color-scribe)"
        fillOpacity={0.14}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      {touches.map(({ names: [name, halfName], at: touch }) => (
        <Tip key={name} at={at(touch)} radius={tipRadius * radius} lit={lit === name || lit === halfName} />
      ))}
      {draft.block.trim() !== '' && Number(draft.block) !== 0 && (
        <Words at={{ x: middle.x + 22, y: middle.y - radius - 8 }} anchor="start" plain>
          on a block
        </Words>
      )}
      <circle cx={middle.x} cy={middle.y} r={3} fill="var(--color-scribe)" />
      <path
        d={`M ${axis.x - 22} ${axis.y} h 44 M ${axis.x} ${axis.y - 22} v 44`}
        stroke="var(--color-brass)"
        strokeWidth={1.5}
        strokeDasharray="8 3 2 3"
      />
      <Words at={{ x: axis.x, y: axis.y + 48 }} bold={lit === 'across'}>
        {across.ok ? formatLength(across.value, unit) : '?'}
      </Words>
      <Words at={{ x: 20, y: axis.y + 5 }} anchor="start" plain>
        front
      </Words>
      <Words at={{ x: LOW.width - 20, y: axis.y + 5 }} anchor="end" plain>
        back
      </Words>
      {half && (
        <Words at={{ x: axis.x, y: LOW.height - 12 }} plain>
          dashed: by half a turn, drawn further off
        </Words>
      )}
    </CycleSheet>
  )
}

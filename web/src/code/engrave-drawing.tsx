import type { PlanBody } from '@dogleg/core/cycles/cycle'
import {
  askedRoom,
  cutLetters,
  type EngraveParams,
  type EngraveSizes,
  rowSpan,
} from '@dogleg/core/cycles/engraving'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import type { Point } from '../drawing/frame.ts'
import { Words } from '../drawing/marks.tsx'
import { plan, polygon } from '../drawing/plan.ts'
import { CycleSheet } from '../drawing/sheet.tsx'

const WIDTH = 700
const HEIGHT = 244
/** Where the view from afar ends and the text itself begins. */
const FAR = 200

interface EngraveDrawingProps {
  params: EngraveParams
  sizes: EngraveSizes
  bodies: readonly PlanBody[]
  unit: LengthUnit
  lit: string | undefined
}

interface Place {
  x: number
  y: number
}

const bounds = (points: readonly Place[]) => ({
  least: { x: Math.min(...points.map(({ x }) => x)), y: Math.min(...points.map(({ y }) => y)) },
  greatest: { x: Math.max(...points.map(({ x }) => x)), y: Math.max(...points.map(({ y }) => y)) },
})

const cornersOf = ({ shape }: PlanBody): Place[] =>
  shape.kind === 'circle'
    ? [
        { x: shape.at.x - shape.radius, y: shape.at.y - shape.radius },
        { x: shape.at.x + shape.radius, y: shape.at.y + shape.radius },
      ]
    : [shape.least, shape.greatest]

const LINE_FIELDS = new Set(['lineWidth', 'depth', 'tip', 'toolAngle', 'by'])
const ROOM_FIELDS = new Set(['boxWidth', 'boxHeight', 'toX', 'toY', 'diameter', 'sits', 'angle', 'align'])

/** The text where it is cut, its lines as wide as they come out; beside it where it sits on the part. */
export function EngraveDrawing({ params, sizes, bodies, unit, lit }: EngraveDrawingProps) {
  const say = (value: number) => formatLength(value, unit)
  const letters = cutLetters(sizes)
  const points = letters.flatMap(({ strokes }) =>
    strokes.flatMap((stroke) => stroke.map(([x, y]) => ({ x, y }))),
  )
  const room = askedRoom(params, unit)
  const ends = rowSpan(sizes)
  const start = room[0] ?? { x: 0, y: 0 }
  const near = bounds([
    ...points,
    ...(params.sits === 'arc' ? [] : room),
    ...ends.flatMap(({ longest }) => longest),
    ...(points.length === 0 ? [start] : []),
  ])
  const { place, scale } = plan(near.least, near.greatest, {
    left: FAR + 30,
    top: 42,
    width: WIDTH - FAR - 60,
    height: HEIGHT - 92,
  })
  const is = (...fields: string[]) => lit !== undefined && fields.includes(lit)
  const ink = lit !== undefined && LINE_FIELDS.has(lit) ? 'var(--color-brass)' : 'var(--color-scribe)'
  const guide = lit !== undefined && ROOM_FIELDS.has(lit) ? 'var(--color-brass)' : 'var(--color-scribe-dim)'
  const at = place(start)
  return (
    <CycleSheet
      label={`The text ${sizes.text}, ${say(sizes.height)} tall and ${say(sizes.width)} long, line ${say(sizes.lineWidth)}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-full"
    >
      {params.sits === 'box' && (
        <polygon
          points={polygon(room.map(place))}
          fill="none"
          stroke={guide}
          strokeWidth={1.5}
          strokeDasharray="8 5"
        />
      )}
      {params.sits === 'line' && room[1] && (
        <line {...ends2(at, place(room[1]))} stroke={guide} strokeWidth={1.5} strokeDasharray="8 5" />
      )}
      {params.sits === 'arc' && 'arc' in sizes.stands && (
        <circle
          cx={at.x}
          cy={at.y}
          r={sizes.stands.arc.radius * scale}
          fill="none"
          stroke={guide}
          strokeWidth={1.5}
          strokeDasharray="8 5"
        />
      )}
      {ends.map(({ band }) => (
        <polygon
          key="band"
          points={polygon(band.map(place))}
          fill="var(--color-brass)"
          fillOpacity={0.3}
          data-testid="width-doubt"
        />
      ))}
      <g
        fill="none"
        stroke={ink}
        strokeWidth={Math.max(1.5, sizes.lineWidth * scale)}
        strokeLinecap="round"
        strokeLinejoin="round"
      >
        {letters.map(({ strokes }, letter) =>
          strokes.map((stroke, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a stroke is known by its place in the text
            <polyline key={`${letter}-${n}`} points={polygon(stroke.map(([x, y]) => place({ x, y })))} />
          )),
        )}
      </g>
      {'row' in sizes.stands && points.length > 0 && (
        <circle
          cx={place(sizes.stands.row).x}
          cy={place(sizes.stands.row).y}
          r={is('x', 'y') ? 6 : 4}
          fill="var(--color-brass)"
        />
      )}
      {points.length === 0 && (
        <Words at={{ x: (WIDTH + FAR) / 2, y: HEIGHT / 2 }} plain size={18}>
          The letters appear here as you type.
        </Words>
      )}
      <Words at={{ x: FAR + 20, y: HEIGHT - 16 }} anchor="start" bold={is('height')}>
        {say(sizes.height)} tall
      </Words>
      <Words at={{ x: WIDTH - 14, y: HEIGHT - 16 }} anchor="end">
        {say(sizes.width)} long{sizes.doubt > 0 ? ` ±${say(sizes.doubt * sizes.width)}` : ''}
      </Words>
      <Words at={{ x: WIDTH - 14, y: 26 }} anchor="end" bold={lit !== undefined && LINE_FIELDS.has(lit)}>
        line {say(sizes.lineWidth)}, {say(sizes.depth)} deep
      </Words>
      <Words at={{ x: FAR + 20, y: 26 }} anchor="start" bold={is('turns', 'feed', 'plungeFeed')}>
        S{Math.round(sizes.rpm)} F{say(sizes.feed)}
      </Words>
      <Afar bodies={bodies} text={points} room={params.sits === 'arc' ? points : room} />
    </CycleSheet>
  )
}

const ends2 = (a: Point, b: Point) => ({ x1: a.x, y1: a.y, x2: b.x, y2: b.y })

/** From afar: the part, what holds it, part zero, and the text as a patch. */
function Afar({
  bodies,
  text,
  room,
}: {
  bodies: readonly PlanBody[]
  text: readonly Place[]
  room: readonly Place[]
}) {
  const all = [...bodies.flatMap(cornersOf), ...text, ...room, { x: 0, y: 0 }]
  const { least, greatest } = bounds(all)
  const { place, scale } = plan(least, greatest, { left: 16, top: 30, width: FAR - 32, height: HEIGHT - 76 })
  const zero = place({ x: 0, y: 0 })
  const patch = text.length > 0 ? bounds(text) : undefined
  return (
    <g>
      <line x1={FAR} x2={FAR} y1={12} y2={HEIGHT - 12} stroke="var(--color-scribe-dim)" strokeWidth={1} />
      {bodies.map((body) => {
        const [a, b] = cornersOf(body).map(place) as [Point, Point]
        const look = {
          fill: body.part ? 'none' : 'var(--color-scribe-dim)',
          fillOpacity: 0.35,
          stroke: 'var(--color-scribe)',
          strokeWidth: body.part ? 2 : 1,
        }
        return body.shape.kind === 'circle' ? (
          <circle
            key={body.name}
            cx={place(body.shape.at).x}
            cy={place(body.shape.at).y}
            r={body.shape.radius * scale}
            {...look}
          />
        ) : (
          <rect key={body.name} x={a.x} y={b.y} width={b.x - a.x} height={a.y - b.y} {...look} />
        )
      })}
      {patch && (
        <rect
          x={place(patch.least).x}
          y={place(patch.greatest).y}
          width={Math.max(3, place(patch.greatest).x - place(patch.least).x)}
          height={Math.max(3, place(patch.least).y - place(patch.greatest).y)}
          fill="var(--color-brass)"
        />
      )}
      <path
        d={`M${zero.x - 9} ${zero.y}H${zero.x + 9}M${zero.x} ${zero.y - 9}V${zero.y + 9}`}
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Words at={{ x: FAR / 2, y: HEIGHT - 16 }} plain>
        {bodies.some(({ part }) => part) ? 'on the part' : 'from part zero'}
      </Words>
    </g>
  )
}

import type { Machine } from '@dogleg/core/machine'
import type { FieldName, Sketch } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { box, type Frame, frame } from '../drawing/frame.ts'
import { Dimension, Head, Position, Scribe, Words, ZeroLine } from '../drawing/marks.tsx'
import { TravelBar } from '../drawing/travel-bar.tsx'

export type LitField = FieldName | 'direction' | undefined

interface PickupDrawingProps {
  sketch: Sketch
  unit: LengthUnit
  machine: Machine
  lit: LitField
  /** The value in hand, once every field is understood. */
  value: number | undefined
  last: number | undefined
  /** A mark was pressed: its field wants the focus. */
  onPick: (field: FieldName) => void
}

const WIDTH = 470
const HEIGHT = 500
const LEAST_RADIUS = 10

interface PartProps {
  sketch: Sketch
  frame: Frame
  unit: LengthUnit
  mark: (field: FieldName) => { lit: boolean; known: boolean; onPointerDown: () => void }
  number: (field: FieldName, value: number) => string
}

/** A group that belongs to a field: pressing it brings the field. */
function Of({
  field,
  mark,
  children,
}: {
  field: FieldName
  mark: PartProps['mark']
  children: React.ReactNode
}) {
  return (
    <g onPointerDown={mark(field).onPointerDown} className="cursor-pointer">
      {children}
    </g>
  )
}

const state = ({ lit, known }: { lit: boolean; known: boolean }) => ({ lit, known })

function Body({
  frame,
  from,
  to,
  v1,
  v2,
}: {
  frame: Frame
  from: number
  to: number
  v1: number
  v2: number
}) {
  return (
    <rect
      {...box(frame, from, to, v1, v2)}
      fill="var(--color-scribe)"
      fillOpacity={0.13}
      stroke="var(--color-scribe)"
      strokeWidth={2}
    />
  )
}

function DrawingPosition({
  sketch,
  frame,
  mark,
  number,
  v,
  base,
  aside = 0,
}: PartProps & { v: number; base: number; aside?: number }) {
  if (sketch.feature === sketch.zero) return null
  return (
    <Of field="drawingPosition" mark={mark}>
      <Dimension
        frame={frame}
        from={sketch.zero}
        to={sketch.feature}
        v={v}
        base={base}
        name="drawing"
        aside={aside}
        label={number('drawingPosition', sketch.feature - sketch.zero)}
        {...state(mark('drawingPosition'))}
      />
    </Of>
  )
}

function EdgeFinder(props: PartProps & { directionLit: boolean }) {
  const { sketch, frame, mark, number, directionLit } = props
  const at = sketch.spindles[0]?.at ?? 0
  const s = sketch.direction === '+' ? 1 : -1
  const radius = Math.max(LEAST_RADIUS, (sketch.tip / 2) * frame.scale)
  const contact = frame.place(sketch.feature, 0)
  const spindle = frame.place(at, 0)
  // Where the finder is too small to see, it is drawn larger, still touching the face.
  const centre =
    radius > LEAST_RADIUS
      ? spindle
      : frame.upright
        ? { x: contact.x, y: contact.y + s * radius }
        : { x: contact.x - s * radius, y: contact.y }
  const tail = frame.place(at - 2.2 * s * Math.max(sketch.tip, (2 * radius) / frame.scale), 0)
  const knownWay = sketch.known.has('direction')
  return (
    <>
      <Body frame={frame} from={sketch.body.from} to={sketch.body.to} v1={-56} v2={56} />
      <ZeroLine frame={frame} at={sketch.zero} reach={78} name={`${sketch.axis}0`} />
      <Scribe
        from={tail}
        to={{
          x: centre.x - (frame.upright ? 0 : s * radius),
          y: centre.y + (frame.upright ? s * radius : 0),
        }}
        ink="measured"
        known={knownWay}
        lit={directionLit}
      />
      <Head
        at={{
          x: centre.x - (frame.upright ? 0 : s * radius),
          y: centre.y + (frame.upright ? s * radius : 0),
        }}
        dx={contact.x - tail.x}
        dy={contact.y - tail.y}
        ink="measured"
        known={knownWay}
        lit={directionLit}
      />
      <Of field="diameter" mark={mark}>
        <circle
          cx={centre.x}
          cy={centre.y}
          r={radius}
          fill="var(--color-brass)"
          fillOpacity={0.25}
          stroke="var(--color-brass)"
          strokeWidth={mark('diameter').lit ? 4 : 2}
          className="lights-up"
        />
        <Dimension
          frame={frame}
          from={at}
          to={sketch.feature}
          v={96}
          base={0}
          ink="measured"
          name="half the tip"
          label={number('diameter', sketch.tip / 2)}
          {...state(mark('diameter'))}
        />
      </Of>
      <Of field="machinePosition" mark={mark}>
        <Position
          frame={frame}
          at={at}
          from={0}
          to={frame.upright ? -80 : -124}
          name="machine"
          label={number('machinePosition', at)}
          {...state(mark('machinePosition'))}
        />
      </Of>
      <DrawingPosition {...props} v={96} base={56} aside={s * (frame.upright ? 44 : 80)} />
    </>
  )
}

/** The indicator's own radius, written on its arm. */
function SwingWords({
  frame,
  from,
  to,
  v,
  label,
}: {
  frame: Frame
  from: number
  to: number
  v: number
  label: string
}) {
  const middle = frame.place((from + to) / 2, v)
  const side = v < 0 ? -1 : 1
  const at = frame.upright ? { x: middle.x + side * 8, y: middle.y + 5 } : { x: middle.x, y: middle.y - 8 }
  const anchor = frame.upright ? (side < 0 ? 'end' : 'start') : 'middle'
  return (
    <Words at={at} anchor={anchor} ink="measured" plain>
      swing {label}
    </Words>
  )
}

function Indicator(props: PartProps) {
  const { sketch, frame, unit, mark, number } = props
  const bothKnown = sketch.known.has('minusSide') && sketch.known.has('plusSide')
  const insert = 0.1 * sketch.tip
  const sides = [
    {
      field: 'minusSide' as const,
      at: sketch.spindles[0]?.at ?? 0,
      v: 48,
      to: frame.upright ? 104 : 150,
      name: 'minus side',
    },
    {
      field: 'plusSide' as const,
      at: sketch.spindles[1]?.at ?? 0,
      v: -48,
      to: frame.upright ? -96 : -150,
      name: 'plus side',
    },
  ]
  const label = frame.place(sketch.feature - insert, -70)
  return (
    <>
      <Body frame={frame} from={sketch.feature} to={sketch.body.to} v1={0} v2={84} />
      <Body frame={frame} from={sketch.feature - insert} to={sketch.feature} v1={-84} v2={24} />
      <Words at={{ x: label.x - 8, y: label.y + (frame.upright ? 16 : 0) }} anchor="end" plain>
        insert
      </Words>
      {sketch.zero !== sketch.feature && (
        <ZeroLine frame={frame} at={sketch.zero} reach={104} name={`${sketch.axis}0`} />
      )}
      {sides.map(({ field, at, v, to, name }) => {
        const centre = frame.place(at, v)
        const { lit, known } = mark(field)
        return (
          <Of key={field} field={field} mark={mark}>
            <Scribe
              from={centre}
              to={frame.place(sketch.feature, v)}
              ink="measured"
              lit={lit}
              known={known}
            />
            <Head
              at={frame.place(sketch.feature, v)}
              dx={frame.place(sketch.feature, v).x - centre.x}
              dy={frame.place(sketch.feature, v).y - centre.y}
              ink="measured"
            />
            <circle
              cx={centre.x}
              cy={centre.y}
              r={13}
              fill="var(--color-layout)"
              stroke="var(--color-brass)"
              strokeWidth={lit ? 4 : 2}
              className="lights-up"
            />
            <circle cx={centre.x} cy={centre.y} r={2.5} fill="var(--color-brass)" />
            <SwingWords
              frame={frame}
              from={at}
              to={sketch.feature}
              v={v}
              label={bothKnown ? formatLength(sketch.tip / 2, unit) : '?'}
            />
            <Position
              frame={frame}
              at={at}
              from={v + Math.sign(v) * 13}
              to={to}
              name={name}
              label={number(field, at)}
              lit={lit}
              known={known}
            />
          </Of>
        )
      })}
      {sketch.zero === sketch.feature && (
        <ZeroLine frame={frame} at={sketch.zero} reach={104} name={`${sketch.axis}0`} />
      )}
      <DrawingPosition {...props} v={128} base={84} />
    </>
  )
}

function ToolOnBlock(props: PartProps) {
  const { sketch, frame, mark, number } = props
  const at = sketch.spindles[0]?.at ?? 0
  const tip = at - sketch.toolLength
  const nose = frame.place(at, 0)
  return (
    <>
      <Body frame={frame} from={sketch.body.from} to={sketch.feature} v1={-110} v2={70} />
      <Of field="blockHeight" mark={mark}>
        <rect
          {...box(frame, sketch.feature, tip, -40, 40)}
          fill="var(--color-brass)"
          fillOpacity={0.25}
          stroke="var(--color-brass)"
          strokeWidth={mark('blockHeight').lit ? 4 : 2}
          className="lights-up"
        />
        {sketch.blockHeight !== 0 && (
          <Dimension
            frame={frame}
            from={sketch.feature}
            to={tip}
            v={88}
            base={40}
            ink="measured"
            name="block"
            label={number('blockHeight', sketch.blockHeight)}
            {...state(mark('blockHeight'))}
          />
        )}
      </Of>
      <Of field="toolLength" mark={mark}>
        <rect
          {...box(frame, tip, at, -9, 9)}
          fill="var(--color-layout)"
          stroke="var(--color-scribe)"
          strokeWidth={mark('toolLength').lit || mark('tool').lit ? 4 : 2}
          className="lights-up"
        />
        <Dimension
          frame={frame}
          from={tip}
          to={at}
          v={88}
          base={10}
          ink="measured"
          name="tool length"
          label={number('toolLength', sketch.toolLength)}
          {...state(mark('toolLength'))}
        />
      </Of>
      <path
        d={`M ${nose.x - 34} ${nose.y} h 68 l 12 -26 h -92 z`}
        fill="var(--color-layout-deep)"
        stroke="var(--color-scribe)"
        strokeWidth={2}
      />
      <Of field="machinePosition" mark={mark}>
        <Position
          frame={frame}
          at={at}
          from={-34}
          to={-62}
          name="machine"
          label={number('machinePosition', at)}
          {...state(mark('machinePosition'))}
        />
      </Of>
      <ZeroLine frame={frame} at={sketch.zero} reach={132} name="Z0" />
      <DrawingPosition {...props} v={-92} base={-60} />
    </>
  )
}

const TOWARDS: Record<Sketch['axis'], string> = {
  X: 'X+ is the spindle going right',
  Y: 'Y+ is the spindle going away from you',
  Z: 'Z+ is the spindle going up',
}
const TABLE_GOES = { X: 'here the table goes left', Y: 'here the table comes towards you' }

/** A plan (X, Y) or side view (Z) of the pickup, computed from what has been typed so far. */
export function PickupDrawing({ sketch, unit, machine, lit, value, last, onPick }: PickupDrawingProps) {
  const upright = sketch.axis !== 'X'
  const room = upright
    ? { upright, from: 420, to: 50, middle: 196 }
    : { upright, from: 44, to: WIDTH - 44, middle: 204 }
  const along = frame(sketch.least, sketch.greatest, room)
  const parts: PartProps = {
    sketch,
    frame: along,
    unit,
    mark: (field) => ({
      lit: lit === field,
      known: sketch.known.has(field),
      onPointerDown: () => onPick(field),
    }),
    number: (field, of) => (sketch.known.has(field) ? formatLength(of, unit) : '?'),
  }
  const bar = upright
    ? { upright, from: 410, to: 60, middle: WIDTH - 30 }
    : { upright, from: 44, to: WIDTH - 44, middle: HEIGHT - 88 }
  const { axis } = sketch
  const moving = axis !== 'Z' && machine.tableMoves[axis] ? `${TABLE_GOES[axis]}, the spindle stands` : ''
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`${axis === 'Z' ? 'Side view' : 'Plan view'} of the pickup along ${axis}`}
      className="on-layout h-full max-h-[31.5rem] w-full rounded-sm bg-layout"
    >
      {sketch.method === 'edge-finder' && <EdgeFinder {...parts} directionLit={lit === 'direction'} />}
      {sketch.method === 'indicator' && <Indicator {...parts} />}
      {sketch.method === 'tool-on-block' && <ToolOnBlock {...parts} />}
      <TravelBar machine={machine} axis={axis} unit={unit} room={bar} value={value} last={last} />
      <Words at={{ x: 14, y: HEIGHT - (moving ? 32 : 14) }} anchor="start" plain>
        {TOWARDS[axis]}
      </Words>
      {moving && (
        <Words at={{ x: 14, y: HEIGHT - 13 }} anchor="start" plain>
          {moving}
        </Words>
      )}
    </svg>
  )
}

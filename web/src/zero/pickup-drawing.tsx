import type { Machine } from '@dogleg/core/machine'
import type { ChoiceName, FieldName, Sketch } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { frame } from '../drawing/frame.ts'
import { Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'
import { TravelBar } from '../drawing/travel-bar.tsx'
import { EdgeFinder } from './drawings/edge-finder.tsx'
import { Indicator } from './drawings/indicator.tsx'
import { Middle } from './drawings/middle.tsx'
import type { PartProps } from './drawings/parts.tsx'
import { Shown } from './drawings/shown.tsx'
import { Sweep } from './drawings/sweep.tsx'
import { ToolOnBlock } from './drawings/tool-on-block.tsx'
import { Turned } from './drawings/turned.tsx'

export type LitField = FieldName | ChoiceName | undefined

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

const TOWARDS: Record<Sketch['axis'], string> = {
  X: 'X+ is the spindle going right',
  Y: 'Y+ is the spindle going away from you',
  Z: 'Z+ is the spindle going up',
}
const ON_LATHE: Record<Sketch['axis'], string> = {
  X: 'X+ is away from the centre line, in diameters',
  Y: '',
  Z: 'Z+ is away from the chuck',
}
const TABLE_GOES = { X: 'here the table goes left', Y: 'here the table comes towards you' }

/** A plan (X, Y) or side view (Z) of the pickup, computed from what has been typed so far. */
export function PickupDrawing({ sketch, unit, machine, lit, value, last, onPick }: PickupDrawingProps) {
  const { axis, kind } = sketch
  const onLathe = machine.kind === 'lathe'
  // On a lathe Z lies along the bar, to the right, and X stands up.
  const upright = onLathe ? axis === 'X' : axis !== 'X'
  const room = upright
    ? { upright, from: 420, to: 50, middle: 196 }
    : { upright, from: 44, to: WIDTH - 44, middle: 204 }
  const along = frame(sketch.least, sketch.greatest, room)
  const parts: PartProps = {
    sketch,
    frame: along,
    unit,
    mark: (field) => ({ lit: lit === field, known: sketch.known.has(field) }),
    onPick,
    number: (field, of) => (sketch.known.has(field) ? formatLength(of, unit) : '?'),
    length: (of) => formatLength(of, unit),
    typed: (field) => {
      const value = sketch.values[field]
      return value === undefined ? '?' : formatLength(value, unit, { plus: true })
    },
  }
  const bar = upright
    ? { upright, from: 410, to: 60, middle: WIDTH - 30 }
    : { upright, from: 44, to: WIDTH - 44, middle: HEIGHT - 88 }
  const moving =
    axis !== 'Z' && !onLathe && machine.tableMoves[axis] ? `${TABLE_GOES[axis]}, the spindle stands` : ''
  return (
    <CycleSheet
      label={`${axis === 'Z' && !onLathe ? 'Side view' : 'Plan view'} of the pickup along ${axis}${kind === 'sweep' ? ', a bore or boss' : ''}`}
      width={WIDTH}
      height={HEIGHT}
      tallest="max-h-[31.5rem]"
    >
      {sketch.kind === 'face' && <EdgeFinder {...parts} directionLit={lit === 'direction'} />}
      {sketch.kind === 'plane' && <Indicator {...parts} />}
      {sketch.kind === 'middle' && <Middle {...parts} />}
      {sketch.kind === 'sweep' && <Sweep {...parts} />}
      {sketch.kind === 'height' && <ToolOnBlock {...parts} />}
      {(sketch.kind === 'turned' || sketch.kind === 'faced') && <Turned {...parts} />}
      {sketch.kind === 'shown' && <Shown {...parts} />}
      <TravelBar machine={machine} axis={axis} unit={unit} room={bar} value={value} last={last} />
      <Words at={{ x: 14, y: HEIGHT - 14 }} row={moving ? -1 : 0} anchor="start" plain>
        {onLathe ? ON_LATHE[axis] : TOWARDS[axis]}
      </Words>
      {moving && (
        <Words at={{ x: 14, y: HEIGHT - 14 }} anchor="start" plain>
          {moving}
        </Words>
      )}
    </CycleSheet>
  )
}

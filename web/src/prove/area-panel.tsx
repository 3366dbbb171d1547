import type { Body, BodyRole, Layout } from '@dogleg/core/prove'
import { formatLength, type LengthUnit, readLength } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'
import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { NewBody } from './new-body.tsx'

/** What a new body is called. */
const nameOf = (role: BodyRole, count: number) =>
  role === 'part' || role === 'chuck' ? role : `${role} ${count + 1}`

const ROLES: Record<'mill' | 'lathe', readonly [BodyRole, string][]> = {
  mill: [
    ['part', 'Part'],
    ['vise', 'Vise jaw'],
    ['clamp', 'Clamp'],
    ['stop', 'Stop'],
  ],
  lathe: [
    ['part', 'Bar'],
    ['chuck', 'Chuck'],
    ['stop', 'Tailstock'],
  ],
}

type Field = {
  label: string
  get: (body: Body) => number
  set: (body: Body, value: number) => Body
  size: boolean
  /** Said under the field. */
  hint?: string
  /** What is wrong with a value that is understood. */
  wrong?: (body: Body, value: number) => string | undefined
}

const atField = (label: string, axis: 'x' | 'y' | 'z'): Field => ({
  label,
  get: (body) => body.at[axis],
  set: (body, value) => ({ ...body, at: { ...body.at, [axis]: value } }),
  size: false,
})
const sizeField = (label: string, axis: 'x' | 'y' | 'z'): Field => ({
  label,
  get: (body) => (body.shape === 'box' ? body.size[axis] : 0),
  set: (body, value) => (body.shape === 'box' ? { ...body, size: { ...body.size, [axis]: value } } : body),
  size: true,
})
const roundField = (label: string, name: 'diameter' | 'length'): Field => ({
  label,
  get: (body) => (body.shape === 'cylinder' ? body[name] : 0),
  set: (body, value) => (body.shape === 'cylinder' ? { ...body, [name]: value } : body),
  size: true,
})

/** A tube on a lathe: 0 for a full bar. */
const BORE: Field = {
  label: 'Bore',
  get: (body) => (body.shape === 'cylinder' && body.bore) || 0,
  set: (body, value) => {
    if (body.shape === 'box') return body
    const { bore: _, ...full } = body
    return value > 0 ? { ...full, bore: value } : full
  },
  size: false,
  hint: '0 where it is full.',
  wrong: (body, value) =>
    value < 0 || (body.shape === 'cylinder' && value >= body.diameter)
      ? 'From 0 to less than the diameter.'
      : undefined,
}

const BOX_FIELDS = [
  atField('X from', 'x'),
  atField('Y from', 'y'),
  atField('Z from', 'z'),
  sizeField('X long', 'x'),
  sizeField('Y long', 'y'),
  sizeField('Z high', 'z'),
]
const ROUND_FIELDS = [
  atField('X of its end', 'x'),
  atField('Y of its end', 'y'),
  atField('Z of its end', 'z'),
  roundField('Diameter', 'diameter'),
  roundField('Length', 'length'),
]

/** A box becomes a cylinder of the same middle, and the other way round. */
function reshaped(body: Body, to: 'box' | 'X' | 'Y' | 'Z'): Body {
  const { id, name, role, at } = body
  const common = { id, name, role }
  if (to === 'box') {
    if (body.shape === 'box') return body
    const d = body.diameter
    return { ...common, shape: 'box', at, size: { x: d, y: d, z: body.axis === 'Z' ? body.length : d } }
  }
  if (body.shape === 'cylinder') return { ...body, axis: to }
  return {
    ...common,
    shape: 'cylinder',
    axis: to,
    at,
    diameter: Math.min(body.size.x, body.size.y),
    length: body.size.z,
  }
}

interface AreaPanelProps {
  layout: Layout
  /** The offset whose part zero the places count from. */
  offset: OffsetState
  lathe: boolean
  lit: string | undefined
  onLit: (id: string | undefined) => void
  onChange: (layout: Layout) => void
  /** Differs from what is in the log. */
  changed: boolean
  onRecord: () => void
}

/** What stands in the work area, placed by typing or by dragging it in the pictures. */
export function AreaPanel({
  layout,
  offset,
  lathe,
  lit,
  onLit,
  onChange,
  changed,
  onRecord,
}: AreaPanelProps) {
  const { unit, bodies } = layout
  const body = bodies.find(({ id }) => id === lit) ?? bodies[0]
  const [adding, setAdding] = useState<BodyRole>()
  const put = (next: Body) =>
    onChange({ unit, bodies: bodies.map((each) => (each.id === next.id ? next : each)) })
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap gap-2">
        {bodies.map(({ id, name }) => (
          <Button
            key={id}
            aria-pressed={id === body?.id && !adding}
            look={id === body?.id && !adding ? 'primary' : 'plain'}
            onClick={() => {
              setAdding(undefined)
              onLit(id)
            }}
            className="px-3!"
          >
            {name}
          </Button>
        ))}
        {ROLES[lathe ? 'lathe' : 'mill'].map(([role, says]) => (
          <Button
            key={role}
            look="quiet"
            className="px-2!"
            aria-label={`Add: ${says}`}
            aria-pressed={adding === role}
            onClick={() => setAdding(role)}
          >
            <Plus aria-hidden size={18} /> {says}
          </Button>
        ))}
      </div>
      {adding ? (
        <NewBody
          key={adding}
          role={adding}
          name={nameOf(adding, bodies.filter((each) => each.role === adding).length)}
          offset={offset}
          bodies={bodies}
          onPlace={(placed) => {
            setAdding(undefined)
            onChange({ unit, bodies: [...bodies, ...placed] })
            onLit(placed[0]?.id)
          }}
          onCancel={() => setAdding(undefined)}
        />
      ) : body ? (
        <BodyFields
          key={body.id}
          body={body}
          unit={unit}
          lathe={lathe}
          onChange={put}
          onRemove={() => onChange({ unit, bodies: bodies.filter(({ id }) => id !== body.id) })}
          changed={changed}
          onRecord={onRecord}
        />
      ) : (
        <p className="max-w-prose text-ink-soft">
          Nothing is placed yet. Begin with the part: its corner as it lies from part zero, and how large it
          is. Then what stands beside it and above it.
        </p>
      )}
    </div>
  )
}

function BodyFields({
  body,
  unit,
  lathe,
  onChange,
  onRemove,
  changed,
  onRecord,
}: {
  body: Body
  unit: LengthUnit
  lathe: boolean
  onChange: (body: Body) => void
  onRemove: () => void
  changed: boolean
  onRecord: () => void
}) {
  const round = lathe ? [...ROUND_FIELDS, BORE] : ROUND_FIELDS
  const fields = (body.shape === 'box' ? BOX_FIELDS : round).filter(
    ({ label }) => !lathe || !/^[XY] /.test(label),
  )
  /** What is being typed, by field; a field that is left alone shows the body's own value. */
  const [typed, setTyped] = useState<Record<string, string>>({})
  return (
    <div>
      <div className="grid grid-cols-2 gap-x-3 sm:grid-cols-3">
        {fields.map((field) => {
          const text = textIn(field, body, typed[field.label], unit)
          return (
            <LengthEntryField
              key={field.label}
              label={field.label}
              unit={unit}
              narrow
              value={text}
              onChange={(next) => {
                setTyped({ ...typed, [field.label]: next })
                const read = readLength(next, unit)
                if (read.ok && !refused(field, body, next, unit)) onChange(field.set(body, read.value))
              }}
              hint={field.hint}
              wrong={refused(field, body, text, unit)}
            />
          )
        })}
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-44">
          <TextEntry
            words
            label="Name"
            narrow
            value={body.name}
            maxLength={30}
            onChange={(name) => onChange({ ...body, name: name || ' ' })}
          />
        </div>
        {!lathe && (
          <label className="mb-5 font-semibold">
            Shape
            <select
              value={body.shape === 'box' ? 'box' : body.axis}
              onChange={({ target }) => onChange(reshaped(body, target.value as 'box' | 'X' | 'Y' | 'Z'))}
              className="mt-0.5 block h-12 rounded-sm border border-ink-soft bg-white/60 px-2 font-normal"
            >
              <option value="box">box</option>
              <option value="Z">standing cylinder</option>
              <option value="X">cylinder along X</option>
              <option value="Y">cylinder along Y</option>
            </select>
          </label>
        )}
        <Button onClick={onRemove} className="mb-5 min-h-12">
          <Trash2 aria-hidden size={18} /> Take it away
        </Button>
        <Button
          look={changed ? 'primary' : 'plain'}
          disabled={!changed}
          onClick={onRecord}
          className="mb-5 ml-auto min-h-12"
        >
          {changed ? 'Record the work area' : 'Recorded'}
        </Button>
      </div>
    </div>
  )
}

/** What the body has against a length that is typed in one of its fields; undefined where it takes it, or cannot read it. */
function refused({ size, wrong }: Field, body: Body, text: string, unit: LengthUnit): string | undefined {
  const read = readLength(text, unit)
  if (!read.ok) return undefined
  return size && read.value <= 0 ? 'More than zero.' : wrong?.(body, read.value)
}

/** What stands in a field: what was typed, as long as it means the body's value or was refused; after a drag the value. */
function textIn(field: Field, body: Body, text: string | undefined, unit: LengthUnit): string {
  const value = field.get(body)
  if (text === undefined) return formatLength(value, unit)
  const read = readLength(text, unit)
  const stays = !read.ok || Math.abs(read.value - value) < 1e-9 || refused(field, body, text, unit)
  return stays ? text : formatLength(value, unit)
}

import type { Vise } from '@dogleg/core/hold'
import { type BodyNumbers, jawsRound, knownBody } from '@dogleg/core/prepare'
import { type Body, type BodyRole, body as bodySchema } from '@dogleg/core/prove'
import { formatLength, type LengthUnit, readLength } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'
import { Check, X } from 'lucide-react'
import { useState } from 'react'
import { newId } from '../log/clock.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'

type Field = keyof BodyNumbers

const BOX: readonly (readonly [Field, string])[] = [
  ['sizeX', 'X long'],
  ['sizeY', 'Y long'],
  ['sizeZ', 'Z high'],
  ['x', 'X from'],
  ['y', 'Y from'],
  ['z', 'Z from'],
]
const ROUND: readonly (readonly [Field, string])[] = [
  ['diameter', 'Diameter'],
  ['length', 'Length'],
  ['z', 'Z of its end'],
]
const SIZES: readonly Field[] = ['sizeX', 'sizeY', 'sizeZ', 'diameter', 'length']

/** Said under a number that the log knows. */
const KNOWN = 'calculated; type over'

interface NewBodyProps {
  role: BodyRole
  name: string
  offset: OffsetState
  /** What is placed already. */
  bodies: readonly Body[]
  onPlace: (bodies: Body[]) => void
  onCancel: () => void
}

/** A body that is about to be placed: nothing of it stands in the work area before its numbers are typed. */
export function NewBody(props: NewBodyProps) {
  const { setup } = useOpenSetup()
  const { role, bodies } = props
  const [byHand, setByHand] = useState(false)
  const vise = setup.hold.clearance?.vise
  const part = bodies.find((each) => each.role === 'part' && each.shape === 'box')
  return role === 'vise' && vise && part && !byHand ? (
    <Jaws {...props} vise={vise} part={part} onByHand={() => setByHand(true)} />
  ) : (
    <Typed {...props} />
  )
}

/** The keys under a form: what places it, and the way back. */
const Keys = ({ says, ready, onCancel }: { says: string; ready: boolean; onCancel: () => void }) => (
  <div className="flex flex-wrap items-center gap-3">
    <Button type="submit" look="primary" disabled={!ready} className="min-h-12">
      <Check aria-hidden size={18} /> {says}
    </Button>
    <Button onClick={onCancel} className="min-h-12">
      <X aria-hidden size={18} /> Not now
    </Button>
  </div>
)

const lengthsOf = (typed: Readonly<Record<string, string>>, unit: LengthUnit) =>
  Object.fromEntries(
    Object.entries(typed).flatMap(([field, text]) => {
      const read = readLength(text, unit)
      return read.ok ? [[field, read.value]] : []
    }),
  ) as BodyNumbers

function Typed({ role, name, offset, onPlace, onCancel }: NewBodyProps) {
  const { setup } = useOpenSetup()
  const { unit, machine } = setup
  const lathe = machine.kind === 'lathe'
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({})
  const own = lengthsOf(typed, unit)
  const known = role === 'part' ? knownBody(setup, offset, own) : { numbers: {}, why: [] }
  const fields = lathe ? ROUND : BOX
  const wrong = (field: Field): string | undefined => {
    const text = typed[field] ?? ''
    const read = readLength(text, unit)
    if (text.trim() !== '' && !read.ok) return read.says
    return SIZES.includes(field) && (own[field] ?? 1) <= 0 ? 'More than zero.' : undefined
  }
  const { numbers } = known
  const value = (field: Field) => (typed[field]?.trim() ? own[field] : numbers[field])
  const made = bodySchema.safeParse({
    id: newId().toLowerCase(),
    name,
    role,
    ...(lathe
      ? {
          shape: 'cylinder',
          axis: 'Z',
          at: { x: 0, y: 0, z: value('z') },
          diameter: value('diameter'),
          length: value('length'),
        }
      : {
          shape: 'box',
          at: { x: value('x'), y: value('y'), z: value('z') },
          size: { x: value('sizeX'), y: value('sizeY'), z: value('sizeZ') },
        }),
  })
  return (
    <form
      aria-label={`Place: ${name}`}
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        if (made.success) onPlace([made.data])
      }}
    >
      {known.why.length > 0 && <p className="text-ink-soft">{sentence(known.why)}</p>}
      <div className="grid grid-cols-2 gap-x-3 sm:grid-cols-3 lg:grid-cols-6">
        {fields.map(([field, label]) => (
          <LengthEntryField
            key={field}
            label={label}
            unit={unit}
            narrow
            value={typed[field] ?? ''}
            onChange={(text) => setTyped({ ...typed, [field]: text })}
            placeholder={numbers[field] === undefined ? undefined : formatLength(numbers[field], unit)}
            hint={numbers[field] === undefined ? undefined : KNOWN}
            wrong={wrong(field)}
          />
        ))}
      </div>
      <Keys says="Place it" ready={made.success} onCancel={onCancel} />
    </form>
  )
}

const sentence = (parts: readonly string[]) => {
  const text = parts.join('; ')
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`
}

interface JawsProps extends NewBodyProps {
  vise: Vise
  part: Body
  onByHand: () => void
}

/** The jaws of the vise of Hold, round the part. */
function Jaws({ vise, part, onPlace, onCancel, onByHand }: JawsProps) {
  const { setup } = useOpenSetup()
  const { unit } = setup
  const [above, setAbove] = useState('')
  const [fromLeft, setFromLeft] = useState('')
  const [one, other] = [readLength(above, unit), readLength(fromLeft, unit)]
  const bodies =
    one.ok && other.ok ? jawsRound(vise, part, unit, { above: one.value, fromLeft: other.value }) : []
  const tooWide = one.ok && other.ok && bodies.length < 2
  const told = (text: string, read: ReturnType<typeof readLength>) =>
    text.trim() !== '' && !read.ok ? read.says : undefined
  return (
    <form
      aria-label={`Place: the jaws of ${vise.name}`}
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        if (bodies.length > 0) onPlace(bodies.map((each) => ({ ...each, id: newId().toLowerCase() })))
      }}
    >
      <p className="text-ink-soft">
        The jaws of {vise.name}, as in Hold: the fixed one at the back of the part, the moving one in front of
        it.
      </p>
      <div className="grid grid-cols-2 gap-x-3">
        <LengthEntryField
          label="Part above the jaws"
          unit={unit}
          narrow
          value={above}
          onChange={setAbove}
          hint="How far it stands out."
          wrong={told(above, one)}
        />
        <LengthEntryField
          label="Left jaw end to part"
          unit={unit}
          narrow
          value={fromLeft}
          onChange={setFromLeft}
          hint="Along X; minus: part sticks out."
          wrong={told(fromLeft, other)}
        />
      </div>
      {tooWide && (
        <p role="alert" className="font-semibold">
          {vise.name} has no two jaws that open so far. Correct the part or the vise, or type a body.
        </p>
      )}
      <Keys says="Place the jaws" ready={bodies.length > 0 && !tooWide} onCancel={onCancel} />
      <Button look="quiet" onClick={onByHand} className="mt-1 px-2">
        Type a body instead
      </Button>
    </form>
  )
}

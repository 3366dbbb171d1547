import type { Machine } from '@dogleg/core/machine'
import {
  type ChoiceName,
  type Field,
  type FieldName,
  METHODS,
  type MethodChoice,
  methodsFor,
  type PickupDraft,
  type PickupMethod,
  readToolNumber,
  understoodPosition,
} from '@dogleg/core/pickup'
import { formatLength, type LengthUnit, readDegrees, unitSymbol } from '@dogleg/core/quantity'
import type { ToolFact } from '@dogleg/core/setup'
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from 'lucide-react'
import { useId } from 'react'
import { PositionEntry, TouchListEntry } from '../positions/position-entry.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { KnownKey } from '../ui/known-key.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Select } from '../ui/select.tsx'

type Problems = Partial<Record<FieldName | ChoiceName, { says: string; empty: boolean }>>

interface PickupFieldsProps {
  draft: PickupDraft
  unit: LengthUnit
  machine: Machine
  /** The machine's tool table, in the setup's unit. */
  tools: readonly ToolFact[]
  problems: Problems
  lit: FieldName | ChoiceName | undefined
  onLit: (field: FieldName | ChoiceName) => void
  onField: (field: FieldName, text: string) => void
  onChoice: (choice: ChoiceName, value: string) => void
  /** Undefined where the method is given. */
  onMethod: ((method: PickupMethod) => void) | undefined
}

const ARROWS = {
  X: { '+': ArrowRight, '-': ArrowLeft },
  Y: { '+': ArrowUp, '-': ArrowDown },
}

const displayHint = ({ name, unit }: Machine) =>
  `${name} shows ${unit}: write ${unitSymbol(unit)} behind the number.`

/** The way of finding the axis, by what was picked up. */
function MethodPicker({
  draft,
  machine,
  onMethod,
}: Pick<PickupFieldsProps, 'draft' | 'machine' | 'onMethod'>) {
  const id = useId()
  const methods = methodsFor(draft.axis, machine)
  const features = [...new Set(methods.map((method) => METHODS[method].feature))]
  if (methods.length < 2 || !onMethod) return null
  return (
    <div>
      <label htmlFor={id} className="font-semibold">
        Found with
      </label>
      <Select
        id={id}
        className="mt-0.5 block w-full"
        value={draft.method}
        onChange={({ target }) => onMethod(target.value as PickupMethod)}
      >
        {features.map((feature) => (
          <optgroup key={feature} label={feature}>
            {methods
              .filter((method) => METHODS[method].feature === feature)
              .map((method) => (
                <option key={method} value={method}>
                  {METHODS[method].name}
                </option>
              ))}
          </optgroup>
        ))}
      </Select>
    </div>
  )
}

/** The way into a face, as arrows of the axis. */
function DirectionChoice({
  draft,
  choice,
  problems,
  onChoice,
  onLit,
}: Pick<PickupFieldsProps, 'draft' | 'problems' | 'onChoice' | 'onLit'> & { choice: MethodChoice }) {
  const told = useId()
  const axis = draft.axis === 'Y' ? 'Y' : 'X'
  const value = draft.choices[choice.name]
  return (
    <div data-open={value ? undefined : true}>
      <Choice
        label={choice.label}
        value={value === '+' || value === '-' ? value : undefined}
        onChange={(way) => onChoice(choice.name, way)}
        onFocus={() => onLit(choice.name)}
        describedBy={told}
        options={(['+', '-'] as const).map((way) => {
          const Arrow = ARROWS[axis][way]
          return {
            value: way,
            label: (
              <span className="flex items-center gap-2 text-xl">
                <Arrow aria-hidden size={22} /> {axis}
                {way === '+' ? '+' : '−'}
              </span>
            ),
          }
        })}
      />
      <p id={told} className="min-h-5 text-sm text-ink-soft">
        {problems[choice.name]?.says}
      </p>
    </div>
  )
}

const SHORT: Partial<Record<ChoiceName, string>> = { directionX: 'Into X face', directionY: 'Into Y face' }

/** The other choices of a method, side by side. */
function ChoiceRow({
  draft,
  choices,
  onChoice,
  onLit,
}: Pick<PickupFieldsProps, 'draft' | 'onChoice' | 'onLit'> & { choices: readonly MethodChoice[] }) {
  if (choices.length === 0) return null
  return (
    <div className={`grid gap-x-3 ${choices.length > 2 ? 'grid-cols-3' : 'grid-cols-2'}`}>
      {choices.map(({ name, label, options }) => {
        const axis = name === 'directionX' ? 'X' : name === 'directionY' ? 'Y' : ''
        const chosen = draft.choices[name]
        return (
          <PickOne
            key={name}
            label={SHORT[name] ?? label}
            value={chosen ?? ''}
            onChange={(value) => onChoice(name, value)}
            onFocus={() => onLit(name)}
            options={[
              ...(chosen ? [] : [['', 'choose'] as const]),
              ...options.map(
                ([value, says]) => [value, axis ? `${axis}${says === '-' ? '−' : says}` : says] as const,
              ),
            ]}
          />
        )
      })}
    </div>
  )
}

/** What the tool table has for the tool that is typed. */
function inTable(draft: PickupDraft, tools: readonly ToolFact[]): ToolFact | undefined {
  const typed = readToolNumber(draft.fields.tool ?? '')
  return typed.ok ? tools.find(({ tool }) => tool === typed.value) : undefined
}

/** The length of the tool table, a press away; one that is stale is not offered. */
function TakeLength({
  of,
  unit,
  value,
  onTake,
}: {
  of: ToolFact
  unit: LengthUnit
  value: string
  onTake: (text: string) => void
}) {
  const text = formatLength(of.length.value, unit)
  if (of.freshness.state === 'stale' || value.trim() === text) return null
  return <KnownKey label={`Take the measured length of T${of.tool}`} text={text} onTake={onTake} />
}

/** How many touches a list holds. */
function touches(value: string) {
  const n = value.trim().split('\n').length
  return n === 1 ? '1 touch' : `${n} touches`
}

function OneField({
  field,
  draft,
  unit,
  machine,
  tools,
  problems,
  lit,
  onField,
  onLit,
}: Pick<
  PickupFieldsProps,
  'draft' | 'unit' | 'machine' | 'tools' | 'problems' | 'lit' | 'onField' | 'onLit'
> & {
  field: Field
}) {
  const { name, reads, label } = field
  const told = problems[name]
  const wrong = told && !told.empty ? told.says : undefined
  const value = draft.fields[name] ?? ''
  const known = name === 'toolLength' ? inTable(draft, tools) : undefined
  const common = {
    label,
    value,
    onChange: (text: string) => onField(name, text),
    hint:
      machine.unit !== unit && reads === 'position'
        ? displayHint(machine)
        : name === 'toolLength' && known
          ? `Tool table: ${formatLength(known.length.value, unit)}${known.freshness.state === 'stale' ? ', stale' : ''}`
          : field.hint,
    lit: lit === name,
    narrow: field.half,
    onFocus: () => onLit(name),
  }
  if (reads === 'points')
    return (
      <TouchListEntry
        label={label}
        value={value}
        onChange={common.onChange}
        lit={common.lit}
        onFocus={common.onFocus}
        hint={field.hint}
        unit={unit}
        rows={draft.method === 'corner' ? 2 : 4}
        wrong={wrong}
        understood={told || !value.trim() ? undefined : touches(value)}
      />
    )
  if (reads === 'position')
    return (
      <PositionEntry
        {...common}
        axis={draft.axis}
        unit={unit}
        suffix={unitSymbol(unit)}
        wrong={wrong}
        understood={understoodPosition(value, unit)}
        maxLength={400}
        several
      />
    )
  if (reads === 'degrees') {
    const angle = readDegrees(value)
    return (
      <TextEntry
        {...common}
        suffix="deg"
        wrong={wrong}
        understood={angle.ok ? `${angle.value} degrees` : undefined}
      />
    )
  }
  return reads === 'tool' ? (
    <TextEntry {...common} wrong={wrong} />
  ) : (
    <LengthEntryField
      {...common}
      unit={unit}
      wrong={wrong}
      action={
        known && <TakeLength of={known} unit={unit} value={value} onTake={(text) => onField(name, text)} />
      }
    />
  )
}

/** Everything that a method's form asks for, in the order of the work. */
export function PickupFields(props: PickupFieldsProps) {
  const { choices, fields } = METHODS[props.draft.method]
  const direction = choices.find(({ name }) => name === 'direction')
  return (
    <>
      <MethodPicker {...props} />
      {direction && <DirectionChoice {...props} choice={direction} />}
      <ChoiceRow {...props} choices={choices.filter((choice) => choice !== direction)} />
      <div className="grid grid-cols-2 gap-x-3 gap-y-1">
        {fields.map((field) => (
          <div
            key={field.name}
            data-field={field.name}
            className={`min-w-0 ${field.half ? '' : 'col-span-2'}`}
          >
            <OneField {...props} field={field} />
          </div>
        ))}
      </div>
    </>
  )
}

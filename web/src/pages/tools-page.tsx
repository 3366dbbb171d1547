import {
  isRoundTool,
  type Machine,
  type ToolKind,
  type ToolShape,
  type ToolSide,
  toolOnLathe,
  toolShape,
} from '@dogleg/core/machine'
import { unitSymbol } from '@dogleg/core/quantity'
import { Plus } from 'lucide-react'
import { FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form'
import { useRows } from '../log/rows.ts'
import { ToolPreview } from '../prove/tool-preview.tsx'
import { NEW } from '../reference/editing.ts'
import { EditorFoot } from '../reference/editor-foot.tsx'
import { Field, Section, SelectField } from '../reference/form-fields.tsx'
import { TOOL_NUMBERS } from '../reference/library-numbers.ts'
import { RowsPage } from '../reference/rows-page.tsx'
import { type Typed, toTyped, typedResolver } from '../reference/typed-form.ts'
import { UnitField } from '../reference/unit-field.tsx'
import { useSave } from '../reference/use-save.ts'
import { Button } from '../ui/button.tsx'

type ToolForm = Typed<ToolShape>
const resolver = typedResolver<ToolShape>(toolShape, TOOL_NUMBERS, ({ unit }) => unit)

const KINDS: Record<ToolKind, string> = {
  mill: 'end mill',
  drill: 'drill',
  tap: 'tap',
  engraver: 'engraver',
  probe: 'probe',
  turning: 'turning tool',
  grooving: 'grooving tool',
}

/** The tools that each machine carries: their shapes, for finding where one hits. */
export const ToolsPage = () => (
  <RowsPage
    noun="tools"
    aside={
      <>
        <NewTool />
        <p className="mt-4 text-sm text-ink-soft">
          Measure what is in the holder. Lengths for the control are taken in the Zero step; these are shapes.
        </p>
      </>
    }
    titleOf={({ number, name }) => `T${number} ${name}`}
    order={(a, b) => a.machineId.localeCompare(b.machineId) || a.number - b.number}
    editor={(tool) => <ToolWhenKnown key={`${tool.id}-${tool.version}`} tool={tool} />}
  />
)

/** A new tool of the first machine, of which nothing is known yet. */
function NewTool() {
  const { data: machines = [] } = useRows('machines')
  const { data: tools = [] } = useRows('tools')
  const { begin } = useSave('tools')
  const [machine] = machines
  if (!machine) return null
  const number =
    Math.max(0, ...tools.filter(({ machineId }) => machineId === machine.id).map((tool) => tool.number)) + 1
  return (
    <Button
      className="mt-3 w-full"
      onClick={() =>
        begin({
          id: NEW,
          version: 1,
          machineId: machine.id,
          number,
          name: '',
          kind: 'mill',
          unit: machine.unit,
          diameter: Number.NaN,
          flute: Number.NaN,
          stickOut: Number.NaN,
          holderDiameter: Number.NaN,
          holderLength: Number.NaN,
          pitch: null,
          note: '',
        })
      }
    >
      <Plus aria-hidden size={20} /> New tool
    </Button>
  )
}

/** A list of machines that came later than its field would show another one than the tool's. */
function ToolWhenKnown({ tool }: { tool: ToolShape }) {
  const { data: machines } = useRows('machines')
  return machines ? (
    <ToolEditor tool={tool} machines={machines} />
  ) : (
    <p className="py-8">Reading the machines…</p>
  )
}

function ToolEditor({ tool, machines }: { tool: ToolShape; machines: readonly Machine[] }) {
  const { save, copy, onTheirs } = useSave('tools')
  const form = useForm<ToolForm, unknown, ToolShape>({
    defaultValues: toTyped(tool, TOOL_NUMBERS),
    resolver,
    mode: 'onTouched',
  })
  const { register, handleSubmit, formState, control, setValue } = form
  const { errors } = formState
  const draft = useWatch({ control }) as ToolForm
  const symbol = unitSymbol(draft.unit)
  const lathe = machines.find(({ id }) => id === draft.machineId)?.kind === 'lathe'
  const insert = lathe && !isRoundTool(draft)
  const stands = draft.onLathe ?? toolOnLathe({ kind: draft.kind })
  return (
    <div className="grid gap-6 xl:grid-cols-[1fr_22rem]">
      <FormProvider {...form}>
        <form onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
          <Section title="What it is">
            <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
            <Field label="Tool number" digits {...register('number')} wrong={errors.number?.message} />
            <SelectField
              label="Kind"
              {...register('kind')}
              onChange={({ target }) => {
                setValue('kind', target.value as ToolKind, { shouldDirty: true })
                setValue('onLathe', undefined, { shouldDirty: true })
                setValue('pitch', target.value === 'tap' ? (draft.pitch ?? '') : null, { shouldDirty: true })
              }}
            >
              {Object.entries(KINDS).map(([value, says]) => (
                <option key={value} value={value}>
                  {says}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Carried by"
              {...register('machineId')}
              onChange={({ target }) => {
                setValue('machineId', target.value, { shouldDirty: true })
                setValue('onLathe', undefined, { shouldDirty: true })
              }}
              className="col-span-2"
            >
              {machines.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            <UnitField<ToolForm>
              label="Lengths in"
              of="this tool"
              name="unit"
              numbers={TOOL_NUMBERS}
              className="col-span-2"
            />
          </Section>
          {lathe && <OnLathe draft={draft} symbol={symbol} />}
          <Section title={lathe ? 'Its shape, from the tip' : 'Its shape, from the tip up'}>
            <Field
              label={`${insert ? 'Insert width' : 'Diameter'}, ${symbol}`}
              digits
              {...register('diameter')}
              wrong={errors.diameter?.message}
            />
            <Field
              label={`${stands.side === 'inside' ? 'Insert out of the bar' : 'Cuts up to'}, ${symbol}`}
              digits
              {...register('flute')}
              wrong={errors.flute?.message}
            />
            <Field
              label={`Out of the holder, ${symbol}`}
              digits
              {...register('stickOut')}
              wrong={errors.stickOut?.message}
            />
            {draft.kind === 'tap' && (
              <Field
                label={`Pitch, ${symbol} a turn`}
                digits
                {...register('pitch')}
                wrong={errors.pitch?.message}
              />
            )}
            <Field
              label={`Holder ${lathe ? 'width' : 'diameter'}, ${symbol}`}
              digits
              {...register('holderDiameter')}
              wrong={errors.holderDiameter?.message}
            />
            <Field
              label={`Holder length, ${symbol}`}
              digits
              {...register('holderLength')}
              wrong={errors.holderLength?.message}
            />
          </Section>
          <EditorFoot
            noun="tool"
            save={save}
            version={tool.version}
            onCopy={() => copy({ ...tool, number: tool.number + 1 })}
            onTheirs={onTheirs}
          />
        </form>
      </FormProvider>
      <div>
        <ToolPreview draft={draft} lathe={lathe} />
      </div>
    </div>
  )
}

const SIDES: Record<'insert' | 'round', readonly [ToolSide, string][]> = {
  insert: [
    ['outside', 'outside: points to the centre line'],
    ['inside', 'inside: on a bar, points outwards'],
    ['face', 'the face: points to the chuck'],
  ],
  round: [
    ['face', 'along Z, towards the chuck'],
    ['outside', 'across, towards the centre line'],
  ],
}

/** How a tool stands on a lathe: what it is for, which corner is programmed, and the bar under its insert. */
function OnLathe({ draft, symbol }: { draft: ToolForm; symbol: string }) {
  const { register, setValue, formState } = useFormContext<ToolForm>()
  const insert = !isRoundTool(draft)
  const stands: NonNullable<ToolForm['onLathe']> = draft.onLathe ?? {
    ...toolOnLathe({ kind: draft.kind }),
    bar: null,
  }
  const { side } = stands
  const put = (onLathe: NonNullable<ToolForm['onLathe']>) =>
    setValue('onLathe', onLathe, { shouldDirty: true, shouldValidate: formState.isSubmitted })
  return (
    <Section title="How it stands">
      <SelectField
        label={insert ? 'Made for' : 'Stands'}
        className="col-span-2"
        value={side}
        onChange={({ target }) => {
          const to = target.value as ToolSide
          put({ ...stands, side: to, bar: to === 'inside' ? (stands.bar ?? '') : null })
        }}
      >
        {SIDES[insert ? 'insert' : 'round'].map(([value, says]) => (
          <option key={value} value={value}>
            {says}
          </option>
        ))}
      </SelectField>
      {insert && (
        <SelectField
          label="Programmed corner"
          value={stands.corner}
          className={side === 'inside' ? '' : 'col-span-2'}
          onChange={({ target }) => put({ ...stands, corner: target.value as 'low' | 'high' })}
        >
          <option value="low">{side === 'face' ? 'towards centre' : 'chuck side'}</option>
          <option value="high">{side === 'face' ? 'outwards' : 'other side'}</option>
        </SelectField>
      )}
      {side === 'inside' && (
        <Field
          label={`Bar thickness, ${symbol}`}
          digits
          {...register('onLathe.bar')}
          wrong={formState.errors.onLathe?.bar?.message}
        />
      )}
    </Section>
  )
}

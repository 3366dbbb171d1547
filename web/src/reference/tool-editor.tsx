import {
  isRoundTool,
  type Machine,
  type ToolKind,
  type ToolShape,
  type ToolSide,
  tipOf,
  toolOnLathe,
  toolShape,
} from '@dogleg/core/machine'
import { unitSymbol } from '@dogleg/core/quantity'
import { FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form'
import { ToolPreview } from '../prove/tool-preview.tsx'
import { EditorFoot } from './editor-foot.tsx'
import { Field, Section, SelectField } from './form-fields.tsx'
import { TOOL_NUMBERS } from './library-numbers.ts'
import { type Typed, toTyped, typedResolver } from './typed-form.ts'
import { UnitField } from './unit-field.tsx'
import { useSave } from './use-save.ts'

type ToolForm = Typed<ToolShape>
const resolver = typedResolver<ToolShape>(toolShape, TOOL_NUMBERS, ({ unit }) => unit)

/** What a tool is called by its kind. */
export const TOOL_KINDS: Record<ToolKind, string> = {
  mill: 'end mill',
  drill: 'drill',
  tap: 'tap',
  engraver: 'engraver',
  probe: 'probe',
  turning: 'turning tool',
  grooving: 'grooving tool',
}

/** The shape of a tool: its form, and its picture beside it. */
export function ToolEditor({ tool, machines }: { tool: ToolShape; machines: readonly Machine[] }) {
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
              value={draft.kind}
              onChange={({ target }) => {
                setValue('kind', target.value as ToolKind, { shouldDirty: true })
                setValue('onLathe', undefined, { shouldDirty: true })
                setValue('pitch', target.value === 'tap' ? (draft.pitch ?? '') : null, { shouldDirty: true })
              }}
            >
              {Object.entries(TOOL_KINDS).map(([value, says]) => (
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
          label="Programmed point"
          value={stands.point === 'corner' ? stands.corner : stands.point}
          className={side === 'inside' ? '' : 'col-span-2'}
          onChange={({ target: { value } }) =>
            put(
              value === 'low' || value === 'high'
                ? { ...stands, corner: value, point: 'corner' }
                : { ...stands, point: value as 'edge' | 'nose' },
            )
          }
        >
          <option value="low">{side === 'face' ? 'corner to the centre' : 'corner, chuck side'}</option>
          <option value="high">{side === 'face' ? 'corner outwards' : 'corner, other side'}</option>
          <option value="edge">edge of the nose</option>
          <option value="nose">middle of the nose</option>
        </SelectField>
      )}
      {insert && (
        <Field
          label={`Nose radius, ${symbol}`}
          digits
          placeholder={draft.unit === 'inch' ? 'such as .0157' : 'such as 0.4'}
          {...register('nose')}
          wrong={formState.errors.nose?.message}
        />
      )}
      {insert && (
        <p>
          <span className="block text-sm text-ink-soft">Tip number</span>
          <span className="digits text-2xl" data-testid="tip-number">
            {tipOf({ kind: draft.kind, onLathe: { ...stands, bar: null } })?.number}
          </span>
        </p>
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

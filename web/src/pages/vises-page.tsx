import { type Vise, vise as viseSchema } from '@dogleg/core/hold'
import { unitSymbol } from '@dogleg/core/quantity'
import { Plus, Trash2 } from 'lucide-react'
import { FormProvider, useFieldArray, useForm } from 'react-hook-form'
import { ViseDrawing } from '../hold/vise-drawing.tsx'
import { EditorFoot } from '../reference/editor-foot.tsx'
import { Field, Section } from '../reference/form-fields.tsx'
import { VISE_NUMBERS } from '../reference/library-numbers.ts'
import { RowsPage } from '../reference/rows-page.tsx'
import { readTyped, type Typed, toTyped, typedResolver } from '../reference/typed-form.ts'
import { UnitField } from '../reference/unit-field.tsx'
import { useSave } from '../reference/use-save.ts'
import { Button } from '../ui/button.tsx'

type ViseForm = Typed<Vise>
const resolver = typedResolver<Vise>(viseSchema, VISE_NUMBERS, ({ unit }) => unit)

const NO_EXTENT = { front: '', back: '' }
const NEW_PART: ViseForm['parts'][number] = {
  name: '',
  open: NO_EXTENT,
  closed: NO_EXTENT,
  bottom: '',
  top: '',
}

/** The vises of the shop: how far each part reaches, open and closed. */
export const VisesPage = () => (
  <RowsPage noun="vises" editor={(vise) => <ViseEditor key={`${vise.id}-${vise.version}`} vise={vise} />} />
)

function ViseEditor({ vise }: { vise: Vise }) {
  const { save, copy, onTheirs } = useSave('vises')
  const form = useForm<ViseForm, unknown, Vise>({
    defaultValues: toTyped(vise, VISE_NUMBERS),
    resolver,
    mode: 'onTouched',
  })
  const { register, handleSubmit, formState, watch, control } = form
  const { fields, append, remove } = useFieldArray({ control, name: 'parts' })
  const { errors } = formState
  const draft = watch()
  const symbol = unitSymbol(draft.unit)
  const read = readTyped(viseSchema, VISE_NUMBERS, draft, draft.unit)
  return (
    <FormProvider {...form}>
      <form className="max-w-4xl" onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
        <Section title="What it is">
          <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
          <UnitField<ViseForm> label="Measured in" of="this vise" name="unit" numbers={VISE_NUMBERS} />
          <Field
            label={`Length of the jaw, ${symbol}`}
            digits
            {...register('jawLength')}
            wrong={errors.jawLength?.message}
          />
        </Section>
        <Section title="How far each part reaches">
          <p className="col-span-full text-sm text-ink-soft">
            Counted from the gripping face of the fixed jaw, plus to the back, minus to the front; heights
            from the table. Measure once with the vise wide open, once closed: the screw end goes out at the
            back as it closes, the handle stands out at the front.
          </p>
          {fields.map(({ id }, index) => {
            const at = `parts.${index}` as const
            const wrong = errors.parts?.[index]
            const number = (label: string, name: 'bottom' | 'top', says: string | undefined) => (
              <Field label={label} digits {...register(`${at}.${name}`)} wrong={says} />
            )
            const reach = (state: 'open' | 'closed', end: 'front' | 'back') => (
              <Field
                label={`${state}, ${end}`}
                digits
                {...register(`${at}.${state}.${end}`)}
                wrong={wrong?.[state]?.[end]?.message}
              />
            )
            return (
              <div
                key={id}
                className="col-span-full grid grid-cols-2 gap-x-3 border-t border-rule py-1 md:grid-cols-4 xl:grid-cols-[1fr_repeat(6,6rem)_3rem]"
              >
                <Field label="Part" {...register(`${at}.name`)} wrong={wrong?.name?.message} />
                {reach('open', 'front')}
                {reach('open', 'back')}
                {reach('closed', 'front')}
                {reach('closed', 'back')}
                {number('lower edge', 'bottom', wrong?.bottom?.message)}
                {number('upper edge', 'top', wrong?.top?.message)}
                <Button
                  look="quiet"
                  className="self-end px-2"
                  aria-label="Take it out"
                  disabled={fields.length === 1}
                  onClick={() => remove(index)}
                >
                  <Trash2 aria-hidden size={20} />
                </Button>
              </div>
            )
          })}
          <div className="col-span-full">
            <Button onClick={() => append(NEW_PART)} disabled={fields.length >= 8}>
              <Plus aria-hidden size={20} /> Another part
            </Button>
          </div>
          <div className="col-span-full max-w-2xl">
            {read.ok ? (
              <ViseDrawing vise={read.row} />
            ) : (
              <p className="text-ink-soft">The picture appears when every number is understood.</p>
            )}
          </div>
        </Section>
        <EditorFoot
          noun="vise"
          save={save}
          version={vise.version}
          onCopy={() => copy(vise)}
          onTheirs={onTheirs}
        />
      </form>
    </FormProvider>
  )
}

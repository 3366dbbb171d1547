import {
  barsTakenBy,
  type Closing,
  type Collet,
  collet as colletSchema,
  type RatioFrom,
} from '@dogleg/core/hold'
import { unitSymbol } from '@dogleg/core/quantity'
import { type FieldErrors, FormProvider, useForm, useWatch } from 'react-hook-form'
import { ColletPreview } from '../hold/collet-preview.tsx'
import { EditorFoot } from '../reference/editor-foot.tsx'
import { CheckField, Field, Section, SelectField } from '../reference/form-fields.tsx'
import { COLLET_NUMBERS } from '../reference/library-numbers.ts'
import { RowsPage } from '../reference/rows-page.tsx'
import { readTyped, type Typed, toTyped, typedResolver } from '../reference/typed-form.ts'
import { UnitField } from '../reference/unit-field.tsx'
import { useSave } from '../reference/use-save.ts'

type ColletForm = Typed<Collet>
/** The unit of the lengths of its form. */
const unitOf = ({ takes }: ColletForm) => takes?.unit ?? 'inch'
const resolver = typedResolver<Collet>(colletSchema, COLLET_NUMBERS, unitOf)

const START: Record<RatioFrom['from'], ColletForm['ratio']> = {
  angle: { from: 'angle', degreesPerSide: '' },
  rule: { from: 'rule', ratio: '' },
  measured: { from: 'measured', ratio: '', doubt: '' },
}
const NO_SIZES = { unit: 'inch', least: '', greatest: '' } as const
const CLOSINGS: Record<Closing, string> = {
  pull: 'pulled into its cone',
  'dead-length': 'at dead length, by a sleeve',
  jaws: 'by jaws on a draw tube',
}

/** The collets and jaws of the shop: how each closes, and how far it moves doing so. */
export const ColletsPage = () => (
  <RowsPage
    noun="collets"
    editor={(collet) => <ColletEditor key={`${collet.id}-${collet.version}`} collet={collet} />}
  />
)

/** What is wrong with a field of whichever way the ratio is known by. */
const ratioWrong = (errors: FieldErrors<ColletForm>, name: 'degreesPerSide' | 'ratio' | 'doubt') =>
  (errors.ratio as Partial<Record<string, { message?: string }>> | undefined)?.[name]?.message

function ColletEditor({ collet }: { collet: Collet }) {
  const { save, copy, onTheirs } = useSave('collets')
  const form = useForm<ColletForm, unknown, Collet>({
    defaultValues: toTyped({ ...collet, takes: barsTakenBy(collet) }, COLLET_NUMBERS),
    resolver,
    mode: 'onTouched',
  })
  const { register, handleSubmit, formState, control, setValue } = form
  const { errors } = formState
  const draft = useWatch({ control }) as ColletForm
  const { from } = draft.ratio
  const read = readTyped(colletSchema, COLLET_NUMBERS, draft, unitOf(draft))
  return (
    <div className="grid gap-6 xl:grid-cols-[1fr_26rem]">
      <FormProvider {...form}>
        <form onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
          <Section title="What it is">
            <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
            <SelectField label="It grips" {...register('closing')} className="col-span-2">
              {Object.entries(CLOSINGS).map(([value, says]) => (
                <option key={value} value={value}>
                  {says}
                </option>
              ))}
            </SelectField>
          </Section>
          <Section title="How far it moves for a change in diameter">
            <SelectField
              label="Known by"
              value={from}
              onChange={({ target }) =>
                setValue('ratio', START[target.value as RatioFrom['from']], { shouldDirty: true })
              }
              className="col-span-2"
            >
              <option value="angle">the angle of its cone</option>
              <option value="rule">a rule of thumb</option>
              <option value="measured">measured bars and lengths</option>
            </SelectField>
            {from === 'angle' && (
              <Field
                label="Cone per side, degrees"
                digits
                {...register('ratio.degreesPerSide')}
                wrong={ratioWrong(errors, 'degreesPerSide')}
                className="col-span-2"
              />
            )}
            {from !== 'angle' && (
              <Field
                label="Ratio, to 1"
                digits
                {...register('ratio.ratio')}
                wrong={ratioWrong(errors, 'ratio')}
              />
            )}
            {from === 'measured' && (
              <Field
                label="known to ±"
                digits
                {...register('ratio.doubt')}
                wrong={ratioWrong(errors, 'doubt')}
              />
            )}
            <div className="col-span-2">
              <CheckField
                label="There is a rule of thumb for it"
                checked={draft.ruleOfThumb !== null}
                onChange={({ target }) =>
                  setValue('ruleOfThumb', target.checked ? '' : null, { shouldDirty: true })
                }
              />
            </div>
            {draft.ruleOfThumb !== null && (
              <Field
                label="Rule of thumb, to 1"
                digits
                {...register('ruleOfThumb')}
                wrong={errors.ruleOfThumb?.message}
                className="col-span-2"
              />
            )}
          </Section>
          <Section title="Bars that it takes">
            <div className="col-span-full">
              <CheckField
                label="The smallest and the largest are known"
                checked={draft.takes !== null}
                onChange={({ target }) =>
                  setValue('takes', target.checked ? NO_SIZES : null, { shouldDirty: true })
                }
              />
            </div>
            {draft.takes && (
              <>
                <UnitField<ColletForm>
                  label="Measured in"
                  of="this collet"
                  name="takes.unit"
                  numbers={COLLET_NUMBERS}
                  className="col-span-2"
                />
                <Field
                  label={`Smallest, ${unitSymbol(draft.takes.unit)}`}
                  digits
                  {...register('takes.least')}
                  wrong={errors.takes?.least?.message}
                />
                <Field
                  label={`Largest, ${unitSymbol(draft.takes.unit)}`}
                  digits
                  {...register('takes.greatest')}
                  wrong={errors.takes?.greatest?.message}
                />
              </>
            )}
          </Section>
          <EditorFoot
            noun="collet"
            save={save}
            version={collet.version}
            onCopy={() => copy(collet)}
            onTheirs={onTheirs}
          />
        </form>
      </FormProvider>
      {read.ok ? <ColletPreview collet={read.row} /> : <p>Correct the fields first.</p>}
    </div>
  )
}

import { type Material, material as materialSchema } from '@dogleg/core/cutting'
import { unitSymbol } from '@dogleg/core/quantity'
import { FormProvider, useForm } from 'react-hook-form'
import { EditorFoot } from '../reference/editor-foot.tsx'
import { Field, Section, SelectField } from '../reference/form-fields.tsx'
import { MATERIAL_NUMBERS } from '../reference/library-numbers.ts'
import { RowsPage } from '../reference/rows-page.tsx'
import { type Typed, toTyped, typedResolver } from '../reference/typed-form.ts'
import { useSave } from '../reference/use-save.ts'

type MaterialForm = Typed<Material>
const resolver = typedResolver<Material>(materialSchema, MATERIAL_NUMBERS, ({ unit }) => unit)

const SPEEDS = [
  ['drilling', 'Drill'],
  ['tapping', 'Cut tap'],
  ['forming', 'Form tap'],
  ['grooving', 'Grooving insert'],
] as const

/** What the shop cuts, and how fast: starting points that the shop corrects. */
export const MaterialsPage = () => (
  <RowsPage
    noun="materials"
    editor={(material) => <MaterialEditor key={`${material.id}-${material.version}`} material={material} />}
  />
)

function MaterialEditor({ material }: { material: Material }) {
  const { save, copy, onTheirs } = useSave('materials')
  const form = useForm<MaterialForm, unknown, Material>({
    defaultValues: toTyped(material, MATERIAL_NUMBERS),
    resolver,
    mode: 'onTouched',
  })
  const { register, handleSubmit, formState, watch } = form
  const { errors } = formState
  const unit = watch('unit')
  const per = unit === 'inch' ? 'ft/min' : 'm/min'
  return (
    <FormProvider {...form}>
      <form className="max-w-4xl" onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
        <Section title="What it is">
          <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
          <SelectField label="Speeds in" {...register('unit')}>
            <option value="inch">feet a minute</option>
            <option value="mm">metres a minute</option>
          </SelectField>
        </Section>
        <Section title="Speeds over the surface">
          <p className="col-span-full text-sm text-ink-soft">
            Cautious starting points: the tool maker’s page comes first. What the shop has found is kept here,
            or from the Code step.
          </p>
          {SPEEDS.map(([name, label]) => (
            <Field
              key={name}
              label={`${label}, ${per}`}
              digits
              {...register(name)}
              wrong={errors[name]?.message}
            />
          ))}
        </Section>
        <Section title="Feeds a turn">
          <Field
            label="Drill, % of its diameter"
            digits
            {...register('drillFeed')}
            wrong={errors.drillFeed?.message}
          />
          <Field
            label={`Grooving, ${unitSymbol(unit)}`}
            digits
            {...register('grooveFeed')}
            wrong={errors.grooveFeed?.message}
          />
          <Field label="Note" {...register('note')} wrong={errors.note?.message} className="col-span-2" />
        </Section>
        <EditorFoot
          noun="material"
          save={save}
          version={material.version}
          onCopy={() => copy(material)}
          onTheirs={onTheirs}
        />
      </form>
    </FormProvider>
  )
}

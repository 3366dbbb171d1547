import type { Machine } from '@dogleg/core/machine'
import { LINEAR_AXES } from '@dogleg/core/machine'
import { unitSymbol } from '@dogleg/core/quantity'
import type { Reference } from '@dogleg/core/setup'
import { useForm } from 'react-hook-form'
import { Navigate, useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import { useReference } from '../log/use-setup.ts'
import { EditorEnd } from '../reference/editor-end.tsx'
import { CheckField, Field, Section, SelectField } from '../reference/form-fields.tsx'
import { type MachineForm, machineResolver, toForm } from '../reference/machine-form.ts'
import { RowList } from '../reference/row-list.tsx'
import { useSave } from '../reference/use-save.ts'

/** The machines of the shop: travels, unit, conventions, and the profile that each one speaks. */
export function MachinesPage() {
  const { id } = useParams()
  const { reference, error } = useReference()
  if (!reference) return error ? <Lost says={error.message} /> : <p className="py-8">Reading the machines…</p>
  const first = reference.machines[0]
  if (!id && first) return <Navigate to={`/machines/${first.id}`} replace />
  const machine = reference.machines.find((each) => each.id === id)
  return (
    <div className="grid gap-6 py-5 md:grid-cols-[14rem_1fr]">
      <div>
        <h1 className="mb-3 text-3xl font-semibold">Machines</h1>
        <RowList noun="machines" rows={reference.machines} />
      </div>
      {machine ? (
        <MachineEditor key={`${machine.id}-${machine.version}`} machine={machine} reference={reference} />
      ) : (
        <p>There is no machine at this address.</p>
      )}
    </div>
  )
}

function MachineEditor({ machine, reference }: { machine: Machine; reference: Reference }) {
  const { save, copy, onTheirs } = useSave('machines')
  const { register, handleSubmit, formState, watch } = useForm<MachineForm, unknown, Machine>({
    defaultValues: toForm(machine),
    resolver: machineResolver(machine),
    mode: 'onTouched',
  })
  const { errors } = formState
  const symbol = unitSymbol(watch('unit'))
  return (
    <form className="max-w-4xl" onSubmit={handleSubmit((row) => save.mutate({ row }))} noValidate>
      <Section title="What it is">
        <Field label="Name" {...register('name')} wrong={errors.name?.message} className="col-span-2" />
        <SelectField label="Position display is in" {...register('unit')}>
          <option value="inch">inch</option>
          <option value="mm">mm</option>
        </SelectField>
        <Field
          label={`Last digit of the display, ${symbol}`}
          digits
          {...register('leastStep')}
          wrong={errors.leastStep?.message}
        />
        <SelectField label="The control speaks" {...register('profileId')} className="col-span-2">
          {reference.profiles.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </SelectField>
        <SelectField label="Tool lengths are measured" {...register('toolLengths')} className="col-span-2">
          <option value="gauge-line">from the gauge line</option>
          <option value="master-tool">against a master tool</option>
        </SelectField>
      </Section>
      <Section title="Travels, in machine positions from home">
        {LINEAR_AXES.map((axis) => (
          <div key={axis} className="col-span-2 grid grid-cols-2 gap-x-4">
            <Field
              label={`${axis} lowest, ${symbol}`}
              digits
              {...register(`axes.${axis}.least`)}
              wrong={errors.axes?.[axis]?.least?.message}
            />
            <Field
              label={`${axis} highest, ${symbol}`}
              digits
              {...register(`axes.${axis}.greatest`)}
              wrong={errors.axes?.[axis]?.greatest?.message}
            />
          </div>
        ))}
        <div className="col-span-2">
          <CheckField label="The table moves in X, the spindle stands" {...register('tableMoves.X')} />
          <CheckField label="The table moves in Y, the spindle stands" {...register('tableMoves.Y')} />
        </div>
      </Section>
      <Section title="Note">
        <Field
          label="What the next person should know about it"
          {...register('note')}
          wrong={errors.note?.message}
          className="col-span-full"
        />
      </Section>
      <EditorEnd
        noun="machine"
        save={save}
        dirty={formState.isDirty}
        version={machine.version}
        onCopy={() => copy(machine)}
        onTheirs={onTheirs}
      />
    </form>
  )
}

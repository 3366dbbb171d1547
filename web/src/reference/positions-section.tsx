import type { MachineKind } from '@dogleg/core/machine'
import { useFormContext, useWatch } from 'react-hook-form'
import { ButtonLink } from '../ui/button.tsx'
import { Field, Section, SelectField } from './form-fields.tsx'
import type { MachineForm } from './machine-form.ts'

const AGENT = { from: 'agent', address: '', device: '', turnedX: 'diameter' } as const

/** Where the machine's positions can be read, so that they need not be typed. */
export function PositionsSection({ id, kind }: { id: string; kind: MachineKind }) {
  const { register, setValue, control, formState } = useFormContext<MachineForm>()
  const source = useWatch({ control, name: 'positions' })
  const errors = formState.errors.positions as { address?: { message?: string } } | undefined
  return (
    <Section title="Positions">
      <SelectField
        label="Machine positions are"
        className="col-span-2"
        value={source?.from ?? 'typed'}
        onChange={({ target: { value } }) =>
          setValue(
            'positions',
            value === 'agent' ? AGENT : value === 'simulated' ? { from: 'simulated' } : null,
            { shouldDirty: true },
          )
        }
      >
        <option value="typed">typed</option>
        <option value="agent">read from an MTConnect agent, or typed</option>
        <option value="simulated">read from the simulated machine, or typed</option>
      </SelectField>
      {source?.from === 'agent' && (
        <>
          <Field
            label="Address of the agent, up to before /probe"
            className="col-span-2"
            {...register('positions.address')}
            wrong={errors?.address?.message}
          />
          <Field
            label="Its name for the machine, if it has several"
            className="col-span-2"
            {...register('positions.device')}
          />
          {kind === 'lathe' && (
            <SelectField label="The agent tells X as a" {...register('positions.turnedX')}>
              <option value="diameter">diameter</option>
              <option value="radius">radius</option>
            </SelectField>
          )}
          <p className="col-span-full text-sm text-ink-soft">
            Only addresses in the shop’s own network are called. Whether the agent tells machine positions,
            and on a lathe diameters: compare once with the machine page of the control.
          </p>
        </>
      )}
      {source?.from === 'simulated' && (
        <ButtonLink to={`/machines/${id}/simulated`} className="col-span-2 self-end">
          To the simulated machine
        </ButtonLink>
      )}
    </Section>
  )
}

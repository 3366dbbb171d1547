import type { MachineKind } from '@dogleg/core/machine'
import { useFormContext, useWatch } from 'react-hook-form'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'
import type { MachineForm } from './machine-form.ts'

type DynamicsForm = NonNullable<MachineForm['dynamics']>

const noDynamics = (kind: MachineKind): DynamicsForm => ({
  acceleration: { X: '', Y: kind === 'mill' ? '' : null, Z: '' },
  smoothing: null,
  topFeed: '',
  cornerTolerance: '',
  spindleTop: '',
  tapTop: '',
  spindleAcceleration: '',
  spindleTimed: false,
  toolChange: '',
  rotary: null,
})

/** How quickly a machine speeds up, for cycle times; and the tops that a program is held against. */
export function DynamicsSection({ kind, symbol }: { kind: MachineKind; symbol: string }) {
  const { register, setValue, control, formState } = useFormContext<MachineForm>()
  const dynamics = useWatch({ control, name: 'dynamics' })
  const errors = formState.errors.dynamics
  const axes = kind === 'mill' ? (['X', 'Y', 'Z'] as const) : (['X', 'Z'] as const)
  const dirty = { shouldDirty: true }
  return (
    <Section title="Accelerations, spindle and tool change">
      <div className="col-span-full">
        <CheckField
          label="Known: cycle times are this machine's, and speeds are held against its tops"
          checked={dynamics !== null}
          onChange={({ target }) => setValue('dynamics', target.checked ? noDynamics(kind) : null, dirty)}
        />
      </div>
      {dynamics && (
        <>
          {axes.map((axis) => (
            <Field
              key={axis}
              label={`${axis} speeds up by, ${symbol}/s²`}
              digits
              {...register(`dynamics.acceleration.${axis}`)}
              wrong={errors?.acceleration?.[axis]?.message}
            />
          ))}
          <div className="col-span-full">
            <CheckField
              label="How its ramps are rounded is known (limited jerk; 0: not at all); otherwise a rapid is looked at as a band"
              checked={dynamics.smoothing !== null}
              onChange={({ target }) => setValue('dynamics.smoothing', target.checked ? '' : null, dirty)}
            />
          </div>
          {dynamics.smoothing !== null && (
            <Field
              label="Rounded over, seconds"
              digits
              {...register('dynamics.smoothing')}
              wrong={errors?.smoothing?.message}
            />
          )}
          <Field
            label={`Highest feed, ${symbol}/min`}
            digits
            {...register('dynamics.topFeed')}
            wrong={errors?.topFeed?.message}
          />
          <Field
            label={`Corners rounded by, ${symbol}`}
            digits
            {...register('dynamics.cornerTolerance')}
            wrong={errors?.cornerTolerance?.message}
          />
          <Field
            label="Spindle top, rpm"
            digits
            {...register('dynamics.spindleTop')}
            wrong={errors?.spindleTop?.message}
          />
          <Field
            label="Tapping top, rpm"
            digits
            {...register('dynamics.tapTop')}
            wrong={errors?.tapTop?.message}
          />
          <Field
            label="Spindle speeds up by, turns/s²"
            digits
            {...register('dynamics.spindleAcceleration')}
            wrong={errors?.spindleAcceleration?.message}
          />
          <CheckField label="That was timed at this machine" {...register('dynamics.spindleTimed')} />
          <Field
            label="Tool change, seconds"
            digits
            {...register('dynamics.toolChange')}
            wrong={errors?.toolChange?.message}
          />
          <div className="col-span-full">
            <CheckField
              label="It has a rotary axis"
              checked={dynamics.rotary !== null}
              onChange={({ target }) =>
                setValue('dynamics.rotary', target.checked ? { top: '', acceleration: '' } : null, dirty)
              }
            />
          </div>
          {dynamics.rotary && (
            <>
              <Field
                label="Rotary top, °/min"
                digits
                {...register('dynamics.rotary.top')}
                wrong={errors?.rotary?.top?.message}
              />
              <Field
                label="Rotary speeds up by, °/s²"
                digits
                {...register('dynamics.rotary.acceleration')}
                wrong={errors?.rotary?.acceleration?.message}
              />
            </>
          )}
        </>
      )}
    </Section>
  )
}

/** What an hour of the machine costs, for what saved time is worth. */
export function CostsSection() {
  const { register, setValue, control, formState } = useFormContext<MachineForm>()
  const costs = useWatch({ control, name: 'costs' })
  const errors = formState.errors.costs
  return (
    <Section title="What its time costs">
      <div className="col-span-full">
        <CheckField
          label="Known: saved time is also said in money"
          checked={costs !== null}
          onChange={({ target }) =>
            setValue('costs', target.checked ? { anHour: '', shiftsAMonth: '' } : null, { shouldDirty: true })
          }
        />
      </div>
      {costs && (
        <>
          <Field label="An hour costs" digits {...register('costs.anHour')} wrong={errors?.anHour?.message} />
          <Field
            label="Shifts a month"
            digits
            {...register('costs.shiftsAMonth')}
            wrong={errors?.shiftsAMonth?.message}
          />
        </>
      )}
    </Section>
  )
}

/** How many pallets the machine has, and how long it takes to change them. */
export function PalletsSection() {
  const { register, setValue, control, formState } = useFormContext<MachineForm>()
  const pallets = useWatch({ control, name: 'pallets' })
  const errors = formState.errors.pallets
  return (
    <Section title="Pallets">
      <div className="col-span-full">
        <CheckField
          label="It changes pallets: what runs on each is planned in Run"
          checked={pallets !== null}
          onChange={({ target }) =>
            setValue('pallets', target.checked ? { count: '2', swap: '' } : null, { shouldDirty: true })
          }
        />
      </div>
      {pallets && (
        <>
          <Field label="How many" digits {...register('pallets.count')} wrong={errors?.count?.message} />
          <Field
            label="One change, seconds"
            digits
            {...register('pallets.swap')}
            wrong={errors?.swap?.message}
          />
        </>
      )}
    </Section>
  )
}

/** The axis that a rotary on the table turns: its word, which way it turns, how far. */
export function RotarySection() {
  const { register, setValue, control, formState } = useFormContext<MachineForm>()
  const rotary = useWatch({ control, name: 'rotary' })
  const errors = formState.errors.rotary
  const dirty = { shouldDirty: true }
  return (
    <Section title="Rotary axis on the table, along X">
      <div className="col-span-full">
        <CheckField
          label="It has one"
          checked={rotary !== null}
          onChange={({ target }) =>
            setValue('rotary', target.checked ? { word: 'A', top: 'front', turns: null } : null, dirty)
          }
        />
      </div>
      {rotary && (
        <>
          <SelectField label="Its word" {...register('rotary.word')}>
            <option>A</option>
            <option>B</option>
            <option>C</option>
          </SelectField>
          <SelectField
            label="As its number counts up, the top of the part goes"
            className="col-span-2"
            {...register('rotary.top')}
          >
            <option value="front">to the front, Y minus</option>
            <option value="back">to the back, Y plus</option>
          </SelectField>
          <CheckField
            label="It goes round without end"
            checked={rotary.turns === null}
            onChange={({ target }) =>
              setValue('rotary.turns', target.checked ? null : { least: '', greatest: '' }, dirty)
            }
          />
          {rotary.turns && (
            <>
              <Field
                label="Lowest angle, °"
                digits
                {...register('rotary.turns.least')}
                wrong={errors?.turns?.least?.message}
              />
              <Field
                label="Highest angle, °"
                digits
                {...register('rotary.turns.greatest')}
                wrong={errors?.turns?.greatest?.message}
              />
            </>
          )}
        </>
      )}
    </Section>
  )
}

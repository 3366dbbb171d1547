import type { Machine } from '@dogleg/core/machine'
import { Plus, Trash2 } from 'lucide-react'
import { useFieldArray, useFormContext } from 'react-hook-form'
import { Button } from '../ui/button.tsx'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'
import type { MachineForm } from './machine-form.ts'

const NEW_OBSTACLE: NonNullable<MachineForm['around']>['obstacles'][number] = {
  name: '',
  side: 'back',
  at: '',
  bottom: '',
  top: '',
  comesDownWithZ: false,
}

/** What stands round the table of a mill: what a vise could meet at either end of the travel in Y. */
export function AroundSection({ symbol }: { symbol: string }) {
  const { register, watch, setValue, formState } = useFormContext<MachineForm, unknown, Machine>()
  const around = watch('around')
  return (
    <Section title="Round the table">
      <div className="col-span-full">
        <CheckField
          label="Known: vises can be checked against it"
          checked={around !== null}
          onChange={({ target }) =>
            setValue('around', target.checked ? { tableDepth: '', obstacles: [] } : null, {
              shouldDirty: true,
            })
          }
        />
      </div>
      {around && (
        <>
          <Field
            label={`Table, front to back, ${symbol}`}
            digits
            {...register('around.tableDepth')}
            wrong={formState.errors.around?.tableDepth?.message}
            className="col-span-2"
          />
          <p className="col-span-2 self-end text-sm text-ink-soft">
            Places along the table are counted from its front edge, plus to the back; heights up from its top.
          </p>
          <Obstacles symbol={symbol} />
        </>
      )}
    </Section>
  )
}

/** The list of what could be met. It registers itself with the form, which where nothing is known must not come by a list. */
function Obstacles({ symbol }: { symbol: string }) {
  const { register, formState, control } = useFormContext<MachineForm, unknown, Machine>()
  const { fields, append, remove } = useFieldArray({ control, name: 'around.obstacles' })
  const errors = formState.errors.around
  return (
    <>
      {fields.map(({ id }, index) => {
        const at = `around.obstacles.${index}` as const
        const wrong = errors?.obstacles?.[index]
        return (
          <div
            key={id}
            className="col-span-full grid grid-cols-2 gap-x-4 gap-y-1 border-t border-rule pt-1 md:grid-cols-3 xl:grid-cols-[1fr_11rem_8rem_8rem_8rem_3rem]"
          >
            <Field label="What" {...register(`${at}.name`)} wrong={wrong?.name?.message} />
            <SelectField label="Met with the table" {...register(`${at}.side`)}>
              <option value="back">fully back</option>
              <option value="front">fully forward</option>
            </SelectField>
            <Field
              label={`Stands at, ${symbol}`}
              digits
              {...register(`${at}.at`)}
              wrong={wrong?.at?.message}
            />
            <Field
              label={`Lower edge, ${symbol}`}
              digits
              {...register(`${at}.bottom`)}
              wrong={wrong?.bottom?.message}
            />
            <Field
              label={`Upper edge, ${symbol}`}
              digits
              {...register(`${at}.top`)}
              wrong={wrong?.top?.message}
            />
            <Button
              look="quiet"
              className="self-end px-2"
              aria-label="Take it out"
              onClick={() => remove(index)}
            >
              <Trash2 aria-hidden size={20} />
            </Button>
            <div className="col-span-full">
              <CheckField
                label="Comes down with Z: its heights are those with Z at the top"
                {...register(`${at}.comesDownWithZ`)}
              />
            </div>
          </div>
        )
      })}
      <div className="col-span-full">
        <Button onClick={() => append(NEW_OBSTACLE)} disabled={fields.length >= 8}>
          <Plus aria-hidden size={20} /> Something else that could be met
        </Button>
      </div>
    </>
  )
}

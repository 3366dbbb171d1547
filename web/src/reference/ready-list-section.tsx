import { type DueAgain, dueAgain, type Machine, USUAL_READY_LIST } from '@dogleg/core/machine'
import { Plus, Trash2 } from 'lucide-react'
import { useFieldArray, useFormContext } from 'react-hook-form'
import { newId } from '../log/clock.ts'
import { Button } from '../ui/button.tsx'
import { Field, Section, SelectField, Wrong } from './form-fields.tsx'
import type { MachineForm } from './machine-form.ts'

const AGAIN: Record<DueAgain, string> = { stood: 'it stood', operator: 'another person', alarm: 'an alarm' }

/** The walk-round and power-up list of a machine: the usual one, or its own. */
export function ReadyListSection() {
  const { register, watch, setValue, formState, control } = useFormContext<MachineForm, unknown, Machine>()
  const { fields, append, remove } = useFieldArray({ control, name: 'readyList', keyName: 'key' })
  const [list, kind] = watch(['readyList', 'kind'])
  const errors = formState.errors.readyList
  const put = (next: MachineForm['readyList']) => setValue('readyList', next, { shouldDirty: true })
  if (!list)
    return (
      <Section title="Walk-round and power-up">
        <ul className="col-span-full list-disc pl-5">
          {USUAL_READY_LIST[kind].map(({ id, says }) => (
            <li key={id}>{says}</li>
          ))}
        </ul>
        <div className="col-span-full">
          <Button
            onClick={() => put(USUAL_READY_LIST[kind].map((item) => ({ ...item, again: [...item.again] })))}
          >
            Change the list for this machine
          </Button>
        </div>
      </Section>
    )
  return (
    <Section title="Walk-round and power-up">
      {fields.map(({ key, id }, index) => (
        <div
          key={key}
          className="col-span-full grid grid-cols-2 gap-x-4 border-t border-rule py-1 first-of-type:border-t-0 md:grid-cols-[10rem_1fr_3rem]"
        >
          <SelectField label="Part" {...register(`readyList.${index}.part`)}>
            <option value="walk-round">walk round</option>
            <option value="power-up">power up</option>
          </SelectField>
          <Field
            label="What is to be done"
            {...register(`readyList.${index}.says`)}
            wrong={errors?.[index]?.says?.message}
          />
          <Button
            look="quiet"
            className="self-end px-2"
            aria-label={`Take out line ${index + 1}`}
            onClick={() => remove(index)}
          >
            <Trash2 aria-hidden size={20} />
          </Button>
          <fieldset className="col-span-full flex flex-wrap items-center gap-x-5">
            <legend className="sr-only">Line {index + 1} is due again after</legend>
            <span className="text-sm text-ink-soft">Due again after</span>
            {dueAgain.options.map((each) => (
              <label key={`${id}-${each}`} className="flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  value={each}
                  {...register(`readyList.${index}.again`)}
                  className="size-6 accent-ink"
                />
                {AGAIN[each]}
              </label>
            ))}
          </fieldset>
        </div>
      ))}
      <div className="col-span-full flex flex-wrap gap-3">
        <Button
          disabled={fields.length >= 20}
          onClick={() =>
            append({
              id: newId().toLowerCase(),
              part: 'walk-round',
              says: '',
              again: ['stood', 'operator', 'alarm'],
            })
          }
        >
          <Plus aria-hidden size={20} /> Another line
        </Button>
        <Button onClick={() => put(null)}>Back to the usual list</Button>
      </div>
      <div className="col-span-full">
        <Wrong says={errors?.root?.message ?? errors?.message} />
      </div>
    </Section>
  )
}

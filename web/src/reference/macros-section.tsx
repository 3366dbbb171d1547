import type { Profile, profile as profileSchema } from '@dogleg/core/control'
import type { ReactNode } from 'react'
import { type FieldError, type FieldErrors, get, type UseFormRegister } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

const FIELDS = [
  ['alarm', 'Alarm, #'],
  ['longestMessage', 'Longest message'],
  ['free.first', 'Free, from #'],
  ['free.last', 'to #'],
  ['offsets.first', 'X of the first offset, #'],
  ['offsets.step', 'to the next offset'],
  ['lengthWear', 'Wear of length, T1, #'],
  ['diameterWear', 'Wear of the cutter, T1, #'],
] as const

interface MacrosSectionProps {
  macros: Profile['macros'] | undefined
  errors: FieldErrors<Draft>['macros']
  register: UseFormRegister<Draft>
  onHas: (has: boolean) => void
  note: ReactNode
}

/** The macro language of a control: the variables that a gauging program keeps results in, compares and corrects. */
export function MacrosSection({ macros, errors, register, onHas, note }: MacrosSectionProps) {
  return (
    <Section title="Macro language">
      <CheckField
        label="It has one"
        checked={Boolean(macros)}
        onChange={({ target }) => onHas(target.checked)}
      />
      {macros && (
        <>
          {FIELDS.map(([name, label]) => (
            <Field
              key={name}
              label={label}
              type="number"
              {...register(`macros.${name}`, { valueAsNumber: true })}
              wrong={(get(errors, name) as FieldError | undefined)?.message}
            />
          ))}
          <SelectField label="Wear of the cutter is a" {...register('macros.wearAs')}>
            <option value="diameter">diameter</option>
            <option value="radius">radius</option>
          </SelectField>
          <SelectField label="Prints to a log file" {...register('macros.print')}>
            <option value="none">no</option>
            <option value="plain">DPRNT</option>
            <option value="opened">POPEN, DPRNT, PCLOS</option>
          </SelectField>
          {note}
        </>
      )}
    </Section>
  )
}

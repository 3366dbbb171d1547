import type { Profile, profile as profileSchema } from '@dogleg/core/control'
import type { ReactNode } from 'react'
import type { FieldErrors, UseFormRegister } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface SettingSectionProps {
  setting: Profile['setting'] | undefined
  errors: FieldErrors<Draft>['setting']
  register: UseFormRegister<Draft>
  onHas: (has: boolean) => void
  note: ReactNode
}

/** The macro of a tool setter: its number, the letter that names the tool, how long it takes. */
export function SettingSection({ setting, errors, register, onHas, note }: SettingSectionProps) {
  return (
    <Section title="Macro of a tool setter">
      <CheckField
        label="Is loaded"
        checked={Boolean(setting)}
        onChange={({ target }) => onHas(target.checked)}
      />
      {setting && (
        <>
          <Field
            label="Length of a tool"
            type="number"
            {...register('setting.length', { valueAsNumber: true })}
            wrong={errors?.length?.message}
          />
          <Field
            label="Letter of the tool"
            {...register('setting.word')}
            maxLength={1}
            wrong={errors?.word?.message}
          />
          <Field
            label="Seconds that it takes"
            type="number"
            step="any"
            {...register('setting.seconds', { valueAsNumber: true })}
            wrong={errors?.seconds?.message}
          />
          {note}
        </>
      )}
    </Section>
  )
}

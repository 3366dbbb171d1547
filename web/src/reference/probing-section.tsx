import type { profile as profileSchema } from '@dogleg/core/control'
import { BUILT_IN_PROFILES, type Profile } from '@dogleg/core/control'
import type { ReactNode } from 'react'
import { type FieldError, type FieldErrors, get, type UseFormRegister } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section } from './form-fields.tsx'

/** The numbers that a profile starts with when probe macros are switched on. */
export const USUAL_PROBING = BUILT_IN_PROFILES.find(({ probing }) => probing)?.probing ?? null

type Draft = z.input<typeof profileSchema>

const FIELDS = [
  ['on', 'Probe on'],
  ['off', 'Probe off'],
  ['protectedMove', 'Protected move'],
  ['surface', 'Single surface'],
  ['webPocket', 'Web or pocket'],
  ['boreBoss', 'Bore or boss'],
  ['outsideCorner', 'Outside corner'],
  ['insideCorner', 'Inside corner'],
  ['angle', 'Angle'],
  ['results.X', 'X in #'],
  ['results.Y', 'Y in #'],
  ['results.Z', 'Z in #'],
  ['results.size', 'Size in #'],
  ['results.angle', 'Angle in #'],
  ['furtherBase', 'S of further offsets, base'],
  ['furtherStep', 'and step for each P'],
  ['feed.inch', 'Protected feed, in/min'],
  ['feed.mm', 'Protected feed, mm/min'],
] as const

interface ProbingSectionProps {
  probing: Profile['probing'] | undefined
  errors: FieldErrors<Draft>['probing']
  register: UseFormRegister<Draft>
  onHas: (has: boolean) => void
  note: ReactNode
}

/** Probe macros of a control: their numbers, where they leave their results, how an offset is named. */
export function ProbingSection({ probing, errors, register, onHas, note }: ProbingSectionProps) {
  return (
    <Section title="Probe macros">
      <CheckField
        label="Are loaded"
        checked={Boolean(probing)}
        onChange={({ target }) => onHas(target.checked)}
      />
      {probing && (
        <>
          {FIELDS.map(([name, label]) => (
            <Field
              key={name}
              label={label}
              type="number"
              step="any"
              {...register(`probing.${name}`, { valueAsNumber: true })}
              wrong={(get(errors, name) as FieldError | undefined)?.message}
            />
          ))}
          {note}
        </>
      )}
    </Section>
  )
}

import type { profile as profileSchema } from '@dogleg/core/control'
import { BUILT_IN_PROFILES, type Probing, type Profile } from '@dogleg/core/control'
import type { ReactNode } from 'react'
import type { FieldErrors, UseFormRegister } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section } from './form-fields.tsx'

/** The numbers that a profile starts with when probe macros are switched on. */
export const USUAL_PROBING = BUILT_IN_PROFILES.find(({ probing }) => probing)?.probing ?? null

type Draft = z.input<typeof profileSchema>

const MACROS = [
  ['on', 'Probe on'],
  ['off', 'Probe off'],
  ['protectedMove', 'Protected move'],
  ['surface', 'Single surface'],
  ['webPocket', 'Web or pocket'],
  ['boreBoss', 'Bore or boss'],
  ['outsideCorner', 'Outside corner'],
  ['insideCorner', 'Inside corner'],
  ['angle', 'Angle'],
] as const satisfies readonly (readonly [keyof Probing, string])[]
const RESULTS = [
  ['X', 'X in #'],
  ['Y', 'Y in #'],
  ['Z', 'Z in #'],
  ['size', 'Size in #'],
  ['angle', 'Angle in #'],
] as const

const asNumber = { valueAsNumber: true }

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
          {MACROS.map(([name, label]) => (
            <Field
              key={name}
              label={label}
              type="number"
              {...register(`probing.${name}`, asNumber)}
              wrong={errors?.[name]?.message}
            />
          ))}
          {RESULTS.map(([name, label]) => (
            <Field
              key={name}
              label={label}
              type="number"
              {...register(`probing.results.${name}`, asNumber)}
              wrong={errors?.results?.[name]?.message}
            />
          ))}
          <Field
            label="S of further offsets, base"
            type="number"
            {...register('probing.furtherBase', asNumber)}
            wrong={errors?.furtherBase?.message}
          />
          <Field
            label="and step for each P"
            type="number"
            step="any"
            {...register('probing.furtherStep', asNumber)}
            wrong={errors?.furtherStep?.message}
          />
          <Field
            label="Protected feed, in/min"
            type="number"
            step="any"
            {...register('probing.feed.inch', asNumber)}
            wrong={errors?.feed?.inch?.message}
          />
          <Field
            label="Protected feed, mm/min"
            type="number"
            step="any"
            {...register('probing.feed.mm', asNumber)}
            wrong={errors?.feed?.mm?.message}
          />
          {note}
        </>
      )}
    </Section>
  )
}

import type { Positions, profile as profileSchema } from '@dogleg/core/control'
import type { FieldErrors, UseFormRegister, UseFormSetValue } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface WaysSectionProps {
  positions: Positions
  errors: NonNullable<FieldErrors<Draft>['reading']>['positions']
  register: UseFormRegister<Draft>
  setValue: UseFormSetValue<Draft>
}

const USUAL_MIRROR: Positions['mirror'] = { on: 'G51.1', off: 'G50.1', about: 'word' }

/** Further ways of writing positions that the control has or has not: what it lacks stops a proof. */
export function WaysSection({ positions, errors, register, setValue }: WaysSectionProps) {
  const at = 'reading.positions' as const
  const marks = { shouldDirty: true, shouldValidate: true }
  return (
    <Section title="Ways of writing positions">
      <CheckField label="Polar: G16" {...register(`${at}.polar`)} />
      <CheckField label="Hole patterns: G70" {...register(`${at}.patterns`)} />
      <CheckField label="Round pockets: G12" {...register(`${at}.pockets`)} />
      <CheckField label="Scaling: G51" {...register(`${at}.scaling`)} />
      <CheckField
        label="From one side: G60"
        checked={positions.oneSide !== null}
        onChange={({ target }) =>
          setValue(`${at}.oneSide`, target.checked ? { X: 0, Y: 0, Z: 0 } : null, marks)
        }
      />
      {positions.oneSide &&
        (['X', 'Y', 'Z'] as const).map((axis) => (
          <Field
            key={axis}
            label={`${axis} past its end, mm`}
            type="number"
            step="any"
            {...register(`${at}.oneSide.${axis}`, { valueAsNumber: true })}
            wrong={errors?.oneSide?.[axis]?.message}
          />
        ))}
      <CheckField
        label="Mirroring"
        checked={positions.mirror !== null}
        onChange={({ target }) => setValue(`${at}.mirror`, target.checked ? USUAL_MIRROR : null, marks)}
      />
      {positions.mirror && (
        <>
          <Field label="Mirrors by" {...register(`${at}.mirror.on`)} wrong={errors?.mirror?.on?.message} />
          <Field
            label="Not any more by"
            {...register(`${at}.mirror.off`)}
            wrong={errors?.mirror?.off?.message}
          />
          <SelectField label="About" className="col-span-2" {...register(`${at}.mirror.about`)}>
            <option value="word">where its X, Y, Z say</option>
            <option value="zero">part zero</option>
          </SelectField>
        </>
      )}
      <SelectField
        label="Corners and angles of a drawing"
        className="col-span-full"
        value={positions.corners ?? 'none'}
        onChange={({ target }) =>
          setValue(
            `${at}.corners`,
            target.value === 'none' ? null : (target.value as 'comma' | 'words'),
            marks,
          )
        }
      >
        <option value="comma">,C ,R; on a lathe ,A as well</option>
        <option value="words">,C ,R; on a lathe I or K, R and A</option>
        <option value="none">none</option>
      </SelectField>
    </Section>
  )
}

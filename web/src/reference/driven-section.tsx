import type { Driven, profile as profileSchema } from '@dogleg/core/control'
import type { FieldErrors, UseFormRegister, UseFormSetValue } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface DrivenSectionProps {
  driven: Driven | null
  errors: NonNullable<FieldErrors<Draft>['reading']>['driven']
  register: UseFormRegister<Draft>
  setValue: UseFormSetValue<Draft>
}

const NOTHING: Driven = { turns: null, axis: null, face: null }
const USUAL_FACE: Driven['face'] = { on: 'G12.1', off: 'G13.1', x: 'diameter', across: 'C' }
/** Their numbers are the machine builder's: none is usual. */
const ASKED = Number.NaN

/** Driven tools of a lathe, and its spindle as an axis: by which words. What is not said stops a proof. */
export function DrivenSection({ driven, errors, register, setValue }: DrivenSectionProps) {
  const at = 'reading.driven' as const
  const marks = { shouldDirty: true, shouldValidate: true }
  const code = (
    name: 'turns.clockwise' | 'turns.counter' | 'turns.off' | 'axis.on' | 'axis.off',
    label: string,
    wrong?: string,
  ) => (
    <Field
      key={name}
      label={label}
      type="number"
      {...register(`${at}.${name}`, { valueAsNumber: true })}
      wrong={wrong}
    />
  )
  return (
    <Section title="Driven tools on a lathe">
      <div className="col-span-2 self-center">
        <CheckField
          label="The spindle turns by C and H"
          checked={driven !== null}
          onChange={({ target }) => setValue(at, target.checked ? NOTHING : null, marks)}
        />
      </div>
      {driven && (
        <>
          <div className="col-span-2 self-center">
            <CheckField
              label="It is made an axis by M codes"
              checked={driven.axis !== null}
              onChange={({ target }) =>
                setValue(`${at}.axis`, target.checked ? { on: ASKED, off: ASKED } : null, marks)
              }
            />
          </div>
          {driven.axis && (
            <>
              {code('axis.on', 'An axis by M', errors?.axis?.on?.message)}
              {code('axis.off', 'Not any more by M', errors?.axis?.off?.message)}
            </>
          )}
          <div className="col-span-2 self-center">
            <CheckField
              label="Tools are driven by M codes"
              checked={driven.turns !== null}
              onChange={({ target }) =>
                setValue(
                  `${at}.turns`,
                  target.checked ? { clockwise: ASKED, counter: ASKED, off: ASKED, speed: 'S' } : null,
                  marks,
                )
              }
            />
          </div>
          {driven.turns && (
            <>
              {code('turns.clockwise', 'Clockwise by M', errors?.turns?.clockwise?.message)}
              {code('turns.counter', 'Other way by M', errors?.turns?.counter?.message)}
              {code('turns.off', 'Off by M', errors?.turns?.off?.message)}
              <SelectField label="Speed in" {...register(`${at}.turns.speed`)}>
                <option value="S">S</option>
                <option value="P">P</option>
              </SelectField>
            </>
          )}
          <div className="col-span-2 self-center">
            <CheckField
              label="Polar interpolation on the face"
              checked={driven.face !== null}
              onChange={({ target }) => setValue(`${at}.face`, target.checked ? USUAL_FACE : null, marks)}
            />
          </div>
          {driven.face && (
            <>
              <Field label="On by" {...register(`${at}.face.on`)} wrong={errors?.face?.on?.message} />
              <Field label="Off by" {...register(`${at}.face.off`)} wrong={errors?.face?.off?.message} />
              <SelectField label="X is then a" {...register(`${at}.face.x`)}>
                <option value="diameter">diameter</option>
                <option value="radius">radius</option>
              </SelectField>
              <SelectField label="Across it" {...register(`${at}.face.across`)}>
                <option value="C">C</option>
                <option value="Y">Y</option>
              </SelectField>
            </>
          )}
        </>
      )}
    </Section>
  )
}

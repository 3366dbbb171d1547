import type { LengthUnit } from '@dogleg/core/quantity'
import { useState } from 'react'
import { type FieldValues, type Path, type PathValue, useFormContext } from 'react-hook-form'
import { SelectField } from './form-fields.tsx'
import { convertTyped, lengthsTyped, type TypedNumbers } from './typed-form.ts'
import { UnitChange } from './unit-change.tsx'

interface UnitFieldProps<Values extends FieldValues> {
  label: string
  /** 'this machine'. */
  of: string
  name: Path<Values>
  numbers: TypedNumbers
  className?: string
}

/** The unit of a row's lengths. Where some are typed already a change asks whether they are converted, or were in the wrong unit. */
export function UnitField<Values extends FieldValues>({
  label,
  of,
  name,
  numbers,
  className,
}: UnitFieldProps<Values>) {
  const { watch, getValues, setValue, reset } = useFormContext<Values>()
  const unit = watch(name) as LengthUnit
  const [to, setTo] = useState<LengthUnit>()
  const set = (next: LengthUnit) =>
    setValue(name, next as PathValue<Values, typeof name>, { shouldDirty: true, shouldValidate: true })
  const lengths = to ? lengthsTyped(getValues(), numbers, { from: unit, to }) : []
  return (
    <>
      <SelectField
        label={label}
        value={unit}
        onChange={({ target }) => {
          const next = target.value as LengthUnit
          if (lengthsTyped(getValues(), numbers, { from: unit, to: next }).length === 0) set(next)
          else setTo(next)
        }}
        {...(className ? { className } : {})}
      >
        <option value="inch">inch</option>
        <option value="mm">mm</option>
      </SelectField>
      {to && (
        <UnitChange
          of={of}
          from={unit}
          to={to}
          lengths={lengths}
          onConvert={() => {
            setTo(undefined)
            // What was saved stays what it is told from, so that the form knows that it differs.
            reset(convertTyped(getValues(), numbers, { from: unit, to }), { keepDefaultValues: true })
            set(to)
          }}
          onRelabel={() => {
            setTo(undefined)
            set(to)
          }}
          onStay={() => setTo(undefined)}
        />
      )}
    </>
  )
}

import type { profile as profileSchema } from '@dogleg/core/control'
import type { FieldErrors, UseFormRegister } from 'react-hook-form'
import type { z } from 'zod'
import { Field, Section, SelectField } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface CompensationSectionProps {
  errors: NonNullable<FieldErrors<Draft>['reading']>['compensation']
  register: UseFormRegister<Draft>
}

/** How the control leads a cutter beside the path that is written (G41, G42). */
export function CompensationSection({ errors, register }: CompensationSectionProps) {
  const at = 'reading.compensation' as const
  return (
    <Section title="Cutter compensation">
      <SelectField label="Comes on and goes off" className="col-span-2" {...register(`${at}.comingOn`)}>
        <option value="next">square to the next move</option>
        <option value="own">square to its own move</option>
      </SelectField>
      <SelectField label="Outside of corners" className="col-span-2" {...register(`${at}.outside`)}>
        <option value="arc">goes round by an arc</option>
        <option value="lines">lengthens the moves</option>
      </SelectField>
      <SelectField
        label="Programs with G41 are written for"
        className="col-span-full"
        {...register(`${at}.holds`)}
      >
        <option value="radius">the edge that is cut: the table has the radius of the cutter</option>
        <option value="wear">the centre of the cutter: the table has its wear only</option>
      </SelectField>
      <SelectField label="Wear of a cutter is" className="col-span-2" {...register(`${at}.wear`)}>
        <option value="added">added to its radius</option>
        <option value="taken">taken from its radius</option>
      </SelectField>
      <Field
        label="Blocks that it reads ahead"
        type="number"
        className="col-span-2"
        {...register(`${at}.lookAhead`, { valueAsNumber: true })}
        wrong={errors?.lookAhead?.message}
      />
      <SelectField
        label="Roughing on a lathe (G71 to G73) leads"
        className="col-span-full"
        {...register(`${at}.roughing`)}
      >
        <option value="beside">the nose beside the contour, as G70 does</option>
        <option value="written">the tip along the contour as it is written</option>
      </SelectField>
    </Section>
  )
}

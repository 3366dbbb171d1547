import type { Profile, profile as profileSchema } from '@dogleg/core/control'
import type { ReactNode } from 'react'
import type { FieldErrors, UseFormRegister, UseFormSetValue } from 'react-hook-form'
import type { z } from 'zod'
import { CheckField, Field, Section, SelectField } from './form-fields.tsx'

type Draft = z.input<typeof profileSchema>

interface ReadingSectionProps {
  reading: Profile['reading'] | undefined
  errors: FieldErrors<Draft>['reading']
  register: UseFormRegister<Draft>
  setValue: UseFormSetValue<Draft>
  note: ReactNode
}

const CODES = [
  ['text', 'Text cycle', 'G47'],
  ['pathTolerance', 'Path tolerance', 'G187'],
  ['lookAhead', 'Look-ahead limit', 'G103'],
] as const

/** How the control reads programs and moves: what the Prove step goes by. */
export function ReadingSection({ reading, errors, register, setValue, note }: ReadingSectionProps) {
  if (!reading) return null
  const marks = { shouldDirty: true, shouldValidate: true }
  const number = { valueAsNumber: true }
  return (
    <Section title="Reading programs">
      <SelectField label="Rapids" className="col-span-2" {...register('reading.rapids')}>
        <option value="dogleg">dogleg, each axis by itself</option>
        <option value="straight">straight</option>
      </SelectField>
      <SelectField label="X2 without a point is" className="col-span-2" {...register('reading.noPoint')}>
        <option value="whole">two</option>
        <option value="least-increment">two least increments</option>
      </SelectField>
      <SelectField label="P500 of a dwell is" className="col-span-2" {...register('reading.dwell')}>
        <option value="seconds">500 seconds</option>
        <option value="milliseconds">500 milliseconds</option>
      </SelectField>
      <SelectField label="A cycle repeats by" {...register('reading.repeats')}>
        <option value="L">L</option>
        <option value="K">K</option>
      </SelectField>
      <Field
        label="Calls nest up to"
        type="number"
        {...register('reading.levels', number)}
        wrong={errors?.levels?.message}
      />
      <Field
        label="Peck retreat, in"
        type="number"
        step="any"
        {...register('reading.retreat.inch', number)}
        wrong={errors?.retreat?.inch?.message}
      />
      <Field
        label="Peck retreat, mm"
        type="number"
        step="any"
        {...register('reading.retreat.mm', number)}
        wrong={errors?.retreat?.mm?.message}
      />
      <SelectField
        label="Turning cycles"
        className="col-span-2"
        value={reading.turningCycles ?? 'none'}
        onChange={({ target }) =>
          setValue(
            'reading.turningCycles',
            target.value === 'none' ? null : (target.value as 'one-line' | 'two-line'),
            marks,
          )
        }
      >
        <option value="one-line">in one line</option>
        <option value="two-line">in two lines</option>
        <option value="none">none</option>
      </SelectField>
      <CheckField
        label="Threads can run out at 45°: M23, M24"
        checked={reading.threads !== null}
        onChange={({ target }) =>
          setValue('reading.threads', target.checked ? { leads: 1, starts: false } : null, marks)
        }
      />
      {reading.threads && (
        <>
          <Field
            label="Over, in leads"
            type="number"
            step="any"
            {...register('reading.threads.leads', number)}
            wrong={errors?.threads?.leads?.message}
          />
          <div className="col-span-2 self-center">
            <CheckField label="A program begins with M23" {...register('reading.threads.starts')} />
          </div>
        </>
      )}
      <CheckField
        label="Taps come out faster by a word"
        checked={reading.tapRetract !== null}
        onChange={({ target }) =>
          setValue(
            'reading.tapRetract',
            target.checked ? { address: 'J', usual: 1, most: 9, decimal: true } : null,
            marks,
          )
        }
      />
      {reading.tapRetract && (
        <>
          <Field
            label="By the word"
            {...register('reading.tapRetract.address')}
            wrong={errors?.tapRetract?.address?.message}
          />
          <Field
            label="Usual multiple"
            type="number"
            step="any"
            {...register('reading.tapRetract.usual', number)}
            wrong={errors?.tapRetract?.usual?.message}
          />
          <Field
            label="Highest multiple"
            type="number"
            step="any"
            {...register('reading.tapRetract.most', number)}
            wrong={errors?.tapRetract?.most?.message}
          />
          <CheckField label="2.5 as well as 2" {...register('reading.tapRetract.decimal')} />
        </>
      )}
      <CheckField
        label="Rigid tapping is announced"
        checked={reading.rigidTap !== null}
        onChange={({ target }) => setValue('reading.rigidTap', target.checked ? 29 : null, marks)}
      />
      {reading.rigidTap !== null && (
        <Field
          label="by M"
          type="number"
          {...register('reading.rigidTap', number)}
          wrong={errors?.rigidTap?.message}
        />
      )}
      <CheckField
        label="A lathe of it taps left-hand threads"
        checked={reading.leftTap !== null}
        onChange={({ target }) => setValue('reading.leftTap', target.checked ? '' : null, marks)}
      />
      {reading.leftTap !== null && (
        <Field label="by" {...register('reading.leftTap')} wrong={errors?.leftTap?.message} />
      )}
      <SelectField label="A tap pecks" className="col-span-2" {...register('reading.peckTap')}>
        <option value="depth-word">by Q on its line</option>
        <option value="again">by the cycle again, deeper</option>
      </SelectField>
      <CheckField label="Has drilling cycles" {...register('reading.drilling')} />
      <SelectField label="G98 goes back to" className="col-span-2" {...register('reading.initialLevel')}>
        <option value="before-first">the level from before the first cycle</option>
        <option value="each-code">the level wherever a cycle code stands</option>
      </SelectField>
      <CheckField label="Breaks chips by G73" {...register('reading.chipBreak')} />
      <CheckField
        label="Wraps Y on the rotary axis"
        checked={reading.mapping !== null}
        onChange={({ target }) =>
          setValue('reading.mapping', target.checked ? { code: 'G107', by: 'radius' } : null, marks)
        }
      />
      {reading.mapping && (
        <>
          <Field
            label="Wraps by"
            {...register('reading.mapping.code')}
            wrong={errors?.mapping?.code?.message}
          />
          <SelectField label="Radius in" {...register('reading.mapping.by')}>
            <option value="radius">R</option>
            <option value="rotary-word">the rotary word</option>
          </SelectField>
        </>
      )}
      <SelectField
        label="Feed of a move that turns"
        className="col-span-2"
        {...register('reading.rotaryFeed')}
      >
        <option value="inverse-time">G93: one over its minutes</option>
        <option value="along-way">G94: degrees as lengths</option>
      </SelectField>
      {CODES.map(([name, label, usual]) => (
        <Field
          key={name}
          label={label}
          placeholder={`none, or ${usual}`}
          {...register(`reading.${name}`, {
            setValueAs: (text: string | null) => text?.trim().toUpperCase() || null,
          })}
          wrong={errors?.[name]?.message}
        />
      ))}
      {reading.text !== null && (
        <>
          <Field
            label="Its letters, times as wide"
            type="number"
            step="any"
            placeholder="not measured"
            {...register('reading.lettering.widthFactor', {
              setValueAs: (text: string | number | null) =>
                text === null || text === '' ? null : Number(text),
            })}
            wrong={errors?.lettering?.widthFactor?.message}
          />
          <Field
            label="Characters that it carries"
            className="col-span-2"
            {...register('reading.lettering.characters')}
            wrong={errors?.lettering?.characters?.message}
          />
          <CheckField label="Counts serial numbers, P1" {...register('reading.lettering.counts')} />
        </>
      )}
      <Field
        label="Pallet M codes"
        defaultValue={reading.pallets.join(' ')}
        onChange={({ target }) =>
          setValue(
            'reading.pallets',
            target.value
              .split(/[ ,]+/)
              .filter(Boolean)
              .map((text) => Number(text.replace(/^M/i, ''))),
            marks,
          )
        }
        wrong={errors?.pallets?.message ?? errors?.pallets?.find?.((each) => each)?.message}
      />
      {note}
    </Section>
  )
}

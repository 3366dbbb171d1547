import { type MachineKind, usualHead, usualTurret } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useFormContext, useWatch } from 'react-hook-form'
import { CheckField, Field, Section } from './form-fields.tsx'
import type { MachineForm } from './machine-form.ts'

const text = (value: number) => String(Number(value.toFixed(3)))

/** What is usual, to begin with. */
function headDraft(unit: LengthUnit): NonNullable<MachineForm['head']> {
  const { nose, left, right, front, back } = usualHead(unit)
  return {
    nose: { diameter: text(nose.diameter), length: text(nose.length) },
    left: text(left),
    right: text(right),
    front: text(front),
    back: text(back),
  }
}

function turretDraft(unit: LengthUnit): NonNullable<MachineForm['turret']> {
  const { stations, across, thick } = usualTurret(unit)
  return { stations: String(stations), across: text(across), thick: text(thick) }
}

const HEAD_SIDES = [
  ['left', 'Axis to the head’s left side'],
  ['right', 'to its right side'],
  ['front', 'to its front'],
  ['back', 'to its back'],
] as const

/** What is above the tools and moves with them: a mill's spindle nose and head, a lathe's turret. */
export function AboveSection({ kind, symbol }: { kind: MachineKind; symbol: string }) {
  return kind === 'mill' ? <HeadSection symbol={symbol} /> : <TurretSection symbol={symbol} />
}

function HeadSection({ symbol }: { symbol: string }) {
  const { register, setValue, control, formState, getValues } = useFormContext<MachineForm>()
  const head = useWatch({ control, name: 'head' })
  const errors = formState.errors.head
  return (
    <Section title="Spindle nose and head">
      <div className="col-span-full">
        <CheckField
          label="Measured: programs are proved against them; otherwise what is usual is taken, and the proof says so"
          checked={head !== null}
          onChange={({ target }) =>
            setValue('head', target.checked ? headDraft(getValues('unit')) : null, { shouldDirty: true })
          }
        />
      </div>
      {head && (
        <>
          <p className="col-span-full text-sm text-ink-soft">
            Usual sizes stand here to begin with: put in your own. The nose goes from the gauge line up to the
            head.
          </p>
          <Field
            label={`Nose, diameter, ${symbol}`}
            digits
            {...register('head.nose.diameter')}
            wrong={errors?.nose?.diameter?.message}
          />
          <Field
            label={`Nose, length, ${symbol}`}
            digits
            {...register('head.nose.length')}
            wrong={errors?.nose?.length?.message}
          />
          {HEAD_SIDES.map(([side, label]) => (
            <Field
              key={side}
              label={`${label}, ${symbol}`}
              digits
              {...register(`head.${side}`)}
              wrong={errors?.[side]?.message}
            />
          ))}
        </>
      )}
    </Section>
  )
}

function TurretSection({ symbol }: { symbol: string }) {
  const { register, setValue, control, formState, getValues } = useFormContext<MachineForm>()
  const turret = useWatch({ control, name: 'turret' })
  const errors = formState.errors.turret
  return (
    <Section title="Turret">
      <div className="col-span-full">
        <CheckField
          label="Measured: it and the tools in its other stations are looked at; otherwise the proof says that they are not"
          checked={turret !== null}
          onChange={({ target }) =>
            setValue('turret', target.checked ? turretDraft(getValues('unit')) : null, { shouldDirty: true })
          }
        />
      </div>
      {turret && (
        <>
          <p className="col-span-full text-sm text-ink-soft">
            Usual sizes stand here to begin with: put in your own. The tool with number 5 is taken to be in
            station 5.
          </p>
          <Field label="Stations" digits {...register('turret.stations')} wrong={errors?.stations?.message} />
          <Field
            label={`Across, seat to seat, ${symbol}`}
            digits
            {...register('turret.across')}
            wrong={errors?.across?.message}
          />
          <Field
            label={`Thick, along Z, ${symbol}`}
            digits
            {...register('turret.thick')}
            wrong={errors?.thick?.message}
          />
        </>
      )}
    </Section>
  )
}

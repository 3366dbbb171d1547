import { materialIn, type SpeedOf, surfaceFor } from '@dogleg/core/cutting'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useOpenSetup } from '../log/open-setup.ts'
import { LeadsOnly } from '../people/leads-only.tsx'
import { useSave } from '../reference/use-save.ts'
import { useMaterial } from './use-material.ts'

interface KeepSpeedProps {
  of: SpeedOf
  /** Spindle speed in rpm as typed; empty where they are computed. */
  typed: string
  diameter: number
  unit: LengthUnit
}

/** Where a speed over the surface comes from; one that was typed can be kept as the shop's own for the material. */
function Kept({ of, surface, unit }: { of: SpeedOf; surface: number | undefined; unit: LengthUnit }) {
  const { reference } = useOpenSetup()
  const { save } = useSave('materials')
  const id = useMaterial()
  const material = reference.materials.find((each) => each.id === id)
  if (!material) return null
  const own = materialIn(material, unit)
  const usual = Math.round(own[of] * 10) / 10
  const per = unit === 'inch' ? 'ft/min' : 'm/min'
  const kept = surface === undefined ? usual : Math.round(surface * 10) / 10
  return (
    <p className="text-sm text-ink-soft">
      {surface === undefined ? (
        <>
          {material.name}: <span className="digits">{usual}</span> {per}, a starting point.
        </>
      ) : (
        <>
          <span className="digits">{kept}</span> {per}; {material.name} has{' '}
          <span className="digits">{usual}</span>.{' '}
        </>
      )}
      {Math.abs(kept - usual) > 0.06 && (
        <LeadsOnly does="keeps it as the shop’s own">
          <button
            type="button"
            className="inline-flex min-h-11 items-center font-semibold text-ink underline decoration-rule underline-offset-4"
            disabled={save.isPending}
            onClick={() => save.mutate({ row: { ...own, [of]: kept } })}
          >
            Keep it as the shop’s own
          </button>
        </LeadsOnly>
      )}
      {save.error && <span role="alert"> {save.error.message}</span>}
    </p>
  )
}

const typedNumber = (typed: string) => {
  const value = Number(typed)
  return typed.trim() === '' || !(value > 0) ? undefined : value
}

/** A spindle speed in rpm at a diameter. */
export function KeepSpeed({ of, typed, diameter, unit }: KeepSpeedProps) {
  const turns = typedNumber(typed)
  return (
    <Kept of={of} surface={turns === undefined ? undefined : surfaceFor(turns, diameter, unit)} unit={unit} />
  )
}

/** A speed over the surface, for grooves. */
export const KeepSurface = ({ typed, unit }: { typed: string; unit: LengthUnit }) => (
  <Kept of="grooving" surface={typedNumber(typed)} unit={unit} />
)

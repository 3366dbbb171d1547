import { formatLength, type LengthUnit } from '@dogleg/core/quantity'

interface ResidualsProps {
  title: string
  residuals: readonly { name: string; value: number }[] | undefined
  unit: LengthUnit
}

/** How far each point stands off a fit; nothing where the fit leaves nothing over. */
export function Residuals({ title, residuals, unit }: ResidualsProps) {
  if (!residuals || residuals.length === 0) return null
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 content-center font-semibold">{title}</summary>
      <ul className="pb-2 text-sm">
        {residuals.map(({ name, value }) => (
          <li key={name} className="flex justify-between gap-2">
            {name}
            <span className="digits">{formatLength(value, unit, { plus: true })}</span>
          </li>
        ))}
      </ul>
    </details>
  )
}

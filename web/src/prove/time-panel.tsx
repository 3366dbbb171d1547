import type { Proof } from '@dogleg/core/prove'
import { formatDuration } from '@dogleg/core/quantity'
import { CheckField } from '../reference/form-fields.tsx'

const PARTS: readonly [keyof Proof['time']['parts'], string][] = [
  ['cutting', 'Cutting'],
  ['rapid', 'Rapids'],
  ['toolChange', 'Tool changes'],
  ['spindle', 'Spindle up and down'],
  ['dwell', 'Dwells'],
  ['tappingOut', 'Tapping out'],
  ['probing', 'Probing'],
]

/** How long the program takes on this machine, and on what. */
export function TimePanel({
  proof,
  unit,
  skipOptional,
  onSkipOptional,
}: {
  proof: Proof
  unit: string
  skipOptional: boolean
  onSkipOptional: (skip: boolean) => void
}) {
  const { total, parts } = proof.time
  const { assumed, openRapids, rapid, straightRapids } = proof.speeds
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-[1fr_18rem]">
      <table className="w-full">
        <caption className="text-left">
          Cycle time <span className="digits text-3xl font-semibold">{formatDuration(total)}</span>
        </caption>
        <tbody>
          {PARTS.filter(([part]) => parts[part] > 0).map(([part, name]) => (
            <tr key={part} className="border-t border-rule">
              <th scope="row" className="w-44 py-1 text-left">
                {name}
              </th>
              <td className="digits w-36 text-right text-xl">{formatDuration(parts[part])}</td>
              <td className="pl-4">
                <svg viewBox="0 0 100 8" preserveAspectRatio="none" className="h-4 w-full" aria-hidden>
                  <rect width={total > 0 ? (100 * parts[part]) / total : 0} height={8} className="fill-ink" />
                </svg>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="space-y-2">
        <p>
          Rapids {straightRapids ? 'go straight' : 'go dogleg'}: X{' '}
          <span className="digits">{Math.round(rapid[0] * 60)}</span>, Z{' '}
          <span className="digits">{Math.round(rapid[2] * 60)}</span> {unit}/min.
        </p>
        {!straightRapids && openRapids.length > 0 && (
          <p>
            A rapid on two axes is looked at as a band: the machine's page does not say{' '}
            {openRapids.join(', ')}.
          </p>
        )}
        {assumed.length > 0 && (
          <p className="font-semibold">Not on the machine's page, taken as usual: {assumed.join('; ')}.</p>
        )}
        <CheckField
          label="Block delete is on: lines with a slash are skipped"
          checked={skipOptional}
          onChange={({ target }) => onSkipOptional(target.checked)}
        />
      </div>
    </div>
  )
}

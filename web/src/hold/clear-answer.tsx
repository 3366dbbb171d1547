import { verdictOf } from '@dogleg/core/fact'
import { type Clearance, type ClearanceCase, type Gap, libraryFit } from '@dogleg/core/hold'
import { formatLength, formatWithUnit, type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import type { ClearanceFact } from '@dogleg/core/setup'
import { FactLine } from '../ui/fact-line.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'

interface ClearAnswerProps {
  found: Clearance
  of: ClearanceCase
  /** What stands in the log, when it is what is typed. */
  fact: ClearanceFact | undefined
}

/** Both gaps at arm's length, the verdict, and where the jaw may stand. */
export function ClearAnswer({ found, of: { unit }, fact }: ClearAnswerProps) {
  const { back, front } = found
  const ends = [
    ['Free at the back', back, 'back'],
    ['Free at the front', front, 'front'],
  ] as const
  return (
    <div className="space-y-2">
      <dl className="grid grid-cols-2 gap-x-4">
        {ends.map(([title, gap, side]) => (
          <div key={side}>
            <dt className="font-semibold">{title}</dt>
            <dd className="digits text-3xl leading-tight tracking-tight" data-testid={`gap-${side}`}>
              {gap ? formatLength(gap.gap, unit) : 'open'}
            </dd>
          </div>
        ))}
      </dl>
      {fact && <FactLine fact={fact} />}
      <p className="flex items-center gap-4">
        {fact?.freshness.state !== 'stale' && <VerdictMark verdict={verdictOf(found.findings)} />}
        <span>
          <span className="digits text-lg">±{formatLength(found.doubt.value, unit)}</span>
          <span className="ml-2 text-ink-soft">{unitSymbol(unit)}, each</span>
        </span>
      </p>
      <Findings findings={found.findings} />
      <Room found={found} unit={unit} />
    </div>
  )
}

/** Where the fixed jaw may stand, and how much room the machine leaves a vise. */
export function Room({ found: { interval, room, reach }, unit }: { found: Clearance; unit: LengthUnit }) {
  return (
    <p className="leading-snug" data-testid="interval">
      {interval && (
        <>
          The fixed jaw may stand{' '}
          {Number.isFinite(interval.from) && Number.isFinite(interval.to) ? 'from ' : ''}
          {Number.isFinite(interval.from) ? (
            <span className="digits text-xl">{formatLength(interval.from, unit)}</span>
          ) : (
            'anywhere up'
          )}{' '}
          to{' '}
          {Number.isFinite(interval.to) ? (
            <span className="digits text-xl">{formatLength(interval.to, unit)}</span>
          ) : (
            'the back'
          )}
          .
        </>
      )}
      {room !== undefined && (
        <span className="block text-ink-soft">
          Room for a vise: <span className="digits">{formatLength(room, unit)}</span>; this one takes{' '}
          <span className="digits">{formatLength(reach ?? 0, unit)}</span>.
        </span>
      )}
    </p>
  )
}

/** Every part in every state against everything that it could meet. */
export function AllGaps({ gaps, of: { unit } }: { gaps: readonly Gap[]; of: ClearanceCase }) {
  return (
    <div className="border-t border-rule pt-2 pb-3">
      <h3 className="font-semibold">Every gap, open and closed</h3>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-ink-soft">
            <th className="font-normal">part</th>
            <th className="font-normal">could meet</th>
            <th className="text-right font-normal">gap, {unitSymbol(unit)}</th>
          </tr>
        </thead>
        <tbody>
          {gaps.map(({ part, state, obstacle, gap, counts, clearAbove }) => (
            <tr key={`${part.name}-${state}-${obstacle.name}`} className="border-t border-rule align-top">
              <td>
                {part.name}, {state}
              </td>
              <td>
                {obstacle.name}
                <span className="block text-ink-soft">
                  {!counts && clearAbove === undefined
                    ? 'passes at another height'
                    : clearAbove !== undefined
                      ? `only with Z below ${formatLength(clearAbove, unit)}${counts ? '' : ', which the job is not'}`
                      : ''}
                </span>
              </td>
              <td className="digits text-right">{formatLength(gap, unit)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** Which vises of the library would fit here, and where. */
export function OtherVises({ of, vises }: { of: ClearanceCase; vises: Parameters<typeof libraryFit>[1] }) {
  const { unit } = of
  return (
    <div className="border-t border-rule pt-2">
      <h3 className="font-semibold">Vises of the library here</h3>
      <ul className="pb-2 text-sm">
        {libraryFit(of, vises).map(({ vise, interval, shortfall }) => (
          <li key={vise.id} className="flex justify-between gap-3 border-t border-rule py-1">
            {vise.name}
            <span className="text-right">
              {interval ? (
                <>
                  fits, jaw{' '}
                  <span className="digits">
                    {Number.isFinite(interval.from) ? formatLength(interval.from, unit) : 'any'} to{' '}
                    {Number.isFinite(interval.to) ? formatLength(interval.to, unit) : 'any'}
                  </span>
                </>
              ) : (
                <>
                  too long by <span className="digits">{formatWithUnit(shortfall ?? 0, unit)}</span>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}

import { type Finding, verdictOf } from '@dogleg/core/fact'
import {
  JAW_BEARERS,
  type JawBearer,
  offTheLine,
  type Squared,
  type Squareness,
  squareOrTurn,
} from '@dogleg/core/hold'
import { fixedDigits, formatLength, formatWithUnit, unitSymbol } from '@dogleg/core/quantity'
import type { SweepFact } from '@dogleg/core/setup'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Working } from '../ui/answer.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'

interface SquareAnswerProps {
  squared: Squared
  findings: readonly Finding[]
  /** The recorded sweep that is shown, when it is not what is being typed. */
  fact: SweepFact | undefined
}

const WAYS = { front: 'towards you', back: 'away from you' }

/** What the sweep says: the tap and its target, how far out of square the part would be, and why. */
export function SquareAnswer({ squared, findings, fact }: SquareAnswerProps) {
  const { setup } = useOpenSetup()
  const { unit } = setup
  if (!squared.ok) return <Findings findings={findings} />
  const { tap, outOfSquare, sweep, within } = squared
  const toTap = sweep.bolts === 'one' && !within
  return (
    <section aria-label="What the sweep says" className="grid gap-x-8 gap-y-2 md:grid-cols-2 xl:grid-cols-1">
      <div className="space-y-2">
        {toTap && (
          <div>
            <h2 className="font-semibold">Tap until the dial shows</h2>
            <p className="digits text-5xl leading-tight tracking-tight" data-testid="target">
              {formatLength(tap.target, unit, { plus: true })}
              <span className="ml-2 text-xl text-ink-soft">{unitSymbol(unit)}</span>
            </p>
            <p className="leading-snug">
              Dial at {formatLength(tap.at, unit)}. The {tap.side} end goes {WAYS[tap.way]} by{' '}
              <span className="digits">{formatWithUnit(tap.by, unit)}</span>; then both ends read alike.
            </p>
          </div>
        )}
        <div>
          <div className="flex items-center justify-between gap-x-3">
            <h2 className="font-semibold">Out of square over the part</h2>
            {toTap && <VerdictMark verdict={verdictOf(findings)} />}
          </div>
          <p
            className={`digits leading-tight ${toTap ? 'text-2xl' : 'text-5xl tracking-tight'}`}
            data-testid="out-of-square"
          >
            {formatLength(outOfSquare.value, unit)}
            <span className="ml-2 text-xl text-ink-soft">{unitSymbol(unit)}</span>
            <span className="ml-3 text-xl">±{formatLength(outOfSquare.doubt.value, unit)}</span>
          </p>
        </div>
        {!toTap && <VerdictMark verdict={verdictOf(findings)} />}
        <Findings findings={findings} />
        {fact && <FactLine fact={fact} />}
      </div>
      <div>
        <Working answer={outOfSquare} />
        <Residuals squared={squared} />
      </div>
    </section>
  )
}

/** What each of more than two readings stands off the line by. */
function Residuals({ squared }: { squared: Squareness }) {
  const off = offTheLine(squared)
  const { unit } = squared.sweep
  if (off.length === 0) return null
  return (
    <table className="mt-2 w-full text-sm">
      <caption className="text-left text-base font-semibold">Off the line</caption>
      <tbody>
        {off.map((each) => (
          <tr key={each.at} className="border-t border-rule">
            <th scope="row" className="text-left font-normal">
              reading at <span className="digits">{formatLength(each.at, unit)}</span>
            </th>
            <td className="digits text-right">{formatLength(each.off, unit, { plus: true })}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

const BOLTS = { one: 'one bolt', snug: 'snug', tight: 'tight' }

/** The sweeps so far, in one line: whether they come nearer. */
export function Sweeps({ left }: { left: number | undefined }) {
  const { setup } = useOpenSetup()
  const { sweeps } = setup.hold
  if (sweeps.length === 0) return null
  return (
    <section aria-label="Sweeps so far" className="text-sm">
      <ol className="flex flex-wrap gap-x-2">
        {sweeps.slice(-5).map(({ entry, squared }, index) => (
          <li key={entry.id}>
            {index > 0 && '→ '}
            {BOLTS[entry.sweep.bolts]}{' '}
            <span className="digits">
              {squared.ok ? formatLength(squared.outOfSquare.value, setup.unit) : '-'}
            </span>
          </li>
        ))}
      </ol>
      {left !== undefined && (
        <p className="text-ink-soft">
          {fixedDigits(100 * Math.abs(left), 0)} % of the slope before is left
          {left < 0 ? ', the other way' : ''}.
        </p>
      )}
    </section>
  )
}

const bearersSchema = z.array(z.enum(Object.keys(JAW_BEARERS) as [JawBearer, ...JawBearer[]]))

/** Whether to turn the program instead of the vise: asks what depends on the jaw. */
export function TurnInstead({ squared }: { squared: Squareness }) {
  const { setup } = useOpenSetup()
  const [bearers, change] = useKept<JawBearer[]>(`${setup.id}.bearers`, bearersSchema, () => [])
  const { says, why } = squareOrTurn(
    squared.angle,
    squared.within,
    setup.profile.rotation?.on ?? null,
    bearers,
  )
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 content-center font-semibold">Or turn the program instead?</summary>
      <p className="font-semibold">{says}</p>
      <p className="text-sm text-ink-soft">
        {why} The jaw stands at <span className="digits">{fixedDigits(squared.angle, 3)}°</span>.
      </p>
      {setup.profile.rotation && (
        <fieldset className="pb-2">
          <legend className="text-sm text-ink-soft">Depends on the jaw being square:</legend>
          {(Object.keys(JAW_BEARERS) as JawBearer[]).map((each) => (
            <label key={each} className="flex min-h-11 items-center gap-3 leading-tight">
              <input
                type="checkbox"
                checked={bearers.includes(each)}
                onChange={({ target }) =>
                  change(target.checked ? [...bearers, each] : bearers.filter((other) => other !== each))
                }
                className="size-6 shrink-0 accent-ink"
              />
              {JAW_BEARERS[each]}
            </label>
          ))}
        </fieldset>
      )}
    </details>
  )
}

import type { Capability, Chart, Drift, Ratio } from '@dogleg/core/gauge'
import { RULES, type RuleName } from '@dogleg/core/gauge'
import { fixedDigits } from '@dogleg/core/quantity'
import { partLabel, type ValueSeries } from '@dogleg/core/setup'
import { formatValue } from './format-value.ts'

interface CapabilityPanelProps {
  series: ValueSeries
  chart: Chart | undefined
  drift: Drift | undefined
  fit: Capability | undefined
}

const ratio = ({ value, low, high }: Ratio) =>
  `${fixedDigits(value, 2)} (${fixedDigits(low, 2)} to ${fixedDigits(high, 2)})`

/** What the values say: where the tool will be out, what has changed, how the process fits its tolerance. */
export function CapabilityPanel({ series, chart, drift, fit }: CapabilityPanelProps) {
  const { of } = series
  const unit = of.unit
  const counts = new Map<RuleName, number>()
  for (const { rule } of chart?.signals ?? []) counts.set(rule, (counts.get(rule) ?? 0) + 1)
  const labelOf = (index: number) => partLabel(series, index)
  return (
    <div className="space-y-2">
      <section aria-label="Drift">
        <h2 className="font-semibold">{of.tool === null ? 'Drift' : `Wear of T${of.tool}`}</h2>
        {!drift && <p>Fewer than five parts since it was corrected: no drift can be told yet.</p>}
        {drift && !drift.seen && (
          <p>No drift over the last {drift.over} parts: what it moves is less than its doubt.</p>
        )}
        {drift?.seen && (
          <>
            {drift.correctBefore !== undefined && !series.uncorrected && (
              <p className="text-2xl leading-8 font-semibold" data-testid="correct-before">
                Correct it before part {labelOf(drift.correctBefore)}
              </p>
            )}
            <p>
              {series.uncorrected ? 'Without the correction it would move by' : 'It moves by'}{' '}
              <span className="digits font-semibold">
                {unit === 'deg'
                  ? fixedDigits(drift.slope, 6)
                  : fixedDigits(drift.slope, unit === 'inch' ? 6 : 5)}
              </span>{' '}
              a part, over {drift.over} parts. {series.uncorrected && 'The program corrects it.'}
              {drift.reaches &&
                !series.uncorrected &&
                `It reaches the ${drift.reaches.limit} limit at part ${labelOf(drift.reaches.at)}${
                  drift.reaches.latest === undefined
                    ? `, or from ${labelOf(drift.reaches.earliest)} on`
                    : ` (${labelOf(drift.reaches.earliest)} to ${labelOf(drift.reaches.latest)})`
                }.`}
            </p>
          </>
        )}
      </section>
      <section aria-label="Rules" className="border-t border-rule pt-1">
        <h2 className="font-semibold">
          {chart
            ? counts.size === 0
              ? 'In control: no rule speaks'
              : 'Something has changed'
            : 'Too few parts for limits'}
        </h2>
        <ul className="text-sm leading-5">
          {[...counts].map(([rule, count]) => (
            <li key={rule}>
              <span className="digits font-semibold">{count}×</span> {RULES[rule]}
            </li>
          ))}
        </ul>
      </section>
      {fit && (
        <section aria-label="Capability" className="border-t border-rule pt-1">
          <h2 className="font-semibold">Against the tolerance, {fit.n} parts</h2>
          <table className="w-full">
            <caption className="sr-only">Capability, with the range at 95 %</caption>
            <tbody>
              {(
                [
                  ['Cpk, part to part', fit.cpk],
                  ['Ppk, all of them', fit.ppk],
                  ['Cp', fit.cp],
                  ['Pp', fit.pp],
                ] as const
              ).map(
                ([name, value]) =>
                  value && (
                    <tr key={name} className="border-t border-rule">
                      <th scope="row" className="text-left font-normal">
                        {name}
                      </th>
                      <td className="digits text-right">{ratio(value)}</td>
                    </tr>
                  ),
              )}
              <tr className="border-t border-rule">
                <th scope="row" className="text-left font-normal">
                  Mean, scatter
                </th>
                <td className="digits text-right">
                  {formatValue(fit.mean, unit)}, {fixedDigits(fit.overall, 5)}
                </td>
              </tr>
            </tbody>
          </table>
          <p className="text-sm leading-5 text-ink-soft">
            In brackets: where it truly lies, 95 %.
            {counts.size > 0 && ' It moves: what it could do is not what it does. Look at Ppk.'}
          </p>
        </section>
      )}
    </div>
  )
}

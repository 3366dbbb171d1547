import type { Characteristic, TriedCase } from '@dogleg/core/gauge'
import { CircleCheckBig, OctagonX } from 'lucide-react'
import { formatValue } from './format-value.ts'

interface CaseTableProps {
  cases: readonly TriedCase[]
  unitOf: (key: string | undefined) => Characteristic['unit']
  /** A part like this is put under the probe. */
  onPick: (one: TriedCase) => void
}

/** What a program did with a part, in a few words. */
function outcome({ tried, next }: TriedCase, format: (value: number) => string): string {
  if (tried.alarm) return tried.alarm.says || `alarm in line ${tried.alarm.line}`
  if (tried.skipped) return 'skips what follows'
  if (next) return `corrects: ${format(next.before)} off, then ${format(next.after)}`
  return 'goes on'
}

/** Every kind of part, and what the program does with it. */
export function CaseTable({ cases, unitOf, onPick }: CaseTableProps) {
  const wrong = cases.filter((each) => each.wrong.length > 0).length
  return (
    <table className="w-full border-collapse text-left">
      <caption className="py-1 text-left font-semibold">
        {wrong === 0
          ? `Tried on ${cases.length} kinds of part: each came out as the plan says.`
          : `Tried on ${cases.length} kinds of part: ${wrong} did not come out as the plan says.`}
      </caption>
      <thead className="text-sm text-ink-soft">
        <tr>
          <th className="font-normal">Value</th>
          <th className="font-normal">Part</th>
          <th className="text-right font-normal">Measures</th>
          <th className="pl-3 font-normal">The program</th>
          <th className="font-normal">
            <span className="sr-only">As it should</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {cases.map((each) => {
          const unit = unitOf(each.key)
          const format = (value: number) => formatValue(value, unit)
          return (
            <tr key={`${each.key}/${each.kind}`} className="border-t border-rule">
              <td className="pr-3 font-semibold">{each.key ?? ''}</td>
              <td>
                <button
                  type="button"
                  onClick={() => onPick(each)}
                  className="min-h-9 text-left underline decoration-rule decoration-2 underline-offset-4"
                >
                  {each.kind}
                </button>
              </td>
              <td className="digits text-right">{each.value === undefined ? '' : format(each.value)}</td>
              <td className="pl-3">
                {outcome(each, format)}
                {each.wrong.map((says) => (
                  <span key={says} className="block font-semibold">
                    {says}
                  </span>
                ))}
              </td>
              <td className="whitespace-nowrap">
                {each.wrong.length === 0 ? (
                  <span className="inline-flex items-center gap-1">
                    <CircleCheckBig aria-hidden size={18} /> right
                  </span>
                ) : (
                  <span className="inline-flex items-center gap-1 font-semibold">
                    <OctagonX aria-hidden size={18} className="rounded-sm bg-hazard text-stock" /> wrong
                  </span>
                )}
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

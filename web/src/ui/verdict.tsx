import type { Finding, Severity, Verdict } from '@dogleg/core/fact'
import { Check, ChevronDown, Eye, Info, type LucideIcon, OctagonX } from 'lucide-react'

const VERDICTS: Record<Verdict, { word: string; Icon: LucideIcon; look: string }> = {
  good: { word: 'Good', Icon: Check, look: 'border border-ink text-ink' },
  look: { word: 'Check this', Icon: Eye, look: 'bg-ink text-stock' },
  stop: { word: 'Stop', Icon: OctagonX, look: 'bg-hazard text-stock' },
}

/** A verdict: a word and a shape, never colour alone. */
export function VerdictMark({ verdict }: { verdict: Verdict }) {
  const { word, Icon, look } = VERDICTS[verdict]
  return (
    <span className={`inline-flex items-center gap-1.5 rounded-sm px-2 py-0.5 text-lg font-semibold ${look}`}>
      <Icon aria-hidden size={20} strokeWidth={2.5} />
      {word}
    </span>
  )
}

const SEVERITIES: Record<Severity, { Icon: LucideIcon; look: string; word: string }> = {
  stop: { Icon: OctagonX, look: 'text-hazard', word: 'Stop' },
  look: { Icon: Eye, look: 'text-ink', word: 'Check this' },
  note: { Icon: Info, look: 'text-ink-soft', word: 'Note' },
}

/** What the checks say, worst first: the sentence and what to do; a press opens the reason. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null
  // Two checks may find the same: it is said once.
  const once = new Map(findings.map((each) => [`${each.code}-${each.where}-${each.says}`, each]))
  return (
    <ul className="space-y-1">
      {[...once].map(([key, { severity, says, why, fix }]) => {
        const { Icon, look, word } = SEVERITIES[severity]
        return (
          <li key={key}>
            <details className="group">
              <summary className="flex min-h-11 list-none gap-2 py-1 hover:bg-stock-shade">
                <Icon aria-label={word} size={20} className={`mt-0.5 shrink-0 ${look}`} />
                <span className="flex-1 leading-snug">
                  <span className="block font-semibold">{says}</span>
                  {fix}
                </span>
                <ChevronDown
                  aria-label="Why"
                  size={18}
                  className="mt-0.5 shrink-0 text-ink-soft group-open:rotate-180"
                />
              </summary>
              <p className="pb-1 pl-7 text-ink-soft">{why}</p>
            </details>
          </li>
        )
      })}
    </ul>
  )
}

import { type Answer, type Finding, type Freshness, verdictOf } from '@dogleg/core/fact'
import { formatLength, unitSymbol } from '@dogleg/core/quantity'
import type { ReactNode } from 'react'
import { FactLine } from './fact-line.tsx'
import { Findings, VerdictMark } from './verdict.tsx'

interface WorkingProps {
  answer: Pick<Answer<number>, 'working'>
  title?: string
}

/** The arithmetic, line by line, with the numbers put in. */
export function Working({ answer, title = 'Working' }: WorkingProps) {
  return (
    <div>
      <h3 className="font-semibold">{title}</h3>
      <ol>
        {answer.working.map(({ finds, arithmetic, means, gives }) => (
          <li key={finds} className="border-t border-rule py-0.5">
            <p className="flex items-baseline justify-between gap-3">
              {finds}
              <span className="digits text-lg font-semibold">{gives}</span>
            </p>
            <p className="digits text-sm leading-5">{arithmetic}</p>
            {means && <p className="text-sm leading-5 text-ink-soft">{means}</p>}
          </li>
        ))}
      </ol>
    </div>
  )
}

export function DoubtParts({ answer }: { answer: Pick<Answer<number>, 'doubt' | 'unit'> }) {
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 content-center font-semibold">What the doubt is made of</summary>
      <ul className="pb-2 text-sm">
        {answer.doubt.parts.map(({ from, value }) => (
          <li key={from} className="flex justify-between gap-2">
            {from}
            <span className="digits">
              {formatLength(value, answer.unit, { digits: answer.unit === 'inch' ? 5 : 4 })}
            </span>
          </li>
        ))}
        <li className="text-ink-soft">Combined by the root of the sum of their squares.</li>
      </ul>
    </details>
  )
}

type FactShown = { entry: { by: string; at: string }; freshness: Freshness } | undefined

/** The verdict, who recorded the fact and whether it still holds, and what the checks say. */
export function Judged({ findings, fact }: { findings: readonly Finding[]; fact?: FactShown }) {
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        {fact?.freshness.state !== 'stale' && <VerdictMark verdict={verdictOf(findings)} />}
        {fact && <FactLine fact={fact} />}
      </div>
      <Findings findings={findings} />
    </>
  )
}

interface AnswerPanelProps {
  title: string
  answer: Answer<number>
  findings: readonly Finding[]
  /** The fact that is shown, when it is one of the log rather than what is being typed. */
  fact?: FactShown
  /** What stands above the value: the thing to do with it. */
  children?: ReactNode
  /** What else the readings tell, under the value. */
  after?: ReactNode
  /** Details, under the working. */
  details?: ReactNode
}

/** The answer at arm's length, how far off it may be, the verdict, and the working. */
export function AnswerPanel({ title, answer, findings, fact, children, after, details }: AnswerPanelProps) {
  const stale = fact?.freshness.state === 'stale'
  return (
    <section aria-label={title} className="grid gap-x-8 gap-y-3 md:grid-cols-2 xl:grid-cols-1">
      <div className="space-y-3">
        {children}
        <div className={stale ? 'hatched -mx-2 px-2' : ''}>
          <h2 className="font-semibold">{title}</h2>
          <p
            className="digits text-5xl leading-tight tracking-tight"
            data-testid="answer"
            data-value={formatLength(answer.value, answer.unit)}
          >
            {formatLength(answer.value, answer.unit)}
            <span className="ml-2 text-xl text-ink-soft">{unitSymbol(answer.unit)}</span>
          </p>
          <p className="text-xl">
            <span className="digits">±{formatLength(answer.doubt.value, answer.unit)}</span>
            <span className="ml-2 text-base text-ink-soft">how far off it may be</span>
          </p>
        </div>
        {after}
        <Judged findings={findings} fact={fact} />
      </div>
      <div>
        <Working answer={answer} />
        <DoubtParts answer={answer} />
        {details}
      </div>
    </section>
  )
}

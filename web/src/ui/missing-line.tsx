import type { FieldProblems } from '@dogleg/core/quantity'

interface MissingLineProps {
  problems: FieldProblems
  /** What was read says stop. */
  stopped?: boolean
  /** What keeps it from being pressed before anything else. */
  says?: string | undefined
}

/** Under the key that records: what keeps it from being pressed. */
export function MissingLine({ problems, stopped = false, says }: MissingLineProps) {
  const all = Object.values(problems)
  const missing = all.filter(({ empty }) => empty).length
  return (
    <p className="min-h-5 text-sm text-ink-soft" aria-live="polite">
      {says ??
        (stopped
          ? 'Not recorded while the verdict is stop.'
          : all.length > missing
            ? 'One field is not understood yet.'
            : missing > 0
              ? `${missing} ${missing === 1 ? 'answer is' : 'answers are'} still missing.`
              : '')}
    </p>
  )
}

import type { FieldProblems } from '@dogleg/core/quantity'

/** Under the key that records: what keeps it from being pressed. */
export function MissingLine({ problems }: { problems: FieldProblems }) {
  const all = Object.values(problems)
  const missing = all.filter(({ empty }) => empty).length
  return (
    <p className="min-h-5 text-sm text-ink-soft" aria-live="polite">
      {all.length > missing
        ? 'One field is not understood yet.'
        : missing > 0
          ? `${missing} ${missing === 1 ? 'answer is' : 'answers are'} still missing.`
          : ''}
    </p>
  )
}

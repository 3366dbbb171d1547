/** How far long work is, as a bar in ink. */
export const Progress = ({
  share,
  label,
  className = '',
}: {
  share: number
  label: string
  className?: string
}) => (
  <progress
    value={share}
    max={1}
    aria-label={label}
    className={`h-6 appearance-none overflow-hidden rounded-sm border border-ink-soft [&::-moz-progress-bar]:bg-ink [&::-webkit-progress-bar]:bg-stock-shade [&::-webkit-progress-value]:bg-ink ${className}`}
  />
)

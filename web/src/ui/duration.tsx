import { formatDuration } from '@dogleg/core/quantity'

/** A time for reading at arm's length: its numbers large, its units small beside them. */
export const Duration = ({ seconds, className = '' }: { seconds: number; className?: string }) => (
  <span className={`whitespace-nowrap ${className}`}>
    {formatDuration(seconds)
      .split(' ')
      .map((part, index) =>
        /\d/.test(part) ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: a part of a time is its place
          <span key={index} className={`digits ${index > 0 ? 'ml-[0.3em]' : ''}`}>
            {part}
          </span>
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: so is its unit
          <span key={index} className="ml-[0.15em] text-[0.65em]">
            {part}
          </span>
        ),
      )}
  </span>
)

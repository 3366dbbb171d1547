import type { TimeParts } from '@dogleg/core/timing'

export type Kind = keyof TimeParts

export const KINDS: readonly [Kind, string][] = [
  ['cutting', 'cutting'],
  ['rapid', 'rapids'],
  ['toolChange', 'tool changes'],
  ['spindle', 'spindle'],
  ['dwell', 'dwells'],
  ['tappingOut', 'tapping out'],
  ['probing', 'probing'],
]

const INK = 'var(--color-ink)'

/** Fills that are told apart without colour, in ink on tag stock. */
function TimePatterns({ id }: { id: string }) {
  const pattern = (kind: Kind, size: number, d: string, width: number) => (
    <pattern id={`${id}-${kind}`} width={size} height={size} patternUnits="userSpaceOnUse">
      <path d={d} stroke={INK} strokeWidth={width} fill="none" />
    </pattern>
  )
  return (
    <defs>
      {pattern('rapid', 7, 'M-1,1 l2,-2 M0,7 l7,-7 M6,8 l2,-2', 1.6)}
      {pattern('toolChange', 6, 'M0,3 h6', 2)}
      {pattern('spindle', 6, 'M3,0 v6', 2)}
      {pattern('tappingOut', 8, 'M0,0 l8,8 M8,0 l-8,8', 1.2)}
      {pattern('dwell', 9, 'M4,3.5 v1', 3)}
      {pattern('probing', 10, 'M0,5 h10 M5,0 v10', 1)}
    </defs>
  )
}

const fillOf = (id: string, kind: Kind) => (kind === 'cutting' ? INK : `url(#${id}-${kind})`)

const WIDTH = 400

/** One bar with its kinds one after the other; `whole` seconds are its full width. */
export function TimeBar({ id, parts, whole }: { id: string; parts: TimeParts; whole: number }) {
  let at = 0
  return (
    <svg viewBox={`0 0 ${WIDTH} 22`} preserveAspectRatio="none" className="h-5 w-full" aria-hidden>
      <TimePatterns id={id} />
      {KINDS.map(([kind]) => {
        const width = whole > 0 ? (WIDTH * parts[kind]) / whole : 0
        const x = at
        at += width
        return width > 0 ? (
          <rect
            key={kind}
            x={x}
            y={1}
            width={width}
            height={20}
            fill={fillOf(id, kind)}
            stroke={INK}
            strokeWidth={0.8}
          />
        ) : null
      })}
    </svg>
  )
}

/** What each fill means, for the kinds that there are. */
export const TimeLegend = ({ id, parts }: { id: string; parts: TimeParts }) => (
  <p className="flex flex-wrap gap-x-4 gap-y-1">
    {KINDS.filter(([kind]) => parts[kind] > 0).map(([kind, word]) => (
      <span key={kind} className="inline-flex items-center gap-1.5">
        <svg width={26} height={16} aria-hidden>
          <TimePatterns id={`${id}-${kind}`} />
          <rect width={26} height={16} fill={fillOf(`${id}-${kind}`, kind)} stroke={INK} />
        </svg>
        {word}
      </span>
    ))}
  </p>
)

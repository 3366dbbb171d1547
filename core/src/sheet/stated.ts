import type { Freshness } from '../fact/index.ts'
import type { Logged } from '../setup/index.ts'

/** Who stated something and when (ISO 8601), and why it no longer holds, if it does not. */
export interface Stated {
  by: string
  at: string
  stale?: string
}

/** One line of the sheet: what it is, what it says, and further words. */
export interface SheetLine extends Stated {
  what: string
  says: string
  more: string
}

const staleOf = (freshness: Freshness) => (freshness.state === 'stale' ? { stale: freshness.cause.says } : {})
export const stated = ({ by, at }: Logged, freshness?: Freshness): Stated => ({
  by,
  at,
  ...(freshness ? staleOf(freshness) : {}),
})

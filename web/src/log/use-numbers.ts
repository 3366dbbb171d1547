import type { LogEntry } from '@dogleg/core/log'
import type { Logged } from '@dogleg/core/setup'
import { useQueries } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api } from './api.ts'
import { useAskEvery } from './changes.ts'
import { NUMBERS_KEY, withoutDoubles } from './log-cache.ts'
import { useOwnEntries } from './own-entries.ts'
import { readLog } from './read-log.ts'

const LISTEN_MS = 4000

/**
 * The serial numbers of some series that the shop has given out, this tablet's own included; `known` is false while the server has not
 * answered: then only this tablet's are.
 */
export function useNumbers(series: readonly string[]): { entries: readonly Logged[]; known: boolean } {
  const mine = useOwnEntries()
  const every = useAskEvery(LISTEN_MS)
  const { told, known } = useQueries({
    queries: [...new Set(series)].sort().map((each) => ({
      queryKey: [...NUMBERS_KEY, each],
      queryFn: async () => ({ entries: (await api.numbersOf(each)).entries, seq: 0 }),
      refetchInterval: every,
    })),
    combine: together,
  })
  const entries = useMemo(
    () => withoutDoubles([...told.flatMap((each) => readLog(each)), ...mine]),
    [told, mine],
  )
  return { entries, known }
}

/** What the server told of each, one value as long as nothing in it is another. */
const together = (results: readonly { data: { entries: LogEntry[] } | undefined }[]) => ({
  told: results.map(({ data }) => data?.entries ?? NOTHING),
  known: results.every(({ data }) => data !== undefined),
})
const NOTHING: LogEntry[] = []

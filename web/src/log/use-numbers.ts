import type { Logged } from '@dogleg/core/setup'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api } from './api.ts'
import { askSince, NUMBERS_KEY, withoutDoubles } from './log-cache.ts'
import { useOwnEntries } from './own-entries.ts'
import { readLog } from './read-log.ts'

const LISTEN_MS = 4000

/**
 * The serial numbers that the shop has given out, this tablet's own included; `known` is false while the server has not
 * answered: then only this tablet's are.
 */
export function useNumbers(): { entries: readonly Logged[]; known: boolean } {
  const client = useQueryClient()
  const mine = useOwnEntries()
  const { data } = useQuery({
    queryKey: NUMBERS_KEY,
    queryFn: () => askSince(client, NUMBERS_KEY, (after) => api.numbersSince(after)),
    refetchInterval: LISTEN_MS,
  })
  const entries = useMemo(() => withoutDoubles([...readLog(data?.entries ?? []), ...mine]), [data, mine])
  return { entries, known: data !== undefined }
}

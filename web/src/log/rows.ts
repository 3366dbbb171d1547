import type { DamagedRow, Retirement } from '@dogleg/core/api'
import { NOUNS, type Noun, type Reference, type Row, referenceFrom } from '@dogleg/core/setup'
import { type UseQueryResult, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { api } from './api.ts'
import { useAskEvery } from './changes.ts'
import { STAMP_KEY } from './log-cache.ts'

/** The stamp that each list was read at. */
const readAt = new Map<Noun, number>()

/** One list of reference data as the server told it. */
export interface ToldRows<N extends Noun = Noun> {
  rows: Row<N>[]
  /** Rows that the server cannot read. */
  damaged: DamagedRow[]
  /** Rows of the list that are not used any more. */
  retired: Retirement[]
}

async function askRows<N extends Noun>(noun: N): Promise<ToldRows<N>> {
  const { stamp, ...told } = await api.rows(noun)
  readAt.set(noun, stamp)
  return told
}

const asked = <N extends Noun>(noun: N) => ({ queryKey: [noun], queryFn: () => askRows(noun) })

/** One list of reference data, as the server has it; retired rows are among them. */
export const useRows = <N extends Noun>(noun: N) => useQuery({ ...asked(noun), select: (told) => told.rows })

/** What is told beside a list: rows that cannot be read, and those that are retired. */
export function useBesideRows(noun: Noun): Pick<ToldRows, 'damaged' | 'retired'> {
  const { data } = useQuery(asked(noun))
  return data ?? { damaged: [], retired: [] }
}

/** One list without what is retired, apart from what is chosen already. */
export function useRowsInForce<N extends Noun>(noun: N, chosen?: string): Row<N>[] {
  const { data } = useQuery(asked(noun))
  return useMemo(() => {
    const out = new Set(data?.retired.map(({ id }) => id))
    return (data?.rows ?? []).filter(({ id }) => id === chosen || !out.has(id))
  }, [data, chosen])
}

const WATCH_MS = 5000

/**
 * Asks now and then whether reference data was changed on another tablet, and reads the lists again that are of another time: what was
 * written with a profile goes stale on every page that stands open.
 */
export function useReferenceWatch() {
  const client = useQueryClient()
  const { data } = useQuery({
    queryKey: STAMP_KEY,
    queryFn: api.referenceStamp,
    refetchInterval: useAskEvery(WATCH_MS),
  })
  const stamp = data?.stamp
  useEffect(() => {
    if (stamp === undefined) return
    for (const [noun, at] of readAt) if (at !== stamp) void client.invalidateQueries({ queryKey: [noun] })
  }, [client, stamp])
}

/** One object as long as nothing in it is another: TanStack Query shares what is the same. */
const together = (results: UseQueryResult<ToldRows>[]) => ({
  lists: results.map(({ data }) => data),
  error: results.find(({ error }) => error)?.error ?? null,
})

/** Every list of reference data, once all are there. */
export function useReference() {
  const { lists, error } = useQueries({
    queries: NOUNS.map((noun) => asked(noun)),
    combine: together,
  })
  const reference = useMemo<Reference | undefined>(
    () =>
      lists.every((told) => told !== undefined)
        ? referenceFrom(
            Object.fromEntries(NOUNS.map((noun, n) => [noun, lists[n]?.rows])) as unknown as Reference,
            NOUNS.flatMap((noun, n) => (lists[n]?.retired ?? []).map(({ id }) => ({ noun, id }))),
          )
        : undefined,
    [lists],
  )
  return { reference, error }
}

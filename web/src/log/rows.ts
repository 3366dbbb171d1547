import { NOUNS, type Noun, type Reference, type Row } from '@dogleg/core/setup'
import { type UseQueryResult, useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { api } from './api.ts'
import { useAskEvery } from './changes.ts'
import { STAMP_KEY } from './log-cache.ts'

/** The stamp that each list was read at. */
const readAt = new Map<Noun, number>()

async function askRows<N extends Noun>(noun: N): Promise<Row<N>[]> {
  const { rows, stamp } = await api.rows(noun)
  readAt.set(noun, stamp)
  return rows
}

/** One list of reference data, as the server has it. */
export const useRows = <N extends Noun>(noun: N) =>
  useQuery({ queryKey: [noun], queryFn: () => askRows(noun) })

/** Rows of a list that the server cannot read. */
export const useDamagedRows = (noun: Noun) =>
  useQuery({
    queryKey: ['damaged', noun],
    queryFn: async () => (await api.rows(noun)).damaged,
  }).data ?? []

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
const together = (results: UseQueryResult<readonly object[]>[]) => ({
  lists: results.map(({ data }) => data),
  error: results.find(({ error }) => error)?.error ?? null,
})

/** Every list of reference data, once all are there. */
export function useReference() {
  const { lists, error } = useQueries({
    queries: NOUNS.map((noun) => ({ queryKey: [noun], queryFn: () => askRows(noun) })),
    combine: together,
  })
  const reference = useMemo<Reference | undefined>(
    () =>
      lists.every((rows) => rows !== undefined)
        ? (Object.fromEntries(NOUNS.map((noun, n) => [noun, lists[n]])) as unknown as Reference)
        : undefined,
    [lists],
  )
  return { reference, error }
}

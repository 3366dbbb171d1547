import type { Reference } from '@dogleg/core/setup'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { api, type Noun, type Row } from './api.ts'

/** The stamp that each list was read at. */
const readAt = new Map<Noun, number>()

async function readRows<N extends Noun>(noun: N): Promise<Row<N>[]> {
  const { rows, stamp } = await api.rows(noun)
  readAt.set(noun, stamp)
  return rows
}

/** One list of reference data, as the server has it. */
export const useRows = <N extends Noun>(noun: N) =>
  useQuery({ queryKey: [noun], queryFn: () => readRows(noun) })

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
    queryKey: ['reference-stamp'],
    queryFn: api.referenceStamp,
    refetchInterval: WATCH_MS,
  })
  const stamp = data?.stamp
  useEffect(() => {
    if (stamp === undefined) return
    for (const [noun, at] of readAt) if (at !== stamp) void client.invalidateQueries({ queryKey: [noun] })
  }, [client, stamp])
}

export const useReference = () => {
  const [machines, profiles, vises, collets, tools, materials] = [
    useRows('machines'),
    useRows('profiles'),
    useRows('vises'),
    useRows('collets'),
    useRows('tools'),
    useRows('materials'),
  ]
  const reference = useMemo<Reference | undefined>(
    () =>
      machines.data && profiles.data && vises.data && collets.data && tools.data && materials.data
        ? {
            machines: machines.data,
            profiles: profiles.data,
            vises: vises.data,
            collets: collets.data,
            tools: tools.data,
            materials: materials.data,
          }
        : undefined,
    [machines.data, profiles.data, vises.data, collets.data, tools.data, materials.data],
  )
  return {
    reference,
    error: machines.error ?? profiles.error ?? vises.error ?? collets.error ?? tools.error ?? materials.error,
  }
}

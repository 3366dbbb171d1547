import type { Reference } from '@dogleg/core/setup'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type Noun } from './api.ts'

/** One list of reference data, as the server has it. */
export const useRows = <N extends Noun>(noun: N) =>
  useQuery({ queryKey: [noun], queryFn: () => api.rows(noun) })

export const useReference = () => {
  const [machines, profiles, vises, collets] = [
    useRows('machines'),
    useRows('profiles'),
    useRows('vises'),
    useRows('collets'),
  ]
  const reference = useMemo<Reference | undefined>(
    () =>
      machines.data && profiles.data && vises.data && collets.data
        ? { machines: machines.data, profiles: profiles.data, vises: vises.data, collets: collets.data }
        : undefined,
    [machines.data, profiles.data, vises.data, collets.data],
  )
  return { reference, error: machines.error ?? profiles.error ?? vises.error ?? collets.error }
}

import type { Reference } from '@dogleg/core/setup'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { api, type Noun } from './api.ts'

/** One list of reference data, as the server has it. */
export const useRows = <N extends Noun>(noun: N) =>
  useQuery({ queryKey: [noun], queryFn: () => api.rows(noun) })

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

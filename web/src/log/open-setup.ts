import {
  type Entry,
  type OffsetState,
  offsetOf,
  type ReadyState,
  type Reference,
  type Setup,
} from '@dogleg/core/setup'
import { useOutletContext, useSearchParams } from 'react-router'

/** What every view of a setup works on. */
export interface OpenSetup {
  setup: Setup
  entries: readonly Entry[]
  reference: Reference
  /** Whether the machine is ready: from the logs of all its setups. */
  ready: ReadyState
  machineEntries: readonly Entry[]
}

export const useOpenSetup = () => useOutletContext<OpenSetup>()

/** The offset in hand: named in the address, so that a reload and the other views keep it. */
export function useOffset(setup: Setup): [OffsetState, (name: string) => void] {
  const [search, setSearch] = useSearchParams()
  const named = search.get('offset')
  const first = setup.offsets.find(({ state }) => state === 'stale') ?? setup.offsets[0]
  const name = named ?? first?.name ?? 'G54'
  const choose = (next: string) =>
    setSearch(
      (params) => {
        params.set('offset', next)
        return params
      },
      { replace: true },
    )
  return [offsetOf(setup, name), choose]
}

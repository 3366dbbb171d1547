import type { Machine, PositionsRead } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, useContext, useLayoutEffect, useState } from 'react'
import { api, Refused } from '../log/api.ts'
import { atMachine } from '../simulated/at-machine.ts'
import { tell } from '../tablet/tell.ts'

/** Where the positions of the machine in hand are read from. */
export interface PositionSource {
  /** The machine's id, or that of a simulated machine. */
  id: string
  of: 'machine' | 'simulated'
  /** What the machine is called. */
  name: string
  unit: LengthUnit
  leastStep: number
}

/** Set where a machine says where its positions can be read; undefined where they are typed only. */
export const PositionContext = createContext<PositionSource | undefined>(undefined)

/** That of a machine of the shop. */
export const positionSourceOf = ({
  id,
  name,
  unit,
  leastStep,
  positions,
}: Machine): PositionSource | undefined =>
  positions
    ? {
        id,
        of: positions.from === 'simulated' ? 'simulated' : 'machine',
        name: positions.from === 'simulated' ? `the simulated ${name}` : name,
        unit,
        leastStep,
      }
    : undefined

/** How often they are read, and from when on they count as lost. */
const EVERY_MS = 1000
const LOST_AFTER_MS = 4000

type PositionsState =
  | ({ state: 'live' } & Pick<PositionsRead, 'name' | 'positions' | 'rotary' | 'since' | 'notes'>)
  /** `off`: nobody switched the simulated machine on. */
  | { state: 'lost'; says: string; off: boolean }
  | { state: 'waiting' }

export interface Positions {
  source: PositionSource
  now: PositionsState
  /** Reads them at this moment; throws what there is to say. */
  take: () => Promise<PositionsRead>
}

const read = ({ of, id }: PositionSource) => (of === 'machine' ? api.positions(id) : atMachine.positions(id))

/** Seconds since the last answer once it is too old, counted on though nothing comes; 0 while it is not. */
function useSilence(answered: number): number {
  const [seconds, setSeconds] = useState(0)
  // Before anything is painted: the answer may be there from long before something showed it.
  useLayoutEffect(() => {
    if (answered === 0) return
    // From here on by a clock that nobody sets.
    const began = performance.now() - Math.max(0, Date.now() - answered)
    const count = () => {
      const age = performance.now() - began
      setSeconds(age < LOST_AFTER_MS ? 0 : Math.round(age / 1000))
    }
    count()
    const counting = setInterval(count, EVERY_MS)
    return () => clearInterval(counting)
  }, [answered])
  return seconds
}

/** The positions of the machine in hand, read every second while something shows them; undefined where there is no source. */
export function usePositions(): Positions | undefined {
  const source = useContext(PositionContext)
  const client = useQueryClient()
  const key = ['positions', source?.of, source?.id]
  const { data, error, dataUpdatedAt } = useQuery({
    queryKey: key,
    queryFn: () => (source ? read(source) : Promise.reject(new Error('no source'))),
    enabled: source !== undefined,
    // One that is switched off, or away, is asked less often.
    refetchInterval: ({ state }) => (state.error ? 5 * EVERY_MS : EVERY_MS),
    retry: false,
  })
  // A question may be long under way, and meanwhile nothing else would say that the last answer has grown old.
  const silence = useSilence(dataUpdatedAt)
  if (!source) return undefined
  const now: PositionsState = error
    ? { state: 'lost', says: error.message, off: error instanceof Refused && error.code === 'switched-off' }
    : data && silence > 0
      ? { state: 'lost', says: `No position from ${source.name} for ${silence} s.`, off: false }
      : data
        ? { state: 'live', ...data }
        : { state: 'waiting' }
  return {
    source,
    now,
    take: async () => {
      try {
        const fresh = await read(source)
        client.setQueryData(key, fresh)
        tell('taken')
        return fresh
      } catch (refused) {
        tell('refused')
        throw refused
      }
    },
  }
}

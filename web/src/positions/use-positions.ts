import type { Machine, PositionsRead } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { createContext, useContext } from 'react'
import { api, Refused } from '../log/api.ts'

/** Where the positions of the machine in hand are read from. */
export interface PositionSource {
  /** The machine's id, or that of an exercise's simulated machine. */
  id: string
  of: 'machine' | 'exercise'
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
        of: 'machine',
        name: positions.from === 'simulated' ? `the simulated ${name}` : name,
        unit,
        leastStep,
      }
    : undefined

/** How often they are read, and from when on they count as lost. */
const EVERY_MS = 1000
const LOST_AFTER_MS = 4000

type PositionsState =
  | ({ state: 'live' } & Pick<PositionsRead, 'name' | 'positions' | 'since' | 'notes'>)
  /** `off`: nobody switched the simulated machine on. */
  | { state: 'lost'; says: string; off: boolean }
  | { state: 'waiting' }

export interface Positions {
  source: PositionSource
  now: PositionsState
  /** Reads them at this moment; throws what there is to say. */
  take: () => Promise<PositionsRead>
}

const read = ({ of, id }: PositionSource) =>
  of === 'machine' ? api.positions(id) : api.simulatedPositions(id)

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
  if (!source) return undefined
  const seconds = Math.round((Date.now() - dataUpdatedAt) / 1000)
  const now: PositionsState = error
    ? { state: 'lost', says: error.message, off: error instanceof Refused && error.code === 'switched-off' }
    : data && Date.now() - dataUpdatedAt > LOST_AFTER_MS
      ? { state: 'lost', says: `No position from ${source.name} for ${seconds} s.`, off: false }
      : data
        ? { state: 'live', ...data }
        : { state: 'waiting' }
  return {
    source,
    now,
    take: async () => {
      const fresh = await read(source)
      client.setQueryData(key, fresh)
      return fresh
    },
  }
}

import {
  type Logged,
  type OffsetState,
  offsetOf,
  type ReadyState,
  type Reference,
  type Setup,
  type Step,
  type ToolFact,
} from '@dogleg/core/setup'
import type { Task, Traveler } from '@dogleg/core/traveler'
import { useState } from 'react'
import { useOutletContext, useSearchParams } from 'react-router'

/** What every view of a setup works on. */
export interface OpenSetup {
  setup: Setup
  entries: readonly Logged[]
  reference: Reference
  /** Whether the machine is ready: from the logs of all its setups. */
  ready: ReadyState
  machineEntries: readonly Logged[]
  /** Of the machine's tools, in the setup's unit. */
  lengths: readonly ToolFact[]
  /** What is done, what is left and what is next. */
  traveler: Traveler
}

export const useOpenSetup = () => useOutletContext<OpenSetup>()

/** The part of a step where its own next thing is done; undefined where nothing is left of it. */
export const useNextPart = (step: Step) =>
  useOpenSetup().traveler.steps.find((each) => each.step === step)?.tasks[0]?.part

/** The offset that the next thing is about which is about one, else the first. */
function offsetInHand({ offsets }: Setup, { left }: Traveler): string {
  const asks = ({ about }: Task) => about !== undefined && offsets.some(({ name }) => name === about)
  return left.find(asks)?.about ?? offsets[0]?.name ?? 'G54'
}

/** The offset in hand: named in the address, so that a reload and the other views keep it. */
export function useOffset(setup: Setup): [OffsetState, (name: string) => void] {
  const [search, setSearch] = useSearchParams()
  const named = search.get('offset')
  const { traveler } = useOpenSetup()
  // Named once, and kept: what is recorded must not turn the page to another.
  const [first] = useState(() => offsetInHand(setup, traveler))
  const name = named ?? first
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

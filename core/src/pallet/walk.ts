import type { PalletEvent, PalletTrace } from './trace.ts'

/** A trace followed with a pallet inside: what meets what. */
export interface PalletWalk {
  /** How often a pallet was changed. */
  swaps: number
  /** The first time that a program cuts on a pallet that is not its own. */
  wrong?: { event: PalletEvent & { does: 'cut' }; inside: number }
  /** The first call for a pallet that the machine has not, or that is not in the plan. */
  unknown?: PalletEvent & { does: 'call-pallet' }
  /** Times that each pallet was cut to the end of its stay, by pallet from 1. */
  cuts: number[]
  /** Depth at each change. */
  depths: number[]
}

/**
 * Follows a trace with `inside` on the machine. `palletsOf` gives the pallets (from 1) that a program is meant for: none
 * for the main program and for what others call.
 */
export function walkPallets(
  { events }: PalletTrace,
  inside: number,
  count: number,
  palletsOf: (program: number) => readonly number[],
): PalletWalk {
  const walk: PalletWalk = { swaps: 0, cuts: Array.from({ length: count }, () => 0), depths: [] }
  let now = inside
  let cutting: number | undefined
  const done = () => {
    if (cutting !== undefined) walk.cuts[cutting - 1] = (walk.cuts[cutting - 1] ?? 0) + 1
    cutting = undefined
  }
  for (const event of events) {
    if (event.does === 'call-pallet') {
      done()
      if (event.pallet > count) walk.unknown ??= event
      else if (event.pallet !== now) {
        walk.swaps++
        walk.depths.push(event.depth)
        now = event.pallet
      }
      continue
    }
    const meant = palletsOf(event.program)
    if (meant.length === 0 || event.moves === 0) continue
    if (!meant.includes(now)) walk.wrong ??= { event, inside: now }
    cutting = now
  }
  done()
  return walk
}

/** Whether calls nest deeper at each change, so that the control must run out of levels. */
export const nestsDeeper = ({ depths }: PalletWalk) =>
  depths.length > 1 && depths.every((depth, index) => index === 0 || depth > (depths[index - 1] as number))

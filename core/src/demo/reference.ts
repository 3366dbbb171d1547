import { BUILT_IN_PROFILES } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import type { Reference } from '../setup/index.ts'

/** Mill 1 of the invented shop: inch, vertical, the table moves in X and Y. */
const millOne: Machine = {
  id: 'mill-1',
  version: 1,
  name: 'Mill 1',
  unit: 'inch',
  axes: {
    X: { least: -30, greatest: 0 },
    Y: { least: -16, greatest: 0 },
    Z: { least: -20, greatest: 0 },
  },
  tableMoves: { X: true, Y: true },
  leastStep: 0.0001,
  toolLengths: 'gauge-line',
  profileId: 'compact',
  note: 'Fourth axis on the right end of the table; keep X right of -24 while it is fitted.',
}

export const demoReference: Reference = { machines: [millOne], profiles: BUILT_IN_PROFILES }

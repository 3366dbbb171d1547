import { type CycleSheet, readSheet } from '../code/index.ts'
import { housingSheet, tubeSheet } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import { featureOf, planOf } from '../gauge/testing.ts'
import { programNumberOf } from '../pallet/index.ts'
import type { EntryOf } from '../setup/index.ts'

/** A program of the demo as it is built, its cycles on or off. */
export function sheetOf(kind: 'mill' | 'lathe', on: boolean): CycleSheet {
  const read = readSheet(kind === 'mill' ? housingSheet : tubeSheet, 'inch')
  if (!read.ok) throw new Error(read.says)
  return { ...read.sheet, items: read.sheet.items.map((item) => ({ ...item, off: !on })) }
}
/** A plan that gauges one bore. */
export const plan = (tolerance = '.001') =>
  planOf([featureOf('bore', 'BORE', { nominal: '1', tolerance, x: '1', y: '1', tool: '7', react: 'wear' })])

/** Two pallets of the demo, as they are planned, and which of them is started. */
export const palletsOf = (() => {
  const planned = demoLogs(Date.UTC(2026, 10, 26, 9, 30))
    .titled('both operations')
    .find((each): each is EntryOf<'palleted'> => each.kind === 'palleted')
  if (!planned) throw new Error('the demo has no pallets')
  const { plan, seconds } = planned
  return { plan, seconds, inside: 1 }
})()

/** The same two, the first of them with another program, and its number in the pallet table. */
export const palletsRunning = (title: string, text: string) => ({
  ...palletsOf.plan,
  pallets: palletsOf.plan.pallets.map((each, n) =>
    n > 0
      ? each
      : { params: { ...each.params, table: programNumberOf(text) ?? 0 }, program: { title, text } },
  ),
})

/** A program as it is mended so that a main program can call it. */
export const forPallet = (text: string) => text.replace('M30', 'M99')

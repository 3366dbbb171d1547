import { readSheet, type Sheet } from '../code/index.ts'
import { housingSheet, tubeSheet } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import { featureOf, planOf } from '../gauge/testing.ts'
import type { EntryOf } from '../setup/index.ts'

/** A program of the demo as it is built, its cycles on or off. */
export function sheetOf(kind: 'mill' | 'lathe', on: boolean): Sheet {
  const read = readSheet(kind === 'mill' ? housingSheet : tubeSheet, 'inch')
  if (!read.ok) throw new Error(read.says)
  return { ...read.sheet, items: read.sheet.items.map((item) => ({ ...item, off: !on })) }
}
/** A plan that gauges one bore. */
export const plan = (tolerance = '.001') =>
  planOf([featureOf('bore', 'BORE', { nominal: '1', tolerance, x: '1', y: '1', tool: '7', react: 'wear' })])

/** Two pallets of the demo, as they are planned, and which start of them runs. */
export const palletsOf = (() => {
  const planned = demoLogs(Date.UTC(2026, 10, 26, 9, 30))
    .titled('both operations')
    .find((each): each is EntryOf<'palleted'> => each.kind === 'palleted')
  if (!planned) throw new Error('the demo has no pallets')
  const { plan, seconds } = planned
  return { plan, seconds, inside: 1, loaded: 5501 }
})()
export const isOnPallet = (title: string) =>
  palletsOf.plan.pallets.some(({ program }) => program.title === title)

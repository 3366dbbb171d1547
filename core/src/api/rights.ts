import type { May } from '../people/index.ts'
import type { RouteName, RowRouteName } from './routes.ts'

/**
 * Who asks, from the least to the most: anybody who reaches the server; a tablet that was let in, with nobody at it; and a tablet with
 * somebody at it, by what they may do. Where nobody signs in (at one PC), everybody counts as a lead.
 */
export const STANDINGS = ['anyone', 'tablet', 'looker', 'operator', 'lead'] as const satisfies readonly (
  | 'anyone'
  | 'tablet'
  | May
)[]
export type Standing = (typeof STANDINGS)[number]

/** Who may ask what: the least that each question needs. The server refuses by it at each route, and the page knows by it what to offer. */
export const RIGHTS = {
  session: 'anyone',
  letIn: 'anyone',
  signIn: 'tablet',
  signOut: 'tablet',
  // Each entry is held against whoever signed it: those of a person who has left still go out.
  addEntries: 'tablet',
  changePin: 'looker',
  board: 'looker',
  changes: 'looker',
  setupLog: 'looker',
  longText: 'looker',
  earlierRuns: 'looker',
  jobSetups: 'looker',
  olderSetups: 'looker',
  machineLog: 'looker',
  machinePrograms: 'looker',
  machineTimes: 'looker',
  numbersLog: 'looker',
  search: 'looker',
  shop: 'looker',
  referenceStamp: 'looker',
  practice: 'looker',
  description: 'looker',
  simulated: 'looker',
  simulatedProgram: 'looker',
  simulatedPositions: 'looker',
  positions: 'operator',
  switchOn: 'operator',
  workAt: 'operator',
  hidden: 'operator',
  answerExercise: 'operator',
  importSetup: 'lead',
  setUpShop: 'lead',
  makeBackup: 'lead',
  stopBackup: 'lead',
  people: 'lead',
  addPerson: 'lead',
  savePerson: 'lead',
  tablets: 'lead',
  newCode: 'lead',
  saveTablet: 'lead',
} as const satisfies Record<RouteName, Standing>

/** The same for rows of reference data, whatever their noun. */
export const ROW_RIGHTS = {
  rows: 'looker',
  rowVersions: 'looker',
  addRow: 'lead',
  saveRow: 'lead',
  retireRow: 'lead',
} as const satisfies Record<RowRouteName, Standing>

/** Whether somebody who stands so may ask what needs that. */
export const standsFor = (is: Standing, least: Standing) => STANDINGS.indexOf(is) >= STANDINGS.indexOf(least)

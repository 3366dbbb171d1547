/**
 * Every question that the server answers, by name: its method and its address, with what is asked about after a colon. Apart from what
 * is said in it (the contract), so that the first screen needs no more.
 */
export const ROUTES = {
  addEntries: ['POST', '/api/entries'],
  board: ['GET', '/api/setups'],
  changes: ['GET', '/api/changes'],
  setupLog: ['GET', '/api/setups/:id/entries'],
  longText: ['GET', '/api/texts/:hash'],
  earlierRuns: ['GET', '/api/setups/:id/earlier'],
  jobSetups: ['GET', '/api/jobs/:job'],
  olderSetups: ['GET', '/api/machines/:id/setups'],
  machineLog: ['GET', '/api/machines/:id/entries'],
  machinePrograms: ['GET', '/api/machines/:id/programs'],
  machineTimes: ['GET', '/api/machines/:id/timed'],
  numbersLog: ['GET', '/api/numbers'],
  importSetup: ['POST', '/api/setup-files'],
  search: ['GET', '/api/search'],
  shop: ['GET', '/api/shop'],
  setUpShop: ['POST', '/api/own-shop'],
  makeBackup: ['POST', '/api/backups'],
  stopBackup: ['POST', '/api/backups/stop'],
  referenceStamp: ['GET', '/api/reference-stamp'],
  positions: ['GET', '/api/machines/:id/positions'],
  switchOn: ['PUT', '/api/simulated/:id'],
  simulated: ['GET', '/api/simulated/:id'],
  workAt: ['POST', '/api/simulated/:id/actions'],
  simulatedProgram: ['GET', '/api/simulated/:id/program'],
  hidden: ['GET', '/api/simulated/:id/hidden'],
  simulatedPositions: ['GET', '/api/simulated/:id/positions'],
  practice: ['GET', '/api/practice'],
  answerExercise: ['POST', '/api/practice'],
  description: ['GET', '/api/openapi.json'],
  session: ['GET', '/api/session'],
  letIn: ['POST', '/api/session/tablet'],
  signIn: ['POST', '/api/session/person'],
  signOut: ['POST', '/api/session/end'],
  changePin: ['PUT', '/api/session/pin'],
  people: ['GET', '/api/people'],
  addPerson: ['POST', '/api/people'],
  savePerson: ['PUT', '/api/people/:id'],
  tablets: ['GET', '/api/tablets'],
  newCode: ['POST', '/api/tablets/codes'],
  saveTablet: ['PUT', '/api/tablets/:id'],
} as const satisfies Record<string, Address>
export type RouteName = keyof typeof ROUTES

/** The same for the lists of reference data: one of each for every noun. */
export const ROW_ROUTES = {
  rows: ['GET', '/api/:noun'],
  addRow: ['POST', '/api/:noun'],
  saveRow: ['PUT', '/api/:noun/:id'],
  rowVersions: ['GET', '/api/:noun/:id/versions'],
  retireRow: ['PUT', '/api/:noun/:id/retired'],
} as const satisfies Record<string, Address>
export type RowRouteName = keyof typeof ROW_ROUTES

export type Address = readonly [method: 'GET' | 'POST' | 'PUT', path: string]

/** The part of an address where something is named. */
const NAMED = /:(\w+)/g

/**
 * What something is called as one part of an address, whatever it holds: what a person types into the address line must lead nowhere
 * else. Dots alone would lead up, even where they are escaped: nothing is called so.
 */
const partOf = (name: string) =>
  encodeURIComponent(name.replace(/^\.+$/, (dots) => dots.replaceAll('.', '%2E')))

/** A path with what it is asked about put in, and what is asked behind it. */
export function addressOf(
  path: string,
  params: Readonly<Record<string, string>> = {},
  query: Readonly<Record<string, string | number | undefined>> = {},
): string {
  const asked = Object.entries(query).flatMap(([name, value]) =>
    value === undefined ? [] : [`${encodeURIComponent(name)}=${encodeURIComponent(value)}`],
  )
  const at = path.replace(NAMED, (_whole, name: string) => partOf(params[name] ?? ''))
  return asked.length > 0 ? `${at}?${asked.join('&')}` : at
}

/** The header that says with every answer which page the server has, by the script that it begins with. */
export const PAGE_HEADER = 'dogleg-page'

/**
 * The header by which a page says in which language it asks, and the language of today: raised whenever an answer no longer means what
 * a page from before takes it for. What only adds to an answer needs no other.
 */
export const LANGUAGE_HEADER = 'dogleg-language'
export const LANGUAGE = 3

/** What is asked in any language: entries go through a door that knows all their shapes, and who is at a tablet is asked the same for ever. */
export const ASKED_IN_ANY: readonly RouteName[] = ['addEntries', 'session', 'signIn', 'signOut', 'letIn']

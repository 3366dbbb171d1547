import {
  type Address,
  type Answer,
  addressOf,
  isProblemCode,
  LANGUAGE,
  LANGUAGE_HEADER,
  PAGE_HEADER,
  type ProblemCode,
  type Question,
  ROUTES,
  ROW_ROUTES,
  type RouteName,
  type RowAnswers,
  type RowRouteName,
} from '@dogleg/core/api'
import { isObject, type LogEntry } from '@dogleg/core/log'
import type { Noun, Row } from '@dogleg/core/setup'
import type { SimulatedAction } from '@dogleg/core/simulated'
import { useSyncExternalStore } from 'react'
import { noteServerTime, reading } from './clock.ts'
import { listenerSet } from './listeners.ts'
import { notePage } from './other-page.ts'
import { notePlace } from './place.ts'
import { noteRefused, untilProved, untilSomebodyIsIn } from './session.ts'
import { fetchTexts } from './texts.ts'

/** The server refused, with a sentence. */
export class Refused extends Error {
  readonly status: number
  readonly code: ProblemCode
  readonly detail: unknown
  constructor(status: number, code: ProblemCode, says: string, detail?: unknown) {
    super(says)
    this.status = status
    this.code = code
    this.detail = detail
  }

  /** Whether it may be another answer the next time: the server is busy, or in trouble. */
  get passes(): boolean {
    return this.status >= 500 || this.status === 429 || this.status === 408
  }
}

/** The server could not be reached. */
export class Unreachable extends Error {
  constructor() {
    super('The server does not answer. What you enter is kept on this tablet and is sent when it is back.')
  }
}

const PATIENCE_MS = 10_000

let reachable = true
const { notify, subscribe } = listenerSet()

function noteReachable(now: boolean) {
  if (now === reachable) return
  reachable = now
  notify()
}

/** The server was heard without being asked. */
export const noteHeard = () => noteReachable(true)

/** Whether the server answered the last time it was asked anything. */
export const useReachable = () => useSyncExternalStore(subscribe, () => reachable)

async function fetchJson(
  method: string,
  path: string,
  body: unknown,
): Promise<[Response, Record<string, unknown>]> {
  const spoken = { [LANGUAGE_HEADER]: String(LANGUAGE) }
  const content =
    body === undefined
      ? { headers: spoken }
      : { headers: { ...spoken, 'content-type': 'application/json' }, body: JSON.stringify(body) }
  try {
    const response = await fetch(path, { method, signal: AbortSignal.timeout(PATIENCE_MS), ...content })
    const data: unknown = await response.json()
    // Every answer of the server is an object; anything else comes from something on the way.
    if (isObject(data)) return [response, data]
  } catch {
    // Said below.
  }
  throw new Unreachable()
}

/** What a refusal says; something on the way to the server may refuse in words of its own. */
function refusedAs(status: number, { error }: Record<string, unknown>): Refused {
  const { code, says, detail } = isObject(error) ? error : {}
  return new Refused(
    status,
    isProblemCode(code) ? code : 'failed',
    typeof says === 'string' ? says : 'Something went wrong in the server.',
    detail,
  )
}

/** What is asked also with nobody at this tablet; anything else waits until somebody is. */
const ASKED_BY_NOBODY: ReadonlySet<string> = new Set([
  ROUTES.session[1],
  ROUTES.letIn[1],
  ROUTES.signIn[1],
  ROUTES.signOut[1],
  ROUTES.addEntries[1],
])

interface Sent {
  params?: Readonly<Record<string, string>> | undefined
  query?: Readonly<Record<string, string | number | undefined>> | undefined
  body?: unknown
}

/** Asks once somebody is at this tablet, and again where it turns out that nobody was. */
async function send(address: Address, sent: Sent): Promise<object> {
  if (ASKED_BY_NOBODY.has(address[1])) return sendNow(address, sent)
  for (;;) {
    const somebody = untilSomebodyIsIn()
    if (somebody) await somebody
    try {
      return await sendNow(address, sent)
    } catch (error) {
      if (!(error instanceof Refused) || error.status !== 401 || error.code === 'wrong-pin') throw error
      await untilProved()
    }
  }
}

/** Asks, and notes what every answer tells: that the server is there, its time, and how far its logbook goes. */
async function sendNow([method, path]: Address, { params, query, body }: Sent): Promise<object> {
  const asked = reading()
  const [response, data] = await fetchJson(method, addressOf(path, params, query), body).catch(
    (error: Unreachable) => {
      noteReachable(false)
      throw error
    },
  )
  noteReachable(true)
  notePage(response.headers.get(PAGE_HEADER))
  if (!response.ok) {
    const refused = refusedAs(response.status, data)
    noteRefused(refused.code)
    throw refused
  }
  if (typeof data.time === 'string') noteServerTime(data.time, asked)
  notePlace(data.place, asked.steady)
  return data
}

/**
 * A question by its name, and its answer as the contract has it. That the server answers so is held in its own tests, for every answer
 * that they get: the schemas themselves are not of the first screen.
 */
const ask = async <Name extends RouteName>(name: Name, question: Question<Name>) =>
  (await send(ROUTES[name], question)) as Answer<Name>

/** The same about the rows of a noun. */
const askRows = async <Name extends RowRouteName, Of extends Noun>(
  name: Name,
  noun: Of,
  { id, body, by }: { id?: string; body?: unknown; by?: string } = {},
) =>
  (await send(ROW_ROUTES[name], {
    params: { noun, ...(id === undefined ? {} : { id }) },
    query: { by: by || undefined },
    body,
  })) as RowAnswers<Of>[Name]

/** A setup that was found, and why. */
export type FoundSetup = Answer<'search'>['found'][number]
/** What there is to say of the shop's logbook as a whole. */
export type ShopState = Answer<'shop'>
export type SimulatedMachine = Answer<'simulated'>
/** What begins a simulated machine. */
export type BeginsWith = Question<'switchOn'>['body']

export const api = {
  positions: (id: string) => ask('positions', { params: { id } }),
  simulatedPositions: (id: string) => ask('simulatedPositions', { params: { id } }),
  simulated: (id: string) => ask('simulated', { params: { id } }),
  switchOn: (id: string, from: BeginsWith) => ask('switchOn', { params: { id }, body: from }),
  workAt: (id: string, actions: readonly SimulatedAction[]) =>
    ask('workAt', { params: { id }, body: { actions: [...actions] } }),
  programOf: (id: string) => ask('simulatedProgram', { params: { id } }),
  hidden: (id: string) => ask('hidden', { params: { id } }),
  practice: () => ask('practice', {}),
  answer: (answer: Question<'answerExercise'>['body']) => ask('answerExercise', { body: answer }),
  /** `mark`: of the board that is known, if one is. */
  board: (by: string, mark?: string) => ask('board', { query: { by: by || undefined, mark } }),
  olderSetups: (machine: string, by: string, before?: number) =>
    ask('olderSetups', { params: { id: machine }, query: { by: by || undefined, before } }),
  /** The setups of a job and how each went, ten at a time; `before` as the page before said. */
  jobSetups: (job: string, before?: number) => ask('jobSetups', { params: { job }, query: { before } }),
  /** What came to a log, not read yet: `readLog` does. */
  entriesSince: async (setup: string, after: number) => {
    const log = await ask('setupLog', { params: { id: setup }, query: { after, texts: 'named' } })
    return { ...log, entries: await fetchTexts(log.entries) }
  },
  machineEntriesSince: (machine: string, after: number) =>
    ask('machineLog', { params: { id: machine }, query: { after } }),
  machinePrograms: (machine: string) => ask('machinePrograms', { params: { id: machine } }),
  machineTimes: (machine: string) => ask('machineTimes', { params: { id: machine } }),
  /** The setups of a job before one, and who has read its notes. */
  earlierRuns: (setup: string) => ask('earlierRuns', { params: { id: setup } }),
  /** Serial numbers of a series in the whole shop. */
  numbersOf: (series: string) => ask('numbersLog', { query: { series } }),
  /** Setups of the whole shop by words of their logs. */
  search: (text: string, before?: number) => ask('search', { query: { text, before } }),
  /** The logbook as a whole, its disk and its backups. */
  shop: () => ask('shop', {}),
  setUpShop: (of: Question<'setUpShop'>['body']) => ask('setUpShop', { body: of }),
  makeBackup: () => ask('makeBackup', { body: {} }),
  stopBackup: () => ask('stopBackup', { body: {} }),
  /** Takes a setup in from what its file says, as it stands there; `kept` are the rows that were here already, and count as they are here. */
  importSetup: (file: unknown) => ask('importSetup', { body: file }),
  /**
   * `held`: for how many ms each has lain on this tablet, by its steady clock. `sittings`: of whoever signed each, where people sign in.
   */
  append: (entries: readonly LogEntry[], held: readonly number[], sittings?: readonly string[]) =>
    ask('addEntries', {
      body: { entries: [...entries], held: [...held], ...(sittings ? { sittings: [...sittings] } : {}) },
    }),
  /** What the server had is given back; where people sign in, a lead does. */
  giveBack: (entries: readonly LogEntry[]) =>
    ask('addEntries', { body: { entries: [...entries], held: entries.map(() => 0), givenBack: true } }),
  session: () => ask('session', {}),
  letIn: (code: string, name: string) => ask('letIn', { body: { code, name } }),
  signIn: (who: Question<'signIn'>['body']) => ask('signIn', { body: who }),
  signOut: (sitting?: string) => ask('signOut', { body: { sitting } }),
  changePin: (pin: string, next: string) => ask('changePin', { body: { pin, next } }),
  people: () => ask('people', {}),
  addPerson: (person: Question<'addPerson'>['body']) => ask('addPerson', { body: person }),
  savePerson: (id: string, body: Question<'savePerson'>['body']) =>
    ask('savePerson', { params: { id }, body }),
  tablets: () => ask('tablets', {}),
  newCode: () => ask('newCode', { body: {} }),
  saveTablet: (id: string, body: Question<'saveTablet'>['body']) =>
    ask('saveTablet', { params: { id }, body }),
  /** A list of reference data, and the stamp that it was read at. */
  rows: async <Of extends Noun>(noun: Of) => {
    const { [noun]: rows, damaged, retired, stamp } = await askRows('rows', noun)
    return { rows, damaged, retired, stamp }
  },
  /** Grows with every version of any row. */
  referenceStamp: () => ask('referenceStamp', {}),
  /** `by`: the initials of whoever saves it, if anybody is signed in. */
  save: <Of extends Noun>(noun: Of, row: Row<Of>, by: string) =>
    askRows('saveRow', noun, { id: row.id, body: row, by }),
  create: <Of extends Noun>(noun: Of, row: Row<Of>, by: string) => askRows('addRow', noun, { body: row, by }),
  rowVersions: async <Of extends Noun>(noun: Of, id: string) =>
    (await askRows('rowVersions', noun, { id })).versions,
  retireRow: (noun: Noun, id: string, retired: boolean, by: string) =>
    askRows('retireRow', noun, { id, body: { retired }, by }),
}

import { isProblemCode, type ProblemBody, type ProblemCode } from '@dogleg/core/api'
import type { LogEntry } from '@dogleg/core/log'
import type { PositionsRead } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import type { Noun, Row } from '@dogleg/core/setup'
import type { HiddenTruth, PracticeResult, SimulatedAction, SimulatedView } from '@dogleg/core/simulated'
import type { ShopBoard } from '@dogleg/core/traveler'
import { useSyncExternalStore } from 'react'
import { noteServerTime, reading } from './clock.ts'
import { listenerSet } from './listeners.ts'
import { notePlace } from './place.ts'

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
}

/** The server could not be reached. */
class Unreachable extends Error {
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

/** Whether the server answered the last time it was asked anything. */
export const useReachable = () => useSyncExternalStore(subscribe, () => reachable)

async function fetchJson(
  method: string,
  path: string,
  body: unknown,
): Promise<[Response, Record<string, unknown>]> {
  const content =
    body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
  try {
    const response = await fetch(path, { method, signal: AbortSignal.timeout(PATIENCE_MS), ...content })
    const data: unknown = await response.json()
    // Every answer of the server is an object; anything else comes from something on the way.
    if (typeof data === 'object' && data !== null && !Array.isArray(data))
      return [response, data as Record<string, unknown>]
  } catch {
    // Said below.
  }
  throw new Unreachable()
}

async function ask<T>(method: 'GET' | 'POST' | 'PUT', path: string, body?: unknown): Promise<T> {
  const asked = reading()
  const [response, data] = await fetchJson(method, path, body).catch((error: Unreachable) => {
    noteReachable(false)
    throw error
  })
  noteReachable(true)
  if (!response.ok) {
    const { code, says, detail } = (data.error ?? {}) as Partial<ProblemBody['error']>
    throw new Refused(
      response.status,
      isProblemCode(code) ? code : 'failed',
      says ?? 'Something went wrong in the server.',
      detail,
    )
  }
  if (typeof data.time === 'string') noteServerTime(data.time, asked)
  notePlace(data.place, asked.steady)
  return data as T
}

/** A row of reference data that the server cannot read. */
export interface DamagedReference {
  id: string
  version: number
  says: string
}

/** What came to a log, not read yet: `readLog` does. */
type EntriesSince = { entries: LogEntry[]; seq: number }

/** A simulated machine that is on. */
export interface SimulatedMachine {
  id: string
  seed: number
  startedAt: string
  view: SimulatedView
}

/** What begins a simulated machine. */
export type BeginsWith =
  | { machine: string; seed?: number | undefined }
  | { exercise: string; unit: LengthUnit; seed?: number | undefined }

/** An answer to an exercise. */
export interface PracticeAnswer
  extends Pick<PracticeResult, 'id' | 'by' | 'exercise' | 'unit' | 'seed' | 'seconds' | 'hints'> {
  machine: string | null
  answers: Record<string, string>
}

/** One part of an address, whatever it holds: what a person typed into the address line of the page must lead nowhere else. */
const part = encodeURIComponent

export const api = {
  positions: (machine: string) => ask<PositionsRead>('GET', `/api/machines/${part(machine)}/positions`),
  simulatedPositions: (id: string) => ask<PositionsRead>('GET', `/api/simulated/${part(id)}/positions`),
  simulated: (id: string) => ask<SimulatedMachine>('GET', `/api/simulated/${part(id)}`),
  switchOn: (id: string, from: BeginsWith) =>
    ask<SimulatedMachine>('PUT', `/api/simulated/${part(id)}`, from),
  workAt: (id: string, actions: readonly SimulatedAction[]) =>
    ask<SimulatedMachine>('POST', `/api/simulated/${part(id)}/actions`, { actions }),
  programOf: (id: string) => ask<{ text: string }>('GET', `/api/simulated/${part(id)}/program`),
  hidden: (id: string) => ask<HiddenTruth>('GET', `/api/simulated/${part(id)}/hidden`),
  practice: () => ask<{ results: PracticeResult[] }>('GET', '/api/practice'),
  answer: (answer: PracticeAnswer) =>
    ask<{ result: PracticeResult; kept: boolean }>('POST', '/api/practice', answer),
  board: (by: string) =>
    ask<{ board: ShopBoard; alarm?: string }>('GET', by ? `/api/setups?by=${part(by)}` : '/api/setups'),
  entriesSince: (setup: string, after: number) =>
    ask<EntriesSince>('GET', `/api/setups/${part(setup)}/entries?after=${after}`),
  machineEntriesSince: (machine: string, after: number) =>
    ask<EntriesSince>('GET', `/api/machines/${part(machine)}/entries?after=${after}`),
  /** Serial numbers of every setup of the shop, and what was struck out. */
  numbersSince: (after: number) => ask<EntriesSince>('GET', `/api/numbers?after=${after}`),
  /** Takes a setup in from what its file says, as it stands there; `kept` are the rows that were here already, and count as they are here. */
  importSetup: (file: unknown) =>
    ask<{ setup: string; added: number; known: number; kept: { noun: Noun; name: string }[] }>(
      'POST',
      '/api/setup-files',
      file,
    ),
  /** `held`: for how many ms each has lain on this tablet, by its steady clock. */
  append: (entries: readonly LogEntry[], held: readonly number[]) =>
    ask<{ added: number; known: number }>('POST', '/api/entries', { entries, held }),
  /** A list of reference data, and the stamp that it was read at. */
  rows: <N extends Noun>(noun: N) =>
    ask<Record<N, Row<N>[]> & { stamp: number; damaged?: DamagedReference[] }>('GET', `/api/${noun}`).then(
      (answer) => ({
        rows: answer[noun],
        damaged: answer.damaged ?? [],
        stamp: answer.stamp,
      }),
    ),
  /** Grows with every version of any row. */
  referenceStamp: () => ask<{ stamp: number }>('GET', '/api/reference-stamp'),
  save: <N extends Noun>(noun: N, row: Row<N>) => ask<Row<N>>('PUT', `/api/${noun}/${part(row.id)}`, row),
  create: <N extends Noun>(noun: N, row: Row<N>) => ask<Row<N>>('POST', `/api/${noun}`, row),
}

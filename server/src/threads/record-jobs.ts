import { existsSync } from 'node:fs'
import type { Answer, ProblemBody, RouteName } from '@dogleg/core/api'
import { type Entry, type Logged, NOUNS, type Noun, type Row } from '@dogleg/core/setup'
import { setupFile } from '@dogleg/core/sheet'
import { move, transferableSymbol, valueSymbol } from 'piscina'
import { type Connection, connect } from '../database/connect.ts'
import { databaseProblem } from '../database/problems.ts'
import { appendEntries } from '../entries/append.ts'
import { type EntryStore, entryStore } from '../entries/store.ts'
import { textsNamed } from '../entries/texts.ts'
import { type BoardKeeper, boardKeeper } from '../kept/board.ts'
import { type Followed, type Follower, follower } from '../kept/follow.ts'
import { jobSetups as jobSetupsOf } from '../kept/job.ts'
import { type LogReader, logReader } from '../kept/logs.ts'
import {
  earlierRuns as earlierRunsOf,
  listedOnMachine,
  machineSince,
  machineStands,
  numbersOf,
} from '../kept/of-machine.ts'
import type { KeptFile } from '../kept/open.ts'
import { search as searchIn } from '../kept/search.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import { addRow, referenceStore } from '../reference/store.ts'
import { type TextOf, textOf } from './text.ts'

// What reads or writes much of the logbook: in a thread of its own, so that a long log or a large file holds up nobody who enters
// something meanwhile. What is found comes back as the text of the answer.

/** Which logbook, and whether its file is damaged. */
export interface Logbook {
  file: string
  /** Its name. */
  logbook: string
  damaged: boolean
}

/** What goes with every answer. */
export interface Told {
  logbook: string
  time: string
}

interface Opened extends Connection {
  entries: EntryStore
  follower: Follower
  boards: BoardKeeper
  logs: LogReader
}
const opened = new Map<string, Opened>()

function open({ file, logbook, damaged }: Logbook): Opened {
  const known = opened.get(file)
  if (known) return known
  // The driver would make a file that is not there.
  if (!existsSync(file))
    throw new Problem(
      503,
      'logbook-gone',
      `The logbook ${file} was removed or moved while Dogleg was running.`,
    )
  const connection = connect(file)
  const entries = entryStore(connection.db, { damaged })
  const logs = logReader(entries)
  const made = {
    ...connection,
    logs,
    entries,
    follower: follower(entryStore(connection.db, { damaged, remembers: false }), { file, logbook, damaged }),
    boards: boardKeeper(entries, referenceStore(connection.db), logs),
  }
  opened.set(file, made)
  return made
}

/** A job's answer to a question: the text of it, or the refusal. */
export type Answered<Name extends RouteName> =
  | { text: TextOf<Answer<Name>> }
  | { problem: { status: number; body: ProblemBody } }

/** The text is handed over and not copied: it may be as long as a log is. */
const handedOver = <Name extends RouteName>(
  answer: Answer<Name>,
  asJson?: (answer: Answer<Name>) => string,
): Answered<Name> => {
  const text = textOf(answer, asJson)
  return move({ [transferableSymbol]: [text.buffer], [valueSymbol]: { text } }) as unknown as Answered<Name>
}

/** Does a job; a refusal comes back as such. */
async function answered<Name extends RouteName>(
  work: () => Promise<Answer<Name>>,
  asJson?: (answer: Answer<Name>) => string,
): Promise<Answered<Name>> {
  try {
    return handedOver(await work(), asJson)
  } catch (error) {
    const problem = error instanceof Problem ? error : databaseProblem(error)
    if (problem) return { problem: { status: problem.status, body: problem.body() } }
    throw error
  }
}

async function placeOf({ entries }: Opened, { logbook, time }: Told) {
  return { place: { logbook, ...(await entries.last()) }, time }
}

/** How long the logbook is read through at a stretch, in ms: others have their turn in between. */
const FOLLOW_MS = 60

interface Asked {
  of: Logbook
  told: Told
}

/** One setup's log from a place on; long texts in their places, or named by their hash. */
export const setupLog = ({
  of,
  told,
  setup,
  after,
  texts: where,
}: Asked & { setup: string; after: number; texts: 'inside' | 'named' }) => {
  let apart: ReadonlyMap<string, string> = new Map()
  return answered<'setupLog'>(
    async () => {
      const on = open(of)
      // How far the log goes before it is read: what comes meanwhile is asked for again.
      const place = await placeOf(on, told)
      const { texts, ...found } = await on.entries.since(setup, after)
      if (after === 0 && found.entries.length === 0)
        throw new Problem(404, 'not-found', 'There is no setup with this address. Go back to the shop.')
      if (where === 'named') apart = texts
      return { ...found, ...place }
    },
    (answer) => textsNamed(answer, apart),
  )
}

/** A long text by its hash. */
export const longText = ({ of, hash }: { of: Logbook; hash: string }) =>
  answered<'longText'>(async () => {
    const text = await open(of).entries.text(hash)
    if (text === undefined)
      throw new Problem(
        404,
        'not-found',
        'There is no text by this name here, or it cannot be read any more.',
      )
    return { hash, text }
  })

/** Asks what is kept of the logbook, once it knows of every entry up to now; `whole` where nothing can be said before all was read. */
const askKept = async <T>(
  { of, told, whole = false }: Asked & { whole?: boolean },
  question: (followed: Followed, on: Opened) => Promise<T>,
): Promise<T & Awaited<ReturnType<typeof placeOf>>> => {
  const on = open(of)
  const place = await placeOf(on, told)
  const found = await on.follower.ask(FOLLOW_MS, Date.parse(told.time), async (followed) => {
    if (!followed.enough || (whole && followed.reads !== undefined))
      throw new Problem(
        503,
        'logbook-being-read',
        `The logbook is being read through once, after Dogleg was changed: ${followed.reads ?? 99} of 100. What you enter meanwhile is recorded.`,
      )
    return question(followed, on)
  })
  return { ...found, ...place }
}

/** The same, for a list of entries in which none may be missing. */
const listed = (asked: Asked, find: (db: KeptFile, entries: EntryStore) => Promise<Logged[]>) =>
  askKept({ ...asked, whole: true }, async ({ db }, { entries }) => ({ entries: await find(db, entries) }))

/** How a machine stands, or what came to it since a place. */
export const machineLog = ({ machine, after, ...asked }: Asked & { machine: string; after: number }) =>
  answered<'machineLog'>(() =>
    askKept(asked, async ({ db, seq }, { entries, logs }) => {
      const found =
        after === 0
          ? await machineStands(db, entries, logs, machine)
          : { entries: await machineSince(db, entries, machine, after) }
      return { ...found, seq }
    }),
  )

/** Programs that are known to stand at a machine's control. */
export const machinePrograms = ({ machine, ...asked }: Asked & { machine: string }) =>
  answered<'machinePrograms'>(() =>
    listed(asked, (db, entries) => listedOnMachine(db, entries, machine, 'program')),
  )

/** Cycles that were timed on a machine. */
export const machineTimes = ({ machine, ...asked }: Asked & { machine: string }) =>
  answered<'machineTimes'>(() =>
    listed(asked, (db, entries) => listedOnMachine(db, entries, machine, 'timed')),
  )

/** What others say of a setup. */
export const earlierRuns = ({ setup, ...asked }: Asked & { setup: string }) =>
  answered<'earlierRuns'>(() => listed(asked, (db, entries) => earlierRunsOf(db, entries, setup)))

/** Serial numbers of a series. */
export const numbersLog = ({ series, ...asked }: Asked & { series: string }) =>
  answered<'numbersLog'>(() => listed(asked, (db, entries) => numbersOf(db, entries, series)))

/** The whole shop at a glance, for whoever asks, by initials; `beside` is what goes with it, `since` the place up to which it is known there. */
export const board = ({
  beside,
  mark,
  since,
  by,
  ...asked
}: Asked & {
  beside: Pick<Answer<'board'>, 'alarm' | 'warnings'>
  mark: string
  since: number
  by: string | undefined
}) =>
  answered<'board'>(() =>
    askKept(asked, async ({ db, reads }, { boards }) => ({
      board: await boards.boardSince(
        db,
        { now: Date.parse(asked.told.time), operator: by },
        // While the logbook is read through, older setups come to it without a place of their own.
        reads === undefined ? since : 0,
      ),
      // While the logbook is read through, each board may be another.
      mark: reads === undefined ? mark : '',
      ...(reads === undefined ? {} : { reads }),
      ...beside,
    })),
  )

/** The setups of a job, and how each went. */
export const jobSetups = ({ job, before, ...asked }: Asked & { job: string; before: number }) =>
  answered<'jobSetups'>(() =>
    askKept(asked, async ({ db, reads }, { boards, entries }) => ({
      ...(await jobSetupsOf(db, entries, await boards.reference(), { job, before })),
      ...(reads === undefined ? {} : { reads }),
    })),
  )

/** Setups of the whole shop by words of their logs. */
export const search = ({ typed, before, ...asked }: Asked & { typed: string; before: number }) =>
  answered<'search'>(() =>
    askKept(asked, async ({ db, reads }, { entries, boards }) => ({
      ...(await searchIn(db, entries, await boards.reference(), { typed, before })),
      ...(reads === undefined ? {} : { reads }),
    })),
  )

/** Older setups of a machine, a page at a time. */
export const olderSetups = ({
  machine,
  before,
  by,
  ...asked
}: Asked & { machine: string; before: number; by: string | undefined }) =>
  answered<'olderSetups'>(() =>
    askKept(asked, ({ db }, { boards }) =>
      boards.older(db, machine, before, { now: Date.parse(asked.told.time), operator: by }),
    ),
  )

/** What this server is asked and what it answers. Putting it together takes a tenth of a second. */
export const description = () =>
  answered<'description'>(async () => ({ ...(await import('../description/describe.ts')).describeApi() }))

/**
 * Goes on with reading the logbook through, for a moment: says whether there is more. Nothing is worked out of it that nobody asked for.
 */
export const follow = async ({ of, told }: Asked): Promise<{ more: boolean }> => {
  const on = open(of)
  const { reads } = await on.follower.ask(FOLLOW_MS, Date.parse(told.time), async (followed) => followed)
  return { more: reads !== undefined }
}

/** A row that was here already, and counts as it is here. */
type KeptRow = Answer<'importSetup'>['kept'][number]

function readFile(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes))
  } catch {
    throw new Problem(400, 'not-json', 'This is no JSON: choose the file that was saved from a setup sheet.')
  }
}

/**
 * Takes a setup in from its file: the rows of reference data that are not here come with their versions, those that are stay as
 * they are, and the log is added to the last entry. In one transaction: all of it or nothing; sent twice, it is added once.
 */
export const importFile = ({
  of,
  bytes,
  now,
  by,
}: {
  of: Logbook
  bytes: Uint8Array
  now: number
  by: string | undefined
}) =>
  answered<'importSetup'>(async () => {
    const file = parse(setupFile, readFile(bytes))
    const [machine] = file.reference.machines
    const profiles = file.reference.profiles.map(({ id }) => id)
    if (machine && !profiles.includes(machine.profileId))
      throw new Problem(422, 'profile-unknown', 'The profile of the machine is not in this file.')
    const opening = file.entries.find((entry): entry is Entry & { kind: 'opened' } => entry.kind === 'opened')
    if (!opening || opening.machine.id !== machine?.id)
      throw new Problem(422, 'machine-unknown', 'The machine of the setup is not in this file.')
    return open(of).write(async (tx) => {
      const takeRow = async <N extends Noun>(noun: N, row: Row<N>): Promise<KeptRow | undefined> => {
        const standing = await referenceStore(tx).newest(noun, row.id)
        if (!standing) {
          await addRow(tx, noun, row, { by, at: now })
          return undefined
        }
        return JSON.stringify(standing) === JSON.stringify(row) ? undefined : { noun, name: standing.name }
      }
      const kept: KeptRow[] = []
      for (const noun of NOUNS)
        for (const row of file.reference[noun]) {
          const standing = await takeRow(noun, row)
          if (standing) kept.push(standing)
        }
      const { added, known } = await appendEntries(tx, file.entries, { by: 'file', now })
      return { setup: opening.id, kept, added, known }
    })
  })

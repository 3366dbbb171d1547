import { existsSync } from 'node:fs'
import type { Answer, ProblemBody, RouteName } from '@dogleg/core/api'
import { type Entry, NOUNS, type Noun, type Row } from '@dogleg/core/setup'
import { setupFile } from '@dogleg/core/sheet'
import { shopBoard } from '@dogleg/core/traveler'
import { move, transferableSymbol, valueSymbol } from 'piscina'
import { type Connection, connect } from '../database/connect.ts'
import { databaseProblem } from '../database/problems.ts'
import { appendEntries } from '../entries/append.ts'
import { type EntryStore, entryStore } from '../entries/store.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import { addRow, referenceStore } from '../reference/store.ts'
import { type TextOf, textOf } from './text.ts'

// What reads or writes much of the logbook: in a thread of its own, so that a long log or a large file holds up nobody who enters
// something meanwhile. What is found comes back as the text of the answer.

/** Which logbook, and whether its file is damaged. */
export interface Logbook {
  file: string
  damaged: boolean
}

/** What goes with every answer. */
export interface Told {
  logbook: string
  time: string
}

interface Opened extends Connection {
  entries: EntryStore
}
const opened = new Map<string, Opened>()

function open({ file, damaged }: Logbook): Opened {
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
  const made = { ...connection, entries: entryStore(connection.db, { damaged }) }
  opened.set(file, made)
  return made
}

/** A job's answer to a question: the text of it, or the refusal. */
export type Answered<Name extends RouteName> =
  | { text: TextOf<Answer<Name>> }
  | { problem: { status: number; body: ProblemBody } }

/** The text is handed over and not copied: it may be as long as a log is. */
const handedOver = <Name extends RouteName>(answer: Answer<Name>): Answered<Name> => {
  const text = textOf(answer)
  return move({ [transferableSymbol]: [text.buffer], [valueSymbol]: { text } }) as unknown as Answered<Name>
}

/** Does a job; a refusal comes back as such. */
async function answered<Name extends RouteName>(work: () => Promise<Answer<Name>>): Promise<Answered<Name>> {
  try {
    return handedOver(await work())
  } catch (error) {
    const problem = error instanceof Problem ? error : databaseProblem(error)
    if (problem) return { problem: { status: problem.status, body: problem.body() } }
    throw error
  }
}

async function placeOf({ entries }: Opened, { logbook, time }: Told) {
  return { place: { logbook, ...(await entries.last()) }, time }
}

interface Asked {
  of: Logbook
  told: Told
}

/** One setup's log from a place on. */
export const setupLog = ({ of, told, setup, after }: Asked & { setup: string; after: number }) =>
  answered<'setupLog'>(async () => {
    const on = open(of)
    const found = await on.entries.since(setup, after)
    if (after === 0 && found.entries.length === 0)
      throw new Problem(404, 'not-found', 'There is no setup with this address. Go back to the shop.')
    return { ...found, ...(await placeOf(on, told)) }
  })

/** The logs of every setup on a machine from a place on. */
export const machineLog = ({ of, told, machine, after }: Asked & { machine: string; after: number }) =>
  answered<'machineLog'>(async () => {
    const on = open(of)
    return { ...(await on.entries.ofMachine(machine, after)), ...(await placeOf(on, told)) }
  })

/** Serial numbers of every setup from a place on. */
export const numbersLog = ({ of, told, after }: Asked & { after: number }) =>
  answered<'numbersLog'>(async () => {
    const on = open(of)
    return { ...(await on.entries.ofNumbers(after)), ...(await placeOf(on, told)) }
  })

/** The whole shop at a glance, for whoever asks, by initials; `alarm` is what everybody must know. */
export const board = ({
  of,
  told,
  alarm,
  by,
}: Asked & { alarm: string | undefined; by: string | undefined }) =>
  answered<'board'>(async () => {
    const on = open(of)
    const logs = await on.entries.bySetup()
    const reference = await referenceStore(on.db).current()
    return {
      board: shopBoard(logs, reference, Date.parse(told.time), by),
      ...(alarm === undefined ? {} : { alarm }),
      ...(await placeOf(on, told)),
    }
  })

/** What this server is asked and what it answers. Putting it together takes a tenth of a second. */
export const description = () =>
  answered<'description'>(async () => ({ ...(await import('../description/describe.ts')).describeApi() }))

/** Opens a logbook and works out the shop once before anybody asks: the first time takes half a second longer than the next. */
export const ready = async ({ of }: { of: Logbook }) =>
  board({ of, told: { logbook: '', time: new Date().toISOString() }, alarm: undefined, by: undefined })

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
export const importFile = ({ of, bytes, now }: { of: Logbook; bytes: Uint8Array; now: number }) =>
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
          await addRow(tx, noun, row)
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
      return { setup: opening.id, kept, ...(await appendEntries(tx, file.entries, { by: 'file', now })) }
    })
  })

import { existsSync } from 'node:fs'
import { initials, plainly } from '@dogleg/core/log'
import { type May, may, newPin, personName, SAYS_MAY } from '@dogleg/core/people'
import { ulid } from 'ulid'
import type { z } from 'zod'
import { connect } from '../database/connect.ts'
import { newestApplied, newestKnown } from '../database/open.ts'
import { StartProblem } from '../problem.ts'
import { CODE_LASTS_MS, hashOfPin, newCode } from './secrets.ts'
import { endSittings, peopleStore, saveCode, savePerson, savePin } from './store.ts'

export interface AtKeyboard {
  now: () => number
  migrations: string
  say: (line: string) => void
  /** Asks a question; undefined where there is nobody to answer. */
  ask: (question: string) => Promise<string | undefined>
}

const HOW = `npm run people                 who there is
npm run people add             adds somebody
npm run people pin RT          a new PIN for RT, who leaves every tablet
npm run people tablet          a code that lets one tablet in`

/** Asks until the answer can be used. */
async function asked<T extends z.ZodType>(
  { ask, say }: AtKeyboard,
  question: string,
  schema: T,
): Promise<z.output<T>> {
  for (;;) {
    const typed = await ask(question)
    if (typed === undefined) throw new StartProblem('Nothing was changed.')
    const read = schema.safeParse(typed, { error: plainly })
    if (read.success) return read.data
    say(read.error.issues[0]?.message ?? 'Not understood.')
  }
}

const line = (initialsOf: string, name: string, is: May, more: string) =>
  `${initialsOf.padEnd(8)} ${name.padEnd(24)} ${is.padEnd(9)} ${more}`

/** The work of `npm run people`, on a logbook that a server may have open: each change is one transaction. */
async function work(file: string, [what, named]: readonly string[], at: AtKeyboard) {
  const { client, db, write } = connect(file)
  try {
    if ((await newestApplied(client)) !== newestKnown(at.migrations))
      throw new StartProblem(`Start Dogleg on ${file} once, so that it is brought up to date: npm start.`)
    const store = peopleStore(db)
    if (what === undefined) {
      const all = await store.told()
      for (const { initials: who, name, may: is, gone, pin } of all)
        at.say(line(who, name, is, gone ? 'has left' : pin ? '' : 'has no PIN: npm run people pin'))
      at.say(all.length === 0 ? `Nobody yet.\n${HOW}` : HOW)
    } else if (what === 'add') {
      const first = (await store.leads()).length === 0
      if (first) at.say('Nobody leads this shop yet: this is the first lead.')
      const who = await asked(at, 'Initials: ', initials)
      const other = await store.byInitials(who)
      if (other) throw new StartProblem(`${other.initials} is ${other.name} already. Nothing was changed.`)
      const name = await asked(at, 'Name: ', personName)
      const is = first
        ? 'lead'
        : await asked(
            at,
            `May (${Object.entries(SAYS_MAY)
              .map(([each, says]) => `${each}: ${says}`)
              .join('; ')}): `,
            may,
          )
      const hash = await hashOfPin(await asked(at, 'PIN, 4 to 8 digits: ', newPin))
      const id = ulid()
      await write(async (tx) => {
        await savePerson(tx, { id, initials: who, name, may: is, gone: false }, { at: at.now() })
        await savePin(tx, id, hash)
      })
      at.say(`${who} may ${is === 'looker' ? 'look' : is === 'lead' ? 'lead' : 'record'}.`)
    } else if (what === 'pin') {
      const person = named === undefined ? undefined : await store.byInitials(named)
      if (!person)
        throw new StartProblem(`There is nobody ${named ?? 'named'}. Say whose PIN: npm run people pin RT.`)
      const hash = await hashOfPin(await asked(at, `New PIN for ${person.initials}: `, newPin))
      await write(async (tx) => {
        await savePin(tx, person.id, hash)
        await endSittings(tx, { person: person.id }, at.now())
      })
      at.say(`${person.initials} has a new PIN, and signs in with it.`)
    } else if (what === 'tablet') {
      if ((await store.leads()).length === 0)
        throw new StartProblem('Nobody leads this shop yet. Name the first lead: npm run people add.')
      const code = newCode()
      await write((tx) => saveCode(tx, code, at.now() + CODE_LASTS_MS, undefined))
      at.say(`Type this code on the tablet within ten minutes: ${code.slice(0, 3)} ${code.slice(3)}`)
    } else throw new StartProblem(`There is nothing called "${what}" to do.\n${HOW}`)
  } finally {
    client.close()
  }
}

/**
 * `npm run people`: the people of the shop, at the server's own keyboard; also while Dogleg runs.
 * @throws StartProblem with what to do
 */
export async function peopleCommand(file: string, words: readonly string[], at: AtKeyboard) {
  if (!existsSync(file))
    throw new StartProblem(
      `There is no logbook ${file} yet. Start Dogleg at this PC (npm start), set up your shop on its page, then do this again.`,
    )
  await work(file, words, at)
}

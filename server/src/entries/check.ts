import type { ProblemCode } from '@dogleg/core/api'
import { mayStrike } from '@dogleg/core/people'
import type { Logged } from '@dogleg/core/setup'
import type { Signature } from '../people/signed.ts'
import { Problem } from '../problem.ts'

/** What an entry's time may be off by before it is refused, in ms: a question that took long, clocks of PCs that are a little apart. */
const LEEWAY_MS = 60_000
/** A file comes from another PC, whose clock may be further ahead. */
const LEEWAY_OF_FILES_MS = 10 * 60_000
/** Nothing waits on a tablet for so long. */
const OLDEST_MS = 366 * 24 * 3_600_000
/** There was no Dogleg before. */
const FIRST_YEAR = Date.UTC(2020, 0)

/** How entries came here; `now` in ms since 1970. */
export type Arrival =
  /** Sent by a tablet; `held` says for how many ms each had lain there, by id. */
  | {
      by: 'tablet'
      now: number
      held?: ReadonlyMap<string, number>
      /** Who signed each, by id; left out where nobody signs in. */
      signed?: ReadonlyMap<string, Signature>
      /** A lead gives back what the server had: it says itself where it came from. */
      givenBack?: true
    }
  /** Brought from elsewhere with what was written of their times there: a file, the demo. */
  | { by: 'file'; now: number }

const refuse = (code: ProblemCode, says: string, { id }: Logged) => new Problem(422, code, says, id)
const SET = 'Set the clock of this tablet, and enter it again.'

/** Refuses a time that cannot be meant. `opened` is when the setup was opened, in ms since 1970. */
export function checkTime(entry: Logged, opened: number | undefined, arrival: Arrival) {
  const at = Date.parse(entry.at)
  const ahead = arrival.by === 'file' ? LEEWAY_OF_FILES_MS : LEEWAY_MS
  if (at > arrival.now + ahead)
    throw refuse('clock-ahead', `This entry is dated ${entry.at}, which is still to come. ${SET}`, entry)
  if (at < FIRST_YEAR || (arrival.by === 'tablet' && at < arrival.now - OLDEST_MS))
    throw refuse('clock-behind', `This entry is dated ${entry.at}, which is long ago. ${SET}`, entry)
  if (arrival.by === 'file') return
  const heard = Date.parse(entry.clock?.heard ?? '')
  if (heard <= arrival.now && at < heard - LEEWAY_MS)
    throw refuse(
      'clock-behind',
      `This entry is dated ${entry.at}, before this tablet had last heard the server (${entry.clock?.heard}). ${SET}`,
      entry,
    )
  if (opened !== undefined && at < opened - LEEWAY_MS)
    throw refuse(
      'before-opening',
      `This entry is dated ${entry.at}, before its setup was opened (${new Date(opened).toISOString()}). ${SET}`,
      entry,
    )
}

/** Refuses what must not be claimed; a file says what was accepted when it was written. */
export function checkClaim(entry: Logged, { by }: Arrival) {
  if (by === 'tablet' && entry.kind === 'proved' && entry.verdict === 'stop')
    throw refuse(
      'proof-stopped',
      `A proof of ${entry.title} with a stop in it is no proof. Mend what it names, and prove it again.`,
      entry,
    )
}

/** What is in the log, for what an entry names. */
export interface Standing {
  /** The setup of an entry that is here, or came before it in the same sending. */
  setupOf: (id: string) => string | undefined
  machineKnown: (id: string) => boolean
}

/** Refuses an entry that names what is not here. */
export function checkNames(entry: Logged, { setupOf, machineKnown }: Standing, { by }: Arrival) {
  if (entry.kind === 'opened' ? entry.setup !== entry.id : setupOf(entry.setup) !== entry.setup)
    throw new Problem(
      409,
      'setup-unknown',
      'The setup that this entry belongs to is not in this logbook.',
      entry.id,
    )
  if (entry.kind === 'struck' && entry.target === entry.setup)
    throw refuse('opening-struck', 'The entry that opens a setup cannot be struck out.', entry)
  // A file says what was accepted when it was written.
  if (by === 'file') return
  if (entry.kind === 'opened' && !machineKnown(entry.machine.id))
    throw refuse(
      'machine-unknown',
      `There is no machine "${entry.machine.id}" here. Choose one of the list.`,
      entry,
    )
  if (entry.kind === 'struck' && setupOf(entry.target) !== entry.setup)
    throw refuse('target-unknown', 'What is to be struck out is not in the log of this setup.', entry)
}

/** Refuses that somebody strikes out what is not theirs, where they do not lead. `madeBy` is who made what is to be struck out. */
export function checkStrike(entry: Logged, madeBy: string | undefined, arrival: Arrival) {
  if (entry.kind !== 'struck' || arrival.by === 'file') return
  const who = arrival.signed?.get(entry.id)
  if (!who || mayStrike(who, { by: madeBy ?? '' })) return
  throw new Problem(
    403,
    'not-allowed',
    `${madeBy || 'Somebody else'} made this entry: only they or a lead strike it out.`,
    entry.id,
  )
}

import { sameInitials } from '@dogleg/core/people'
import { api, Refused, Unreachable } from '../log/api.ts'
import { now } from '../log/clock.ts'
import { sign, unsigned } from '../log/outbox.ts'
import { noteLeft, noteSession, type Session, sessionNow } from '../log/session.ts'
import { storage } from '../log/storage.ts'
import { noteRecent } from './recent.ts'

/** Somebody who signed in while the server was away. The PIN is in this page's memory only, and in no storage. */
interface Unproved {
  by: string
  pin: string
  /** From when on they were here, ISO 8601. */
  since: string
}
let unproved: Unproved[] = []
/** Whose PIN turned out to be wrong, for the page to say. */
let wrongSince: string | undefined
export const wronglySignedIn = () => wrongSince

/** The sitting that has ended here while the server was away, and still has to end there. */
const LEAVING = 'dogleg.leaving'

/** From when on somebody's entries wait here for their signature; undefined where none does. */
function waitingSince(by: string): string | undefined {
  const all = unsigned().filter((entry) => sameInitials(entry.by, by))
  return all.map(({ at }) => at).sort()[0]
}

const earlier = (a: string | undefined, b: string | undefined) =>
  a === undefined || (b !== undefined && b < a) ? b : a

async function signAtServer({ by, pin, since }: Omit<Unproved, 'since'> & { since?: string }, over: boolean) {
  const from = earlier(since, waitingSince(by))
  const { signed, ...session } = await api.signIn({
    by,
    pin,
    ...(from === undefined ? {} : { since: from }),
    ...(over ? { over: true as const } : {}),
  })
  sign((entry) => sameInitials(entry.by, by), signed)
  return session
}

/**
 * Signs somebody in at this tablet. While the server is away they are taken at their word: what they record stays on the tablet until
 * the server has heard their PIN.
 * @throws Refused with what the server has against it
 */
export async function signIn(by: string, pin: string): Promise<void> {
  wrongSince = undefined
  try {
    const session = await signAtServer({ by, pin }, false)
    unproved = unproved.filter((each) => !sameInitials(each.by, by))
    noteSession(session)
    noteRecent(session.person?.initials ?? by)
    storage.remove(LEAVING)
    void proveAll()
  } catch (error) {
    if (!(error instanceof Unreachable)) throw error
    const { tablet } = sessionNow()
    if (!tablet) throw error
    unproved = [...unproved, { by, pin, since: new Date(now()).toISOString() }]
    noteSession({ signs: true, tablet, person: { initials: by, name: by, may: 'operator' }, unproved: true })
  }
}

/** Whoever is at this tablet leaves it; what is typed stays where it is. */
export async function leave(): Promise<void> {
  const { sitting } = sessionNow()
  noteLeft()
  if (sitting === undefined) return
  storage.set(LEAVING, sitting)
  await endAtServer()
}

/** Ends at the server what has ended here. */
async function endAtServer() {
  const sitting = storage.get(LEAVING)
  if (sitting === null) return
  try {
    await api.signOut(sitting)
    storage.remove(LEAVING)
  } catch (error) {
    if (error instanceof Refused) storage.remove(LEAVING)
  }
}

/** Another page on this tablet has so long to prove who is here, in ms. */
const OTHERS_PROVE_MS = 5000
/** A server that is busy, or in trouble, hears a PIN again after so long, in ms. */
const AGAIN_MS = 5000

let proving = false

/** Lets the server hear the PINs of those who signed in while it was away, in turn. */
async function proveAll(): Promise<void> {
  if (proving) return
  proving = true
  try {
    await endAtServer()
    for (const each of [...unproved]) {
      const isHere = sessionNow().unproved === true && each === unproved.at(-1)
      try {
        const session = await signAtServer(each, !isHere)
        if (isHere) noteSession(session)
        noteRecent(each.by)
      } catch (error) {
        // Once the server is back it is asked again.
        if (!(error instanceof Refused)) return
        if (error.passes) {
          setTimeout(() => void proveAll(), AGAIN_MS)
          return
        }
        if (error.code === 'wrong-pin') wrongSince = each.by
        if (isHere) noteLeft()
      }
      unproved = unproved.filter((other) => other !== each)
    }
    // Another page on this tablet may have the PIN; one that was opened anew has nobody's, and who is here says it again.
    if (sessionNow().unproved && unproved.length === 0)
      setTimeout(() => sessionNow().unproved && unproved.length === 0 && noteLeft(), OTHERS_PROVE_MS)
  } finally {
    proving = false
  }
}

/** Lets this tablet in, by a code that a lead made. */
export async function letIn(code: string, name: string): Promise<void> {
  noteSession(await api.letIn(code, name))
}

/** Asks the server who is at this tablet; where it is away, what was known stands. */
export async function askSession(): Promise<void> {
  try {
    const told: Session = await api.session()
    const here = sessionNow()
    // Somebody signed in here while it was away, and it has not heard of it yet.
    if (here.unproved && told.tablet) return void proveAll()
    // Whoever left while it was away is not back because it has not heard of that.
    if (told.sitting !== undefined && told.sitting === storage.get(LEAVING)) return void endAtServer()
    noteSession(told)
  } catch {
    // Asked again when it is back.
  }
}

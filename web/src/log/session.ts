import type { Answer } from '@dogleg/core/api'
import { mayStrike } from '@dogleg/core/people'
import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'
import { operator, setOperator } from './operator.ts'
import { storage } from './storage.ts'

/** Who is at this tablet, as the server said it last; kept, so that a page that is opened while the server is away knows it. */
export type Session = Answer<'session'> & {
  /** Signed in while the server was away: whether the PIN is right is not known yet. */
  unproved?: true
}

const KEY = 'dogleg.session'
const { notify, subscribe } = listenerSet()

/** Nobody signs in, as far as is known: at one PC that is all there ever is. */
const OPEN: Session = { signs: false }

function read(): Session {
  try {
    const kept = JSON.parse(storage.get(KEY) ?? '') as Session
    return typeof kept?.signs === 'boolean' ? kept : OPEN
  } catch {
    return OPEN
  }
}

let session = read()
let waiting: (() => void)[] = []

/** Somebody is at this tablet who may ask, or nobody needs to be. */
const isIn = ({ signs, tablet, person }: Session) => !signs || (tablet !== undefined && person !== undefined)

function changed(next: Session) {
  if (JSON.stringify(next) === JSON.stringify(session)) return
  session = next
  if (session.person && session.person.initials !== operator()) setOperator(session.person.initials)
  if (isIn(session)) {
    const all = waiting
    waiting = []
    for (const go of all) go()
  }
  notify()
}

export const sessionNow = () => session

export function noteSession(next: Session) {
  storage.set(KEY, JSON.stringify(next))
  changed(next)
}

/** Nobody is at this tablet any more. */
export function noteLeft() {
  const { person: _person, sitting: _sitting, unproved: _unproved, ...left } = session
  noteSession(left)
}

/**
 * The server does not know this tablet, or nobody is signed in at it, whatever was thought. Of whoever signed in while it was away it has
 * not heard yet: they stay, and it hears of them.
 */
export function noteRefused(code: string) {
  if (code === 'tablet-unknown') noteSession({ signs: true })
  if (code === 'signed-out' && !session.unproved) {
    session = { ...session, signs: true }
    noteLeft()
  }
}

/** Until somebody is at this tablet, nothing where somebody is: what is asked before is asked then, and nothing that is open needs to know. */
export const untilSomebodyIsIn = (): Promise<void> | undefined =>
  isIn(session) ? undefined : new Promise((resolve) => waiting.push(resolve))

/** Until the server has heard of whoever signed in here while it was away, or they have left; nothing where nobody did. */
export const untilProved = (): Promise<void> | undefined =>
  session.unproved
    ? new Promise((resolve) => {
        const end = subscribe(() => {
          if (session.unproved) return
          end()
          resolve()
        })
      })
    : undefined

// Another page on this tablet may have been told.
window.addEventListener('storage', ({ key }) => {
  if (key === KEY || key === null) changed(read())
})

export const useSession = () => useSyncExternalStore(subscribe, sessionNow)
export const whenSessionChanges = subscribe

/** Whether whoever is at this tablet leads the shop, or nobody signs in. */
export const useLeads = () => {
  const { signs, person } = useSession()
  return !signs || person?.may === 'lead'
}

/** Whether whoever is at this tablet may strike out an entry: their own, or anybody's where they lead or nobody signs in. */
export const useMayStrike = () => {
  const { signs, person } = useSession()
  return (entry: { by: string }) => !signs || (person !== undefined && mayStrike(person, entry))
}

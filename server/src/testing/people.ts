import type { Answer } from '@dogleg/core/api'
import type { May } from '@dogleg/core/people'
import { ulid } from 'ulid'
import { hashOfPin } from '../people/secrets.ts'
import { saveCode, savePerson, savePin } from '../people/store.ts'
import { type DemoApp, demoApp } from './app.ts'

/** Whoever is at a shop in which people sign in. */
export const PINS = { RT: '2580', KM: '1973', WALL: '60708' } as const
type Initials = keyof typeof PINS
const PEOPLE: readonly { initials: Initials; may: May }[] = [
  { initials: 'RT', may: 'lead' },
  { initials: 'KM', may: 'operator' },
  { initials: 'WALL', may: 'looker' },
]

/** One tablet of it, as its browser has it. */
export interface TestTablet {
  ask: (method: 'GET' | 'POST' | 'PUT', url: string, body?: unknown) => ReturnType<DemoApp['ask']>
  cookie: () => string
  /** Signs somebody in; the sitting. */
  signIn: (by: Initials, more?: object) => Promise<string>
}

export interface SigningApp extends DemoApp {
  /** A tablet that is let in, with somebody at it or nobody. */
  tablet: (by?: Initials) => Promise<TestTablet>
  /** One that nobody has let in. */
  foreign: () => TestTablet
  idOf: (by: Initials) => string
}

/** The demo's server, where people sign in. */
export async function signingApp(): Promise<SigningApp> {
  const demo = await demoApp(new Set(), { signs: true, secure: false, names: ['shop-pc'] })
  const ids = new Map<Initials, string>()
  await demo.database.write(async (tx) => {
    for (const { initials, may } of PEOPLE) {
      const id = ulid()
      ids.set(initials, id)
      await savePerson(tx, { id, initials, name: `Person ${initials}`, may, gone: false }, { at: 0 })
      await savePin(tx, id, await hashOfPin(PINS[initials]))
    }
  })
  const foreign = (): TestTablet => {
    let key: string | undefined
    const ask: TestTablet['ask'] = async (method, url, body) => {
      const answer = await demo.ask(method, url, body, key)
      if (answer.cookie !== undefined) key = answer.cookie.split(';')[0]
      return answer
    }
    const signIn: TestTablet['signIn'] = async (by, more) => {
      const { body } = await ask('POST', '/api/session/person', { by, pin: PINS[by], ...more })
      return (body as { signed: string }).signed
    }
    return { ask, signIn, cookie: () => key ?? '' }
  }
  let codes = 0
  const tablet = async (by?: Initials) => {
    codes += 1
    const code = String(codes).padStart(6, '0')
    await demo.database.write((tx) => saveCode(tx, code, Date.now() + 1e9, undefined))
    const made = foreign()
    await made.ask('POST', '/api/session/tablet', { code, name: `Tablet ${codes}` })
    if (by) await made.signIn(by)
    return made
  }
  return { ...demo, tablet, foreign, idOf: (by) => ids.get(by) ?? '' }
}

/** Who is at a tablet, as the server says it. */
export const sessionOf = async (tablet: TestTablet) =>
  (await tablet.ask('GET', '/api/session')).body as Answer<'session'>
/** The first setup on the board, as a tablet is shown it. */
export const setupIn = async (tablet: TestTablet) => {
  const { board } = (await tablet.ask('GET', '/api/setups')).body as {
    board: { machines: { setups: { id: string }[] }[] }
  }
  return board.machines.flatMap(({ setups }) => setups)[0]?.id ?? ''
}
/** A note as a tablet sends it. */
export const note = (setup: string, by: string, at: string | number = Date.now()) => ({
  id: ulid(),
  setup,
  at: new Date(at).toISOString(),
  by,
  kind: 'note',
  text: 'Burr on the top edge.',
  marked: false,
})
/** Sends entries, each made in the same stay: how it was answered, and the code of a refusal. */
export const send = async (
  tablet: TestTablet,
  sitting: string,
  ...entries: { id: string }[]
): Promise<[number, string | undefined]> => {
  const { status, body } = await tablet.ask('POST', '/api/entries', {
    entries,
    sittings: entries.map(() => sitting),
  })
  return [status, (body as { error?: { code: string } }).error?.code]
}

import { demoEntries } from '@dogleg/core/demo'
import type { Entry } from '@dogleg/core/setup'
import { ulid } from 'ulid'

// Histories of a shop, made up by seed: the demo's setups, again and again, cut short, by other people, on other days, struck out
// and had back, some of them with times of which only little is sure.

/** Numbers from 0 to 1, the same for the same seed (mulberry32). */
export function dice(seed: number) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const BASE = Date.UTC(2026, 10, 24, 9, 30)
const PEOPLE = ['RT', 'MK', 'JS', 'AL']
const HAPPENS = ['alarm', 'homed-again', 'vise-moved', 'part-reclamped', 'rotary-homed']
const HOUR = 3_600_000

/** The demo's setups, each with its log; a setup that goes on from another is left out. */
function templates(): Entry[][] {
  const logs = new Map<string, Entry[]>()
  for (const entry of demoEntries(BASE, () => 0.5))
    logs.set(entry.setup, [...(logs.get(entry.setup) ?? []), entry])
  return [...logs.values()]
    .filter(([first]) => first?.kind === 'opened')
    .map((log) =>
      // A note of another setup is not there where that one is not.
      log.filter((entry) => entry.kind !== 'acknowledged' || log.some(({ id }) => id === entry.note)),
    )
}
let made: Entry[][] | undefined

export interface HistoryOptions {
  seed: number
  setups: number
  /** Whether the time of every entry is exactly known. */
  certain: boolean
  /** ms since 1970 at which it ends. */
  until: number
  /** How far apart setups are at most, in ms. */
  apart?: number
}

/**
 * Batches of entries as they arrive one after the other; each batch is one sending. All of it lies before `until`.
 */
export function history({ seed, setups, certain, until, apart = 30 * HOUR }: HistoryOptions): Entry[][] {
  made ??= templates()
  const roll = dice(seed)
  const one = <T>(of: readonly T[]): T => of[Math.floor(roll() * of.length)] as T
  let time = until - setups * apart - 100 * HOUR
  const idAt = (at: number) => ulid(Math.floor(at), roll)
  const batches: Entry[][] = []
  const all: Entry[] = []
  const open: Entry[] = []
  let count = 0
  const stamped = (entry: Entry, at: number): Entry => {
    const iso = (ms: number) => new Date(Math.min(ms, until)).toISOString()
    const late = certain || roll() < 0.7 ? 0 : roll() * 60 * HOUR
    if (certain && roll() < 0.5) return entry
    return {
      ...entry,
      received: iso(at + late),
      latest: iso(at + late),
      clock: {
        tablet: `T${Math.floor(roll() * 3)}`.padEnd(26, '0'),
        count: ++count,
        heard: iso(certain ? at : at - roll() * 40 * HOUR),
        steady: 0,
      },
    } as Entry
  }
  const add = (entry: Entry, at: number) => {
    const now = stamped(entry, at)
    all.push(now)
    return now
  }
  for (let n = 0; n < setups; n++) {
    time += roll() * apart
    const log = one(made)
    const until1 = 1 + Math.floor(roll() * Math.min(log.length, 40))
    const taken = log.slice(0, until1)
    const ids = new Map<string, string>()
    const begin = Date.parse(taken[0]?.at ?? '')
    const by = one(PEOPLE)
    let text = JSON.stringify(taken)
    for (const { id, at } of taken) ids.set(id, idAt(time + Date.parse(at) - begin))
    text = text.replaceAll(/\b[0-7][0-9A-HJKMNP-TV-Z]{25}\b/g, (id) => ids.get(id) ?? id)
    const batch: Entry[] = []
    for (const entry of JSON.parse(text) as Entry[]) {
      const at = time + Date.parse(entry.at) - begin
      if (at > until) continue
      batch.push(
        add({ ...entry, at: new Date(at).toISOString(), by: roll() < 0.9 ? by : one(PEOPLE) } as Entry, at),
      )
    }
    const [opened] = batch
    if (opened) open.push(opened)
    batches.push(batch)
    // Something happens, in this setup or in one of long ago.
    for (let more = Math.floor(roll() * 4); more > 0; more--) {
      const in_ = roll() < 0.6 ? opened : one(open)
      if (!in_) continue
      const at = Math.min(time + roll() * 20 * HOUR, until)
      const stamp = { id: idAt(at), setup: in_.setup, at: new Date(at).toISOString(), by: one(PEOPLE) }
      const own = all.filter(({ setup, kind }) => setup === in_.setup && kind !== 'opened')
      const notes = all.filter(({ kind }) => kind === 'note' || kind === 'handed-over')
      const which = roll()
      const entry =
        which < 0.3 && own.length > 0
          ? { ...stamp, kind: 'struck', target: one(own).id, reason: 'slip' }
          : which < 0.5 && notes.length > 0
            ? { ...stamp, kind: 'acknowledged', note: one(notes).id }
            : which < 0.6
              ? { ...stamp, kind: 'put-away', away: roll() < 0.8 }
              : which < 0.75
                ? { ...stamp, kind: 'note', text: 'chips' }
                : { ...stamp, kind: 'happened', what: one(HAPPENS), note: '' }
      batches.push([add(entry as Entry, at)])
    }
  }
  return batches
}

import { demoEntries, demoReference } from '@dogleg/core/demo'
import Sqlite from 'libsql'
import { ulid } from 'ulid'

// A shop's logbook of years, made up by seed: the demo's setups again and again, on more machines, by more people. It is written
// into the file of an empty logbook as the server would have, row by row, without the server.

const DAY = 86_400_000
const BASE = Date.UTC(2026, 10, 24, 9, 30)
const PEOPLE = ['RT', 'MK', 'JS', 'AL', 'BW', 'CD', 'EF', 'GH']
const ID = /\b[0-7][0-9A-HJKMNP-TV-Z]{25}\b/g

/** Numbers from 0 to 1, the same for the same seed (mulberry32). */
function dice(seed: number) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = state
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export interface ShopSize {
  machines: number
  setups: number
  days: number
  /** The whole log ends here, in ms since 1970. */
  until: number
  seed: number
}

/** Fills an empty logbook; gives how many entries it has then, and the setups with their machines, the last opened last. */
export function fillShop(file: string, { machines, setups, days, until, seed }: ShopSize) {
  const roll = dice(seed)
  const one = <T>(of: readonly T[]): T => of[Math.floor(roll() * of.length)] as T
  const logs = new Map<string, ReturnType<typeof demoEntries>>()
  for (const entry of demoEntries(BASE, () => 0.5))
    logs.set(entry.setup, [...(logs.get(entry.setup) ?? []), entry])
  const templates = [...logs.values()].flatMap((log) => {
    const [opened] = log
    if (opened?.kind !== 'opened') return []
    return [
      {
        machine: opened.machine.id,
        title: opened.title,
        begins: Date.parse(opened.at),
        entries: log.map((entry) => ({
          at: Date.parse(entry.at),
          id: entry.id,
          text: JSON.stringify(entry),
        })),
      },
    ]
  })
  const db = new Sqlite(file)
  db.exec('pragma journal_mode = WAL')
  db.exec('pragma synchronous = OFF')
  const addRow = db.prepare('insert or replace into reference (noun, id, version, body) values (?, ?, ?, ?)')
  const add = db.prepare('insert into entries (id, setup, body, received, latest) values (?, ?, ?, ?, ?)')
  db.exec('begin')
  for (const noun of ['profiles', 'vises', 'tools'] as const)
    for (const row of demoReference[noun]) addRow.run(noun, row.id, row.version, JSON.stringify(row))
  for (const row of demoReference.machines) {
    addRow.run('machines', row.id, row.version, JSON.stringify(row))
    for (let n = 2; n * demoReference.machines.length <= machines + 2; n++)
      addRow.run(
        'machines',
        `${row.id}-${n}`,
        row.version,
        JSON.stringify({ ...row, id: `${row.id}-${n}`, name: `${row.name} no. ${n}` }),
      )
  }
  const more = Math.floor((machines + 2) / demoReference.machines.length)
  const opened: { setup: string; machine: string }[] = []
  let entries = 0
  for (let n = 0; n < setups; n++) {
    const time = until - days * DAY + ((n + roll()) / (setups + 1)) * (days - 1) * DAY
    const template = one(templates)
    const which = Math.floor(roll() * more)
    const machine = which === 0 ? template.machine : `${template.machine}-${which + 1}`
    const [by, other] = [one(PEOPLE), one(PEOPLE)]
    const ids = new Map<string, string>()
    for (const { id, at } of template.entries)
      ids.set(id, ulid(Math.floor(time + at - template.begins), roll))
    let setup = ''
    for (const { id, at: then, text } of template.entries) {
      const at = Math.min(until, Math.floor(time + then - template.begins))
      const iso = new Date(at).toISOString()
      const own = ids.get(id) ?? id
      if (setup === '') setup = own
      const body = text
        .replaceAll(ID, (each) => ids.get(each) ?? each)
        .replace(/"at":"[^"]*"/, `"at":"${iso}"`)
        .replace(/"by":"(\w+)"/, (_all, who) => `"by":"${who === 'RT' ? by : other}"`)
        .replaceAll(`"id":"${template.machine}"`, `"id":"${machine}"`)
        .replace(`"title":"${template.title}"`, `"title":"${template.title} ${Math.floor(n / 8)}"`)
      add.run(own, setup, body, at, at)
      entries++
    }
    opened.push({ setup, machine })
    if (n % 500 === 499) db.exec('commit; begin')
  }
  db.exec('commit')
  db.exec('pragma wal_checkpoint(TRUNCATE)')
  db.close()
  return { entries, opened }
}

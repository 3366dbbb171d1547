import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs'
import { dirname } from 'node:path'
import { BUILT_IN_PROFILES } from '@dogleg/core/control'
import type { Machine, ToolShape } from '@dogleg/core/machine'
import { type Noun, rowKind } from '@dogleg/core/setup'
import { ulid } from 'ulid'
import { noteOf, wasHere } from '../database/known.ts'
import { openDatabase } from '../database/open.ts'
import { hashOfPin } from '../people/secrets.ts'
import { savePerson, savePin } from '../people/store.ts'
import { Problem } from '../problem.ts'
import { addRow, type SavedBy } from '../reference/store.ts'

/** What an own shop is begun with. */
export interface FirstRows {
  machines: readonly Machine[]
  tools: readonly ToolShape[]
  /** The first lead, where people are to sign in. */
  lead?: { initials: string; name: string; pin: string } | undefined
}

/** Refuses rows that name what is not among them, or that cannot stand beside each other. */
function refuseOdd({ machines, tools }: FirstRows) {
  const there = new Set([
    ...BUILT_IN_PROFILES.map(({ id }) => `profiles/${id}`),
    ...machines.map(({ id }) => `machines/${id}`),
  ])
  for (const { name, machineId } of tools)
    if (!there.has(`machines/${machineId}`))
      throw new Problem(
        422,
        'machine-unknown',
        `The machine of the tool ${name} is not among those of the shop.`,
      )
  for (const [noun, rows] of [
    ['machines', machines],
    ['tools', tools],
  ] as const) {
    const { needs, clashes } = rowKind(noun as Noun)
    const seen = new Set<string>()
    for (const [n, row] of rows.entries()) {
      if (seen.has(row.id)) throw new Problem(422, 'id-taken', `Two of the ${noun} have one id, ${row.id}.`)
      seen.add(row.id)
      for (const { noun: of, id, code, says } of needs?.(row as never) ?? [])
        if (!there.has(`${of}/${id}`)) throw new Problem(422, code, says)
      for (const other of rows.slice(0, n)) {
        const says = clashes?.(row as never, other as never)
        if (says !== undefined) throw new Problem(422, 'number-taken', says)
      }
    }
  }
}

function remove(part: string) {
  for (const path of [part, `${part}-wal`, `${part}-shm`, `${part}-lock`, noteOf(part)])
    rmSync(path, { force: true })
}

/**
 * Makes the logbook of an own shop with its first rows: as a whole under another name, and then in its place. Nothing of a demo is in it.
 * @throws Problem where one is there already, or the rows cannot be.
 */
export async function makeOwnShop(file: string, migrations: string, rows: FirstRows, saved: SavedBy) {
  refuseOdd(rows)
  const part = `${file}.begun`
  mkdirSync(dirname(file), { recursive: true })
  remove(part)
  const hash = rows.lead && (await hashOfPin(rows.lead.pin))
  const database = await openDatabase(part, migrations, { makes: true, now: saved.at })
  try {
    await database.write(async (tx) => {
      for (const row of BUILT_IN_PROFILES) await addRow(tx, 'profiles', { ...row, version: 1 }, saved)
      for (const row of rows.machines) await addRow(tx, 'machines', { ...row, version: 1 }, saved)
      for (const row of rows.tools) await addRow(tx, 'tools', { ...row, version: 1 }, saved)
      if (!rows.lead || hash === undefined) return
      const { initials, name } = rows.lead
      const id = ulid()
      await savePerson(tx, { id, initials, name, may: 'lead', gone: false }, saved)
      await savePin(tx, id, hash)
    })
  } finally {
    await database.close()
  }
  if (wasHere(file) || !existsSync(part)) {
    remove(part)
    throw new Problem(409, 'own-shop-there', 'An own shop was set up here meanwhile. Load this page again.')
  }
  renameSync(part, file)
  remove(part)
}

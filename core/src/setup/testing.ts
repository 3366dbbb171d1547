import { monotonicFactory } from 'ulid'
import type { Bolts } from '../hold/index.ts'
import type { Reading } from '../pickup/index.ts'
import { asTyped } from '../quantity/index.ts'
import { deriveSetup, type Setup } from './derive.ts'
import type { HappeningKind } from './happenings.ts'
import { type Entry, type EntryOf, type Logged, shapeNow } from './kinds.ts'
import { isUnreadable } from './log-lines.ts'
import type { Reference } from './reference.ts'
import { inch, sweepOf } from './testing-hold.ts'

export * as holdLog from './testing-hold.ts'
export { faultOf, read } from './testing-read.ts'
export { inch, sweepOf }

// A log for tests, entry by entry, each a minute after the last. The machine and the rest come from who derives it.

const nextId = monotonicFactory(() => 0.5)
export const start = Date.UTC(2026, 10, 24, 8)
let minutes = 0

type Body<K extends Entry['kind']> = Omit<EntryOf<K>, 'id' | 'setup' | 'at' | 'by' | 'kind' | 'shape'>

function stamp() {
  minutes += 1
  return { id: nextId(start + minutes), at: new Date(start + minutes * 60_000).toISOString(), by: 'RT' }
}

export const opened: Entry = (() => {
  const stamped = stamp()
  return {
    ...stamped,
    setup: stamped.id,
    kind: 'opened',
    title: 'Test block',
    machine: { id: 'mill-1', version: 1 },
    unit: 'inch',
    tolerance: asTyped(0.002, 'inch'),
  }
})()

export const add = <K extends Entry['kind']>(kind: K, body: Body<K>) =>
  ({ ...stamp(), setup: opened.id, kind, ...body, ...shapeNow(kind) }) as unknown as EntryOf<K>

export const edge = (axis: 'X' | 'Y', position: number): Reading => ({
  method: 'edge-finder',
  axis,
  direction: '+',
  diameter: asTyped(0.2, 'inch'),
  machinePosition: asTyped(position, 'inch'),
  drawingPosition: asTyped(0, 'inch'),
})
export const touch = (tool: number): Reading => ({
  method: 'tool-on-block',
  axis: 'Z',
  tool,
  toolLength: asTyped(4.5, 'inch'),
  blockHeight: asTyped(1, 'inch'),
  machinePosition: asTyped(-9, 'inch'),
  drawingPosition: asTyped(0, 'inch'),
})
export const pickup = (reading: Reading, offset = 'G54', rests?: string[]) =>
  add('pickup', { offset, reading, machine: { id: 'mill-1', version: 1 }, ...(rests ? { rests } : {}) })
export const happened = (what: HappeningKind, tool?: number) =>
  add('happened', { what, note: '', ...(tool === undefined ? {} : { tool }) })
export const strike = (target: string) => add('struck', { target, reason: 'slip' })
export const checked = (rests: string[], result: 'agrees' | 'off' = 'agrees') =>
  add('checked', { offset: 'G54', rests, result, note: result === 'off' ? '.010 left' : '' })
const program = (rests: string[]) =>
  add('program', {
    offset: 'G54',
    rests,
    how: 'copied',
    text: 'G0',
    profile: { id: 'compact', version: 1 },
    machine: { id: 'mill-1', version: 1 },
  })

/** An offset that was taken, looked at and loaded, entry by entry. */
export function zeros() {
  const [x, y, z] = [pickup(edge('X', -14)), pickup(edge('Y', -6)), pickup(touch(7))]
  const c = checked([x.id, y.id])
  const p = program([x.id, y.id, z.id])
  return { x, y, z, c, p }
}
/** A tool against the master, 4 in long, which stands at -10. */
export const length = (tool: number, position: number) =>
  add('tool-length', {
    tool,
    machinePosition: inch(position),
    masterPosition: inch(-10),
    masterLength: inch(4),
    machine: { id: 'mill-1', version: 1 },
  })

export const swept = (bolts: Bolts, far = 0) => add('swept', { sweep: sweepOf(bolts, far, 0.002) })
export const cleared = () =>
  add('cleared', {
    vise: { id: 'vise-6', version: 1 },
    machine: { id: 'mill-1', version: 1 },
    jawAt: inch(10.9),
    wanted: inch(0.25),
    lowestZ: inch(-11),
  })

export function derive(entries: readonly Logged[], reference: Reference): Setup {
  const setup = deriveSetup([opened, ...entries], reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}

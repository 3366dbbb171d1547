import { monotonicFactory } from 'ulid'
import type { Bolts, StopKind } from '../hold/index.ts'
import { asTyped } from '../quantity/index.ts'
import { type Entry, type EntryOf, shapeNow } from './kinds.ts'
import { read } from './testing-read.ts'

// Logs of vise and collet for tests, entry by entry, each a minute after the last.

const nextId = monotonicFactory(() => 0.5)
const start = Date.UTC(2026, 10, 24, 8)
let minutes = 0
export const inch = (value: number) => asTyped(value, 'inch')
export const sweepOf = (bolts: Bolts, far: number, allowed: number): EntryOf<'swept'>['sweep'] => ({
  bolts,
  pivot: inch(-1),
  points: [
    { at: inch(0.25), reading: inch(0) },
    { at: inch(5.75), reading: inch(far) },
  ],
  plusMeans: 'towards',
  stylusAngle: 0,
  dialStep: inch(0.0005),
  partLength: inch(4),
  allowed: inch(allowed),
})

function open(machine: 'mill-1' | 'lathe-1'): Entry {
  const id = nextId(start)
  return {
    id,
    setup: id,
    at: new Date(start).toISOString(),
    by: 'RT',
    kind: 'opened',
    title: 'Test',
    machine: { id: machine, version: 1 },
    unit: 'inch',
    tolerance: inch(0.002),
  }
}
export const mill = open('mill-1')
export const lathe = open('lathe-1')

type Body<K extends Entry['kind']> = Omit<EntryOf<K>, 'id' | 'setup' | 'at' | 'by' | 'kind' | 'shape'>
export function add<K extends Entry['kind']>(opened: Entry, kind: K, body: Body<K>): EntryOf<K> {
  minutes += 1
  const at = start + minutes * 60_000
  return read({
    id: nextId(at),
    setup: opened.setup,
    at: new Date(at).toISOString(),
    by: 'RT',
    kind,
    ...body,
    ...shapeNow(kind),
  }) as EntryOf<K>
}

export const swept = (bolts: Bolts, far: number) => add(mill, 'swept', { sweep: sweepOf(bolts, far, 0.001) })
export const cleared = (jawAt = 10.9, vise = 'vise-6') =>
  add(mill, 'cleared', {
    vise: { id: vise, version: 1 },
    machine: { id: 'mill-1', version: 1 },
    jawAt: inch(jawAt),
    wanted: inch(0.25),
    lowestZ: inch(-12),
  })
export const upright = (up = 0.0002, lift = 0.0001) =>
  add(mill, 'upright', {
    height: inch(1.2),
    up: inch(up),
    lift: inch(lift),
    plusMeans: 'towards',
    stylusAngle: 0,
    dialStep: inch(0.0005),
    partHeight: inch(1.8),
    allowed: inch(0.001),
    machine: { id: 'mill-1', version: 1 },
  })
export const gripped = (collet: string, stop: StopKind, rests: string[] = []) =>
  add(lathe, 'gripped', {
    collet: { id: collet, version: 1 },
    stop,
    operation: 'first',
    seated: null,
    bars: { known: 'tolerance', diameter: inch(1.25), spread: inch(0.004) },
    allowed: inch(0.02),
    rests,
  })
/** Faces that move four times as far as the diameter changes. */
export const lengths = (stop: StopKind, ratio = 4) =>
  add(lathe, 'lengths', {
    collet: { id: '16c', version: 1 },
    stop,
    what: 'face',
    pairs: [1.248, 1.249, 1.25, 1.251, 1.252].map((diameter, index) => ({
      diameter: inch(diameter),
      length: inch(Math.round((ratio * (diameter - 1.248) + (index % 2) * 1e-4) * 1e4) / 1e4),
    })),
  })
export const ticks = () =>
  ['anti-rotation', 'clamping-direction', 'stop-locked'].map((item) =>
    add(lathe, 'ticked', { list: 'hold', item, says: item }),
  )
export const happened = (opened: Entry, what: EntryOf<'happened'>['what']) =>
  add(opened, 'happened', { what, note: '' })

import { demoReference } from '@dogleg/core/demo'
import { asTyped } from '@dogleg/core/quantity'
import type { Entry } from '@dogleg/core/setup'
import { monotonicFactory } from 'ulid'

const MINUTE = 60_000

/** A log of one busy setup: pickups on all axes of six offsets, checks, notes, happenings, and some strikes. */
export function busyLog(count: number): { entries: Entry[]; reference: typeof demoReference } {
  const nextId = monotonicFactory(() => 0.5)
  const start = Date.UTC(2026, 0, 5, 7)
  const setup = nextId(start)
  const entries: Entry[] = [
    {
      id: setup,
      setup,
      at: new Date(start).toISOString(),
      by: 'RT',
      kind: 'opened',
      title: 'Busy setup',
      machine: { id: 'mill-1', version: 1 },
      unit: 'inch',
      tolerance: asTyped(0.002, 'inch'),
    },
  ]
  const last = new Map<string, string>()
  for (let i = 1; i < count; i += 1) {
    const at = start + i * MINUTE
    const id = nextId(at)
    const stamp = { id, setup, at: new Date(at).toISOString(), by: i % 3 ? 'RT' : 'MK' }
    const offset = `G5${4 + (i % 6)}`
    const inch = (value: number) => asTyped(Math.round(value * 10_000) / 10_000, 'inch')
    if (i % 50 === 0)
      entries.push({ ...stamp, kind: 'happened', what: 'vise-moved', note: 'chips under the jaw' })
    else if (i % 20 === 0)
      entries.push({ ...stamp, kind: 'struck', target: entries[i - 1]?.id ?? setup, reason: 'slip' })
    else if (i % 10 === 0) entries.push({ ...stamp, kind: 'note', text: 'first part measured, all good' })
    else if (i % 4 === 3 && last.has(`${offset}X`) && last.has(`${offset}Y`))
      entries.push({
        ...stamp,
        kind: 'checked',
        offset,
        rests: [last.get(`${offset}X`) ?? '', last.get(`${offset}Y`) ?? ''],
        result: 'agrees',
        note: '',
      })
    else {
      const axis = i % 2 ? 'X' : 'Y'
      last.set(`${offset}${axis}`, id)
      entries.push({
        ...stamp,
        kind: 'pickup',
        offset,
        machine: { id: 'mill-1', version: 1 },
        reading: {
          method: 'edge-finder',
          axis,
          direction: '+',
          diameter: inch(0.2),
          machinePosition: inch(-8 - (i % 700) / 1000),
          drawingPosition: inch(0),
        },
      })
    }
  }
  return { entries, reference: demoReference }
}

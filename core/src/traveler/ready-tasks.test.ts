import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { type Machine, readyListOf } from '../machine/index.ts'
import { deriveReady, type Entry } from '../setup/index.ts'
import { add, happened, inch } from '../setup/testing.ts'
import { readyTasks, stateOfReady } from './ready-tasks.ts'

const machine = demoReference.machines[0] as Machine
const ticks = () =>
  readyListOf(machine).map(({ id: item, says }) => add('ticked', { list: 'ready', item, says }))
const homed = (Y = 0) =>
  add('homed', { shown: { X: inch(0), Y: inch(Y), Z: inch(0) }, machine: { id: 'mill-1', version: 1 } })
const of = (entries: Entry[]) =>
  deriveReady({ machine, entries, now: Date.parse(entries.at(-1)?.at ?? '2026-11-24T08:00:00.000Z') })
const says = (entries: Entry[]) => readyTasks(of(entries)).map((task) => `${task.part}: ${task.says}`)

describe('the walk-round', () => {
  it('is open, then done once every line is ticked and home is as usual', () => {
    const [list, home] = [ticks(), homed()]
    expect(stateOfReady(of([]))).toBe('open')
    expect(stateOfReady(of(list))).toBe('open')
    expect(says(list)).toEqual(['home: Home the machine, Z first, and read what it shows.'])
    expect(stateOfReady(of([...list, home]))).toBe('done')
    const off = [...list, homed(0.05)]
    expect(stateOfReady(of(off))).toBe('open')
    expect(says(off)).toEqual(['home: Find out why home is off, and home again.'])
  })

  it('is asked for line by line, and again after an alarm', () => {
    const list = ticks()
    const [task] = readyTasks(of(list.slice(0, 1)))
    expect([task?.says, task?.why]).toEqual([
      'Walk round the machine.',
      `Nobody has ticked “${list[1]?.says}” on it yet.`,
    ])
    const after = [...list, homed(), happened('alarm')]
    expect(stateOfReady(of(after))).toBe('stale')
    expect(says(after)).toEqual([
      'list: Walk round the machine again.',
      'home: Read the home positions again.',
    ])
  })

  it('is not held up by a note that waits to be read', () => {
    const done = [...ticks(), homed()]
    expect(stateOfReady(of([...done, add('note', { text: 'T3 is dull.' })]))).toBe('done')
  })
})

import { describe, expect, it } from 'vitest'
import type { Entry } from '../setup/index.ts'
import {
  add,
  checked,
  edge,
  happened,
  length,
  opened,
  pickup,
  strike,
  touch,
  zeros,
} from '../setup/testing.ts'
import { setupOf, stateOf, travel } from './testing.ts'
import { Shift } from './testing-shift.ts'
import { zeroTasks } from './zero-tasks.ts'

const tasks = (log: Entry[]) =>
  travel([opened, ...log])
    .left.filter(({ step }) => step === 'zero')
    .map(({ part, says }) => `${part}: ${says}`)
/** Of a lathe: its tools are offsets, and none has a length. */
const latheSays = (log: Entry[]) =>
  zeroTasks(setupOf(log), { lengths: [], reference: { tools: [] } }).map(({ says }) => says)
const first = (log: Entry[]) => tasks(log)[0]?.split(':')[0]
describe('an offset', () => {
  it('is taken axis by axis, loaded, and looked at', () => {
    const { x, y, z, p, c } = zeros()
    const log = [x, y, z, p, c]
    expect([0, 1, 2, 3, 4, 5].map((count) => first(log.slice(0, count)))).toEqual([
      'X',
      'Y',
      'Z',
      'load',
      'check',
      undefined,
    ])
  })

  it('is done only when all axes are fresh and a point was seen over part zero', () => {
    const { x, y, z, p, c } = zeros()
    const state = (...log: Entry[]) => stateOf(travel([opened, ...log]), 'zero')
    expect(state(x, y, z)).toBe('open')
    // Whoever looked without the program has seen where it stands.
    expect(state(x, y, z, c)).toBe('done')
    expect(state(x, y, z, p, c)).toBe('done')
    expect(state(x, y, z, p, checked([x.id, y.id], 'off'))).toBe('open')
    expect(state(x, y, z, p, c, happened('part-reclamped'))).toBe('stale')
    expect(state(x, y, z, p, c, pickup(edge('X', -9), 'G55'))).toBe('open')
  })

  it('that the pointed tool stood off is taken again at an axis that was looked at, before anything else', () => {
    const y = pickup(edge('Y', -6))
    expect(tasks([y, checked([y.id], 'off')])[0]).toBe(
      'Y: Find out why the pointed tool stood off G54, and take that axis again.',
    )
    const x = pickup(edge('X', -14))
    const off = checked([y.id], 'off')
    // Y was taken again since: the look was of what it was before.
    expect(tasks([x, y, off, pickup(edge('Y', -6)), pickup(touch(7))]).at(-1)).toBe(
      'check: Check G54 with a pointed tool.',
    )
  })

  it('asks again for what a happening reached, and for what rests on it', () => {
    const { x, y, z, p, c } = zeros()
    expect(tasks([x, y, z, p, c, happened('tool-measured-again', 7)])).toEqual([
      'Z: Take Z of G54 again.',
      'load: Take the program for G54 to the control again.',
    ])
    expect(tasks([x, y, z, p, c, strike(y.id)])[0]).toBe('Y: Take Y of G54.')
  })

  it('that was probed by a program which no longer holds asks for it', () => {
    const { x, y, z, p, c } = zeros()
    const probe = add('program', {
      offset: 'G54',
      what: 'probe',
      rests: [x.id],
      how: 'copied',
      text: 'G0',
      profile: { id: 'compact', version: 1 },
      machine: { id: 'mill-1', version: 1 },
    })
    expect(tasks([x, y, z, p, c, probe, pickup(edge('X', -14))]).at(-1)).toMatch(
      /^probe: Take the probe program for G54 again/,
    )
  })

  it('of a lathe is of no tool before somebody said which: by taking one, or by a program', () => {
    const shift = new Shift('lathe')
    const says = () => latheSays(shift.log)
    expect(says()).toEqual(['Choose the tool that cuts, and take its X.'])
    shift.act('build')
    expect(says()[0]).toMatch(/^Take X of T[2-9]\.$/)
    const other = new Shift('lathe')
    other.act('X of T4')
    expect(latheSays(other.log)[0]).toBe('Take Z of T4.')
  })

  it('of a lathe is keyed in, and checked at the bar', () => {
    const shift = new Shift('lathe')
    const says = () => latheSays(shift.log)
    shift.act('X of T4')
    shift.act('Z of T4')
    expect(says()).toEqual(['Key T4 in, and check it at the bar.'])
    shift.act('check')
    expect(says()).toEqual([])
  })

  it('of a lathe has its Z taken before the work shift, where no tool is left that the shift can be taken with', () => {
    const shift = new Shift('lathe')
    const says = () => latheSays(shift.log)
    for (const act of ['X of T4', 'Z of T4', 'shift']) shift.act(act)
    // The part was moved: the shift by T4 brings it back, and comes first.
    shift.happen('collet-changed')
    expect(says()[0]).toBe('Take the work shift again.')
    shift.happen('homed-again')
    expect(says()).toEqual([
      'Take X of T4 again.',
      'Take Z of T4 again.',
      'Take the work shift again.',
      'Key T4 in, and check it at the bar.',
    ])
    expect(travel(shift.log).left.find(({ part }) => part === 'shift')?.waits).toBe(true)
    shift.act('X of T4')
    shift.act('Z of T4')
    expect(says()[0]).toBe('Take the work shift again.')
    shift.act('shift')
    expect(says()).toEqual(['Key T4 in, and check it at the bar.'])
  })

  it('of a lathe whose only Z was struck out is chosen before the work shift', () => {
    const shift = new Shift('lathe')
    for (const act of ['Z of T4', 'shift']) shift.act(act)
    const z = shift.log.find(({ kind }) => kind === 'pickup') as Entry
    const log = [...shift.log, strike(z.id)]
    expect(latheSays(log)).toEqual([
      'Choose the tool that cuts, and take its X.',
      'Take the work shift again.',
    ])
  })
})

describe('the length of a tool', () => {
  it('is asked for where a program needs it and nobody has measured it, before every Z', () => {
    const shift = new Shift('mill')
    shift.act('build')
    const asked = () =>
      travel(shift.log)
        .left.filter(({ part }) => part === 'tools')
        .map(({ says }) => says)
    expect(asked()).toEqual([
      'Measure the length of T3.',
      'Measure the length of T5.',
      'Measure the length of T12.',
    ])
    expect(travel(shift.log).next?.step).toBe('zero')
    shift.act('length of T3')
    expect(asked()).toHaveLength(2)
    shift.happen('tool-measured-again', 3)
    expect(asked()[0]).toBe('Measure the length of T3 again.')
  })

  it('of a tool that no program uses is nobody’s business', () => {
    const { x, y, z, p, c } = zeros()
    expect(tasks([length(9, -9.5), x, y, z, p, c, happened('tool-measured-again', 9)])).toEqual([])
  })
})

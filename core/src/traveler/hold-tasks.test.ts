import { describe, expect, it } from 'vitest'
import type { Entry, Setup } from '../setup/index.ts'
import { holdLog } from '../setup/testing.ts'
import { holdTasks } from './hold-tasks.ts'
import { setupOf, stateOf, travel } from './testing.ts'

const { cleared, gripped, happened, lathe, lengths, mill, swept, ticks, upright } = holdLog
const state = (opened: Entry, entries: Entry[]) => stateOf(travel([opened, ...entries]), 'hold')
const tasks = (opened: Entry, entries: Entry[]) =>
  holdTasks(setupOf([opened, ...entries])).map(({ part, says }) => `${part}: ${says}`)

describe('a vise', () => {
  it('is done when it was seen to clear, and the jaw was swept tight and square', () => {
    expect(state(mill, [])).toBe('open')
    expect(state(mill, [cleared(), swept('one', 0)])).toBe('open')
    expect(state(mill, [cleared(), swept('tight', 0.004)])).toBe('open')
    expect(state(mill, [swept('tight', 0)])).toBe('open')
    expect(state(mill, [cleared(), swept('tight', 0)])).toBe('done')
    // Readings of a jaw that leans are for who looks: nothing waits for them.
    expect(state(mill, [cleared(), swept('tight', 0), upright(0.0009)])).toBe('done')
  })

  it('is chosen, and stands where it clears, before it is squared there', () => {
    expect(tasks(mill, [])).toEqual([
      'clear: Choose the vise, and see whether it clears.',
      'square: Sweep the fixed jaw.',
    ])
    // .03 in over 5.5 in, turned about the bolt 1 in off: at the far end 6.75/5.5 * .03 - .03 = +.0068.
    const log = [cleared(), swept('one', -0.03), swept('one', 0), swept('snug', 0), swept('tight', 0)]
    expect([1, 2, 3, 4, 5].map((count) => tasks(mill, log.slice(0, count))[0])).toEqual([
      'square: Sweep the fixed jaw.',
      'square: Tap until the dial shows +0.0068 at 5.7500, zero it again, and sweep.',
      'square: Snug the second bolt, and sweep.',
      'square: Tighten both bolts, and sweep once more.',
      undefined,
    ])
    expect(tasks(mill, [swept('tight', 0.004)])).toContain('square: Take one bolt out and square it again.')
  })

  it('is not asked for where nobody entered what it is to clear', () => {
    const setup = setupOf([mill])
    const says = (around: Setup['machine']['around']) =>
      holdTasks({ ...setup, machine: { ...setup.machine, around } })[0]?.says
    const { name, around } = setup.machine
    expect(says(null)).toBe(`Enter what stands round the table of ${name}.`)
    expect(says(around && { ...around, obstacles: [] })).toBe(`Enter what stands round the table of ${name}.`)
    expect(says(around)).toBe('Choose the vise, and see whether it clears.')
  })

  it('that hits is to be moved, whatever was recorded', () => {
    expect(tasks(mill, [swept('tight', 0), cleared(11.9)])[0]).toBe('clear: Move the vise until it clears.')
    expect(state(mill, [swept('tight', 0), cleared(11.9)])).toBe('open')
  })

  it('that was moved is all asked for again, the reading of the upright jaw last', () => {
    const log = [cleared(), swept('tight', 0), upright(), happened(mill, 'vise-moved')]
    expect(state(mill, log)).toBe('stale')
    expect(tasks(mill, log)).toEqual([
      'clear: See again whether the vise clears.',
      'square: Sweep the fixed jaw again.',
      'square: Read again whether the fixed jaw stands upright.',
    ])
  })
})

describe('a collet', () => {
  it('is done when collet and stop are chosen and looked at', () => {
    const log = [gripped('16c', 'draw-tube'), ...ticks()]
    expect(state(lathe, [])).toBe('open')
    expect(state(lathe, log.slice(0, 1))).toBe('open')
    expect(state(lathe, log)).toBe('done')
    expect([0, 1, 2, 3, 4].map((count) => tasks(lathe, log.slice(0, count))[0]?.split(':')[0])).toEqual([
      'grip',
      'checks',
      'checks',
      'checks',
      undefined,
    ])
    expect(state(lathe, [...ticks(), gripped('16c', 'actuator')])).toBe('open')
    expect(tasks(lathe, [gripped('16c', 'actuator'), ...ticks()])).toEqual([
      'grip: Choose another collet or stop.',
    ])
  })

  it('that was changed is asked for again, with the ratio that the choice rests on', () => {
    const ratio = lengths('draw-tube')
    const of = (rests: string[]) => [
      ratio,
      gripped('16c', 'draw-tube', rests),
      ...ticks(),
      happened(lathe, 'collet-changed'),
    ]
    expect(state(lathe, of([]))).toBe('stale')
    expect(tasks(lathe, of([]))[0]).toBe('grip: Choose collet and stop again.')
    expect(tasks(lathe, of([ratio.id]))[0]).toMatch(/^ratio: Measure the ratio of 16C again, or choose/)
  })
})

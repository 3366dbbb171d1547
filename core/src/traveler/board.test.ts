import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import type { Entry } from '../setup/index.ts'
import { faultOf, happened } from '../setup/testing.ts'
import { shopBoard } from './index.ts'

const now = Date.UTC(2026, 10, 24, 9, 30)
const { entries, logs } = demoLogs(now)
const board = shopBoard(logs, demoReference, now)

describe('the board of the demo', () => {
  it('holds valid entries', () => {
    for (const each of entries) expect(faultOf(each)).toBeUndefined()
    expect(board.unreadable).toEqual([])
  })

  it('shows each machine with what is on it, in which step, what is stale, what note waits', () => {
    const [first, second] = board.machines
    expect(
      first?.setups
        .slice(0, 3)
        .map(({ title, next, steps }) => [title, next?.step, steps.map(({ state }) => state).join(' ')]),
    ).toEqual([
      ['Focuser housing, second side', 'zero', 'done done open open open open open open'],
      ['Focuser housing, serial number', 'hold', 'done stale stale open open open open open'],
      ['Focuser housing, first side', 'prove', 'done done done open done open done done'],
    ])
    expect(first?.setups[1]?.stale).toContain('The squareness of the vise')
    expect(first?.notes.map(({ by }) => by)).toEqual(['MK'])
    expect(second?.setups.slice(0, 2)).toMatchObject([
      {
        title: 'Drawtube, first operation',
        next: { step: 'hold', says: expect.stringContaining('clamping direction') },
      },
      { title: 'Drawtube, O-ring grooves', next: { step: 'zero', says: expect.stringContaining('T4') } },
    ])
  })

  it('passes over an angle that nobody measured; one that went stale is what is next', () => {
    const log =
      [...logs.values()]
        .filter(([opened]) => opened?.kind === 'opened' && opened.title === 'Counterweight bracket')
        .at(-1) ?? []
    const id = log[0]?.setup ?? ''
    const of = (more: Entry[]) =>
      shopBoard(new Map([[id, [...log, ...more]]]), demoReference, now).machines.flatMap(
        ({ setups }) => setups,
      )[0]
    const moved = { ...happened('vise-moved'), setup: id, at: '2026-11-25T07:00:00.000Z' } as Entry
    // Nobody squared the vise here; how the part lies comes before its zero, which turning it moves.
    expect(of([moved])?.next?.says).toBe('Measure the angle of G54 again.')
    expect(of([moved])?.stale).toContain('The angle of G54')
  })

  it('names a log that no machine can be found for', () => {
    expect(shopBoard(new Map([['id', []]]), demoReference, now).unreadable[0]?.says).toMatch(/not in the log/)
  })
})

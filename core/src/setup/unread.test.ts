import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { LogEntry } from '../log/index.ts'
import {
  deriveReady,
  deriveSetter,
  deriveSetup,
  deriveTools,
  type Entry,
  isUnreadable,
  type Logged,
  offsetOf,
  readEntry,
  whatIf,
} from './index.ts'
import { add, checked, derive, edge, happened, inch, opened, pickup, strike } from './testing.ts'

/** What stands in a log for an entry that this version cannot read: of a shape, or a kind, that it does not know. */
const newer = (entry: LogEntry, kind: string = entry.kind) => readEntry({ ...entry, kind, shape: 99 })
const damaged = ({ id, setup, at }: LogEntry) => readEntry('}', { id, setup, at })

const setupOf = (...log: Logged[]) => derive(log, demoReference)
const why = (of: { freshness: { state: string; cause?: { says: string } } } | undefined) =>
  of?.freshness.cause?.says ?? of?.freshness.state
const machine = setupOf().machine

describe('an entry that cannot be read', () => {
  it('takes nothing down: what was recorded before it is stale and says why, what came after it holds', () => {
    const [x, y] = [pickup(edge('X', -10)), pickup(edge('Y', -6))]
    const lost = happened('vise-moved')
    const after = pickup(edge('Y', -6.5))
    for (const [of, says] of [
      [newer(lost), 'taken before an entry that was written by a newer Dogleg'],
      [damaged(lost), 'taken before an entry that is damaged'],
    ] as const) {
      const setup = setupOf(x, y, of, after)
      const { axes } = offsetOf(setup, 'G54')
      expect([why(axes.X), why(axes.Y)]).toEqual([says, 'fresh'])
      expect(setup.unread).toEqual([of])
      expect(setup.log.map(({ entry }) => entry.id)).toEqual([opened, x, y, lost, after].map(({ id }) => id))
    }
  })

  it('is said of whatever depends on it', () => {
    const x = pickup(edge('X', -10))
    const look = checked([x.id])
    const { check, axes } = offsetOf(setupOf(newer(x), look), 'G54')
    expect(axes.X).toBeUndefined()
    expect(why(check)).toBe('rests on an entry that cannot be read here')
  })

  it('of a kind that reaches nothing leaves everything as it is; of one that nobody knows it does not', () => {
    const x = pickup(edge('X', -10))
    const note = add('note', { text: 'chips' })
    expect(why(offsetOf(setupOf(x, newer(note)), 'G54').axes.X)).toBe('fresh')
    // What is damaged may have been anything, whatever it says that it is.
    expect(why(offsetOf(setupOf(x, damaged(note)), 'G54').axes.X)).toMatch(/damaged/)
    expect(why(offsetOf(setupOf(x, newer(note, 'scanned')), 'G54').axes.X)).toMatch(/newer/)
    for (const kind of ['struck', 'saved', 'numbered', 'happened', 'tool-length'])
      expect([kind, why(offsetOf(setupOf(x, newer(note, kind)), 'G54').axes.X)]).toEqual([
        kind,
        expect.stringMatching(/newer/),
      ])
  })

  it('is struck out like any other, once somebody has seen that it says nothing that counts', () => {
    const x = pickup(edge('X', -10))
    const lost = damaged(add('note', { text: 'chips' }))
    const struck = strike(lost.id)
    const setup = setupOf(x, lost, struck)
    expect([why(offsetOf(setup, 'G54').axes.X), setup.unread]).toEqual(['fresh', []])
    expect(setup.log.find(({ entry }) => entry.id === lost.id)?.standing).toBe('struck')
    expect(whatIf([opened, x, lost], struck, demoReference)).toEqual(['G54 X is fresh again.'])
  })

  it('that may have been made later than a fact is called perhaps later', () => {
    const x: Entry = {
      ...pickup(edge('X', -10)),
      clock: { tablet: 'tablet0001', count: 1, heard: '2026-11-24T08:00:00.000Z', steady: 0 },
      received: '2026-11-24T12:00:00.000Z',
    }
    const lost = readEntry('}', {
      id: opened.id.replace(/.$/, 'Z'),
      setup: opened.setup,
      at: '2026-11-24T11:00:00.000Z',
      received: '2026-11-24T11:00:00.000Z',
    })
    expect(why(offsetOf(setupOf(x, lost), 'G54').axes.X)).toMatch(
      /^perhaps taken before .* damaged, the order/,
    )
  })

  it('that opened the setup leaves a log that says so', () => {
    const setup = deriveSetup([damaged(opened), pickup(edge('X', -10))], demoReference)
    expect(isUnreadable(setup) && setup.unreadable).toMatch(/opened this setup is not in the log/)
    expect(setup.log).toHaveLength(2)
  })

  it('makes the machine’s own facts doubtful: tool lengths, the setter, being ready', () => {
    const lengthOf = (tool: number) =>
      add('tool-length', {
        tool,
        machinePosition: inch(-7),
        masterPosition: inch(-8),
        masterLength: inch(4),
        machine: { id: 'mill-1', version: 1 },
      })
    const length = lengthOf(5)
    const setter = add('setter', {
      reading: { how: 'typed', height: inch(-12), heightWithin: inch(0.001) },
      machine: { id: 'mill-1', version: 1 },
    })
    const home = add('homed', {
      shown: { X: inch(0), Y: inch(0), Z: inch(0) },
      machine: { id: 'mill-1', version: 1 },
    })
    const lost = newer(happened('alarm'))
    const later = lengthOf(6)
    const log = [opened, length, setter, home, lost, later] as Logged[]
    const tools = deriveTools(log, machine, 'inch')
    expect(tools.map((tool) => [tool.tool, why(tool)])).toEqual([
      [5, 'measured before an entry that was written by a newer Dogleg'],
      [6, 'fresh'],
    ])
    expect(why(deriveSetter(log, machine, 'inch'))).toMatch(/^calibrated before .*newer/)
    expect(why(deriveReady({ machine, entries: log, now: Date.parse(later.at) }).home)).toMatch(
      /^read before .*newer/,
    )
    expect(deriveTools([opened, length], machine, 'inch').map(why)).toEqual(['fresh'])
  })
})

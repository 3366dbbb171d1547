import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import { startingDraft, usualMethod } from '../prepare/index.ts'
import {
  deriveSetup,
  describeEntry,
  type Entry,
  isUnreadable,
  namesIn,
  offsetOf,
  type Setup,
  whatIf,
} from './index.ts'

const { titled } = demoLogs(Date.UTC(2026, 10, 24, 9, 30))
const derive = (log: Entry[]): Setup => {
  const setup = deriveSetup(log, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const after = (log: Entry[], body: object): Entry =>
  ({
    id: '7ZZZZZZZZZZZZZZZZZZZZZZZZZ',
    setup: log[0]?.setup,
    at: '2026-11-24T10:00:00.000Z',
    by: 'RT',
    ...body,
  }) as Entry

describe('what an entry would change, said before it is made', () => {
  const [done, stale] = [titled('first side'), titled('serial')]
  const strike = (log: Entry[], kind: Entry['kind']) =>
    after(log, { kind: 'struck', target: log.findLast((entry) => entry.kind === kind)?.id, reason: 'slip' })

  it('names what goes stale, and nothing else', () => {
    expect(
      whatIf(
        done,
        after(done, { kind: 'happened', what: 'tool-measured-again', tool: 7, note: '' }),
        demoReference,
      ),
    ).toEqual([
      'The code of Housing, tapped holes goes stale.',
      'The proof of O5410 first side goes stale.',
      'The gauging of Housing, first side goes stale.',
      'G54 Z goes stale.',
      'The program for G54 goes stale.',
    ])
    expect(whatIf(done, after(done, { kind: 'note', text: 'x' }), demoReference)).toEqual([])
  })

  it('names what is fresh again when the event that made it stale is struck out', () => {
    expect(whatIf(stale, strike(stale, 'happened'), demoReference)).toEqual([
      'The squareness of the vise is fresh again.',
      'The clearance of the vise is fresh again.',
      'G54 X is fresh again.',
      'G54 Y is fresh again.',
      'G54 Z is fresh again.',
      'The check of G54 is fresh again.',
      'The program for G54 is fresh again.',
    ])
  })

  it('names what rests on an entry that is struck out, and what goes away with it', () => {
    expect(whatIf(done, strike(done, 'pickup'), demoReference)).toEqual([
      'The code of Housing, tapped holes goes stale.',
      'The proof of O5410 first side goes stale.',
      'The gauging of Housing, first side goes stale.',
      'G54 Z goes away.',
      'The program for G54 goes stale.',
    ])
    const slip = done.find((entry) => entry.kind === 'struck')
    expect(
      whatIf(done, after(done, { kind: 'struck', target: slip?.id, reason: 'no slip' }), demoReference),
    ).toEqual([])
  })
})

describe('a new form', () => {
  it('carries the finder and the tool over as typed, never a position', () => {
    const setup = derive(titled('first side'))
    expect(startingDraft(setup, 'Y', 'edge-finder')).toEqual({
      axis: 'Y',
      method: 'edge-finder',
      choices: {},
      fields: { diameter: '.200', drawingPosition: '0' },
    })
    expect(startingDraft(setup, 'Z').fields).toEqual({
      tool: '7',
      toolLength: '4.5120',
      blockHeight: '1.000',
      drawingPosition: '0',
    })
  })

  it('starts with the method that was used last along the table', () => {
    expect(usualMethod(derive(titled('second side')), 'Y')).toBe('indicator')
    expect(usualMethod(derive(titled('first side')), 'Y')).toBe('edge-finder')
    expect(usualMethod(derive(titled('second side')), 'Z')).toBe('tool-on-block')
  })
})

describe('the words of the logbook', () => {
  it('say what happened and keep what was typed beside what it meant', () => {
    const log = titled('first side')
    const byId = new Map(log.map((entry) => [entry.id, entry]))
    const words = (entry: Entry): string =>
      describeEntry(
        entry,
        { unit: 'inch', leastStep: 0.0001 },
        (id) => {
          const target = byId.get(id)
          return target ? words(target) : 'nothing'
        },
        namesIn(demoReference),
      ).says
    expect(log.filter(({ kind }) => kind !== 'ticked').map(words)).toEqual([
      'Setup opened: Focuser housing, first side',
      'Home positions read',
      'Jaw swept, one bolt: out of square 0.0249 in over the part',
      'Jaw swept, one bolt: out of square 0.0004 in over the part',
      'Jaw swept, second bolt snug: out of square 0.0004 in over the part',
      'Jaw swept, both bolts tight: out of square 0.0000 in over the part',
      'Fixed jaw read: leans 0.0002 in over the part, rises 0.0005 in',
      'Clearance of the vise: fixed jaw at 10.8000 in along the table',
      'G54 X is -81.3510 in',
      'Struck out: G54 X is -81.3510 in',
      'G54 X is -18.3510 in',
      'G54 Y is -5.7205 in',
      'T7 is 4.5120 in long',
      'T3 is 5.0265 in long',
      'T12 is 3.1250 in long',
      'T5 is 4.1585 in long',
      'T16 is 5.3350 in long',
      'G54 Z is -15.3460 in',
      'Program for G54 downloaded',
      'G54 checked with a pointed tool: it stands over part zero',
      'Program built: Housing, tapped holes',
      'Work area laid out: 5 bodies',
      'Proved: O5410 first side, good',
      'Gauging composed: Housing, first side',
      '120 parts measured: 1 to 120',
      'FACE corrected by -0.0013 in after part 120, T7',
      '80 parts measured: 121 to 200',
      'Part 137, out of tolerance: scrapped',
      'Part 164, out of tolerance: measured wrong, does not count',
      'Handed over',
    ])
  })
})

describe('an offset by name', () => {
  it('is open and empty when nothing was taken for it, and says when the control lacks it', () => {
    const setup = derive(titled('first side'))
    expect(offsetOf(setup, 'G154 P9')).toMatchObject({
      name: 'G154 P9',
      axes: {},
      findings: [],
    })
    expect(offsetOf(setup, 'G54.1 P9').findings.map(({ code }) => code)).toEqual(['offset-not-on-control'])
  })
})

describe('the words of an entry', () => {
  it('never say sixty seconds', () => {
    const proved = titled('first side').find((entry) => entry.kind === 'proved')
    if (proved?.kind !== 'proved') throw new Error('the demo has a proof')
    const detail = (seconds: number) =>
      describeEntry(
        { ...proved, seconds },
        { unit: 'inch', leastStep: 0.0001 },
        () => '',
        () => '',
      ).detail
    expect(detail(119.7)).toContain('1 min 59.7 s')
    expect(detail(119.98)).toContain('2 min 0.0 s')
    expect(detail(3599.9)).toContain('1 h 0 min')
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { pickupSettings, type Reading, readWorkShift, workShift } from '../pickup/index.ts'
import { proofRests, proveCase } from '../prepare/index.ts'
import {
  deriveSetup,
  describeEntry,
  type Entry,
  inWorkShift,
  isUnreadable,
  type Logged,
  nameStaleFacts,
  namesIn,
  offsetOf,
  offsetTable,
  readEntry,
  type Setup,
  shiftTools,
} from './index.ts'
import { add, happened, inch, opened, strike } from './testing.ts'
import { read } from './testing-read.ts'

const lathe = demoReference.machines.find(({ kind }) => kind === 'lathe') as Machine
const on = { machine: { id: lathe.id, version: lathe.version } }
const start = { ...opened, machine: on.machine } as Entry

function derive(log: readonly Logged[]): Setup {
  const setup = deriveSetup([start, ...log], demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const faced = (machineZ: number, drawing = 0): Reading => ({
  method: 'faced',
  axis: 'Z',
  machinePosition: inch(machineZ),
  drawingPosition: inch(drawing),
})
const touch = (tool: string, machineZ: number, setup?: Setup) =>
  add('pickup', { offset: tool, reading: inWorkShift(faced(machineZ), setup?.shift), ...on }) as Entry
/** A shift by a tool at the face, as the form would record it. */
function shiftBy(tool: string, machineZ: number, setup: Setup): Entry {
  const z = offsetOf(setup, tool).axes.Z
  const read = readWorkShift(
    { tool, machinePosition: String(machineZ), drawingPosition: '0' },
    z && { value: z.value, doubt: z.doubt.value },
    'inch',
  )
  if (!read.ok || !z) throw new Error('not read')
  return add('work-shift', { offset: tool, reading: read.value, rests: [z.entry.id], ...on }) as Entry
}
const zOf = (setup: Setup, tool: string) => offsetOf(setup, tool).axes.Z
const stale = (setup: Setup, tool: string) => {
  const freshness = zOf(setup, tool)?.freshness
  return freshness?.state === 'stale' ? freshness.cause.says : ''
}

describe('a work shift', () => {
  it('brings every tool back to a part that was moved, by one of them', () => {
    // By hand: T4 and T6 touched the old face at -11 and -12. The new one lies 0.25 further out: T4 touches it at -10.75.
    const [t4, t6] = [touch('T4', -11), touch('T6', -12)]
    const moved = [t4, t6, happened('collet-changed')]
    expect([stale(derive(moved), 'T4'), stale(derive(moved), 'T6')]).toEqual(
      Array(2).fill('taken before the collet was changed'),
    )
    expect(shiftTools(derive(moved).offsets).map(({ name }) => name)).toEqual(['T4', 'T6'])
    const log = [...moved, shiftBy('T4', -10.75, derive(moved))]
    const setup = derive(log)
    expect(setup.shift?.shift.value).toBeCloseTo(0.25, 9)
    expect(setup.shift?.freshness.state).toBe('fresh')
    expect([stale(setup, 'T4'), stale(setup, 'T6')]).toEqual(['', ''])
    // Another tool that is touched now stands to them as they stand to each other.
    const more = derive([...log, touch('T8', -9.75, setup)])
    expect(zOf(more, 'T8')?.value).toBeCloseTo(-10, 9)
    expect(zOf(more, 'T8')?.working.at(-1)).toMatchObject({
      arithmetic: '-9.7500 - 0.2500',
      gives: '-10.0000',
    })
    expect(read(log.at(-1))).toEqual(log.at(-1))
    expect(
      describeEntry(log.at(-1) as Entry, pickupSettings(lathe, 'inch'), () => '', namesIn(demoReference)),
    ).toEqual({
      says: expect.stringMatching(/^Work shift 0\.2500 in, within 0\.000/),
      detail: 'by T4, machine position -10.7500 in, on the drawing 0.0000 in',
    })
  })

  it('goes to the proof, which rests on it, and takes a look at the bar and an old proof with it', () => {
    const t4 = touch('T4', -11)
    const check = add('checked', { offset: 'T4', rests: [t4.id], result: 'agrees', note: '' }) as Entry
    const moved = [t4, check, happened('part-reclamped')]
    const log = [...moved, shiftBy('T4', -10.5, derive(moved))]
    const setup = derive(log)
    expect(offsetOf(setup, 'T4').check?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'checked before the work shift was taken' },
    })
    expect(proofRests(setup, [], { offsets: ['T4'], tools: [] })).toContain(log.at(-1)?.id)
    const proving = (of: readonly Entry[]) =>
      proveCase(
        derive(of),
        offsetTable(derive(of), of, demoReference),
        [],
        [],
        { unit: 'inch', bodies: [] },
        {
          text: '',
          frame: 'T4',
        },
      )
    expect(proving(log).workShift).toBeCloseTo(0.5, 9)
    expect(proving(log).offsets[0]?.stale).toBeUndefined()
    const again = [...log, happened('collet-changed')]
    expect(derive(again).shift?.freshness).toMatchObject({
      cause: { says: 'taken before the collet was changed' },
    })
    expect(nameStaleFacts(derive(again))).toEqual(expect.arrayContaining(['The work shift', 'T4 Z']))
    expect(proving(again).offsets[0]?.stale).toBeDefined()
  })

  it('holds for no tool that was touched on another lie of the part, and for none that homing has reached', () => {
    const [t4, t6] = [touch('T4', -11), touch('T6', -12)]
    const moved = [t4, t6, happened('collet-changed')]
    // T6 is touched at the part as it lies now: by itself it holds, with T4's shift it would count twice.
    const both = [...moved, touch('T6', -11.75)]
    expect(stale(derive(both), 'T6')).toBe('')
    const log = [...both, shiftBy('T4', -10.75, derive(both))]
    expect([stale(derive(log), 'T4'), stale(derive(log), 'T6')]).toEqual([
      '',
      'taken before the work shift was taken',
    ])
    const homed = [t4, t6, happened('homed-again'), happened('collet-changed')]
    expect(shiftTools(derive(homed).offsets)).toEqual([])
    const forced = [...homed, shiftBy('T4', -10.75, derive(homed))]
    expect(stale(derive(forced), 'T6')).toBe('taken before the machine was homed again')
    expect(derive(forced).shift?.freshness.state).toBe('stale')
  })

  it('is taken with no tool that more has reached than a part that was moved', () => {
    const t4 = touch('T4', -11)
    const moved = [t4, happened('collet-changed')]
    expect(shiftTools(derive(moved).offsets).map(({ name }) => name)).toEqual(['T4'])
    for (const more of ['homed-again', 'set-up-again'] as const) {
      const setup = derive([...moved, happened(more)])
      expect(shiftTools(setup.offsets)).toEqual([])
      // It is still told what reached it first.
      expect(stale(setup, 'T4')).toBe('taken before the collet was changed')
    }
    expect(shiftTools(derive([...moved, happened('part-reclamped')]).offsets)).toHaveLength(1)
  })

  it('does not hold for a tool that was touched after what cannot be read: the part may have been moved', () => {
    const [t4, moved, t6] = [touch('T4', -11), happened('collet-changed'), touch('T6', -12)]
    const shift = shiftBy('T4', -10.75, derive([t4, moved, t6]))
    for (const lost of [moved, readEntry({ ...moved, shape: 99 })]) {
      const setup = derive([t4, lost, t6, shift])
      expect(zOf(setup, 'T6')?.freshness.state).toBe('stale')
    }
  })

  it('gives nothing back where it is struck out, or what it was taken with is', () => {
    const [t4, t6] = [touch('T4', -11), touch('T6', -12)]
    const moved = [t4, t6, happened('collet-changed')]
    const shift = shiftBy('T4', -10.75, derive(moved))
    expect(stale(derive([...moved, shift, strike(shift.id)]), 'T6')).toBe(
      'taken before the collet was changed',
    )
    const { shift: without } = derive([...moved, shift, strike(t4.id)])
    expect(without?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'rests on a reading that was struck out' },
    })
  })

  it('never calls a tool fresh that would not come to the part: 1,000 shifts of random work', () => {
    const tools = ['T1', 'T2', 'T3'] as const
    const act = fc.oneof(
      {
        weight: 4,
        arbitrary: fc.record({ does: fc.constant('touch' as const), tool: fc.constantFrom(...tools) }),
      },
      {
        weight: 3,
        arbitrary: fc.record({ does: fc.constant('shift' as const), tool: fc.constantFrom(...tools) }),
      },
      {
        weight: 3,
        arbitrary: fc.record({
          does: fc.constantFrom('move' as const, 'clamp' as const),
          by: fc.integer({ min: -9000, max: 9000 }),
        }),
      },
      {
        weight: 1,
        arbitrary: fc.record({ does: fc.constant('home' as const), by: fc.integer({ min: -900, max: 900 }) }),
      },
    )
    let shifted = 0
    let together = 0
    fc.assert(
      fc.property(fc.array(act, { minLength: 3, maxLength: 14 }), (acts) => {
        const log: Entry[] = []
        // Where each tool truly stands with its tip at the old face; where the face lies now; what the control has keyed in.
        const truth: Record<string, number> = { T1: -10, T2: -11.5, T3: -12.25 }
        let face = 0
        for (const each of acts) {
          const setup = derive(log)
          if (each.does === 'touch') log.push(touch(each.tool, (truth[each.tool] ?? 0) + face, setup))
          else if (each.does === 'home') {
            for (const tool of tools) truth[tool] = (truth[tool] ?? 0) + each.by / 10_000
            log.push(happened('homed-again'))
          } else if (each.does === 'shift') {
            // Only what the page offers.
            if (!shiftTools(setup.offsets).some(({ name }) => name === each.tool)) continue
            log.push(shiftBy(each.tool, (truth[each.tool] ?? 0) + face, setup))
          } else {
            face = each.by / 10_000
            log.push(happened(each.does === 'move' ? 'collet-changed' : 'part-reclamped'))
          }
          const now = derive(log)
          if (now.shift?.freshness.state === 'stale') continue
          const fresh = tools.filter((tool) => zOf(now, tool)?.freshness.state === 'fresh')
          if (now.shift) {
            shifted++
            if (fresh.length > 1) together++
          }
          for (const tool of fresh)
            expect((zOf(now, tool)?.value ?? 0) + (now.shift?.shift.value ?? 0)).toBeCloseTo(
              (truth[tool] ?? 0) + face,
              3,
            )
        }
      }),
      depth(300, 1000),
    )
    // It has tried what it is about.
    expect(shifted).toBeGreaterThan(100)
    expect(together).toBeGreaterThan(30)
  })

  it('is of a lathe: on a mill it is no fact, and asks for nothing', () => {
    const t4 = touch('T4', -11)
    const shift = shiftBy('T4', -10.75, derive([t4]))
    const machine = { id: 'mill-1', version: 1 }
    const mill = deriveSetup([{ ...start, machine } as Entry, t4, shift], demoReference)
    expect(isUnreadable(mill) ? 'unreadable' : mill.shift).toBeUndefined()
  })

  it('is worked out from the face, the drawing and the tool, in either unit (by hand)', () => {
    const read = readWorkShift(
      { tool: 'T4', machinePosition: '-273.05', drawingPosition: '1.27' },
      { value: -279.4, doubt: 0.01 },
      'mm',
    )
    if (!read.ok) throw new Error('not read')
    // -10.75 in less 0.05 in less -11 in.
    expect(workShift(read.value, { unit: 'mm', leastStep: 0.001 }).value).toBeCloseTo(0.2 * 25.4, 9)
    expect(workShift(read.value, { unit: 'inch', leastStep: 0.0001 }).value).toBeCloseTo(0.2, 9)
    const missing = readWorkShift({ tool: '', machinePosition: '', drawingPosition: '0' }, undefined, 'inch')
    expect(!missing.ok && Object.keys(missing.problems).sort()).toEqual([
      'geometry',
      'geometryWithin',
      'machinePosition',
      'tool',
    ])
  })
})

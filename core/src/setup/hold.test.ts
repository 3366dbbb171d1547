import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Freshness } from '../fact/index.ts'
import {
  readGripDraft,
  readLengthsDraft,
  readPlacedDraft,
  readSweepDraft,
  withPartLength,
} from '../hold/index.ts'
import {
  jawLengthOf,
  startingGrip,
  startingLengths,
  startingPlace,
  startingSweep,
  startingUpright,
  viseInHand,
} from '../prepare/index.ts'
import {
  asksUpright,
  deriveSetup,
  describeEntry,
  type Entry,
  isSquare,
  isUnreadable,
  measuredRatios,
  namesIn,
  type Reference,
  type Setup,
  wouldGoStale,
} from './index.ts'
import {
  add,
  cleared,
  gripped,
  happened,
  inch,
  lathe,
  lengths,
  mill,
  swept,
  upright,
} from './testing-hold.ts'

function derive(opened: Entry, entries: Entry[], reference: Reference = demoReference): Setup {
  const setup = deriveSetup([opened, ...entries], reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}

/** X of G54, found with an edge finder. */
const zeroX = () =>
  add(mill, 'pickup', {
    offset: 'G54',
    machine: { id: 'mill-1', version: 1 },
    reading: {
      method: 'edge-finder',
      axis: 'X',
      direction: '+',
      diameter: inch(0.2),
      machinePosition: inch(-14),
      drawingPosition: inch(0),
    },
  })

describe('Hold on a mill', () => {
  it('compares each sweep with the one before it, and starts anew once the vise was moved', () => {
    const { sweeps } = derive(mill, [swept('one', -0.03), swept('one', -0.07)]).hold
    expect(sweeps.map(({ convergence }) => convergence?.left.toFixed(2))).toEqual([undefined, '2.33'])
    expect(sweeps[1]?.findings[0]?.code).toBe('worse')
    const moved = derive(mill, [
      swept('one', -0.03),
      swept('tight', 0),
      happened(mill, 'vise-moved'),
      swept('one', -0.02),
    ]).hold
    expect(moved.sweeps).toHaveLength(1)
    expect(moved.sweeps[0]?.convergence).toBeUndefined()
    expect(isSquare(moved.sweeps[0])).toBe(false)
  })

  it('asks once a day whether the fixed jaw stands upright, once it is square', () => {
    const asks = (entries: Entry[], hours = 1) => {
      const { hold } = derive(mill, entries)
      return asksUpright(hold, entries, Date.parse(entries.at(-1)?.at ?? mill.at) + hours * 3_600_000)
    }
    expect(asks([swept('one', 0)])).toBe(false)
    expect(asks([swept('tight', 0.004)])).toBe(false)
    expect(asks([swept('tight', 0)])).toBe(true)
    expect(asks([swept('tight', 0), happened(mill, 'vise-moved')])).toBe(false)
    const read = upright()
    expect(asks([swept('tight', 0), read])).toBe(false)
    expect(asks([swept('tight', 0), read], 19.9)).toBe(false)
    expect(asks([swept('tight', 0), read], 20.1)).toBe(true)
    // Once a day at most: not again after the vise was moved and squared, nor for another job of that machine.
    expect(asks([read, happened(mill, 'vise-moved'), swept('tight', 0)])).toBe(false)
    const { hold } = derive(mill, [swept('tight', 0)])
    expect(asksUpright(hold, [read], Date.parse(read.at))).toBe(false)
    expect(asks([swept('tight', 0), read, add(mill, 'struck', { target: read.id, reason: 'slip' })])).toBe(
      true,
    )
  })

  it('keeps what the fixed jaw was read to do, until the vise is moved; nothing rests on it', () => {
    const leaning = derive(mill, [swept('tight', 0), cleared(), upright(0.0009)]).hold
    expect(leaning.upright).toMatchObject({ freshness: { state: 'fresh' }, verdict: 'look' })
    expect(leaning.upright?.read.lean.value).toBeCloseTo(0.00135, 9)
    const log = [swept('tight', 0), cleared(), upright()]
    expect(
      wouldGoStale(derive(mill, log), [mill, ...log], [happened(mill, 'bolt-tightened')], demoReference),
    ).not.toContain('The look at the fixed jaw')
    expect(
      wouldGoStale(derive(mill, log), [mill, ...log], [happened(mill, 'vise-moved')], demoReference),
    ).toContain('The look at the fixed jaw')
    const moved = derive(mill, [...log, happened(mill, 'vise-moved')]).hold.upright
    expect(moved?.freshness).toMatchObject({ cause: { says: 'read before the vise was moved' } })
    // The form of the next: how high as it was, the readings anew.
    expect(startingUpright(derive(mill, log))).toMatchObject({
      height: '1.2',
      partHeight: '1.8',
      up: '',
      lift: '',
    })
    expect(startingUpright(derive(mill, []))).toMatchObject({
      height: '',
      allowed: '0.002',
      dialStep: '.0005',
    })
  })

  it('a clearance goes stale when the machine or the vise is edited, and the row that is gone is named', () => {
    const log = [swept('tight', 0), cleared()]
    const later = <Row extends { id: string; version: number }>(rows: readonly Row[]) =>
      rows.map((row) => ({ ...row, version: row.version + 1 }))
    const says = (reference: Partial<Reference>) => {
      const { clearance } = derive(mill, log, { ...demoReference, ...reference }).hold
      return clearance?.freshness.state === 'stale' ? clearance.freshness.cause.says : undefined
    }
    expect(says({})).toBeUndefined()
    expect(says({ vises: later(demoReference.vises) })).toBe(
      'measured with 6 in vise as it was before an edit',
    )
    expect(says({ machines: later(demoReference.machines) })).toBe(
      'measured with Mill 1 as it was before an edit',
    )
    const gone = derive(mill, log, { ...demoReference, vises: [] }).hold
    expect(gone.clearance).toBeUndefined()
    expect(gone.findings.map(({ says }) => says)).toEqual(['The vise "vise-6" is not in the library.'])
  })

  it('another vise than the sweep was made with makes it stale, whoever tells of it; the one that was swept does not', () => {
    const by = (vise: string) => ({ ...swept('tight', 0), vise: { id: vise, version: 1 } })
    const stands = (log: Entry[]) => {
      const { hold, offsets } = derive(mill, log)
      const says = (freshness?: Freshness) =>
        freshness?.state === 'stale' ? freshness.cause.says : freshness?.state
      return {
        swept: says(hold.sweeps.at(-1)?.freshness),
        clear: says(hold.clearance?.freshness),
        X: says(offsets.find(({ name }) => name === 'G54')?.axes.X?.freshness),
      }
    }
    const put = 'another vise was put on'
    expect(stands([by('vise-6'), zeroX(), cleared()])).toEqual({ swept: 'fresh', clear: 'fresh', X: 'fresh' })
    // Swept with the vise in hand, then another was chosen.
    expect(stands([by('vise-6'), zeroX(), cleared(10.9, 'vise-4')])).toEqual({
      swept: `swept before ${put}`,
      clear: 'fresh',
      X: `taken before ${put}`,
    })
    // Seen to clear with one, then another was swept: what cleared is not there.
    expect(stands([cleared(), zeroX(), by('vise-4')])).toEqual({
      swept: 'fresh',
      clear: `measured before ${put}`,
      X: `taken before ${put}`,
    })
    // Once that one is seen to clear, its sweep and what was taken from it hold: it stood there already.
    expect(stands([cleared(), by('vise-4'), zeroX(), cleared(10.9, 'vise-4')])).toEqual({
      swept: 'fresh',
      clear: 'fresh',
      X: 'fresh',
    })
    // A sweep from before the vise was kept with it goes the way of the clearance, as it did.
    expect(stands([cleared(), swept('tight', 0), cleared(10.9, 'vise-4')]).swept).toBe(`swept before ${put}`)
    expect(stands([swept('tight', 0), cleared()]).swept).toBe('fresh')
  })

  it('is not square by a place that lies off the jaw of the vise that was swept', () => {
    const sweep = {
      ...swept('tight', 0).sweep,
      points: [
        { at: inch(0.25), reading: inch(0) },
        { at: inch(8), reading: inch(0) },
      ],
    }
    const fact = (vise?: string) =>
      derive(mill, [
        { ...swept('tight', 0), sweep, ...(vise ? { vise: { id: vise, version: 1 } } : {}) },
      ]).hold.sweeps.at(-1)
    expect(fact('vise-6')).toMatchObject({ verdict: 'stop' })
    expect(fact('vise-6')?.findings[0]?.code).toBe('off-the-jaw')
    expect(isSquare(fact('vise-6'))).toBe(false)
    expect(isSquare(fact())).toBe(true)
  })

  it('says before it is recorded what a sweep with a loose bolt would make stale', () => {
    const zero = zeroX()
    const log = [mill, swept('tight', 0), cleared(), zero]
    const setup = derive(mill, log.slice(1))
    const by = (added: Entry) => wouldGoStale(setup, log, [added], demoReference)
    expect(by(swept('one', 0))).toEqual(['G54 X'])
    expect(by(swept('tight', 0))).toEqual([])
    expect(by(cleared(9))).toEqual(['The squareness of the vise', 'G54 X'])
    // What is stale already is not named again.
    const moved = [...log, happened(mill, 'vise-moved')]
    expect(wouldGoStale(derive(mill, moved.slice(1)), moved, [cleared(9)], demoReference)).toEqual([])
  })
})

describe('Hold on a lathe', () => {
  it('computes with a measured ratio once the choice rests on it, and says when one was measured since', () => {
    const measured = lengths('draw-tube')
    const spread = (entries: Entry[]) => derive(lathe, entries).hold.grip
    expect(spread([gripped('16c', 'draw-tube')])?.spread.value).toBeCloseTo(2.836 * 0.004 + 0.001, 5)
    expect(spread([measured, gripped('16c', 'draw-tube', [measured.id])])?.spread.value).toBeCloseTo(0.017, 4)
    expect(spread([gripped('16c', 'draw-tube'), measured])?.findings.map(({ code }) => code)).toContain(
      'ratio-measured-since',
    )
    const again = [measured, gripped('16c', 'draw-tube', [measured.id]), lengths('draw-tube', 3)]
    expect(spread(again)?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'chosen before the ratio was taken again' },
    })
  })

  it('takes no ratio from a stop that stays, nor from a collet that was changed', () => {
    const ratios = (entries: Entry[]) => [...measuredRatios(derive(lathe, entries).hold).keys()]
    expect(ratios([lengths('draw-tube')])).toEqual(['16c'])
    expect(ratios([lengths('chuck-face', 0)])).toEqual([])
    expect(ratios([lengths('draw-tube'), happened(lathe, 'collet-changed')])).toEqual([])
    const { hold } = derive(lathe, [lengths('chuck-face', 0)])
    expect(hold.lengths.get('16c')?.findings.map(({ code }) => code)).toEqual(['stop-stays'])
    const moves = derive(lathe, [lengths('chuck-face', 4)]).hold
    expect(moves.lengths.get('16c')?.findings[0]?.fix).toBe(
      'Find out what lets the stop move before you rely on it.',
    )
  })

  it('goes stale with an edit of its collet: the length was worked out with the ratio and the sizes of then', () => {
    const collets = demoReference.collets.map((each) => ({ ...each, version: each.version + 1 }))
    const { grip } = derive(lathe, [gripped('16c', 'draw-tube')], { ...demoReference, collets }).hold
    expect(grip?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'chosen with 16C as it was before an edit' },
    })
  })

  it('names a collet that is no longer in the library', () => {
    const { hold } = derive(lathe, [gripped('16c', 'draw-tube')], { ...demoReference, collets: [] })
    expect(hold.findings.map(({ says }) => says)).toEqual(['The collet "16c" is not in the library.'])
  })
})

describe('the forms start', () => {
  it('empty in a new setup, and readable but for what has to be typed', () => {
    const setup = derive(mill, [])
    const vise = viseInHand('', [], demoReference.vises)
    const jaw = jawLengthOf(setup, vise)
    const sweep = readSweepDraft(withPartLength(startingSweep(setup), jaw, 'inch'), 'inch')
    expect(sweep.ok ? [] : Object.keys(sweep.problems)).toEqual([
      'pivot',
      'points.0.at',
      'points.1.at',
      'points.1.reading',
    ])
    const place = readPlacedDraft(startingPlace(setup), 'inch')
    expect(place.ok ? [] : Object.keys(place.problems)).toEqual(['jawAt'])
    const grip = readGripDraft(startingGrip(derive(lathe, [])), 'inch')
    // Nor which collet and which stop: the first of a list is nobody's choice.
    expect(grip.ok ? [] : Object.keys(grip.problems).sort()).toEqual([
      'allowed',
      'bars.diameter',
      'bars.spread',
      'collet',
      'stop',
    ])
    expect(Object.values(grip.ok ? {} : grip.problems).every(({ empty }) => empty)).toBe(true)
  })

  it('from what stands, so that they say the same again; readings are typed anew', () => {
    const last = cleared(10.75)
    const setup = derive(mill, [swept('one', -0.03), last])
    expect(startingSweep(setup)).toMatchObject({
      bolts: 'one',
      pivot: '-1',
      partLength: '4',
      points: [
        { at: '0.25', reading: '0' },
        { at: '5.75', reading: '' },
      ],
    })
    const place = readPlacedDraft(startingPlace(setup), 'inch')
    expect(place.ok && place.value.jawAt).toEqual(last.jawAt)
    const measured = lengths('draw-tube')
    const choice = gripped('16c', 'draw-tube')
    const turning = derive(lathe, [choice, measured])
    const grip = readGripDraft(startingGrip(turning), 'inch')
    expect(grip.ok && grip.value.bars).toEqual(choice.bars)
    const list = readLengthsDraft(startingLengths(turning, '5c'), 'inch')
    expect(list.ok && list.value.pairs).toEqual(measured.pairs)
  })

  it('with the bolts as the work goes: one, then snug, then tight, and one again when it moved', () => {
    const after = (...sweeps: Entry[]) => startingSweep(derive(mill, sweeps)).bolts
    expect(after()).toBe('one')
    expect(after(swept('one', -0.03))).toBe('one')
    expect(after(swept('one', 0))).toBe('snug')
    expect(after(swept('snug', 0))).toBe('tight')
    expect(after(swept('snug', 0.004))).toBe('one')
    expect(after(swept('tight', 0), happened(mill, 'vise-moved'))).toBe('one')
  })

  it('with the vise that was chosen, else the one that was last on the machine, else the first', () => {
    const { vises } = demoReference
    expect(viseInHand('vise-4', [cleared()], vises)?.id).toBe('vise-4')
    expect(viseInHand('', [cleared(10, 'vise-4'), cleared(10, 'vise-6')], vises)?.id).toBe('vise-6')
    // The first of the library is nobody's vise.
    expect(viseInHand('gone', [], vises)).toBeUndefined()
    expect(viseInHand('', [], vises)).toBeUndefined()
    expect(jawLengthOf({ unit: 'mm' }, undefined)).toBeCloseTo(152.4, 9)
  })
})

describe('the words of the logbook for Ready and Hold', () => {
  it('say what happened, and keep what was typed', () => {
    const words = (entry: Entry) => {
      const { says, detail } = describeEntry(
        entry,
        { unit: 'inch', leastStep: 0.0001 },
        () => 'a note',
        namesIn(demoReference),
      )
      return `${says} | ${detail}`
    }
    const home = { X: inch(0), Y: inch(0), Z: inch(0.0125) }
    expect(
      [
        add(mill, 'ticked', { list: 'ready', item: 'loose', says: 'Nothing loose' }),
        add(mill, 'acknowledged', { note: mill.id }),
        add(mill, 'homed', { shown: home, machine: { id: 'mill-1', version: 1 } }),
        swept('snug', -0.03),
        upright(0.0004, -0.0002),
        cleared(),
        gripped('16c', 'draw-tube'),
        lengths('draw-tube'),
        happened(mill, 'bolt-tightened'),
      ].map(words),
    ).toEqual([
      'Ticked: Nothing loose | walk-round and power-up',
      'Read and acknowledged: a note | ',
      'Home positions read | X 0.0000 in, Y 0.0000 in, Z 0.0125 in',
      'Jaw swept, second bolt snug: out of square 0.0218 in over the part | bolt at -1.0000 in, 0.2500 in reads 0.0000 in, 5.7500 in reads -0.0300 in',
      'Fixed jaw read: leans 0.0006 in over the part, goes down 0.0002 in | 0.0004 in over 1.2000 in up the face, -0.0002 in on top as it is clamped',
      'Clearance of the vise: fixed jaw at 10.9000 in along the table | 6 in vise, 0.2500 in wanted, Z down to -12.0000 in',
      'Collet and stop chosen: 16C | stop: Clamped in the draw tube, first operation, to face 0.0200 in, bar 1.2500 in, spread 0.0040 in',
      expect.stringMatching(/^5 face positions measured on 16C \| 1\.2480 in: 0\.0000 in/),
      'A bolt of the vise tightened | ',
    ])
    expect(namesIn(undefined)('16c')).toBe('16c')
  })
})

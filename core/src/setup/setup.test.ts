import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { StopKind } from '../hold/index.ts'
import { effectiveStrikes } from '../log/index.ts'
import { checkHindrance, programFor, restsOf } from '../prepare/index.ts'
import {
  deriveSetup,
  type Entry,
  entryIssues,
  expectationOf,
  HAPPENINGS,
  type HappeningKind,
  isUnreadable,
  type Logged,
  type OffsetState,
  type Reference,
} from './index.ts'
import {
  add,
  checked,
  cleared,
  derive as deriveWith,
  edge,
  happened,
  inch,
  opened,
  pickup,
  strike,
  swept,
  touch,
  zeros,
} from './testing.ts'

const derive = (entries: readonly Logged[], reference: Reference = demoReference) =>
  deriveWith(entries, reference)

/** What is stale in G54, and why. */
function stale(entries: Entry[], reference?: Reference): Record<string, string> {
  const { offsets, hold } = derive(entries, reference)
  const [offset] = offsets
  const facts = {
    square: hold.sweeps.at(-1),
    clear: hold.clearance,
    grip: hold.grip,
    ratio: hold.lengths.get('5c'),
    look: hold.checks[0]?.tick,
    ...offset?.axes,
    check: offset?.check,
    program: offset?.program,
  }
  return Object.fromEntries(
    Object.entries(facts).flatMap(([name, fact]) =>
      fact?.freshness.state === 'stale' ? [[name, fact.freshness.cause.says]] : [],
    ),
  )
}

function whole() {
  const [square, clear] = [swept('tight'), cleared()]
  const { x, y, z, c, p } = zeros()
  return { x, y, z, c, p, square, all: [square, clear, x, y, z, c, p] as Entry[] }
}

describe('what makes what stale (common practice; the whole table)', () => {
  const zeros = ['X', 'Y', 'Z', 'check', 'program']
  const ON_A_MILL: Record<HappeningKind, string[]> = {
    'vise-moved': ['square', 'clear', ...zeros],
    'bolt-tightened': ['square', 'X', 'Y', 'check', 'program'],
    'part-reclamped': zeros,
    alarm: [],
    'homed-again': zeros,
    'tool-measured-again': ['Z', 'program'],
    'collet-changed': ['Z', 'program'],
    'rotary-homed': [],
    'rotary-moved': zeros,
    'set-up-again': ['square', 'clear', ...zeros],
  }
  const ON_A_LATHE: Record<HappeningKind, string[]> = {
    'vise-moved': [],
    'bolt-tightened': [],
    'part-reclamped': [],
    alarm: [],
    'homed-again': [],
    'tool-measured-again': [],
    'collet-changed': ['grip', 'ratio', 'look'],
    'rotary-homed': [],
    'rotary-moved': [],
    'set-up-again': ['grip', 'ratio', 'look'],
  }
  const KINDS = Object.keys(HAPPENINGS) as HappeningKind[]
  it.each(KINDS)('%s, on a mill', (what) => {
    expect(Object.keys(stale([...whole().all, happened(what, 7)])).sort()).toEqual(ON_A_MILL[what].sort())
  })

  it.each(KINDS)('%s, on a lathe', (what) => {
    const collet = { id: '5c', version: 1 }
    const pairs = [1, 1.002, 1.004].map((d) => ({ diameter: inch(d), length: inch(2 + 3 * (d - 1)) }))
    const measured = add('lengths', { collet, stop: 'collet', what: 'face', pairs })
    const bars = { known: 'tolerance', diameter: inch(1), spread: inch(0.002) } as const
    const grip = add('gripped', {
      collet,
      stop: 'collet',
      operation: 'first',
      seated: null,
      bars,
      allowed: inch(0.02),
      rests: [measured.id],
    })
    const look = add('ticked', { list: 'hold', item: 'anti-rotation', says: 'Screw' })
    const machines = demoReference.machines.map((each) => ({ ...each, kind: 'lathe' as const }))
    const log = [measured, grip, look, happened(what, 7)]
    expect(Object.keys(stale(log, { ...demoReference, machines })).sort()).toEqual(ON_A_LATHE[what].sort())
    expect(Object.keys(stale([...log, strike(measured.id)], { ...demoReference, machines }))).toContain(
      'grip',
    )
  })

  it('a vise that is let loose to be squared takes X and Y with it; a look at a tight one does not', () => {
    const { x, y, z, square, all } = whole()
    expect(stale([...all, swept('tight', 0.001)])).toEqual({})
    for (const bolts of ['one', 'snug'] as const)
      expect(stale([...all, swept(bolts)])).toMatchObject({ X: 'taken before the vise was squared' })
    const tightened = [square, swept('snug'), x, y, z, swept('tight')]
    expect(Object.keys(stale(tightened))).toEqual(['X', 'Y'])
  })

  it('a vise that is entered at another place, or another vise, takes all that was taken from the one before', () => {
    const { all } = whole()
    const gone = ['X', 'Y', 'Z', 'check', 'program', 'square']
    expect(stale([...all, { ...cleared(), jawAt: inch(10.95) }])).toEqual({})
    expect(Object.keys(stale([...all, { ...cleared(), jawAt: inch(11.5) }])).sort()).toEqual(gone)
    const other = { ...cleared(), vise: { id: 'vise-4', version: 1 } }
    expect(Object.keys(stale([...all, other])).sort()).toEqual(gone)
    expect(stale([...all, other])).toMatchObject({ square: 'swept before another vise was put on' })
  })

  it('another collet takes its looks with it, another stop only the look at the stop', () => {
    const grip = (collet: string, stop: StopKind, allowed = 0.02) =>
      add('gripped', {
        collet: { id: collet, version: 1 },
        stop,
        operation: 'first',
        seated: null,
        bars: { known: 'tolerance', diameter: inch(1), spread: inch(0.002) },
        allowed: inch(allowed),
        rests: [],
      })
    const looks = ['anti-rotation', 'clamping-direction', 'stop-locked'].map((item) =>
      add('ticked', { list: 'hold', item, says: item }),
    )
    const due = (next: Entry) => {
      const machines = demoReference.machines.map((each) => ({ ...each, kind: 'lathe' as const }))
      const { hold } = derive([grip('5c', 'collet'), ...looks, next], { ...demoReference, machines })
      return hold.checks.flatMap(({ id, tick }) => (tick?.freshness.state === 'stale' ? [id] : []))
    }
    expect(due(grip('5c', 'collet', 0.03))).toEqual([])
    expect(due(grip('5c', 'draw-tube'))).toEqual(['stop-locked'])
    expect(due(grip('16c', 'collet'))).toEqual(['anti-rotation', 'clamping-direction', 'stop-locked'])
  })

  it('another tool measured again makes nothing stale', () => {
    expect(stale([...whole().all, happened('tool-measured-again', 8)])).toEqual({})
  })

  it('nothing that was taken afterwards is touched, and the first event is the one named', () => {
    const { all } = whole()
    const moved = [happened('vise-moved'), happened('part-reclamped')]
    expect(stale([...all, ...moved, pickup(edge('X', -14))])).toEqual({
      square: 'swept before the vise was moved',
      clear: 'measured before the vise was moved',
      Y: 'taken before the vise was moved',
      Z: 'taken before the vise was moved',
      check: 'checked before the vise was moved',
      program: 'written before the vise was moved',
    })
  })

  it('a check and a program go stale when what they rest on is taken again or struck out', () => {
    const { x, z, all } = whole()
    expect(stale([...all, pickup(edge('X', -14))])).toEqual({
      check: 'checked before X was taken again',
      program: 'written before X was taken again',
    })
    expect(stale([...all, pickup(touch(7))])).toEqual({ program: 'written before Z was taken again' })
    expect(stale([...all, strike(z.id)])).toEqual({ program: 'rests on a reading that was struck out' })
    expect(Object.keys(stale([...all, strike(x.id)]))).toEqual(['check', 'program'])
  })

  it('a check made on a reading that was stale already says so', () => {
    const { x, y, z } = whole()
    const late = [x, y, z, happened('vise-moved'), checked([x.id, y.id])]
    expect(stale(late).check).toBe('rests on a reading taken before the vise was moved')
  })

  it('a program goes stale when the profile or the machine is edited', () => {
    const edited = {
      ...demoReference,
      profiles: demoReference.profiles.map((each) => ({ ...each, version: 2, writesSince: 2 })),
    }
    expect(stale(whole().all, edited).program).toMatch(
      /compact version 1; the machine now speaks Compact version 2/,
    )
    // Another code of the machine's own changes nothing of what is written.
    const said = demoReference.profiles.map((each) => ({ ...each, version: 2 }))
    expect(stale(whole().all, { ...demoReference, profiles: said }).program).toBeUndefined()
    const machines = demoReference.machines.map((each) => ({ ...each, version: 3 }))
    expect(stale(whole().all, { ...demoReference, machines }).program).toMatch(/version 1 of Mill 1/)
  })
})

describe('striking out', () => {
  it('takes an entry out of account and leaves it in the log; striking the strike brings it back', () => {
    const { all } = whole()
    const moved = happened('vise-moved')
    const slip = strike(moved.id)
    expect(Object.keys(stale([...all, moved]))).toHaveLength(7)
    const setup = derive([...all, moved, slip])
    expect(stale([...all, moved, slip])).toEqual({})
    expect(setup.log.find((line) => line.entry.id === moved.id)).toMatchObject({
      standing: 'struck',
      strike: slip,
    })
    expect(Object.keys(stale([...all, moved, slip, strike(slip.id)]))).toHaveLength(7)
  })

  it('brings the earlier reading back when the later one is struck', () => {
    const first = pickup(edge('X', -14))
    const second = pickup(edge('X', -15))
    expect(derive([first, second, strike(second.id)]).offsets[0]?.axes.X?.value).toBeCloseTo(-13.9, 10)
  })

  it('holds up against rings of strikes and targets that are not there', () => {
    const ring = strike('x')
    const other = strike(ring.id)
    const entries = [{ ...ring, target: other.id }, other, strike(other.setup)] as Entry[]
    expect(() => effectiveStrikes(entries)).not.toThrow()
    expect(derive(entries).opened.title).toBe('Test block')
  })
})

describe('deriving', () => {
  it('gives the same setup whatever order the entries arrive in', () => {
    const { all, x } = whole()
    const entries = [opened, ...all, happened('vise-moved'), strike(x.id), pickup(edge('X', -14.2))]
    const expected = JSON.stringify(deriveSetup(entries, demoReference))
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length }), (shuffled) => {
        expect(JSON.stringify(deriveSetup(shuffled, demoReference))).toBe(expected)
      }),
    )
  })

  it('adding an entry never removes or changes a line of the log, only its standing', () => {
    const { all } = whole()
    const before = derive(all).log.map(({ entry }) => entry)
    expect(
      derive([...all, happened('vise-moved')])
        .log.map(({ entry }) => entry)
        .slice(0, -1),
    ).toEqual(before)
  })

  it('says what is missing instead of failing', () => {
    const missing = (entries: Entry[], reference: Reference) => {
      const setup = deriveSetup(entries, reference)
      return isUnreadable(setup) ? setup.unreadable : ''
    }
    expect(missing([], demoReference)).toMatch(/opened this setup/)
    expect(missing([opened], { ...demoReference, machines: [] })).toMatch(/machine "mill-1"/)
    expect(missing([opened], { ...demoReference, profiles: [] })).toMatch(/profile "compact"/)
  })

  it('judges two tablets that add the same axis: the later one stands, and the difference is named', () => {
    const { all } = whole()
    const fact = derive([...all, pickup(edge('X', -14.05))]).offsets[0]?.axes.X
    expect(fact?.findings.map(({ code }) => code)).toEqual(['far-from-last'])
    expect(fact?.verdict).toBe('look')
  })

  it('judges a recorded pickup as it was judged when it was typed', () => {
    const typed = edge('X', -14.05)
    const setup = derive(whole().all)
    const live = expectationOf(setup, 'G54', 'X')
    expect(live.last).toMatchObject({ value: -13.9, fresh: true })
    expect(
      derive([...setup.log.slice(1).map(({ entry }) => entry), pickup(typed)]).offsets[0]?.axes.X?.findings[0]
        ?.says,
    ).toMatch(/0\.0500 in from the last value/)
  })

  it('a machine edited since is noted on the pickup', () => {
    const machines = demoReference.machines.map((each) => ({ ...each, version: 2 }))
    const fact = derive(whole().all, { ...demoReference, machines }).offsets[0]?.axes.X
    expect(fact?.findings.map(({ code }) => code)).toEqual(['machine-edited'])
  })
})

describe('what is written', () => {
  it('a look waits for X and Y, and not for Z', () => {
    const hindrance = (entries: Entry[]) => checkHindrance(derive(entries).offsets[0] as OffsetState)
    const { x, y, z } = whole()
    expect(hindrance([z])).toBe('X and Y of G54 must be taken first.')
    expect(hindrance([x, y])).toBeUndefined()
    expect(hindrance([x, y, happened('vise-moved'), pickup(edge('X', -14))])).toBe(
      'Y of G54 must be taken again first.',
    )
  })

  it('writes nothing stale and nothing that was stopped', () => {
    const written = (entries: Entry[]) => {
      const setup = derive(entries)
      const [offset] = setup.offsets
      const result = offset ? programFor(setup, offset) : undefined
      return result?.ok ? [] : result?.findings.map(({ code }) => code)
    }
    const { all, x } = whole()
    expect(written(all)).toEqual([])
    expect(written([...all, happened('tool-measured-again', 7)])).toEqual(['axis-stale'])
    expect(written([x, pickup(edge('Y', 6))])).toContain('axis-stopped')
    expect(written([pickup(edge('X', -14), 'G154 P100')])).toContain('offset-not-on-control')
    const { x: x2, y, z } = whole()
    const off = checked([x2.id, y.id], 'off')
    expect(written([x2, y, z, off])).toEqual(['stood-off'])
    expect(written([x2, y, z, off, strike(off.id)])).toEqual([])
    expect(written([x2, y, z, off, pickup(edge('X', -13.99))])).toEqual([])
  })

  it('says the same for the same facts, so that what was taken can be compared with what stands', () => {
    const { all, c, x, y, z } = whole()
    const text = (entries: Entry[]) => {
      const setup = derive(entries)
      const [offset] = setup.offsets
      const result = offset && programFor(setup, offset)
      return result?.ok ? result.text : ''
    }
    expect(text(all)).toBe(text([x, y, z, c]))
    expect(restsOf(derive(all).offsets[0] as never, 'checked')).toEqual([x.id, y.id])
  })
})

describe('the schema of an entry', () => {
  it('refuses what a form would refuse', () => {
    const says = (of: object) => entryIssues(of).map((issue) => issue.says)
    const { x, c } = whole()
    expect(says(x)).toEqual([])
    expect(says({ ...x, offset: 'G54; DROP' })[0]).toMatch(/G54 or G154 P3/)
    expect(says({ ...x, by: '' })[0]).toMatch(/initials/)
    expect(says({ ...c, result: 'off', note: '' })[0]).toMatch(/how far off/)
    expect(says({ ...happened('tool-measured-again') })[0]).toMatch(/which tool/)
    expect(says({ ...strike(x.id), reason: ' ' })[0]).toMatch(/why/)
  })
})

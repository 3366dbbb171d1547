import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Reading } from '../pickup/index.ts'
import { checkHindrance, programFor, restsOf, rotationFor } from '../prepare/index.ts'
import {
  againstTable,
  deriveSetup,
  deriveTools,
  type Entry,
  HAPPENINGS,
  type HappeningKind,
  isUnreadable,
  type OffsetState,
  offsetOf,
  offsetTable,
  repeatHistory,
  stepsOf,
  whatIf,
} from './index.ts'
import {
  add,
  derive as deriveWith,
  edge,
  happened,
  inch,
  length,
  opened,
  pickup,
  strike,
  swept,
  touch,
} from './testing.ts'

const derive = (entries: Entry[]) => deriveWith(entries, demoReference)
const at = (x: number, y: number) => ({ x: inch(x), y: inch(y) })
const angled = (rise: number) =>
  add('angled', {
    offset: 'G54',
    reading: { method: 'edge', device: 'probe', points: [at(-14, -6), at(-10, -6 + rise)], nominal: 0 },
    reach: inch(4),
    allowed: inch(0.002),
    needsSquare: false,
    machine: { id: 'mill-1', version: 1 },
  })
const identified = (measured: number) =>
  add('identified', {
    distances: [
      { name: 'A-B', measured: inch(measured), drawing: inch(2), within: inch(0.005), turned: inch(3) },
    ],
  })
const corner = (axis: 'X' | 'Y'): Reading => ({
  method: 'corner',
  axis,
  device: 'probe',
  diameter: inch(0.2),
  directionX: '+',
  pointsX: [at(-14, -5)],
  directionY: '+',
  pointsY: [at(-13, -6), at(-10, -5.9)],
  cornerAngle: 90,
  drawingX: inch(0),
  drawingY: inch(0),
})
const copied = (source: Entry, offset: string, shift: number) =>
  pickup(
    {
      method: 'from-offset',
      axis: 'X',
      source: 'G54',
      base: inch(-13.9),
      baseDoubt: inch(0.001),
      shift: inch(shift),
      shiftWithin: inch(0.0005),
    },
    offset,
    [source.id],
  )
const look = { about: { x: 0, y: 0 }, look: { x: 4, y: 2 }, byVariable: false }

describe('what makes angle, part and tool length stale (common practice)', () => {
  const REACHED: Partial<Record<HappeningKind, string[]>> = {
    'vise-moved': ['angle'],
    'bolt-tightened': ['angle'],
    'part-reclamped': ['angle', 'part'],
    'tool-measured-again': ['length'],
    'set-up-again': ['angle', 'part'],
  }
  it.each(Object.keys(HAPPENINGS) as HappeningKind[])('%s', (what) => {
    const measured = length(7, -9.5)
    const { offsets, part, log } = derive([angled(0.01), identified(2), measured, happened(what, 7)])
    const stale = [
      offsets[0]?.angle?.freshness.state === 'stale' ? 'angle' : '',
      part?.freshness.state === 'stale' ? 'part' : '',
      log.find(({ entry }) => entry.id === measured.id)?.standing === 'stale' ? 'length' : '',
    ]
    expect(stale.filter(Boolean)).toEqual(REACHED[what] ?? [])
  })

  it('a vise let loose to be squared takes the angle with it', () => {
    expect(derive([angled(0.01), swept('one')]).offsets[0]?.angle?.freshness.state).toBe('stale')
  })

  it('a part that is found to lie otherwise takes X and Y of its offset with it, and nothing else', () => {
    const [x, y, z, other] = [
      pickup(edge('X', -14)),
      pickup(edge('Y', -6)),
      pickup(touch(7)),
      pickup(edge('X', -4), 'G55'),
    ]
    const fresh = (...more: Entry[]) => {
      const { offsets } = derive(more)
      return offsets.map(({ axes }) =>
        Object.values(axes)
          .map(({ freshness }) => freshness.state)
          .join(' '),
      )
    }
    // Tapped square, and measured again: 0.02 in over 4 in was .286 deg, and is nothing now.
    const tapped = (rise: number) => fresh(angled(0.02), x, y, z, other, angled(rise))
    expect(tapped(0)).toEqual(['stale stale fresh', 'fresh'])
    expect(tapped(0.0201)).toEqual(['fresh fresh fresh', 'fresh'])
    const again = derive([angled(0.02), x, angled(0)]).offsets[0]?.axes.X?.freshness
    expect(again).toMatchObject({ cause: { says: 'taken before the part was found to lie otherwise' } })
    // What was taken since the part was moved is not taken back by the angle that is measured after it.
    const [since, sinceY] = [() => pickup(edge('X', -14)), () => pickup(edge('Y', -6))]
    expect(fresh(angled(0.02), happened('part-reclamped'), since(), sinceY(), angled(0))).toEqual([
      'fresh fresh',
    ])
  })

  it('a tool that is found to have another length takes the Z that was found with the old one', () => {
    const z = pickup(touch(7)) // with 4.5
    const state = (position: number, tool = 7) =>
      derive([z, length(tool, position)]).offsets[0]?.axes.Z?.freshness
    expect(state(-9.5)).toEqual({ state: 'fresh' }) // 4 + (-9.5 - -10) = 4.5
    expect(state(-9.5005)).toEqual({ state: 'fresh' })
    expect(state(-9.4)).toMatchObject({
      state: 'stale',
      cause: { says: 'taken before its tool was found to have another length' },
    })
    expect(state(-9.4, 8)).toEqual({ state: 'fresh' })
  })

  it('a copy of an offset goes stale with what it was copied from, and its doubt holds both (JCGM 100:2008, 5.1.2)', () => {
    const x = pickup(edge('X', -14))
    const copy = copied(x, 'G55', 6)
    const of = (entries: Entry[]) => offsetOf(derive(entries), 'G55').axes.X
    expect(of([x, copy])).toMatchObject({ value: -7.9, freshness: { state: 'fresh' } })
    expect(of([x, copy])?.doubt.value).toBeCloseTo(Math.hypot(0.001, 0.0005), 12)
    expect(of([x, copy, pickup(edge('X', -14.1))])?.freshness).toMatchObject({
      cause: { says: 'taken before X was taken again' },
    })
    expect(of([x, copy, strike(x.id)])?.freshness).toMatchObject({ state: 'stale' })
    expect(of([x, copy, happened('part-reclamped')])?.freshness.state).toBe('stale')
  })
})

describe('turning a setup', () => {
  const zeros = () => [pickup(corner('X')), pickup(corner('Y')), pickup(touch(7))]
  it('writes what was measured', () => {
    const setup = derive([...zeros(), angled(0.1)])
    const written = rotationFor(setup, offsetOf(setup, 'G54'), look)
    expect(written.ok && written.on).toBe('G68 X0. Y0. R1.432')
    expect(rotationFor(setup, offsetOf(setup, 'G54'), { ...look, byVariable: true })).toMatchObject({
      on: 'G68 X0. Y0. R#189',
    })
  })

  it('is refused without an angle, with a stale one, with a zero from before, and for the wrong part', () => {
    const against = (entries: Entry[]) => {
      const setup = derive(entries)
      return rotationFor(setup, offsetOf(setup, 'G54'), look).findings.map(({ code }) => code)
    }
    expect(against(zeros())).toEqual(['no-angle'])
    expect(against([...zeros(), angled(0.1), happened('vise-moved')])).toEqual([
      'angle-stale',
      'zero-before-move',
    ])
    expect(against([...zeros(), happened('vise-moved'), angled(0.1)])).toEqual(['zero-before-move'])
    expect(against([...zeros(), angled(0.1), identified(3)])).toEqual(['turned-round'])
    expect(against([pickup(edge('X', -14)), pickup(edge('Y', -6)), angled(0.1)])).toEqual([
      'zero-on-turned-face',
    ])
  })

  it('says what goes stale before it does', () => {
    const log = [...zeros(), angled(0.1), identified(2)]
    expect(whatIf([opened, ...log], happened('part-reclamped'), demoReference)).toEqual([
      'The look at the part goes stale.',
      'G54 X goes stale.',
      'G54 Y goes stale.',
      'G54 Z goes stale.',
      'The angle of G54 goes stale.',
    ])
  })

  it('a wrong part stops the loading of the offset too, and a look at it is part of what a check rests on', () => {
    const setup = derive([...zeros(), identified(2.5)])
    expect(programFor(setup, offsetOf(setup, 'G54'))).toMatchObject({
      ok: false,
      findings: [{ code: 'wrong-part' }],
    })
    const right = derive([...zeros(), identified(2)])
    expect(restsOf(offsetOf(right, 'G54'), 'checked', right.part)).toContain(right.part?.entry.id)
  })
})

describe('the tables of the machine', () => {
  it('tools keep their length from one setup to the next, the last measurement stands', () => {
    const [first, before] = [length(3, -8), length(7, -9.5)]
    const other = { ...length(7, -9.4), setup: 'another' } as Entry
    const [machine] = demoReference.machines
    if (!machine) throw new Error('no machine')
    const tools = deriveTools([other, before, first, happened('tool-measured-again', 3)], machine, 'mm')
    expect(tools.map(({ tool }) => tool)).toEqual([3, 7])
    expect(tools[1]?.length.value).toBeCloseTo(4.6 * 25.4, 9)
    expect(tools[1]?.findings.map(({ code }) => code)).toEqual(['length-changed'])
    expect(tools[0]?.freshness.state).toBe('stale')
  })

  it('a length that is typed for Z is held against the table', () => {
    const [machine] = demoReference.machines
    if (!machine) throw new Error('no machine')
    const codes = (entries: Entry[], reading: Reading) =>
      againstTable(reading, deriveTools(entries, machine, 'inch'), 'inch').map(
        ({ severity, code }) => `${severity} ${code}`,
      )
    expect(codes([length(7, -9.5)], touch(7))).toEqual([])
    expect(codes([length(7, -9.4)], touch(7))).toEqual(['look length-not-in-table'])
    expect(codes([length(8, -9.4)], touch(7))).toEqual([])
    expect(codes([length(7, -9.4), happened('tool-measured-again', 7)], touch(7))).toEqual([
      'note table-stale',
    ])
    expect(codes([length(7, -9.4)], edge('X', -9))).toEqual([])
  })

  it('offsets are those of the control: the standard ones, and what other setups left in them', () => {
    const otherLog = [
      { ...opened, id: '01ARZ3NDEKTSV4RRFFQ69G5FAV', setup: '01ARZ3NDEKTSV4RRFFQ69G5FAV', title: 'Other' },
      { ...pickup(edge('Y', -6), 'G56'), setup: '01ARZ3NDEKTSV4RRFFQ69G5FAV' },
      { ...pickup(edge('X', -3)), setup: '01ARZ3NDEKTSV4RRFFQ69G5FAV' },
    ]
    const own = [pickup(edge('X', -14)), pickup(edge('X', -12), 'G154 P2')]
    const table = offsetTable(derive(own), [...otherLog, opened, ...own] as Entry[], demoReference)
    expect(table.map(({ name }) => name)).toEqual(['G54', 'G55', 'G56', 'G57', 'G58', 'G59', 'G154 P2'])
    expect(table[0]?.axes.X).toMatchObject({ value: -13.9 })
    expect(table[0]?.axes.X?.other).toBeUndefined()
    expect(table[2]?.axes.Y?.other?.title).toBe('Other')
  })

  it('a repeat is held against the last times, by the limits of an individuals chart', () => {
    const runs = [-13.9, -13.901, -13.8995, -13.9005, -13.9].flatMap((x, index) => {
      const id = `01ARZ3NDEKTSV4RRFFQ69G5FA${index}`
      const day = `2026-11-0${index + 1}T08:00:00.000Z`
      return [
        { ...opened, id, setup: id, at: day },
        { ...pickup(edge('X', x - 0.1)), setup: id, at: day.replace('08', '09') },
      ] as Entry[]
    })
    const now = (x: number) => {
      const own = [pickup(edge('X', x - 0.1))]
      return repeatHistory(derive(own), 'G54', [...runs, opened, ...own], demoReference)[0]
    }
    expect(now(-13.9003)).toMatchObject({ findings: [], earlier: { length: 5 } })
    expect(now(-13.95)?.findings.map(({ code }) => code)).toEqual(['unusual-zero'])
    expect(repeatHistory(derive([]), 'G54', runs, demoReference)).toEqual([])
  })
})

describe('a lathe (common practice: X geometry = machine X - measured diameter, Z = machine Z - the Z of the face)', () => {
  const lathe = { ...opened, machine: { id: 'lathe-1', version: 1 } } as Entry
  const take = (reading: Reading) => pickup(reading, 'T1')
  const skim = (measured: number) =>
    take({ method: 'skimmed', axis: 'X', machinePosition: inch(-10.5), measured: inch(measured) })
  const face = () =>
    take({ method: 'faced', axis: 'Z', machinePosition: inch(-8), drawingPosition: inch(0.02) })
  const of = (entries: Entry[]): { offset: OffsetState; steps: readonly string[] } => {
    const setup = deriveSetup([lathe, ...entries], demoReference)
    if (isUnreadable(setup)) throw new Error(setup.unreadable)
    return { offset: offsetOf(setup, 'T1'), steps: stepsOf(setup.machine) }
  }
  it('takes the geometry of a tool by face and diameter', () => {
    expect(of([]).steps).toEqual(['ready', 'hold', 'zero', 'code', 'prove', 'run', 'hand-over'])
    const { offset } = of([skim(1.25), face()])
    expect(offset.axes.X?.value).toBeCloseTo(-11.75, 10)
    expect(offset.axes.Z?.value).toBeCloseTo(-8.02, 10)
    expect(offset.findings).toEqual([])
    expect(checkHindrance(of([skim(1.25)]).offset)).toMatch(/Z of T1 must be taken first/)
    expect(restsOf(offset, 'checked')).toHaveLength(2)
  })
  it('another collet takes Z, not X', () => {
    const { axes } = of([skim(1.25), face(), happened('collet-changed')]).offset
    expect([axes.X?.freshness.state, axes.Z?.freshness.state]).toEqual(['fresh', 'stale'])
  })
})

describe('an angle that is measured after a program was made', () => {
  const frame = 'G54'
  const made = { profile: { id: 'compact', version: 1 }, machine: { id: 'mill-1', version: 1 } }
  const proved = (rests: string[], of = frame) =>
    add('proved', {
      title: `O5000 in ${of}`,
      frame: of,
      hash: 'a'.repeat(64),
      characters: 2,
      text: 'G0',
      verdict: 'good',
      counts: { stop: 0, look: 0, note: 0 },
      worst: [],
      seconds: 1,
      rests,
      lengths: [],
      tools: [],
      ...made,
    })
  const coded = (turned: boolean, rests: string[] = []) =>
    add('coded', {
      offset: frame,
      sheet: { title: 'Holes', number: 5412, material: 'aluminium', turned, partsAShift: null, items: [] },
      rests,
      ...made,
      material: { id: 'aluminium', version: 1 },
      tools: [],
    })
  const says = (...log: Entry[]) => {
    const { code, prove } = derive(log)
    return [...code.coded, ...prove.proofs].map(({ freshness }) =>
      freshness.state === 'stale' ? freshness.cause.says : 'fresh',
    )
  }
  it('leaves the proof of what ignores it stale, where that costs more than is allowed', () => {
    // 4 in * .01/4 = .010 at the farthest cut; .002 is allowed.
    expect(says(proved([]), angled(0.01))).toEqual(['proved before the angle was measured'])
    expect(says(proved([]), angled(0.001))).toEqual(['fresh'])
    expect(says(proved([], 'G55'), angled(0.01))).toEqual(['fresh'])
    expect(says(angled(0.01), proved([]))).toEqual(['fresh'])
  })

  it('leaves what Code turns stale, however small it is: the text is another', () => {
    expect(says(coded(true), angled(0.0001))).toEqual(['built before the angle was measured'])
    expect(says(coded(false), angled(0.01))).toEqual(['fresh'])
    const before = angled(0.01)
    expect(says(before, coded(true, [before.id]), angled(0.02))).toEqual([
      'built before the angle was taken again',
    ])
  })
})

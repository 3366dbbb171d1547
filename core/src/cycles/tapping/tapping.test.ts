import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../../testing/depth.ts'
import { evenly } from '../../../testing/evenly.ts'
import { type SheetCase, writeSheet } from '../../code/index.ts'
import { caseOf, compact, plain, sheetOf, twoLine } from '../../code/testing.ts'
import type { Profile } from '../../control/index.ts'
import type { ToolShape } from '../../machine/index.ts'
import { read } from '../../program/index.ts'
import { DRILL_SIZES, drillName, nearestDrill } from '../drilling/index.ts'
import type { TapDraft } from './params.ts'
import {
  bestMultiple,
  fitAcceleration,
  holeSeconds,
  kneeOf,
  mostMultiple,
  savingOf,
  type TapStroke,
} from './retract.ts'
import { tapSizes } from './sizes.ts'
import {
  findThread,
  formHole,
  percentFormed,
  percentOfThread,
  THREADS,
  type Thread,
  tapDrill,
  threadIn,
} from './threads.ts'
import { tapWorking } from './working.ts'

const thread = (id: string): Thread => {
  const found = findThread(id)
  if (!found) throw new Error(`no thread ${id}`)
  return found
}

describe('the thread library', () => {
  // Minor diameters of internal threads, least and most: ASME B1.1 class 2B (inch), ISO 965-1 6H (mm). From memory.
  it.each<[string, number, number]>([
    ['4-40 UNC', 0.0849, 0.0939],
    ['6-32 UNC', 0.104, 0.114],
    ['8-32 UNC', 0.13, 0.139],
    ['10-24 UNC', 0.145, 0.156],
    ['10-32 UNF', 0.156, 0.164],
    ['1/4-20 UNC', 0.196, 0.207],
    ['1/4-28 UNF', 0.211, 0.22],
    ['5/16-18 UNC', 0.252, 0.265],
    ['3/8-16 UNC', 0.307, 0.321],
    // biome-ignore lint/suspicious/noApproximativeNumericConstant: a minor diameter, no logarithm.
    ['1/2-13 UNC', 0.417, 0.434],
    ['3/4-10 UNC', 0.642, 0.663],
    ['1-8 UNC', 0.865, 0.89],
    ['M3x0.5', 2.459, 2.599],
    ['M4x0.7', 3.242, 3.422],
    ['M5x0.8', 4.134, 4.334],
    ['M6x1', 4.917, 5.153],
    ['M8x1.25', 6.647, 6.912],
    ['M8x1', 6.917, 7.153],
    ['M10x1.5', 8.376, 8.676],
    ['M10x1.25', 8.647, 8.912],
    ['M12x1.75', 10.106, 10.441],
    ['M16x2', 13.835, 14.21],
    ['M20x2.5', 17.294, 17.744],
    ['M24x3', 20.752, 21.252],
  ])('%s: its tap drill leaves a minor diameter within the standard', (id, least, most) => {
    expect(thread(id).drill).toBeGreaterThanOrEqual(least)
    expect(thread(id).drill).toBeLessThanOrEqual(most)
  })

  // Handbook tables name these drills with these percentages; from memory.
  it.each<[string, number, number]>([
    ['1/4-20 UNC', 0.201, 75],
    ['10-32 UNF', 0.159, 76],
    ['3/8-16 UNC', 0.3125, 77],
    ['6-32 UNC', 0.1065, 78],
    ['1/2-13 UNC', 27 / 64, 78],
    ['M6x1', 5, 77],
    ['M8x1.25', 6.8, 74],
    ['M10x1.5', 8.5, 77],
  ])('%s: %d leaves %d %% of the thread', (id, drill, percent) => {
    const { major, pitch } = thread(id)
    expect(thread(id).drill).toBe(drill)
    expect(Math.round(percentOfThread(major, pitch, drill))).toBe(percent)
  })

  it('holds only what a tap can cut, and the same in the other unit', () => {
    for (const each of THREADS.filter(({ series }) => series !== 'pipe')) {
      const percent = percentOfThread(each.major, each.pitch, each.drill)
      expect(percent, each.id).toBeGreaterThan(50)
      // The smallest sizes are drilled tighter by the next drill there is.
      expect(percent, each.id).toBeLessThan(86)
      const other = threadIn(each, each.unit === 'inch' ? 'mm' : 'inch')
      expect(percentOfThread(other.major, other.pitch, other.drill)).toBeCloseTo(percent, 6)
    }
    expect(new Set(THREADS.map(({ id }) => id)).size).toBe(THREADS.length)
  })

  it('takes larger holes for form taps: No. 1 for 1/4-20, No. 16 for 10-32, S for 3/8-16 (makers’ tables, from memory)', () => {
    const named = ['1/4-20 UNC', '10-32 UNF', '3/8-16 UNC'].map((id) => {
      const { major, pitch } = thread(id)
      return nearestDrill(formHole(major, pitch, 65), 'inch').name
    })
    expect(named).toEqual(['No. 1', 'No. 16', 'S'])
    expect(tapDrill(thread('1/4-20 UNC'), 'form')).toBe(0.228)
    expect(formHole(6, 1, 65)).toBeCloseTo(5.558, 9)
  })

  it('has a drill for every form tap of some size within 50 to 75 percent, of the sets together', () => {
    // What was 83, 83, 46 and 82 percent from inch sets alone: 15.25 mm and the like come nearer. Limits: common practice.
    for (const each of THREADS.filter(
      ({ series, major, unit }) => series !== 'pipe' && major > (unit === 'inch' ? 0.08 : 2),
    )) {
      const percent = percentFormed(each.major, each.pitch, tapDrill(each, 'form'))
      expect(percent, each.id).toBeGreaterThan(50)
      expect(percent, each.id).toBeLessThan(75)
    }
    const nearest = (id: string) =>
      Math.round(percentFormed(thread(id).major, thread(id).pitch, tapDrill(thread(id), 'form')))
    expect(['9/16-18 UNF', '5/8-18 UNF', '1/2-20 UNF', '3-56 UNF'].map(nearest)).toEqual([61, 65, 69, 70])
  })

  it('drills taper pipe for tapping without a reamer: between the thread’s cores at its small end and at hand-tight', () => {
    // ASME B1.20.1: E0 = D - (0.05 D + 1.1) P, height 0.8 P, taper 1 in 16; L1 by its table, from memory.
    const handTight: Record<string, number> = {
      '1/16-27 NPT': 0.16,
      '1/8-27 NPT': 0.1615,
      '1/4-18 NPT': 0.2278,
      '3/8-18 NPT': 0.24,
      '1/2-14 NPT': 0.32,
      '3/4-14 NPT': 0.339,
      '1-11.5 NPT': 0.4,
    }
    for (const { id, major, pitch, drill } of THREADS.filter(({ taper }) => taper)) {
      const core = major - (0.05 * major + 1.1) * pitch - 0.8 * pitch
      expect(drill, id).toBeGreaterThan(core)
      expect(drill, id).toBeLessThan(core + (handTight[id] as number) / 16)
    }
    // Common practice, as trade.md has it.
    expect(THREADS.filter(({ taper }) => taper).map(({ drill }) => drillName(drill, 'inch'))).toEqual([
      'D',
      'R',
      '7/16',
      '37/64',
      '23/32',
      '59/64',
      '1-5/32',
    ])
  })

  it('names a drill by the nearest of the sets: 0.0785 is No. 47, 3/64 is 3/64', () => {
    // 5/64 is 0.078125 and No. 56 is 0.0465: both within 0.0004 of them.
    expect(drillName(0.0785, 'inch')).toBe('No. 47')
    expect(drillName(0.046875, 'inch')).toBe('3/64')
    expect(drillName(5 / 64, 'inch')).toBe('5/64')
    expect(drillName(0.25, 'inch')).toBe('1/4')
    expect(drillName(6.35, 'mm')).toBe('1/4')
    expect(drillName(0.2001, 'inch')).toBeUndefined()
    for (const { name, diameter, unit } of DRILL_SIZES.filter((each) => each.name !== 'E'))
      expect(drillName(diameter, unit)).toBe(name)
  })
})

const stroke = (strokes: number[], speed: number, acceleration: number): TapStroke => ({
  strokes,
  speed,
  acceleration,
})

describe('coming out faster', () => {
  it('takes the time worked by hand: 18 turns at 10 a second, 70 turns a second squared', () => {
    const of = stroke([18], 10, 70)
    // In: 18/10 + 10/70 = 1.942857 s. Out at 4 the spindle never gets to 40 turns a second (40^2/70 = 22.9 > 18):
    // 2 sqrt(18/70) = 1.014185 s. Out at 2: 18/20 + 20/70 = 1.185714 s.
    expect(holeSeconds(of, 1)).toBeCloseTo(2 * 1.942857, 5)
    expect(holeSeconds(of, 4)).toBeCloseTo(1.942857 + 1.014185, 5)
    expect(holeSeconds(of, 2)).toBeCloseTo(1.942857 + 1.185714, 5)
    expect(kneeOf(of)).toBeCloseTo(3.5496, 3)
  })

  it('13 seconds a part are more than three hours from 831 parts on (trade.md 7)', () => {
    const of = stroke([18], 10, 70)
    const each = holeSeconds(of, 1) - holeSeconds(of, 4)
    const saved = savingOf(of, 1, 4, { holes: 13 / each, partsAShift: 831, shiftsAMonth: 1, anHour: 60 })
    expect(saved.perPart).toBeCloseTo(13, 9)
    expect(saved.perShift).toBeGreaterThan(3 * 3600)
    expect(
      savingOf(of, 1, 4, { holes: 13 / each, partsAShift: 830, shiftsAMonth: 1, anHour: null }).perShift,
    ).toBeLessThan(3 * 3600)
    expect(saved.moneyAMonth).toBeCloseTo((831 * 13 * 60) / 3600, 6)
  })

  const turns = evenly(2, 80)
  const speeds = evenly(1, 40)
  const accelerations = evenly(5, 200)

  it('never saves anything beyond the knee, and always something before it', () => {
    fc.assert(
      fc.property(turns, speeds, accelerations, (n, s, a) => {
        const of = stroke([n], s, a)
        const knee = kneeOf(of)
        expect(holeSeconds(of, knee * 1.5)).toBeCloseTo(holeSeconds(of, knee), 9)
        if (knee > 1.05) expect(holeSeconds(of, 0.5 + knee / 2)).toBeGreaterThan(holeSeconds(of, knee))
      }),
    )
  })

  it('recommends what control and machine allow, and no more than pays', () => {
    fc.assert(
      fc.property(
        turns,
        speeds,
        accelerations,
        fc.boolean(),
        evenly(20, 60),
        (n, s, a, decimal, topSpeed) => {
          const of = stroke([n], s, a)
          const limits = { most: 9, decimal, topSpeed }
          const best = bestMultiple(of, limits)
          expect(best).toBeLessThanOrEqual(mostMultiple(of, limits))
          expect(best * s).toBeLessThanOrEqual(Math.max(topSpeed, s) + 1e-9)
          if (!decimal) expect(Number.isInteger(best)).toBe(true)
          expect(best).toBeLessThan(kneeOf(of) + 1)
        },
      ),
    )
  })

  it('gives the acceleration back from two timed holes, whatever both have in common', () => {
    let fitted = 0
    fc.assert(
      fc.property(turns, speeds, accelerations, evenly(1.5, 6), evenly(0, 3), (n, s, a, multiple, hand) => {
        const of = stroke([n], s, a)
        const fit = fitAcceleration({
          turns: n,
          speed: s,
          slow: holeSeconds(of, 1) + hand,
          fast: holeSeconds(of, multiple) + hand,
          multiple,
          timingDoubt: 0.1,
        })
        if (n < (1.02 * s * s) / a) return
        if (!fit.ok) throw new Error(fit.says)
        fitted++
        expect(fit.value / a).toBeCloseTo(1, 4)
        expect(fit.doubt).toBeGreaterThan(0)
      }),
    )
    expect(fitted).toBeGreaterThan(times(20, 200))
  })

  it('says why two timed holes say nothing', () => {
    const timed = { turns: 10, speed: 10, multiple: 4, timingDoubt: 0.1 }
    const says = (more: object) => {
      const fit = fitAcceleration({ ...timed, slow: 3, fast: 2, ...more })
      return fit.ok ? '' : fit.says
    }
    expect(says({ slow: 2, fast: 2.5 })).toContain('not faster')
    expect(says({ multiple: 1 })).toContain('faster than the first')
    expect(says({ slow: 9, fast: 2 })).toContain('not the same')
  })
})

const tool = (number: number, more: Partial<ToolShape>): ToolShape => ({
  shape: 2,
  id: `t${number}`,
  version: 1,
  machineId: 'm',
  number,
  name: `tool ${number}`,
  kind: 'drill',
  unit: 'inch',
  diameter: 0.201,
  flute: 2,
  stickOut: 3,
  holderDiameter: 1.5,
  holderLength: 2,
  pitch: null,
  note: '',
  ...more,
})

const tools = [
  tool(1, { kind: 'mill', diameter: 0.5 }),
  tool(2, {}),
  tool(3, { kind: 'tap', diameter: 0.25, pitch: 0.05 }),
]
const write = (tap: Partial<TapDraft>, more: Partial<SheetCase> = {}, profile = compact) =>
  writeSheet(sheetOf({ tap: { list: '0 0\n1 0', ...tap } }), caseOf('mill', profile, { tools, ...more }))
const codesOf = (...of: Parameters<typeof write>) => {
  const { items, findings } = write(...of)
  return [...findings, ...items.flatMap((item) => item.findings)].map(
    ({ severity, code }) => `${severity} ${code}`,
  )
}

describe('a set of tapped holes', () => {
  it('has depths that fit each other: thread, lead, room for chips, the drill’s point', () => {
    const text = write({ threadDepth: '.5', tapTurns: '600' }).code?.text ?? ''
    // 0.5 and 4 threads of lead at 0.05 is 0.7; two pitches of room 0.8; a 118 degree point of 0.201 is 0.0604 longer.
    expect(text).toMatch(/G98 G84 X0\. Y0\. Z-0\.7 R0\.1 F30\. J/)
    expect(text).toMatch(/G98 G83 X0\. Y0\. Z-0\.8604 R0\.1 Q0\.201/)
    // A chamfer 6 % wider than the thread, 90 degrees: as deep as half its width.
    expect(text).toMatch(/G98 G81 X0\. Y0\. Z-0\.1325/)
  })

  it('shows its arithmetic with the numbers put in', () => {
    const [item] = sheetOf({ tap: { list: '0 0', tapTurns: '600' } }).items
    if (item?.cycle !== 'tap') throw new Error('no tap')
    const on = caseOf('mill', compact, { tools })
    const sizes = tapSizes(item.params, on, on.materials[0] as SheetCase['materials'][number])
    const lines = tapWorking(item.params, sizes, 'inch').map(
      ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
    )
    expect(lines).toContain('feed of the tap: 600 x 0.05000 = 30.0000')
    expect(lines).toContain('percent of thread: 100 x (0.2500 - 0.2010) / (1.29904 x 0.05000) = 75 %')
    expect(lines).toContain('tip of the tap: 0.5000 + 4 x 0.05000 = 0.7000')
    expect(lines).toContain('room under the tap: 0.8000 - 0.7000 = 0.1000')
  })

  it('feeds exactly, in both modes: 1/4-20 at 600 rpm is 30 in a minute, 0.05 a turn (trade.md 7)', () => {
    expect(write({ tapTurns: '600' }).code?.text).toContain('F30.')
    const turn = write({ tapTurns: '600', feedMode: 'turn' }).code?.text
    expect(turn).toMatch(/G95[^\n]*\n[^\n]*G84[^\n]* F0\.05 /)
    expect(turn).toMatch(/G80[^\n]*\nG94/)
    // 13 threads an inch: a speed that divides evenly, so that no digit is lost.
    const even = write({ thread: '1/2-13 UNC' }, { tools: [] }).code
    const speed = Number(/S(\d+) M3[^\n]*\n[^\n]*\n[^\n]*G84/.exec(even?.text ?? '')?.[1])
    expect(speed % 13).toBe(0)
  })

  it('is announced where the control wants that, turns left for a left hand, and pecks as the control can', () => {
    const announced = write({}, {}, twoLine).code?.text
    expect(announced).toMatch(/M29 S\d+/)
    expect(announced).not.toContain(' J')
    expect(write({ hand: 'left' }).code?.text).toMatch(/S\d+ M4[^\n]*\n[^\n]*\n[^\n]*G74/)
    const pecks = { tapPeck: true, tapPeckDepth: '.25', clearance: '1', rPlane: '.1' }
    expect(write(pecks, {}, twoLine).code?.text).toMatch(/G84[^\n]* Q\.25 /)
    expect(write(pecks).code?.text).toMatch(
      /G99 G84 X0\. Y0\. Z-0\.15[^\n]*\nG99 X0\. Y0\. Z-0\.4\nG99[^\n]* Z-0\.65\nG98[^\n]* Z-0\.7\n/,
    )
    expect(write({ drillWay: 'break' }, {}, plain).code?.text).toMatch(/G1 Z-[\d.]+ F/)
  })

  it('tries 2 first on a spindle that nobody has timed, and what is best once somebody has', () => {
    const machine = caseOf('mill', compact).machine
    const untimed = { ...machine, dynamics: machine.dynamics && { ...machine.dynamics, spindleTimed: false } }
    const said = (on: typeof machine) =>
      Number(/G84[^\n]* J([\d.]+)/.exec(write({ threadDepth: '1' }, { machine: on }).code?.text ?? '')?.[1])
    expect(said(machine)).toBeGreaterThan(2)
    expect(said(untimed)).toBe(2)
    expect(said({ ...machine, dynamics: null })).toBe(2)
  })

  it('a left-hand thread on a lathe is tapped by the code of its own, or not at all', () => {
    const turned = (profile: Profile, hand: 'left' | 'right') => {
      const on = caseOf('lathe', profile, { tools })
      const sheet = sheetOf({ tap: { chamfer: false, hand, list: '0 0' } })
      const { code, items, findings } = writeSheet(sheet, on)
      const said = [...findings, ...items.flatMap((item) => item.findings)].map(({ code: of }) => of)
      return { text: code?.text, said }
    }
    // G74 pecks into a face there, and G84 turns the spindle to M3 on one control and leaves it on another: common practice.
    expect(turned(compact, 'left').text).toMatch(/M4[\s\S]*G184 Z/)
    expect(turned(compact, 'left').text).not.toMatch(/G84|G74/)
    for (const profile of [twoLine, plain]) {
      expect(turned(profile, 'left')).toEqual({
        text: undefined,
        said: expect.arrayContaining(['no-left-tap']),
      })
      expect(turned(profile, 'right').text).toContain('G84')
    }
  })

  it('a spindle that turns the other way before the cycle is looked at, on either kind of machine', () => {
    const said = (text: string, options: Parameters<typeof read>[1]) =>
      read(text, options).diagnostics.filter(({ code }) => code === 'tap-hand').length
    const onMill = { profile: compact, machine: caseOf('mill', compact).machine, unit: 'inch' as const }
    const onLathe = { ...onMill, machine: caseOf('lathe', compact).machine }
    for (const [turns, code, options, found] of [
      ['M3', 'G84', onMill, 0],
      ['M4', 'G84', onMill, 1],
      ['M3', 'G74', onMill, 1],
      ['M4', 'G74', onMill, 0],
      ['M4', 'G84', onLathe, 1],
      ['M3', 'G184', onLathe, 1],
      ['M4', 'G184', onLathe, 0],
    ] as const)
      expect(said(`G20 G90\nT1 M6\nS600 ${turns}\nG0 Z.1\n${code} Z-.5 R.1 F30.\nG80\nM30`, options)).toBe(
        found,
      )
  })

  it.each<[string, Partial<TapDraft>]>([
    ['stop tap-pitch', { thread: '1/4-28 UNF', drillDiameter: '.201' }],
    ['stop thread-too-deep', { drillDepth: '.6' }],
    ['stop retract-over-cap', { multiple: 'typed', multipleTyped: '6', tapTurns: '600' }],
    ['stop retract-floating', { holder: 'floating', multiple: 'typed', multipleTyped: '2' }],
    ['stop drill-differs', { drillDiameter: '.19' }],
    ['stop drill-too-large', { drillDiameter: '.26' }],
    ['stop drill-too-small', { drillDiameter: '.18' }],
    ['stop drill-too-small', { tap: 'form', drillDiameter: '.218' }],
    ['look thread-percent', { tap: 'form', drillDiameter: '.224' }],
    ['look thread-percent', { tap: 'form', drillDiameter: '.234' }],
    ['look taper-drill', { thread: '1/4-18 NPT', drillDiameter: '.45' }],
    ['look taper-formed', { thread: '1/4-18 NPT', tap: 'form' }],
    ['stop tap-no-tap', { tapTool: '2' }],
    ['stop tool-short', { threadDepth: '4' }],
    ['stop spindle-fast', { drillTurns: '9000' }],
    ['stop tap-fast', { tapTurns: '3500' }],
    ['stop clearance-low', { clearance: '.05' }],
    ['stop not-through', { hole: 'through', thickness: '.5', drillDepth: '.4' }],
    ['stop nothing-to-do', { chamfer: false, drill: false, tapping: false }],
    ['look no-chip-room', { drillDepth: '.71' }],
    ['look thread-short', { tapDepth: '.6' }],
    ['look thread-percent', { drillDiameter: '.192', drillTool: '9' }],
    ['look r-plane-low', { rPlane: '.05' }],
    ['look double-place', { list: '1 1\n1 1' }],
    ['look tool-unknown', { tapTool: '9' }],
    ['look taper-thread', { thread: '1/8-27 NPT', drillTool: '9', tapTool: '9' }],
    [
      'look feed-rounded',
      { thread: '12-28 UNF', feedMode: 'turn', drillTool: '9', tapTool: '9', threadDepth: '2.5' },
    ],
    ['note long-lead', { lead: 'taper', threadDepth: '.3' }],
  ])('%s', (code, tap) => {
    expect(codesOf(tap)).toContain(code)
    expect(write(tap).code === undefined).toBe(codesOf(tap).some((each) => each.startsWith('stop')))
  })

  it('says nothing against what is right; leaves or refuses a multiple as the control takes it', () => {
    expect(codesOf({})).toEqual([])
    expect(codesOf({ multiple: 'typed', multipleTyped: '2' }, {}, twoLine)).toEqual(['look retract-no-word'])
    const { reading } = compact
    const whole = {
      ...compact,
      reading: { ...reading, tapRetract: { address: 'J', usual: 1, most: 9, decimal: false } },
    }
    expect(codesOf({ multiple: 'typed', multipleTyped: '2.5' }, {}, whole)).toEqual(['stop retract-whole'])
    expect(write({ holder: 'floating' }).code?.text).toContain(' J1')
    expect(write({ multiple: 'left' }).code?.text).not.toContain(' J')
  })
})

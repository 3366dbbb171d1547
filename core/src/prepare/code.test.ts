import { describe, expect, it } from 'vitest'
import {
  type CycleSheet,
  draftOfSheet,
  newItem,
  newSheet,
  readSheet,
  type SheetDraft,
  writeSheet,
} from '../code/index.ts'
import { caseOf, machineOf, sheetOf as sheetOfCycle } from '../code/testing.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import {
  demoEntries,
  demoReference,
  housingLayout,
  housingSheet,
  scaleLayout,
  tubeLayout,
} from '../demo/index.ts'
import type { ToolKind, ToolShape, ToolSide } from '../machine/index.ts'
import { type Layout, prove } from '../prove/index.ts'
import {
  type CodedFact,
  deriveSetup,
  deriveTools,
  type Entry,
  isUnreadable,
  offsetTable,
  type Reference,
  type Setup,
  wouldGoStale,
} from '../setup/index.ts'
import { read } from '../setup/testing.ts'
import { againstCode, codedWith, codeFor, codeRests } from './coding.ts'
import { proofRests, proveCase } from './prove-case.ts'
import { whoTurns } from './turn.ts'

const start = Date.UTC(2026, 10, 25, 8)
let seed = 7
const entries = demoEntries(start, () => {
  seed = (seed * 16_807) % 2_147_483_647
  return seed / 2_147_483_647
})
const logOf = (title: string) => {
  const id = entries.findLast((each) => each.kind === 'opened' && each.title === title)?.setup
  return entries.filter(({ setup }) => setup === id)
}
const derived = (log: readonly Entry[], reference: Reference = demoReference): Setup => {
  const setup = deriveSetup(log, reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const sheetOf = (draft: SheetDraft): CycleSheet => {
  const read = readSheet(draft, 'inch')
  if (!read.ok) throw new Error(read.says)
  return read.sheet
}
const stamped = (log: readonly Entry[], entry: object): Entry => {
  const last = log.at(-1) as Entry
  return read({
    id: '01KB0000000000000000000000',
    setup: last.setup,
    by: 'RT',
    at: '2026-11-25T08:00:00.000Z',
    ...entry,
  })
}

const housing = logOf('Focuser housing, first side')
const tube = logOf('Drawtube, O-ring grooves')

describe('programs built from cycles, in the chain', () => {
  it('of the demo stand fresh, are proved without a stop, and their proof rests on them', () => {
    for (const [log, layout, frame] of [
      [housing, housingLayout, 'G54'],
      [tube, tubeLayout, 'T4'],
    ] as const) {
      const setup = derived(log)
      const [coded] = setup.code.coded
      if (!coded) throw new Error('nothing coded')
      expect(coded.freshness.state).toBe('fresh')
      const { code } = codeFor(setup, coded.entry.sheet, coded.entry.offset, demoReference)
      const text = code?.text ?? ''
      const lengths = deriveTools(log, setup.machine, 'inch')
      const proof = prove(
        proveCase(setup, offsetTable(setup, log, demoReference), lengths, demoReference.tools, layout, {
          text,
          frame,
        }),
      )
      expect(proof.findings.filter(({ severity }) => severity === 'stop')).toEqual([])
      expect(codedWith(setup, text, demoReference)?.entry.id).toBe(coded.entry.id)
      expect(codedWith(setup, `${text} `, demoReference)).toBeUndefined()
      expect(proofRests(setup, lengths, { offsets: [frame], tools: [] }, coded)).toContain(coded.entry.id)
    }
  })

  it('go stale with the vise, the profile, the machine, the speeds of the material, a tool; not with the note of a shift', () => {
    const setup = derived(housing)
    const added = (entry: object) => wouldGoStale(setup, housing, [stamped(housing, entry)], demoReference)
    expect(added({ kind: 'happened', what: 'vise-moved', note: '' })).toContain(
      'The code of Housing, tapped holes',
    )
    expect(added({ kind: 'note', text: 'all good' })).toEqual([])
    const edited = (change: Partial<Reference>) =>
      derived(housing, { ...demoReference, ...change }).code.coded[0]?.freshness.state
    const next = <T extends { version: number }>(rows: readonly T[]) =>
      rows.map((row) => ({ ...row, version: row.version + 1 }))
    expect(edited({ materials: next(demoReference.materials) })).toBe('stale')
    expect(edited({ tools: next(demoReference.tools) })).toBe('stale')
    expect(edited({ machines: next(demoReference.machines) })).toBe('stale')
    // Another code of the machine's own changes nothing of what is written; anything else does.
    const profiles = next(demoReference.profiles)
    expect(edited({ profiles })).toBe('fresh')
    expect(edited({ profiles: profiles.map((row) => ({ ...row, writesSince: row.version })) })).toBe('stale')
    expect(edited({ vises: next(demoReference.vises) })).toBe('fresh')
  })

  it('are refused on what is stale, and looked at where an offset was never taken', () => {
    const moved = [...housing, stamped(housing, { kind: 'happened', what: 'vise-moved', note: '' })]
    const sheet = sheetOf(housingSheet)
    expect(codeFor(derived(moved), sheet, 'G54', demoReference).code).toBeUndefined()
    expect(
      againstCode(derived(housing), sheet, 'G55').map(({ severity, code }) => `${severity} ${code}`),
    ).toEqual(['look offset-missing'])
    expect(codeFor(derived(housing), sheet, 'G55', demoReference).code?.text).toContain('G90 G55 G0')
    expect(againstCode(derived(housing), sheet, 'G54.1 P3').map(({ severity }) => severity)).toContain('stop')
    const long = codeFor(derived(housing), { ...sheet, number: 123456 }, 'G54', demoReference)
    expect(long.findings.map(({ code }) => code)).toEqual(['program-number'])
  })

  it('are turned as the part was measured to lie: by the code where the control has one, in the numbers where not', () => {
    const bracket = logOf('Counterweight bracket')
    const setup = derived(bracket)
    const sheet = sheetOf(housingSheet)
    const angle = setup.offsets[0]?.angle
    expect(angle?.angle.value).toBeCloseTo(0.997, 2)
    const turned = codeFor(setup, sheet, 'G54', demoReference).code
    expect(turned?.text).toMatch(/G68 X0\. Y0\. R0\.99/)
    expect(turned?.text.match(/G69/g)?.length).toBeGreaterThan(2)
    expect(codeRests(setup, sheet, 'G54')).toContain(angle?.entry.id)
    const plain = demoReference.profiles.find(({ id }) => id === 'plain')
    const machines = demoReference.machines.map((each) => ({ ...each, profileId: 'plain' }))
    const written = codeFor(
      derived(bracket, { ...demoReference, machines }),
      sheet,
      'G54',
      demoReference,
    ).code
    expect(plain?.rotation).toBeNull()
    expect(written?.text).not.toContain('G68')
    // Both stand over the same holes: the same places of the motion.
    const bottoms = (of: typeof turned) => {
      const { x, y, z } = of?.program.motion ?? { x: [], y: [], z: [] }
      const deep = [...z].flatMap((depth, row) => (depth < -0.4 ? [[x[row] ?? 0, y[row] ?? 0] as const] : []))
      return deep.filter(
        ([u, v], row) => deep.findIndex((to) => Math.hypot(to[0] - u, to[1] - v) < 0.01) === row,
      )
    }
    const [a, b] = [bottoms(turned), bottoms(written)]
    expect(a).toHaveLength(4)
    expect(b).toHaveLength(4)
    for (const [u, v] of a)
      expect(Math.min(...b.map(([s, t]) => Math.hypot(s - u, t - v)))).toBeLessThan(5e-4)
    expect(codeFor(setup, { ...sheet, turned: false }, 'G54', demoReference).code?.text).not.toContain('G68')
  })

  it('are turned by one of two, Code or whoever stands at the control, and which is said', () => {
    const coded = (title: string, turned: boolean, offset = 'G54') =>
      ({ entry: { offset, sheet: { ...sheetOf(housingSheet), title, turned } } }) as CodedFact
    const says = (...of: CodedFact[]) =>
      whoTurns({ code: { coded: of } } as unknown as Setup, { name: 'G54' })
    expect(says()).toBeUndefined()
    expect(says(coded('O1', true, 'G55'))).toBeUndefined()
    expect(says(coded('O1', true), coded('O2', true))).toBe(
      'Code turns O1, O2 itself: do not turn that at the control as well.',
    )
    expect(says(coded('O1', true), coded('O2', false))).toBe(
      "Code turns O1 itself: do not turn that at the control as well. O2 of Code is not turned: say 'turned as it lies' there, or turn it here. Not both.",
    )
  })

  it('keep their form: what was typed reads back; what is off may be incomplete', () => {
    const sheet = sheetOf(housingSheet)
    expect(draftOfSheet(sheet)).toEqual(housingSheet)
    const half = newItem('tap', 'b', 'inch', false)
    expect(readSheet({ ...housingSheet, items: [...housingSheet.items, half] }, 'inch').ok).toBe(false)
    const off = readSheet({ ...housingSheet, items: [...housingSheet.items, { ...half, off: true }] }, 'inch')
    expect(off.ok && off.sheet.items).toHaveLength(1)
    expect(readSheet({ ...newSheet('', 1, 'brass') }, 'inch').ok).toBe(false)
  })

  it('change a tool once for operations that follow each other, in the order in which they stand', () => {
    const setup = derived(housing)
    const item = housingSheet.items[0] as SheetDraft['items'][number]
    const taps = { ...item, id: 'more', params: { ...item.params, chamfer: false, drill: false, x: '.8' } }
    const drawn = (items: SheetDraft['items']) =>
      [
        ...(
          codeFor(setup, sheetOf({ ...housingSheet, items }), 'G54', demoReference).code?.text ?? ''
        ).matchAll(/^T(\d+) M6/gm),
      ].map((found) => Number(found[1]))
    expect(drawn([item, taps] as SheetDraft['items'])).toEqual([5, 3, 12])
    expect(drawn([taps, item] as SheetDraft['items'])).toEqual([12, 5, 3, 12])
    expect(drawn([{ ...item, off: true }, taps] as SheetDraft['items'])).toEqual([12])
  })
})

describe('what is written for a lathe stands in Prove', () => {
  /** Each place with its tool, and a part that it is cut in: a bar of 2, a tube of 2 bored 1. Invented. */
  const PLACES = [
    ['outside', { surface: '2', near: '-.5', far: '-.8', bottom: '1.7' }],
    ['inside', { surface: '1', near: '-.5', far: '-.8', bottom: '1.24', minBore: '.8' }],
    [
      'face',
      { surface: '0', near: '1.6', far: '1.2', bottom: '-.15', faceLeast: '1', faceMost: '2', minBore: '' },
    ],
  ] as const
  const bodies = (bore?: number) => [
    {
      id: 'part',
      name: 'part',
      role: 'part' as const,
      shape: 'cylinder' as const,
      axis: 'Z' as const,
      at: { x: 0, y: 0, z: -3 },
      diameter: 2,
      length: 3,
      ...(bore ? { bore } : {}),
    },
  ]
  const cases = BUILT_IN_PROFILES.flatMap((profile) =>
    PLACES.flatMap(([where, groove]) =>
      (['low', 'high'] as const).flatMap((programmed) =>
        [true, false].map((finish) => ({ profile, where, groove, programmed, finish })),
      ),
    ),
  )
  const stopsIn = (
    sheet: CycleSheet,
    { profile, tools, bore }: { profile: Profile; tools: ToolShape[]; bore?: number | undefined },
  ) => {
    const { code, items } = writeSheet(sheet, caseOf('lathe', profile, { tools, offset: 'T4' }))
    if (!code) throw new Error(JSON.stringify(items))
    return prove({
      text: code.text,
      profile,
      machine: machineOf('lathe'),
      unit: 'inch',
      frame: 'T4',
      offsets: tools.map(({ number }) => ({ name: `T${number}`, axes: { X: -10, Z: -12 } })),
      lengths: [],
      tools,
      layout: { unit: 'inch', bodies: bodies(bore) },
    }).findings.flatMap(({ severity, code: says }) => (severity === 'stop' ? [says] : []))
  }
  const insert = demoReference.tools.find(({ kind }) => kind === 'grooving') as ToolShape
  const proved = (of: (typeof cases)[number], bore: number | undefined, side: ToolSide = of.where) => {
    const tool = {
      ...insert,
      number: 4,
      flute: 0.2,
      stickOut: 1.5,
      onLathe: { side, corner: of.programmed, point: 'corner' as const, bar: side === 'inside' ? 0.6 : null },
    }
    const sheet = sheetOfCycle({
      groove: { ...of.groove, where: of.where, programmed: of.programmed, reach: '', finish: of.finish },
    })
    return stopsIn(sheet, { profile: of.profile, tools: [tool], bore })
  }
  it.each(
    cases.map(
      (of) =>
        [
          `${of.where}, ${of.programmed} corner, ${of.finish ? 'finished' : 'plunged'}: ${of.profile.id}`,
          of,
        ] as const,
    ),
  )('%s', (_, of) => {
    expect(proved(of, of.where === 'inside' ? 1 : undefined)).toEqual([])
    // With no bore the bar runs into the part; with the wrong tool the groove is not cut without a crash.
    if (of.where === 'inside') expect(proved(of, undefined)).not.toEqual([])
    else expect(proved(of, undefined, of.where === 'face' ? 'outside' : 'face')).not.toEqual([])
  })

  it.each(BUILT_IN_PROFILES.map((profile) => [profile.id, profile] as const))(
    'a hole on the centre line, chamfered, drilled and tapped: %s',
    (_, profile) => {
      const round = (number: number, kind: ToolKind, diameter: number, flute: number, stickOut = 2.5) => ({
        ...insert,
        number,
        kind,
        diameter,
        flute,
        stickOut,
        pitch: kind === 'tap' ? 0.05 : null,
      })
      const tools = (stickOut: number) => [
        round(1, 'drill', 0.5, 1),
        round(2, 'drill', 0.201, 2, stickOut),
        round(3, 'tap', 0.25, 1),
      ]
      const sheet = sheetOfCycle({ tap: { hole: 'blind', threadDepth: '.5', list: '0 0' } })
      expect(stopsIn(sheet, { profile, tools: tools(2.5) })).toEqual([])
      // A drill that stands out too little brings its holder into the face: Code refuses it.
      const short = tools(2.5).map((tool) =>
        tool.number === 2 ? { ...tool, flute: 0.5, stickOut: 0.5 } : tool,
      )
      expect(() => stopsIn(sheet, { profile, tools: short })).toThrow('tool-short')
    },
  )
  it.each(BUILT_IN_PROFILES.map((profile) => [profile.id, profile] as const))(
    'and so do tapped holes in a plate on a mill: %s',
    (_, profile) => {
      const tools = demoReference.tools.filter(({ machineId }) => machineId === 'mill-1')
      const on = caseOf('mill', profile, { tools })
      const tap = {
        thread: '5/16-24 UNF',
        threadDepth: '.5',
        list: '1 -1\n3 -2',
        chamferTool: '5',
        drillTool: '3',
        tapTool: '12',
      }
      const { code } = writeSheet(sheetOfCycle({ tap }), on)
      const proof = prove({
        text: code?.text ?? '',
        profile,
        machine: on.machine,
        unit: 'inch',
        frame: 'G54',
        offsets: [{ name: 'G54', axes: { X: -20, Y: -8, Z: -20 } }],
        lengths: [3, 5, 12].map((tool) => ({ tool, length: 4 })),
        tools,
        layout: housingLayout,
      })
      expect(proof.findings).toEqual([])
      // The two holes are drilled and tapped: the deepest is the drill's point.
      expect(Math.min(...proof.program.motion.z)).toBeLessThan(-0.7)
    },
  )

  const millTools = demoReference.tools.filter(({ machineId }) => machineId === 'mill-1')
  const onMill = (profile: Profile, top: 'front' | 'back' = 'front') => ({
    ...caseOf('mill', profile, { tools: millTools }),
    machine: { ...machineOf('mill'), rotary: { word: 'A' as const, top, turns: null } },
  })
  /** What Prove says of a program on a mill, notes left out. */
  const saidOf = (text: string, profile: Profile, layout: Layout, top: 'front' | 'back' = 'front') => {
    const { findings, program, axis } = prove({
      text,
      profile,
      machine: onMill(profile, top).machine,
      unit: 'inch',
      frame: 'G54',
      offsets: [{ name: 'G54', axes: { X: -20, Y: -8, Z: -20 } }],
      lengths: [3, 7, 15].map((tool) => ({ tool, length: 4 })),
      tools: millTools,
      layout,
    })
    const said = findings.flatMap(({ severity, code }) => (severity === 'note' ? [] : [code]))
    return { said, motion: program.motion, axis }
  }
  it.each(
    BUILT_IN_PROFILES.flatMap((profile) =>
      (
        [
          ['in a box', { sits: 'box', x: '.5', y: '-2.8' }],
          ['on a line', { sits: 'line', x: '.5', y: '-2.8', toX: '3', toY: '-2.5' }],
          ['on an arc', { sits: 'arc', x: '2', y: '-1.5', diameter: '1.5', angle: '90' }],
        ] as const
      ).map(([where, text]) => [`${where}: ${profile.id}`, profile, text] as const),
    ),
  )('a text on the housing, %s', (_, profile, text) => {
    const written = (more: object) =>
      writeSheet(sheetOfCycle({ engrave: { text: 'HSG-12', tool: '15', ...text, ...more } }), onMill(profile))
        .code?.text ?? ''
    const { said, motion } = saidOf(written({}), profile, housingLayout)
    expect(said).toEqual([])
    expect(Math.min(...motion.z)).toBeLessThan(-0.003)
    // Without a clearance to speak of it goes through the clamp on its way; Code does not know where it stands here.
    const low = written({
      x: '3.3',
      y: '-1.6',
      clearance: '.1',
      ...(text.sits === 'line' ? { toX: '3.9', toY: '-1.6' } : {}),
      ...(text.sits === 'arc' ? { x: '3.7', y: '-2.3' } : {}),
      height: '.1',
      boxWidth: '.6',
    })
    expect(low).toContain('M30')
    expect(saidOf(low, profile, housingLayout).said).not.toEqual([])
  })
  it.each(
    BUILT_IN_PROFILES.flatMap((profile) =>
      (['front', 'back'] as const).flatMap((top) =>
        (
          [
            ['a scale', { what: 'scale', tool: '15' }],
            ['a text', { what: 'text', text: 'LOCK', tool: '15' }],
            ['slots', { what: 'slots', tool: '7', depth: '.05', x: '-1.4' }],
            [
              'holes',
              {
                what: 'holes',
                tool: '3',
                depth: '.1',
                stepDown: '.05',
                rows: '2',
                rowSpacing: '.4',
                x: '-1.2',
              },
            ],
            [
              'an outline',
              {
                what: 'program',
                tool: '15',
                x: '-.9',
                program: 'G20\nG0 X0 Y0\nZ.1\nG1 Z-.01 F4.\nG3 X.2 Y.2 R.2 F8.\nG1 X.4 Y0.\nG0 Z.1',
              },
            ],
          ] as const
        ).map(([name, wrap]) => [`${name}, top to the ${top}: ${profile.id}`, profile, top, wrap] as const),
      ),
    ),
  )('wrapped on the drawtube, %s', (_, profile, top, wrap) => {
    const { code, items } = writeSheet(
      sheetOfCycle({ wrap: { diameter: '1.375', ...wrap } }),
      onMill(profile, top),
    )
    if (!code) throw new Error(JSON.stringify(items))
    const { said, motion, axis } = saidOf(code.text, profile, scaleLayout, top)
    expect(said).toEqual([])
    expect(axis?.sense).toBe(top === 'front' ? 1 : -1)
    expect(motion.rotary?.some((angle) => angle !== 0)).toBe(true)
    // On a thicker tube, whose top is higher, the same program runs into it, or wraps on a radius that is not its.
    const thick: Layout = {
      unit: 'inch',
      bodies: scaleLayout.bodies.map((body) =>
        body.role === 'part' && body.shape === 'cylinder' ? { ...body, diameter: 2.5 } : body,
      ),
    }
    expect(saidOf(code.text, profile, thick, top).said).not.toEqual([])
  })
})

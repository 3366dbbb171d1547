import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { numberedTexts, palletsOfProgram, readPallets } from './check.ts'
import { mendedText, mendPallets } from './mend.ts'
import { newPalletPlan, readPalletPlan } from './plan.ts'
import { newPlay, type PalletAction, playPallets } from './play.ts'
import { judgeStart, startTable, tableToKey } from './start.ts'
import { onPallets, palletControls, planOf, programOf } from './testing.ts'
import { tracePallets } from './trace.ts'
import { walkPallets } from './walk.ts'

const codes = (of: readonly { code: string }[]) => of.map(({ code }) => code)
/** Each ends by calling the other pallet and the other program (trade.md 10). */
const mutual = () => planOf([programOf(501, 'M62\nM98 P502\nM30'), programOf(502, 'M61\nM98 P501\nM30')])

describe('programs that call each other', () => {
  it('nest one level deeper at each change, and the control stops when it has run out of levels', () => {
    // Counted by hand: the n-th change is followed by the call of level n, and a control of L levels alarms at the call of
    // level L + 1, which comes after L + 1 changes. Common practice (trade.md 10).
    for (const levels of [1, 4, 9, 20]) {
      const { findings, swapsUntilStop, repeats } = readPallets(mutual(), onPallets(undefined, levels))
      expect(swapsUntilStop).toBe(levels + 1)
      expect(repeats).toBe(false)
      expect(codes(findings)).toEqual(['nests', 'nests'])
      expect(findings[0]?.says).toContain(`after ${levels + 1} changes`)
    }
  })

  it('do not nest where a main program calls each in turn, nor in a loop without end', () => {
    const ops = [programOf(501, 'M99'), programOf(502, 'M99')]
    const turns = 'M61\nM98 P501\nM62\nM98 P502'
    for (const end of [
      `${turns}\nM99`,
      `WHILE [1 EQ 1] DO1\n${turns}\nEND1\nM30`,
      `N10 ${turns}\nGOTO 10\nM30`,
    ]) {
      const plan = planOf(ops, { number: 500, text: `O500\nG20\n${end}\n` })
      const { findings, swapsUntilStop, repeats } = readPallets(plan, onPallets())
      expect(findings, end).toEqual([])
      expect(swapsUntilStop).toBeNull()
      expect(repeats).toBe(true)
    }
  })

  it('are held against the pallet table, their numbers, and each other', () => {
    const slips: [string, string[], string][] = [
      ['no call for a pallet', [programOf(501, 'M30'), programOf(502, 'M61\nM98 P501\nM30')], 'no-swap'],
      [
        'the other program before the change',
        [programOf(501, 'M98 P502\nM62\nM30'), programOf(502, 'M99')],
        'wrong-program',
      ],
      ['its own pallet', [programOf(501, 'M61\nM98 P502\nM30'), programOf(502, 'M99')], 'wrong-program'],
      [
        'a pallet that is not there',
        [programOf(501, 'M63\nM30'), programOf(502, 'M61\nM30')],
        'unknown-pallet',
      ],
      ['one number twice', [programOf(501, 'M62\nM30'), programOf(501, 'M61\nM30')], 'same-number'],
      ['once only', [programOf(501, 'M62\nM98 P502\nM30'), programOf(502, 'M99')], 'does-not-repeat'],
      [
        'a program that is not there',
        [programOf(501, 'M62\nM98 P503\nM30'), programOf(502, 'M61\nM30')],
        'missing',
      ],
      ['no number', ['G20\nM62\nM30\n', programOf(502, 'M61\nM30')], 'no-number'],
    ]
    for (const [name, texts, code] of slips)
      expect(codes(readPallets(planOf(texts), onPallets()).findings), name).toContain(code)
    // Where it stands is where it stands in the text, percent lines and all.
    const far = readPallets(planOf([programOf(501, 'M64\nM30'), programOf(502, 'M61\nM30')]), onPallets())
    expect(far.findings.find(({ code }) => code === 'unknown-pallet')?.says).toContain(
      'Line 7 of O501 calls pallet 4',
    )
    const swapped = mutual()
    for (const pallet of swapped.pallets)
      pallet.params = { ...pallet.params, table: pallet.params.table === 501 ? 502 : 501 }
    expect(
      codes(readPallets(swapped, onPallets()).findings).filter((code) => code === 'table-differs'),
    ).toHaveLength(2)
    const control = onPallets()
    expect(
      codes(readPallets(mutual(), { ...control, machine: { ...control.machine, pallets: null } }).findings),
    ).toContain('machine-pallets')
    const none = { ...control.profile, reading: { ...control.profile.reading, pallets: [] } }
    expect(codes(readPallets(mutual(), { ...control, profile: none }).findings)).toContain('no-codes')
  })

  it('are read for the seconds of each stay, subprograms included', () => {
    const dwell = (number: number, seconds: number, end: string) =>
      programOf(number, end, `G0 X1.\nG4 P${seconds}.\nG0 X1.`)
    const inner = `O501\nG20 G90\nM98 P9\nM62\nM98 P502\nM30\nO9\nG1 X0 F10.\nG4 P7.\nM99\n`
    const { seconds } = readPallets(
      planOf([dwell(501, 30, 'M62\nM98 P502\nM30'), dwell(502, 50, 'M61\nM98 P501\nM30')]),
      onPallets(),
    )
    // The second begins where the first ended: nothing but its dwell. The first also comes from home.
    expect(seconds[1]).toBeCloseTo(50, 3)
    expect(seconds[0]).toBeGreaterThan(30)
    expect(seconds[0]).toBeLessThan(32)
    expect(
      readPallets(planOf([inner, programOf(502, 'M61\nM98 P501\nM30')]), onPallets()).seconds[0],
    ).toBeGreaterThan(7)
  })

  it('take any text without failing', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), fc.string({ maxLength: 60 }), (a, b) => {
        const plan = planOf([`O1 ${a}`, `O2\nM98 P1\n${b}\nM61`])
        expect(readPallets(plan, onPallets()).findings.length).toBeGreaterThan(0)
      }),
      depth(60, 600),
    )
  })
})

describe('mended programs', () => {
  const moves = fc
    .array(
      fc.tuple(fc.constantFrom('G0', 'G1'), fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 })),
      { minLength: 1, maxLength: 6 },
    )
    .map((rows) => rows.map(([code, x, y]) => `${code} X${x}. Y${y}. F20.`).join('\n'))
  const ends = (next: number, code: number) =>
    fc.constantFrom(
      `M${code}\nM98 P${next}\nM30`,
      `M${code} M98 P${next}\nM99`,
      `G0 Z1. M${code} (NEXT)\nM98 P${next} L1\nM2`,
      `N900 M${code}\nN910 M98 P${next} (THE OTHER)\nN920 M30`,
      'M30',
      `M${code}`,
    )
  const plans = fc.integer({ min: 2, max: 4 }).chain((count) =>
    fc
      .tuple(
        ...Array.from({ length: count }, (_, index) => {
          const next = (index + 1) % count
          return fc
            .tuple(moves, ends(501 + next, 61 + next))
            .map(([of, end]) => programOf(501 + index, end, of))
        }),
      )
      .map((texts) => planOf(texts)),
  )

  it('call every pallet once in a pass with its own program, at one depth, whichever is inside, and move as before', () => {
    fc.assert(
      fc.property(plans, fc.constantFrom(...palletControls), (plan, control) => {
        const result = mendPallets(plan, 500, ['Setup: test.'], control)
        if (!result.ok) throw new Error(JSON.stringify(result.findings))
        const { main, texts } = result.mended
        const next = planOf(texts, main)
        expect(readPallets(next, control)).toMatchObject({
          findings: [],
          repeats: true,
          swapsUntilStop: null,
        })
        const trace = tracePallets(main, numberedTexts(next), control)
        for (const [index] of texts.entries()) {
          const walk = walkPallets(trace, index + 1, texts.length, palletsOfProgram(next))
          expect(walk.cuts).toEqual(texts.map(() => 1))
          expect(new Set(walk.depths).size).toBe(1)
        }
        // The cutting words are the same words: nothing but the calls and the end was touched.
        for (const [index, { program }] of plan.pallets.entries())
          expect((texts[index] as string).match(/[XYF]-?\d+\./g)).toEqual(program.text.match(/[XYF]-?\d+\./g))
        expect(main.text).toContain('qualified person'.toUpperCase())
      }),
      depth(60, 600),
    )
  })

  it('keep what stands on the line of a call, and add the end that is missing', () => {
    expect(mendedText('O1\nG0 Z1. M62 (UP)\nM98 P2\nM30\n%\n', [1, 2], [61, 62])).toBe(
      'O1\nG0 Z1.  (UP)\nM99\n%\n',
    )
    expect(mendedText('O1\nM98 P9001\nM62\n', [1, 2], [61, 62])).toBe('O1\nM98 P9001\nM99\n')
    expect(mendedText('O1\nM5 M30\n', [1, 2], [61, 62])).toBe('O1\nM5\nM99\n')
  })

  it('are refused where they cannot be written', () => {
    const refused = (plan: ReturnType<typeof planOf>, number: number, control = onPallets()) => {
      const result = mendPallets(plan, number, [], control)
      return result.ok ? 'written' : result.findings[0]?.code
    }
    expect(refused(mutual(), 501)).toBe('main-number')
    expect(refused(planOf(['G20\nM30\n', programOf(502, 'M30')]), 500)).toBe('no-number')
    expect(refused(planOf([programOf(501, 'M30'), programOf(501, 'M99')]), 500)).toBe('same-number')
    // Cut twice on one stay: a pass would not cut each pallet once.
    expect(
      refused(planOf([programOf(501, 'GOTO 1\nN1 M30', 'M98 P503'), programOf(502, 'M30')]), 500),
    ).not.toBe('written')
  })
})

describe('before cycle start', () => {
  const plan = mutual()

  it('each wrong combination is said for what it is', () => {
    // The interlock lets a program start only where the table names it; with it off the wrong one is a crash (trade.md 10).
    expect(startTable(plan)).toEqual([
      { inside: 1, loaded: 501, on: 'runs', off: 'unguarded' },
      { inside: 1, loaded: 502, on: 'refused', off: 'crash' },
      { inside: 2, loaded: 501, on: 'refused', off: 'crash' },
      { inside: 2, loaded: 502, on: 'runs', off: 'unguarded' },
    ])
    expect(judgeStart(plan, { inside: 1, loaded: 502, interlock: true }).fix).toContain('O501')
  })

  it('a table that names the wrong program lets a crash through', () => {
    const wrong = mutual()
    for (const pallet of wrong.pallets) pallet.params = { ...pallet.params, table: 502 }
    expect(judgeStart(wrong, { inside: 1, loaded: 502, interlock: true }).happens).toBe('crash')
  })

  it('a main program is right whichever pallet is inside, and is what the table names', () => {
    const result = mendPallets(plan, 500, [], onPallets())
    if (!result.ok) throw new Error('refused')
    const main = planOf(result.mended.texts, result.mended.main)
    expect(tableToKey(main).map(({ pallet, program }) => [pallet, program])).toEqual([
      [1, 500],
      [2, 500],
    ])
    for (const inside of [1, 2])
      expect(judgeStart(main, { inside, loaded: 500, interlock: true }).happens).toBe('runs')
    expect(judgeStart(main, { inside: 1, loaded: 501, interlock: true }).happens).toBe('refused')
  })
})

describe('a run that is played', () => {
  const play = (
    plan: ReturnType<typeof planOf>,
    loaded: number,
    actions: PalletAction[],
    levels?: number,
  ) => {
    const reading = readPallets(plan, onPallets(undefined, levels))
    return actions.reduce(
      (now, action) => playPallets(now, action, { plan, reading, swap: 10 }),
      newPlay(plan, loaded),
    )
  }
  const start: PalletAction = { do: 'start' }
  const next: PalletAction = { do: 'next' }

  it('waits for the ready button before it changes', () => {
    const waits = play(mutual(), 501, [start, next, next])
    expect(waits).toMatchObject({ state: 'waits', waitsFor: 2, swaps: 0, cuts: [1, 0] })
    const going = play(mutual(), 501, [start, next, next, next, { do: 'ready', pallet: 2 }, next, next])
    expect(going).toMatchObject({ state: 'runs', inside: 2, swaps: 1, cuts: [1, 1], ready: [] })
  })

  it('is refused with the interlock on, and crashes with it off', () => {
    expect(play(mutual(), 502, [start]).state).toBe('alarm')
    const off: PalletAction = { do: 'interlock', on: false }
    expect(play(mutual(), 502, [off, start, next])).toMatchObject({ state: 'crash', swaps: 0 })
    expect(play(mutual(), 501, [off, start, next]).state).toBe('runs')
  })

  it('stops for want of levels after as many changes as were computed', () => {
    const round: PalletAction[] = [{ do: 'ready', pallet: 1 }, { do: 'ready', pallet: 2 }, next, next]
    const long = Array.from({ length: 40 }, () => round).flat()
    expect(play(mutual(), 501, [start, ...long], 4)).toMatchObject({ state: 'alarm', swaps: 5 })
  })

  it('takes nothing that cannot be done in the state that it is in', () => {
    const first = play(mutual(), 501, [start])
    const same = (action: PalletAction) => {
      const reading = readPallets(mutual(), onPallets())
      expect(playPallets(first, action, { plan: mutual(), reading, swap: 10 })).toEqual(first)
    }
    // While it runs: another pallet or program cannot be chosen, and the pallet inside has no ready button.
    same({ do: 'inside', pallet: 2 })
    same({ do: 'load', program: 502 })
    same({ do: 'ready', pallet: 1 })
    same({ do: 'start' })
    expect(play(mutual(), 501, [next]).told).toEqual([])
    expect(play(mutual(), 501, [start, { do: 'reset' }])).toEqual(newPlay(mutual(), 501))
  })

  it('a program with a wrong call crashes where it was said to', () => {
    const plan = planOf([programOf(501, 'M98 P502\nM62\nM30'), programOf(502, 'M99')])
    expect(codes(readPallets(plan, onPallets()).findings)).toContain('wrong-program')
    expect(play(plan, 501, [start, next, next])).toMatchObject({ state: 'crash', inside: 1, swaps: 0 })
  })

  it('a pallet program by itself stands still after one stay', () => {
    const plan = planOf([programOf(501, 'M30'), programOf(502, 'M30')])
    expect(play(plan, 501, [start, next, next])).toMatchObject({ state: 'ended', cuts: [1, 0] })
  })

  it('goes on for ever with a main program', () => {
    const result = mendPallets(mutual(), 500, [], onPallets())
    if (!result.ok) throw new Error('refused')
    const plan = planOf(result.mended.texts, result.mended.main)
    const round: PalletAction[] = [{ do: 'ready', pallet: 1 }, { do: 'ready', pallet: 2 }, next, next]
    const end = play(plan, 500, [start, ...Array.from({ length: 200 }, () => round).flat()])
    expect(end.state).toBe('runs')
    expect(end.swaps).toBeGreaterThan(50)
  })
})

it('a form says of each field what it needs', () => {
  const draft = newPalletPlan(2)
  const { plan, problems } = readPalletPlan({ ...draft, shift: { ...draft.shift, length: 'long' } }, 'inch')
  expect(plan).toBeUndefined()
  expect(problems['shift.length']?.says).toContain('7:30')
  expect(problems['pallets.0.operation']?.empty).toBe(true)
  expect(problems['pallets.1.program']?.says).toContain('program')
})

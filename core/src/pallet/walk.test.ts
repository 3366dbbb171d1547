import { describe, expect, it } from 'vitest'
import { readPallets } from './check.ts'
import { mendedText, mendPallets } from './mend.ts'
import { newPalletPlan, readPalletPlan } from './plan.ts'
import { newPlay, type PalletAction, playPallets } from './play.ts'
import { tableToKey } from './start.ts'
import { onPallets, planOf, programOf } from './testing.ts'
import { type PalletEvent, type PalletTrace, tracePallets } from './trace.ts'
import { nestsDeeper, walkPallets } from './walk.ts'

const cut = (program: number, moves = 1, depth = 0): PalletEvent => ({
  does: 'cut',
  program,
  seconds: 1,
  moves,
  line: 1,
  depth,
})
const call = (pallet: number, depth = 0): PalletEvent => ({
  does: 'call-pallet',
  pallet,
  program: 500,
  line: 1,
  depth,
})
const traceOf = (...events: PalletEvent[]): PalletTrace => ({
  started: 500,
  events,
  ends: 'end',
  says: '',
  depth: 0,
})
/** O501 is for pallet 1, O502 for pallet 2; all others for none. */
const own = (program: number) => (program === 501 ? [1] : program === 502 ? [2] : [])

describe('a trace that is followed', () => {
  it('counts stays, changes and their depth', () => {
    const walk = walkPallets(
      traceOf(call(1), cut(501), cut(9), cut(501), call(2, 1), cut(502), call(1, 2), cut(501), call(1, 3)),
      1,
      2,
      own,
    )
    expect(walk).toEqual({ swaps: 2, cuts: [2, 1], depths: [1, 2] })
  })
  it('finds the first cut on a pallet that is not its own, and the first call for one that is not there', () => {
    const walk = walkPallets(traceOf(cut(501), cut(502), call(3), call(4), cut(501)), 1, 2, own)
    expect(walk).toMatchObject({ wrong: { event: cut(502), inside: 1 }, unknown: call(3), swaps: 0 })
    // What moves nothing, and what others call, is right anywhere.
    expect(walkPallets(traceOf(cut(502, 0), cut(9)), 1, 2, own)).toEqual({
      swaps: 0,
      cuts: [0, 0],
      depths: [],
    })
  })
  it('nests where every change lies deeper than the one before', () => {
    const deeper = (...depths: number[]) => nestsDeeper({ swaps: 0, cuts: [], depths })
    expect([deeper(), deeper(1), deeper(1, 2), deeper(0, 1, 2)]).toEqual([false, false, true, true])
    expect([deeper(1, 1), deeper(2, 1), deeper(1, 2, 2), deeper(1, 2, 1)]).toEqual([
      false,
      false,
      false,
      false,
    ])
  })
})

describe('what happens when a program is started', () => {
  const control = onPallets()
  const still = 'G4 P5.'
  it('is told by program, with the line of each', () => {
    const texts = [
      { number: 500, text: 'O500\nG20\nM61\nM98 P501\nM62\nM98 P502\nM99\n' },
      { number: 501, text: `%\nO501\n${still}\nM98 P9\n${still}\nM99\nO9\nG4 P7.\nM99\n%\n` },
      { number: 502, text: 'O502\nM8\nM99\n' },
    ]
    const [main, first] = texts as [(typeof texts)[number], (typeof texts)[number]]
    const { events, ends, depth } = tracePallets(main, texts, control)
    expect(ends).toBe('again')
    expect(depth).toBe(2)
    // O502 only switches something: it cuts nothing.
    expect(
      events.map((event) => [
        event.does === 'cut' ? Math.round(event.seconds) : `pallet ${event.pallet}`,
        event.program,
        event.line,
        event.depth,
      ]),
    ).toEqual([
      ['pallet 1', 500, 3, 0],
      [17, 501, 3, 1],
      ['pallet 2', 500, 5, 0],
    ])
    // A move of no length is a move.
    const moved = tracePallets(
      { number: 7, text: 'O7\nG20 G90 G0 X1. Y1. Z1.\nM62\nG1 X1. F9.\nM30\n' },
      [],
      control,
    )
    expect(moved.events.map((event) => (event.does === 'cut' ? event.moves : 'call'))).toEqual([1, 'call', 1])
    expect(tracePallets(first, texts, control).started).toBe(501)
  })
  it('a loop that calls no two pallets is no round of pallets', () => {
    const ends = (text: string) => tracePallets({ number: 1, text }, [], control).ends
    const loop = (inner: string) => `O1\nG20\nWHILE [1 EQ 1] DO1\n${inner}\nEND1\nM30\n`
    expect(ends(loop('G0 X1.'))).toBe('unreadable')
    expect(ends(loop('M61\nG0 X1.\nM62\nG0 X2.'))).toBe('again')
    // Cutting in one program after another is no call of a pallet.
    const other = [{ number: 2, text: 'O2\nG0 X2.\nM99\n' }]
    expect(tracePallets({ number: 1, text: loop('G0 X1.\nM98 P2') }, other, control).ends).toBe('unreadable')
    const after = (calls: string) => ends(loop('G0 X1.').replace('G20\n', `G20\n${calls}\n`))
    expect(after('M61')).toBe('unreadable')
    expect(after('M61\nG0 X3.\nM62')).toBe('again')
    expect(ends('O1\nG20\nG0 X1.\nM99\n')).toBe('again')
    expect(ends('O1\nG20\nG0 X1.\nM30\n')).toBe('end')
    expect(ends('O1\nG20\nM98 P77\nM30\n')).toBe('missing')
    expect(ends('O1\nG20\nM98 P1\nM30\n')).toBe('levels')
  })
})

describe('what is said of the programs', () => {
  const findingsOf = (...of: Parameters<typeof planOf>) => readPallets(planOf(...of), onPallets()).findings
  it('one program on two pallets is one program', () => {
    const same = programOf(501, 'M62\nM30')
    expect(findingsOf([same, same]).map(({ code }) => code)).not.toContain('same-number')
  })
  it('levels that run out without a change, and after one', () => {
    const itself = findingsOf([programOf(501, 'M98 P501\nM30'), programOf(502, 'M30')])
    expect(itself.find(({ where }) => where === 'pallet 1')?.code).toBe('levels')
    const once = findingsOf([programOf(501, 'M62\nM98 P502\nM30'), programOf(502, 'M98 P502\nM30')])
    expect(once.find(({ where, code }) => where === 'pallet 1' && code === 'nests')?.says).toContain(
      'stops after 1 change of pallet',
    )
    const ends = findingsOf([programOf(501, 'M62\nM98 P502\nM30'), programOf(502, 'M99')])
    expect(ends.find(({ code }) => code === 'does-not-repeat')?.says).toContain('after 1 change of pallet.')
    const twice = findingsOf([programOf(501, 'M62\nM98 P502\nM61\nM30'), programOf(502, 'M99')])
    expect(twice.find(({ code }) => code === 'does-not-repeat')?.says).toContain('after 2 changes of pallet.')
  })
  it('of a main program once, whichever pallet is inside; which one it is where it matters', () => {
    const ops = [programOf(501, 'M99'), programOf(502, 'M99')]
    const main = (text: string) => ({ number: 500, text: `O500\nG20\n${text}\n` })
    const ends = findingsOf(ops, main('M61\nM98 P501\nM62\nM98 P502\nM30'))
    expect(ends.filter(({ code }) => code === 'does-not-repeat')).toHaveLength(1)
    const wrong = findingsOf(ops, main('M98 P501\nM62\nM98 P502\nM99')).filter(
      ({ code }) => code === 'wrong-program',
    )
    expect(wrong.map(({ says }) => says)).toEqual([
      'O501 cuts while pallet 2 is inside; it is the program of pallet 1.',
    ])
  })
  it('programs without a number are started by nobody, and repeat nothing', () => {
    expect(readPallets(planOf(['G20\nM30\n', 'G20\nM30\n']), onPallets()).repeats).toBe(false)
  })
  it('the seconds of a stay are all that is cut in it', () => {
    const inner = 'O501\nG4 P5.\nM98 P9\nG4 P3.\nM62\nM98 P502\nM30\nO9\nG4 P7.\nM99\n'
    const { seconds } = readPallets(planOf([inner, 'O502\nG4 P4.\nM61\nG4 P2.\nM30\n']), onPallets())
    expect(seconds).toEqual([expect.closeTo(15, 3), expect.closeTo(4, 3)])
    // From when it begins to cut, what the main program does until the change is part of it: 5 and 2, 4 and 3.
    const main = { number: 500, text: 'O500\nM61\nG4 P1.\nM98 P501\nG4 P2.\nM62\nM98 P502\nG4 P3.\nM99\n' }
    const ops = ['O501\nG4 P5.\nM99\n', 'O502\nG4 P4.\nM99\n']
    const called = planOf(ops, { ...main, title: 'main' } as Parameters<typeof planOf>[1])
    expect(readPallets(called, onPallets()).seconds).toEqual([expect.closeTo(7, 3), expect.closeTo(7, 3)])
  })
})

describe('mended, started and played', () => {
  it('calls go, with nothing else on their lines lost', () => {
    expect(mendedText('O501\nN5 G0 X1. M98 P502 L2\nN6 M62\nM30', [501, 502], [61, 62])).toBe(
      'O501\nN5 G0 X1.\nM99',
    )
    // A call of another program stays, with how often.
    expect(mendedText('O501\nM98 P9 L2\nM30', [501, 502], [61, 62])).toBe('O501\nM98 P9 L2\nM99')
    const made = mendPallets(
      planOf([programOf(501, 'M62\nM98 P502\nM30'), programOf(502, 'M61\nM98 P501\nM30')]),
      500,
      [],
      onPallets(),
    )
    expect(made.ok && made.mended.main.text).toMatch(
      /M61[^\n]*pallet 1 in, fixture 1[\s\S]*M98 P501[\s\S]*M62[^\n]*pallet 2 in, fixture 2[\s\S]*M98 P502/i,
    )
  })
  it('what is keyed into the table is what is started, whatever stands there now', () => {
    const plan = planOf([programOf(501, 'M62\nM30'), programOf(502, 'M61\nM30')])
    for (const pallet of plan.pallets) pallet.params = { ...pallet.params, table: 77 }
    expect(tableToKey(plan).map(({ program }) => program)).toEqual([501, 502])
  })

  const ops = [programOf(501, 'M99'), programOf(502, 'M99')]
  const main = { number: 500, text: 'O500\nG20\nG4 P2.\nM61\nM98 P501\nM62\nM98 P502\nM99\n' }
  const played = (loaded: number, ...actions: PalletAction[]) => {
    const plan = planOf(ops, main)
    const reading = readPallets(plan, onPallets())
    return actions.reduce(
      (now, action) => playPallets(now, action, { plan, reading, swap: 10 }),
      newPlay(plan, loaded),
    )
  }
  const [start, next] = [{ do: 'start' }, { do: 'next' }] as const
  const off = { do: 'interlock', on: false } as const
  it('counts seconds and stays; what the main program does itself is no stay', () => {
    const first = played(500, start, next)
    expect(first.seconds).toBeCloseTo(2, 3)
    expect(first.cuts).toEqual([0, 0])
    const cut = played(500, start, next, next, next)
    expect(cut.cuts).toEqual([1, 0])
    const plan = planOf(ops, main)
    const [stay] = readPallets(plan, onPallets()).seconds
    expect(cut.seconds).toBeCloseTo(2 + (stay as number), 3)
    const changed = played(500, start, next, next, next, { do: 'ready', pallet: 2 }, next)
    expect(changed.seconds).toBeCloseTo(12 + (stay as number), 3)
    expect(first.told.at(0)?.says).toBe('O500 starts.')
    expect(played(500, off, start).told.at(0)?.says).toBe('O500 starts. The interlock is off.')
  })
  it('a pallet’s own program, beside a main one, runs once or crashes', () => {
    expect(played(501, off, start)).toMatchObject({ state: 'ended' })
    expect(played(501, off, start).told.at(-1)?.says).toContain('runs by itself')
    expect(played(502, off, start).state).toBe('crash')
  })
  it('keeps the newest two hundred of what happened', () => {
    const round: PalletAction[] = [{ do: 'ready', pallet: 1 }, { do: 'ready', pallet: 2 }, next, next]
    const long = played(500, start, ...Array.from({ length: 120 }, () => round).flat())
    expect(long.told).toHaveLength(200)
    expect(long.told.at(-1)?.seconds).toBe(long.seconds)
  })
})

describe('the form of pallets', () => {
  const filled = () => {
    const draft = newPalletPlan(3)
    return {
      ...draft,
      pallets: draft.pallets.map(({ draft: typed, program }, n) => ({
        draft: { ...typed, operation: 'op', fixture: 'f', table: `50${n}`, unload: '20', load: '40' },
        program: { ...program, text: programOf(500 + n, 'M30') },
      })),
    }
  }
  it('the last pallet finishes the part, until somebody says otherwise; one of them has to', () => {
    expect(newPalletPlan(3).pallets.map(({ draft: { finishes } }) => finishes)).toEqual([false, false, true])
    expect(readPalletPlan(filled(), 'inch').plan?.pallets).toHaveLength(3)
    const none = filled()
    for (const pallet of none.pallets) pallet.draft.finishes = false
    const { plan, problems } = readPalletPlan(none, 'inch')
    expect(plan).toBeUndefined()
    expect(problems['pallets.0.finishes']?.says).toContain('come finished')
  })
  it('a program is chosen, and not longer than can be kept', () => {
    const says = (text: string) => {
      const draft = filled()
      for (const pallet of draft.pallets) pallet.program.text = text
      return readPalletPlan(draft, 'inch').problems['pallets.0.program']?.says
    }
    expect(says('  \n')).toBe('Choose its program.')
    expect(says('O1'.padEnd(200_000))).toBeUndefined()
    expect(says('O1'.padEnd(200_001))).toContain('Longer than 200,000')
  })
})

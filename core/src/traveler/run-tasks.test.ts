import { describe, expect, it } from 'vitest'
import { demoLogs, withGoodPallets } from '../demo/testing.ts'
import type { Entry, EntryOf } from '../setup/index.ts'
import { correctionsDue, footOf } from './index.ts'
import { firstOf, setupOf, stateOf, travel } from './testing.ts'
import { Shift } from './testing-shift.ts'

const now = Date.UTC(2026, 10, 26, 9, 30)
const { titled } = demoLogs(now)

describe('pallets', () => {
  const log = titled('both operations')
  const planned = log.find(
    (each): each is EntryOf<'palleted'> => each.kind === 'palleted',
  ) as EntryOf<'palleted'>
  const { good, log: mended } = withGoodPallets(log)
  let n = 0
  const after = (body: object): Entry => {
    const at = new Date(now + ++n * 60_000).toISOString()
    return {
      id: `7ZZZZZZZZZZZZZZZZZZZZZZZ${String(n).padStart(2, '0')}`,
      setup: log[0]?.setup,
      at,
      by: 'RT',
      ...body,
    } as Entry
  }
  const start = (loaded = 5501) =>
    after({ kind: 'start-checked', inside: 1, loaded, interlock: true, rests: [planned.id] })

  it('are mended, answered before the start, and asked about again after an alarm', () => {
    expect(firstOf(travel(log), 'run')).toBe('Mend the programs of the pallets.')
    expect(firstOf(travel(mended), 'run')).toMatch(/^Before cycle start: say which pallet is inside/)
    const answered = [...mended, start()]
    expect(stateOf(travel(answered), 'run')).toBe('done')
    expect(firstOf(travel([...mended, start(5502)]), 'run')).toMatch(/^Before cycle start/)
    const alarmed = travel([...answered, after({ kind: 'happened', what: 'alarm', note: '' })])
    expect(stateOf(alarmed, 'run')).toBe('stale')
    expect(firstOf(alarmed, 'run')).toBe('Before cycle start: look at the pallet and the program again.')
    // A plan with a stop, answered all the same: the step is not done.
    expect(stateOf(travel([...log, start()]), 'run')).toBe('open')
  })

  it('run nothing that was not proved as it stands: that comes before the start, by name', () => {
    const [one] = good.plan.pallets
    if (!one) throw new Error('the demo has no pallet')
    const text = one.program.text.replace('M30', 'M99')
    const changed: EntryOf<'palleted'> = {
      ...good,
      verdict: 'look',
      // It rested on no proof when it was recorded.
      rests: [],
      plan: {
        ...good.plan,
        pallets: good.plan.pallets.map((each, n) =>
          n > 0 ? each : { ...each, program: { ...one.program, text } },
        ),
      },
    }
    const of = log.map((each) => (each.id === planned.id ? changed : each))
    const { title } = one.program
    const prove = { step: 'prove', part: 'whole', about: title, says: `Prove ${title} as pallet 1 runs it.` }
    const work = (of: readonly Entry[]) => travel(of).left.filter(({ step }) => step !== 'ready')
    expect(work(of)[0]).toMatchObject(prove)
    expect(work([...of, start()])[0]).toMatchObject(prove)
    expect(stateOf(travel([...of, start()]), 'prove')).toBe('open')
    // Nor does the page of pallets say before that that the start is what comes there.
    const foot = (of: readonly Entry[]) =>
      footOf(travel(of), 'run', ({ part }) => part === 'pallets' || part === 'start')
    expect(foot(of)).toMatchObject({ next: prove, here: undefined })
    expect(foot(mended).next?.says).toMatch(/^Before cycle start/)
    // While another plan stands on the page that one is recorded first: its programs may be others.
    const onPage = travel(of, { inHand: { pallets: { verdict: 'good', recorded: false } } })
    expect(onPage.left.find(({ step }) => step === 'prove')).toBeUndefined()
    const proved = log.find(
      (each): each is EntryOf<'proved'> => each.kind === 'proved' && each.title === title,
    )
    const { id: _, at: __, ...proof } = proved as EntryOf<'proved'>
    expect(work([...of, after({ ...proof, text, rests: [] })])[0]?.says).toMatch(/^Before cycle start/)
    // An old proof with a stop proves nothing.
    const stopped = after({ ...proof, text, rests: [], verdict: 'stop', worst: [{ says: 'It crashes.' }] })
    expect(work([...of, stopped])[0]?.says).toMatch(/^Mend /)
  })

  it('run a built program as it was mended for them, under its name: that is proved, and not the two by turns', () => {
    const shift = new Shift('mill')
    for (const act of [
      'ready',
      'home',
      'clear',
      'sweep tight',
      'X of G54',
      'Y of G54',
      'Z of G54',
      'load',
      'check',
    ])
      shift.act(act)
    for (const tool of [3, 5, 12]) shift.act(`length of T${tool}`)
    for (const act of ['place', 'build', 'prove', 'plan pallets of built']) shift.act(act)
    const title = shift.setup.code.coded[0]?.entry.sheet.title ?? ''
    const next = () => travel(shift.log).next
    const follow = () => shift.follow(next() as NonNullable<ReturnType<typeof next>>)
    const asked: string[] = []
    for (let n = 0; n < 10 && next()?.step !== 'hand-over'; n++) {
      asked.push(next()?.says ?? '')
      follow()
    }
    expect(asked).toEqual([
      `Prove ${title} as pallet 1 runs it.`,
      'Prove O5502 second operation as pallet 2 runs it.',
      expect.stringMatching(/^Before cycle start/),
    ])
    // Built anew, the pallets run an earlier text of it: they are looked at before anything of it is proved.
    shift.act('build')
    expect(next()).toMatchObject({ part: 'pallets', says: 'Look at the pallets and record them again.' })
    expect(next()?.why).toBe(`${title} was built or proved anew since: they may run an earlier text of it.`)
  })

  it('that run another text than what stands at the control ask for theirs to be taken there', () => {
    const shift = new Shift('mill')
    for (const act of ['place', 'build', 'take', 'plan pallets of built']) shift.act(act)
    const title = shift.setup.code.coded[0]?.entry.sheet.title ?? ''
    const take = `Take ${title} to the control as pallet 1 runs it.`
    const of = () => travel(shift.log).left.map(({ says }) => says)
    // Nothing is taken there that is not proved.
    expect(of()).not.toContain(take)
    shift.follow({ step: 'prove', part: 'whole', about: title, says: '', why: '', stale: false })
    expect(of()).toContain(take)
    expect(travel(shift.log).left.find(({ part }) => part === 'start')?.waits).toBe(true)
    shift.follow({ step: 'run', part: 'pallets', about: title, says: '', why: '', stale: false })
    expect(of()).not.toContain(take)
    expect(shift.setup.code.taken.get(title)?.entry.text).toContain('M99')
  })

  it('that are mended on the page are to be recorded, not mended', () => {
    const says = (verdict: 'good' | 'stop') =>
      firstOf(travel(log, { inHand: { pallets: { verdict, recorded: false, worst: 'It nests.' } } }), 'run')
    expect(says('good')).toBe('Record the pallets as they are planned now.')
    expect(says('stop')).toBe('Mend the programs of the pallets.')
  })
})

describe('gauging', () => {
  const shift = (...acts: string[]) => {
    const of = new Shift('mill')
    for (const act of ['plan gauging', ...acts]) of.act(act)
    return travel(of.log)
  }
  it('is tried, taken and measured; a part out of tolerance waits for a word', () => {
    expect(firstOf(shift(), 'run')).toMatch(/^Try Test on every kind of part/)
    expect(stateOf(shift('measure'), 'run')).toBe('done')
    expect(firstOf(shift('measure out'), 'run')).toBe('Say what was done about part 2 of Test.')
    expect(firstOf(shift('measure', 'place', 'take gauging', 'plan gauging'), 'run')).toMatch(
      /^Take the gauging program Test again/,
    )
  })
})

describe('a correction', () => {
  const log = titled('first side')
  it('is due by the drift that the chart shows, and not once it was made', () => {
    const before = log.slice(
      0,
      log.findIndex(({ kind }) => kind === 'corrected'),
    )
    const due = (entries: Entry[]) => {
      const setup = setupOf(entries)
      const [series] = setup.gauge.series
      return series ? correctionsDue(series, 'G54', setup).map(({ key }) => key) : []
    }
    const corrected = log.find(({ kind }) => kind === 'corrected') as EntryOf<'corrected'>
    expect(due(before)).toContain('FACE')
    expect(due([...before, corrected])).not.toContain('FACE')
  })
})

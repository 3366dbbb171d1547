import { describe, expect, it } from 'vitest'
import { demoLogs } from '../demo/testing.ts'
import { firstOf, setupOf, stateOf, travel } from './testing.ts'
import { Shift } from './testing-shift.ts'

const TITLE = 'Housing, tapped holes'

/** A mill with its offset taken, and the program of the demo built for it. */
function built() {
  const shift = new Shift('mill')
  for (const act of ['X of G54', 'Y of G54', 'Z of G54', 'load', 'check', 'build']) shift.act(act)
  return shift
}
const left = ({ log }: Shift, step: string) =>
  travel(log)
    .left.filter((task) => task.step === step)
    .map(({ says }) => says)

describe('a program that was built', () => {
  it('is proved against what stands in the work area, then taken to the control', () => {
    const shift = built()
    expect(left(shift, 'prove')).toEqual(['Place the part, the vise and the clamps.', `Prove ${TITLE}.`])
    shift.act('place')
    shift.act('prove')
    expect(stateOf(travel(shift.log), 'prove')).toBe('done')
    expect(left(shift, 'code')).toEqual([`Take ${TITLE} to the control.`])
    shift.act('take')
    expect([left(shift, 'code'), left(shift, 'prove')]).toEqual([[], []])
  })

  it('whose proof says stop is to be mended, and is not taken', () => {
    const shift = built()
    for (const act of ['place', 'prove stop']) shift.act(act)
    expect(left(shift, 'prove')).toEqual([`Mend ${TITLE}: something in it says stop.`])
    expect(left(shift, 'code')).toEqual([])
    expect(stateOf(travel(shift.log), 'prove')).toBe('open')
  })

  it('is taken only when each finding to look at was let stand by somebody, one by one', () => {
    const shift = built()
    for (const act of ['place', 'prove look']) shift.act(act)
    const asked = () => left(shift, 'prove')
    expect(asked()).toEqual(
      [3, 5].map((line) => `Look at line ${line} of ${TITLE}: mend it, or let it stand.`),
    )
    expect(left(shift, 'code')).toEqual([])
    const follow = () => shift.follow(travel(shift.log).left.find(({ step }) => step === 'prove') as never)
    follow()
    expect(asked()).toHaveLength(1)
    follow()
    expect(asked()).toEqual([])
    expect(left(shift, 'code')).toEqual([`Take ${TITLE} to the control.`])
    const { proofs, letStand } = setupOf(shift.log).prove
    expect(letStand.map(({ line, by }) => [line, by])).toEqual([
      [3, 'RT'],
      [5, 'RT'],
    ])
    // Of another text nobody has looked at anything.
    const other = { ...proofs[0]?.entry, id: '7ZZZZZZZZZZZZZZZZZZZZZZZZZ', hash: 'b'.repeat(64) }
    const again = travel([...shift.log, other as never])
    expect(again.left.filter(({ says }) => says.startsWith('Look at line'))).toHaveLength(2)
    // What is more than is kept is not passed over in silence.
    const many = { ...other, counts: { stop: 0, look: 25, note: 0 } }
    expect(travel([...shift.log, many as never]).left.map(({ why }) => why)).toContain(
      '23 more to look at are not kept one by one.',
    )
  })

  it('without a cycle that is on is no program', () => {
    const shift = new Shift('mill')
    shift.act('build off')
    expect(left(shift, 'code')).toEqual([`Switch a cycle of ${TITLE} on, or strike the program out.`])
  })

  it('that stands at the control unproved is asked for, and one that no longer holds is taken again', () => {
    const shift = built()
    for (const act of ['place', 'take']) shift.act(act)
    expect(left(shift, 'prove')).toEqual([`Prove ${TITLE}.`])
    shift.act('prove')
    shift.act('X of G54')
    expect(left(shift, 'code')).toEqual([
      `Look at ${TITLE} and record it again.`,
      `Take ${TITLE} to the control again, or strike it out if it is not there any more.`,
    ])
    expect(left(shift, 'prove')).toEqual([`Prove ${TITLE} again.`])
  })
})

describe('what is typed and not recorded', () => {
  const code = { title: TITLE, on: 1, incomplete: 0, verdict: 'good', recorded: false } as const
  const says = (of: Partial<typeof code> | { verdict: 'stop' } | { incomplete: number }) =>
    firstOf(travel(built().log, { inHand: { code: { ...code, ...of } } }), 'code')
  it('is asked for before what stands in the log', () => {
    expect(says({})).toBe(`Record ${TITLE}, and prove it.`)
    expect(says({ incomplete: 2 })).toBe(`Fill in ${TITLE}: 2 cycles lack something.`)
    expect(says({ verdict: 'stop' })).toBe(`Mend ${TITLE}: something in it says stop.`)
    // What is ticked and complete is not told to be empty.
    expect(says({ recorded: true } as never)).toBeUndefined()
    expect(says({ on: 0 } as never)).toBeUndefined()
  })

  it('in Prove: the first stop, then the proof; a proof that another setup took away', () => {
    const shift = built()
    shift.act('place')
    const of = (proof: object) =>
      firstOf(travel(shift.log, { inHand: { proof: { title: TITLE, recorded: false, ...proof } } }), 'prove')
    expect(of({ stop: { line: 12, says: 'It hits.' } })).toBe('Look at line 12.')
    expect(of({})).toBe('Step through it, and record the proof.')
    expect(of({ recorded: true, against: 'proved before the length of T3 was changed' })).toBe(
      'Step through it, and record the proof again.',
    )
    expect(firstOf(travel(shift.log, { inHand: { area: { bodies: 3, recorded: false } } }), 'prove')).toBe(
      'Record the work area as it is placed.',
    )
  })
})

describe('the proof of the demo', () => {
  const log = demoLogs(Date.UTC(2026, 10, 25, 9)).titled('first side')
  it('is asked for again by its name when the vise is moved', () => {
    const moved = {
      ...log.at(-1),
      id: '7ZZZZZZZZZZZZZZZZZZZZZZZZZ',
      kind: 'happened',
      what: 'vise-moved',
      note: '',
    }
    const traveler = travel([...log, moved as never])
    expect(stateOf(traveler, 'prove')).toBe('stale')
    expect(traveler.left.map(({ says }) => says)).toContain('Prove O5410 first side again.')
    expect(setupOf(log).prove.proofs).toHaveLength(1)
  })
})

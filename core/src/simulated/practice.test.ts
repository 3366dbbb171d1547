import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { takenText } from '../pickup/index.ts'
import { convertLength, readLength } from '../quantity/index.ts'
import { act } from './act.ts'
import { answerProblems, type PracticeResult } from './exercise.ts'
import { EXERCISES, exerciseOf, goodHandAt } from './exercises.ts'
import { againstHidden, hiddenOf } from './hidden.ts'
import { byExercise, errorsInWords, goodHandErrors, peopleOf } from './results.ts'
import { barSketch, tableSketch } from './sketch.ts'
import { millOf, UNITS } from './testing.ts'
import { viewOf } from './view.ts'
import { partZeroOf } from './world.ts'

const result = (more: Partial<PracticeResult>): PracticeResult => ({
  id: '01K00000000000000000000000',
  exercise: 'pallets',
  by: 'RT',
  at: '2026-11-26T09:00:00.000Z',
  unit: 'inch',
  seed: 1,
  seconds: 60,
  good: true,
  figures: [],
  remarks: [],
  hints: 0,
  goodHand: { errors: [], seconds: 0 },
  ...more,
})

describe('answers', () => {
  it('are told what each field still needs, and judged only once all are understood', () => {
    for (const exercise of EXERCISES)
      for (const unit of UNITS) {
        const task = exercise.task(9, unit)
        expect(Object.keys(answerProblems(task, unit, {}))).toEqual(task.fields.map(({ name }) => name))
        const { answers } = goodHandAt(exercise, 9, unit)
        expect(answerProblems(task, unit, answers)).toEqual({})
      }
    const groove = exerciseOf('groove-start')?.task(9, 'inch')
    if (!groove) throw new Error('no exercise')
    const typed = { X: '1..2', start: '-.5', last: '12.7mm' }
    expect(answerProblems(groove, 'inch', typed)).toEqual({ X: { empty: false, says: expect.any(String) } })
  })

  it('are not good where something was hit on the way, however near they are', () => {
    const exercise = exerciseOf('corner-probe')
    if (!exercise) throw new Error('no exercise')
    const { simulated, answers } = goodHandAt(exercise, 3, 'inch')
    if (!simulated) throw new Error('no machine')
    const crashed = { ...simulated, tally: { ...simulated.tally, collisions: 1 } }
    const judged = exercise.judge(crashed, 3, 'inch', answers)
    expect(judged.figures.every(({ good }) => good)).toBe(true)
    expect([judged.good, judged.remarks]).toEqual([false, [expect.stringContaining('hit once')]])
  })

  it('cost a shoulder where the groove starts at its edge, by the width of the insert', () => {
    // trade.md 7: from Z-0.500, starting there would cut the shoulder by the insert's width.
    const exercise = exerciseOf('groove-start')
    const seeds = Array.from({ length: 40 }, (_, seed) => seed + 1)
    const low = seeds.find((seed) =>
      exercise?.task(seed, 'inch').given.some(([, says]) => says.includes('towards the chuck')),
    )
    if (!exercise || low === undefined) throw new Error('no such groove')
    const { given } = exercise.task(low, 'inch')
    const near = /from Z (-?[\d.]+)/.exec(given.find(([name]) => name === 'Groove')?.[1] ?? '')?.[1] ?? ''
    const insert = /^([\d.]+)/.exec(given.find(([name]) => name === 'Insert')?.[1] ?? '')?.[1] ?? ''
    const { answers } = goodHandAt(exercise, low, 'inch')
    const { good, remarks } = exercise.judge(null, low, 'inch', { ...answers, start: near })
    expect(good).toBe(false)
    expect(remarks[0]).toContain(`cut away by ${Number(insert).toFixed(4)} in`)
  })
})

describe('results', () => {
  it('are told by person and exercise: the last one, and how many were good', () => {
    const results = [
      result({ at: '2026-11-26T09:00:00.000Z', good: false, seed: 1 }),
      result({ at: '2026-11-26T10:00:00.000Z', seed: 2 }),
      result({ at: '2026-11-26T11:00:00.000Z', by: 'MK', seed: 3 }),
    ]
    expect(byExercise(results, 'RT').get('pallets')).toMatchObject({ last: { seed: 2 }, times: 2, good: 1 })
    expect(byExercise(results, 'LB').size).toBe(0)
    expect(peopleOf(results)).toEqual(['MK', 'RT'])
  })

  it('say how far off each value was, beside what a good hand was off by', () => {
    const figure = { found: '-1.0000 in', truth: '-1.0004 in', allowed: 0.001, unit: 'inch' } as const
    const of = result({
      figures: [
        { ...figure, name: 'X', error: -0.0004, good: true },
        { ...figure, name: 'tool', error: null, allowed: null, unit: null, found: 'T5', good: false },
      ],
      goodHand: { errors: [-0.0001, null], seconds: 90 },
    })
    expect(errorsInWords(of)).toBe('X off by 0.0004 in; tool: T5, not right')
    expect(goodHandErrors(of)).toEqual([{ error: 0.0001, unit: 'inch' }, null])
  })
})

describe('what is seen and taken', () => {
  it('a position that was taken reads back as what the display shows, in either unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -400_000, max: 400_000 }),
        fc.constantFrom(...UNITS),
        fc.constantFrom(...UNITS),
        (steps, unit, field) => {
          const leastStep = unit === 'inch' ? 0.0001 : 0.001
          const value = steps * leastStep
          const read = readLength(takenText(value, { unit, leastStep }, field), field)
          expect(read.ok && Math.abs(read.value - convertLength(value, unit, field))).toBeLessThan(1e-8)
        },
      ),
      depth(100, 1000),
    )
  })

  it('the picture holds all that stands there, and the tip at its edge where it is further off', () => {
    const simulated = millOf(5, 'inch')
    const far = tableSketch(viewOf(simulated))
    expect(far).toMatchObject({ inPlan: false, overWhat: 'part' })
    for (const { corners } of viewOf(simulated).seen?.bodies ?? [])
      for (const { x, y } of corners) {
        expect(x > (far?.plan.least.x ?? 0) && x < (far?.plan.greatest.x ?? 0)).toBe(true)
        expect(y > (far?.plan.least.y ?? 0) && y < (far?.plan.greatest.y ?? 0)).toBe(true)
      }
    const zero = partZeroOf(simulated.world, simulated.vise.frame)
    const over = { ...simulated, at: { X: zero.X + 1, Y: zero.Y + 1, Z: zero.Z + 2 } }
    const near = tableSketch(viewOf(over))
    expect(near).toMatchObject({ inPlan: true, inSide: true })
    // Nothing is in the spindle: its nose, two inches over the part, to the eye's fiftieth of an inch.
    expect(Math.abs((near?.over ?? 0) - 2)).toBeLessThanOrEqual(0.0201)
    expect(tableSketch(viewOf(act(over, { do: 'part', in: false })))?.overWhat).toBe('vise')
    expect(barSketch(viewOf(simulated))).toBeUndefined()
  })

  it('what is keyed in stands beside what is true, with its sign', () => {
    const simulated = millOf(5, 'inch')
    const zero = partZeroOf(simulated.world, simulated.vise.frame)
    const keyed = act(simulated, { do: 'key-offset', offset: 'G54', axis: 'X', value: zero.X + 0.01 })
    const lines = againstHidden(
      viewOf(keyed),
      hiddenOf({
        ...keyed,
        world: { ...keyed.world, tools: keyed.world.tools.filter(({ shape }) => shape.number === 7) },
      }),
    )
    expect(lines.map(({ name, keyed: of }) => [name, of !== null])).toEqual([
      ['X of G54', true],
      ['Y of G54', false],
      ['Z of G54', false],
      ['length of T7', false],
    ])
    expect(lines[0]?.off).toBeCloseTo(0.01, 9)
    // A lathe's geometry is to the face as it is left (trade.md 4): a good hand's answer lies beside it.
    const touchOff = exerciseOf('touch-off')
    const done = touchOff && goodHandAt(touchOff, 3, 'inch')
    if (!done?.simulated) throw new Error('no lathe')
    const [tool] = hiddenOf(done.simulated).tools
    expect([tool?.length, hiddenOf(done.simulated).zero]).toEqual([null, null])
    for (const axis of ['X', 'Z'] as const)
      expect(Math.abs(Number(done.answers[axis]) - (tool?.geometry?.[axis] ?? 0))).toBeLessThan(0.0005)
  })
})

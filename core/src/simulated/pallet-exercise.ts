import { judgeStart, newPalletPlan, type PalletPlan, readPalletPlan } from '../pallet/index.ts'
import { dice } from './dice.ts'
import { type Answers, type Exercise, judged, ON_PAPER, plainFigure } from './exercise.ts'

/** Two pallets, their programs, and whether a main program calls them. */
function palletCase(seed: number) {
  const chance = dice(seed, 9000)
  const first = Math.floor(chance.between(1000, 4999))
  const second = Math.floor(chance.between(5000, 8999))
  const main = chance.pick([true, false]) ? Math.floor(chance.between(100, 900)) : null
  const inside = chance.pick([1, 2])
  return { numbers: [first, second] as const, main, inside }
}

/** The plan with the table as it was keyed. */
function palletPlanOf(seed: number, table: readonly [string, string]): PalletPlan {
  const { numbers, main } = palletCase(seed)
  const draft = newPalletPlan(2)
  const text = (number: number, pallet: number) => `O${number}\nM6${pallet}\nG0 G54 X0. Y0.\nM99`
  const read = readPalletPlan(
    {
      ...draft,
      main: main ? { number: main, text: `O${main}\nM98 P${numbers[0]}\nM98 P${numbers[1]}\nM99` } : null,
      pallets: draft.pallets.map((each, index) => ({
        draft: {
          ...each.draft,
          operation: index === 0 ? 'first side' : 'second side',
          fixture: index === 0 ? 'vise' : 'plate',
          table: table[index as 0 | 1],
          unload: '30 s',
          load: '45 s',
        },
        program: { title: `Pallet ${index + 1}`, text: text(numbers[index as 0 | 1], index + 1) },
      })),
    },
    'inch',
  )
  if (!read.plan) throw new Error('answers are looked at before they are judged')
  return read.plan
}

const HAPPENS = {
  runs: 'starts, guarded',
  unguarded: 'starts, not guarded',
  refused: 'refused by the control',
  crash: 'a crash',
} as const

export const keyInPallets: Exercise = {
  ...ON_PAPER,
  id: 'pallets',
  title: 'Key in the pallets',
  learns: 'The interlock compares what is loaded with what the table names for the pallet inside.',
  hints: [
    'What is started is what the table must name: the main program for every pallet where there is one, else the program of each pallet.',
    'Load the program that belongs to the pallet inside, or the main program.',
    'The interlock stays on.',
  ],
  task: (seed) => {
    const { numbers, main, inside } = palletCase(seed)
    return {
      goal: 'Key in the pallet table, and say which program you load before the next press of cycle start.',
      given: [
        ['Pallet 1', `first side, program O${numbers[0]}`],
        ['Pallet 2', `second side, program O${numbers[1]}`],
        ['Main program', main ? `O${main} calls both in turn` : 'none: each program is started by itself'],
        ['Inside now', `pallet ${inside}`],
      ],
      fields: [
        { name: 'table1', label: 'Table, pallet 1: O', reads: 'number', hint: 'Program number.' },
        { name: 'table2', label: 'Table, pallet 2: O', reads: 'number', hint: 'Program number.' },
        { name: 'loaded', label: 'Loaded: O', reads: 'number', hint: 'Program number.' },
        {
          name: 'interlock',
          label: 'Interlock',
          reads: 'choice',
          hint: '',
          options: [
            ['on', 'on'],
            ['off', 'off'],
          ],
        },
      ],
    }
  },
  judge: (_bench, seed, _unit, answers) => {
    const { numbers, main, inside } = palletCase(seed)
    const number = (name: string) => String(Number(answers[name]))
    const starts = judgeStart(palletPlanOf(seed, [number('table1'), number('table2')]), {
      inside,
      loaded: Number(answers.loaded),
      interlock: answers.interlock === 'on',
    })
    return judged(
      [
        plainFigure('table, pallet 1', `O${number('table1')}`, `O${main ?? numbers[0]}`),
        plainFigure('table, pallet 2', `O${number('table2')}`, `O${main ?? numbers[1]}`),
        plainFigure('cycle start', HAPPENS[starts.happens], HAPPENS.runs),
      ],
      starts.happens === 'runs' ? [] : [starts.says],
    )
  },
  byGoodHand: (_bench, seed) => {
    const { numbers, main, inside } = palletCase(seed)
    const answers: Answers = {
      table1: String(main ?? numbers[0]),
      table2: String(main ?? numbers[1]),
      loaded: String(main ?? numbers[inside - 1]),
      interlock: 'on',
    }
    return { answers, simulated: null }
  },
}

import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { type Material, USUAL_MATERIALS } from '../cutting/index.ts'
import { grooveForm, grooveSizes, newGroove } from '../cycles/grooving/index.ts'
import { lengthSpread, rankPairs, STOPS, stopKind, USUAL_COLLETS } from '../hold/index.ts'
import { judgeStart, newPalletPlan, type PalletPlan, readPalletPlan } from '../pallet/index.ts'
import {
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  roundTo,
  usualDigits,
} from '../quantity/index.ts'
import { dice } from './dice.ts'
import { type Answers, type Exercise, judged, lengthFigure, lengthOf, plainFigure } from './exercise.ts'
import { practiceMachine } from './world.ts'

const compact = BUILT_IN_PROFILES.find(({ id }) => id === 'compact') as Profile
const typed = (value: number, unit: LengthUnit) => fixedDigits(value, usualDigits(unit))
const onPaper = { machine: null, start: () => null }

/** Bars and a part that a collet and a stop are to be chosen for. */
function gripCase(seed: number, unit: LengthUnit) {
  const chance = dice(seed, 7000)
  const k = unit === 'inch' ? 1 : 25
  const digits = usualDigits(unit)
  const diameter = roundTo(chance.pick([0.5, 0.75, 1]) * k, digits)
  const spread = roundTo(chance.pick([0.002, 0.003, 0.004]) * k, digits)
  // Between what a stop that stays leaves, and what one that moves does.
  const allowed = roundTo((0.001 + chance.between(0.25, 0.9) * 2.5 * (spread / k)) * k, digits)
  return {
    diameter,
    spread,
    allowed,
    range: { least: diameter - spread / 2, greatest: diameter + spread / 2 },
  }
}

const COLLET = USUAL_COLLETS.filter(({ id }) => id !== 'unknown')

export const colletAndStop: Exercise = {
  ...onPaper,
  id: 'collet-stop',
  title: 'Choose collet and stop',
  learns: 'What moves with the collet carries the bar along: length spread = ratio x diameter spread + stop.',
  hints: [
    'Which stops move with the collet or the draw tube? Which are fixed to what does not move?',
    'Length spread = ratio x spread of the bars, where stop or grip moves, plus what the stop itself leaves.',
    'On a second operation the whole spread is in the length of the part.',
  ],
  task: (seed, unit) => {
    const { diameter, spread, allowed } = gripCase(seed, unit)
    return {
      goal: 'Choose a collet and a stop for a second operation, so that the length of the parts stays within its tolerance.',
      given: [
        [
          'Bars',
          `${formatWithUnit(diameter, unit)}, from smallest to largest ${formatWithUnit(spread, unit)}`,
        ],
        ['Length may vary by', formatWithUnit(allowed, unit)],
        ['Operation', 'second: the length is made from the stopped face'],
      ],
      fields: [
        {
          name: 'collet',
          label: 'Held by',
          reads: 'choice',
          hint: '',
          options: COLLET.map(({ id, name }) => [id, name] as const),
        },
        {
          name: 'stop',
          label: 'Stopped',
          reads: 'choice',
          hint: '',
          options: stopKind.options.map((stop) => [stop, STOPS[stop].name] as const),
        },
      ],
    }
  },
  judge: (_bench, seed, unit, answers) => {
    const { range, allowed } = gripCase(seed, unit)
    const collet = COLLET.find(({ id }) => id === answers.collet)
    const stop = stopKind.safeParse(answers.stop)
    if (!collet || !stop.success) throw new Error('answers are looked at before they are judged')
    const spread = lengthSpread({
      collet,
      stop: stop.data,
      operation: 'second',
      unit,
      range,
      allowed,
    })
    const stops = spread.findings.filter(({ severity }) => severity === 'stop')
    const within = spread.value <= allowed && stops.length === 0
    return judged(
      [
        plainFigure(
          'length spread',
          formatWithUnit(spread.value, unit),
          `at most ${formatWithUnit(allowed, unit)}`,
          within,
        ),
      ],
      spread.findings.map(({ says }) => says),
    )
  },
  byGoodHand: (_bench, seed, unit) => {
    const { range, allowed } = gripCase(seed, unit)
    const best = rankPairs({
      collets: COLLET,
      operation: 'second',
      unit,
      range,
      allowed,
      measured: new Map(),
    })[0]
    return { answers: { collet: best?.collet.id ?? '', stop: best?.stop ?? '' }, bench: null }
  },
}

/** A groove as a drawing gives it, and the insert that cuts it. */
function grooveCase(seed: number, unit: LengthUnit) {
  const chance = dice(seed, 8000)
  const inch = unit === 'inch'
  const pick = (inches: readonly number[], millimetres: readonly number[]) =>
    chance.pick(inch ? inches : millimetres)
  const surface = pick([1, 1.25, 1.5, 2], [25, 32, 40, 50])
  const insert = pick([0.093, 0.125, 0.187], [2, 3, 4])
  const near = -pick([0.25, 0.5, 0.75], [6, 12, 20])
  const width = roundTo(insert * chance.pick([2, 3.5, 5]), usualDigits(unit))
  const programmed = chance.pick(['low', 'high'] as const)
  return {
    surface,
    insert,
    near,
    far: roundTo(near - width, usualDigits(unit)),
    bottom: surface - pick([0.1, 0.2], [3, 5]),
    programmed,
    clearance: pick([0.1], [2.5]),
  }
}

/** Where the plunges begin and end, and the diameter before them, as the groove's own arithmetic has it. */
function grooveTruth(seed: number, unit: LengthUnit) {
  const of = grooveCase(seed, unit)
  const draft = newGroove(unit)
  const read = grooveForm.read(
    {
      ...draft,
      surface: String(of.surface),
      near: String(of.near),
      far: String(of.far),
      bottom: String(of.bottom),
      insertWidth: String(of.insert),
      programmed: of.programmed,
      clearance: String(of.clearance),
      tool: '1',
      finish: false,
    },
    unit,
  )
  if (!read.ok) throw new Error(`the groove of seed ${seed} is not understood`)
  const machine = practiceMachine('lathe', unit)
  const { start, last } = grooveSizes(
    read.value,
    { profile: compact, machine, unit, tools: [], angle: 0 },
    USUAL_MATERIALS[0] as Material,
  )
  return { X: of.surface + of.clearance, start, last }
}

export const grooveStart: Exercise = {
  ...onPaper,
  id: 'groove-start',
  title: "Write the groove's start point",
  learns: 'The start lies inside the groove by the width of the insert, on the side that is not programmed.',
  hints: [
    'Which corner of the insert does the control know? It is that corner that goes to the Z that is written.',
    'Programmed at the chuck side, the insert reaches its width towards the face: begin its width inside the groove. Programmed at the other corner, end its width inside.',
    'X of the start is the bar and the clearance, as a diameter.',
  ],
  task: (seed, unit) => {
    const of = grooveCase(seed, unit)
    const length = (value: number) => formatLength(value, unit)
    return {
      goal: 'Say where the grooving cycle starts (X and Z) and where its last plunge is (Z), without a finishing pass.',
      given: [
        ['Bar', `${length(of.surface)} diameter, bottom of the groove ${length(of.bottom)}`],
        ['Groove', `from Z ${length(of.near)} to Z ${length(of.far)}`],
        [
          'Insert',
          `${length(of.insert)} wide, programmed at its ${of.programmed === 'low' ? 'corner towards the chuck' : 'corner away from the chuck'}`,
        ],
        ['Clearance', `${length(of.clearance)} on diameter`],
      ],
      fields: [
        { name: 'X', label: 'X of the start', reads: 'length', hint: 'A diameter.' },
        { name: 'start', label: 'Z of the start', reads: 'length', hint: 'Of the programmed corner.' },
        { name: 'last', label: 'Z of the last plunge', reads: 'length', hint: 'Of the same corner.' },
      ],
    }
  },
  judge: (_bench, seed, unit, answers) => {
    const truth = grooveTruth(seed, unit)
    const allowed = unit === 'inch' ? 0.0005 : 0.01
    const { insert, near, far, programmed } = grooveCase(seed, unit)
    const [start, last] = [lengthOf(answers, 'start', unit), lengthOf(answers, 'last', unit)]
    const reach = programmed === 'low' ? [start + insert, last] : [start, last - insert]
    const over = [(reach[0] as number) - near, far - (reach[1] as number)]
    return judged(
      [
        lengthFigure('X of the start', lengthOf(answers, 'X', unit), truth.X, allowed, unit),
        lengthFigure('Z of the start', start, truth.start, allowed, unit),
        lengthFigure('Z of the last plunge', last, truth.last, allowed, unit),
      ],
      [
        ...((over[0] as number) > allowed
          ? [`The shoulder towards the face would be cut away by ${formatWithUnit(over[0] as number, unit)}.`]
          : []),
        ...((over[1] as number) > allowed
          ? [
              `The shoulder towards the chuck would be cut away by ${formatWithUnit(over[1] as number, unit)}.`,
            ]
          : []),
      ],
    )
  },
  byGoodHand: (_bench, seed, unit) => {
    const { X, start, last } = grooveTruth(seed, unit)
    return { answers: { X: typed(X, unit), start: typed(start, unit), last: typed(last, unit) }, bench: null }
  },
}

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
  ...onPaper,
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
    return { answers, bench: null }
  },
}

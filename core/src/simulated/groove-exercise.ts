import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { type Material, USUAL_MATERIALS } from '../cutting/index.ts'
import { exampleGroove, grooveForm, grooveSizes, newGroove } from '../cycles/grooving/index.ts'
import { formatLength, formatWithUnit, type LengthUnit, roundTo, usualDigits } from '../quantity/index.ts'
import { dice } from './dice.ts'
import { type Exercise, judged, lengthFigure, lengthOf, ON_PAPER } from './exercise.ts'
import { practiceMachine } from './world.ts'

const compact = BUILT_IN_PROFILES.find(({ id }) => id === 'compact') as Profile
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
  const draft = { ...newGroove(unit), ...exampleGroove(unit) }
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
  ...ON_PAPER,
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
    return {
      answers: { X: formatLength(X, unit), start: formatLength(start, unit), last: formatLength(last, unit) },
      simulated: null,
    }
  },
}

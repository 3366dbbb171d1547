import { lengthSpread, rankPairs, STOPS, stopKind, USUAL_COLLETS } from '../hold/index.ts'
import { formatWithUnit, type LengthUnit, roundTo, usualDigits } from '../quantity/index.ts'
import { dice } from './dice.ts'
import { type Exercise, judged, ON_PAPER, plainFigure } from './exercise.ts'

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
  ...ON_PAPER,
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
    return { answers: { collet: best?.collet.id ?? '', stop: best?.stop ?? '' }, simulated: null }
  },
}

import {
  convertLength,
  fixedDigits,
  formatLength,
  formatWithUnit,
  type LengthUnit,
  roundTo,
  usualDigits,
} from '../quantity/index.ts'
import { act, switchOn } from './act.ts'
import { isMill, type SimulatedMill } from './contact.ts'
import { dice } from './dice.ts'
import { type Exercise, judged, lengthFigure, lengthOf, plainFigure, remarksOn } from './exercise.ts'
import { handOn } from './hand.ts'
import { practiceTools } from './practice-tools.ts'
import { planRun } from './run.ts'
import { advance } from './running.ts'
import type { SimulatedState } from './state.ts'
import { millWorld, partZeroOf, practiceMachine, type Standing } from './world.ts'

/** A number as a program has it: with its point. */
const word = (value: number, unit: LengthUnit) => {
  const text = fixedDigits(value, unit === 'inch' ? 3 : 2).replace(/0+$/, '')
  return text.startsWith('-0.') ? `-${text.slice(2)}` : text.startsWith('0.') ? text.slice(1) || '0.' : text
}

/** A mill that is set up: part zero and all lengths keyed in as they truly are, to the last digit of the display. */
function setUp(seed: number, unit: LengthUnit, block?: { x: number; y: number; z: number }): SimulatedMill {
  const machine = practiceMachine('mill', unit)
  const world = millWorld(seed, {
    machine,
    squared: true,
    tools: practiceTools('mill', unit),
    ...(block ? { block } : {}),
  })
  const simulated = switchOn(world) as SimulatedMill
  const zero = partZeroOf(world, simulated.vise.frame)
  const keyed = (value: number) => roundTo(value, usualDigits(unit))
  return {
    ...simulated,
    offsets: { G54: { X: keyed(zero.X), Y: keyed(zero.Y), Z: keyed(zero.Z) } },
    lengths: Object.fromEntries(world.tools.map(({ shape, length }) => [shape.number, keyed(length)])),
  }
}

const asMill = (simulated: SimulatedState | null): SimulatedMill => {
  if (!simulated || !isMill(simulated)) throw new Error('this exercise is done at a mill')
  return simulated
}

/** Three tools, each over the part at a known height first: what the approach is looked at for. */
function threeTools(unit: LengthUnit): string {
  const own = (inch: number) => word(unit === 'inch' ? inch : Math.round(inch * 25), unit)
  const tool = (number: number, x: number, y: number, depth: number, rpm: number) => [
    `T${number} M6`,
    `G0 G54 X${own(x)} Y${own(y)}`,
    `S${rpm} M3`,
    `G43 H${number} Z${own(1)}`,
    `Z${own(0.1)}`,
    `G1 Z${own(-depth)} F${own(8)}`,
    `G0 Z${own(1)}`,
    'M5',
    'G53 G0 Z0.',
  ]
  return [
    '%',
    'O00100 (THREE TOOLS)',
    `${unit === 'inch' ? 'G20' : 'G21'} G90 G17 G40 G49 G80`,
    'G53 G0 Z0.',
    ...tool(5, 1, 1, 0.06, 2000),
    ...tool(3, 1, 1, 0.5, 2500),
    ...tool(7, 2, 1, 0.2, 3000),
    'M30',
    '%',
  ].join('\n')
}

/** Which tool is keyed in wrong, and by how much, to a tenth of an inch or a millimetre or so. */
function wrongOne(seed: number, unit: LengthUnit) {
  const chance = dice(seed, 5000)
  const tool = chance.pick([3, 5, 7])
  const off = chance.pick([-1, 1]) * roundTo(chance.between(0.5, 1.4), 1)
  return { tool, off: unit === 'inch' ? off : Math.round(off * 25) }
}

const wrongLengthStart = (seed: number, unit: LengthUnit): SimulatedMill => {
  const simulated = setUp(seed, unit)
  const { tool, off } = wrongOne(seed, unit)
  const lengths = { ...simulated.lengths, [tool]: (simulated.lengths[tool] ?? 0) + off }
  return act({ ...simulated, lengths }, { do: 'load', text: threeTools(unit) }) as SimulatedMill
}

/** How near an eye can tell a height of a few inches. By judgement. */
const byEye = (unit: LengthUnit) => (unit === 'inch' ? 0.1 : 2.5)

/** Seconds after which any block of these programs is over. */
const LONG = 600

export const wrongLength: Exercise = {
  id: 'wrong-length',
  title: 'Find the wrong tool length from the distance to go',
  machine: 'mill',
  learns: 'Before each press: does the distance to go agree with what the eye sees?',
  hints: [
    'Single block on. Press cycle start block by block, and before each move in Z compare the distance to go with the gap that you see.',
    'At the first approach the tool should end a known height over the part. Gap seen, less that height, is what the distance to go should be.',
    'A distance to go that is too long goes too deep: the length in the table is too small. The difference is how much.',
  ],
  start: wrongLengthStart,
  task: (_seed, unit) => ({
    goal: 'One tool length in the table is wrong. Step the program in single block, say which tool it is and by how much, and hit nothing.',
    given: [
      ['Offset', 'G54 is right'],
      ['First approach', `Z${word(unit === 'inch' ? 1 : 25, unit)} over the part, every tool`],
      ['Good is', `within ${formatWithUnit(byEye(unit), unit)}, by eye`],
    ],
    fields: [
      {
        name: 'tool',
        label: 'Tool',
        reads: 'choice',
        hint: '',
        options: [
          ['3', 'T3'],
          ['5', 'T5'],
          ['7', 'T7'],
        ],
      },
      {
        name: 'off',
        label: 'Length in the table is too long by',
        reads: 'length',
        hint: 'Minus where it is too short.',
      },
    ],
    text: threeTools(unit),
  }),
  judge: (simulated, seed, unit, answers) => {
    const { tool, off } = wrongOne(seed, unit)
    const left = asMill(simulated)
    return judged(
      [
        plainFigure('tool', `T${answers.tool}`, `T${tool}`),
        lengthFigure('too long by', lengthOf(answers, 'off', unit), off, byEye(unit), unit),
      ],
      remarksOn(left),
      left.tally.collisions === 0,
    )
  },
  byGoodHand: (simulated, _seed, unit) => {
    const hand = handOn(asMill(simulated))
    const approach = unit === 'inch' ? 1 : 25
    const answers = { tool: '', off: '' }
    for (let press = 0; press < 200; press++) {
      const view = hand.see()
      if (!view.run || view.run.phase === 'done' || view.alarm) break
      const { toGo, next } = view.run
      const part = view.seen?.bodies.find(({ role }) => role === 'part')
      if (
        toGo &&
        part &&
        view.seen &&
        view.mounted.tool &&
        next?.includes('rapid') &&
        toGo[2] < -2 * approach
      ) {
        const off = toGo[2] + (view.seen.tipZ - part.top) - approach
        if (Math.abs(off) > byEye(unit)) {
          answers.tool = String(view.mounted.tool)
          answers.off = formatLength(off, unit)
          break
        }
      }
      hand.do({ do: 'start' })
      hand.simulated = advance(hand.simulated, LONG)
    }
    return { answers, simulated: hand.simulated }
  },
}

/** Holes along the part, and the pair that a clamp stands between. */
function clampCase(seed: number, unit: LengthUnit) {
  const own = (inch: number) => (unit === 'inch' ? inch : Math.round(inch * 25))
  const chance = dice(seed, 6000)
  const holes = [0.5, 1.2, 1.9, 2.6, 3.3, 4].map(own)
  const after = Math.floor(chance.between(0, 4.999))
  const between = ((holes[after] as number) + (holes[after + 1] as number)) / 2
  const y = own(1)
  const way = chance.pick(['cycle', 'moves'] as const)
  const lines =
    way === 'cycle'
      ? [
          `G99 G81 X${word(holes[0] as number, unit)} Y${word(y, unit)} Z${word(-own(0.4), unit)} R${word(own(0.1), unit)} F${word(own(8), unit)}`,
          ...holes.slice(1).map((x) => `X${word(x, unit)}`),
          'G80',
        ]
      : holes.flatMap((x) => [
          `G0 X${word(x, unit)}`,
          `Z${word(own(0.1), unit)}`,
          `G1 Z${word(-own(0.4), unit)} F${word(own(8), unit)}`,
          `G0 Z${word(own(0.1), unit)}`,
        ])
  const text = [
    '%',
    'O00200 (SIX HOLES)',
    `${unit === 'inch' ? 'G20' : 'G21'} G90 G17 G40 G49 G80`,
    'G53 G0 Z0.',
    'T3 M6',
    `G0 G54 X${word(holes[0] as number, unit)} Y${word(y, unit)}`,
    'S2500 M3',
    `G43 H3 Z${word(own(1), unit)}`,
    ...lines,
    'M5',
    'G53 G0 Z0.',
    'M30',
    '%',
  ].join('\n')
  return { text, between, width: own(0.3), height: own(0.7), y }
}

const clampStart = (seed: number, unit: LengthUnit): SimulatedMill => {
  const { text, between, width, height } = clampCase(seed, unit)
  const size = unit === 'inch' ? { x: 4.5, y: 2, z: 1.5 } : { x: 112, y: 50, z: 38 }
  const simulated = setUp(seed, unit, size)
  const { world } = simulated
  const clamp: Standing = {
    id: 'clamp',
    name: 'clamp',
    role: 'clamp',
    rect: {
      x0: world.block.x + between - width / 2,
      x1: world.block.x + between + width / 2,
      y0: -world.block.size.y,
      y1: convertLength(0.5, 'inch', unit),
    },
    bottom: world.block.top,
    top: world.block.top + height,
  }
  return act({ ...simulated, world: { ...world, around: [...world.around, clamp] } } as SimulatedMill, {
    do: 'load',
    text,
  }) as SimulatedMill
}

/** The line in which this machine hits something first; 0 where it does not. */
function hitLine(simulated: SimulatedState, text: string): number {
  const { hits, motion } = planRun(simulated, text)
  const rows = [...hits.keys()]
  return rows.length === 0 ? 0 : (motion.line[Math.min(...rows)] as number)
}

export const spotTheClamp: Exercise = {
  id: 'spot-clamp',
  title: 'Spot the clamp',
  machine: 'mill',
  learns: 'Between two holes the tool goes at the height that it came up to: is the clamp lower than that?',
  hints: [
    'Compare the height of the clamp over the part with the heights at which the tool goes from hole to hole.',
    'G98 goes back to the height before the cycle, G99 only to R. Without a cycle it is the last Z that was written.',
    'Find the two holes that the clamp stands between: the move from one to the other is the line.',
  ],
  start: clampStart,
  task: (seed, unit) => {
    const { text, between, height } = clampCase(seed, unit)
    return {
      goal: 'One line of this program takes the drill through the clamp. Which? You may step it here; say it before it happens.',
      given: [
        ['Clamp', `across the part at X ${formatWithUnit(between, unit)}`],
        ['Height of the clamp', `${formatWithUnit(height, unit)} over the part`],
      ],
      fields: [
        { name: 'line', label: 'Line', reads: 'number', hint: 'As it is numbered beside the program.' },
      ],
      text,
    }
  },
  judge: (simulated, seed, unit, answers) => {
    const left = asMill(simulated)
    const line = hitLine(clampStart(seed, unit), clampCase(seed, unit).text)
    return judged(
      [plainFigure('line', String(Number(answers.line)), String(line))],
      remarksOn(left),
      left.tally.collisions === 0,
    )
  },
  byGoodHand: (simulated, seed, unit) => {
    // It proves the program before it runs it.
    const line = hitLine(asMill(simulated), clampCase(seed, unit).text)
    return { answers: { line: String(line) }, simulated }
  },
}

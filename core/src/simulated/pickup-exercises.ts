import { REPEATABILITY } from '../pickup/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { switchOn } from './act.ts'
import { isMill } from './contact.ts'
import { finderOf } from './devices.ts'
import {
  type Answers,
  type Exercise,
  judged,
  lengthFigure,
  lengthOf,
  remarksOn,
  type Task,
} from './exercise.ts'
import {
  type Hand,
  handOn,
  indicateBothSides,
  toolOnBlock,
  touchByFinder,
  touchByProbe,
  touchBySensor,
} from './hand.ts'
import { practiceTools } from './practice-tools.ts'
import type { SimulatedState } from './state.ts'
import { millWorld, partZeroOf, practiceMachine } from './world.ts'

const squareMill = (seed: number, unit: LengthUnit): SimulatedState =>
  switchOn(
    millWorld(seed, {
      machine: practiceMachine('mill', unit),
      squared: true,
      tools: practiceTools('mill', unit),
    }),
  )

/** How far off a value may be: as far as the method repeats, and one step of the display. */
const allowedBy = (method: keyof typeof REPEATABILITY, unit: LengthUnit) =>
  REPEATABILITY[method][unit] + practiceMachine('mill', unit).leastStep

/** The machine of an exercise at a mill; null where the page sent none, which is a mistake of ours. */
function millOf(simulated: SimulatedState | null) {
  if (!simulated || !isMill(simulated)) throw new Error('this exercise is done at a mill')
  return simulated
}

const X_Y = (['X', 'Y'] as const).map((axis) => ({
  name: axis,
  label: `${axis} of G54`,
  reads: 'length' as const,
  hint: `Machine ${axis} with the spindle over the corner.`,
}))

interface CornerBy {
  id: string
  title: string
  learns: string
  hints: readonly string[]
  method: 'edge-finder' | 'sensor' | 'probe' | 'indicator'
  /** What the form of the app is filled with from the start. */
  carried: (unit: LengthUnit) => Record<string, string>
  /** X and Y of the corner, as a good hand finds them. */
  find: (hand: Hand, unit: LengthUnit) => { X: number; Y: number }
  name: string
}

function corner({ method, carried, find, name, ...rest }: CornerBy): Exercise {
  const task = (_seed: number, unit: LengthUnit): Task => ({
    goal: `Find part zero at the front left corner of the block with the ${name}, and say what G54 has for X and Y.`,
    given: [
      ['Part zero', 'front left corner of the block'],
      ['Vise', 'square'],
      ...(method === 'indicator'
        ? []
        : [['Tip', formatWithUnit(method === 'sensor' ? 0 : 2 * finderOf(method, unit).tip, unit)] as const]),
      ['Good is', `within ${formatWithUnit(allowedBy(method, unit), unit)}`],
    ],
    fields: X_Y,
    form: { methods: { X: method, Y: method }, carried: { drawingPosition: '0', ...carried(unit) } },
  })
  return {
    ...rest,
    machine: 'mill',
    start: squareMill,
    task,
    judge: (left, _seed, unit, answers) => {
      const simulated = millOf(left)
      const zero = partZeroOf(simulated.world, simulated.vise.frame)
      const figures = (['X', 'Y'] as const).map((axis) =>
        lengthFigure(
          `${axis} of G54`,
          lengthOf(answers, axis, unit),
          zero[axis],
          allowedBy(method, unit),
          unit,
        ),
      )
      return judged(figures, remarksOn(simulated), simulated.tally.collisions === 0)
    },
    byGoodHand: (simulated, _seed, unit) => {
      const hand = handOn(millOf(simulated))
      const { X, Y } = find(hand, unit)
      return { answers: { X: formatLength(X, unit), Y: formatLength(Y, unit) }, simulated: hand.simulated }
    },
  }
}

const byTouch =
  (touch: typeof touchByFinder, radius: (unit: LengthUnit) => number) => (hand: Hand, unit: LengthUnit) => ({
    X: touch(hand, { axis: 'X', way: 1 }) + radius(unit),
    Y: touch(hand, { axis: 'Y', way: 1 }) + radius(unit),
  })

const withFinder = corner({
  id: 'corner-edge-finder',
  title: 'Pick up a corner with an edge finder',
  learns: 'Half the tip, and its sign: the spindle stands short of the face by half the diameter.',
  hints: [
    'Put the edge finder into the spindle, run it at 1000 a minute, and go beside the left face with the tip a little below the top of the part.',
    'Go towards the face in ever finer steps. When it kicks, come back a little, and go in again in the finest step.',
    'At the kick the spindle stands half the tip short of the face. Going plus: face = position + half the tip.',
  ],
  method: 'edge-finder',
  carried: (unit) => ({ diameter: String(2 * finderOf('edge-finder', unit).tip) }),
  find: byTouch(touchByFinder, (unit) => finderOf('edge-finder', unit).tip),
  name: 'edge finder',
})

const withSensor = corner({
  id: 'corner-sensor',
  title: 'Pick up a corner with a 3D sensor',
  learns: 'With both hands at zero the spindle stands over the face: nothing is added.',
  hints: [
    'The spindle stands still. Go beside the face with the ball below the top of the part.',
    'Go in until the dial moves, and on in finer steps until it stands at zero: the ball is then pushed aside by its own radius.',
    'Do not run past zero by much: the stylus breaks. The machine position is the face itself.',
  ],
  method: 'sensor',
  carried: () => ({}),
  find: byTouch(touchBySensor, () => 0),
  name: '3D sensor',
})

const withProbe = corner({
  id: 'corner-probe',
  title: 'Pick up a corner with a probe',
  learns: 'A search only a little longer than the gap, twice; and half the stylus.',
  hints: [
    'Stand beside the face with the ball below the top of the part, a known gap away.',
    'Search a little further than the gap, back off, and search again from close by: the second touch counts.',
    'At the trigger the spindle stands half the stylus short of the face.',
  ],
  method: 'probe',
  carried: (unit) => ({ diameter: String(2 * finderOf('probe', unit).tip) }),
  find: byTouch(touchByProbe, (unit) => finderOf('probe', unit).tip),
  name: 'probe',
})

const bothSides = corner({
  id: 'both-sides',
  title: 'Indicate both sides of a face',
  learns: 'The middle of two zero positions is the plane, whatever the swing of the indicator is.',
  hints: [
    'Turn the stylus to the face, go in until the dial moves, rock the spindle to the high spot, push on a little, and set the dial to zero.',
    'Hold a gauge block against the same face: over the part, its face is the other side of the same plane. Turn the stylus round, and bring the dial to the same zero on the high spot.',
    'Plane = middle of the two machine positions. Half their distance is the swing: it must come out the same on X and Y, or the indicator was bumped.',
  ],
  method: 'indicator',
  carried: () => ({}),
  find: (hand) => {
    const x = indicateBothSides(hand, 'X-')
    const y = indicateBothSides(hand, 'Y-')
    return { X: (x.minusSide + x.plusSide) / 2, Y: (y.minusSide + y.plusSide) / 2 }
  },
  name: 'test indicator',
})

/** The tool of the exercise for Z, and its gauge block. */
const TOOL = 7
const blockHeight = (unit: LengthUnit) => (unit === 'inch' ? 1 : 25)

/** Its length as a presetter says. */
function presetOf(simulated: SimulatedState, unit: LengthUnit): string {
  const length = simulated.world.tools.find(({ shape }) => shape.number === TOOL)?.length ?? 0
  return formatLength(length, unit)
}

const onBlock: Exercise = {
  id: 'tool-on-block',
  title: 'Find Z with a tool on a gauge block',
  machine: 'mill',
  learns: 'The block goes in last, and Z is machine position, less tool length, less block.',
  hints: [
    'Put the tool into the spindle, and come down over the part until the block does not go in any more. Never push the block against a tool that comes down.',
    'Raise by thousandths until the block goes in, then by the finest step until it just drags.',
    'Z = machine position - tool length - block.',
  ],
  start: squareMill,
  task: (seed, unit) => ({
    goal: `Find Z of part zero at the top of the block with T${TOOL} on a gauge block, and say what G54 has for Z.`,
    given: [
      ['Part zero', 'top of the block'],
      ['Gauge block', formatWithUnit(blockHeight(unit), unit)],
      [`Length of T${TOOL}`, `${presetOf(squareMill(seed, unit), unit)}, from the gauge line`],
      ['Good is', `within ${formatWithUnit(allowedBy('tool-on-block', unit), unit)}`],
    ],
    fields: [
      {
        name: 'Z',
        label: 'Z of G54',
        reads: 'length',
        hint: 'Machine Z of the gauge line with a tool of length 0 on the part.',
      },
    ],
    form: {
      methods: { Z: 'tool-on-block' },
      carried: {
        tool: String(TOOL),
        toolLength: presetOf(squareMill(seed, unit), unit),
        blockHeight: String(blockHeight(unit)),
        drawingPosition: '0',
      },
    },
  }),
  judge: (left, _seed, unit, answers) => {
    const simulated = millOf(left)
    const { Z } = partZeroOf(simulated.world, simulated.vise.frame)
    return judged(
      [lengthFigure('Z of G54', lengthOf(answers, 'Z', unit), Z, allowedBy('tool-on-block', unit), unit)],
      remarksOn(simulated),
      simulated.tally.collisions === 0,
    )
  },
  byGoodHand: (simulated, _seed, unit) => {
    const hand = handOn(millOf(simulated))
    const position = toolOnBlock(hand, TOOL, blockHeight(unit))
    const Z = position - Number(presetOf(hand.simulated, unit)) - blockHeight(unit)
    return { answers: { Z: formatLength(Z, unit) } satisfies Answers, simulated: hand.simulated }
  },
}

export const PICKUP_EXERCISES: readonly Exercise[] = [withFinder, withSensor, withProbe, bothSides, onBlock]

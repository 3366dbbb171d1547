import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { switchOn } from './act.ts'
import { isMill } from './contact.ts'
import { type Exercise, judged, lengthFigure, lengthOf, plainFigure, remarksOn } from './exercise.ts'
import { handOn } from './hand.ts'
import { skimAndFace, squareVise } from './hand-setting.ts'
import { isLathe } from './lathe.ts'
import { practiceTools } from './practice-tools.ts'
import type { SimulatedState } from './state.ts'
import { latheWorld, millWorld, practiceMachine } from './world.ts'

/** What the jaw may be out over its length. */
const squareWithin = (unit: LengthUnit) => (unit === 'inch' ? 0.001 : 0.025)

const looseMill = (seed: number, unit: LengthUnit): SimulatedState => {
  const simulated = switchOn(
    millWorld(seed, { machine: practiceMachine('mill', unit), tools: practiceTools('mill', unit) }),
  )
  return {
    ...simulated,
    partIn: false,
    vise: simulated.vise && { ...simulated.vise, left: 'snug', right: 'snug' },
  }
}

export const squareTheVise: Exercise = {
  id: 'square-vise',
  title: 'Square the vise with one bolt',
  machine: 'mill',
  learns: 'With one bolt out the vise turns about the other: tap to the target, not to zero.',
  hints: [
    'Take the right bolt out. Bring the indicator to the fixed jaw near its left end, push it in a little, and set the dial to zero.',
    'Go along X to the right end and read the dial. The target is not zero: zero at the left end would move too. Target = reading x (bolt - left place) / (right place - left place).',
    'Tap the right end until the dial shows the target, go back, set zero, and sweep again. Then snug the bolt, tighten both, and sweep after each: tightening moves vises.',
  ],
  start: looseMill,
  task: (seed, unit) => {
    const { vise } = looseMill(seed, unit).world as ReturnType<typeof millWorld>
    return {
      goal: 'Square the fixed jaw to X, and leave both bolts tight.',
      given: [
        ['Jaw', `${formatWithUnit(vise.length, unit)} long`],
        ['Bolts', `${formatWithUnit(-vise.pivots.left, unit)} outside the jaw at each end`],
        ['Good is', `within ${formatWithUnit(squareWithin(unit), unit)} over the jaw`],
      ],
      fields: [],
    }
  },
  judge: (simulated, _seed, unit) => {
    if (!simulated || !isMill(simulated)) throw new Error('this exercise is done at a mill')
    const { frame, left, right } = simulated.vise
    const out = Math.tan(frame.angle) * simulated.world.vise.length
    const tight = left === 'tight' && right === 'tight'
    return judged(
      [
        lengthFigure('out over the jaw', out, 0, squareWithin(unit), unit),
        plainFigure('bolts', tight ? 'both tight' : `left ${left}, right ${right}`, 'both tight'),
      ],
      remarksOn(simulated),
      simulated.tally.collisions === 0,
    )
  },
  byGoodHand: (simulated) => {
    if (!simulated) throw new Error('this exercise is done at a mill')
    const hand = handOn(simulated)
    squareVise(hand)
    return { answers: {}, simulated: hand.simulated }
  },
}

const lathe = (seed: number, unit: LengthUnit): SimulatedState =>
  switchOn(latheWorld(seed, { machine: practiceMachine('lathe', unit), tools: practiceTools('lathe', unit) }))

/** How far off the geometry may be: as a skim is measured, on the diameter; a face is touched as well. */
const geometryWithin = (unit: LengthUnit) => (unit === 'inch' ? 0.0006 : 0.015)

export const touchOff: Exercise = {
  id: 'touch-off',
  title: 'Touch off a tool on the lathe',
  machine: 'lathe',
  learns: 'X geometry is machine X less the measured diameter; do not move X before it is read.',
  hints: [
    'Start the spindle. Take a few hundredths off the face, across to the centre line, and go away along Z only when Z is read.',
    'Take a light skim along the side, and go away along Z: X stays where it was cut.',
    'Stop the spindle and measure. X = machine X - diameter. Z = machine Z at the face - Z of the face, which is 0 here.',
  ],
  start: lathe,
  task: (_seed, unit) => ({
    goal: 'Find the geometry of T1 for X and Z. The face that you cut is Z 0.',
    given: [
      ['Part zero', 'the face, as you leave it'],
      ['X', 'is shown and keyed in as a diameter'],
      ['Good is', `within ${formatWithUnit(geometryWithin(unit), unit)}`],
    ],
    fields: [
      { name: 'X', label: 'X geometry of T1', reads: 'length', hint: 'Machine X less the diameter.' },
      { name: 'Z', label: 'Z geometry of T1', reads: 'length', hint: 'Machine Z at the face.' },
    ],
    form: { methods: { X: 'skimmed', Z: 'faced' }, carried: { drawingPosition: '0' } },
  }),
  judge: (simulated, _seed, unit, answers) => {
    if (!simulated || !isLathe(simulated)) throw new Error('this exercise is done at a lathe')
    const geometry = simulated.world.tools[0]?.geometry ?? { X: 0, Z: 0 }
    const allowed = geometryWithin(unit)
    return judged(
      [
        lengthFigure('X geometry', lengthOf(answers, 'X', unit), geometry.X, allowed, unit),
        lengthFigure(
          'Z geometry',
          lengthOf(answers, 'Z', unit),
          geometry.Z + simulated.bar.face,
          allowed,
          unit,
        ),
      ],
      [
        ...remarksOn(simulated),
        ...(simulated.bar.pip ? ['A pip is left in the middle of the face: go to the centre line.'] : []),
        ...(simulated.bar.turned
          ? []
          : ['No skim was cut: a raw bar is not round, and not the size that it is sold as.']),
      ],
      simulated.tally.collisions === 0,
    )
  },
  byGoodHand: (simulated, _seed, unit) => {
    if (!simulated) throw new Error('this exercise is done at a lathe')
    const hand = handOn(simulated)
    const { X, measured, Z } = skimAndFace(hand, 1)
    return {
      answers: { X: formatLength(X - measured, unit), Z: formatLength(Z, unit) },
      simulated: hand.simulated,
    }
  },
}

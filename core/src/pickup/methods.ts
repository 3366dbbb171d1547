import { z } from 'zod'
import type { LinearAxis, Machine } from '../machine/index.ts'
import type { PickupMethod } from './reading.ts'

export const pickupMethod = z.enum([
  'edge-finder',
  'probe',
  'sensor',
  'indicator',
  'middle',
  'swept',
  'circle',
  'corner',
  'tool-on-block',
  'tool-on-feeler',
  'sensor-down',
  'probe-down',
  'probe-set',
  'from-offset',
  'centre-line',
  'skimmed',
  'faced',
]) satisfies z.ZodType<PickupMethod>

export const fieldName = z.enum([
  'diameter',
  'machinePosition',
  'minusSide',
  'plusSide',
  'low',
  'high',
  'width',
  'plusDial',
  'minusDial',
  'points',
  'nominal',
  'pointsX',
  'pointsY',
  'cornerAngle',
  'tool',
  'toolLength',
  'blockHeight',
  'shown',
  'size',
  'measured',
  'drawingPosition',
  'drawingX',
  'drawingY',
])
export type { PickupMethod }
export type FieldName = z.infer<typeof fieldName>

export const choiceName = z.enum(['direction', 'side', 'device', 'directionX', 'directionY'])
export type ChoiceName = z.infer<typeof choiceName>

/** A field of a method's form. */
export interface Field {
  name: FieldName
  reads: 'position' | 'length' | 'tool' | 'points' | 'degrees'
  label: string
  /** Said under it while it is empty. */
  hint: string
  optional?: boolean
  /** It shares its row with the next or the last one. */
  half?: boolean
}

/** A choice of a method's form: its values with their words. */
export interface MethodChoice {
  name: ChoiceName
  label: string
  /** Said where nothing is chosen. */
  needs: string
  options: readonly (readonly [value: string, says: string])[]
}

export interface Method {
  /** What it is called in a sentence and in the log. */
  name: string
  /** What was picked up, for the list. */
  feature: string
  choices: readonly MethodChoice[]
  /** In the order of the work. */
  fields: readonly Field[]
  /** It gives X and Y at once. */
  both?: boolean
  /** It needs a probe on the machine. */
  probe?: boolean
}

const DIRECTION: MethodChoice = {
  name: 'direction',
  label: 'The spindle moved into the face going',
  needs: 'Say which way the spindle moved into the face.',
  options: [
    ['+', '+'],
    ['-', '-'],
  ],
}
const along = (axis: 'X' | 'Y'): MethodChoice => ({
  name: `direction${axis}`,
  label: `Into the face along ${axis} going`,
  needs: `Say which way the spindle moved along ${axis}.`,
  options: DIRECTION.options,
})
const BORE_OR_BOSS: MethodChoice = {
  name: 'side',
  label: 'Which',
  needs: 'Say whether it is a bore or a boss.',
  options: [
    ['bore', 'bore'],
    ['boss', 'boss'],
  ],
}
const POINT_DEVICES: MethodChoice = {
  name: 'device',
  label: 'Touched with',
  needs: 'Say what touched it.',
  options: [
    ['edge-finder', 'edge finder'],
    ['sensor', '3D sensor'],
    ['probe', 'probe'],
  ],
}
const MIDDLE_DEVICES: MethodChoice = {
  ...POINT_DEVICES,
  options: [...POINT_DEVICES.options, ['indicator', 'indicator']],
}

const SHOWN = 'As the machine page of the control shows it.'
const position: Field = { name: 'machinePosition', reads: 'position', label: 'Machine position', hint: SHOWN }
const drawing = (label: string, hint: string): Field => ({
  name: 'drawingPosition',
  reads: 'length',
  label,
  hint,
})
const FACE_ON_DRAWING = drawing('The touched face on the drawing', '0 where the face is part zero.')
const tip = (label: string, hint: string): Field => ({ name: 'diameter', reads: 'length', label, hint })
const FINDER = tip('Finder tip, diameter', '0.200 and 0.500 in or 10 mm are usual.')
const TIP: Field = { ...tip('Tip, diameter', '0 for a 3D sensor.'), half: true }
const DRAWING_XY: readonly Field[] = (['X', 'Y'] as const).map((axis) => ({
  name: `drawing${axis}`,
  reads: 'length',
  label: `${axis} on the drawing`,
  hint: '0 where it is part zero.',
  half: true,
}))
const height = (label: string, hint: string, block: boolean): readonly Field[] => [
  { name: 'tool', reads: 'tool', label: 'Tool', hint: '', half: true },
  {
    name: 'toolLength',
    reads: 'length',
    label: 'Tool length',
    hint: 'As it stands in the tool table.',
    half: true,
  },
  ...(block ? [{ name: 'blockHeight', reads: 'length', label, hint } as const] : []),
  { ...position, hint: block ? 'Block in last; never slide a carbide tool on.' : SHOWN },
  FACE_ON_DRAWING,
]
const BLOCK_HINT = '0 when the tool touches the face itself.'

/** Every way of finding an axis: its name, and what its form asks for. */
export const METHODS: Record<PickupMethod, Method> = {
  'edge-finder': {
    name: 'edge finder',
    feature: 'one face',
    choices: [DIRECTION],
    fields: [
      FINDER,
      { ...position, hint: 'Where it kicked. Read it before you back off this axis.' },
      FACE_ON_DRAWING,
    ],
  },
  sensor: {
    name: '3D sensor',
    feature: 'one face',
    choices: [],
    fields: [{ ...position, hint: 'Spindle stopped, run-out set, both hands at zero.' }, FACE_ON_DRAWING],
  },
  indicator: {
    name: 'indicator, both sides',
    feature: 'one face',
    choices: [],
    fields: [
      {
        name: 'minusSide',
        reads: 'position',
        label: 'Machine position, indicator on the minus side',
        hint: 'Dial at zero on the high spot.',
      },
      {
        name: 'plusSide',
        reads: 'position',
        label: 'Machine position, indicator on the plus side',
        hint: 'Dial at the same zero, other side.',
      },
      FACE_ON_DRAWING,
    ],
  },
  probe: {
    name: 'probe',
    feature: 'one face',
    choices: [DIRECTION],
    fields: [
      tip('Stylus, effective diameter', 'From the qualification of the stylus.'),
      { ...position, hint: 'The trigger position.' },
      FACE_ON_DRAWING,
    ],
    probe: true,
  },
  middle: {
    name: 'middle of two faces',
    feature: 'two faces',
    choices: [
      {
        name: 'side',
        label: 'Which',
        needs: 'Say whether it is a web or a pocket.',
        options: [
          ['web', 'web'],
          ['pocket', 'pocket'],
        ],
      },
      MIDDLE_DEVICES,
    ],
    fields: [
      { ...TIP, hint: '0 for sensor or indicator.' },
      {
        name: 'width',
        reads: 'length',
        label: 'Drawing width',
        hint: 'To know it again.',
        optional: true,
        half: true,
      },
      { name: 'low', reads: 'position', label: 'Minus side, machine', hint: SHOWN, half: true },
      { name: 'high', reads: 'position', label: 'Plus side, machine', hint: SHOWN, half: true },
      drawing('The middle on the drawing', '0 where the middle is part zero.'),
    ],
  },
  swept: {
    name: 'swept with an indicator',
    feature: 'bore or boss',
    choices: [BORE_OR_BOSS],
    fields: [
      position,
      {
        name: 'plusDial',
        reads: 'length',
        label: 'Dial, plus side',
        hint: 'Pushed in reads plus.',
        half: true,
      },
      {
        name: 'minusDial',
        reads: 'length',
        label: 'Dial, minus side',
        hint: 'Spindle turned by half.',
        half: true,
      },
      drawing('The centre on the drawing', '0 where the centre is part zero.'),
    ],
  },
  circle: {
    name: 'circle through touches',
    feature: 'bore or boss',
    choices: [BORE_OR_BOSS, POINT_DEVICES],
    fields: [
      TIP,
      {
        name: 'nominal',
        reads: 'length',
        label: 'Drawing diameter',
        hint: 'To know it again.',
        optional: true,
        half: true,
      },
      {
        name: 'points',
        reads: 'points',
        label: 'Spindle at each touch, X and Y',
        hint: 'Three lines or more; typed, or pasted from the control.',
      },
      ...DRAWING_XY,
    ],
    both: true,
  },
  corner: {
    name: 'corner',
    feature: 'corner',
    choices: [POINT_DEVICES, along('X'), along('Y')],
    fields: [
      {
        name: 'pointsX',
        reads: 'points',
        label: 'Touches on the face along X: X and Y',
        hint: 'The spindle at each, a line each.',
      },
      {
        name: 'pointsY',
        reads: 'points',
        label: 'Touches on the face along Y: X and Y',
        hint: 'The spindle at each, a line each.',
      },
      TIP,
      { name: 'cornerAngle', reads: 'degrees', label: 'Drawing angle', hint: 'Usually 90.', half: true },
      ...DRAWING_XY,
    ],
    both: true,
  },
  'tool-on-block': {
    name: 'tool on gauge block',
    feature: 'one face',
    choices: [],
    fields: height('Gauge block between tool and face', BLOCK_HINT, true),
  },
  'tool-on-feeler': {
    name: 'tool on feeler',
    feature: 'one face',
    choices: [],
    fields: height('Feeler or shim between tool and face', 'Usual: .001, .002 or .005 in; 0.05 mm.', true),
  },
  'sensor-down': {
    name: '3D sensor from above',
    feature: 'one face',
    choices: [],
    fields: height('', '', false),
  },
  'probe-down': {
    name: 'probe from above',
    feature: 'one face',
    choices: [],
    fields: height('', '', false),
    probe: true,
  },
  'probe-set': {
    name: 'set by the probe cycle',
    feature: 'any feature',
    choices: [],
    fields: [
      {
        name: 'shown',
        reads: 'length',
        label: 'As the offset page shows it',
        hint: 'After the cycle has run.',
      },
      {
        name: 'size',
        reads: 'length',
        label: 'Size across it',
        hint: 'If both sides were touched.',
        optional: true,
        half: true,
      },
      {
        name: 'width',
        reads: 'length',
        label: 'Drawing width',
        hint: 'To know it again.',
        optional: true,
        half: true,
      },
    ],
    probe: true,
  },
  'from-offset': { name: 'from another offset', feature: 'offset', choices: [], fields: [] },
  'centre-line': { name: "the rotary's centre line", feature: 'rotary', choices: [], fields: [] },
  skimmed: {
    name: 'skim cut, measured',
    feature: 'diameter',
    choices: [],
    fields: [
      { ...position, label: 'Machine X at the cut', hint: 'In diameters. Do not move X before reading it.' },
      {
        name: 'measured',
        reads: 'length',
        label: 'Diameter measured',
        hint: 'Spindle stopped. Diameter, not radius.',
      },
    ],
  },
  faced: {
    name: 'face, cut or touched',
    feature: 'face',
    choices: [],
    fields: [
      { ...position, label: 'Machine Z at the face', hint: 'Do not move Z before reading it.' },
      drawing('Z of the face', '0 where the finished face is part zero; stock to leave is plus.'),
    ],
  },
}

/** What a method is called. */
export const methodName = (method: PickupMethod) => METHODS[method].name

const ON_MILL: Record<LinearAxis, readonly PickupMethod[]> = {
  X: ['edge-finder', 'sensor', 'indicator', 'probe', 'middle', 'swept', 'circle', 'corner', 'probe-set'],
  Y: ['edge-finder', 'sensor', 'indicator', 'probe', 'middle', 'swept', 'circle', 'corner', 'probe-set'],
  Z: ['tool-on-block', 'tool-on-feeler', 'sensor-down', 'probe-down', 'probe-set'],
}
const ON_LATHE: Record<LinearAxis, readonly PickupMethod[]> = { X: ['skimmed'], Y: [], Z: ['faced'] }

/** The methods that can find an axis of a machine, the usual one first; those that need a probe only where it has one. */
export const methodsFor = (
  axis: LinearAxis,
  { kind, probe }: Pick<Machine, 'kind' | 'probe'>,
): PickupMethod[] =>
  (kind === 'mill' ? ON_MILL : ON_LATHE)[axis].filter((method) => probe !== null || !METHODS[method].probe)

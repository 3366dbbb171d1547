import { formatAngle } from '../angle/index.ts'
import { isHeight, METHODS, methodName, type PickupSettings, type Reading } from '../pickup/index.ts'
import { describeTyped, formatWithUnit, type TypedLength } from '../quantity/index.ts'
import { FLAT_METHODS, measureCentre, type Sides } from '../rotary/index.ts'
import type { EntryOf } from './entries.ts'

/** What happened, in a few words; and as typed, or in the person's own words. */
export interface Description {
  says: string
  detail: string
}

const FIELD_WORDS: Record<string, string> = {
  diameter: 'diameter',
  machinePosition: 'machine position',
  minusSide: 'minus side',
  plusSide: 'plus side',
  low: 'minus side',
  high: 'plus side',
  width: 'drawing width',
  nominal: 'drawing diameter',
  plusDial: 'dial on the plus side',
  minusDial: 'dial on the minus side',
  toolLength: 'tool length',
  blockHeight: 'block',
  masterPosition: 'master at',
  masterLength: 'master length',
  masterWithin: 'known within',
  height: 'height',
  heightWithin: 'known within',
  measured: 'measured',
  shown: 'shown',
  size: 'size',
  base: 'base',
  shift: 'shift',
  drawingPosition: 'on the drawing',
  drawingX: 'X on the drawing',
  drawingY: 'Y on the drawing',
  front: 'front',
  back: 'back',
  top: 'top',
  span: 'over',
  across: 'measures through the middle',
  acrossWithin: 'known within',
  block: 'block',
}

const isTyped = (part: unknown): part is TypedLength & { repeats?: TypedLength[] } =>
  typeof part === 'object' && part !== null && 'text' in part

type TypedPoint = { x: TypedLength; y: TypedLength }

export const pointWords = ({ x, y }: TypedPoint) => `X ${describeTyped(x)} Y ${describeTyped(y)}`

/** A part of a reading as it was typed; nothing for what is said elsewhere. */
export function partWords(name: string, part: unknown): string[] {
  const words = FIELD_WORDS[name]
  if (Array.isArray(part) && name.startsWith('points'))
    return [
      `${name === 'points' ? 'touches' : `along ${name.slice(-1)}`}: ${part.map(pointWords).join('; ')}`,
    ]
  if (!words || !isTyped(part)) return []
  return [`${words} ${[part, ...(part.repeats ?? [])].map(describeTyped).join('; ')}`]
}

export function readingDetail(reading: Reading): string {
  const parts = Object.entries(reading).flatMap(([name, part]) => partWords(name, part))
  const choices = METHODS[reading.method].choices.flatMap(({ name, options }) => {
    const chosen = (reading as Record<string, unknown>)[name]
    if (name === 'direction') return [`moving ${reading.axis}${chosen}`]
    if (name === 'directionX' || name === 'directionY') return [`moving ${name.slice(-1)}${chosen}`]
    return options.flatMap(([value, says]) => (value === chosen ? [says] : []))
  })
  const tool = isHeight(reading) ? [`T${reading.tool}`] : []
  const source = reading.method === 'from-offset' ? [reading.source] : []
  return [methodName(reading.method), ...source, ...choices, ...tool, ...parts].join(', ')
}

/** `says`: which flat, and where the rotary stood. `detail`: the readings as typed. What A comes to is told by the way that it counts. */
export function flatWords({ offset, reading }: EntryOf<'flat'>): Description {
  const parts =
    reading.method === 'touches'
      ? [
          `faces ${reading.faces}`,
          ...[reading.first, reading.second].map(
            ({ y, z }, n) => `touch ${n + 1} at Y ${describeTyped(y)} Z ${describeTyped(z)}`,
          ),
        ]
      : Object.entries(reading).flatMap(([name, part]) => partWords(name, part))
  return {
    says: `Rotary's zero of ${offset} from a flat, touched at ${formatAngle(reading.turned)} deg`,
    detail: [
      FLAT_METHODS[reading.method],
      ...parts,
      `${formatAngle(reading.drawing)} deg in the program`,
    ].join(', '),
  }
}

/** `says`: where the centre line lies, and what runs out. `detail`: the readings as typed. */
export function centreWords({ reading }: EntryOf<'centre-line'>, settings: PickupSettings): Description {
  const { Y, Z, runsOut } = measureCentre(reading, settings)
  const at = [Y, Z].flatMap((of) => (of ? [`${of.axis} ${formatWithUnit(of.value, of.unit)}`] : []))
  const sides = (of: Sides) => [
    `at ${formatAngle(of.turned)} deg`,
    ...Object.entries(of).flatMap(([name, part]) => partWords(name, part)),
  ]
  const { first, half, height, ...rest } = reading
  return {
    says: `Rotary's centre line at ${at.join(', ')}${runsOut ? `; the part runs out ${formatWithUnit(runsOut.value, settings.unit)}` : ''}`,
    detail: [
      ...sides(first),
      ...(half ? sides(half) : []),
      ...Object.entries({ ...rest, ...height }).flatMap(([name, part]) => partWords(name, part)),
      ...(height ? [`T${height.tool}`] : []),
    ].join(', '),
  }
}

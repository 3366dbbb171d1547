import { describeTyped, type TypedLength } from '../quantity/index.ts'
import { METHODS, methodName } from './methods.ts'
import { isHeight, type Reading } from './reading.ts'

// Readings in words, as they were typed.

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

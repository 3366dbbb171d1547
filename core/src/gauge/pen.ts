import { type Block, commentText, type Macros, type Probing, printedDigits } from '../control/index.ts'
import type { GaugeCase } from './case.ts'
import { type Feature, lengthIn } from './characteristic.ts'
import type { GaugePlan } from './plan.ts'
import type { GaugeVariables } from './variables.ts'

/** What writes a gauging program, block by block. */
export interface Pen {
  of: GaugeCase
  probing: Probing
  macros: Macros
  plan: GaugePlan
  variables: GaugeVariables
  blocks: Block[]
  /** What every number is printed with. */
  number: (value: number) => string
  /** The alarms so far. */
  alarms: number
}

/** A line, in the name of a feature. */
export function line(pen: Pen, words: string, does?: string, feature?: Feature): void {
  pen.blocks.push({
    words: feature ? [{ text: words, field: feature.id }] : words,
    ...(does ? { does } : {}),
  })
}

/** An alarm with its message, on the line of its condition: the message is the comment that stands there. */
export function alarm(pen: Pen, when: string, says: string, feature: Feature): void {
  const { macros } = pen
  pen.alarms++
  const message = commentText(says).slice(0, macros.longestMessage)
  line(pen, `IF [${when}] THEN #${macros.alarm}= ${pen.alarms} (${message})`, undefined, feature)
}

export const call = (program: number, words: readonly string[] = []) =>
  ['G65', `P${program}`, ...words].join(' ')

export function moveTo(
  pen: Pen,
  does: string,
  axes: Partial<Record<'X' | 'Y' | 'Z', number>>,
  feature?: Feature,
): void {
  const { plan, probing, of, number } = pen
  const feed = plan.head.feed ? lengthIn(plan.head.feed, of.unit) : probing.feed[of.unit]
  const words = Object.entries(axes).map(([axis, value]) => `${axis}${number(value)}`)
  line(pen, call(probing.protectedMove, [...words, `F${number(feed)}`]), does, feature)
}

/** Lines to the log file of the control, between POPEN and PCLOS where it wants that. */
export function print(pen: Pen, texts: readonly string[], feature?: Feature): void {
  const { macros, plan } = pen
  if (!plan.head.prints || macros.print === 'none') return
  if (macros.print === 'opened') line(pen, 'POPEN', undefined, feature)
  for (const text of texts) line(pen, `DPRNT[${text}]`, 'to the log file', feature)
  if (macros.print === 'opened') line(pen, 'PCLOS', undefined, feature)
}

export const starred = (text: string) => text.replace(/ /g, '*')
export const printedVariable = ({ of }: Pen, variable: number) =>
  `#${variable}[4${printedDigits(of.profile, of.unit)}]`

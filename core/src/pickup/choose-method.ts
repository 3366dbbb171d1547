import type { LinearAxis, Machine } from '../machine/index.ts'
import { asTyped, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { allowedDoubt } from './expectation.ts'
import { methodsFor, type PickupMethod } from './methods.ts'
import { pickUp } from './pick-up.ts'
import type { Reading } from './reading.ts'
import { pickupSettings } from './words.ts'

/** One way of finding an axis, with the doubt that it would leave. */
export interface MethodOffer {
  method: PickupMethod
  /** What it is called; with what touches, where that makes the difference. */
  name: string
  doubt: number
  /** Within what the feature needs. */
  enough: boolean
}

export interface MethodAdvice {
  offers: readonly MethodOffer[]
  /** The quickest that leaves half of what is allowed, else the quickest that is within it, else the best there is. */
  advised: MethodOffer
  says: string
  why: string
}

/** A reading of each kind, at home, so that its doubt can be had from the arithmetic itself. Quickest first. */
function samples(axis: LinearAxis, unit: LengthUnit): [name: string, reading: Reading][] {
  const at = (value: number) => asTyped(value, unit)
  const zero = at(0)
  if (axis === 'Z') {
    const height = {
      axis,
      tool: 1,
      machinePosition: zero,
      toolLength: at(1),
      blockHeight: zero,
      drawingPosition: zero,
    } as const
    return [
      ['probe', { ...height, method: 'probe-down' }],
      ['3D sensor', { ...height, method: 'sensor-down' }],
      ['tool on block', { ...height, method: 'tool-on-block' }],
    ]
  }
  const tip = at(unit === 'inch' ? 0.2 : 5)
  const face = { axis, machinePosition: zero, drawingPosition: zero } as const
  const middle = {
    axis,
    method: 'middle',
    side: 'web',
    low: zero,
    high: at(1),
    drawingPosition: zero,
  } as const
  return [
    ['probe', { ...face, method: 'probe', direction: '+', diameter: tip }],
    ['edge finder', { ...face, method: 'edge-finder', direction: '+', diameter: tip }],
    ['3D sensor', { ...face, method: 'sensor' }],
    ['edge finder, both faces', { ...middle, device: 'edge-finder', diameter: tip }],
    ['sweep of a bore', { ...face, method: 'swept', side: 'bore', plusDial: zero, minusDial: zero }],
    [
      'indicator, both sides',
      { axis, method: 'indicator', minusSide: zero, plusSide: at(1), drawingPosition: zero },
    ],
  ]
}

/**
 * Which way of finding an axis is good enough for a tolerance, on this machine: the doubt of each by its own arithmetic.
 * Undefined where there is only one way. Common practice for the choice: as quick as the tolerance lets it be.
 */
export function adviseMethod(
  axis: LinearAxis,
  machine: Machine,
  unit: LengthUnit,
  tolerance: number,
): MethodAdvice | undefined {
  const can = methodsFor(axis, machine)
  const settings = pickupSettings(machine, unit)
  const offers = samples(axis, unit)
    .filter(([, { method }]) => machine.kind === 'mill' && can.includes(method))
    .map(([name, of]): MethodOffer => {
      const doubt = pickUp(of, settings).doubt.value
      return { method: of.method, name, doubt, enough: allowedDoubt(doubt, tolerance, unit) }
    })
  const [first, second] = offers
  if (!first || !second) return undefined
  const advised =
    offers.find(({ doubt }) => allowedDoubt(doubt, tolerance / 2, unit)) ??
    offers.find(({ enough }) => enough) ??
    offers.reduce((best, each) => (each.doubt < best.doubt ? each : best))
  const allowed = formatWithUnit(tolerance, unit)
  const left = formatWithUnit(advised.doubt, unit)
  return {
    offers,
    advised,
    says: advised.enough
      ? `Take ${axis} with ${withArticle(advised.name)}.`
      : `No way here is good enough; ${withArticle(advised.name)} comes nearest.`,
    why: !advised.enough
      ? `It leaves ${left}; the part allows ${allowed}. Read several times, and measure the first part.`
      : allowedDoubt(advised.doubt, tolerance / 2, unit)
        ? `It leaves ${left} of the ${allowed} that the part allows, and is the quickest that leaves half or less.`
        : `It leaves ${left} of the ${allowed} that the part allows, and nothing here leaves half.`,
  }
}

const withArticle = (name: string) => `${/^[aeiou]/i.test(name) ? 'an' : 'a'} ${name}`

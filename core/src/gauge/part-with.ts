import type { GaugeCase } from './case.ts'
import { characteristicsOf, type Feature, lengthIn } from './characteristic.ts'
import type { GaugePlan } from './plan.ts'
import type { ActualPart } from './stand-in.ts'

/** How far from its place the end of a distance must be moved for the distance to be `value`. */
function stretched(plan: GaugePlan, { params }: Feature, value: number, unit: GaugeCase['unit']): Moved {
  const placeOf = (id: string) => {
    const of = plan.features.find((each) => each.id === id)?.params
    return of ? { x: lengthIn(of.x, unit), y: lengthIn(of.y, unit) } : { x: 0, y: 0 }
  }
  const [a, b] = [placeOf(params.from), placeOf(params.to)]
  const [dx, dy] = [params.along === 'Y' ? 0 : b.x - a.x, params.along === 'X' ? 0 : b.y - a.y]
  const length = Math.hypot(dx, dy) || 1
  const by = value - Math.hypot(dx, dy)
  return { x: (by * dx) / length, y: (by * dy) / length }
}

type Moved = { x?: number; y?: number; z?: number }

const axisOf = { X: 'x', Y: 'y', Z: 'z' } as const

/**
 * A part of which the values in `sizes` (by key) are as given, and all others in the middle of their tolerance. The end of a
 * distance is moved for it.
 */
export function partWith(
  plan: GaugePlan,
  sizes: ReadonlyMap<string, number>,
  unit: GaugeCase['unit'],
): ActualPart {
  const larger = new Map<string, number>()
  const moved = new Map<string, Moved>()
  for (const feature of plan.features)
    for (const { key, quantity, nominal, middle } of characteristicsOf(feature, unit)) {
      if (quantity === 'distance') {
        const value = sizes.get(key)
        if (value !== undefined) moved.set(feature.params.to, stretched(plan, feature, value, unit))
        continue
      }
      const by = (sizes.get(key) ?? middle) - nominal
      if (quantity === 'size' || quantity === 'angle') larger.set(feature.id, by)
      else moved.set(feature.id, { ...moved.get(feature.id), [axisOf[quantity]]: by })
    }
  return { larger, moved }
}

/** What each value of a part is, by key. */
export function valuesOf(plan: GaugePlan, part: ActualPart, unit: GaugeCase['unit']): Map<string, number> {
  const values = new Map<string, number>()
  const at = (id: string) => {
    const params = plan.features.find((each) => each.id === id)?.params
    const off = part.moved?.get(id)
    return params
      ? { x: lengthIn(params.x, unit) + (off?.x ?? 0), y: lengthIn(params.y, unit) + (off?.y ?? 0) }
      : { x: 0, y: 0 }
  }
  for (const feature of plan.features) {
    const { from, to, along } = feature.params
    for (const { key, quantity, nominal } of characteristicsOf(feature, unit)) {
      if (quantity === 'distance') {
        const [dx, dy] = [at(to).x - at(from).x, at(to).y - at(from).y]
        values.set(key, along === 'X' ? Math.abs(dx) : along === 'Y' ? Math.abs(dy) : Math.hypot(dx, dy))
      } else if (quantity === 'size' || quantity === 'angle')
        values.set(key, nominal + (part.larger?.get(feature.id) ?? 0))
      else values.set(key, nominal + (part.moved?.get(feature.id)?.[axisOf[quantity]] ?? 0))
    }
  }
  return values
}

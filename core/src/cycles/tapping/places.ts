import { type Finding, finding } from '../../fact/index.ts'
import { formatLength, formatWithUnit } from '../../quantity/index.ts'
import { type CycleCase, outside } from '../cycle/index.ts'
import type { TapParams } from './params.ts'
import { type TapSizes, widest } from './sizes.ts'

/** Holes against the part as it stands in the work area, in the numbers of its drawing. */
export function placeChecks(params: TapParams, sizes: TapSizes, { bodies = [], unit }: CycleCase): Finding[] {
  const parts = bodies.filter(({ part }) => part)
  if (parts.length === 0) return []
  const radius = widest(params, sizes)
  const outsides = sizes.places.map(({ x, y }) => Math.min(...parts.map((body) => outside(body, [x, y]))))
  const beside = outsides.findIndex((far) => far > 0)
  const breaks = outsides.findIndex((far) => far > -radius)
  const index = beside >= 0 ? beside : breaks
  const place = sizes.places[index]
  if (!place) return []
  const at = `Hole ${index + 1} at X ${formatLength(place.x, unit)} Y ${formatLength(place.y, unit)}`
  const fix = 'Check the places and their signs; or place the part where it is.'
  return [
    beside >= 0
      ? finding(
          'stop',
          'hole-off-part',
          'places',
          `${at} lies beside the part.`,
          'As the part stands in the work area.',
          fix,
        )
      : finding(
          'look',
          'hole-breaks-edge',
          'places',
          `${at} breaks out at the edge of the part.`,
          `It is ${formatWithUnit(2 * radius, unit)} wide at the top, and the edge is ${formatWithUnit(-(outsides[index] ?? 0), unit)} from its middle.`,
          fix,
        ),
  ]
}

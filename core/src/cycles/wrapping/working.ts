import type { WorkingLine } from '../../fact/index.ts'
import { formatLength, type LengthUnit } from '../../quantity/index.ts'
import type { WrapParams } from './params.ts'
import { degreesRound, type WrapSizes } from './sizes.ts'

/** The arithmetic of a layout on a cylinder with the numbers put in, as it is followed with a pencil. */
export function wrapWorking(params: WrapParams, sizes: WrapSizes, unit: LengthUnit): WorkingLine[] {
  const say = (value: number) => formatLength(value, unit)
  const { radius, mapped, about, depth, extent, gap } = sizes
  const lines: WorkingLine[] = [
    {
      finds: 'once round',
      arithmetic: `2 x 3.14159 x ${say(mapped)}`,
      means:
        params.trueAt === 'bottom' && params.what !== 'program'
          ? 'on the radius at depth'
          : 'on the radius of the surface',
      gives: say(about),
    },
    {
      finds: unit === 'inch' ? 'turn of 0.1 round' : 'turn of 1 mm round',
      arithmetic: `360 x ${unit === 'inch' ? '0.1' : '1'} / (2 x 3.14159 x ${say(mapped)})`,
      means: 'A = 360 Y / (2 pi R)',
      gives: `${degreesRound(unit === 'inch' ? 0.1 : 1, mapped).toFixed(4)}°`,
    },
  ]
  if (params.what === 'scale') {
    const whole = params.covers === 'turn' ? 360 : params.span
    lines.push({
      finds: 'one division',
      arithmetic: `${whole} / ${params.divisions}`,
      means: 'each from the whole, so that none adds up',
      gives: `${(whole / params.divisions).toFixed(4)}°`,
    })
  }
  if (params.what !== 'program')
    lines.push({
      finds: 'lengths round at the bottom',
      arithmetic: `(${say(radius)} - ${say(depth)}) / ${say(mapped)}`,
      means: 'the same angle on a smaller radius: this many times as long',
      gives: ((radius - depth) / mapped).toFixed(4),
    })
  if (extent)
    lines.push({
      finds: gap < 0 ? 'overlap at the seam' : 'left at the seam',
      arithmetic: `${say(about)} - ${say(extent.y[1] - extent.y[0])}`,
      gives: say(gap),
    })
  return lines
}

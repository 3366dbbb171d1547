import type { WorkingLine } from '../../fact/index.ts'
import { formatLength, type LengthUnit } from '../../quantity/index.ts'
import type { EngraveParams } from './params.ts'
import { type EngraveSizes, fallOff } from './sizes.ts'

/** The arithmetic of a text with the numbers put in, as it is followed with a pencil. */
export function engraveWorking(params: EngraveParams, sizes: EngraveSizes, unit: LengthUnit): WorkingLine[] {
  const say = (value: number) => formatLength(value, unit)
  const { laid, height, width, depth, lineWidth, tip, stands, room, round } = sizes
  const long = laid.width * height
  const factor = long > 0 ? width / long : 1
  const half = params.toolAngle / 2
  const lines: WorkingLine[] = [
    {
      finds: 'length of the text',
      arithmetic: `${laid.width.toFixed(4)} x ${say(height)}${factor === 1 ? '' : ` x ${factor.toFixed(4)}`}`,
      means:
        factor === 1
          ? 'heights of a capital x height'
          : "heights of a capital x height x the control's factor",
      gives: say(width),
    },
  ]
  if (room)
    lines.push({
      finds: 'room left along',
      arithmetic: `${say(room.along)} - ${say(width)}`,
      gives: say(room.along - width),
    })
  lines.push(
    params.by === 'width'
      ? {
          finds: 'depth',
          arithmetic: `(${say(params.lineWidth ? lineWidth : height / 10)} - ${say(tip)}) / (2 x tan ${half})`,
          means: 'width of the line less the tip, over twice the tangent of half its angle',
          gives: say(depth),
        }
      : {
          finds: 'width of the line',
          arithmetic: `2 x ${say(depth)} x tan ${half} + ${say(tip)}`,
          gives: say(lineWidth),
        },
    {
      finds: 'height over line',
      arithmetic: `${say(height)} / ${say(lineWidth)}`,
      means: 'standard lettering has 10, or 14 (ISO 3098)',
      gives: sizes.ratio.toFixed(1),
    },
  )
  if ('arc' in stands)
    lines.push({
      finds: 'angle that it takes',
      arithmetic: `${say(width)} / ${say(stands.arc.radius)} x 57.2958`,
      means: 'length over radius, in degrees',
      gives: `${((width / stands.arc.radius) * (180 / Math.PI)).toFixed(1)}°`,
    })
  if (round) {
    const across = round.runs === 'across' ? width : height * (laid.high - laid.low)
    lines.push({
      finds: 'falls away at its edges',
      arithmetic: `${say(round.radius)} - root of (${say(round.radius)}² - ${say(across / 2)}²)`,
      gives: say(fallOff(sizes)),
    })
  }
  return lines
}

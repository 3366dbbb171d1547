import type { WorkingLine } from '../../fact/index.ts'
import { fixedDigits, formatLength, type LengthUnit } from '../../quantity/index.ts'
import type { TapParams } from './params.ts'
import { kneeOf } from './retract.ts'
import type { TapSizes } from './sizes.ts'

/** The arithmetic of a set of tapped holes with the numbers put in, as it is followed with a pencil. */
export function tapWorking(params: TapParams, sizes: TapSizes, unit: LengthUnit): WorkingLine[] {
  const say = (value: number) => formatLength(value, unit)
  const { thread, threadDepth, lead, tapDepth, drillDepth, drillDiameter, pointLength, rpm, stroke } = sizes
  const pitch = fixedDigits(thread.pitch, unit === 'inch' ? 5 : 4)
  const lines: WorkingLine[] = []
  if (params.tapping) {
    lines.push({
      finds: 'feed of the tap',
      arithmetic: `${Math.round(rpm.tap)} x ${pitch}`,
      means: 'speed x pitch, a minute',
      gives: say(rpm.tap * thread.pitch),
    })
    if (sizes.percent !== null)
      lines.push({
        finds: 'percent of thread',
        ...(params.tap === 'cut'
          ? { arithmetic: `100 x (${say(thread.major)} - ${say(drillDiameter)}) / (1.29904 x ${pitch})` }
          : {
              arithmetic: `(${say(thread.major)} - ${say(drillDiameter)}) / (0.0068 x ${pitch})`,
              means: 'form tap: the metal that is pushed out fills the crests',
            }),
        gives: `${Math.round(sizes.percent)} %`,
      })
    lines.push({
      finds: 'tip of the tap',
      arithmetic: params.tapDepth
        ? `${say(tapDepth)} as typed`
        : `${say(threadDepth)} + ${Number((lead / thread.pitch).toFixed(1))} x ${pitch}`,
      means: 'full thread and the unfinished threads of its lead',
      gives: say(tapDepth),
    })
  }
  if (params.drill) {
    if (params.tapping)
      lines.push({
        finds: 'room under the tap',
        arithmetic: `${say(drillDepth)} - ${say(tapDepth)}`,
        means: 'full diameter of the drill less the tip of the tap',
        gives: say(sizes.room),
      })
    lines.push({
      finds: 'tip of the drill',
      arithmetic: `${say(drillDepth)} + ${say(drillDiameter / 2)} / tan ${params.point / 2}`,
      means: 'its point is deeper than its full diameter',
      gives: say(drillDepth + pointLength),
    })
  }
  if (params.tapping) {
    const longest = Math.max(...stroke.strokes)
    // A tap that does not even come to its speed going in gains nothing by more of it.
    const least = Math.sqrt(longest * stroke.acceleration) < stroke.speed ? ', at least 1' : ''
    lines.push({
      finds: 'knee of the way out',
      arithmetic: `root of (${longest.toFixed(2)} x ${Number(stroke.acceleration.toFixed(1))}) / ${stroke.speed.toFixed(2)}${least}`,
      means: 'turns in the hole, turns/s² of the spindle, turns/s going in',
      gives: kneeOf(stroke).toFixed(2),
    })
  }
  return lines
}

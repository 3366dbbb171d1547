import type { WorkingLine } from '../../fact/index.ts'
import { formatLength, formatTerm, type LengthUnit } from '../../quantity/index.ts'
import type { CycleCase } from '../cycle/index.ts'
import { plungePlaces } from './plan.ts'
import { type GrooveSizes, rpmAt } from './sizes.ts'

/** The arithmetic of a groove with the numbers put in, as it is followed with a pencil. */
export function grooveWorking(sizes: GrooveSizes, on: CycleCase): WorkingLine[] {
  const unit: LengthUnit = on.unit
  const say = (value: number) => formatLength(value, unit)
  const { section, insert, start, last, stepover, spindle, where, surface, finish, plungeDepth } = sizes
  const scale = where === 'face' ? 2 : 1
  const inside = insert.programmed === 'low'
  const wallStock = inside ? section.high - (start + insert.width) : section.high - start
  const span = Math.abs(last - start)
  const plunges = plungePlaces(start, last, stepover).length
  // Left for finishing; of an insert wider than the groove what stands over its wall.
  const stock = finish || wallStock < -1e-9 ? ` ${formatTerm(-wallStock * scale, unit)}` : ''
  const lines: WorkingLine[] = [
    {
      finds: 'start',
      arithmetic: `${say(section.high * scale)}${inside ? ` ${formatTerm(-insert.width * scale, unit)}` : ''}${stock}`,
      means: inside
        ? 'the wall, inside by the width of the insert: its other corner is programmed'
        : 'the wall: this corner of the insert is programmed',
      gives: say(start * scale),
    },
    {
      finds: 'plunges',
      arithmetic: `${say(span)} / ${say(stepover)}, rounded up, + 1`,
      means: 'from the first to the last; the last step is what remains',
      gives: String(plunges),
    },
    {
      finds: 'bottom of the plunges',
      arithmetic: `depth ${say(section.depth)}${finish ? ` ${formatTerm(plungeDepth - section.depth, unit)}` : ''}`,
      gives: say(plungeDepth),
    },
  ]
  if (where === 'inside' && !inside)
    lines.push({
      finds: 'clear in front',
      arithmetic: `${say(sizes.front - insert.width)} ${formatTerm(insert.width, unit)}`,
      means: 'the end of the insert towards the chuck clears; its other corner is programmed',
      gives: say(sizes.front),
    })
  if ('surface' in spindle) {
    const diameter = where === 'face' ? 2 * section.high : 2 * surface
    const factor = unit === 'inch' ? '12' : '1000'
    const held = rpmAt(sizes, diameter / 2, on)
    lines.push({
      finds: 'spindle speed at the start',
      arithmetic: `${factor} x ${spindle.surface} / (3.1416 x ${say(diameter)})`,
      means: spindle.clamp === null ? 'without a clamp' : `held at ${spindle.clamp} at most`,
      gives: `${Math.round(held)} rpm`,
    })
  }
  return lines
}

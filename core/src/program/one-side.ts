import { type Block, has, target } from './block.ts'
import { ROW } from './motion.ts'

/**
 * G60: at rapid past where the words lead, by what the profile says of each axis that is named, and from there back: every place is come to
 * from the same side. Common practice.
 */
export function oneSided({ run }: Block): void {
  const past = run.options.profile.reading.positions.oneSide
  if (!past) return
  const to = target(run, { machine: false })
  const scale = run.unit === 'mm' ? 1 : 1 / 25.4
  const beyond = (['X', 'Y', 'Z'] as const).map(
    (axis, at) => (to[at] as number) + (has(run, axis) ? past[axis] * scale : 0),
  ) as typeof to
  if (beyond.some((place, at) => place !== to[at])) run.go(ROW.RAPID, ...beyond)
  run.go(ROW.RAPID, ...to)
}

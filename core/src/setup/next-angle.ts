import { formatAngle } from '../angle/index.ts'
import type { Setup } from './derive.ts'

export interface NextAngle {
  says: string
  why: string
}

/** What to do next about how the part lies, in one sentence, with the reason. */
export function nextAngle({ offsets }: Setup): NextAngle {
  const stale = offsets.find(({ angle }) => angle?.freshness.state === 'stale')
  if (stale?.angle?.freshness.state === 'stale')
    return {
      says: `Measure the angle of ${stale.name} again.`,
      why: `It was ${stale.angle.freshness.cause.says}.`,
    }
  const stopped = offsets.find(({ angle }) => angle?.verdict === 'stop')
  if (stopped)
    return { says: stopped.angle?.findings[0]?.fix ?? '', why: stopped.angle?.findings[0]?.says ?? '' }
  const found = offsets.filter(({ angle }) => angle)
  const acts = found.find(({ angle }) => angle?.judgement.advised !== 'leave')
  if (acts?.angle) {
    const { judgement, angle } = acts.angle
    return {
      says: `${acts.name}: ${judgement.says}`,
      why: `The part lies at ${formatAngle(angle.value)} degrees. ${judgement.why}`,
    }
  }
  if (found.length > 0) return { says: 'The part is straight enough.', why: 'The next step can rest on it.' }
  return {
    says: 'Touch one edge of the part at two places, or measure two holes.',
    why: 'Nobody knows yet how the part lies. Where that does not matter, go on.',
  }
}

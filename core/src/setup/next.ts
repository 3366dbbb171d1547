import type { LinearAxis } from '../machine/index.ts'
import type { OffsetState } from './derive.ts'

/** Where the next thing to do is done: an axis of the offset, its program, its check, or nowhere. */
export type NextPlace = LinearAxis | 'check' | 'program' | 'nothing'

export interface NextThing {
  place: NextPlace
  says: string
  why: string
}

/** What to do next with an offset, in one sentence, with the reason. */
export function nextFor({ name, axes, check, program, wants }: OffsetState): NextThing {
  const stale = wants.find((axis) => axes[axis]?.freshness.state === 'stale')
  if (stale) {
    const freshness = axes[stale]?.freshness
    return {
      place: stale,
      says: `Take ${stale} of ${name} again.`,
      why: freshness?.state === 'stale' ? `It was ${freshness.cause.says}.` : '',
    }
  }
  const stopped = wants.find((axis) => axes[axis]?.verdict === 'stop')
  if (stopped)
    return {
      place: stopped,
      says: `Take ${stopped} of ${name} again.`,
      why: axes[stopped]?.findings[0]?.says ?? '',
    }
  const missing = wants.find((axis) => !axes[axis])
  if (missing)
    return {
      place: missing,
      says: `Take ${missing} of ${name}.`,
      why: `${name} has no ${missing} yet; the control would use whatever stands there.`,
    }
  if (check?.entry.result === 'off' && check.freshness.state === 'fresh')
    return {
      place: 'X',
      says: 'Find out why the pointed tool stood off, and take that axis again.',
      why: `The check said: ${check.entry.note}`,
    }
  if (check?.freshness.state === 'fresh')
    return { place: 'nothing', says: `${name} is taken and checked.`, why: 'The next step can rest on it.' }
  if (wants.includes('Y') && (!program || program.freshness.state === 'stale'))
    return {
      place: 'program',
      says: `Take the program for ${name} to the control.`,
      why: 'It loads the offset and stands the spindle over part zero, to be looked at.',
    }
  return {
    place: 'check',
    says: wants.includes('Y')
      ? `Check ${name} with a pointed tool.`
      : `Key ${name} in, and check it at the bar.`,
    why:
      check?.freshness.state === 'stale'
        ? `The last check was ${check.freshness.cause.says}.`
        : 'Nobody has looked yet.',
  }
}

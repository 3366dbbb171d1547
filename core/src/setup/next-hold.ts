import { formatLength } from '../quantity/index.ts'
import type { Setup } from './derive.ts'

export type HoldPlace = 'square' | 'clear' | 'grip' | 'checks' | 'nothing'

export interface NextHold {
  place: HoldPlace
  says: string
  why: string
}

function nextOnMill({ hold, unit }: Setup): NextHold {
  const last = hold.sweeps.at(-1)
  if (!last)
    return { place: 'square', says: 'Sweep the fixed jaw.', why: 'Nobody knows yet whether it is square.' }
  if (last.freshness.state === 'stale')
    return {
      place: 'square',
      says: 'Sweep the fixed jaw again.',
      why: `It was ${last.freshness.cause.says}.`,
    }
  if (!last.squared.ok)
    return { place: 'square', says: 'Sweep the fixed jaw again.', why: last.squared.findings[0]?.says ?? '' }
  const { within, sweep, tap } = last.squared
  if (sweep.bolts === 'one' && !within)
    return {
      place: 'square',
      says: `Tap until the dial shows ${formatLength(tap.target, unit, { plus: true })} at ${formatLength(tap.at, unit)}, zero it again, and sweep.`,
      why: 'The jaw is not square yet.',
    }
  if (!within)
    return {
      place: 'square',
      says: 'Take one bolt out and square it again.',
      why: 'It moved when it was tightened.',
    }
  if (sweep.bolts === 'one')
    return { place: 'square', says: 'Snug the second bolt, and sweep.', why: 'Tightening moves vises.' }
  if (sweep.bolts === 'snug')
    return {
      place: 'square',
      says: 'Tighten both bolts, and sweep once more.',
      why: 'Tightening moves vises.',
    }
  const { clearance } = hold
  if (!clearance)
    return {
      place: 'clear',
      says: 'See whether the vise clears.',
      why: 'At both ends of the travel, open and closed.',
    }
  if (clearance.freshness.state === 'stale')
    return {
      place: 'clear',
      says: 'See again whether the vise clears.',
      why: `It was ${clearance.freshness.cause.says}.`,
    }
  if (clearance.verdict === 'stop')
    return {
      place: 'clear',
      says: 'Move the vise until it clears.',
      why: clearance.findings[0]?.says ?? '',
    }
  return {
    place: 'nothing',
    says: 'The vise is square and clears.',
    why: 'The next step can rest on it.',
  }
}

function nextOnLathe({ hold }: Setup): NextHold {
  const { grip, checks } = hold
  if (!grip)
    return { place: 'grip', says: 'Choose collet and stop.', why: 'The length of the part depends on them.' }
  if (grip.freshness.state === 'stale')
    return {
      place: 'grip',
      says: 'Choose collet and stop again.',
      why: `They were ${grip.freshness.cause.says}.`,
    }
  if (grip.verdict === 'stop')
    return {
      place: 'grip',
      says: 'Choose another collet or stop.',
      why: grip.findings[0]?.says ?? '',
    }
  const open = checks.find(({ tick }) => tick?.freshness.state !== 'fresh')
  if (open) return { place: 'checks', says: `Look: ${open.says}.`, why: 'Before the spindle turns.' }
  return {
    place: 'nothing',
    says: 'Collet and stop are chosen and looked at.',
    why: 'The next step can rest on them.',
  }
}

/** What to do next in the Hold step, in one sentence, with the reason. */
export const nextHold = (setup: Setup): NextHold =>
  setup.machine.kind === 'mill' ? nextOnMill(setup) : nextOnLathe(setup)

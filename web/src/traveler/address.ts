import type { Task } from '@dogleg/core/traveler'

const OFFSET = /^[GT]\d/

/**
 * Where a task is done, from the page of any step, keeping what the address says besides: `../zero?offset=G54&axis=X`. An offset
 * that it is about is chosen there, and a program that is to be proved is opened.
 */
export function addressOf({ step, part, about }: Task, search: string): string {
  const params = new URLSearchParams(search)
  params.delete('axis')
  params.delete('part')
  params.delete('program')
  if (about !== undefined && OFFSET.test(about) && (step === 'zero' || step === 'angle') && part !== 'tools')
    params.set('offset', about)
  if (part === 'load') return `../program?${params}`
  if (part !== 'whole' && part !== 'take' && step !== 'ready')
    params.set(step === 'zero' ? 'axis' : 'part', part === 'start' ? 'pallets' : part)
  if (step === 'prove' && part === 'whole' && about !== undefined) params.set('program', about)
  if (step === 'hand-over') params.set('part', 'hand-over')
  const rest = params.toString()
  return `../${step}${rest ? `?${rest}` : ''}`
}

/** Of a way that nobody asked for by its name: it asks no questions, and where it would have to it leaves things as they are. */
export const QUIETLY = { quietly: true }

export const isQuiet = (state: unknown) => typeof state === 'object' && state !== null && 'quietly' in state

/** What an address says that holds for another step too: the offset in hand, not the part of the step that is left. */
export function keptBetween(search: string): string {
  const params = new URLSearchParams(search)
  for (const own of ['part', 'program']) params.delete(own)
  const kept = params.toString()
  return kept ? `?${kept}` : ''
}

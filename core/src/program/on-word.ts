import type { OwnCode } from '../control/index.ts'
import type { Run } from './run.ts'
import type { TakenOnWord } from './taken.ts'

/** More are not told apart. */
const MOST_TAKEN = 200

export function takeOnWord(run: Run, code: string, how: TakenOnWord['how'], by = ''): void {
  const before = run.taken.get(code)
  if (before) before.times++
  else if (run.taken.size < MOST_TAKEN) run.taken.set(code, { code, how, by, line: run.line, times: 1 })
}

export const notAllowed = (run: Run, { code, says }: OwnCode, word?: number) =>
  run.wrong('not-allowed', 'stop', `${code} is not allowed on this machine${says ? `: ${says}` : '.'}`, {
    does: 'The profile’s page says so.',
    ...(word === undefined ? {} : { word }),
    once: code,
  })

/** The stop that it is, or the time that it takes. */
export function doWait(run: Run, own: OwnCode): void {
  if (own.does === 'harmless') run.dwell(own.seconds)
  else if (own.does === 'stop')
    run.event({ does: 'stop', optional: false, ...(own.says ? { says: own.says } : {}) })
}

/** A call of a program whose text is not here, but of which the profile says what it does; false where it says nothing. */
export function ownProgram(run: Run, number: number): boolean {
  const own = run.library.codes.get(`O${number}`)
  if (!own || own.does === 'call') return false
  takeOnWord(run, own.code, own.does, own.by)
  if (own.does === 'not-allowed') notAllowed(run, own)
  else doWait(run, own)
  return true
}

import { LOCALS } from './frame.ts'
import { MOST_PROBED } from './probed.ts'
import type { Run } from './run.ts'

/**
 * The system variables that matter, as they are commonly numbered (common practice, from memory; a control's manual comes
 * first): 2001 and on tool lengths, 4001 and on modes, 4101 and on the last words, 5001 end of the last block, 5021
 * machine and 5041 work positions, 5061 where a move stopped for its signal, 5221 and on work offsets.
 */
function system(run: Run, number: number): number | undefined {
  const { options } = run
  const inProgram = (value: number | undefined) => (value === undefined ? Number.NaN : value / run.scale)
  const axis = (number % 20) - 1
  const work = [run.wx * (run.lathe ? 2 : 1), run.wy, run.wz]
  if (number >= 2001 && number <= 2200) {
    const tool = number - 2000
    return inProgram(run.tables.lengths.get(tool) ?? options.lengths?.get(tool) ?? 0)
  }
  if (number >= 5001 && number <= 5003) return inProgram(work[axis])
  if (number >= 5041 && number <= 5043) return inProgram(work[axis])
  if (number >= 5021 && number <= 5023) {
    const to = run.toMachine()
    return inProgram([run.sx + to[0], run.sy + to[1], run.sz + to[2]][axis])
  }
  if (number >= 5061 && number <= 5063) return run.stoppedAt && inProgram(run.stoppedAt[axis])
  const of = offsetOfVariable(run, number)
  if (of) return inProgram(run.offsetAt(of.offset, of.axis))
  switch (number) {
    case 4001:
      return run.motion
    case 4002:
      return run.plane
    case 4003:
      return run.absolute ? 90 : 91
    case 4006:
      return run.inch ? 20 : 21
    case 4008:
      return run.lengthCode
    case 4010:
      return run.retract
    case 4014:
      return Number(run.offset.replace(/^\D+/, '')) || 54
    case 4107:
      return run.d
    case 4109:
      return inProgram(run.feed)
    case 4111:
      return run.h
    case 4119:
      return run.speed
    case 4120:
      return run.tool
    default:
      return undefined
  }
}

/** The axis of a work offset that a variable holds: 5221 and on, twenty for each of the standard ones. Common practice. */
export function offsetOfVariable({ options }: Run, number: number) {
  if (number < 5221 || number > 5333) return undefined
  const offset = options.profile.offsets.standard[Math.floor((number - 5221) / 20)]
  const axis = (['X', 'Y', 'Z'] as const)[(number - 5221) % 20]
  return offset && axis ? { offset, axis } : undefined
}

/** Keeps that a result of probing was read, and how. */
function noteRead(run: Run, number: number): void {
  const { probing } = run.options.profile
  if (!probing || !Object.values(probing.results).includes(number)) return
  const { calls, reads } = run.probing
  if (reads.length >= MOST_PROBED) return
  reads.push({
    line: run.line,
    variable: number,
    held: run.held,
    call: calls.findLastIndex(({ results }) => results.length > 0),
  })
}

/** A variable's value: local of this level, system, or common; NaN where it was never set. */
export function getVariable(run: Run, number: number): number {
  if (number === 0) return Number.NaN
  noteRead(run, number)
  if (number > 0 && number < LOCALS) return run.frame.locals[number] as number
  const value = run.common.get(number) ?? system(run, number)
  if (value === undefined && number >= FIRST_SYSTEM && !isOffsetVariable(number))
    run.wrong('variable-not-seen', 'stop', `What stands in #${number} is not known here.`, {
      does: 'Where the program goes by it is not shown, so the program is not proved.',
      once: number,
    })
  return value ?? Number.NaN
}

/** Variables from here on belong to the control: it sets them by itself. Common practice. */
const FIRST_SYSTEM = 1000

/**
 * Whether a variable holds a tool's length or wear, or a work offset: setting it changes where everything goes. Common
 * practice, from memory.
 */
export const isOffsetVariable = (number: number) =>
  (number >= 2001 && number <= 2800) ||
  (number >= 5201 && number <= 5333) ||
  (number >= 7001 && number <= 7999)

/** Sets a local or common variable; gives what is wrong, if anything. */
export function setVariable(run: Run, number: number, value: number): string | undefined {
  if (!(number > 0) || number > 99_999) return `#${number} can't be set.`
  if (number < LOCALS) run.frame.locals[number] = value
  else run.setCommon(number, value)
  return undefined
}

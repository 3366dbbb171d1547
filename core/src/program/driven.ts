import { type Block, has, wordValue } from './block.ts'
import { MAY_MOVE } from './check-words.ts'
import type { Run } from './run.ts'
import { place } from './scan.ts'

const ALARM = { does: 'The control stops with an alarm.' }

/** Whether an M code turns a driven tool or makes the spindle an axis, as the profile has it. */
export function isOfDriven(run: Run, code: number): boolean {
  const { driven } = run.options.profile.reading
  if (!run.lathe || !driven) return false
  const { turns, axis } = driven
  return [turns?.clockwise, turns?.counter, turns?.off, axis?.on, axis?.off].includes(code)
}

/** Carries out such a code: on a turning spindle no axis comes on, and no axis is turned by a speed. */
export function drivenCode({ run }: Block, code: number): void {
  const { turns, axis } = run.options.profile.reading.driven ?? {}
  if (code === axis?.on) {
    if (run.turning !== 0)
      run.wrong('axis-turning', 'stop', `M${code} while the spindle turns: it is to stand first.`, ALARM)
    run.spindleAxis = true
  } else if (code === axis?.off) run.spindleAxis = false
  else if (code === turns?.off) run.drive(0, 0)
  else if (turns) {
    const speed = wordValue(run, turns.speed) ?? (turns.speed === 'S' ? run.speed : run.drivenSpeed)
    if (!(speed > 0))
      run.wrong('driven-no-speed', 'look', `M${code} and no ${turns.speed} with its speed.`, {
        does: 'The tool does not turn.',
      })
    run.drive(code === turns.clockwise ? 3 : 4, Math.max(0, speed))
  }
}

/** Says where the spindle is started as such while it is an axis. */
export function startsAxis(run: Run, code: number): void {
  if (run.spindleAxis)
    run.wrong('axis-started', 'stop', `M${code} while the spindle is an axis.`, {
      does: 'The control stops with an alarm. Let the axis go before.',
    })
}

/**
 * Where a block of a lathe turns its spindle to, in degrees: C, or H from where it stands; undefined where it does not. Common practice.
 */
export function spindleAngle(run: Run): number | undefined {
  const { driven } = run.options.profile.reading
  if (!run.lathe || !driven || run.face) return undefined
  const [c, h] = [wordValue(run, 'C'), wordValue(run, 'H')]
  if (c === undefined && h === undefined) return undefined
  const word = run.scan.slot[place(c === undefined ? 'H' : 'C')] as number
  if (driven.axis && !run.spindleAxis)
    run.wrong(
      'axis-off',
      'stop',
      `The spindle is no axis yet: M${driven.axis.on} is missing before this line.`,
      {
        ...ALARM,
        word,
      },
    )
  else if (run.turning !== 0)
    run.wrong('axis-turning', 'stop', 'The spindle is turned to an angle while it runs.', { ...ALARM, word })
  return c ?? run.rotary + (h as number)
}

/** Says where a line turns the spindle, or a rotary, along with what does not follow it. */
export const notTurnedAlong = (run: Run, along: string) =>
  run.wrong('word-not-seen', 'stop', `An angle together with ${along} is not followed.`, {
    does: MAY_MOVE,
    once: `angle ${along}`,
  })

/** Says where feed counts by turns while only the driven tool makes any. */
export function turnsOfWhat(run: Run): void {
  if (run.lathe && run.driven !== 0 && run.turning === 0 && run.feedMode === 95 && run.motion !== 0)
    run.wrong('driven-feed', 'stop', 'Feed is by the turn (G99), and only the driven tool turns.', {
      does: 'Of what the turns are taken is not the same on every control: the spindle’s would be none. Write G98 and a feed by the minute.',
      once: 'moves',
    })
}

/** Whether a word of a lathe's block is an axis here: the spindle's angle, or what lies across X on the face. */
export const isDrivenWord = (run: Run, letter: string): boolean => {
  const { driven } = run.options.profile.reading
  if (!driven) return false
  if (letter === 'Y') return run.face !== null && driven.face?.across === 'Y'
  return letter === 'C' || letter === 'H'
}

/** Whether the block has a word for the angle of the spindle. */
export const turnsSpindle = (run: Run) =>
  run.lathe && run.options.profile.reading.driven !== null && (has(run, 'C') || has(run, 'H'))

import { type Block, has, lengthOf, wordValue } from './block.ts'
import { MAY_MOVE } from './check-words.ts'
import type { Run } from './run.ts'
import { EXPRESSION, POINT, place } from './scan.ts'
import type { Mirror, Scaled, Scaling, Triple } from './ways.ts'

const AXES = ['X', 'Y', 'Z'] as const

function scaledBy({ scaling, mirror }: { scaling: Scaling | null; mirror: Mirror }): Scaled | null {
  if (!scaling && mirror.every((about) => about === null)) return null
  const of = (axis: 0 | 1 | 2) => {
    const about = mirror[axis]
    const [times, plus] = about === null ? [1, 0] : [-1, 2 * about]
    const [at, by] = scaling ? [scaling.at[axis], scaling.by[axis]] : [0, 1]
    return [by * times, by * plus + at * (1 - by)] as const
  }
  const each = [of(0), of(1), of(2)] as const
  return {
    times: each.map(([times]) => times) as Triple,
    plus: each.map(([, plus]) => plus) as Triple,
  }
}

/** Takes scaling and mirroring into force: the tool does not move, its place in the program is another. */
function put(run: Run): void {
  run.scaled = scaledBy(run)
  run.rework()
  run.changed()
}

/** What goes with scaling and mirroring in ways that differ from control to control; true where that was said. */
function apart(run: Run, code: number): boolean {
  const other = run.rotation
    ? 'the program is turned'
    : run.mapping
      ? 'it is wrapped'
      : run.compensation !== 40
        ? 'cutter compensation is on'
        : undefined
  if (other === undefined) return false
  run.wrong('scaled-with', 'stop', `G${code} while ${other}: how the two go together is not followed.`, {
    does: MAY_MOVE,
  })
  return true
}

/** A factor: without a decimal point in thousandths, on a control that counts least increments. Common practice. */
function factorOf(run: Run, letter: string): number | undefined {
  const value = wordValue(run, letter)
  if (value === undefined) return undefined
  const { scan } = run
  const marks = scan.marks[scan.slot[place(letter)] as number] as number
  const thousandths =
    run.options.profile.reading.noPoint === 'least-increment' && (marks & (POINT | EXPRESSION)) === 0
  return thousandths ? value / 1000 : value
}

/** G51: about X Y Z, or where the tool stands; by P, or by I J K, one for each axis (a negative one mirrors). */
export function scalingOn(block: Block, code: number): void {
  const { run } = block
  if (apart(run, code)) return
  const at = [
    lengthOf(run, 'X') ?? run.wx,
    lengthOf(run, 'Y') ?? run.wy,
    lengthOf(run, 'Z') ?? run.wz,
  ] as Triple
  const all = factorOf(run, 'P')
  const each = [factorOf(run, 'I'), factorOf(run, 'J'), factorOf(run, 'K')]
  if (all === undefined && each.every((by) => by === undefined)) {
    run.wrong('scaling-no-factor', 'stop', `G${code} without P, or I J K: how much is not said.`, {
      does: 'The control stops with an alarm, or uses a factor that was set on a page of its own.',
    })
    return
  }
  const by = (all === undefined ? each.map((of) => of ?? 1) : [all, all, all]) as Triple
  if (by.some((of) => of === 0) || (all !== undefined && all < 0)) {
    run.wrong('scaling-factor', 'stop', `G${code} by ${by.find((of) => of <= 0)}: that is no factor.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  run.scaling = { at, by }
  put(run)
}

export function scalingOff(run: Run): void {
  run.scaling = null
  put(run)
}

/** Mirrors the axes that are named, about where their words say or about part zero, as the control does. */
export function mirrorOn({ run }: Block, code: number): void {
  if (apart(run, code)) return
  const atZero = run.options.profile.reading.positions.mirror?.about === 'zero'
  const named = AXES.filter((letter) => has(run, letter))
  if (named.length === 0) {
    run.wrong('mirror-no-axis', 'stop', `G${code} without X, Y or Z: which axis is not said.`, {
      does: 'The control stops with an alarm, or mirrors all of them.',
    })
    return
  }
  for (const letter of named) {
    const about = lengthOf(run, letter) as number
    if (atZero && about !== 0)
      run.wrong('mirror-place', 'stop', `G${code} ${letter}${about}: this control mirrors about part zero.`, {
        does: 'The control stops with an alarm, or takes no notice of the number.',
      })
    run.mirror[AXES.indexOf(letter) as 0 | 1 | 2] = atZero ? 0 : about
  }
  put(run)
}

/** Mirroring off: of the axes that are named, or of all. */
export function mirrorOff({ run }: Block): void {
  const named = AXES.filter((letter) => has(run, letter))
  for (const letter of named.length > 0 ? named : AXES) run.mirror[AXES.indexOf(letter) as 0 | 1 | 2] = null
  put(run)
}

/** What is not followed while a program is scaled or mirrored: said, and true where that is so. */
export function notWhileScaled(run: Run, what: string): boolean {
  if (!run.scaled) return false
  run.wrong('scaled-with', 'stop', `${what} while the program is scaled or mirrored is not followed.`, {
    does: MAY_MOVE,
    once: what,
  })
  return true
}

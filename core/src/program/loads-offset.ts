import type { LinearAxis } from '../machine/index.ts'
import { type Block, has, lengthOf, ROTARY, wordValue } from './block.ts'
import { MOST_WRITTEN, type OffsetWritten } from './offset-written.ts'
import type { Run } from './run.ts'
import { offsetOfVariable } from './system-variables.ts'

interface Place {
  at?: [number, number]
}

/** A program that writes an offset in a way that is not followed: where everything goes from here on is not shown. */
const notFollowed = (run: Run, place: Place = {}) =>
  run.wrong(
    'offset-not-followed',
    'stop',
    'The program writes an offset: what the setup knows of it is used as it was before.',
    {
      ...place,
      does: 'From here on the control uses what this line writes: what comes after is not shown where it goes, so the program is not proved.',
    },
  )

const follows = (run: Run, offset: string, place: Place = {}) =>
  run.wrong('loads-offset', 'look', `The program writes ${offset}: what comes after goes by that.`, {
    ...place,
    does: `The control keeps what stands in ${offset} then, also for the next program.`,
  })

/** Wear of a cutter that the program writes: compensation goes by it from here on. */
export function writesWear(run: Run, place: Place): void {
  run.changed()
  run.wrong(
    'loads-offset',
    'look',
    'The program writes wear of a cutter: compensation after it goes by that.',
    {
      ...place,
      does: 'The control keeps the wear then, also for the next program.',
    },
  )
}

/** Wear of a length that the program writes: it counts from the next length that is taken, and for the next part. */
const wears = (run: Run, place: Place) =>
  run.wrong(
    'loads-offset',
    'look',
    'The program writes wear of a length: what the setup knows of the tool is used as it was before.',
    { ...place, does: 'From here on the control uses what this line writes.' },
  )

/** A variable that holds a tool's length or wear, or a work offset, is set to a value in the program's unit. */
export function writesOffsetVariable(run: Run, number: number, value: number, place: Place): void {
  const { macros } = run.options.profile
  const first = macros?.lengthWear
  const isWear = first !== undefined && number >= first && number < first + 200
  const at = offsetOfVariable(run, number)
  if (at && writeOffset(run, at.offset, { [at.axis]: value * run.scale })) follows(run, at.offset, place)
  else if (isWear) wears(run, place)
  else notFollowed(run, place)
}

/** Writes machine positions, and degrees of the rotary, into an offset, as the control does; false where the path cannot be told to follow. */
export function writeOffset(run: Run, offset: string, axes: OffsetWritten['axes'], rotary?: number): boolean {
  if (run.lathe) return false
  const frame = run.options.frame ?? run.options.profile.offsets.standard[0] ?? 'G54'
  // The motion counts from the main offset as it was: where that is not known, nobody can say how far another lies from it.
  const known = Object.keys(axes) as LinearAxis[]
  if (known.some((axis) => run.options.offsets?.get(frame)?.[axis] === undefined)) return false
  if (rotary !== undefined) {
    if (run.options.rotaryZeros?.get(frame) === undefined) return false
    run.turnsWritten.set(offset, rotary)
  }
  run.written.set(offset, { ...run.written.get(offset), ...axes })
  if (run.offsetsWritten.length < MOST_WRITTEN)
    run.offsetsWritten.push({
      offset,
      axes,
      block: run.out.blocks - 1,
      ...(rotary === undefined ? {} : { rotary }),
    })
  run.reshift()
  run.changed()
  return true
}

/** The offset that L and P of a loading block address; undefined where it is a table of another kind. */
function addressed({ run }: Block): string | undefined {
  const { loadOffset, offsets } = run.options.profile
  const [l, p] = [wordValue(run, 'L'), wordValue(run, 'P')]
  if (!loadOffset || p === undefined) return undefined
  const { extended } = offsets
  if (l === loadOffset.standardL && offsets.standard[p - 1]) return offsets.standard[p - 1]
  return l === loadOffset.extendedL && extended && p >= 1 && p <= extended.count
    ? `${extended.code} P${p}`
    : undefined
}

/** A block that loads an offset (G10 L2, RS274/NGC 3.5.6, from memory; further offsets by the profile): what comes after goes by it. */
export function loadingBlock(block: Block): void {
  const { run } = block
  const offset = addressed(block)
  if (offset === undefined) {
    notFollowed(run)
    return
  }
  const axes: OffsetWritten['axes'] = {}
  for (const axis of ['X', 'Y', 'Z'] as const) {
    const word = lengthOf(run, axis)
    // In increments it is added to what stands there.
    const before = run.absolute ? 0 : (run.offsetAt(offset, axis) ?? Number.NaN)
    if (word !== undefined) axes[axis] = before + word
  }
  const letter = ROTARY.find((each) => has(run, each))
  const turned = letter && wordValue(run, letter)
  const rotary =
    turned === undefined ? undefined : turned + (run.absolute ? 0 : (run.rotaryAt(offset) ?? Number.NaN))
  const known = [...Object.values(axes), rotary ?? 0].every((value) => !Number.isNaN(value))
  if (known && writeOffset(run, offset, axes, rotary)) follows(run, offset)
  else notFollowed(run)
}

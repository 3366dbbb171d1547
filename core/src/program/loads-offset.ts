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
    'The program writes the radius of a cutter, or its wear: compensation after it goes by that.',
    {
      ...place,
      does: 'The control keeps it then, also for the next program.',
    },
  )
}

/** What is written into the tables of a mill's tools, by the L of a loading block: lengths, their wear, radii, their wear. Common practice. */
const TABLES: Record<number, 'length' | 'length-wear' | 'radius' | 'radius-wear'> = {
  10: 'length',
  11: 'length-wear',
  12: 'radius',
  13: 'radius-wear',
}

function besideSetup(own: number | undefined, value: number): string {
  if (own === undefined)
    return 'The setup has no length of that tool: its tip is taken to be where the program says.'
  const off = Number(Math.abs(value - own).toPrecision(6))
  if (off < 1e-9) return 'It is what the setup has.'
  return value > own
    ? `It is ${off} more than the setup has: the tip goes that much higher.`
    : `It is ${off} less than the setup has: the tip goes that much deeper.`
}

/** A program that writes a number of its own tools, in the setup's unit: what comes after goes by it. False where it is not followed. */
function writeTable(
  run: Run,
  table: (typeof TABLES)[number],
  number: number,
  word: number,
  place: Place = {},
): boolean {
  if (run.lathe || !Number.isInteger(number) || number < 1 || number > 9999) return false
  const { macros, reading } = run.options.profile
  const adds = !run.absolute
  if (table === 'length') {
    const { lengths } = run.tables
    const before = lengths.get(number) ?? run.options.lengths?.get(number)
    if (adds && before === undefined) return false
    const value = adds ? (before as number) + word : word
    lengths.set(number, value)
    run.reshift()
    run.changed()
    const own = run.options.lengths?.get(number)
    run.wrong(
      'loads-length',
      'look',
      `The program writes the length of H${number}: what comes after goes by that.`,
      {
        ...place,
        does: besideSetup(own, value),
      },
    )
    return true
  }
  if (table === 'radius') {
    if (reading.compensation.holds === 'wear') return false
    // The table holds what wear is held as: a diameter, or a radius.
    const written = word / (macros?.wearAs === 'diameter' ? 2 : 1)
    const before = run.tables.radii.get(number) ?? run.options.radii?.get(number)
    if (adds && before === undefined) return false
    run.tables.radii.set(number, adds ? (before as number) + written : written)
    writesWear(run, place)
    return true
  }
  const first = table === 'length-wear' ? macros?.lengthWear : macros?.diameterWear
  if (first === undefined || number > 200) return false
  const variable = first + number - 1
  run.setCommon(variable, word / run.scale + (adds ? (run.common.get(variable) ?? 0) : 0))
  if (table === 'length-wear') wears(run, place)
  else writesWear(run, place)
  return true
}

/** Wear of a length that the program writes: it counts from the next length that is taken, and for the next part. */
const wears = (run: Run, place: Place) =>
  run.wrong(
    'loads-offset',
    'look',
    'The program writes wear of a length: what the setup knows of the tool is used as it was before.',
    { ...place, does: 'From here on the control uses what this line writes.' },
  )

/** The length of a tool, set by its variable: always to the value. */
function setsLength(run: Run, number: number, value: number, place: Place): boolean {
  const { absolute } = run
  run.absolute = true
  const done = writeTable(run, 'length', number, value, place)
  run.absolute = absolute
  return done
}

/** A variable that holds a tool's length or wear, or a work offset, is set to a value in the program's unit. */
export function writesOffsetVariable(run: Run, number: number, value: number, place: Place): void {
  const { macros } = run.options.profile
  const first = macros?.lengthWear
  const isWear = first !== undefined && number >= first && number < first + 200
  const at = offsetOfVariable(run, number)
  // Lengths by their number: 2001 and on (common practice, from memory).
  const length =
    number >= 2001 && number <= 2200 && number < (first ?? Number.POSITIVE_INFINITY) ? number - 2000 : 0
  if (length > 0 && setsLength(run, length, value * run.scale, place)) return
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
  const table = TABLES[wordValue(run, 'L') ?? -1]
  const [number, word] = [wordValue(run, 'P'), lengthOf(run, 'R')]
  if (
    offset === undefined &&
    table &&
    number !== undefined &&
    word !== undefined &&
    writeTable(run, table, number, word)
  )
    return
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

import { writeProgram } from '../control/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { type ProgramBlock, readBlocks } from '../program/index.ts'
import { numberedTexts, palletsOfProgram } from './check.ts'
import type { PalletPlan } from './plan.ts'
import { type PalletControl, programNumberOf, tracePallets } from './trace.ts'
import { walkPallets } from './walk.ts'

/** A main program that calls each pallet and its program in turn, and the programs as they must end for it. */
export interface MendedPallets {
  main: { number: number; text: string }
  /** The text of each pallet's program, in the order of the pallets. */
  texts: string[]
}

const isWord = ({ letter, value }: ProgramBlock['words'][number], of: string, values: readonly number[]) =>
  letter === of && values.includes(value)

/**
 * A pallet's program as the main program needs it: calls for pallets and for the programs of the plan go, with nothing else
 * on their lines lost, and it ends in M99. Line numbers and comments stay.
 */
export function mendedText(text: string, numbers: readonly number[], pallets: readonly number[]): string {
  const lines = text.replace(/\r\n?/g, '\n').split('\n')
  const gone = new Set<number>()
  let ends: number | undefined
  for (const { line, words } of readBlocks(text)) {
    const call =
      words.some((word) => isWord(word, 'M', [98])) && words.some((word) => isWord(word, 'P', numbers))
    const cut = words.filter(
      (word) =>
        isWord(word, 'M', pallets) ||
        isWord(word, 'M', [2, 30, 99]) ||
        (call && (isWord(word, 'M', [98]) || word.letter === 'P' || word.letter === 'L')),
    )
    if (cut.length === 0) continue
    const end = words.some((word) => isWord(word, 'M', [2, 30, 99]))
    let next = lines[line - 1] as string
    for (const { from, to } of [...cut].sort((a, b) => b.from - a.from))
      next = next.slice(0, from) + next.slice(to)
    const left = words.filter((word) => !cut.includes(word) && word.letter !== 'N')
    if (end) {
      ends = line
      lines[line - 1] = left.length > 0 ? `${next.trimEnd()}\nM99` : 'M99'
    } else if (left.length === 0) gone.add(line)
    else lines[line - 1] = next.trimEnd()
  }
  const kept = lines.filter((_, index) => !gone.has(index + 1))
  if (ends !== undefined) return kept.join('\n')
  // Nothing says that it ends: the last words of the text do not.
  const last = kept.findLastIndex((line) => line.trim() !== '' && line.trim() !== '%')
  kept.splice(last + 1, 0, 'M99')
  return kept.join('\n')
}

/** What a program makes the control do, in short: every row of its motion. */
function movesOf(number: number, text: string, control: PalletControl) {
  const { events } = tracePallets({ number, text }, [], control)
  return events.flatMap((event) =>
    event.does === 'cut' ? [{ moves: event.moves, seconds: Math.fround(event.seconds) }] : [],
  )
}

const total = (of: { moves: number; seconds: number }[]) => ({
  moves: of.reduce((sum, { moves }) => sum + moves, 0),
  seconds: of.reduce((sum, { seconds }) => sum + seconds, 0),
})

/**
 * Writes the main program and mends the others, and reads them back: each pallet is cut once by its own program in one
 * pass, whichever is inside at the start; it begins again; calls nest no deeper each time; and each program moves as it did.
 * Findings where that can't be.
 */
export function mendPallets(
  plan: PalletPlan,
  number: number,
  about: string[],
  control: PalletControl,
): { ok: true; mended: MendedPallets } | { ok: false; findings: Finding[] } {
  const { profile, unit } = control
  const codes = profile.reading.pallets
  const numbers = plan.pallets.map(({ program }) => programNumberOf(program.text))
  const refuse = (code: string, says: string, why: string, fix?: string) => ({
    ok: false as const,
    findings: [finding('stop', code, 'main', says, why, fix)],
  })
  const known = numbers.filter((each) => each !== undefined)
  if (known.length < numbers.length)
    return refuse('no-number', 'A program has no O number.', 'It can’t be called.', 'Write one at its top.')
  if (new Set(known).size < new Set(plan.pallets.map(({ program }) => program.text)).size)
    return refuse('same-number', 'Two programs have one number.', 'The control keeps one of them.')
  if (known.includes(number))
    return refuse(
      'main-number',
      `O${number} is the program of a pallet.`,
      'The main program needs its own number.',
    )
  if (codes.length < plan.pallets.length)
    return refuse(
      'no-codes',
      `The profile ${profile.name} has codes for ${codes.length} pallets.`,
      'A call for a pallet can’t be written.',
      'Enter the M codes on the page of the profile.',
    )
  const blocks = plan.pallets.flatMap(({ params: { operation, fixture } }, index) => [
    { words: `M${codes[index]}`, does: `pallet ${index + 1} in, ${fixture}` },
    { words: `M98 P${known[index]}`, does: operation },
  ])
  const text = writeProgram(
    {
      title: 'main, pallets in turn',
      about: [...about, 'Calls each pallet and its program in turn, and begins again. Start this one.'],
      unit,
      number,
      blocks: [...blocks, { words: 'M99', does: 'from the top again' }],
    },
    profile,
  )
  const texts = plan.pallets.map(({ program }) => mendedText(program.text, known, codes))
  const mended: MendedPallets = { main: { number, text }, texts }
  const says = readBack(plan, mended, known, control)
  return says === undefined
    ? { ok: true, mended }
    : refuse('reads-otherwise', 'The mended programs do not do what they should.', says, 'Mend them by hand.')
}

/** What the mended programs do that they should not; undefined where they are right. */
function readBack(
  plan: PalletPlan,
  { main, texts }: MendedPallets,
  numbers: readonly number[],
  control: PalletControl,
): string | undefined {
  const next: PalletPlan = {
    ...plan,
    main,
    pallets: plan.pallets.map((pallet, index) => ({
      ...pallet,
      program: { ...pallet.program, text: texts[index] as string },
    })),
  }
  const trace = tracePallets(main, numberedTexts(next), control)
  if (trace.ends !== 'again') return `Started, the main program ends otherwise: ${trace.says}`
  for (const [index] of plan.pallets.entries()) {
    const walk = walkPallets(trace, index + 1, plan.pallets.length, palletsOfProgram(next))
    if (walk.wrong || walk.unknown)
      return `With pallet ${index + 1} inside at the start, a program cuts on the wrong one.`
    if (walk.cuts.some((cuts) => cuts !== 1))
      return `With pallet ${index + 1} inside at the start, not every pallet is cut once.`
    if (new Set(walk.depths).size > 1) return 'Calls nest deeper from pallet to pallet.'
  }
  for (const [index, pallet] of plan.pallets.entries()) {
    const number = numbers[index] as number
    const [before, after] = [pallet.program.text, texts[index] as string].map((text) =>
      total(movesOf(number, text, control)),
    )
    if (before?.moves !== after?.moves || Math.abs((before?.seconds ?? 0) - (after?.seconds ?? 0)) > 1e-3)
      return `O${number} would not move as it does now.`
  }
  return undefined
}

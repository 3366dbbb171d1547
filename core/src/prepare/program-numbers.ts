import { type Finding, finding } from '../fact/index.ts'
import { effectiveStrikes, inOrder } from '../log/index.ts'
import { programNumberOf } from '../pallet/index.ts'
import type { Entry, EntryOf, Logged } from '../setup/index.ts'

/** A program as the logbook of a machine knows it: by its O number, and which one it is. */
export interface NumberedProgram {
  number: number
  /** What tells it from others: the same program in another setup of the job is the same one. */
  which: string
  entry: Entry
}

const LOADS = {
  load: 'loads',
  angle: 'turns and looks at',
  turned: 'is turned for',
  probe: 'probes',
  setting: 'sets tool lengths beside',
  bar: 'puts the stop for the bar with',
} as const

/** Which program one is that was taken to the control. */
export function whichProgram({
  what = 'load',
  offset,
  title,
}: Pick<EntryOf<'program'>, 'what' | 'offset' | 'title'>) {
  if (what === 'coded' || what === 'gauge') return title ?? what
  return `the one that ${LOADS[what]} ${offset}`
}

/** What was taken to the control, and of the setup in hand what is written to go there. */
function programsOf(entry: Entry, setup: string): NumberedProgram[] {
  const of = (number: number | undefined, which: string) =>
    number === undefined ? [] : [{ number, which, entry }]
  const isOwn = entry.setup === setup
  switch (entry.kind) {
    case 'program':
      return of(programNumberOf(entry.text), whichProgram(entry))
    case 'coded':
      return isOwn ? of(entry.sheet.number, entry.sheet.title) : []
    case 'gauging':
      return isOwn ? of(entry.plan.head.number, entry.plan.head.title) : []
    case 'palleted':
      return [
        ...entry.plan.pallets.flatMap(({ program }) => of(programNumberOf(program.text), program.title)),
        ...(entry.plan.main ? of(entry.plan.main.number, 'the main program of the pallets') : []),
      ]
    default:
      return []
  }
}

/** The programs that an entry of any setup says to stand at the control, by number and by which they are. */
export const programsAtControl = (entry: Logged): string[] =>
  entry.kind === 'unread' ? [] : programsOf(entry, '').map(({ number, which }) => `${number} ${which}`)

/** Entries that a program stands in, and those that strike one out. */
const WITH_PROGRAMS: ReadonlySet<Logged['kind']> = new Set([
  'program',
  'coded',
  'gauging',
  'palleted',
  'struck',
])

/**
 * The programs that are known to stand at a machine, from the logs of its setups, and those of the setup in hand that are to go
 * there: the last entry of each number and program. Struck entries do not count. Whether one was deleted at the control, nobody told.
 */
export function numbersAt(entries: readonly Logged[], setup: string): NumberedProgram[] {
  // A logbook of years has few of these among many entries: only they are put in order.
  const ones = entries.filter((entry): entry is Entry => WITH_PROGRAMS.has(entry.kind))
  const strikes = effectiveStrikes(ones)
  const known = new Map<string, NumberedProgram>()
  for (const entry of inOrder(ones))
    if (!strikes.has(entry.id))
      for (const each of programsOf(entry, setup)) known.set(`${each.number} ${each.which}`, each)
  return [...known.values()]
}

/** The first number from `first` on that no known program has, nor any of `taken`. */
export function freeNumber(
  first: number,
  known: readonly Pick<NumberedProgram, 'number'>[],
  taken: readonly number[] = [],
): number {
  const used = new Set([...known.map(({ number }) => number), ...taken])
  let number = first
  while (used.has(number)) number++
  return number
}

const sharers = (number: number | undefined, which: string, known: readonly NumberedProgram[]) =>
  known.filter((each) => each.number === number && each.which !== which)

/** The program at the machine whose place a text takes that has its number; the last that went there. */
export const takesPlaceOf = (text: string, which: string, known: readonly NumberedProgram[]) =>
  sharers(programNumberOf(text), which, known).at(-1)

/** What is said of a number that another program at the machine has. */
export function againstNumber(
  number: number,
  which: string,
  known: readonly NumberedProgram[],
  machine: string,
): Finding[] {
  const [other] = sharers(number, which, known).slice(-1)
  if (!other) return []
  return [
    finding(
      'look',
      'number-in-use',
      'number',
      `O${number} is at ${machine} already: ${other.which}.`,
      `${other.entry.by} entered it on ${other.entry.at.slice(0, 10)}. A control keeps one program of a number: the new one takes its place, or is refused.`,
      `Take another number, such as O${freeNumber(number, known)}, unless that one was deleted.`,
    ),
  ]
}

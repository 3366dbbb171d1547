import { type Finding, finding, worstFirst } from '../fact/index.ts'
import type { PalletPlan } from './plan.ts'
import {
  type NumberedText,
  type PalletControl,
  type PalletTrace,
  programNumberOf,
  tracePallets,
} from './trace.ts'
import { nestsDeeper, type PalletWalk, walkPallets } from './walk.ts'

/** A plan with its programs read: what each does, how they call each other, and what is wrong with that. */
export interface PalletReading {
  /** The program of each pallet by itself; undefined where its text has no O number. */
  numbers: (number | undefined)[]
  /** Seconds that each pallet is cut in one stay. */
  seconds: number[]
  /** From the start of each program that can be started, the main program first. */
  traces: PalletTrace[]
  findings: Finding[]
  /** Changes of pallet until the control stops for want of levels; null where it does not. */
  swapsUntilStop: number | null
  /** It goes on for ever, pallet after pallet. */
  repeats: boolean
}

const where = (pallet: number) => `pallet ${pallet}`

/** All programs of the plan that have a number. */
export function numberedTexts(plan: PalletPlan): NumberedText[] {
  const found: NumberedText[] = []
  const texts = [...(plan.main ? [plan.main.text] : []), ...plan.pallets.map(({ program }) => program.text)]
  for (const text of texts) {
    const number = programNumberOf(text)
    if (number !== undefined && !found.some((each) => each.number === number)) found.push({ number, text })
  }
  return found
}

/** The pallets (from 1) that a program is meant for. */
export const palletsOfProgram =
  (plan: PalletPlan) =>
  (program: number): readonly number[] =>
    plan.pallets.flatMap(({ program: { text } }, index) =>
      programNumberOf(text) === program ? [index + 1] : [],
    )

/** The program that the pallet table of the control must name for a pallet: the one that is started. */
export const startedFor = (plan: PalletPlan, pallet: number): number | undefined =>
  plan.main ? plan.main.number : programNumberOf(plan.pallets[pallet - 1]?.program.text ?? '')

function numberFindings(plan: PalletPlan): Finding[] {
  const found: Finding[] = []
  const seen = new Map<number, number>()
  for (const [index, { program, params }] of plan.pallets.entries()) {
    const pallet = index + 1
    const number = programNumberOf(program.text)
    if (number === undefined) {
      found.push(
        finding(
          'stop',
          'no-number',
          where(pallet),
          `The program of pallet ${pallet} has no O number.`,
          'Neither the pallet table nor another program can name it.',
          `Write O${params.table} at its top.`,
        ),
      )
      continue
    }
    const other = seen.get(number)
    if (other !== undefined && program.text !== plan.pallets[other - 1]?.program.text)
      found.push(
        finding(
          'stop',
          'same-number',
          where(pallet),
          `The programs of pallets ${other} and ${pallet} are both O${number}.`,
          'The control keeps one program of a number: the second takes the place of the first.',
          'Give one of them another number.',
        ),
      )
    seen.set(number, pallet)
    const wanted = startedFor(plan, pallet)
    if (wanted !== undefined && params.table !== wanted)
      found.push(
        finding(
          'stop',
          'table-differs',
          where(pallet),
          plan.main
            ? `The pallet table names O${params.table} for pallet ${pallet}; what is started is the main program, O${wanted}.`
            : `The pallet table names O${params.table} for pallet ${pallet}; its program is O${number}.`,
          'The interlock compares the program that is loaded with the table: it would refuse the right one, or let a wrong one through.',
          `Key in O${wanted} for pallet ${pallet}.`,
        ),
      )
  }
  if (plan.main && programNumberOf(plan.main.text) !== plan.main.number)
    found.push(
      finding(
        'stop',
        'main-number',
        'main',
        `The main program is kept as O${plan.main.number} and says O${programNumberOf(plan.main.text) ?? 'nothing'}.`,
        'The control knows it by the number in its text.',
        'Write the main program again.',
      ),
    )
  return found
}

function walkFindings(
  plan: PalletPlan,
  trace: PalletTrace,
  walk: PalletWalk,
  place: string,
  levels: number,
): Finding[] {
  const found: Finding[] = []
  const name = `O${trace.started}`
  const { wrong, unknown } = walk
  if (unknown)
    found.push(
      finding(
        'stop',
        'unknown-pallet',
        place,
        `Line ${unknown.line} of O${unknown.program} calls pallet ${unknown.pallet}, and there are ${plan.pallets.length}.`,
        'The control stops with an alarm.',
        'Mend the call.',
      ),
    )
  if (wrong) {
    const meant = palletsOfProgram(plan)(wrong.event.program)
    found.push(
      finding(
        'stop',
        'wrong-program',
        place,
        `O${wrong.event.program} cuts while pallet ${wrong.inside} is inside; it is the program of pallet ${meant.join(', ')}.`,
        'The tool goes where the other fixture leaves room, into this one.',
        'Call each pallet just before its own program.',
      ),
    )
  }
  if (trace.ends === 'unreadable')
    found.push(finding('stop', 'unreadable', place, `${name} can’t be read.`, trace.says))
  if (trace.ends === 'missing')
    found.push(
      finding(
        'look',
        'missing',
        place,
        trace.says,
        'What it does is not looked at, and whether the control has it is not known here.',
        'Put the programs that are called into the same text, or give them a pallet.',
      ),
    )
  if (trace.ends === 'levels')
    found.push(
      nestsDeeper(walk) || walk.swaps > 0
        ? finding(
            'stop',
            'nests',
            place,
            `Started as ${name}, the control stops after ${walk.swaps} ${walk.swaps === 1 ? 'change' : 'changes'} of pallet: calls nest deeper each time.`,
            `Each program calls the next and never comes back: after ${levels} levels there is none left, and the alarm comes with nobody at the machine.`,
            'Let a main program call each in turn and begin again.',
          )
        : finding('stop', 'levels', place, `${name}: ${trace.says}`, 'The control stops with an alarm.'),
    )
  else if (walk.swaps === 0 && trace.ends === 'end')
    found.push(
      finding(
        'stop',
        'no-swap',
        place,
        `${name} ends without a call for another pallet.`,
        'One stay is cut, and the machine stands until somebody comes.',
        'Let a main program call each in turn and begin again.',
      ),
    )
  else if (trace.ends === 'end')
    found.push(
      finding(
        'look',
        'does-not-repeat',
        place,
        `Started as ${name}, it ends after ${walk.swaps} ${walk.swaps === 1 ? 'change' : 'changes'} of pallet.`,
        'It does not begin again by itself.',
        'Let a main program call each in turn and begin again.',
      ),
    )
  return found
}

const same = (a: Finding, b: Finding) => a.code === b.code && a.where === b.where

/**
 * Reads the programs of a plan as the control would: does each end in the call for the other pallet and the other program,
 * does it repeat, does it nest deeper each time (and after how many changes the control stops, by the profile's levels),
 * do the numbers match the pallet table. Lengths of time are the machine's.
 */
export function readPallets(plan: PalletPlan, control: PalletControl): PalletReading {
  const { profile, machine } = control
  const texts = numberedTexts(plan)
  const palletsOf = palletsOfProgram(plan)
  const count = plan.pallets.length
  const numbers = plan.pallets.map(({ program: { text } }) => programNumberOf(text))
  const findings = numberFindings(plan)
  if (machine.pallets === null || machine.pallets.count < count)
    findings.push(
      finding(
        'look',
        'machine-pallets',
        'machine',
        machine.pallets === null
          ? `The page of ${machine.name} says nothing of pallets.`
          : `${machine.name} has ${machine.pallets.count} pallets; here are ${count}.`,
        'How long a change takes is not known.',
        'Enter the pallets on the page of the machine.',
      ),
    )
  if (profile.reading.pallets.length < count)
    findings.push(
      finding(
        'stop',
        'no-codes',
        'machine',
        `The profile ${profile.name} has codes for ${profile.reading.pallets.length} pallets; here are ${count}.`,
        'A call for a pallet can be neither read nor written.',
        'Enter the M codes that call pallets on the page of the profile.',
      ),
    )
  const seconds = plan.pallets.map(() => 0)
  const traces: PalletTrace[] = []
  let swapsUntilStop: number | null = null
  let repeats = true
  const starts = plan.main
    ? texts.filter(({ number }) => number === plan.main?.number)
    : texts.filter(({ number }) => palletsOf(number).length > 0)
  for (const start of starts) {
    const trace = tracePallets(start, texts, control)
    traces.push(trace)
    const own = plan.main ? [] : palletsOf(start.number)
    const place = own[0] === undefined ? 'main' : where(own[0])
    // A main program is right whichever pallet is inside; a pallet's own program is started with its own.
    const insides = own.length === 0 ? plan.pallets.map((_, index) => index + 1) : own
    for (const inside of insides) {
      const walk = walkPallets(trace, inside, count, palletsOf)
      for (const each of walkFindings(plan, trace, walk, place, profile.reading.levels))
        if (!findings.some((known) => same(known, each))) findings.push(each)
      if (trace.ends === 'levels') swapsUntilStop = Math.min(swapsUntilStop ?? walk.swaps, walk.swaps)
    }
    if (trace.ends !== 'again') repeats = false
    noteSeconds(trace, insides[0] ?? 1, palletsOf, seconds)
  }
  return {
    numbers,
    seconds,
    traces,
    findings: worstFirst(findings),
    swapsUntilStop,
    repeats: repeats && starts.length > 0,
  }
}

/** The seconds of each pallet's first stay, what its subprograms cut included. */
function noteSeconds(
  { events }: PalletTrace,
  inside: number,
  palletsOf: (program: number) => readonly number[],
  seconds: number[],
): void {
  const known = seconds.map((each) => each > 0)
  const over = new Set<number>()
  let now = inside
  let cutting = false
  for (const event of events) {
    if (event.does === 'call-pallet') {
      if (cutting) over.add(now)
      cutting = false
      now = event.pallet
      continue
    }
    cutting ||= palletsOf(event.program).includes(now)
    if (cutting && !known[now - 1] && !over.has(now))
      seconds[now - 1] = (seconds[now - 1] ?? 0) + event.seconds
  }
}

import type { Verdict } from '../fact/index.ts'
import { palletsOfProgram, startedFor } from './check.ts'
import type { PalletPlan } from './plan.ts'
import { programNumberOf } from './trace.ts'

/** What stands at the control before cycle start. */
export interface BeforeStart {
  /** The pallet on the machine, from 1. */
  inside: number
  /** O number of the program that is loaded. */
  loaded: number
  interlock: boolean
}

export type StartHappens = 'runs' | 'unguarded' | 'refused' | 'crash'

/** What happens when cycle start is pressed, in plain words. */
export interface StartJudgement {
  happens: StartHappens
  verdict: Verdict
  says: string
  why: string
  fix?: string
}

/** The programs that somebody may have loaded: the main program, and that of each pallet. */
export function loadable(plan: PalletPlan): number[] {
  const own = plan.pallets.flatMap(({ program }) => programNumberOf(program.text) ?? [])
  return [...new Set([...(plan.main ? [plan.main.number] : []), ...own])]
}

/**
 * What the next press of cycle start does: common practice of a control with a pallet table and an interlock, which lets a
 * program start only where the table names it for the pallet inside. A main program calls its pallet itself, so that it is
 * right whichever is inside.
 */
export function judgeStart(plan: PalletPlan, { inside, loaded, interlock }: BeforeStart): StartJudgement {
  const named = plan.pallets[inside - 1]?.params.table
  const isMain = plan.main?.number === loaded
  const fits = isMain || palletsOfProgram(plan)(loaded).includes(inside)
  const wanted = startedFor(plan, inside)
  const load = wanted === undefined ? undefined : `Load O${wanted}, look at the pallet, and answer again.`
  if (interlock && named !== loaded)
    return {
      happens: 'refused',
      verdict: 'stop',
      says: `The control refuses to start: O${loaded} is loaded, and the pallet table names O${named} for pallet ${inside}.`,
      why: 'The interlock compares the program that is loaded with the table. Nothing moves.',
      fix: fits ? `Key in O${loaded} for pallet ${inside}.` : (load ?? 'Load the program of this pallet.'),
    }
  if (!fits)
    return {
      happens: 'crash',
      verdict: 'stop',
      says: `A crash: O${loaded} would cut on pallet ${inside}, into a fixture that it does not know.`,
      why: interlock
        ? 'The pallet table itself names the wrong program, so that the interlock lets it through.'
        : 'The interlock is off: nothing compares the program with the pallet.',
      fix: `Switch the interlock on. ${load ?? ''}`.trim(),
    }
  if (!interlock)
    return {
      happens: 'unguarded',
      verdict: 'stop',
      says: `It would run this time: O${loaded} is right for pallet ${inside}. The interlock is off.`,
      why: 'The next start with another pallet inside is a crash, and nothing would stop it.',
      fix: 'Switch the interlock on before you start.',
    }
  return {
    happens: 'runs',
    verdict: 'good',
    says: `O${loaded} starts on pallet ${inside}.`,
    why: isMain
      ? 'The main program calls pallet 1 first, whichever is inside.'
      : 'The table names it for this pallet, and the interlock is on.',
  }
}

/** Every combination of pallet inside and program loaded, with the interlock on and off. */
export const startTable = (plan: PalletPlan) =>
  plan.pallets.flatMap((_, index) =>
    loadable(plan).map((loaded) => ({
      inside: index + 1,
      loaded,
      on: judgeStart(plan, { inside: index + 1, loaded, interlock: true }).happens,
      off: judgeStart(plan, { inside: index + 1, loaded, interlock: false }).happens,
    })),
  )

/** One line of the pallet table at the control, in the order of keying. */
export interface TableLine {
  pallet: number
  program: number
  says: string
}

/** The pallet table to key in: pallet by pallet, each with the program that is started for it. */
export const tableToKey = (plan: PalletPlan): TableLine[] =>
  plan.pallets.map(({ params }, index) => ({
    pallet: index + 1,
    program: startedFor(plan, index + 1) ?? params.table,
    says: `${params.operation}, ${params.fixture}`,
  }))

import { demoReference } from '../demo/index.ts'
import {
  deriveReady,
  deriveSetup,
  deriveTools,
  isUnreadable,
  type Logged,
  type Reference,
  type Setup,
} from '../setup/index.ts'
import type { InHand } from './task.ts'
import { type Traveler, travelerOf } from './traveler.ts'

/** A setup by its log, against the reference data of the demo. */
export function setupOf(log: readonly Logged[], reference: Reference = demoReference): Setup {
  const setup = deriveSetup(log, reference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}

/** Where a setup stands whose log is the only one of its machine. */
export function travel(
  log: readonly Logged[],
  { reference = demoReference, inHand }: { reference?: Reference; inHand?: InHand } = {},
): Traveler {
  const setup = setupOf(log, reference)
  const { machine, unit } = setup
  const now = Math.max(...log.map(({ at }) => Date.parse(at)))
  return travelerOf(setup, {
    ready: deriveReady({ machine, entries: log, now }),
    lengths: deriveTools(log, machine, unit),
    reference,
    ...(inHand ? { inHand } : {}),
  })
}

/** The first thing to do of one step, in words; nothing where nothing of it is left. */
export const firstOf = (traveler: Traveler, step: Traveler['steps'][number]['step']) =>
  traveler.left.find((task) => task.step === step)?.says

/** The state of one step. */
export const stateOf = ({ steps }: Traveler, step: Traveler['steps'][number]['step']) =>
  steps.find((each) => each.step === step)?.state

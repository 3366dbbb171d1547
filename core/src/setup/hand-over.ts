import { orderOf } from '../log/index.ts'
import type { Setup } from './derive.ts'
import type { EntryOf, Logged } from './kinds.ts'
import { NO_WORK } from './put-away.ts'
import type { StepState } from './steps.ts'

/** The last handing over of a setup that counts. */
export const lastHandedOver = ({ log }: Pick<Setup, 'log'>): EntryOf<'handed-over'> | undefined =>
  log
    .flatMap(({ entry, standing }) => (entry.kind === 'handed-over' && standing !== 'struck' ? [entry] : []))
    .at(-1)

/** Done while nobody can have worked on the setup since it was handed over. */
export function handOverState({ log }: Pick<Setup, 'log'>): StepState {
  const last = lastHandedOver({ log })
  if (!last) return 'open'
  const { surelyBefore } = orderOf(log.map(({ entry }) => entry))
  return log.some(
    ({ entry, standing }) =>
      standing !== 'struck' && !NO_WORK.includes(entry.kind) && !surelyBefore(entry, last),
  )
    ? 'open'
    : 'done'
}

/** Who has read what was handed over, in any log of the machine; undefined where nobody else has. */
export const acknowledgementOf = (
  { id, by }: EntryOf<'handed-over'>,
  machineEntries: readonly Logged[],
): EntryOf<'acknowledged'> | undefined =>
  machineEntries.find(
    (entry): entry is EntryOf<'acknowledged'> =>
      entry.kind === 'acknowledged' && entry.note === id && entry.by !== by,
  )

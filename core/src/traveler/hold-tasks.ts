import type { Finding, Freshness, Verdict } from '../fact/index.ts'
import { formatLength } from '../quantity/index.ts'
import type { Setup } from '../setup/index.ts'
import type { Task, TaskPart } from './board-schema.ts'
import { staleWhy } from './task.ts'

const STEP = { step: 'hold' } as const
type HoldTask = Omit<Task, 'step'>

/** What is chosen and then judged: not yet, no longer, or found to hit. */
function chosen(
  part: TaskPart,
  fact: { freshness: Freshness; verdict: Verdict; findings: readonly Finding[] } | undefined,
  words: { first: string; why: string; again: string; was: string; stop: string },
): HoldTask[] {
  if (!fact) return [{ part, stale: false, says: words.first, why: words.why }]
  const { freshness, verdict, findings } = fact
  if (freshness.state === 'stale')
    return [{ part, stale: true, says: words.again, why: `${words.was} ${freshness.cause.says}.` }]
  return verdict === 'stop' ? [{ part, stale: false, says: words.stop, why: findings[0]?.says ?? '' }] : []
}

/** The vise and where it stands come before it is squared: another vise, or another place, is to be squared anew. */
const clearTask = ({ hold: { clearance }, machine: { name, around } }: Setup) =>
  chosen('clear', clearance, {
    ...(around && around.obstacles.length > 0
      ? {
          first: 'Choose the vise, and see whether it clears.',
          why: 'At both ends of the travel, open and closed, before it is squared there.',
        }
      : {
          first: `Enter what stands round the table of ${name}.`,
          why: 'Whether a vise clears it is told from that.',
        }),
    again: 'See again whether the vise clears.',
    was: 'It was',
    stop: 'Move the vise until it clears.',
  })

function squareTask({ hold, unit }: Setup): HoldTask[] {
  const part = 'square'
  const last = hold.sweeps.at(-1)
  const sweep = (says: string, why: string, stale = false): HoldTask[] => [{ part, stale, says, why }]
  if (!last) return sweep('Sweep the fixed jaw.', 'Nobody knows yet whether it is square.')
  if (last.freshness.state === 'stale')
    return sweep('Sweep the fixed jaw again.', staleWhy(last.freshness.cause), true)
  if (!last.squared.ok || last.verdict === 'stop')
    return sweep(
      'Sweep the fixed jaw again.',
      last.findings.find(({ severity }) => severity === 'stop')?.says ?? '',
    )
  const { within, sweep: of, tap } = last.squared
  if (of.bolts === 'one' && !within)
    return sweep(
      `Tap until the dial shows ${formatLength(tap.target, unit, { plus: true })} at ${formatLength(tap.at, unit)}, zero it again, and sweep.`,
      'The jaw is not square yet.',
    )
  if (!within) return sweep('Take one bolt out and square it again.', 'It moved when it was tightened.')
  if (of.bolts === 'one') return sweep('Snug the second bolt, and sweep.', 'Tightening moves vises.')
  return of.bolts === 'snug'
    ? sweep('Tighten both bolts, and sweep once more.', 'Tightening moves vises.')
    : []
}

/** Two readings that are asked for once a day are no task; readings that no longer hold are. */
function uprightTask({ hold: { upright } }: Setup): HoldTask[] {
  return upright?.freshness.state === 'stale'
    ? [
        {
          part: 'square',
          stale: true,
          says: 'Read again whether the fixed jaw stands upright.',
          why: staleWhy(upright.freshness.cause),
        },
      ]
    : []
}

const gripTask = ({ hold: { grip } }: Setup) =>
  chosen('grip', grip, {
    first: 'Choose collet and stop.',
    why: 'The length of the part depends on them.',
    again: 'Choose collet and stop again.',
    was: 'They were',
    stop: 'Choose another collet or stop.',
  })

/** A measured ratio is asked for again only where the grip rests on it. */
function ratioTask({ hold: { grip, lengths } }: Setup): HoldTask[] {
  return [...lengths.values()].flatMap(({ entry, freshness, collet }) =>
    freshness.state === 'stale' && grip?.entry.rests.includes(entry.id)
      ? [
          {
            part: 'ratio',
            about: collet.name,
            stale: true,
            says: `Measure the ratio of ${collet.name} again, or choose the grip without it.`,
            why: staleWhy(freshness.cause),
          } as const,
        ]
      : [],
  )
}

const checkTasks = ({ hold: { checks } }: Setup): HoldTask[] =>
  checks.flatMap(({ says, tick }) =>
    tick?.freshness.state === 'fresh'
      ? []
      : [
          {
            part: 'checks',
            stale: tick !== undefined,
            says: `Look: ${says}.`,
            why:
              tick?.freshness.state === 'stale'
                ? staleWhy(tick.freshness.cause)
                : 'Before the spindle turns.',
          } as const,
        ],
  )

/** Whether anybody began to set the vise or the collet. */
export const holdBegun = ({ hold: { sweeps, upright, grip, clearance, checks } }: Setup) =>
  sweeps.length > 0 ||
  upright !== undefined ||
  grip !== undefined ||
  clearance !== undefined ||
  checks.some(({ tick }) => tick !== undefined)

/** What is still to be done about vise or collet, in the order in which it holds. */
export function holdTasks(setup: Setup): Task[] {
  const tasks =
    setup.machine.kind === 'mill'
      ? [...clearTask(setup), ...squareTask(setup), ...uprightTask(setup)]
      : [...ratioTask(setup), ...gripTask(setup), ...checkTasks(setup)]
  return tasks.map((task) => ({ ...STEP, ...task }))
}

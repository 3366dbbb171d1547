import { formatAngle } from '../angle/index.ts'
import { whoTurns } from '../prepare/index.ts'
import type { AngleFact, OffsetState, Setup } from '../setup/index.ts'
import type { Task } from './board-schema.ts'
import { cyclesOn } from './needs.ts'
import { staleWhy } from './task.ts'
import { again } from './zero-tasks.ts'

const STEP = { step: 'angle' } as const

/** The wrong part, or one that lies the wrong way round, comes before every zero: putting it right moves it. */
export function partTasks({ part }: Setup): Task[] {
  if (!part) return []
  const of = { ...STEP, part: 'part' } as const
  if (part.freshness.state === 'stale')
    return [
      {
        ...of,
        stale: true,
        says: 'Measure again whether it is the right part.',
        why: staleWhy(part.freshness.cause),
      },
    ]
  const stop = part.findings.find(({ severity }) => severity === 'stop')
  return stop ? [{ ...of, stale: false, says: stop.fix ?? 'Put the right part in.', why: stop.says }] : []
}

/** Whether what was found about an angle is in the programs: turned by Code, or turned by hand at the control. */
function isTurned({ name, further }: OffsetState, { code }: Setup): boolean {
  const byHand = [further.angle, further.turned].some((program) => program?.freshness.state === 'fresh')
  const built = code.coded.filter((fact) => fact.entry.offset === name && cyclesOn(fact).length > 0)
  return byHand || (built.length > 0 && built.every(({ entry }) => entry.sheet.turned))
}

/** A stop of the angle itself: that X or Y is from before is for whoever takes them. */
const stopOf = ({ judgement: { findings } }: AngleFact) =>
  findings.find(({ severity }) => severity === 'stop')

function lieTask({ name, angle }: OffsetState): Task[] {
  if (!angle) return []
  const { judgement, freshness } = angle
  const of = { ...STEP, part: 'lies', about: name } as const
  const again = `Measure the angle of ${name} again.`
  if (freshness.state === 'stale')
    return [{ ...of, stale: true, says: again, why: staleWhy(freshness.cause) }]
  const stop = stopOf(angle)
  if (stop) return [{ ...of, stale: false, says: stop.fix ?? again, why: stop.says }]
  return judgement.advised === 'square'
    ? [{ ...of, stale: false, says: `${name}: ${judgement.says}`, why: whyOf(angle) }]
    : []
}

const whyOf = ({ angle, judgement }: AngleFact) =>
  `The part lies at ${formatAngle(angle.value)} degrees. ${judgement.why}`

/**
 * How the part lies, where somebody measured it: before every zero, since a part that is tapped square is elsewhere than it was.
 * Of what nobody measured, nothing is asked.
 */
export const lieTasks = ({ offsets }: Setup): Task[] => offsets.flatMap(lieTask)

function turnTask(offset: OffsetState, setup: Setup): Task[] {
  const { name, angle } = offset
  if (angle?.freshness.state !== 'fresh' || stopOf(angle)) return []
  const { advised, says } = angle.judgement
  return advised === 'turn' && !isTurned(offset, setup)
    ? [
        {
          ...STEP,
          part: 'turn',
          about: name,
          stale: false,
          says: `${name}: ${says}`,
          why: [whyOf(angle), whoTurns(setup, offset)].filter(Boolean).join(' '),
        },
      ]
    : []
}

/** Turning what runs to how the part lies, and programs at the control that turned by what no longer holds. */
export const turnTasks = (setup: Setup): Task[] =>
  setup.offsets.flatMap((offset) => {
    const { name, further } = offset
    const of = { ...STEP, part: 'turn', about: name } as const
    const unless = 'or strike it out if it is not at the control any more.'
    return [
      ...turnTask(offset, setup),
      ...again(further.angle, { ...of, says: `Take the turning program for ${name} again, ${unless}` }),
      ...again(further.turned, { ...of, says: `Take the turned program for ${name} again, ${unless}` }),
    ]
  })

export const angleBegun = ({ offsets, part }: Setup) =>
  part !== undefined || offsets.some(({ angle, further }) => angle || further.angle || further.turned)

import {
  behindOnPallets,
  type GaugeSeries,
  otherAtControl,
  partLabel,
  type Setup,
  seriesDrift,
  unprovedOnPallets,
  valueSeries,
} from '../setup/index.ts'
import type { Task } from './board-schema.ts'
import { type InHand, staleWhy } from './task.ts'

const STEP = { step: 'run' } as const

const PALLETS = { ...STEP, part: 'pallets', stale: false } as const

/** The plan of the pallets, until it is recorded as it is to run: before what it runs is proved. */
export function palletTasks(setup: Setup, inHand: InHand['pallets']): Task[] {
  const { pallets } = setup.run
  const typed = inHand && !inHand.recorded ? inHand : undefined
  if (!pallets && !typed) return []
  if (typed?.verdict === 'stop' || (!typed && pallets?.entry.verdict === 'stop'))
    return [
      {
        ...PALLETS,
        says: 'Mend the programs of the pallets.',
        why: typed ? (typed.worst ?? '') : (pallets?.entry.worst[0] ?? ''),
      },
    ]
  if (typed)
    return [
      {
        ...PALLETS,
        says: 'Record the pallets as they are planned now.',
        why: 'The start is checked against what is recorded.',
      },
    ]
  const says = 'Look at the pallets and record them again.'
  if (pallets?.freshness.state === 'stale')
    return [{ ...PALLETS, stale: true, says, why: `They were ${pallets.freshness.cause.says}.` }]
  const [behind] = behindOnPallets(setup)
  return behind === undefined
    ? []
    : [
        {
          ...PALLETS,
          says,
          why: `${behind} was built or proved anew since: they may run an earlier text of it.`,
        },
      ]
}

/** Programs that are to go to the control as the pallets run them, where they stand there with another text. */
const palletTakes = (setup: Setup, inHand: InHand['pallets']): Task[] =>
  palletTasks(setup, inHand).length > 0
    ? []
    : otherAtControl(setup).map(({ pallet, title }) => ({
        ...PALLETS,
        about: title,
        says: `Take ${title} to the control as pallet ${pallet} runs it.`,
        why: 'What was taken there under this name is another text.',
      }))

/** What is to be answered before cycle start: it waits for the plan, and for the proof of what it runs. */
function startTasks(setup: Setup, inHand: InHand['pallets']): Task[] {
  const { pallets, start } = setup.run
  if (!pallets) return []
  const waits =
    palletTasks(setup, inHand).length > 0 ||
    unprovedOnPallets(setup, pallets.entry.plan).length > 0 ||
    otherAtControl(setup).length > 0
  const stale = start?.freshness.state === 'stale'
  const of = { ...STEP, part: 'start', stale, ...(waits ? { waits } : {}) } as const
  if (start?.freshness.state === 'stale')
    return [
      {
        ...of,
        says: 'Before cycle start: look at the pallet and the program again.',
        why: staleWhy(start.freshness.cause),
      },
    ]
  return start?.judgement.happens === 'runs'
    ? []
    : [
        {
          ...of,
          says: 'Before cycle start: say which pallet is inside, and which program is loaded.',
          why: start ? start.judgement.says : 'The wrong program on a pallet is a crash.',
        },
      ]
}

/** A value of a series that the next part must not be made without correcting, in words. */
export interface CorrectionDue {
  key: string
  /** The name of the first part that should not be made before. */
  before: string
  /** Whether that is the next one to be made. */
  now: boolean
}

/** What a series shows to be corrected, by drift; nothing where it was corrected after the last part, or corrects itself. */
export function correctionsDue(series: GaugeSeries, offset: string, setup: Setup): CorrectionDue[] {
  const last = series.parts.filter(({ counts }) => counts).at(-1)
  return series.characteristics.flatMap(({ key }) => {
    const value = valueSeries(series, key, offset, setup)
    if (!value || value.uncorrected) return []
    const at = seriesDrift(value)?.correctBefore
    const done = series.corrections.some(
      (each) => each.key === key && each.gauged === last?.entry.id && each.part === last.part,
    )
    return at === undefined || done
      ? []
      : [{ key, before: partLabel(value, at), now: at <= value.values.length }]
  })
}

function gaugeTasks(setup: Setup): Task[] {
  const { plans, series, taken } = setup.gauge
  const of = { ...STEP, part: 'gauge' } as const
  const stale = plans.flatMap(({ entry, freshness }): Task[] =>
    freshness.state === 'stale'
      ? [
          {
            ...of,
            about: entry.plan.head.title,
            stale: true,
            says: `Look at ${entry.plan.head.title} and record it again.`,
            why: staleWhy(freshness.cause),
          },
        ]
      : [],
  )
  const atControl = [...taken].flatMap(([title, { freshness }]): Task[] =>
    freshness.state === 'stale'
      ? [
          {
            ...of,
            about: title,
            stale: true,
            says: `Take the gauging program ${title} again, or strike it out if it is not at the control any more.`,
            why: staleWhy(freshness.cause),
          },
        ]
      : [],
  )
  const unmeasured = plans.flatMap(({ entry: { plan } }): Task[] => {
    const { title } = plan.head
    return series.some((each) => each.title === title && each.parts.length > 0)
      ? []
      : [
          {
            ...of,
            about: title,
            stale: false,
            says: `Try ${title} on every kind of part, take the program, and record what it measures.`,
            why: 'Nothing has been measured yet.',
          },
        ]
  })
  const measured = series.flatMap((its): Task[] => {
    const { title } = its
    const chart = { ...STEP, part: 'chart', about: title, stale: false } as const
    const offset = plans.find(({ entry }) => entry.plan.head.title === title)?.entry.offset ?? ''
    return [
      ...its.parts
        .filter(({ open }) => open)
        .map(
          ({ label, out }): Task => ({
            ...chart,
            says: `Say what was done about part ${label} of ${title}.`,
            why: `${out.join(' and ')} ${out.length > 1 ? 'are' : 'is'} out of tolerance.`,
          }),
        ),
      ...correctionsDue(its, offset, setup)
        .filter(({ now }) => now)
        .map(
          ({ key, before }): Task => ({
            ...chart,
            says: `Correct ${key} of ${title} before part ${before}.`,
            why: 'It drifts towards its limit: one part more may be out of tolerance.',
          }),
        ),
    ]
  })
  return [...stale, ...atControl, ...measured, ...unmeasured]
}

/** Whether anything of the Run step was begun. */
export const runBegun = ({ gauge, run }: Setup) => gauge.plans.length > 0 || run.pallets !== undefined

/** What is still to be done before the pallets start, and about gauging, of what was begun. */
export const runTasks = (setup: Setup, inHand: InHand['pallets']): Task[] => [
  ...palletTakes(setup, inHand),
  ...startTasks(setup, inHand),
  ...gaugeTasks(setup),
]

import {
  type CodedFact,
  looksNotKept,
  looksOf,
  type ProofFact,
  proofHolds,
  type Setup,
  type TakenFact,
  textOnPallet,
  unprovedOnPallets,
} from '../setup/index.ts'
import type { Task } from './board-schema.ts'
import { cyclesOn } from './needs.ts'
import { type InHand, staleWhy } from './task.ts'

const CODE = { step: 'code', part: 'whole' } as const
const TAKE = { step: 'code', part: 'take' } as const
const PROVE = { step: 'prove', part: 'whole' } as const

/** What stands on the page of Code and not in the log. */
function codeInHand(code: InHand['code']): Task[] {
  if (!code || code.recorded || code.on === 0) return []
  const { title, incomplete, verdict } = code
  const of = { ...CODE, about: title, stale: false } as const
  if (incomplete > 0)
    return [
      {
        ...of,
        says: `Fill in ${title}: ${incomplete === 1 ? 'a cycle lacks' : `${incomplete} cycles lack`} something.`,
        why: 'The code is written as you type.',
      },
    ]
  return verdict === 'stop'
    ? [
        {
          ...of,
          says: `Mend ${title}: something in it says stop.`,
          why: 'No code is written that is known to be wrong.',
        },
      ]
    : [{ ...of, says: `Record ${title}, and prove it.`, why: 'It stands on this page only.' }]
}

const titleOf = ({ entry }: CodedFact) => entry.sheet.title

/** What is to be done about the programs that were built, until they are to be proved. */
export const codeTasks = ({ code: { coded } }: Setup, inHand: InHand['code']): Task[] => [
  ...codeInHand(inHand),
  ...coded.flatMap((fact): Task[] => {
    const title = titleOf(fact)
    const of = { ...CODE, about: title } as const
    if (inHand?.title === title && !inHand.recorded && inHand.on > 0) return []
    if (fact.freshness.state === 'stale')
      return [
        {
          ...of,
          stale: true,
          says: `Look at ${title} and record it again.`,
          why: staleWhy(fact.freshness.cause),
        },
      ]
    return cyclesOn(fact).length === 0
      ? [
          {
            ...of,
            stale: false,
            says: `Switch a cycle of ${title} on, or strike the program out.`,
            why: 'As it is it does nothing.',
          },
        ]
      : []
  }),
]

/** What is open on the page of Prove. */
function proofInHand(proof: InHand['proof']): Task[] {
  if (!proof) return []
  const { title, stop, recorded, against } = proof
  const of = { ...PROVE, about: title } as const
  if (stop) return [{ ...of, stale: false, says: `Look at line ${stop.line}.`, why: stop.says }]
  if (recorded && against)
    return [
      { ...of, stale: true, says: 'Step through it, and record the proof again.', why: `It was ${against}.` },
    ]
  return recorded
    ? []
    : [
        {
          ...of,
          stale: false,
          says: 'Step through it, and record the proof.',
          why: 'Nobody has seen yet what it will do in this setup.',
        },
      ]
}

/**
 * Programs that were built and are to be proved: no proof that holds rests on what stands in the log, and none is asked for again.
 * What runs on a pallet is proved as it runs there.
 */
const unproved = (setup: Setup): CodedFact[] =>
  setup.code.coded.filter(
    (fact) =>
      fact.freshness.state === 'fresh' &&
      cyclesOn(fact).length > 0 &&
      textOnPallet(setup, titleOf(fact)) === undefined &&
      !setup.prove.proofs.some(
        (proof) =>
          proof.entry.rests.includes(fact.entry.id) ||
          (proof.entry.title === titleOf(fact) && !proofHolds(proof)),
      ),
  )

/** Programs at the control whose text no proof is of, though one may be of another text of the same name. */
function unprovedAtControl(setup: Setup): [string, TakenFact][] {
  const { proofs } = setup.prove
  const asked = new Set([
    ...unproved(setup).map(titleOf),
    ...proofs.filter((proof) => !proofHolds(proof)).map(({ entry }) => entry.title),
  ])
  return [...setup.code.taken].filter(
    ([title, { entry, freshness }]) =>
      freshness.state === 'fresh' &&
      !asked.has(title) &&
      textOnPallet(setup, title) === undefined &&
      !proofs.some((proof) => proofHolds(proof) && proof.entry.text === entry.text),
  )
}

/** Programs that the recorded pallets run and that no proof is of; while another plan stands on the page, they may be others. */
function onPallets(setup: Setup, inHand: InHand['pallets']): Task[] {
  const { pallets } = setup.run
  if (!pallets || (inHand && !inHand.recorded)) return []
  const again = new Set(
    setup.prove.proofs.filter((proof) => !proofHolds(proof)).map(({ entry }) => entry.title),
  )
  return unprovedOnPallets(setup, pallets.entry.plan)
    .filter(
      ({ title }, n, all) =>
        textOnPallet(setup, title) !== undefined &&
        !again.has(title) &&
        all.findIndex((each) => each.title === title) === n,
    )
    .map(({ pallet, title }) => ({
      ...PROVE,
      ...(title ? { about: title } : {}),
      stale: false,
      says: `Prove ${title || 'the program'} as pallet ${pallet} runs it.`,
      why: 'A proof is of one text, to the letter: what the pallet runs is another.',
    }))
}

/** Findings to look at, one by one, until each was let stand by somebody or mended. */
function lookTasks(proof: ProofFact, prove: Setup['prove']): Task[] {
  const { title } = proof.entry
  const of = { ...PROVE, about: title, stale: false } as const
  const looks = looksOf(proof, prove).filter(({ stands }) => !stands)
  const more = looksNotKept(proof)
  return [
    ...looks.map(
      ({ line, says }): Task => ({
        ...of,
        says: `Look at line ${line} of ${title}: mend it, or let it stand.`,
        why: says,
      }),
    ),
    ...(more > 0
      ? [
          {
            ...of,
            says: `Mend some of what is said of ${title}, and prove it again.`,
            why: `${more} more to look at ${more > 1 ? 'are' : 'is'} not kept one by one.`,
          },
        ]
      : []),
  ]
}

const proofTask = (proof: ProofFact, prove: Setup['prove']): Task[] => {
  const { entry, freshness } = proof
  const of = { ...PROVE, about: entry.title } as const
  if (freshness.state === 'stale')
    return [{ ...of, stale: true, says: `Prove ${entry.title} again.`, why: staleWhy(freshness.cause) }]
  return entry.verdict === 'stop'
    ? [
        {
          ...of,
          stale: false,
          says: `Mend ${entry.title}: something in it says stop.`,
          why: entry.worst[0]?.says ?? '',
        },
      ]
    : lookTasks(proof, prove)
}

/** What is to be proved, and what it is proved against. */
export function proveTasks(
  setup: Setup,
  { proof: inHand, area: placed, pallets }: Pick<InHand, 'proof' | 'area' | 'pallets'>,
): Task[] {
  const { proofs, layout } = setup.prove
  const area = { ...PROVE, part: 'area' } as const
  const tasks = [
    ...proofs
      .filter(({ entry }) => inHand?.title !== entry.title || inHand.recorded)
      .flatMap((proof) => proofTask(proof, setup.prove)),
    ...unproved(setup).map(
      (fact): Task => ({
        ...PROVE,
        about: titleOf(fact),
        stale: false,
        says: `Prove ${titleOf(fact)}.`,
        why: 'Nobody has seen yet what it will do in this setup.',
      }),
    ),
    ...unprovedAtControl(setup).map(
      ([title]): Task => ({
        ...PROVE,
        about: title,
        stale: false,
        says: `Prove ${title} as it stands at the control.`,
        why: 'A proof is of one text, to the letter: what was taken is another.',
      }),
    ),
    ...onPallets(setup, pallets),
  ]
  const asked = tasks.length > 0 || inHand !== undefined
  return [
    ...(placed && !placed.recorded && placed.bodies > 0
      ? [
          {
            ...area,
            stale: layout?.freshness.state === 'stale',
            says: 'Record the work area as it is placed.',
            why: 'A proof is against what stands in the log.',
          },
        ]
      : layout?.freshness.state === 'stale'
        ? [
            {
              ...area,
              stale: true,
              says: 'Look at each thing in the work area, and record it again.',
              why: staleWhy(layout.freshness.cause),
            },
          ]
        : !layout && asked
          ? [
              {
                ...area,
                stale: false,
                says: 'Place the part, the vise and the clamps.',
                why: 'A crash is found only against what is placed.',
              },
            ]
          : []),
    ...proofInHand(inHand),
    ...tasks,
    ...(layout && proofs.length === 0 && !asked
      ? [
          {
            ...PROVE,
            stale: false,
            says: 'Open the program and step through it.',
            why: 'Nobody has seen yet what it will do in this setup.',
          },
        ]
      : []),
  ]
}

/** What is to go to the control: programs whose proof holds, and those that stand there and no longer do. */
export function takeTasks({ code: { coded, taken }, prove }: Setup): Task[] {
  const { proofs } = prove
  const stale = [...taken].flatMap(([title, { freshness }]): Task[] =>
    freshness.state === 'stale'
      ? [
          {
            ...TAKE,
            about: title,
            stale: true,
            says: `Take ${title} to the control again, or strike it out if it is not there any more.`,
            why: staleWhy(freshness.cause),
          },
        ]
      : [],
  )
  const proved = coded.flatMap((fact): Task[] => {
    const title = titleOf(fact)
    return !taken.has(title) &&
      fact.freshness.state === 'fresh' &&
      proofs.some(
        (proof) =>
          proofHolds(proof) &&
          lookTasks(proof, prove).length === 0 &&
          proof.entry.rests.includes(fact.entry.id),
      )
      ? [
          {
            ...TAKE,
            about: title,
            stale: false,
            says: `Take ${title} to the control.`,
            why: 'It is proved as it stands here.',
          },
        ]
      : []
  })
  return [...stale, ...proved]
}

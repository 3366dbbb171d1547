import { z } from 'zod'
import { KEPT_FINDINGS, VERDICT_WORDS } from '../fact/index.ts'
import { defineFact, dependsOn, entrySchema, versionRef } from '../log/index.ts'
import { secondsTaken } from '../timing/index.ts'
import { palletPlan } from './plan.ts'
import { numberOnly } from './trace.ts'

export const PALLETS = 'pallets'
export const START = 'start'

const withoutText = <T extends { text: string }>(program: T): T => ({
  ...program,
  text: numberOnly(program.text),
})

/** Programs on pallets, planned. */
export const palleted = defineFact({
  schema: entrySchema('palleted', {
    plan: palletPlan,
    rests: dependsOn(0, 60).describe('the proofs of its programs, as far as there are any'),
    seconds: z.array(secondsTaken).max(12).describe('that each pallet is cut in one stay, as computed'),
    verdict: z.enum(['good', 'look', 'stop']),
    worst: z.array(z.string().max(300)).max(KEPT_FINDINGS),
    profile: versionRef,
    machine: versionRef,
  }),
  upcast: [],
  subject: () => PALLETS,
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'planned',
  replaced: { past: 'the pallets were changed' },
  makesStale: 'nothing',
  describe: ({ plan: { pallets, main }, verdict, worst }) => ({
    says: `Pallets planned: ${pallets.length}, ${VERDICT_WORDS[verdict]}`,
    detail: [
      ...pallets.map(
        ({ params, program }, index) =>
          `pallet ${index + 1}: ${params.operation}, ${program.title}, O${params.table} in the table`,
      ),
      ...(main ? [`main program O${main.number}`] : []),
      ...worst.slice(0, 2),
    ].join('; '),
  }),
  group: 'run',
  slim: (entry) => ({
    ...entry,
    plan: {
      ...entry.plan,
      pallets: entry.plan.pallets.map((pallet) => ({ ...pallet, program: withoutText(pallet.program) })),
      main: entry.plan.main && withoutText(entry.plan.main),
    },
  }),
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** What was answered before cycle start: which pallet is inside, which program is loaded. */
export const startChecked = defineFact({
  schema: entrySchema('start-checked', {
    inside: z.int().min(1).max(12).describe('the pallet on the machine'),
    loaded: z.int().min(1).max(99_999).describe('O number of the program that is loaded'),
    interlock: z.boolean(),
    rests: dependsOn(1, 1).describe('the pallet plan that it was held against'),
  }),
  upcast: [],
  subject: () => START,
  dependsOn: ({ rests }) => rests,
  factKind: () => 'start-check',
  taken: 'answered',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: ({ inside, loaded, interlock }) => ({
    says: `Before the start: pallet ${inside} inside, O${loaded} loaded, interlock ${interlock ? 'on' : 'off'}`,
    detail: '',
  }),
  group: 'run',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

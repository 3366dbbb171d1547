import { z } from 'zod'
import { offsetName } from '../control/index.ts'
import {
  defineEntry,
  defineFact,
  dependsOn,
  entrySchema,
  spokenWords,
  versionRef,
  words,
} from '../log/index.ts'
import { describeTyped, typedLength } from '../quantity/index.ts'
import { keyOf } from './characteristic.ts'
import { REACTION_NAMES } from './feature.ts'
import { gaugePlan } from './plan.ts'
import { measuredParts } from './results.ts'

const planTitle = spokenWords(40, 'Name the plan.')

/** A plan for gauging in the cycle. */
export const gauging = defineFact({
  schema: entrySchema('gauging', {
    offset: offsetName.describe('that the program runs in'),
    plan: gaugePlan,
    rests: dependsOn(0, 60),
    profile: versionRef,
    machine: versionRef,
  }),
  upcast: [],
  subject: ({ plan: { head } }) => `gauging/${head.title}`,
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'composed',
  replaced: { past: 'its plan was changed' },
  makesStale: 'nothing',
  describe: ({ plan: { head, features }, offset }) => ({
    says: `Gauging composed: ${head.title}`,
    detail: [
      ...features.map(({ params }) => `${keyOf(params.name)} ${REACTION_NAMES[params.react]}`),
      offset,
    ].join(', '),
  }),
  group: 'run',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

const CAME = { typed: 'typed', pasted: 'pasted', file: 'from a file' } as const

function partsSaid(parts: readonly { label: string }[]): string {
  const [first, last] = [parts[0]?.label, parts.at(-1)?.label]
  return parts.length === 1 ? `Part ${first} measured` : `${parts.length} parts measured: ${first} to ${last}`
}

/** Measured parts. */
export const gauged = defineEntry({
  schema: entrySchema('gauged', {
    plan: planTitle.describe('the title of the plan, which groups its revisions'),
    rests: dependsOn(1, 1).describe('the revision of the plan that they were measured by'),
    ...measuredParts.shape,
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ parts, plan, came }) => ({ says: partsSaid(parts), detail: `${plan}, ${CAME[came]}` }),
  group: 'run',
  slim: (entry) => ({ ...entry, parts: entry.parts.slice(0, 1) }),
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

/** What was done about a part that is out of tolerance. */
export const settledAs = z.enum(['reworked', 'scrapped', 'let-through', 'not-counted'])
export type SettledAs = z.infer<typeof settledAs>

export const SETTLED_NAMES: Record<SettledAs, string> = {
  reworked: 'reworked, good now',
  scrapped: 'scrapped',
  'let-through': 'let through',
  'not-counted': 'measured wrong, does not count',
}

const partRef = {
  gauged: z.ulid(),
  part: z.int().min(0).describe('its place in the entry'),
  label: spokenWords(30, 'Name the part.'),
}

/** A part that is out of tolerance, and what was done about it. */
export const settled = defineEntry({
  schema: entrySchema('settled', { ...partRef, did: settledAs, note: words(300) }).refine(
    ({ did, note }) => (did !== 'let-through' && did !== 'not-counted') || note.length > 0,
    {
      error: 'Say why: a part out of tolerance is let through, or a value does not count, for a reason.',
      path: ['note'],
    },
  ),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ label, did, note }) => ({
    says: `Part ${label}, out of tolerance: ${SETTLED_NAMES[did]}`,
    detail: note,
  }),
  group: 'run',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

/** A value, corrected after a part. */
export const correctedAfter = defineEntry({
  schema: entrySchema('corrected', {
    plan: planTitle,
    key: spokenWords(30, 'Name the value.'),
    ...partRef,
    tool: z.int().min(1).max(200).nullable().describe('whose wear was corrected, if it was a tool'),
    amount: typedLength.describe('how much the value should move, signed'),
    note: words(300),
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ key, amount, label, tool, note }) => ({
    says: `${key} corrected by ${describeTyped(amount)} after part ${label}${tool === null ? '' : `, T${tool}`}`,
    detail: note,
  }),
  group: 'run',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

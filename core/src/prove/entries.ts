import { z } from 'zod'
import { offsetName } from '../control/index.ts'
import { KEPT_FINDINGS, VERDICT_WORDS } from '../fact/index.ts'
import {
  defineEntry,
  defineFact,
  dependsOn,
  entrySchema,
  LONGEST_PROGRAM,
  reshapedSchema,
  spokenWords,
  textHash,
  versionRef,
} from '../log/index.ts'
import { formatDuration } from '../quantity/index.ts'
import { layout } from './body.ts'
import { coverage, coverageSays } from './coverage.ts'

export const LAYOUT = 'layout'

const title = spokenWords(80, 'Give the program a name.')

/** What stands in the work area. */
export const laidOut = defineFact({
  schema: entrySchema('laid-out', layout.shape),
  upcast: [],
  subject: () => LAYOUT,
  dependsOn: () => [],
  factKind: () => 'layout',
  taken: 'placed',
  replaced: 'what stands in the work area',
  makesStale: 'nothing',
  describe: ({ bodies }) => ({
    says: `Work area laid out: ${bodies.length} ${bodies.length === 1 ? 'body' : 'bodies'}`,
    detail: bodies.map(({ name }) => name).join(', '),
  }),
  group: 'prove',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** A program, proved: for its exact text and what it depends on. */
export const proved = defineFact({
  schema: reshapedSchema('proved', 2, {
    title,
    frame: offsetName.describe('the offset whose part zero the layout counts from'),
    hash: textHash,
    characters: z.int().min(1),
    text: z
      .string()
      .max(LONGEST_PROGRAM)
      .optional()
      .describe('the text itself, unless it is too long for the log'),
    blockDelete: z.boolean().optional().describe('it was on: lines with a slash were skipped'),
    verdict: z.enum(['good', 'look', 'stop']),
    counts: z.object({ stop: z.int().min(0), look: z.int().min(0), note: z.int().min(0) }),
    worst: z
      .array(z.object({ code: z.string().max(40), line: z.int().min(1), says: z.string().max(300) }))
      .max(KEPT_FINDINGS),
    seconds: z.number().min(0).describe('cycle time'),
    rests: dependsOn(0, 60),
    lengths: z
      .array(z.object({ tool: z.int().min(0).max(9999), length: z.number() }))
      .max(200)
      .describe('tool lengths as they were, in the unit of the setup'),
    tools: z.array(versionRef).max(200).describe('shapes of the tools as they were'),
    uses: z
      .array(z.int().min(0).max(9999))
      .max(10_000)
      .optional()
      .describe('numbers of all its tools, known or not; nothing in entries from before they were kept'),
    coverage: coverage.optional().describe('how it was read; nothing in entries from before it was kept'),
    profile: versionRef,
    machine: versionRef,
  }),
  // What was taken on somebody's word was not kept before.
  upcast: [(older) => older],
  subject: (entry) => `proof/${entry.title}`,
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'proved',
  replaced: 'the proof of its program',
  makesStale: 'nothing',
  describe: (entry) => ({
    says: `Proved: ${entry.title}${entry.blockDelete ? ' with block delete on' : ''}, ${VERDICT_WORDS[entry.verdict]}`,
    detail: [
      `${entry.characters} characters, ${formatDuration(entry.seconds)}`,
      ...(entry.coverage ? [coverageSays(entry.coverage)] : []),
      ...entry.worst.slice(0, 3).map(({ line, says }) => `line ${line}: ${says}`),
    ].join('; '),
  }),
  group: 'prove',
  slim: ({ text: _, ...rest }) => rest,
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** A finding to look at of one text, that a person opened, looked at, and lets stand: named by who did. */
export const letStand = defineEntry({
  schema: entrySchema('let-stand', {
    title,
    hash: textHash,
    code: z.string().max(40),
    line: z.int().min(1),
    says: z.string().min(1).max(300),
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: (entry) => ({
    says: `Looked at and let stand: line ${entry.line} of ${entry.title}`,
    detail: entry.says,
  }),
  group: 'prove',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

import { z } from 'zod'
import { layout } from '../prove/index.ts'
import { LONGEST_PROGRAM, offsetName, spokenWords, stamp, versionRef } from './entry-parts.ts'

export const laidOut = z.object({
  ...stamp,
  kind: z.literal('laid-out'),
  ...layout.shape,
})

/** The worst of a proof's findings are kept with it; the rest can be found again from the text. */
export const KEPT_FINDINGS = 20

export const hash = z
  .string()
  .regex(/^[0-9a-f]{64}$/)
  .describe('SHA-256 of the text')

export const proved = z.object({
  ...stamp,
  kind: z.literal('proved'),
  title: spokenWords(80, 'Give the program a name.'),
  frame: offsetName.describe('the offset whose part zero the layout counts from'),
  hash,
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
  rests: z.array(z.ulid()).max(60),
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
  profile: versionRef,
  machine: versionRef,
})

/** A finding to look at of one text, that a person opened, looked at, and lets stand: named by who did. */
export const letStand = z.object({
  ...stamp,
  kind: z.literal('let-stand'),
  title: spokenWords(80, 'Give the program a name.'),
  hash,
  code: z.string().max(40),
  line: z.int().min(1),
  says: z.string().min(1).max(300),
})

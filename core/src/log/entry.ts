import { z } from 'zod'
import { clockStamp } from './stamp.ts'

// What the entries of a log are made of, whatever they say.

/** A row of reference data, at the version that the entry used. */
export const versionRef = z.object({ id: z.string().min(1).max(40), version: z.int().min(1) })

export const initials = z
  .string()
  .trim()
  .min(1, 'Say who you are: your initials.')
  .max(8, 'Initials, not a name: at most 8 characters.')

const moment = z.iso.datetime({ precision: 3 })

/** What every entry carries. The id is made by the client, so that sending it twice adds it once. */
const stamp = {
  id: z.ulid(),
  setup: z.ulid().describe('the id of the entry that opened the setup'),
  at: moment.describe('when it happened, UTC, by the server clock as far as the tablet knows it'),
  by: initials,
  clock: clockStamp.optional().describe('what the order is told from; nothing where no tablet wrote it'),
  received: moment.optional().describe('when the server received it; written by it'),
  latest: moment
    .optional()
    .describe('the latest moment at which it can have been made; written by the server'),
  tablet: z
    .string()
    .max(40)
    .optional()
    .describe('what the tablet was called that it came from; written by the server where tablets are let in'),
  carried: z
    .object({ entry: z.ulid(), by: initials, at: moment })
    .optional()
    .describe('taken over from the last setup of the job: which entry it is there, who made it and when'),
}

const stampObject = z.object(stamp)
export type Stamp = z.infer<typeof stampObject>

/** An entry, as far as this room knows it. */
export interface LogEntry extends Stamp {
  kind: string
  /** Which shape of its kind it was written in; left out for the first. */
  shape?: number | undefined
}

/** The schema of a kind: its stamp, its name, and what it says. */
export const entrySchema = <const Kind extends string, Body extends z.ZodRawShape>(kind: Kind, body: Body) =>
  z.object({ ...stamp, kind: z.literal(kind), ...body })

/**
 * The same for a kind whose shape was changed since: entries say which shape they were written in, so that a page or a server
 * from before the change does not take one for its own.
 */
export const reshapedSchema = <
  const Kind extends string,
  const Shape extends number,
  Body extends z.ZodRawShape,
>(
  kind: Kind,
  shape: Shape,
  body: Body,
) => z.object({ ...stamp, kind: z.literal(kind), shape: z.literal(shape), ...body })

export const words = (most: number) => z.string().trim().max(most, `Keep it under ${most} characters.`)
export const spokenWords = (most: number, says: string) => words(most).min(1, says)

/** Ids of the entries that one depends on, in the log's own word. */
export const dependsOn = (least: number, most: number) => z.array(z.ulid()).min(least).max(most)

/** Longer texts of programs are not kept in the log. */
export const LONGEST_PROGRAM = 200_000

export const textHash = z
  .string()
  .regex(/^[0-9a-f]{64}$/)
  .describe('SHA-256 of the text')

import { z } from 'zod'
import { initials } from '../log/index.ts'
import { positionsRead } from '../machine/index.ts'
import { newPin, personName } from '../people/index.ts'
import { FOUND_BY } from '../prepare/index.ts'
import { lengthUnit } from '../quantity/index.ts'
import { earlierTime, NOUNS } from '../setup/index.ts'
import { setupFile } from '../sheet/index.ts'
import { hiddenTruth, practiceResult, simulatedAction, simulatedMachine } from '../simulated/index.ts'
import { setupSummary, toldBoard, wentSchema } from '../traveler/index.ts'
import { type Contract, logged, loggedNamed, rowOf, told } from './parts.ts'
import { PEOPLE_CONTRACT } from './people-contract.ts'
import type { RouteName } from './routes.ts'

const MOST_ENTRIES = 500

const one = z.object({ id: z.string() })
const since = z.object({
  after: z.coerce
    .number<string | number>()
    .int()
    .min(0)
    .default(0)
    .describe('the place of the last entry that is known already; 0 for all'),
})
const log = z.object({
  entries: z.array(logged).describe('what cannot be read as an entry stands among them'),
  seq: z.int().min(0).describe('the place of the last of them, to ask from the next time'),
  ...told,
})
const pageBefore = z.coerce
  .number<string | number>()
  .int()
  .min(0)
  .default(Number.MAX_SAFE_INTEGER)
  .describe('as the page before said; left out for the first')

const backupWhy = z.enum(['night', 'before-update', 'asked'])
const time = z.iso.datetime({ precision: 3 })
const shopState = z.object({
  logbook: z.string(),
  file: z.string(),
  entries: z.int().min(0).describe('the place of the last of them'),
  bytes: z.int().min(0),
  free: z
    .number()
    .min(0)
    .exactOptional()
    .describe('what is left of the disk, in bytes; left out where nobody knows'),
  begins: z.literal(true).exactOptional().describe('this is the demo, and an own shop can be set up'),
  alarm: z.string().exactOptional().describe('what everybody must know of the logbook'),
  warnings: z.array(z.string()).describe('what somebody must do something about'),
  backups: z.object({
    folder: z.string(),
    days: z
      .int()
      .min(0)
      .describe('of those made each night, one is kept for so many days; 0 where none is made'),
    months: z.int().min(0).describe('and one for so many months'),
    made: z
      .array(z.object({ name: z.string(), why: backupWhy, at: time, bytes: z.int().min(0) }))
      .describe('the newest first; each was opened and held against the logbook'),
    running: backupWhy.exactOptional(),
    failed: z
      .object({ at: time, says: z.string() })
      .exactOptional()
      .describe('the last one, where it could not be made'),
  }),
})

const entriesOnly = z.object({ entries: z.array(logged), ...told })
const taken = {
  added: z.int().min(0),
  known: z.int().min(0).describe('were here already, from an earlier sending'),
}
const seed = z.int('A piece has a whole number.').min(1).max(999_999)

/** What a shop's Dogleg is asked, and what it answers, route by route. The server and its page are both made from it. */
export const CONTRACT = {
  addEntries: {
    says: 'Adds entries to the logs of their setups; one that is there already is not added twice.',
    body: z
      .object({
        entries: z
          .array(z.unknown())
          .min(1, 'Nothing to add.')
          .max(MOST_ENTRIES, `At most ${MOST_ENTRIES} entries at a time.`)
          .describe('each an Entry, in the shape of today or of before'),
        held: z
          .array(z.number().min(0).max(1e12))
          .optional()
          .describe('for how many ms each has lain on the tablet, by a clock that nobody can set'),
        sittings: z
          .array(z.string().max(40))
          .optional()
          .describe('the sitting that each was made in, where people sign in'),
        givenBack: z
          .literal(true)
          .optional()
          .describe('a lead gives back what the server had: they are anybody’s, and not signed anew'),
      })
      .refine(({ entries, held }) => held === undefined || held.length === entries.length, {
        error: 'As many as there are entries.',
        path: ['held'],
      })
      .refine(({ entries, sittings }) => sittings === undefined || sittings.length === entries.length, {
        error: 'As many as there are entries.',
        path: ['sittings'],
      }),
    answer: z.object({ ...taken, ...told }),
    status: 201,
  },
  board: {
    says: 'The whole shop at a glance: every machine with the setups worked on of late, what is stale and what is next.',
    query: z.object({
      by: initials.optional().describe('whoever asks: what waits is what waits for that person'),
      mark: z
        .string()
        .max(200)
        .optional()
        .describe('of the last answer: where nothing has changed since, there is no board'),
    }),
    answer: z.object({
      board: toldBoard
        .exactOptional()
        .describe(
          'left out where it is as it was; of a machine on which nothing changed since the mark there is only that',
        ),
      mark: z.string().describe('says which board this is'),
      reads: z
        .int()
        .min(0)
        .max(100)
        .exactOptional()
        .describe(
          'while the logbook is read through once, after Dogleg was changed: how much of it was, in hundredths',
        ),
      alarm: z.string().exactOptional().describe('what everybody must know of the logbook'),
      warnings: z.array(z.string()).exactOptional().describe('what somebody must do something about'),
      ...told,
    }),
  },
  olderSetups: {
    says: 'Setups of a machine, a page at a time, the one that was worked on last first.',
    params: one,
    query: z.object({
      before: pageBefore,
      by: initials.optional(),
    }),
    answer: z.object({
      setups: z.array(setupSummary),
      unreadable: toldBoard.shape.unreadable,
      next: z.int().min(0).exactOptional().describe('where the next page begins; left out on the last'),
      ...told,
    }),
  },
  jobSetups: {
    says: 'The setups of one job on every machine, the one worked on last first, a page at a time, and how each went.',
    params: z.object({ job: z.string().max(200).describe('its title; capitals do not matter') }),
    query: z.object({ before: pageBefore }),
    answer: z.object({
      setups: z.array(wentSchema),
      unreadable: z.array(z.object({ id: z.string(), says: z.string() })),
      next: z.int().min(0).exactOptional().describe('where the next page begins; left out on the last'),
      reads: z
        .int()
        .min(0)
        .max(100)
        .exactOptional()
        .describe('while the logbook is read through once: how much of it was, in hundredths'),
      ...told,
    }),
  },
  changes: {
    says: 'Tells of changes as they are made, by server-sent events, and every fifteen seconds that there were none.',
    query: z.object({
      after: z
        .string()
        .max(60)
        .optional()
        .describe('the id of the last event that was heard: what was missed since is told first'),
    }),
    stream: true,
    answer: z.object({
      setups: z
        .array(
          z.object({
            id: z.string(),
            machine: z.string().exactOptional().describe('left out where it was not looked up'),
            kinds: z.array(z.string()).exactOptional().describe('of the entries; left out likewise'),
          }),
        )
        .describe('setups that have new entries'),
      all: z.literal(true).exactOptional().describe('anything may have changed'),
      stamp: z.int().min(0).describe('grows with every version of any row of reference data'),
      ...told,
    }),
  },
  setupLog: {
    says: 'The log of one setup.',
    params: one,
    query: since.extend({
      texts: z
        .enum(['inside', 'named'])
        .default('inside')
        .describe(
          'where long texts are: inside the entries, or as {"text-sha256": hash} in their places, to be asked for by that name',
        ),
    }),
    answer: log.extend({
      entries: z.array(loggedNamed).describe('what cannot be read as an entry stands among them'),
    }),
  },
  longText: {
    says: 'A long text that stands apart from the entries that have it: a program.',
    params: z.object({
      hash: z
        .string()
        .regex(/^[0-9a-f]{64}$/, 'A text is named by 64 hexadecimal digits.')
        .describe('SHA-256 of its UTF-8, in hexadecimal'),
    }),
    answer: z.object({ hash: z.string(), text: z.string() }),
    immutable: true,
  },
  earlierRuns: {
    says: 'What others say of a setup: the last ten setups of its job before it, and who has read its notes.',
    params: one,
    answer: entriesOnly,
  },
  machineLog: {
    says: 'How a machine stands: the logs of the setups on it that count, without what is long; or what came to it since a place.',
    params: one,
    query: since,
    answer: log.extend({
      single: z
        .array(z.string())
        .exactOptional()
        .describe(
          'setups of which only single entries are told: where something comes to one of them, all is asked for anew',
        ),
      earlier: earlierTime
        .exactOptional()
        .describe(
          'what is known of the time before that from which on all entries are there; left out where all are',
        ),
    }),
  },
  machinePrograms: {
    says: 'Programs that are known to stand at the control of a machine: the last entry of each.',
    params: one,
    answer: entriesOnly,
  },
  machineTimes: {
    says: 'Cycles that were timed on a machine, the last two hundred.',
    params: one,
    answer: entriesOnly,
  },
  numbersLog: {
    says: 'Serial numbers of a series that were given out in the whole shop, and what cannot be read of any log.',
    query: z.object({ series: z.string().max(200) }),
    answer: entriesOnly,
  },
  importSetup: {
    says: 'Takes a setup in from the file that was saved from its sheet.',
    body: setupFile,
    door: true,
    answer: z.object({
      setup: z.string(),
      ...taken,
      kept: z
        .array(z.object({ noun: z.enum(NOUNS), name: z.string() }))
        .describe('rows of reference data that were here already, and count as they are here'),
    }),
    status: 201,
  },
  search: {
    says: 'Setups of the whole shop in whose logs all words stand, the one that was worked on last first.',
    query: z.object({
      text: z
        .string()
        .max(200)
        .default('')
        .describe('words, each perhaps only begun; what stands in quotes is one; none for all setups'),
      before: pageBefore,
    }),
    answer: z.object({
      found: z.array(
        z.object({
          id: z.string(),
          title: z.string(),
          machine: z.string().exactOptional().describe('its name; left out where it is not known here'),
          openedAt: z.string().exactOptional(),
          by: z.string().exactOptional().describe('who opened it'),
          lastAt: time,
          why: z.array(
            z.object({
              by: z
                .enum([...FOUND_BY, 'named'])
                .describe("what it was found by; 'named': a row of reference data"),
              says: z.array(z.object({ text: z.string(), hit: z.literal(true).exactOptional() })),
            }),
          ),
        }),
      ),
      next: z.int().min(0).exactOptional(),
      reads: z.int().min(0).max(100).exactOptional().describe('as of the board'),
      ...told,
    }),
  },
  shop: { says: 'The logbook as a whole, its disk and its backups.', answer: shopState },
  setUpShop: {
    says: 'Sets up an own shop, where only the demo was shown until now: the server then goes on with that.',
    body: z.object({
      by: initials.optional().describe('whoever does it'),
      lead: z
        .object({ initials, name: personName, pin: newPin })
        .optional()
        .describe('the first lead; left out where nobody signs in, at one PC'),
      machines: z.array(rowOf('machines')).min(1, 'Name a machine.').max(20, 'At most 20 to begin with.'),
      tools: z.array(rowOf('tools')).max(400, 'At most 400 to begin with.'),
    }),
    answer: z.object({ file: z.string().describe('the logbook of the own shop') }),
    status: 201,
  },
  makeBackup: {
    says: 'Begins to make a backup; it goes on by itself.',
    small: true,
    body: z.object({}),
    answer: shopState,
  },
  stopBackup: {
    says: 'Stops the backup that is being made; nothing is kept of it.',
    small: true,
    body: z.object({}),
    answer: shopState,
  },
  referenceStamp: {
    says: 'A number that grows with every version of any row of reference data.',
    answer: z.object({ stamp: z.int().min(0) }),
  },
  positions: {
    says: "A machine's positions, read from where its page says.",
    params: one,
    answer: positionsRead,
  },
  switchOn: {
    says: 'Switches a simulated machine on: the double of a machine of the shop, or that of an exercise.',
    params: z.object({
      id: z.string().regex(/^[\w-]{1,60}$/, 'A simulated machine has a name of letters, digits and dashes.'),
    }),
    body: z.union([
      z.object({ machine: z.string().min(1).max(40), seed: seed.optional() }),
      z.object({ exercise: z.string().min(1).max(40), unit: lengthUnit, seed: seed.optional() }),
    ]),
    answer: simulatedMachine,
  },
  simulated: { says: 'A simulated machine as an operator sees it.', params: one, answer: simulatedMachine },
  workAt: {
    says: 'Does something at a simulated machine, one thing after the other.',
    params: one,
    body: z.object({ actions: z.array(simulatedAction).min(1).max(200) }),
    answer: simulatedMachine,
  },
  simulatedProgram: {
    says: 'The text of the program that is loaded in a simulated machine; empty where none is.',
    params: one,
    answer: z.object({ text: z.string() }),
  },
  hidden: { says: 'What is hidden in a simulated machine.', params: one, answer: hiddenTruth },
  simulatedPositions: {
    says: "A simulated machine's positions, as from any other machine.",
    params: one,
    answer: positionsRead,
  },
  practice: {
    says: 'Results of exercises, the last first.',
    answer: z.object({ results: z.array(practiceResult) }),
  },
  answerExercise: {
    says: 'Answers an exercise; it is judged here, where what is hidden is known.',
    body: z.object({
      id: z.ulid(),
      by: initials,
      exercise: z.string().min(1).max(40),
      unit: lengthUnit,
      seed: seed.describe('of an exercise on paper; at a machine the machine knows'),
      machine: z
        .string()
        .max(60)
        .nullable()
        .describe('the simulated machine that it was done at; null on paper'),
      answers: z.record(z.string().max(40), z.string().max(200)),
      hints: z.int().min(0).max(20),
      seconds: z.number().min(0).max(86_400).describe('that it took on paper, as the tablet counted them'),
    }),
    answer: z.object({
      result: practiceResult,
      kept: z.boolean().describe('false where the logbook cannot be written now'),
    }),
  },
  description: {
    says: 'This description, as OpenAPI.',
    answer: z.looseObject({ openapi: z.string(), paths: z.looseObject({}).exactOptional() }),
  },
  ...PEOPLE_CONTRACT,
} as const satisfies Record<RouteName, Contract>

type Routes = typeof CONTRACT
type Side<Of, Part extends string> = Of extends Record<Part, infer Schema extends z.ZodType> ? Schema : never
type Sent<Of, Part extends string> = [Side<Of, Part>] extends [never]
  ? { [None in Part]?: undefined }
  : { [In in Part]: z.input<Side<Of, Part>> }
type Received<Of, Part extends string> = [Side<Of, Part>] extends [never]
  ? undefined
  : z.output<Side<Of, Part>>

/** What is sent with a question; through a door goes what stands there, whatever it was written by. */
export type Question<Name extends RouteName> = Sent<Routes[Name], 'params'> &
  Sent<Routes[Name], 'query'> &
  (Routes[Name] extends { door: true } ? { body: unknown } : Sent<Routes[Name], 'body'>)

/** What comes of a question once it was read: what a door reads is not read yet. */
export interface Asked<Name extends RouteName> {
  params: Received<Routes[Name], 'params'>
  query: Received<Routes[Name], 'query'>
  body: Routes[Name] extends { door: true } ? unknown : Received<Routes[Name], 'body'>
}

export type Answer<Name extends RouteName> = z.output<Routes[Name]['answer']>

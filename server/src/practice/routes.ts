import { initials } from '@dogleg/core/log'
import { lengthUnit } from '@dogleg/core/quantity'
import {
  type Answers,
  answerProblems,
  exerciseOf,
  type PracticeResult,
  practiceResult,
} from '@dogleg/core/simulated'
import { desc } from 'drizzle-orm'
import type { FastifyPluginAsync } from 'fastify'
import { z } from 'zod'
import { isUnwritable } from '../database/errors.ts'
import type { Database } from '../database/open.ts'
import { practice as table } from '../database/schema.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import type { SimulatedMachines } from '../simulated/sessions.ts'
import { type Threads, TooLong } from '../threads/threads.ts'

const answers = z.record(z.string().max(40), z.string().max(200))
const answered = z.object({
  id: z.ulid(),
  by: initials,
  exercise: z.string().min(1).max(40),
  unit: lengthUnit,
  /** Of an exercise on paper; at a machine the machine knows. */
  seed: z.int().min(1).max(999_999),
  /** The machine that it was done at; null on paper. */
  machine: z.string().max(60).nullable(),
  answers,
  hints: z.int().min(0).max(20),
  /** Seconds that it took on paper, as the tablet counted them. */
  seconds: z.number().min(0).max(86_400),
})

/** Results that are told at once. */
const MOST_TOLD = 500

/** A result as it was kept; none where it cannot be read, so that the others are shown. */
function readResult(body: string): PracticeResult[] {
  try {
    return [practiceResult.parse(JSON.parse(body))]
  } catch {
    return []
  }
}

/** Answers to exercises: judged here, where what is hidden is known, and kept for the person. */
export const practiceRoutes: FastifyPluginAsync<{
  database: Database
  simulated: SimulatedMachines
  threads: Threads
  clock: () => number
}> = async (app, { database: { db, write }, simulated, threads, clock }) => {
  const keep = async (result: PracticeResult): Promise<boolean> => {
    try {
      await write((tx) =>
        tx
          .insert(table)
          .values({ id: result.id, by: result.by, body: JSON.stringify(result) })
          .onConflictDoNothing(),
      )
      return true
    } catch (error) {
      if (isUnwritable(error)) return false
      throw error
    }
  }

  app.get('/api/practice', async () => {
    const rows = await db.select().from(table).orderBy(desc(table.id)).limit(MOST_TOLD)
    return { results: rows.flatMap(({ body }) => readResult(body)) }
  })

  app.post('/api/practice', async (request) => {
    const asked = parse(answered, request.body)
    const exercise = exerciseOf(asked.exercise)
    if (!exercise) throw new Problem(404, 'not-found', `There is no exercise "${asked.exercise}".`)
    const session = asked.machine === null ? undefined : await simulated.wanted(asked.machine)
    if (
      (exercise.machine === null) !== (session === undefined) ||
      (session && session.exercise !== exercise.id)
    )
      throw new Problem(
        409,
        'other-exercise',
        'Another exercise is on this simulated machine. Start this one again.',
      )
    const { seed, unit } = session ?? asked
    const given: Answers = asked.answers
    const problems = answerProblems(exercise.task(seed, unit), unit, given)
    const [first] = Object.values(problems)
    if (first) throw new Problem(422, 'not-valid', first.says, problems)
    const judged = await threads
      .judge({ exercise: exercise.id, simulated: session?.simulated ?? null, seed, unit, answers: given })
      .catch((error: unknown) => {
        if (!(error instanceof TooLong)) throw error
        throw new Problem(503, 'too-long', 'It took too long to judge this answer. Try again in a moment.')
      })
    const result: PracticeResult = {
      id: asked.id,
      exercise: exercise.id,
      by: asked.by,
      at: new Date(clock()).toISOString(),
      unit,
      seed,
      seconds: session ? (clock() - session.startedAt) / 1000 : asked.seconds,
      ...judged,
      hints: asked.hints,
    }
    return { result, kept: await keep(result) }
  })
}

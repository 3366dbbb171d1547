import {
  type Answers,
  answerProblems,
  exerciseOf,
  type PracticeResult,
  practiceResult,
} from '@dogleg/core/simulated'
import { desc } from 'drizzle-orm'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import { isUnwritable } from '../database/errors.ts'
import type { Database } from '../database/open.ts'
import { practice as table } from '../database/schema.ts'
import { Problem } from '../problem.ts'
import type { SimulatedMachines } from '../simulated/sessions.ts'
import { type Threads, TooLong } from '../threads/threads.ts'

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

  answers(app, 'practice', async () => {
    const rows = await db.select().from(table).orderBy(desc(table.id)).limit(MOST_TOLD)
    return { results: rows.flatMap(({ body }) => readResult(body)) }
  })

  answers(app, 'answerExercise', async ({ body: asked }, { who }) => {
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
      by: who.person?.initials ?? asked.by,
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

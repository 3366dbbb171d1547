import { lengthUnit } from '@dogleg/core/quantity'
import { type Exercise, type PracticeResult, practiceResult, SEEDS } from '@dogleg/core/simulated'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { ulid } from 'ulid'
import { z } from 'zod'
import { api } from '../log/api.ts'
import { now } from '../log/clock.ts'
import { useKept } from '../log/kept.ts'
import { operator } from '../log/operator.ts'

/** An exercise that is under way on this tablet; a reload goes on with it. */
const underWay = z.object({
  /** The simulated machine; null on paper. */
  machine: z.string().nullable(),
  seed: z.int(),
  unit: lengthUnit,
  /** ms since 1970. */
  startedAt: z.number(),
  hints: z.int(),
  answers: z.record(z.string(), z.string()),
  result: practiceResult.nullable(),
  /** Whether the server could keep the result. */
  kept: z.boolean(),
})
type UnderWay = z.infer<typeof underWay>

/** Where an exercise stands, and the ways on from there. */
export function useExercise(exercise: Exercise) {
  const client = useQueryClient()
  const [state, change] = useKept<UnderWay | null>(`practice.${exercise.id}`, underWay.nullable(), () => null)
  const begin = useMutation({
    mutationFn: async ({ unit, seed }: { unit: UnderWay['unit']; seed?: number }): Promise<UnderWay> => {
      const fresh = {
        unit,
        startedAt: now(),
        hints: 0,
        answers: {},
        result: null,
        kept: true,
      }
      if (exercise.machine === null)
        return { ...fresh, machine: null, seed: seed ?? 1 + Math.floor(Math.random() * (SEEDS - 1)) }
      const machine = `p-${ulid()}`
      const on = await api.switchOn(machine, { exercise: exercise.id, unit, seed })
      return { ...fresh, machine, seed: on.seed }
    },
    onSuccess: change,
  })
  const answer = useMutation({
    mutationFn: async (of: UnderWay) =>
      api.answer({
        id: ulid(),
        by: operator(),
        exercise: exercise.id,
        unit: of.unit,
        seed: of.seed,
        machine: of.machine,
        answers: of.answers,
        hints: of.hints,
        seconds: Math.max(0, (now() - of.startedAt) / 1000),
      }),
    onSuccess: ({ result, kept }: { result: PracticeResult; kept: boolean }) => {
      if (state) change({ ...state, result, kept })
      void client.invalidateQueries({ queryKey: ['practice'] })
    },
  })
  return {
    state,
    begin: (unit: UnderWay['unit'], seed?: number) => begin.mutate({ unit, ...(seed ? { seed } : {}) }),
    setAnswer: (name: string, text: string) =>
      state && change({ ...state, answers: { ...state.answers, [name]: text } }),
    hint: () => state && change({ ...state, hints: state.hints + 1 }),
    submit: () => state && answer.mutate(state),
    leave: () => change(null),
    busy: begin.isPending || answer.isPending,
    error: (begin.error ?? answer.error)?.message,
  }
}
export type ExerciseState = ReturnType<typeof useExercise>

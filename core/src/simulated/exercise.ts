import { z } from 'zod'
import type { MachineKind } from '../machine/index.ts'
import type { PickupMethod } from '../pickup/index.ts'
import { formatWithUnit, type LengthUnit, lengthUnit, readLength } from '../quantity/index.ts'
import type { SimulatedState } from './state.ts'

/** Something that the answer to an exercise consists of, as it is asked for. */
export interface AnswerField {
  name: string
  label: string
  reads: 'length' | 'number' | 'choice'
  hint: string
  /** Of a choice: values with their words. */
  options?: readonly (readonly [value: string, says: string])[]
}

/** A value that was found against what is true. `error` and `allowed` are in `unit`, or plain numbers where it is null. */
export interface Figure {
  name: string
  found: string
  truth: string
  error: number | null
  allowed: number | null
  unit: LengthUnit | null
  good: boolean
}

/** What comes of an exercise: how far off each value is, and what was done on the way that a good hand does not do. */
export interface Judged {
  good: boolean
  figures: Figure[]
  remarks: string[]
}

/** What this seed asks for, in words, with what is known from the start. */
export interface Task {
  goal: string
  given: readonly (readonly [name: string, says: string])[]
  fields: readonly AnswerField[]
  /** Which of the app's own forms goes with it. */
  form?: { methods: Partial<Record<'X' | 'Y' | 'Z', PickupMethod>>; carried: Record<string, string> }
  /** The program that it is about. */
  text?: string
}

/** The answer, field by field, as typed. */
export type Answers = Readonly<Record<string, string>>

/** A short piece of work at the simulated machine or on paper, made up by a seed. */
export interface Exercise {
  id: string
  title: string
  /** The machine that it is done at; null where it is done on paper. */
  machine: MachineKind | null
  /** What is learned, in one sentence. */
  learns: string
  hints: readonly string[]
  start: (seed: number, unit: LengthUnit) => SimulatedState | null
  task: (seed: number, unit: LengthUnit) => Task
  /** `simulated` is the machine as it was left; null on paper. */
  judge: (simulated: SimulatedState | null, seed: number, unit: LengthUnit, answers: Answers) => Judged
  /** What a good hand answers, at the same machine with the same seed; and the machine as it leaves it. */
  byGoodHand: (
    simulated: SimulatedState | null,
    seed: number,
    unit: LengthUnit,
  ) => { answers: Answers; simulated: SimulatedState | null }
}

/** What an exercise has that is done without a machine. */
export const ON_PAPER = { machine: null, start: () => null } as const

/** What a field must still be told, by its name; empty where the answer can be judged. */
export function answerProblems({ fields }: Task, unit: LengthUnit, answers: Answers) {
  const problems: Record<string, { says: string; empty: boolean }> = {}
  for (const { name, reads, options, label } of fields) {
    const typed = answers[name] ?? ''
    if (reads === 'length') {
      const entry = readLength(typed, unit)
      if (!entry.ok) problems[name] = { says: entry.says, empty: entry.empty }
    } else if (reads === 'number') {
      if (!/^\s*\d{1,6}\s*$/.test(typed))
        problems[name] = {
          says:
            typed.trim() === ''
              ? `${label}: a whole number.`
              : `"${typed.slice(0, 20)}" is not a whole number.`,
          empty: typed.trim() === '',
        }
    } else if (!options?.some(([value]) => value === typed))
      problems[name] = { says: `${label}: choose one.`, empty: true }
  }
  return problems
}

/** A length of an answer that was looked at by `answerProblems`, in `unit`. */
export function lengthOf(answers: Answers, name: string, unit: LengthUnit): number {
  const entry = readLength(answers[name] ?? '', unit)
  return entry.ok ? entry.value : Number.NaN
}

/** A length that was found, against the true one. */
export const lengthFigure = (
  name: string,
  found: number,
  truth: number,
  allowed: number,
  unit: LengthUnit,
): Figure => ({
  name,
  found: formatWithUnit(found, unit),
  truth: formatWithUnit(truth, unit),
  error: found - truth,
  allowed,
  unit,
  good: Math.abs(found - truth) <= allowed,
})

/** Something that is right or wrong. */
export const plainFigure = (name: string, found: string, truth: string, good = found === truth): Figure => ({
  name,
  found,
  truth,
  error: null,
  allowed: null,
  unit: null,
  good,
})

/** What went wrong at the machine on the way. */
export function remarksOn({ tally }: SimulatedState): string[] {
  const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`)
  return [
    ...(tally.collisions > 0
      ? [`Something was hit ${times(tally.collisions)}. On a real machine that ends the day.`]
      : []),
    ...(tally.bumps > 0 ? [`A device was pushed too far ${times(tally.bumps)}.`] : []),
    ...(tally.misses > 0
      ? [`The probe was sent ${times(tally.misses)} to where nothing was to be touched.`]
      : []),
  ]
}

/** Good is every value within what is allowed, and nothing hit. */
export const judged = (figures: Figure[], remarks: string[], harmless = true): Judged => ({
  good: harmless && figures.every(({ good }) => good),
  figures,
  remarks,
})

/** The result of an exercise, as it is kept for a person. */
export const practiceResult = z.object({
  id: z.ulid(),
  exercise: z.string().min(1).max(40),
  by: z.string().trim().min(1).max(8),
  at: z.iso.datetime({ precision: 3 }),
  unit: lengthUnit,
  seed: z.int().min(0),
  /** Seconds from the start to the answer, by the server's clock. */
  seconds: z.number().min(0),
  good: z.boolean(),
  figures: z
    .array(
      z.object({
        name: z.string().max(60),
        found: z.string().max(80),
        truth: z.string().max(80),
        error: z.number().nullable(),
        allowed: z.number().nullable(),
        unit: lengthUnit.nullable(),
        good: z.boolean(),
      }),
    )
    .max(12),
  remarks: z.array(z.string().max(300)).max(12),
  hints: z.int().min(0).max(20),
  /** What a good hand came to on the same piece: its figures, and the seconds of its moves as computed. */
  goodHand: z.object({
    errors: z.array(z.number().nullable()).max(12),
    seconds: z.number().min(0),
  }),
})
export type PracticeResult = z.infer<typeof practiceResult>

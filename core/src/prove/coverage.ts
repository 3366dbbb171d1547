import { z } from 'zod'
import { HOW_TAKEN, type Program, type TakenOnWord } from '../program/index.ts'

/** What a proof keeps of how its program was read. */
export const coverage = z.object({
  unsure: z
    .int()
    .min(0)
    .describe('places where controls differ, or that may be a slip: each is a finding to look at'),
  taken: z
    .array(
      z.object({
        code: z.string().max(12).describe('M51, or a program by its number: O9811'),
        how: z.enum(HOW_TAKEN),
        by: z.string().max(12).describe('initials of who says so; empty where the profile alone does'),
      }),
    )
    .max(200)
    .describe('codes that were read on the word of a person or of the profile'),
})
export type Coverage = z.infer<typeof coverage>

export const coverageOf = ({ taken, diagnostics }: Pick<Program, 'taken' | 'diagnostics'>): Coverage => ({
  unsure: diagnostics.filter(({ severity }) => severity === 'look').length,
  taken: taken.map(({ code, how, by }) => ({ code, how, by })),
})

const HOW: Record<TakenOnWord['how'], string> = {
  harmless: 'moves nothing',
  stop: 'is a stop',
  call: 'runs a program that the profile has',
  'not-allowed': 'is not allowed',
  macro: 'is the macro that usually has this number',
  letters: 'is shown in letters of another shape',
}

/** How far a program was read: every block exactly, or what of it on whose word: 'M51 moves nothing (says MK)'. */
export function coverageSays({ unsure, taken }: Coverage): string {
  const places = unsure === 1 ? 'one place to look at' : `${unsure} places to look at`
  const but = [
    ...taken.map(({ code, how, by }) => `${code} ${HOW[how]} (${by === '' ? 'the profile' : `says ${by}`})`),
    ...(unsure > 0 ? [places] : []),
  ]
  return but.length === 0
    ? 'every block read exactly'
    : `every block read exactly, but for: ${but.join('; ')}`
}

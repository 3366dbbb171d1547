import { z } from 'zod'

/** G123, M51, G5.1, or a program by its number: O9901. */
const code = z
  .string()
  .trim()
  .regex(/^(?:[GM](?:0|[1-9]\d{0,3})(?:\.\d)?|O[1-9]\d{0,7})$/, 'Write G123, M51 or O9901.')

/** Longest text of a program that a code calls. */
export const LONGEST_OWN_TEXT = 20_000

const about = {
  code,
  on: z.enum(['both', 'mill', 'lathe']).describe('the kind of machine that it is so on'),
  says: z.string().trim().max(80, 'Keep it under 80 characters.').describe('what it does, in words'),
  by: z
    .string()
    .trim()
    .max(12)
    .describe('initials of who says so; empty where it is only usual for this kind of control'),
}

/**
 * What a code, or a program whose text is not in the program that calls it, does on one control: on somebody's word, since the
 * reader cannot know it.
 */
const ownCode = z.discriminatedUnion('does', [
  z.object({
    ...about,
    does: z.literal('harmless').describe('moves no axis'),
    seconds: z
      .number('How many seconds does it take?')
      .min(0, 'A time, or 0.')
      .max(3600, 'At most an hour.')
      .describe('that it takes'),
  }),
  z.object({ ...about, does: z.literal('stop').describe('waits for cycle start') }),
  z.object({
    ...about,
    does: z.literal('call').describe('runs this program, with the words of its line as arguments'),
    text: z
      .string()
      .max(LONGEST_OWN_TEXT, `Keep the program under ${LONGEST_OWN_TEXT.toLocaleString('en')} characters.`)
      .refine((text) => text.trim() !== '', 'Put in the text of the program that it calls.'),
    modal: z
      .boolean()
      .default(false)
      .describe('not on its own line, but after every move from there on until G67; of a G code'),
  }),
  z.object({ ...about, does: z.literal('not-allowed').describe('a program with it is not proved') }),
])
export type OwnCode = z.infer<typeof ownCode>

/** Whether a code means this on a machine of this kind. */
export const isOn = ({ on }: OwnCode, kind: 'mill' | 'lathe') => on === 'both' || on === kind

const together = (a: OwnCode, b: OwnCode) =>
  a.code === b.code && (a.on === b.on || a.on === 'both' || b.on === 'both')

export const ownCodes = z
  .array(ownCode)
  .max(100, 'At most 100.')
  .superRefine((all, context) => {
    all.forEach((each, at) => {
      if (all.findIndex((other) => together(each, other)) < at)
        context.addIssue({ code: 'custom', message: `${each.code} stands here twice.`, path: [at, 'code'] })
    })
  })
  .default([])

/** The longest name of a program that is read: longer than any control takes, and short enough to be looked for in any text. */
export const LONGEST_NAME = 120

/** A name in angle brackets that begins a program (O<PART 7>) instead of its number. */
export const NAMED_PROGRAM = new RegExp(`^[ \\t\\r/]*[Oo][ \\t]*<([^<>\\n]{1,${LONGEST_NAME}})>`)

/** The name that a program is called by, as it is compared: controls make no difference between small letters and capitals. Common practice. */
export const programName = (written: string) => written.trim().toUpperCase()

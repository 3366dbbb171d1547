/** What a code was taken for: what the profile says of it, a macro by its number, or letters of the reader's own. */
export const HOW_TAKEN = ['harmless', 'stop', 'call', 'not-allowed', 'macro', 'letters'] as const

/** Something that was read on the word of a person or of a profile, not from the program itself. */
export interface TakenOnWord {
  /** M51, O9901. */
  code: string
  how: (typeof HOW_TAKEN)[number]
  /** Initials of who says so; empty where the profile alone does. */
  by: string
  /** Line where it first stands, from 1. */
  line: number
  times: number
}

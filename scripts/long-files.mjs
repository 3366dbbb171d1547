/** Lines that a source file may have. */
export const MOST_LINES = 450

/** Files that may be longer, each with the reason why its two halves are one thing. */
export const LONGER = {}

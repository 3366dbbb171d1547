import { useChosen } from './choices.ts'

const REM = { usual: 16, large: 20 }

/** How many px the page's own text is high: 1rem, where something asks for px. */
export const useRem = () => REM[useChosen('size')]

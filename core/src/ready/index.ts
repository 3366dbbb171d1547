export { judgeHome, type ShownHome, shownHome } from './home.ts'
export { type OverrideAdvice, overrideAdvice, RUNS, type Run } from './override.ts'

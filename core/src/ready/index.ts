export { acknowledged, holdCheckSubject, homed, note, STOP_CHECK, ticked } from './entries.ts'
export { judgeHome, type ShownHome, shownHome } from './home.ts'
export { type OverrideAdvice, overrideAdvice, RUNS, type Run } from './override.ts'

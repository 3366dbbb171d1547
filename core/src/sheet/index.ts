export { makeSetupFile, readSetupFile, type SetupFile, setupFile, type WrittenFile } from './setup-file.ts'
export { openFindings, type SetupSheet, setupSheet } from './sheet.ts'
export type { SheetLine, Stated } from './stated.ts'

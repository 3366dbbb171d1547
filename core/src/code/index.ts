export { COUNTS_SERIALS, coded, numbered } from './entries.ts'
export { numbersSaid } from './numbers-said.ts'
export {
  CYCLE_NAMES,
  type CycleName,
  type CycleSheet,
  cycleSheet,
  cyclesOf,
  draftAgain,
  draftOfSheet,
  holesOf,
  type Item,
  type ItemDraft,
  MOST_ITEMS,
  newItem,
  newSheet,
  readItem,
  readSheet,
  type SheetDraft,
  type SheetRead,
  sheetDraft,
  toolsOf,
  withFields,
  workOf,
} from './sheet.ts'
export {
  type CodeLine,
  type SheetCase,
  type WrittenItem,
  type WrittenSheet,
  writeSheet,
} from './write-sheet.ts'

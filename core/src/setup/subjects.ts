import type { EntryOf, ProgramKind } from './entries.ts'

/** The kinds of entry that state a fact. */
export const FACTS = [
  'pickup',
  'tool-length',
  'centre-line',
  'flat',
  'work-shift',
  'angled',
  'identified',
  'stock',
  'checked',
  'program',
  'coded',
  'swept',
  'upright',
  'cleared',
  'gripped',
  'lengths',
  'ticked',
  'laid-out',
  'proved',
  'gauging',
  'palleted',
  'start-checked',
] as const
export type FactEntry = EntryOf<(typeof FACTS)[number]>

export const pickupSubject = (offset: string, axis: string) => `offset/${offset}/${axis}`
export const checkSubject = (offset: string) => `check/${offset}`
export const programSubject = (offset: string, what: ProgramKind = 'load') => `program/${what}/${offset}`
const codedSubject = (title: string) => `coded/${title}`
/** What was taken to the control of a program that was built from cycles. */
const takenSubject = (title: string) => `program/coded/${title}`
const gaugingSubject = (title: string) => `gauging/${title}`
const gaugeTakenSubject = (title: string) => `program/gauge/${title}`
export const angleSubject = (offset: string) => `angle/${offset}`
const toolLengthSubject = (tool: number) => `tool-length/${tool}`
export const CENTRE_LINE = 'centre-line'
export const WORK_SHIFT = 'work-shift'
export const flatSubject = (offset: string) => `flat/${offset}`
export const PALLETS = 'pallets'
export const START = 'start'
export const stockSubject = (offset: string) => `stock/${offset}`
export const PART = 'part'
export const LAYOUT = 'layout'
const proofSubject = (title: string) => `proof/${title}`

const SQUARENESS = 'squareness'
export const UPRIGHT = 'upright'
export const CLEARANCE = 'clearance'
export const GRIP = 'grip'
export const lengthsSubject = (collet: string) => `lengths/${collet}`
/** The look at the stop: another stop makes it due again, and only it. */
export const STOP_CHECK = 'stop-locked'
export const holdCheckSubject = (item: string) => `hold-check/${item}`

/** What a fact is about. A later one about the same subject takes its place. */
export function subjectOf(entry: FactEntry): string {
  switch (entry.kind) {
    case 'pickup':
      return pickupSubject(entry.offset, entry.reading.axis)
    case 'checked':
      return checkSubject(entry.offset)
    case 'program':
      return entry.what === 'coded'
        ? takenSubject(entry.title ?? '')
        : entry.what === 'gauge'
          ? gaugeTakenSubject(entry.title ?? '')
          : programSubject(entry.offset, entry.what)
    case 'coded':
      return codedSubject(entry.sheet.title)
    case 'tool-length':
      return toolLengthSubject(entry.tool)
    case 'centre-line':
      return CENTRE_LINE
    case 'flat':
      return flatSubject(entry.offset)
    case 'work-shift':
      return WORK_SHIFT
    case 'angled':
      return angleSubject(entry.offset)
    case 'identified':
      return PART
    case 'stock':
      return stockSubject(entry.offset)
    case 'swept':
      return SQUARENESS
    case 'upright':
      return UPRIGHT
    case 'cleared':
      return CLEARANCE
    case 'gripped':
      return GRIP
    case 'lengths':
      return lengthsSubject(entry.collet.id)
    case 'ticked':
      return holdCheckSubject(entry.item)
    case 'laid-out':
      return LAYOUT
    case 'proved':
      return proofSubject(entry.title)
    case 'gauging':
      return gaugingSubject(entry.plan.head.title)
    case 'palleted':
      return PALLETS
    case 'start-checked':
      return START
  }
}

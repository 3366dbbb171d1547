import papaparse from 'papaparse'
import type { Description, Standing } from '../log/index.ts'
import { KINDS, type Logged } from './kinds.ts'
import type { LogLine } from './log-lines.ts'

/** Where in the traveler an entry belongs, for who looks for one. */
export type LogGroup = (typeof KINDS)[number]['group']

export const LOG_GROUP_NAMES: Record<LogGroup, string> = {
  ready: 'Ready and notes',
  hold: 'Hold',
  zero: 'Zero and tools',
  angle: 'Angle',
  code: 'Code',
  prove: 'Prove',
  run: 'Run',
  changes: 'What changed',
}

/** The groups in the order of the steps. */
export const LOG_GROUPS = Object.keys(LOG_GROUP_NAMES) as LogGroup[]

const groupOf = new Map<string, LogGroup>(KINDS.map(({ kind, group }) => [kind, group]))

/** What somebody looks for: all of it must be met; what is left out is not asked. */
export interface LogSearch {
  text?: string
  by?: string
  group?: LogGroup
  standing?: Standing
}

/** Whether a line of the log, with its words, is what is looked for. Words are looked for one by one, in any order. */
export function logMatches(line: LogLine, { says, detail }: Description, of: LogSearch): boolean {
  const { entry, standing, strike } = line
  if (of.by !== undefined && entry.by !== of.by) return false
  if (of.standing !== undefined && standing !== of.standing) return false
  const kind = entry.kind === 'unread' ? entry.said : entry.kind
  if (of.group !== undefined && groupOf.get(kind ?? '') !== of.group) return false
  const wanted = (of.text ?? '').toLowerCase().split(/\s+/).filter(Boolean)
  const hay = [says, detail, entry.by, entry.at, strike?.reason ?? ''].join(' ').toLowerCase()
  return wanted.every((word) => hay.includes(word))
}

const STANDING_WORDS: Record<Standing, string> = {
  counts: '',
  struck: 'struck out',
  superseded: 'taken again since',
  stale: 'stale',
}

/** A cell that a spreadsheet would take for a formula is made plain text. */
const plain = (text: string) => (/^[=+\-@\t\r]/.test(text) && Number.isNaN(Number(text)) ? `'${text}` : text)

/** The log as a table with a row an entry (RFC 4180), the oldest first. */
export function logCsv(lines: readonly LogLine[], describe: (entry: Logged) => Description): string {
  const rows = lines.map((line) => {
    const { says, detail } = describe(line.entry)
    const { id, at, by, kind, carried } = line.entry
    return [
      at,
      by,
      kind,
      plain(says),
      plain(detail),
      STANDING_WORDS[line.standing],
      line.strike ? plain(line.strike.reason) : (line.cause?.says ?? ''),
      carried ? `${carried.by} ${carried.at}` : '',
      id,
    ]
  })
  const fields = ['when', 'who', 'kind', 'what', 'detail', 'standing', 'because', 'taken over from', 'id']
  return papaparse.unparse({ fields, data: rows })
}

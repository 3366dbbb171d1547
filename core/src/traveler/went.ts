import { z } from 'zod'
import {
  HAPPENINGS,
  type Logged,
  type LogLine,
  logDescriber,
  type Reference,
  type Setup,
} from '../setup/index.ts'

// How a setup went, for whoever sets its job up again: how long it took, what was off, what was noted.

/** Lines of a kind that are told; of more the last ones. */
const MOST_LINES = 30
/** A pause longer than this is no work at the machine, in ms. */
const PAUSE_MS = 30 * 60_000
const LONGEST = 1200

const line = z.object({ at: z.string(), by: z.string(), says: z.string(), detail: z.string() })
export type WentLine = z.infer<typeof line>

const lines = z.object({
  lines: z.array(line),
  more: z.int().min(0).describe('older ones that are left out'),
})

/** How a setup went. */
export const wentSchema = z.object({
  id: z.string(),
  title: z.string(),
  machine: z.string().describe('its name'),
  at: z.string().describe('when it was opened, ISO 8601'),
  by: z.string().describe('who opened it'),
  lastAt: z.string().describe('when its last entry was made, ISO 8601'),
  people: z.array(z.string()).describe('everybody with an entry in its log, by initials'),
  away: z.literal(true).exactOptional().describe('it was put away'),
  took: z.object({
    to: z
      .enum(['running', 'last'])
      .describe("until parts were run, or, where nothing says so, to the log's last entry"),
    seconds: z.number().min(0).describe('from its opening until then'),
    atIt: z
      .number()
      .min(0)
      .describe('of these, the seconds between entries that lie no more than half an hour apart'),
  }),
  cycle: z.number().exactOptional().describe('seconds of one cycle, as it was timed last'),
  parts: z
    .object({ measured: z.int().min(1), out: z.int().min(0) })
    .exactOptional()
    .describe('parts that were gauged, and how many of them were out of tolerance'),
  off: lines.describe(
    'what happened, what was struck out and why, what was let stand, in the order of the log',
  ),
  noted: lines.describe('notes and words of handing over'),
})
export type Went = z.infer<typeof wentSchema>

/** Entries by which parts are run: nobody gauges, times or engraves before. */
function isRun(entry: Logged): boolean {
  if (entry.kind === 'numbered') return entry.fate === 'engraved'
  return entry.kind === 'gauged' || entry.kind === 'timed' || entry.kind === 'start-checked'
}

/** What was off, by its kind: its own words, or nothing. */
function isOff({ entry, standing }: LogLine): boolean {
  if (entry.kind === 'unread') return true
  if (standing === 'struck') return entry.kind !== 'struck'
  switch (entry.kind) {
    case 'happened':
      return HAPPENINGS[entry.what].said
    case 'let-stand':
    case 'settled':
      return true
    case 'numbered':
      return entry.fate === 'left-out'
    case 'checked':
      return entry.result === 'off'
    default:
      return false
  }
}

const isNoted = ({ entry, standing }: LogLine) =>
  standing !== 'struck' && (entry.kind === 'note' || (entry.kind === 'handed-over' && entry.note !== ''))

function took(log: readonly LogLine[]): Went['took'] {
  const counting = log.filter(({ standing }) => standing !== 'struck').map(({ entry }) => entry)
  const running = counting.findIndex(isRun)
  const until = counting.slice(0, running < 0 ? undefined : running + 1).map(({ at }) => Date.parse(at))
  const gaps = until.slice(1).map((at, n) => Math.max(0, at - (until[n] ?? at)))
  const [first = 0] = until
  return {
    to: running < 0 ? 'last' : 'running',
    seconds: Math.max(0, (until.at(-1) ?? first) - first) / 1000,
    atIt: gaps.filter((gap) => gap <= PAUSE_MS).reduce((sum, gap) => sum + gap, 0) / 1000,
  }
}

const cut = (text: string) => (text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text)

/** How a setup went, from its log alone. */
export function wentOf(setup: Setup, reference: Reference): Went {
  const { log, opened, machine, away } = setup
  const describe = logDescriber(setup, reference)
  const told = (which: readonly LogLine[]) => ({
    lines: which.slice(-MOST_LINES).map(({ entry, standing, strike }): WentLine => {
      const { says, detail } = describe(entry)
      const struck = standing === 'struck'
      // What it was before it was struck out helps nobody; why it was does.
      return {
        at: strike && struck ? strike.at : entry.at,
        by: strike && struck ? strike.by : entry.by,
        says: cut(struck ? `Struck out: ${says}` : entry.kind === 'note' ? detail : says),
        detail: cut(
          struck
            ? (strike?.reason ?? '')
            : entry.kind === 'note'
              ? ''
              : entry.kind === 'handed-over'
                ? entry.note
                : detail,
        ),
      }
    }),
    more: Math.max(0, which.length - MOST_LINES),
  })
  const gauged = setup.gauge.series.flatMap(({ parts }) => parts).filter(({ counts }) => counts)
  const timed = log.findLast(({ entry, standing }) => entry.kind === 'timed' && standing !== 'struck')?.entry
  return {
    id: setup.id,
    title: opened.title,
    machine: machine.name,
    at: opened.at,
    by: opened.by,
    lastAt: log.at(-1)?.entry.at ?? opened.at,
    people: [...new Set(log.map(({ entry }) => entry.by).filter((by) => by !== ''))],
    ...(away ? { away: true } : {}),
    took: took(log),
    ...(timed?.kind === 'timed' ? { cycle: timed.seconds } : {}),
    ...(gauged.length > 0
      ? { parts: { measured: gauged.length, out: gauged.filter(({ out }) => out.length > 0).length } }
      : {}),
    off: told(log.filter(isOff)),
    noted: told(log.filter(isNoted)),
  }
}

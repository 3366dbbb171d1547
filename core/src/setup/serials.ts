import { type CycleSheet, numbersSaid } from '../code/index.ts'
import { hasSerial, withNumber } from '../cycles/engraving/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { effectiveStrikes, inOrder, type UnreadEntry } from '../log/index.ts'
import { type EntryOf, kinds, type Logged } from './kinds.ts'

/** Gaps that are named one by one; the rest is counted. */
export const SHOWN_GAPS = 5

type Numbered = EntryOf<'numbered'>

/** One line of a series: numbers that were given out together, and what became of them. */
export interface SerialLine {
  first: number
  last: number
  entry: Numbered
}

export interface SerialList {
  /** In the order of the numbers. */
  lines: SerialLine[]
  /** Numbers between the lowest and the highest that nobody has accounted for. */
  gaps: { first: number; last: number }[]
  /** Numbers that were engraved more than once. */
  twice: { first: number; last: number }[]
  /** The highest number that was given out. */
  highest?: number
}

/** The series of a text: the text itself, with # for its digits; undefined where it has no number. */
export const seriesOf = (text: string): string | undefined => (hasSerial(text) ? text.trim() : undefined)

/** The series of a program, as far as its cycles are switched on. */
export const seriesIn = ({ items }: Pick<CycleSheet, 'items'>): string[] =>
  items.flatMap((item) => {
    if (item.cycle !== 'engrave' || item.off) return []
    return seriesOf(item.params.text) ?? []
  })

/**
 * What became of the numbers of a series, from the entries of any setups: what is struck out does not count. Numbers that a
 * step goes over are no gaps: `step` is from one to the next.
 */
export function serialList(entries: readonly Logged[], series: string, step = 1): SerialList {
  const strikes = effectiveStrikes(entries)
  const lines = inOrder(entries)
    .filter(
      (entry): entry is Numbered =>
        entry.kind === 'numbered' && entry.series === series && !strikes.has(entry.id),
    )
    .map((entry): SerialLine => ({ first: entry.first, last: entry.last, entry }))
    .sort((a, b) => a.first - b.first || a.last - b.last)
  const gaps: SerialList['gaps'] = []
  const twice: SerialList['twice'] = []
  let highest: number | undefined
  let engraved = -1
  for (const { first, last, entry } of lines) {
    if (highest !== undefined && first > highest + step) gaps.push({ first: highest + 1, last: first - 1 })
    if (entry.fate === 'engraved') {
      if (first <= engraved) twice.push({ first, last: Math.min(last, engraved) })
      engraved = Math.max(engraved, last)
    }
    highest = Math.max(highest ?? last, last)
  }
  return { lines, gaps, twice, ...(highest === undefined ? {} : { highest }) }
}

/** Numbers of a series that are written out one by one; of more, the first and the last. */
const MOST_WRITTEN = 20

/** The numbers of an entry as they stand on the parts. */
export const numbersWritten = ({
  series,
  first,
  last,
}: Pick<Numbered, 'series' | 'first' | 'last'>): string[] =>
  (last - first < MOST_WRITTEN
    ? Array.from({ length: last - first + 1 }, (_, n) => first + n)
    : [first, last]
  ).map((number) => withNumber(series, number))

/** The number that comes next; undefined where none was given out yet. */
export const nextSerial = ({ highest }: SerialList, step: number): number | undefined =>
  highest === undefined ? undefined : highest + step

/** The line of a list that has a number. */
export const givenOut = ({ lines }: SerialList, number: number): SerialLine | undefined =>
  lines.find(({ first, last }) => number >= first && number <= last)

/** Why the numbers of an entry cannot be given out, in a sentence with the way out: some of them were before. */
export function numbersGiven(
  entries: readonly Logged[],
  { series, first, last }: Pick<Numbered, 'series' | 'first' | 'last'>,
): string | undefined {
  const list = serialList(entries, series)
  const taken = list.lines.find((line) => line.first <= last && line.last >= first)
  if (!taken) return undefined
  const { by, at } = taken.entry
  const given = numbersSaid({ series, first: Math.max(first, taken.first), last: Math.min(last, taken.last) })
  const next = withNumber(series, nextSerial(list, 1) ?? last + 1)
  return `${given} was given out by ${by} on ${at.slice(0, 10)} already, perhaps on another tablet. If the part is not engraved yet, take the next one, ${next}. If it is, two parts have one number: say so in a note, and engrave this one anew.`
}

/** What would be left out before a number, if anything. */
export const leftOutBefore = (list: SerialList, number: number, step: number) =>
  list.highest !== undefined && number > list.highest + step
    ? { first: list.highest + 1, last: number - 1 }
    : undefined

/** Whether something that cannot be read has surely nothing to do with numbers. */
const isHarmlessUnread = ({ why, said }: UnreadEntry) =>
  why === 'newer' && said !== 'numbered' && said !== 'struck' && kinds.of(said ?? '') !== undefined

/** What says of the list itself that it may lack a number: an entry that cannot be read and was not struck out. */
function againstList(entries: readonly Logged[]): Finding[] {
  const strikes = effectiveStrikes(entries)
  const unread = entries.filter(
    (entry) => entry.kind === 'unread' && !strikes.has(entry.id) && !isHarmlessUnread(entry),
  )
  if (unread.length === 0) return []
  return [
    finding(
      'look',
      'serials-unread',
      'serial',
      `${unread.length === 1 ? 'An entry' : `${unread.length} entries`} of the shop's logbooks cannot be read here.`,
      'A number may have been given out in it.',
      'Look at the parts that were engraved last before you go on.',
    ),
  ]
}

/** What the shop's list of serial numbers says against the numbers of a program. */
export function againstSerials({ items }: Pick<CycleSheet, 'items'>, entries: readonly Logged[]): Finding[] {
  return items.flatMap((item): Finding[] => {
    if (item.cycle !== 'engrave' || item.off) return []
    const { text, serial, step } = item.params
    const series = seriesOf(text)
    if (series === undefined) return []
    const doubt = againstList(entries)
    const list = serialList(entries, series, step)
    const { highest } = list
    const given = givenOut(list, serial)
    if (given) {
      const { fate, by, at, note } = given.entry
      return [
        ...doubt,
        finding(
          'stop',
          'serial-given',
          'serial',
          fate === 'engraved'
            ? `${withNumber(series, serial)} was engraved by ${by} on ${at.slice(0, 10)}.`
            : `${withNumber(series, serial)} was left out by ${by} on ${at.slice(0, 10)}: ${note}`,
          'No serial number is given out twice.',
          `The next one is ${nextSerial(list, step)}.`,
        ),
      ]
    }
    const gap = leftOutBefore(list, serial, step)
    if (gap)
      return [
        ...doubt,
        finding(
          'look',
          'serial-gap',
          'serial',
          `${numbersSaid({ series, ...gap })} would be left out.`,
          'A gap that nobody can explain is a part that is missing.',
          `Take ${nextSerial(list, step)}, or say why: Serial.`,
        ),
      ]
    if (highest !== undefined && serial < highest)
      return [
        ...doubt,
        finding(
          'look',
          'serial-back',
          'serial',
          `${withNumber(series, serial)} is lower than what was given out last, ${withNumber(series, highest)}.`,
          'It fills a gap in the list.',
        ),
      ]
    return doubt
  })
}

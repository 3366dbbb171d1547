import { angled } from '../angle/index.ts'
import { coded, numbered } from '../code/index.ts'
import { correctedAfter, gauged, gauging, settled } from '../gauge/index.ts'
import { cleared, gripped, lengths, swept, upright } from '../hold/index.ts'
import {
  type EntriesOf,
  entryDoor,
  type FactsOf,
  kindsOf,
  type Chain as LogChain,
  type Link as LogLink,
  struck,
  type UnreadEntry,
} from '../log/index.ts'
import { palleted, startChecked } from '../pallet/index.ts'
import { checked, identified, measuredLength, pickup, setter, shifted, stock } from '../pickup/index.ts'
import { laidOut, letStand, proved } from '../prove/index.ts'
import { acknowledged, homed, note, ticked } from '../ready/index.ts'
import { centreLine, flat } from '../rotary/index.ts'
import { saved } from '../saving/index.ts'
import { timed } from '../timing/index.ts'
import { ACROSS } from './across.ts'
import { handedOver, happened, opened, program, putAway } from './own-kinds.ts'

/** Every kind of entry that there is: what it is stands with its noun. */
export const KINDS = [
  opened,
  ticked,
  acknowledged,
  homed,
  swept,
  upright,
  cleared,
  gripped,
  lengths,
  pickup,
  measuredLength,
  setter,
  centreLine,
  flat,
  shifted,
  angled,
  stock,
  identified,
  checked,
  program,
  coded,
  laidOut,
  proved,
  letStand,
  numbered,
  gauging,
  gauged,
  settled,
  correctedAfter,
  palleted,
  startChecked,
  timed,
  saved,
  handedOver,
  putAway,
  happened,
  note,
  struck,
] as const

type Kind = (typeof KINDS)[number]

/** One entry of the logbook. Entries are added, never changed; a mistake is struck out by another entry. */
export type Entry = EntriesOf<Kind>
export type EntryOf<Name extends Entry['kind']> = Extract<Entry, { kind: Name }>
/** An entry of a kind that states facts. */
export type FactEntry = FactsOf<Kind>

/** Whatever stands in a log: an entry, or what cannot be read as one here. */
export type Logged = Entry | UnreadEntry

/** The facts of a setup's log. */
export type Chain = LogChain<FactEntry>
export type Link = LogLink<FactEntry>

/** What each kind is, and what makes what stale. */
export const kinds = kindsOf(KINDS, ACROSS)

/** The one door from stored or received data to an entry. */
export const { readEntry, readEntryText, entryIssues, shapeNow } = entryDoor<Entry>(KINDS)

/** An entry without what is long, for lists of a machine's entries. */
export function slimmed(entry: Entry): Entry {
  const slim = kinds.of(entry.kind)?.slim ?? 'whole'
  return slim === 'whole' ? entry : slim(entry)
}

import { z } from 'zod'
import { angleAsked, angleReading } from '../angle/index.ts'
import { sheet } from '../code/index.ts'
import { gaugePlan, measuredParts } from '../gauge/index.ts'
import { gripped as grippedPart, jawUpright, measuredLengths, placed, sweep } from '../hold/index.ts'
import { palletPlan } from '../pallet/index.ts'
import {
  identification,
  reading,
  setterReading,
  stockAsked,
  toolLengthReading,
  workShiftReading,
} from '../pickup/index.ts'
import { lengthUnit, typedLength } from '../quantity/index.ts'
import { shownHome } from '../ready/index.ts'
import { centreReading, flatReading } from '../rotary/index.ts'
import {
  initials,
  LONGEST_PROGRAM,
  offsetName,
  spokenWords,
  stamp,
  versionRef,
  words,
} from './entry-parts.ts'
import { happeningKind } from './happenings.ts'
import { hash, KEPT_FINDINGS, laidOut, letStand, proved } from './prove-entries.ts'

export { initials, KEPT_FINDINGS, LONGEST_PROGRAM }

const opened = z.object({
  ...stamp,
  kind: z.literal('opened'),
  title: spokenWords(80, 'Give the setup a title.'),
  machine: versionRef,
  unit: lengthUnit,
  tolerance: typedLength.refine(({ value }) => value > 0, {
    error: 'Type a length above zero: how far off part zero may be.',
  }),
  again: z.ulid().optional().describe('the setup that this one repeats'),
})

const pickup = z.object({
  ...stamp,
  kind: z.literal('pickup'),
  offset: offsetName,
  reading,
  machine: versionRef,
  rests: z
    .array(z.ulid())
    .min(1)
    .max(1)
    .optional()
    .describe('the pickup that a copy was made from, or the centre line that it lies on'),
  moved: typedLength
    .optional()
    .describe(
      'part zero was put elsewhere on the drawing, so far along the axis; what was read is as it was before',
    ),
})

const checked = z
  .object({
    ...stamp,
    kind: z.literal('checked'),
    offset: offsetName,
    rests: z
      .array(z.ulid())
      .min(1)
      .max(4)
      .describe('the pickups that were looked at, and the look at the part'),
    result: z.enum(['agrees', 'off']),
    stood: z
      .object({ toolLength: typedLength, height: typedLength.describe('of the point above part zero') })
      .optional()
      .describe('where Z was stopped for the look'),
    byHand: z
      .literal(true)
      .optional()
      .describe('gone there by hand: the program that loads the offset and goes there was not taken'),
    note: words(300),
  })
  .refine(({ result, note }) => result === 'agrees' || note.length > 0, {
    error: 'Say how far off it stood, and which way.',
    path: ['note'],
  })

/** What a program that was taken to the control does. */
const programKind = z.enum(['load', 'angle', 'turned', 'probe', 'coded', 'gauge', 'bar', 'setting'])
export type ProgramKind = z.infer<typeof programKind>

const program = z.object({
  ...stamp,
  kind: z.literal('program'),
  offset: offsetName,
  what: programKind.optional().describe('the loading of an offset where it is not said'),
  title: words(60).optional().describe('of a program that was built from cycles, or that gauges'),
  rests: z.array(z.ulid()).max(60),
  profile: versionRef,
  machine: versionRef,
  how: z.enum(['copied', 'downloaded', 'handed']).describe('handed: loaded into the simulated machine'),
  text: z.string().min(1).max(LONGEST_PROGRAM),
})

const happened = z
  .object({
    ...stamp,
    kind: z.literal('happened'),
    what: happeningKind,
    tool: z.int().min(0).max(9999).optional(),
    note: words(300),
  })
  .refine(({ what, tool }) => what !== 'tool-measured-again' || tool !== undefined, {
    error: 'Say which tool was measured again.',
    path: ['tool'],
  })

const note = z.object({ ...stamp, kind: z.literal('note'), text: spokenWords(1000, 'Write the note first.') })

const struck = z.object({
  ...stamp,
  kind: z.literal('struck'),
  target: z.ulid(),
  reason: spokenWords(300, 'Say why it is struck out.'),
})

const ticked = z.object({
  ...stamp,
  kind: z.literal('ticked'),
  list: z.enum(['ready', 'hold']),
  item: z.string().min(1).max(40),
  says: z.string().min(1).max(120).describe('the line as it stood when it was ticked'),
})

const acknowledged = z.object({
  ...stamp,
  kind: z.literal('acknowledged'),
  note: z.ulid().describe('the note that was read; it may be in the log of another setup of the machine'),
})

const homed = z.object({ ...stamp, kind: z.literal('homed'), shown: shownHome, machine: versionRef })

const swept = z.object({
  ...stamp,
  kind: z.literal('swept'),
  sweep,
  vise: versionRef.optional().describe('whose jaw it is; nothing in entries from before it was kept'),
})

const upright = z.object({ ...stamp, kind: z.literal('upright'), ...jawUpright.shape, machine: versionRef })

const cleared = z.object({
  ...stamp,
  kind: z.literal('cleared'),
  vise: versionRef,
  machine: versionRef,
  ...placed.shape,
})

const gripped = z.object({
  ...stamp,
  kind: z.literal('gripped'),
  collet: versionRef,
  ...grippedPart.shape,
  rests: z.array(z.ulid()).max(1).describe('the measured lengths whose ratio was used'),
})

const lengths = z.object({
  ...stamp,
  kind: z.literal('lengths'),
  collet: versionRef,
  ...measuredLengths.shape,
})

const toolLength = z.object({
  ...stamp,
  kind: z.literal('tool-length'),
  ...toolLengthReading.shape,
  machine: versionRef,
})

const setter = z.object({
  ...stamp,
  kind: z.literal('setter'),
  reading: setterReading,
  machine: versionRef,
})

const centreLine = z.object({
  ...stamp,
  kind: z.literal('centre-line'),
  reading: centreReading,
  machine: versionRef,
})

const flat = z.object({
  ...stamp,
  kind: z.literal('flat'),
  offset: offsetName.describe('the offset whose rotary angle it gives'),
  reading: flatReading,
  machine: versionRef,
})

const workShift = z.object({
  ...stamp,
  kind: z.literal('work-shift'),
  offset: offsetName.describe('the tool whose geometry was used: T4'),
  reading: workShiftReading,
  rests: z.array(z.ulid()).length(1).describe('the Z of that tool'),
  machine: versionRef,
})

const angled = z.object({
  ...stamp,
  kind: z.literal('angled'),
  offset: offsetName.describe('the offset whose part it is'),
  reading: angleReading,
  ...angleAsked.shape,
  machine: versionRef,
})

const identified = z.object({ ...stamp, kind: z.literal('identified'), ...identification.shape })

const stock = z.object({
  ...stamp,
  kind: z.literal('stock'),
  offset: offsetName.describe('the offset whose part comes out of it'),
  asked: stockAsked,
  rests: z.array(z.ulid()).min(1).max(3).describe('the pickups that measured the block'),
})

const coded = z.object({
  ...stamp,
  kind: z.literal('coded'),
  offset: offsetName.describe('that the program runs in; on a lathe the geometry of its first tool'),
  sheet,
  rests: z.array(z.ulid()).max(60),
  profile: versionRef,
  machine: versionRef,
  material: versionRef,
  tools: z.array(versionRef).max(120).describe('shapes of the tools as they were'),
})

/** Most serial numbers that one entry can be about. */
const MOST_NUMBERS = 100_000
const serialNumber = z.int('A serial number is a whole number.').min(0).max(999_999_999)

const numbered = z
  .object({
    ...stamp,
    kind: z.literal('numbered'),
    series: spokenWords(60, 'Name the series.').describe('the text of the number, with # for its digits'),
    first: serialNumber,
    last: serialNumber.describe('the same as the first, unless several were left out in one go'),
    fate: z.enum(['engraved', 'left-out']),
    note: words(300),
  })
  .refine(({ first, last }) => first <= last && last - first < MOST_NUMBERS, {
    error: 'The last number comes after the first, and no more than 100,000 at once.',
    path: ['last'],
  })
  .refine(({ fate, note }) => fate === 'engraved' || note.length > 0, {
    error: 'Say why they are left out: a gap that nobody can explain is a part that is missing.',
    path: ['note'],
  })

const planTitle = spokenWords(40, 'Name the plan.')

const gauging = z.object({
  ...stamp,
  kind: z.literal('gauging'),
  offset: offsetName.describe('that the program runs in'),
  plan: gaugePlan,
  rests: z.array(z.ulid()).max(60),
  profile: versionRef,
  machine: versionRef,
})

const gauged = z.object({
  ...stamp,
  kind: z.literal('gauged'),
  plan: planTitle.describe('the title of the plan, which groups its revisions'),
  rests: z.array(z.ulid()).length(1).describe('the revision of the plan that they were measured by'),
  ...measuredParts.shape,
})

/** What was done about a part that is out of tolerance. */
export const settledAs = z.enum(['reworked', 'scrapped', 'let-through', 'not-counted'])
export type SettledAs = z.infer<typeof settledAs>

const partRef = {
  gauged: z.ulid(),
  part: z.int().min(0).describe('its place in the entry'),
  label: spokenWords(30, 'Name the part.'),
}

const settled = z
  .object({ ...stamp, kind: z.literal('settled'), ...partRef, did: settledAs, note: words(300) })
  .refine(({ did, note }) => (did !== 'let-through' && did !== 'not-counted') || note.length > 0, {
    error: 'Say why: a part out of tolerance is let through, or a value does not count, for a reason.',
    path: ['note'],
  })

const corrected = z.object({
  ...stamp,
  kind: z.literal('corrected'),
  plan: planTitle,
  key: spokenWords(30, 'Name the value.'),
  ...partRef,
  tool: z.int().min(1).max(200).nullable().describe('whose wear was corrected, if it was a tool'),
  amount: typedLength.describe('how much the value should move, signed'),
  note: words(300),
})

const seconds = z
  .number()
  .min(0)
  .max(7 * 86_400)

const palleted = z.object({
  ...stamp,
  kind: z.literal('palleted'),
  plan: palletPlan,
  rests: z.array(z.ulid()).max(60).describe('the proofs of its programs, as far as there are any'),
  seconds: z.array(seconds).max(12).describe('that each pallet is cut in one stay, as reckoned'),
  verdict: z.enum(['good', 'look', 'stop']),
  worst: z.array(z.string().max(300)).max(KEPT_FINDINGS),
  profile: versionRef,
  machine: versionRef,
})

const startChecked = z.object({
  ...stamp,
  kind: z.literal('start-checked'),
  inside: z.int().min(1).max(12).describe('the pallet on the machine'),
  loaded: z.int().min(1).max(99_999).describe('O number of the program that is loaded'),
  interlock: z.boolean(),
  rests: z.array(z.ulid()).length(1).describe('the pallet plan that it was held against'),
})

const timeParts = z.object({
  cutting: seconds,
  rapid: seconds,
  toolChange: seconds,
  dwell: seconds,
  spindle: seconds,
  tappingOut: seconds,
  probing: seconds,
})

const timed = z.object({
  ...stamp,
  kind: z.literal('timed'),
  title: spokenWords(80, 'Give the program a name.'),
  hash,
  reckoned: timeParts.describe('seconds of each kind, as they were reckoned for the machine as it was'),
  seconds: seconds.refine((value) => value > 0, { error: 'A cycle takes some time.' }),
  doubt: seconds.refine((value) => value > 0, { error: 'No timing is exact.' }).describe('of one cycle'),
  cycles: z.int().min(1).max(10_000).describe('cycles that were timed together'),
  how: z.enum(['stopwatch', 'typed']),
  machine: versionRef,
  profile: versionRef,
})

const textAndTime = z.object({ hash, seconds })

const saved = z.object({
  ...stamp,
  kind: z.literal('saved'),
  title: spokenWords(80, 'Give the program a name.'),
  code: z.string().max(40),
  line: z.int().min(1),
  says: z.string().min(1).max(300).describe('the change'),
  before: textAndTime,
  after: textAndTime,
  verdict: z.enum(['good', 'look', 'stop']).describe('what Prove says of the text after it'),
  text: z.string().min(1).max(LONGEST_PROGRAM).describe('the text after it'),
})

const handedOver = z.object({
  ...stamp,
  kind: z.literal('handed-over'),
  note: words(1000),
  stale: z.array(z.string().max(200)).max(100).describe('facts that were stale then'),
  open: z.array(z.string().max(400)).max(100).describe('what was looked at and let stand, and what is wrong'),
  left: z.array(z.string().max(400)).max(40).describe('what is left to do'),
})

/**
 * One entry of the logbook. Entries are added, never changed; a mistake is struck out by another entry.
 * The same schema validates on the page and on the server.
 */
export const entry = z.discriminatedUnion('kind', [
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
  toolLength,
  setter,
  centreLine,
  flat,
  workShift,
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
  corrected,
  palleted,
  startChecked,
  timed,
  saved,
  handedOver,
  happened,
  note,
  struck,
])
export type Entry = z.infer<typeof entry>
export type EntryOf<Kind extends Entry['kind']> = Extract<Entry, { kind: Kind }>

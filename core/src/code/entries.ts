import { z } from 'zod'
import { offsetName } from '../control/index.ts'
import {
  defineEntry,
  defineFact,
  dependsOn,
  entrySchema,
  type Given,
  spokenWords,
  versionRef,
  words,
} from '../log/index.ts'
import { numbersSaid } from './numbers-said.ts'
import { CYCLE_NAMES, cycleSheet } from './sheet.ts'

/** Given of a control that counts serial numbers by itself: a program of its text cycle outlives the number that it was built with. */
export const COUNTS_SERIALS = 'control-counts-serials'

/** A program that was built from cycles. */
export const coded = defineFact({
  schema: entrySchema('coded', {
    offset: offsetName.describe('that the program runs in; on a lathe the geometry of its first tool'),
    sheet: cycleSheet,
    rests: dependsOn(0, 60),
    profile: versionRef,
    machine: versionRef,
    material: versionRef,
    tools: z.array(versionRef).max(120).describe('shapes of the tools as they were'),
  }),
  upcast: [],
  subject: ({ sheet: { title } }) => `coded/${title}`,
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'built',
  replaced: { past: 'its cycles were changed' },
  makesStale: 'nothing',
  describe: (entry, { nameOf }) => ({
    says: `Program built: ${entry.sheet.title}`,
    detail: [
      ...entry.sheet.items.map(({ cycle, off }) => `${CYCLE_NAMES[cycle]}${off ? ' (off)' : ''}`),
      nameOf(entry.material.id),
      entry.offset,
    ].join(', '),
  }),
  group: 'code',
  slim: 'whole',
  onMachine: 'nothing',
  carried: true,
  written: 'at-machine',
})

/** Most serial numbers that one entry can be about. */
const MOST_NUMBERS = 100_000
const serialNumber = z.int('A serial number is a whole number.').min(0).max(999_999_999)

const numberedSchema = entrySchema('numbered', {
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

/** Whether a program has a serial number written into it that was given out. */
const writesNumber = (
  of: z.output<typeof coded.schema>,
  { series, first, last }: z.output<typeof numberedSchema>,
  given: Given,
) =>
  of.sheet.items.some(
    (item) =>
      item.cycle === 'engrave' &&
      !item.off &&
      item.params.text.trim() === series &&
      item.params.serial >= first &&
      item.params.serial <= last &&
      !(given.has(COUNTS_SERIALS) && item.params.way === 'cycle' && item.params.sits !== 'arc'),
  )

/** Serial numbers that were given out, in the whole shop. */
export const numbered = defineEntry({
  schema: numberedSchema,
  upcast: [],
  makesStale: (entry, _before, given) => [
    {
      past: 'its serial number was given out',
      whom: ({ entry: of }) => coded.is(of) && writesNumber(of, entry, given),
    },
  ],
  describe: (entry) => ({
    says: `${numbersSaid(entry)} ${entry.fate === 'engraved' ? 'engraved' : 'left out'}`,
    detail: entry.note,
  }),
  group: 'code',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

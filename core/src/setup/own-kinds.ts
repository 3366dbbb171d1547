import { z } from 'zod'
import { offsetName } from '../control/index.ts'
import {
  defineEntry,
  defineFact,
  dependsOn,
  entrySchema,
  type Link,
  LONGEST_PROGRAM,
  spokenWords,
  versionRef,
  words,
} from '../log/index.ts'
import { numberOnly } from '../pallet/index.ts'
import { toolOf } from '../pickup/index.ts'
import { describeTyped, lengthUnit, typedLength } from '../quantity/index.ts'
import { HAPPENINGS, happeningKind } from './happenings.ts'

// The kinds of entry that are about the setup as a whole; those of one noun stand in its room.

/** A setup, opened: its first entry. */
export const opened = defineEntry({
  schema: entrySchema('opened', {
    title: spokenWords(80, 'Give the setup a title.'),
    machine: versionRef,
    unit: lengthUnit,
    tolerance: typedLength.refine(({ value }) => value > 0, {
      error: 'Type a length above zero: how far off part zero may be.',
    }),
    again: z.ulid().optional().describe('the setup that this one repeats'),
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ again, title, machine, unit, tolerance }, { nameOf }) => ({
    says: `${again ? 'Job set up again' : 'Setup opened'}: ${title}`,
    detail: `${nameOf(machine.id)} version ${machine.version}, ${unit}, part zero within ${describeTyped(tolerance)}`,
  }),
  group: 'ready',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
})

/** What a program that was taken to the control does. */
const programKind = z.enum(['load', 'angle', 'turned', 'probe', 'coded', 'gauge', 'bar', 'setting'])
export type ProgramKind = z.infer<typeof programKind>

const PROGRAMS: Record<ProgramKind, string> = {
  load: 'Program',
  angle: 'Turning program',
  turned: 'Turned program',
  probe: 'Probe program',
  coded: 'Program built from cycles',
  gauge: 'Gauging program',
  bar: 'Program of the bar stop',
  setting: 'Program for tool lengths',
}

const takenHow = z.enum(['copied', 'downloaded', 'handed'])

export const TAKEN_HOW: Record<z.infer<typeof takenHow>, string> = {
  copied: 'copied',
  downloaded: 'downloaded',
  handed: 'loaded into the simulated machine',
}

export const programSubject = (offset: string, what: ProgramKind = 'load') => `program/${what}/${offset}`

/** A program, taken to the control. */
export const program = defineFact({
  schema: entrySchema('program', {
    offset: offsetName,
    what: programKind.optional().describe('the loading of an offset where it is not said'),
    title: words(60).optional().describe('of a program that was built from cycles, or that gauges'),
    rests: dependsOn(0, 60),
    profile: versionRef,
    machine: versionRef,
    how: takenHow.describe('handed: loaded into the simulated machine'),
    text: z.string().min(1).max(LONGEST_PROGRAM),
  }),
  upcast: [],
  subject: ({ offset, what, title }) =>
    programSubject(what === 'coded' || what === 'gauge' ? (title ?? '') : offset, what),
  dependsOn: ({ rests }) => rests,
  factKind: () => undefined,
  taken: 'written',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: ({ what, title, offset, how, text, profile }, { nameOf }) => ({
    says: `${PROGRAMS[what ?? 'load']} ${title ? `"${title}"` : `for ${offset}`} ${TAKEN_HOW[how]}`,
    detail: `${text.trimEnd().split('\n').length} lines, profile ${nameOf(profile.id)} version ${profile.version}`,
  }),
  group: 'zero',
  slim: (entry) => ({ ...entry, text: numberOnly(entry.text) }),
  onMachine: 'nothing',
  carried: false,
  written: 'at-machine',
})

/** Something that happened to the machine or the part. */
export const happened = defineEntry({
  schema: entrySchema('happened', {
    what: happeningKind,
    tool: z.int().min(0).max(9999).optional(),
    note: words(300),
  }).refine(({ what, tool }) => what !== 'tool-measured-again' || tool !== undefined, {
    error: 'Say which tool was measured again.',
    path: ['tool'],
  }),
  upcast: [],
  makesStale: ({ what, tool }) => {
    const { past, reaches, onlyItsTool, movesPart } = HAPPENINGS[what]
    const whom = (link: Link) =>
      link.factKind !== undefined &&
      reaches.includes(link.factKind) &&
      (!onlyItsTool || toolOf(link) === tool)
    return [{ past, whom, ...(movesPart ? { tag: 'part-moved' } : {}) }]
  },
  describe: ({ what, tool, note }) => ({
    says: HAPPENINGS[what].title + (tool === undefined ? '' : `: T${tool}`),
    detail: note,
  }),
  group: 'changes',
  slim: 'whole',
  onMachine: ({ what, tool }) => [tool === undefined ? what : `${what}/${tool}`],
  carried: false,
  written: 'at-machine',
})

/** A setup that is done with, put away; or brought back. */
export const putAway = defineEntry({
  schema: entrySchema('put-away', { away: z.boolean().describe('false where it was brought back') }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ away }) => ({ says: away ? 'Setup put away' : 'Setup brought back', detail: '' }),
  group: 'ready',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
})

/** The setup, handed over to whoever comes next. */
export const handedOver = defineEntry({
  schema: entrySchema('handed-over', {
    note: words(1000),
    stale: z.array(z.string().max(200)).max(100).describe('facts that were stale then'),
    open: z
      .array(z.string().max(400))
      .max(100)
      .describe('what was looked at and let stand, and what is wrong'),
    left: z.array(z.string().max(400)).max(40).describe('what is left to do'),
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ note, stale, left }) => ({
    says: 'Handed over',
    detail: [
      note,
      ...(stale.length > 0 ? [`stale when recorded: ${stale.join(' ')}`] : []),
      ...(left.length > 0 ? [`still open when recorded: ${left.join(' ')}`] : []),
    ]
      .filter(Boolean)
      .join(' · '),
  }),
  group: 'ready',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
})

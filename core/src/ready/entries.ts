import { z } from 'zod'
import { defineEntry, defineFact, entrySchema, spokenWords, versionRef } from '../log/index.ts'
import { describeTyped, fixedDigits, type TypedLength } from '../quantity/index.ts'
import { shownHome } from './home.ts'

/** The look at the stop of a collet: another stop makes it due again, and only it. */
export const STOP_CHECK = 'stop-locked'
export const holdCheckSubject = (item: string) => `hold-check/${item}`

/** A line of a list, ticked. Ticks of the ready list are the machine's, not the setup's: they state no fact of it. */
export const ticked = defineFact({
  schema: entrySchema('ticked', {
    list: z.enum(['ready', 'hold']),
    item: z.string().min(1).max(40),
    says: z.string().min(1).max(120).describe('the line as it stood when it was ticked'),
  }),
  upcast: [],
  subject: ({ list, item }) => (list === 'hold' ? holdCheckSubject(item) : undefined),
  dependsOn: () => [],
  factKind: ({ item }) => (item === STOP_CHECK ? 'stop-check' : 'hold-check'),
  taken: 'ticked',
  replaced: 'the basis',
  makesStale: 'nothing',
  describe: ({ says, list }) => ({
    says: `Ticked: ${says}`,
    detail: list === 'ready' ? 'walk-round and power-up' : '',
  }),
  group: 'ready',
  slim: 'whole',
  onMachine: ({ list, item }) => (list === 'ready' ? [`ready/${item}`] : []),
  carried: false,
  written: 'at-machine',
})

/** What the machine showed at home. */
export const homed = defineEntry({
  schema: entrySchema('homed', { shown: shownHome, machine: versionRef }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ shown: { rotary, ...axes } }) => {
    const shown = Object.entries(axes) as [string, TypedLength | undefined][]
    return {
      says: 'Home positions read',
      detail: [
        ...shown.flatMap(([axis, of]) => (of ? [`${axis} ${describeTyped(of)}`] : [])),
        ...(rotary === undefined ? [] : [`rotary ${fixedDigits(rotary, 3)} deg`]),
      ].join(', '),
    }
  },
  group: 'ready',
  slim: 'whole',
  onMachine: () => ['home'],
  carried: false,
  written: 'at-machine',
})

/** A note for whoever comes next. */
export const note = defineEntry({
  schema: entrySchema('note', { text: spokenWords(1000, 'Write the note first.') }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ text }) => ({ says: 'Note', detail: text }),
  group: 'ready',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
})

/** A note, read. */
export const acknowledged = defineEntry({
  schema: entrySchema('acknowledged', {
    note: z.ulid().describe('the note that was read; it may be in the log of another setup of the machine'),
  }),
  upcast: [],
  makesStale: 'nothing',
  describe: ({ note: read }, { targetSays }) => ({
    says: `Read and acknowledged: ${targetSays(read)}`,
    detail: '',
  }),
  group: 'ready',
  slim: 'whole',
  onMachine: 'nothing',
  carried: false,
  written: 'anywhere',
})

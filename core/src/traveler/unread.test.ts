import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoReference } from '../demo/index.ts'
import {
  deriveSetup,
  deriveTools,
  type HappeningKind,
  isUnreadable,
  type Logged,
  readEntry,
} from '../setup/index.ts'
import { Shift } from './testing-shift.ts'

/** What is done, by what may reach what: few ways at a time, so that they meet. */
const THEMES = {
  'a vise and what was found with it': {
    kind: 'mill',
    acts: ['clear', 'sweep one', 'sweep tight', 'sweep another vise', 'upright', 'X of G54', 'place'],
    happens: ['vise-moved', 'bolt-tightened'],
  },
  'how the part lies': {
    kind: 'mill',
    acts: ['X of G54', 'Y of G54', 'askew', 'straight', 'far askew', 'right part', 'stock'],
    happens: ['part-reclamped'],
  },
  'zeros and what depends on them': {
    kind: 'mill',
    acts: ['length of T3', 'X of G54', 'Y of G54', 'Z of G54', 'move zero', 'load', 'check', 'stock', 'note'],
    happens: ['homed-again', 'tool-measured-again'],
  },
  programs: {
    kind: 'mill',
    acts: [
      'X of G54',
      'straight',
      'place',
      'build',
      'prove',
      'move zero',
      'plan gauging',
      'plan pallets',
      'start',
    ],
    happens: ['alarm'],
  },
  'a lathe’s tools and its work shift': {
    kind: 'lathe',
    acts: ['grip', 'look', 'Z of T4', 'Z of T2', 'shift', 'check'],
    happens: ['collet-changed', 'part-reclamped', 'homed-again'],
  },
} as const satisfies Record<string, { kind: 'mill' | 'lathe'; acts: string[]; happens: HappeningKind[] }>

const historyOf = ({ kind, acts, happens }: (typeof THEMES)[keyof typeof THEMES]) =>
  fc.record({
    kind: fc.constant(kind),
    acts: fc.array(
      fc.oneof(
        { weight: 4, arbitrary: fc.constantFrom<string>(...acts) },
        { weight: 1, arbitrary: fc.constantFrom<HappeningKind>(...happens).map((what) => ({ what })) },
      ),
      { minLength: 2, maxLength: 8 },
    ),
    lost: fc.nat(),
    why: fc.constantFrom('newer' as const, 'damaged' as const),
  })

/** Ids of the entries of a log that count and hold. */
function holding(log: readonly Logged[]): Set<string> {
  const setup = deriveSetup(log, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const tools = deriveTools(log, setup.machine, setup.unit)
  const stale = new Set(
    tools.flatMap(({ entry, freshness }) => (freshness.state === 'stale' ? [entry.id] : [])),
  )
  return new Set(
    setup.log.flatMap(({ entry, standing }) =>
      standing === 'counts' && !stale.has(entry.id) ? [entry.id] : [],
    ),
  )
}

describe('a log with an entry that cannot be read', () => {
  it.each(Object.entries(THEMES))(
    'calls nothing fresh that would be stale if it could be: %s',
    (_of, theme) => {
      fc.assert(
        fc.property(historyOf(theme), ({ kind, acts, lost, why }) => {
          const shift = new Shift(kind)
          for (const act of acts) typeof act === 'string' ? shift.act(act) : shift.happen(act.what, 3)
          const whole = shift.log
          if (whole.length < 2) return
          const at = 1 + (lost % (whole.length - 1))
          const log = whole.map((entry, n): Logged => {
            if (n !== at) return entry
            return why === 'newer'
              ? readEntry({ ...entry, shape: 99 })
              : readEntry(null, { id: entry.id, setup: entry.setup, at: entry.at })
          })
          const truly = holding(whole)
          for (const id of holding(log)) if (id !== whole[at]?.id) expect([...truly]).toContain(id)
        }),
        depth(60, 8000),
      )
    },
  )
})

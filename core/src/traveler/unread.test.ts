import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { deriveSetup, deriveTools, isUnreadable, type Logged, readEntry } from '../setup/index.ts'
import { Shift } from './testing-shift.ts'

const ACTS = {
  mill: [
    'clear',
    'sweep one',
    'sweep tight',
    'sweep another vise',
    'upright',
    'length of T3',
    'X of G54',
    'Y of G54',
    'Z of G54',
    'askew',
    'straight',
    'right part',
    'stock',
    'move zero',
    'load',
    'check',
    'place',
    'build',
    'prove',
    'plan gauging',
    'plan pallets',
    'start',
    'note',
  ],
  lathe: [
    'grip',
    'grip badly',
    'ratio',
    'look',
    'X of T4',
    'Z of T4',
    'Z of T2',
    'shift',
    'take bar',
    'check',
    'note',
  ],
} as const
const HAPPENS = {
  mill: ['vise-moved', 'bolt-tightened', 'part-reclamped', 'homed-again', 'tool-measured-again'],
  lathe: ['collet-changed', 'part-reclamped', 'homed-again'],
} as const

const history = fc.constantFrom('mill' as const, 'lathe' as const).chain((kind) =>
  fc.record({
    kind: fc.constant(kind),
    acts: fc.array(
      fc.oneof(
        fc.constantFrom<string>(...ACTS[kind]),
        fc.constantFrom(...HAPPENS[kind]).map((what) => ({ what })),
      ),
      { minLength: 2, maxLength: 16 },
    ),
    lost: fc.nat(),
    why: fc.constantFrom('newer' as const, 'damaged' as const),
  }),
)

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
  it('calls nothing fresh that would be stale if it could be', () => {
    fc.assert(
      fc.property(history, ({ kind, acts, lost, why }) => {
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
      { numRuns: 300 },
    )
  })
})

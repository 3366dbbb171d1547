import type { ReadyItem } from '@dogleg/core/machine'
import { type ReadyLine, type ReadyState, type Setup, STOOD_HOURS } from '@dogleg/core/setup'
import { Link } from 'react-router'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { TickLine } from '../ui/tick-line.tsx'

const PARTS: Record<ReadyItem['part'], string> = { 'walk-round': 'Walk round', 'power-up': 'Power up' }

/** The machine's own list, ticked line by line; each tick is an entry. */
export function ReadyLines({ setup, ready }: { setup: Setup; ready: ReadyState }) {
  return (
    <section aria-label="Walk-round and power-up" className="space-y-2">
      {(Object.keys(PARTS) as ReadyItem['part'][]).map((part) => (
        <div key={part}>
          <h2 className="text-lg font-semibold">{PARTS[part]}</h2>
          <ul>
            {ready.lines
              .filter(({ item }) => item.part === part)
              .map((line) => (
                <Line key={line.item.id} line={line} setup={setup} />
              ))}
          </ul>
        </div>
      ))}
      <p className="text-sm text-ink-soft">
        Due again after the machine stood for {STOOD_HOURS} hours, after an alarm, and, for the walk-round,
        when another person was at it. The list is edited with{' '}
        <Link to={`/machines/${setup.machine.id}`} className="underline underline-offset-2">
          the machine
        </Link>
        .
      </p>
    </section>
  )
}

function Line({ line: { item, tick, state, due }, setup }: { line: ReadyLine; setup: Setup }) {
  const signed = useSigned()
  return (
    <TickLine
      says={item.says}
      tick={tick}
      due={state === 'stale' ? due : undefined}
      onTick={() =>
        signed(() => record(setup.id, { kind: 'ticked', list: 'ready', item: item.id, says: item.says }))
      }
      // A tick may stand in the log of another setup of the machine: it is struck out where it stands.
      onTakeBack={(reason) => {
        if (tick) signed(() => record(tick.setup, { kind: 'struck', target: tick.id, reason }))
      }}
    />
  )
}

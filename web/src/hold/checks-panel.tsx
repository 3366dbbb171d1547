import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { TickLine } from '../ui/tick-line.tsx'

/** What is looked at by hand before the spindle of a lathe turns. */
export function ChecksPanel() {
  const { setup } = useOpenSetup()
  const signed = useSigned()
  return (
    <div className="max-w-4xl py-4">
      <ul>
        {setup.hold.checks.map(({ id, says, tick }) => (
          <TickLine
            key={id}
            says={says}
            tick={tick?.entry}
            due={tick?.freshness.state === 'stale' ? tick.freshness.cause.says : undefined}
            onTick={() => signed(() => record(setup.id, { kind: 'ticked', list: 'hold', item: id, says }))}
            onTakeBack={(reason) => {
              if (tick) signed(() => record(setup.id, { kind: 'struck', target: tick.entry.id, reason }))
            }}
          />
        ))}
      </ul>
      <p className="mt-4 text-ink-soft">
        A collet without its anti-rotation screw unscrews from the draw tube, and the length wanders. With the
        wrong clamping direction the part is let go when it should be held. Look with the spindle stopped;
        never reach in while it turns.
      </p>
    </div>
  )
}

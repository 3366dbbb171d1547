import { formatLength, readLength } from '@dogleg/core/quantity'
import type { SimulatedView } from '@dogleg/core/simulated'
import { useState } from 'react'
import { Dial } from '../drawing/dial.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'
import { Group, Key } from './parts.tsx'
import type { Simulated } from './use-simulated.ts'

const SIDES = ['X-', 'X+', 'Y-', 'Y+'] as const
const spoken = (side: string) => side.replace('-', '−')

/** What goes with the device: a dial and its high spot, a gauge block, the micrometer. */
export function DeviceKeys({ view, work }: { view: SimulatedView; work: Simulated['work'] }) {
  const { mounted, dial, unit } = view
  const [height, setHeight] = useState(unit === 'inch' ? '1' : '25')
  const block = readLength(height, unit)
  if (view.kind === 'lathe')
    return (
      <div className="space-y-1.5">
        <Group label="Micrometer">
          <Key onPress={() => work({ do: 'measure' })}>measure</Key>
          <span className="digits w-28 text-right text-xl" data-testid="measured">
            {view.measured === null ? '-' : formatLength(view.measured, unit)}
          </span>
        </Group>
        <Group label="Bar">
          <Key onPress={() => work({ do: 'bar', way: 'pull' })} name="Pull the bar out, and clamp">
            pull out
          </Key>
          <Key onPress={() => work({ do: 'bar', way: 'push' })} name="Push the bar back, and clamp">
            push back
          </Key>
        </Group>
      </div>
    )
  if (mounted.kind === 'tool')
    return (
      <Group label="Gauge block">
        <input
          aria-label="Height of the gauge block"
          value={height}
          onChange={({ target }) => setHeight(target.value)}
          className="digits h-11 w-20 rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
        />
        <Key disabled={!block.ok} onPress={() => block.ok && work({ do: 'try-block', height: block.value })}>
          try it under the tool
        </Key>
      </Group>
    )
  if (!dial) return null
  const label = (value: number) => formatLength(value, unit, { plus: true })
  return (
    <div className="flex gap-2">
      <div className="w-36 shrink-0">
        <CycleSheet label={`Dial of the ${mounted.name}: ${label(dial.value)}`} width={150} height={168}>
          <Dial
            at={{ x: 75, y: 68 }}
            radius={58}
            value={dial.value}
            target={0}
            range={dial.gives}
            label={label}
            mark={(value) => (value < 0 ? '−' : '+')}
            known
          />
        </CycleSheet>
      </div>
      {mounted.kind === 'indicator' && (
        <div className="min-w-0 flex-1 space-y-1.5">
          <fieldset className="grid grid-cols-2 gap-1.5">
            <legend className="text-sm text-ink-soft">Stylus looks to</legend>
            {SIDES.map((way) => (
              <Key
                key={way}
                pressed={mounted.looks === way}
                onPress={() => work({ do: 'look', way })}
                name={`Look to ${way}`}
              >
                {spoken(way)}
              </Key>
            ))}
          </fieldset>
          <div className="flex gap-1.5">
            <Key onPress={() => work({ do: 'rock' })} name="Rock to the high spot">
              rock
            </Key>
            <Key onPress={() => work({ do: 'zero-dial' })} name="Set the dial to zero">
              zero
            </Key>
          </div>
        </div>
      )}
    </div>
  )
}

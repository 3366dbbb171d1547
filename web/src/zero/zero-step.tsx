import type { OffsetState, Setup } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { Findings } from '../ui/verdict.tsx'
import { AxisStrip, type Place, tables } from './axis-strip.tsx'
import { BarStopPanel } from './bar-stop-panel.tsx'
import { CheckPanel } from './check-panel.tsx'
import { OffsetsPanel } from './offsets-panel.tsx'
import { PickupPanel } from './pickup-panel.tsx'
import { ProbePanel } from './probe-panel.tsx'
import { RotaryPanel } from './rotary-panel.tsx'
import { ShiftPanel } from './shift-panel.tsx'
import { StockPanel } from './stock-panel.tsx'
import { ToolsPanel } from './tools-panel.tsx'

/** The parts of the step on this machine. */
const placesOf = (setup: Setup, offset: OffsetState): readonly Place[] => [
  ...offset.wants,
  'check',
  ...tables(setup).map(([place]) => place),
]

/** The Zero step: one axis of one work offset at a time, from the readings to a fact in the log. */
export function ZeroStep() {
  const { setup, traveler } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const [recorded, setRecorded] = useState(false)
  const places = placesOf(setup, offset)
  const asPlace = (text: string) => places.find((each) => each === text)
  // What is next with the offset in hand; measuring a tool is of none.
  const next = traveler.steps
    .find(({ step }) => step === 'zero')
    ?.tasks.find(({ about, part }) => about === offset.name && asPlace(part))
  const [place, go] = usePlace('axis', places, asPlace(next?.part ?? '') ?? 'check')
  return (
    <Tabs.Root value={place} onValueChange={(to) => go(asPlace(to))} className="flex flex-1 flex-col">
      <AxisStrip
        setup={setup}
        offset={offset}
        next={next && next === traveler.next ? next.part : undefined}
        onOffset={chooseOffset}
      />
      {offset.findings.length > 0 && (
        <div className="border-b border-rule py-2">
          <Findings findings={offset.findings} />
        </div>
      )}
      <Tabs.Content value={place} className="flex flex-1 flex-col" tabIndex={-1}>
        {place === 'check' && <CheckPanel key={`${setup.id}-${offset.name}`} setup={setup} offset={offset} />}
        {place === 'table' && (
          <OffsetsPanel
            onOpen={(name) => {
              chooseOffset(name)
              go(undefined)
            }}
          />
        )}
        {place === 'tools' && <ToolsPanel />}
        {place === 'bar' && <BarStopPanel key={setup.id} />}
        {place === 'shift' && <ShiftPanel key={setup.id} offset={offset} />}
        {place === 'stock' && <StockPanel key={`${setup.id}-${offset.name}`} offset={offset} />}
        {place === 'rotary' && <RotaryPanel key={`${setup.id}-${offset.name}`} offset={offset} />}
        {place === 'probe' && <ProbePanel key={setup.id} offset={offset} onRecorded={() => go(undefined)} />}
        {(place === 'X' || place === 'Y' || place === 'Z') && (
          <PickupPanel
            key={`${setup.id}-${offset.name}-${place}`}
            setup={setup}
            offset={offset}
            axis={place}
            takeFocus={recorded}
            onRecorded={() => {
              setRecorded(true)
              go(undefined)
            }}
          />
        )}
      </Tabs.Content>
      <NextBar
        step="zero"
        isHere={({ part, about }) =>
          part === place && (about === offset.name || part === 'tools' || part === 'shift')
        }
      />
    </Tabs.Root>
  )
}

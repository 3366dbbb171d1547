import { nextFor, type OffsetState, type Setup } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { useState } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextLine } from '../ui/next-line.tsx'
import { Findings } from '../ui/verdict.tsx'
import { AxisStrip, type Place, tables } from './axis-strip.tsx'
import { CheckPanel } from './check-panel.tsx'
import { OffsetsPanel } from './offsets-panel.tsx'
import { PickupPanel } from './pickup-panel.tsx'
import { ProbePanel } from './probe-panel.tsx'
import { ToolsPanel } from './tools-panel.tsx'

/** The parts of the step on this machine. */
const placesOf = (setup: Setup, offset: OffsetState): readonly Place[] => [
  ...offset.wants,
  'check',
  ...tables(setup).map(([place]) => place),
]

/** The Zero step: one axis of one work offset at a time, from the readings to a fact in the log. */
export function ZeroStep() {
  const { setup } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const next = nextFor(offset)
  const [recorded, setRecorded] = useState(false)
  const places = placesOf(setup, offset)
  const asPlace = (text: string) => places.find((each) => each === text)
  const [place, go] = usePlace('axis', places, asPlace(next.place) ?? 'check')
  return (
    <Tabs.Root value={place} onValueChange={(to) => go(asPlace(to))} className="flex flex-1 flex-col">
      <AxisStrip setup={setup} offset={offset} onOffset={chooseOffset} />
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
        {place === 'probe' && <ProbePanel key={setup.id} offset={offset} />}
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
      <Next offset={offset} here={place} asPlace={asPlace} onPlace={go} />
    </Tabs.Root>
  )
}

interface NextProps {
  offset: OffsetState
  here: Place
  asPlace: (text: string) => Place | undefined
  onPlace: (place: Place) => void
}

/** The next thing to do with the offset. */
function Next({ offset, here, asPlace, onPlace }: NextProps) {
  const { says, why, place } = nextFor(offset)
  const to = asPlace(place)
  return (
    <NextLine
      says={says}
      why={why}
      to={place === 'program' ? `../program?offset=${encodeURIComponent(offset.name)}` : undefined}
      go={to && to !== here ? () => onPlace(to) : undefined}
    />
  )
}

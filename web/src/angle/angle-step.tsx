import { formatAngle } from '@dogleg/core/angle'
import { Tabs } from 'radix-ui'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { Select } from '../ui/select.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'
import { AnglePanel } from './angle-panel.tsx'
import { MovesPanel } from './moves-panel.tsx'
import { PartPanel } from './part-panel.tsx'
import { TurnPanel } from './turn-panel.tsx'

const PLACES = ['lies', 'turn', 'moves', 'part'] as const
type Place = (typeof PLACES)[number]

/** The Angle step: how the part lies, turning the program to it, and whether it is the right part. */
export function AngleStep() {
  const { setup, traveler } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const [place, go] = usePlace<Place>('part', PLACES, 'lies')
  const { angle } = offset
  const { part } = setup
  const { next } = traveler
  const isNext = (part: Place) =>
    next?.step === 'angle' && next.part === part && (next.about ?? offset.name) === offset.name
  const stale = angle?.freshness.state === 'stale'
  return (
    <Tabs.Root
      value={place}
      onValueChange={(to) => go(PLACES.find((each) => each === to))}
      className="flex flex-1 flex-col"
    >
      <div className="flex flex-wrap items-stretch border-b border-rule">
        <label className="flex items-center gap-2 pr-4 font-semibold">
          <span className="sr-only">Work offset</span>
          <Select
            value={offset.name}
            onChange={(event) => chooseOffset(event.target.value)}
            className="digits w-28 xl:w-36"
          >
            {[...new Set([...setup.offsets.map(({ name }) => name), offset.name])].map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Select>
        </label>
        <TabList aria-label="Parts of Angle" className="flex min-w-0 flex-1 flex-wrap">
          <StripTab value="lies" title="How it lies" isNext={isNext('lies')}>
            {angle ? (
              <span className="flex items-center gap-2">
                <span className="digits text-xl">{formatAngle(angle.angle.value)}°</span>
                {stale && <StateMark state="stale" />}
              </span>
            ) : (
              <span className="text-ink-soft">not yet</span>
            )}
          </StripTab>
          <StripTab value="turn" title="Turn the program" isNext={isNext('turn')}>
            {null}
          </StripTab>
          <StripTab value="moves" title="Turn moves" isNext={false}>
            {null}
          </StripTab>
          <StripTab value="part" title="Right part?" isNext={isNext('part')}>
            {part ? (
              part.freshness.state === 'stale' ? (
                <StateMark state="stale" />
              ) : (
                <span
                  className={
                    part.as === 'right' ? 'font-semibold text-verified' : 'font-semibold text-hazard'
                  }
                >
                  {part.as === 'right' ? 'right' : part.as === 'turned' ? 'turned round' : 'wrong'}
                </span>
              )
            ) : (
              <span className="text-ink-soft">not yet</span>
            )}
          </StripTab>
        </TabList>
      </div>
      <Tabs.Content value={place} className="flex flex-1 flex-col" tabIndex={-1}>
        {place === 'lies' && <AnglePanel key={`${setup.id}-${offset.name}`} offset={offset} />}
        {place === 'turn' && <TurnPanel key={`${setup.id}-${offset.name}`} offset={offset} />}
        {place === 'moves' && <MovesPanel key={`${setup.id}-${offset.name}`} offset={offset} />}
        {place === 'part' && <PartPanel key={setup.id} />}
      </Tabs.Content>
      <NextBar
        step="angle"
        isHere={({ part, about }) => part === place && (about ?? offset.name) === offset.name}
      />
    </Tabs.Root>
  )
}

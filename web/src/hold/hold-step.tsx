import { type GripDraft, gripDraft, type PlacedDraft, placedDraft } from '@dogleg/core/hold'
import { startingGrip, startingPlace, viseInHand } from '@dogleg/core/prepare'
import { formatLength } from '@dogleg/core/quantity'
import { isSquare, type Setup, type StepState } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import type { ReactNode } from 'react'
import { useKept } from '../log/kept.ts'
import { useNextPart, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'
import { Findings } from '../ui/verdict.tsx'
import { ChecksPanel } from './checks-panel.tsx'
import { ClearPanel } from './clear-panel.tsx'
import { GripPanel } from './grip-panel.tsx'
import { RankingPanel } from './ranking-panel.tsx'
import { RatioPanel } from './ratio-panel.tsx'
import { SquarePanel } from './square-panel.tsx'

/** The Hold step: on a mill the vise, square and clear; on a lathe collet and stop. */
export function HoldStep() {
  const { setup } = useOpenSetup()
  return setup.machine.kind === 'mill' ? (
    <MillHold key={setup.id} setup={setup} />
  ) : (
    <LatheHold key={setup.id} setup={setup} />
  )
}

interface Part<Place extends string> {
  place: Place
  title: string
  /** How it stands, in the strip. */
  stands: ReactNode
  shows: () => ReactNode
}

interface PartsProps<Place extends string> {
  setup: Setup
  parts: readonly Part<Place>[]
  place: Place
  go: (to: Place) => void
}

/** The parts of the step: a strip to choose one, the one that is chosen, and what to do next. */
function Parts<Place extends string>({ setup, parts, place, go }: PartsProps<Place>) {
  const { next } = useOpenSetup().traveler
  return (
    <Tabs.Root
      value={place}
      onValueChange={(to) => {
        const part = parts.find((each) => each.place === to)
        if (part) go(part.place)
      }}
      className="flex flex-1 flex-col"
    >
      <TabList aria-label="Parts of Hold" className="flex min-w-0 flex-wrap border-b border-rule">
        {parts.map((each) => (
          <StripTab
            key={each.place}
            value={each.place}
            title={each.title}
            isNext={next?.step === 'hold' && next.part === each.place}
          >
            {each.stands}
          </StripTab>
        ))}
      </TabList>
      <Findings findings={setup.hold.findings} />
      <Tabs.Content value={place} className="flex flex-1 flex-col" tabIndex={-1}>
        {parts.find((each) => each.place === place)?.shows()}
      </Tabs.Content>
      <NextBar step="hold" isHere={({ part }) => part === place} />
    </Tabs.Root>
  )
}

const stateOf = (fact: { freshness: { state: string } } | undefined, done: boolean): StepState =>
  fact?.freshness.state === 'stale' ? 'stale' : done ? 'done' : 'open'

/** A figure and the state of a part, in the strip. */
const Stands = ({ says, state }: { says: string | false | undefined; state: StepState }) => (
  <span className="flex items-center gap-3">
    {says && <span className="digits text-xl">{says}</span>}
    <StateMark state={state} />
  </span>
)

const MILL_PLACES = ['clear', 'square'] as const

function MillHold({ setup }: { setup: Setup }) {
  const { reference, machineEntries } = useOpenSetup()
  const { hold, unit } = setup
  const [draft, change] = useKept<PlacedDraft>(`${setup.id}.place`, placedDraft, () => startingPlace(setup))
  const vise = viseInHand(draft.vise, machineEntries, reference.vises)
  const next = useNextPart('hold')
  const [place, go] = usePlace('part', MILL_PLACES, MILL_PLACES.find((each) => each === next) ?? 'clear')
  const last = hold.sweeps.at(-1)
  return (
    <Parts
      setup={setup}
      place={place}
      go={go}
      parts={[
        {
          place: 'clear',
          title: 'Does it clear?',
          stands: (
            <StateMark
              state={stateOf(
                hold.clearance,
                hold.clearance !== undefined && hold.clearance.verdict !== 'stop',
              )}
            />
          ),
          shows: () => <ClearPanel vise={vise} draft={draft} change={change} />,
        },
        {
          place: 'square',
          title: 'Square the vise',
          stands: (
            <Stands
              says={last?.squared.ok && formatLength(last.squared.outOfSquare.value, unit)}
              state={stateOf(last, isSquare(last))}
            />
          ),
          shows: () => <SquarePanel vise={vise} onVise={(id) => change({ ...draft, vise: id })} />,
        },
      ]}
    />
  )
}

const LATHE_PLACES = ['grip', 'ranking', 'ratio', 'checks'] as const

function LatheHold({ setup }: { setup: Setup }) {
  const { hold, unit } = setup
  const next = useNextPart('hold')
  const [place, go] = usePlace('part', LATHE_PLACES, LATHE_PLACES.find((each) => each === next) ?? 'grip')
  const [draft, change] = useKept<GripDraft>(`${setup.id}.grip`, gripDraft, () => startingGrip(setup))
  const { grip, checks } = hold
  const ticked = checks.filter(({ tick }) => tick?.freshness.state === 'fresh').length
  const anyStale = checks.find(({ tick }) => tick?.freshness.state === 'stale')?.tick
  return (
    <Parts
      setup={setup}
      place={place}
      go={go}
      parts={[
        {
          place: 'grip',
          title: 'Collet, stop',
          stands: (
            <Stands
              says={grip && formatLength(grip.spread.value, unit)}
              state={stateOf(grip, grip !== undefined && grip.verdict !== 'stop')}
            />
          ),
          shows: () => <GripPanel draft={draft} change={change} />,
        },
        {
          place: 'ranking',
          title: 'All pairs',
          stands: null,
          shows: () => (
            <RankingPanel
              draft={draft}
              onForm={() => go('grip')}
              onUse={(collet, stop) => {
                change({ ...draft, collet, stop })
                go('grip')
              }}
            />
          ),
        },
        {
          place: 'ratio',
          title: 'True ratio',
          stands: hold.lengths.size > 0 ? <span className="text-ink-soft">measured</span> : null,
          shows: () => <RatioPanel key={setup.id} />,
        },
        {
          place: 'checks',
          title: 'Checks',
          stands: (
            <Stands says={`${ticked}/${checks.length}`} state={stateOf(anyStale, ticked === checks.length)} />
          ),
          shows: () => <ChecksPanel />,
        },
      ]}
    />
  )
}

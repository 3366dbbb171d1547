import { type InHand, stateOfPart, type TaskPart } from '@dogleg/core/traveler'
import { Tabs } from 'radix-ui'
import { Suspense, useState } from 'react'
import { useNextPart, useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { lazyPart, NoPart } from '../ui/lazy-part.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'
import { ChartPanel } from './chart-panel.tsx'
import { GaugePanel } from './gauge-panel.tsx'
import { TryPanel } from './try-panel.tsx'
import { useGauging } from './use-gauging.ts'

const PalletsPanel = lazyPart(async () => (await import('./pallets/pallets-panel.tsx')).PalletsPanel, NoPart)
const TimePanel = lazyPart(async () => (await import('./time/time-panel.tsx')).TimePanel, NoPart)
const SavingsPanel = lazyPart(async () => (await import('./time/savings-panel.tsx')).SavingsPanel, NoPart)

const PLACES = ['pallets', 'time', 'savings', 'gauge', 'try', 'chart'] as const
type Place = (typeof PLACES)[number]

/** The Run step: pallets, where the time goes and what would save it, and what is measured on each part while it runs. */
export function RunStep() {
  const { setup } = useOpenSetup()
  return <Run key={setup.id} />
}

function Run() {
  const { setup, traveler } = useOpenSetup()
  const { gauge, machine, run } = setup
  const [offset, chooseOffset] = useOffset(setup)
  const gauging = useGauging(offset)
  const measured = gauge.series.reduce((sum, { parts }) => sum + parts.length, 0)
  const own = useNextPart('run')
  const { next } = traveler
  // What is answered before the start is a part of the pallets.
  const placeOf = (part: TaskPart) => (part === 'start' ? 'pallets' : part)
  const isNext = (part: Place) => next?.step === 'run' && placeOf(next.part) === part
  const tasks = traveler.steps.find(({ step }) => step === 'run')?.tasks ?? []
  const pallets = run.pallets && stateOfPart(tasks, 'pallets', 'start')
  const [inHand, setInHand] = useState<InHand>()
  const withPallets = machine.pallets !== null || run.pallets !== undefined
  const [place, go] = usePlace<Place>(
    'part',
    PLACES,
    PLACES.find((each) => each === own) ?? (run.pallets ? 'pallets' : 'chart'),
  )
  const plan = gauge.plans.length > 0 && stateOfPart(tasks, 'gauge')
  const shown = (place === 'try' && !machine.probe) || (place === 'pallets' && !withPallets) ? 'gauge' : place
  return (
    <Tabs.Root value={shown} onValueChange={(to) => go(to as Place)} className="flex flex-1 flex-col">
      <TabList aria-label="Parts of Run" className="flex min-w-0 flex-wrap border-b border-rule">
        {withPallets && (
          <StripTab value="pallets" title="Pallets" isNext={isNext('pallets')}>
            {pallets && <StateMark state={pallets} />}
          </StripTab>
        )}
        <StripTab value="time" title="Time" isNext={false}>
          {null}
        </StripTab>
        <StripTab value="savings" title="What would save" isNext={false}>
          <span className="digits text-xl">{run.saved.length || ''}</span>
        </StripTab>
        <StripTab value="gauge" title="What is gauged" isNext={isNext('gauge')}>
          {plan && <StateMark state={plan} step="code" />}
        </StripTab>
        {machine.probe && (
          <StripTab value="try" title="Try it" isNext={false}>
            <span className="text-ink-soft">
              {gauging.trial.proof ? `${gauging.trial.proof.cases.length} cases` : ''}
            </span>
          </StripTab>
        )}
        <StripTab value="chart" title="Chart" isNext={isNext('chart')}>
          <span className="digits text-xl">{measured || ''}</span>
        </StripTab>
      </TabList>
      <Tabs.Content value={shown} className="flex flex-1 flex-col" tabIndex={-1}>
        <Suspense fallback={<p className="py-6 text-ink-soft">Opening…</p>}>
          {shown === 'pallets' && <PalletsPanel onInHand={setInHand} />}
          {shown === 'time' && <TimePanel />}
          {shown === 'savings' && <SavingsPanel />}
          {shown === 'gauge' && <GaugePanel gauging={gauging} offset={offset} onOffset={chooseOffset} />}
          {shown === 'try' && <TryPanel gauging={gauging} onCompose={() => go('gauge')} />}
          {shown === 'chart' && <ChartPanel title={gauging.title} onCompose={() => go('gauge')} />}
        </Suspense>
      </Tabs.Content>
      <NextBar
        step="run"
        inHand={shown === 'pallets' ? inHand : undefined}
        isHere={({ part }) => placeOf(part) === shown}
      />
    </Tabs.Root>
  )
}

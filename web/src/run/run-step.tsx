import { nextRun, palletsState } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { Suspense } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { lazyPart, NoPart } from '../ui/lazy-part.tsx'
import { NextLine } from '../ui/next-line.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
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
  const { setup } = useOpenSetup()
  const { gauge, machine, run } = setup
  const [offset, chooseOffset] = useOffset(setup)
  const gauging = useGauging(offset)
  const measured = gauge.series.reduce((sum, { parts }) => sum + parts.length, 0)
  const { says, why, place: next } = nextRun(setup)
  const pallets = palletsState(run)
  const withPallets = machine.pallets !== null || run.pallets !== undefined
  const [place, go] = usePlace<Place>('part', PLACES, next)
  const stale = gauge.plans.some(({ freshness }) => freshness.state === 'stale')
  const shown = (place === 'try' && !machine.probe) || (place === 'pallets' && !withPallets) ? 'gauge' : place
  return (
    <Tabs.Root value={shown} onValueChange={(to) => go(to as Place)} className="flex flex-1 flex-col">
      <Tabs.List aria-label="Parts of Run" className="flex min-w-0 flex-wrap border-b border-rule">
        {withPallets && (
          <StripTab value="pallets" title="Pallets" isNext={next === 'pallets'}>
            {pallets && <StateMark state={pallets} />}
          </StripTab>
        )}
        <StripTab value="time" title="Time" isNext={false}>
          {null}
        </StripTab>
        <StripTab value="savings" title="What would save" isNext={false}>
          <span className="digits text-xl">{run.saved.length || ''}</span>
        </StripTab>
        <StripTab value="gauge" title="What is gauged" isNext={next === 'gauge'}>
          {(stale || gauge.plans.length > 0) && <StateMark state={stale ? 'stale' : 'done'} step="code" />}
        </StripTab>
        {machine.probe && (
          <StripTab value="try" title="Try it" isNext={false}>
            <span className="text-ink-soft">
              {gauging.trial.proof ? `${gauging.trial.proof.cases.length} cases` : ''}
            </span>
          </StripTab>
        )}
        <StripTab value="chart" title="Chart" isNext={next === 'chart'}>
          <span className="digits text-xl">{measured || ''}</span>
        </StripTab>
      </Tabs.List>
      <Tabs.Content value={shown} className="flex flex-1 flex-col" tabIndex={-1}>
        <Suspense fallback={<p className="py-6 text-ink-soft">Opening…</p>}>
          {shown === 'pallets' && <PalletsPanel />}
          {shown === 'time' && <TimePanel />}
          {shown === 'savings' && <SavingsPanel />}
          {shown === 'gauge' && <GaugePanel gauging={gauging} offset={offset} onOffset={chooseOffset} />}
          {shown === 'try' && <TryPanel gauging={gauging} onCompose={() => go('gauge')} />}
          {shown === 'chart' && <ChartPanel title={gauging.title} onCompose={() => go('gauge')} />}
        </Suspense>
      </Tabs.Content>
      <NextLine says={says} why={why} go={next !== shown ? () => go(next) : undefined} />
    </Tabs.Root>
  )
}

import { nextRun } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextLine } from '../ui/next-line.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { ChartPanel } from './chart-panel.tsx'
import { GaugePanel } from './gauge-panel.tsx'
import { TryPanel } from './try-panel.tsx'
import { useGauging } from './use-gauging.ts'

const PLACES = ['gauge', 'try', 'chart'] as const
type Place = (typeof PLACES)[number]

/** The Run step: what is measured on each part, the program for it tried on parts that are not there, and the chart. */
export function RunStep() {
  const { setup } = useOpenSetup()
  return <Gauged key={setup.id} />
}

function Gauged() {
  const { setup } = useOpenSetup()
  const { gauge, machine } = setup
  const [offset, chooseOffset] = useOffset(setup)
  const gauging = useGauging(offset)
  const measured = gauge.series.reduce((sum, { parts }) => sum + parts.length, 0)
  const [place, go] = usePlace<Place>('part', PLACES, measured > 0 ? 'chart' : 'gauge')
  const { says, why } = nextRun(setup)
  const stale = gauge.plans.some(({ freshness }) => freshness.state === 'stale')
  const next: Place = stale || gauge.plans.length === 0 ? 'gauge' : 'chart'
  const shown = place === 'try' && !machine.probe ? 'gauge' : place
  return (
    <Tabs.Root value={shown} onValueChange={(to) => go(to as Place)} className="flex flex-1 flex-col">
      <Tabs.List aria-label="Parts of Run" className="flex min-w-0 flex-wrap border-b border-rule">
        <StripTab value="gauge" title="What is gauged" isNext={next === 'gauge'}>
          <StateMark state={stale ? 'stale' : gauge.plans.length > 0 ? 'done' : 'open'} step="code" />
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
        {shown === 'gauge' && <GaugePanel gauging={gauging} offset={offset} onOffset={chooseOffset} />}
        {shown === 'try' && <TryPanel gauging={gauging} onCompose={() => go('gauge')} />}
        {shown === 'chart' && <ChartPanel title={gauging.title} onCompose={() => go('gauge')} />}
      </Tabs.Content>
      <NextLine says={says} why={why} go={next !== shown ? () => go(next) : undefined} />
    </Tabs.Root>
  )
}

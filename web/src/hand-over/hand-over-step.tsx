import { openFindings, setupSheet } from '@dogleg/core/sheet'
import { Tabs } from 'radix-ui'
import { useMemo } from 'react'
import { now } from '../log/clock.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'
import { HandOverPanel } from './hand-over-panel.tsx'
import { SheetView } from './sheet-view.tsx'

const PLACES = ['sheet', 'hand-over'] as const

/** The last step: the setup sheet, printed or as a file, and handing over to the next shift. */
export function HandOverStep() {
  const { setup, machineEntries, reference, traveler, entries } = useOpenSetup()
  const [place, go] = usePlace('part', PLACES, 'sheet')
  const sheet = useMemo(
    () => setupSheet(setup, machineEntries, reference, traveler, new Date(now()).toISOString()),
    [setup, machineEntries, reference, traveler],
  )
  const state = traveler.steps.at(-1)?.state ?? 'open'
  return (
    <Tabs.Root
      value={place}
      onValueChange={(to) => go(PLACES.find((each) => each === to))}
      className="flex flex-1 flex-col"
    >
      <TabList aria-label="Parts of handing over" className="flex border-b border-rule print:hidden">
        <StripTab value="sheet" title="Setup sheet" isNext={false}>
          {null}
        </StripTab>
        <StripTab value="hand-over" title="To the next shift" isNext={traveler.next?.step === 'hand-over'}>
          <StateMark state={state} step="hand-over" />
        </StripTab>
      </TabList>
      <Tabs.Content value={place} tabIndex={-1} className="flex flex-1 flex-col outline-none">
        {place === 'sheet' ? (
          <SheetView sheet={sheet} setup={setup} entries={entries} reference={reference} />
        ) : (
          <HandOverPanel sheet={sheet} open={openFindings(setup)} />
        )}
      </Tabs.Content>
      <div className="print:hidden">
        <NextBar step="hand-over" isHere={() => place === 'hand-over'} />
      </div>
    </Tabs.Root>
  )
}

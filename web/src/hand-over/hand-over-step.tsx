import { nextInStep, openFindings, setupSheet, stepStates } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { useMemo } from 'react'
import { now } from '../log/clock.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { usePlace } from '../log/use-place.ts'
import { NextLine } from '../ui/next-line.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { HandOverPanel } from './hand-over-panel.tsx'
import { SheetView } from './sheet-view.tsx'

const PLACES = ['sheet', 'hand-over'] as const

/** The last step: the setup sheet, printed or as a file, and handing over to the next shift. */
export function HandOverStep() {
  const { setup, machineEntries, reference, ready, entries } = useOpenSetup()
  const [place, go] = usePlace('part', PLACES, 'sheet')
  const sheet = useMemo(
    () => setupSheet(setup, machineEntries, reference, ready, new Date(now()).toISOString()),
    [setup, machineEntries, reference, ready],
  )
  const state = stepStates(setup, ready).at(-1)?.state ?? 'open'
  return (
    <Tabs.Root
      value={place}
      onValueChange={(to) => go(PLACES.find((each) => each === to))}
      className="flex flex-1 flex-col"
    >
      <Tabs.List aria-label="Parts of handing over" className="flex border-b border-rule print:hidden">
        <StripTab value="sheet" title="Setup sheet" isNext={false}>
          {null}
        </StripTab>
        <StripTab value="hand-over" title="To the next shift" isNext={state !== 'done'}>
          <StateMark state={state} step="hand-over" />
        </StripTab>
      </Tabs.List>
      <Tabs.Content value={place} tabIndex={-1} className="flex flex-1 flex-col outline-none">
        {place === 'sheet' ? (
          <SheetView sheet={sheet} setup={setup} entries={entries} reference={reference} />
        ) : (
          <HandOverPanel sheet={sheet} open={openFindings(setup)} />
        )}
      </Tabs.Content>
      <div className="print:hidden">
        <NextLine
          says={state === 'done' ? 'It is handed over.' : nextInStep(setup, ready, 'hand-over')}
          why={
            state === 'done'
              ? 'Whoever comes next finds it in Ready, and says that it was read.'
              : sheet.left.length > 0
                ? 'What is left and what is stale goes with it.'
                : 'Everything that was begun is done.'
          }
          go={state !== 'done' && place !== 'hand-over' ? () => go('hand-over') : undefined}
        />
      </div>
    </Tabs.Root>
  )
}

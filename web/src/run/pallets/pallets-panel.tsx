import type { InHand } from '@dogleg/core/traveler'
import { useEffect, useState } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { InnerTabs } from '../inner-tabs.tsx'
import { AtControl } from './at-control.tsx'
import { PalletForm } from './pallet-form.tsx'
import { PlayPanel } from './play-panel.tsx'
import { ShiftPanel } from './shift-panel.tsx'
import { StartPanel } from './start-panel.tsx'
import { usePallets } from './use-pallets.ts'

const PARTS = [
  ['plan', 'What runs on each'],
  ['start', 'Before the start'],
  ['play', 'Try the run'],
  ['shift', 'Over a shift'],
] as const
type Part = (typeof PARTS)[number][0]

/** The pallets of a machine: their programs, the check before the start, a played run, a shift. */
export function PalletsPanel({ onInHand }: { onInHand: (of: InHand | undefined) => void }) {
  const { setup } = useOpenSetup()
  const pallets = usePallets()
  const recorded = setup.run.pallets
  const { inHand } = pallets
  useEffect(() => onInHand(inHand), [onInHand, inHand])
  const [part, setPart] = useState<Part>(
    recorded && recorded.entry.verdict !== 'stop' && recorded.freshness.state === 'fresh' ? 'start' : 'plan',
  )
  const { plan, reading } = pallets
  return (
    <InnerTabs label="Parts of the pallets" value={part} places={PARTS} onChange={setPart}>
      {pallets.stands && <AtControl />}
      {part === 'plan' && <PalletForm pallets={pallets} onStart={() => setPart('start')} />}
      {part !== 'plan' && !(plan && reading) && (
        <p className="py-6 text-lg">
          {plan ? 'Reading the programs…' : 'Say first what runs on each pallet.'}
        </p>
      )}
      {part === 'start' && plan && reading && <StartPanel pallets={pallets} plan={plan} />}
      {part === 'play' && plan && reading && <PlayPanel plan={plan} reading={reading} />}
      {part === 'shift' && plan && reading && <ShiftPanel plan={plan} reading={reading} />}
    </InnerTabs>
  )
}

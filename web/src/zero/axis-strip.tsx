import { formatLength } from '@dogleg/core/quantity'
import { type AxisFact, addressNames, type OffsetState, type Setup } from '@dogleg/core/setup'
import type { TaskPart } from '@dogleg/core/traveler'
import { Hourglass, OctagonX } from 'lucide-react'
import { Tabs } from 'radix-ui'
import { Select } from '../ui/select.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { StripTab } from '../ui/strip-tab.tsx'
import { TabList } from '../ui/tab-list'

export type Place =
  | 'X'
  | 'Y'
  | 'Z'
  | 'check'
  | 'table'
  | 'tools'
  | 'probe'
  | 'stock'
  | 'bar'
  | 'rotary'
  | 'shift'

/** What stands beside the axes: the tables of the machine, and probe calls where it has a probe. */
export function tables({ machine }: Setup): [Place, string][] {
  if (machine.kind === 'lathe')
    return [
      ['table', 'Table'],
      ['shift', 'Shift'],
      ['bar', 'Bar stop'],
    ]
  return [
    ['table', 'Offsets'],
    ['tools', 'Tools'],
    ['stock', 'Block'],
    ...(machine.probe ? ([['probe', 'Probe']] as [Place, string][]) : []),
    ...(machine.rotary ? ([['rotary', 'Rotary']] as [Place, string][]) : []),
  ]
}

interface AxisStripProps {
  setup: Setup
  offset: OffsetState
  /** What is next of all, where it is with this offset. */
  next: TaskPart | undefined
  onOffset: (name: string) => void
}

function Fresh({ fact, setup }: { fact: AxisFact | undefined; setup: Setup }) {
  if (!fact) return <span className="text-ink-soft">not taken</span>
  const stale = fact.freshness.state === 'stale'
  return (
    <span className="flex items-center gap-2">
      {fact.verdict === 'stop' && <OctagonX aria-label="stop" size={18} className="text-hazard" />}
      <span className="digits text-xl">{formatLength(fact.value, setup.unit)}</span>
      {stale && <StateMark state="stale" />}
    </span>
  )
}

function CheckState({ offset: { check } }: { offset: OffsetState }) {
  if (!check) return <span className="text-ink-soft">not yet</span>
  if (check.freshness.state === 'stale') return <StateMark state="stale" />
  if (check.entry.result === 'agrees') return <StateMark state="done" />
  return (
    <span className="inline-flex items-center gap-1 font-semibold text-hazard">
      <OctagonX aria-hidden size={18} /> stands off
    </span>
  )
}

/** The offset in hand with its three axes and its check: what stands, what is stale, what is missing. */
export function AxisStrip({ setup, offset, next, onOffset }: AxisStripProps) {
  const inUse = setup.offsets.map(({ name }) => name)
  const { machine, profile } = setup
  const rotaryStale = offset.rotary?.freshness.state === 'stale' || setup.centre?.freshness.state === 'stale'
  const shiftStale = setup.shift?.freshness.state === 'stale'
  const others = addressNames(machine, profile).filter((name) => !inUse.includes(name))
  return (
    <div className="flex flex-wrap items-stretch border-b border-rule">
      <label className="flex items-center gap-2 pr-3 font-semibold">
        <span className="sr-only">{machine.kind === 'mill' ? 'Work offset' : 'Tool'}</span>
        <Select
          value={offset.name}
          onChange={(event) => onOffset(event.target.value)}
          className="digits w-28 xl:w-32"
        >
          <optgroup label="In this setup">
            {[...new Set([...inUse, offset.name])].map((name) => (
              <option key={name}>{name}</option>
            ))}
          </optgroup>
          <optgroup label={machine.kind === 'mill' ? 'Further offsets of this control' : 'Further tools'}>
            {others
              .filter((name) => name !== offset.name)
              .map((name) => (
                <option key={name}>{name}</option>
              ))}
          </optgroup>
        </Select>
      </label>
      <TabList aria-label={`Axes of ${offset.name}`} className="flex min-w-0 flex-1 flex-wrap">
        {[...offset.wants, 'check' as const].map((each) => (
          <StripTab key={each} value={each} title={each === 'check' ? 'Check' : each} isNext={next === each}>
            {each === 'check' ? (
              <CheckState offset={offset} />
            ) : (
              <Fresh fact={offset.axes[each]} setup={setup} />
            )}
          </StripTab>
        ))}
        {tables(setup).map(([place, title]) => (
          <Tabs.Trigger
            key={place}
            value={place}
            className="min-h-14 border-b-4 border-b-transparent border-l border-l-rule px-2 font-semibold hover:bg-stock-shade data-[state=active]:border-b-ink data-[state=active]:bg-stock-shade"
          >
            {title}
            {((place === 'rotary' && rotaryStale) || (place === 'shift' && shiftStale)) && (
              <Hourglass aria-label="stale" size={16} className="ml-1 inline" />
            )}
          </Tabs.Trigger>
        ))}
      </TabList>
    </div>
  )
}

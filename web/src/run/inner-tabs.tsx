import { Tabs } from 'radix-ui'
import type { ReactNode } from 'react'
import { TabList } from '../ui/tab-list'

/** Parts of one tab, in a row of quieter ones. */
export function InnerTabs<Place extends string>({
  label,
  value,
  places,
  onChange,
  children,
}: {
  label: string
  value: Place
  places: readonly (readonly [Place, string])[]
  onChange: (to: Place) => void
  children: ReactNode
}) {
  return (
    <Tabs.Root value={value} onValueChange={(to) => onChange(to as Place)} className="flex flex-1 flex-col">
      <TabList aria-label={label} className="flex flex-wrap gap-x-2 border-b border-rule">
        {places.map(([place, title]) => (
          <Tabs.Trigger
            key={place}
            value={place}
            className="min-h-11 border-b-4 border-transparent px-3 font-semibold hover:bg-stock-shade data-[state=active]:border-ink"
          >
            {title}
          </Tabs.Trigger>
        ))}
      </TabList>
      <Tabs.Content value={value} tabIndex={-1} className="flex flex-1 flex-col outline-none">
        {children}
      </Tabs.Content>
    </Tabs.Root>
  )
}

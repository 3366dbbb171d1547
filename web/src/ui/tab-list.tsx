import { Tabs } from 'radix-ui'
import type { ComponentProps } from 'react'
import { stepAtOnce } from './step-at-once'

/** A row of tabs, gone through by arrow keys as fast as they are pressed. */
export function TabList(props: ComponentProps<typeof Tabs.List>) {
  return <Tabs.List {...props} onKeyDownCapture={stepAtOnce} />
}

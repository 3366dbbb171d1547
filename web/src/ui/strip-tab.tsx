import { ArrowRight } from 'lucide-react'
import { Tabs } from 'radix-ui'
import type { ReactNode } from 'react'

interface StripTabProps {
  value: string
  title: string
  /** It is where the next thing is done. */
  isNext: boolean
  /** How it stands. */
  children: ReactNode
}

/** One part of a step in the strip across its top: its name, and how it stands. */
export function StripTab({ value, title, isNext, children }: StripTabProps) {
  return (
    <Tabs.Trigger
      value={value}
      className="flex min-h-14 flex-1 items-center justify-between gap-2 border-b-4 border-b-transparent border-l border-l-rule px-2 text-left hover:bg-stock-shade data-[state=active]:border-b-ink data-[state=active]:bg-stock-shade"
    >
      <span className="flex items-center gap-1 text-lg font-semibold">
        {isNext && <ArrowRight aria-label="next:" size={18} className="shrink-0" />}
        {title}
      </span>
      {children}
    </Tabs.Trigger>
  )
}

import type { StepState } from '@dogleg/core/setup'
import { Circle, CircleCheckBig, Hourglass, type LucideIcon } from 'lucide-react'

const STATES: Record<StepState, { word: string; Icon: LucideIcon; look: string }> = {
  open: { word: 'open', Icon: Circle, look: 'text-ink' },
  done: { word: 'checked', Icon: CircleCheckBig, look: 'text-verified' },
  stale: { word: 'stale', Icon: Hourglass, look: 'text-ink hatched rounded-sm px-1' },
}

/** The state of a step or an offset: a word and a shape. */
export function StateMark({ state }: { state: StepState }) {
  const { word, Icon, look } = STATES[state]
  return (
    <span className={`inline-flex items-center gap-1.5 font-semibold ${look}`}>
      <Icon aria-hidden size={18} />
      {word}
    </span>
  )
}

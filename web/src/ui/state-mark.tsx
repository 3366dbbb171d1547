import type { Step, StepState } from '@dogleg/core/setup'
import {
  CheckCheck,
  Circle,
  CircleArrowRight,
  CircleCheckBig,
  FileCheck2,
  Hourglass,
  type LucideIcon,
  Ruler,
} from 'lucide-react'

const STATES: Record<StepState, { word: string; Icon: LucideIcon; look: string }> = {
  open: { word: 'open', Icon: Circle, look: 'text-ink' },
  done: { word: 'checked', Icon: CircleCheckBig, look: 'text-verified' },
  stale: { word: 'stale', Icon: Hourglass, look: 'text-ink hatched rounded-sm px-1' },
}

/** An angle that is known was measured, and not looked at by a person. */
const MEASURED = { word: 'measured', Icon: Ruler, look: 'text-ink' }

/** A program is proved, by the computing: nobody has run it. */
const PROVED = { word: 'proved', Icon: CheckCheck, look: 'text-ink' }

/** Code is written, and not yet seen to run. */
const WRITTEN = { word: 'written', Icon: FileCheck2, look: 'text-ink' }

/** What runs was looked at or measured, and the machine can run. */
const SET_UP = { word: 'set up', Icon: Ruler, look: 'text-ink' }

/** Handed over: whoever comes next has yet to read it. */
const HANDED = { word: 'handed over', Icon: CircleArrowRight, look: 'text-ink' }

/** Steps that are done without a person's having looked. */
const COMPUTED: Partial<Record<Step, typeof MEASURED>> = {
  angle: MEASURED,
  code: WRITTEN,
  prove: PROVED,
  run: SET_UP,
  'hand-over': HANDED,
}

/** The state of a step or an offset: a word and a shape. */
export function StateMark({ state, step }: { state: StepState; step?: Step }) {
  const { word, Icon, look } =
    state !== 'done' || step === undefined ? STATES[state] : (COMPUTED[step] ?? STATES.done)
  return (
    <span className={`inline-flex items-center gap-1 font-semibold ${look}`}>
      <Icon aria-hidden size={18} />
      {word}
    </span>
  )
}

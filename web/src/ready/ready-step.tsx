import { STEP_NAMES } from '@dogleg/core/setup'
import { ArrowRight } from 'lucide-react'
import { Link } from 'react-router'
import { useOpenSetup } from '../log/open-setup.ts'
import { HomePanel } from './home-panel.tsx'
import { OverridePanel } from './override-panel.tsx'
import { ReadyLines } from './ready-lines.tsx'
import { ShiftNotes } from './shift-notes.tsx'

/** The Ready step: the note of the last shift, the walk-round, powering up, home, and what to set the overrides to. */
export function ReadyStep() {
  const { setup, ready } = useOpenSetup()
  const waits = ready.notes.some((note) => note.waits)
  const due = ready.lines.find(({ state }) => state !== 'done')
  const homeOpen = ready.home?.verdict !== 'good' || ready.home.freshness.state === 'stale'
  return (
    <div className="flex flex-1 flex-col">
      <ShiftNotes setup={setup} notes={ready.notes} />
      <div className="grid flex-1 content-start gap-x-8 gap-y-3 py-2 xl:grid-cols-[1fr_26rem]">
        <ReadyLines setup={setup} ready={ready} />
        <div className="grid content-start gap-x-8 gap-y-3 md:grid-cols-2 xl:grid-cols-1">
          <HomePanel setup={setup} home={ready.home} />
          <OverridePanel setup={setup} />
        </div>
      </div>
      <p className="flex flex-wrap items-center gap-2 border-t border-rule py-2 text-lg" role="status">
        <ArrowRight aria-hidden size={20} />
        {waits ? (
          <span className="font-semibold">Read the note first.</span>
        ) : due ? (
          <span className="font-semibold">{due.item.says}.</span>
        ) : homeOpen ? (
          <span className="font-semibold">Read the home positions.</span>
        ) : (
          <Link
            to="../hold"
            relative="path"
            className="inline-flex min-h-11 items-center font-semibold underline decoration-rule decoration-2 underline-offset-4"
          >
            {setup.machine.name} is ready. On to {STEP_NAMES.hold}.
          </Link>
        )}
        {due?.due && !waits && <span className="text-base text-ink-soft">It was {due.due}.</span>}
      </p>
    </div>
  )
}

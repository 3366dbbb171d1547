import { Link } from 'react-router'
import { useOpenSetup } from '../log/open-setup.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { HomePanel } from './home-panel.tsx'
import { OverridePanel } from './override-panel.tsx'
import { ReadyLines } from './ready-lines.tsx'
import { ShiftNotes } from './shift-notes.tsx'

/** The Ready step: the note of the last shift, the walk-round, powering up, home, and what to set the overrides to. */
export function ReadyStep() {
  const { setup, ready } = useOpenSetup()
  return (
    <div className="flex flex-1 flex-col">
      <ShiftNotes setup={setup} notes={ready.notes} />
      {setup.opened.again && (
        <p className="border-b border-rule">
          <Link
            to={`/jobs/${encodeURIComponent(setup.opened.title)}`}
            className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
          >
            This job was set up before: how it went
          </Link>
        </p>
      )}
      <div className="grid flex-1 content-start gap-x-8 gap-y-3 py-1 xl:grid-cols-[1fr_26rem]">
        <ReadyLines setup={setup} ready={ready} />
        <div className="grid content-start gap-x-8 gap-y-3 md:grid-cols-2 xl:grid-cols-1">
          <HomePanel setup={setup} home={ready.home} />
          <OverridePanel setup={setup} />
        </div>
      </div>
      <NextBar step="ready" isHere={() => true} />
    </div>
  )
}

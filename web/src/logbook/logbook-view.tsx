import {
  type Logged,
  type LogLine,
  type LogSearch,
  logDescriber,
  logMatches,
  type Setup,
} from '@dogleg/core/setup'
import { HardDriveUpload, NotebookPen } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { type OpenSetup, useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { useWaiting } from '../log/outbox.ts'
import { record } from '../log/record.ts'
import { useMayStrike } from '../log/session.ts'
import { useUnsaved } from '../log/unsaved.ts'
import { Listing } from '../program/listing.tsx'
import { Button } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { sayWhen, When } from '../ui/when.tsx'
import { LogSearchBar } from './log-search-bar.tsx'
import { RawWords } from './raw-words.tsx'
import { RefusedEntries } from './refused-entries.tsx'
import { StrikeDialog } from './strike-dialog.tsx'

const LINES_AT_ONCE = 100

/** Words for the lines of a log, a strike's target included. */
function useDescriptions({ setup, machineEntries, reference }: OpenSetup) {
  const { log, unit, machine } = setup
  return useMemo(
    () => logDescriber({ log, unit, machine }, reference, machineEntries),
    [log, unit, machine, machineEntries, reference],
  )
}

function StandingMark({ line }: { line: LogLine }) {
  if (line.standing === 'struck') return <>struck out</>
  if (line.standing === 'superseded') return <>taken again since</>
  if (line.entry.kind === 'unread') return <>not read</>
  if (line.standing === 'stale') return <StateMark state="stale" />
  if (line.entry.kind === 'checked' && line.entry.result === 'agrees') return <StateMark state="done" />
  return null
}

/** What opens a setup stays; and a file that is damaged is no entry. */
const canBeStruck = (entry: Logged) =>
  entry.kind !== 'opened' && !(entry.kind === 'unread' && (entry.seq === 0 || entry.said === 'opened'))

/** The logbook of a setup, newest first: every entry legible, what was struck out too. */
export function LogbookView() {
  const open = useOpenSetup()
  const { setup } = open
  const describe = useDescriptions(open)
  const waiting = new Set(useWaiting().map(({ entry }) => entry.id))
  const mayStrike = useMayStrike()
  const [shown, setShown] = useState(LINES_AT_ONCE)
  const [striking, setStriking] = useState<LogLine>()
  const [search, setSearch] = useState<LogSearch>({})
  const found = useMemo(
    () => setup.log.filter((line) => logMatches(line, describe(line.entry), search)).toReversed(),
    [setup.log, describe, search],
  )
  const lines = found.slice(0, shown)
  return (
    <div className="flex-1 py-2">
      <RefusedEntries setup={setup.id} />
      <AddNote setup={setup} />
      <Link
        to={`/jobs/${encodeURIComponent(setup.opened.title)}`}
        className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
      >
        Every setup of this job, and how each went
      </Link>
      <LogSearchBar
        setup={setup}
        search={search}
        onSearch={(next) => {
          setSearch(next)
          setShown(LINES_AT_ONCE)
        }}
        found={found.length}
        describe={describe}
      />
      <table className="w-full">
        <thead>
          <tr className="border-b border-ink text-left text-sm text-ink-soft">
            <th className="py-1 pr-3 font-normal">When</th>
            <th className="pr-3 font-normal">Who</th>
            <th className="pr-3 font-normal">What</th>
            <th className="pr-3 font-normal">Standing</th>
            <th className="w-28 font-normal">
              <span className="sr-only">Strike out</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => {
            const { says, detail } = describe(line.entry)
            const struck = line.standing === 'struck'
            return (
              <tr key={line.entry.id} className="border-b border-rule align-top" data-kind={line.entry.kind}>
                <td className="py-2 pr-3">
                  <When at={line.entry.at} />
                </td>
                <td className="py-2 pr-3">
                  {line.entry.by}
                  {line.entry.tablet !== undefined && (
                    <span className="block text-sm text-ink-soft">{line.entry.tablet}</span>
                  )}
                </td>
                <td className="py-2 pr-3">
                  <span className={`font-semibold ${struck ? 'line-through decoration-2' : ''}`}>{says}</span>
                  {detail && (
                    <span className={`block text-sm ${struck ? 'line-through' : 'text-ink-soft'}`}>
                      {detail}
                    </span>
                  )}
                  {line.entry.kind === 'unread' && line.entry.raw !== '' && <RawWords raw={line.entry.raw} />}
                  {line.entry.kind === 'program' && (
                    <details>
                      <summary className="min-h-11 content-center underline decoration-rule underline-offset-4">
                        The text as it was taken
                      </summary>
                      <Listing text={line.entry.text} />
                    </details>
                  )}
                  {line.entry.carried && (
                    <span className="block text-sm">
                      Taken over from the last time: {line.entry.carried.by}, {sayWhen(line.entry.carried.at)}
                    </span>
                  )}
                  {line.strike && (
                    <span className="block text-sm">
                      Struck out by {line.strike.by}, {sayWhen(line.strike.at)}: {line.strike.reason}
                    </span>
                  )}
                  {line.standing === 'stale' && line.cause && (
                    <span className="block text-sm">
                      {line.cause.says} ({sayWhen(line.cause.at)})
                    </span>
                  )}
                </td>
                <td className="py-2 pr-3 text-ink-soft">
                  <StandingMark line={line} />
                  {waiting.has(line.entry.id) && (
                    <span className="flex items-center gap-1 text-sm">
                      <HardDriveUpload aria-hidden size={16} /> on this tablet
                    </span>
                  )}
                </td>
                <td className="text-right">
                  {!struck && mayStrike(line.entry) && canBeStruck(line.entry) && (
                    <Button look="quiet" aria-label={`Strike out: ${says}`} onClick={() => setStriking(line)}>
                      Strike out
                    </Button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {found.length > shown && (
        <Button className="my-3" onClick={() => setShown(shown + LINES_AT_ONCE)}>
          Show earlier entries ({found.length - shown} more)
        </Button>
      )}
      {striking && (
        <StrikeDialog
          {...open}
          target={striking.entry.id}
          says={describe(striking.entry).says}
          onClose={() => setStriking(undefined)}
        />
      )}
    </div>
  )
}

function AddNote({ setup }: { setup: Setup }) {
  const [text, setText] = useState('')
  useUnsaved(text !== '')
  const signed = useSigned()
  return (
    <form
      className="flex items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (text.trim() === '') return
        signed(() => {
          record(setup.id, { kind: 'note', text: text.trim() })
          setText('')
        })
      }}
    >
      <div className="flex-1">
        <TextEntry words label="Add a note" value={text} onChange={setText} maxLength={1000} />
      </div>
      <Button type="submit" className="mt-6 min-h-12" disabled={text.trim() === ''}>
        <NotebookPen aria-hidden size={20} /> Add
      </Button>
    </form>
  )
}

import { CloudOff, HardDriveUpload, TabletSmartphone } from 'lucide-react'
import { Link } from 'react-router'
import { useReachable } from '../log/api.ts'
import { useKnownSince } from '../log/known-before.ts'
import { useTrouble, useUnkept, useUnreadable, useWaiting } from '../log/outbox.ts'
import { useSession } from '../log/session.ts'
import { useHeld } from '../log/storage.ts'
import { waitingFile } from '../log/waiting-file.ts'
import { Button } from '../ui/button.tsx'
import { saveFile } from '../ui/save-file.ts'
import { useLasts } from '../ui/use-lasts.ts'
import { When } from '../ui/when.tsx'

/** What the server takes within so long is on its way, and nobody needs to be told. */
const TAKES_MS = 2000

/**
 * What waits on this tablet, and why. Silent when everything is in the logbook; beside the keys of the header it has room for two lines,
 * so that the page does not move under a finger when it comes and goes.
 */
export function Delivery() {
  const waiting = useWaiting()
  const trouble = useTrouble()
  const unkept = useUnkept()
  const reachable = useReachable()
  const held = useHeld()
  const since = useKnownSince()
  const unreadable = useUnreadable().length
  const refused = waiting.filter((each) => each.refused).length
  const { signs, person, unproved } = useSession()
  const unsigned = signs ? waiting.filter((each) => !each.refused && each.sitting === undefined) : []
  // Of whoever is here now they go out by themselves.
  const others = unsigned.filter(({ entry }) => entry.by !== person?.initials)
  const due = waiting.length - refused - others.length
  const isSlow = useLasts(due > 0, TAKES_MS)
  // Until the server has heard the PIN nothing of it is on its way, and the PIN is in this page alone.
  const isTold = isSlow || !reachable || unproved
  const look = 'inline-flex items-center gap-1.5 font-semibold [&>svg]:shrink-0'
  return (
    <div
      role="status"
      className="flex flex-wrap items-center justify-end gap-x-4 text-sm leading-tight not-empty:min-w-64"
    >
      {unkept > 0 && (
        <span className={look}>
          The storage of this tablet is full or blocked: do not close this page yet.
          <Button
            look="quiet"
            className="px-1 text-sm"
            onClick={() => saveFile(waitingFile(waiting), 'dogleg-waiting.json', 'application/json')}
          >
            Save what waits as a file
          </Button>
        </span>
      )}
      {unkept === 0 && held > 0 && (
        <span className={look}>
          The storage of this tablet is full or blocked: what is typed and not recorded is gone when this page
          is closed.
        </span>
      )}
      {unreadable > 0 && (
        <Link to="/" className={`${look} min-h-11 underline underline-offset-4`}>
          <TabletSmartphone aria-hidden size={18} /> {unreadable} cannot be read: see the shop page
        </Link>
      )}
      {refused > 0 && (
        <Link to="/" className={`${look} min-h-11 underline underline-offset-4`}>
          <TabletSmartphone aria-hidden size={18} /> {refused} refused: see the shop page
        </Link>
      )}
      {others.length > 0 && (
        <span className={look}>
          <TabletSmartphone aria-hidden size={18} /> {others.length} {others.length === 1 ? 'waits' : 'wait'}{' '}
          until {[...new Set(others.map(({ entry }) => entry.by))].join(', ')} signs in
        </span>
      )}
      {due > 0 && isTold && (
        <span className={look} title={trouble}>
          {reachable ? <HardDriveUpload aria-hidden size={18} /> : <CloudOff aria-hidden size={18} />}
          {due} {due === 1 ? 'entry is' : 'entries are'} kept on this tablet until the server{' '}
          {!reachable ? 'answers' : due === 1 ? 'takes it' : 'takes them'}
        </span>
      )}
      {due === 0 && !reachable && (
        <span className={look}>
          <CloudOff aria-hidden size={18} />{' '}
          {since === undefined ? (
            'The server does not answer. You can go on.'
          ) : (
            <span>
              The server does not answer. What is shown is as of <When at={new Date(since).toISOString()} />.
            </span>
          )}
        </span>
      )}
    </div>
  )
}

import { STEP_NAMES } from '@dogleg/core/setup'
import { NOTHING_LEFT, type SetupSummary } from '@dogleg/core/traveler'
import { Link } from 'react-router'
import { StateMark } from '../ui/state-mark.tsx'
import { When } from '../ui/when.tsx'

/** One setup: its steps, what is stale, what comes next. The one that was worked on last is what is on the machine. */
export function SetupRow({ setup, onMachine }: { setup: SetupSummary; onMachine: boolean }) {
  const { id, title, steps, stale, unread, next, lastAt, away } = setup
  // Being ready is the machine's, and stands with its name.
  const own = steps.filter(({ step }) => step !== 'ready')
  const begun = own.filter(({ state }) => state !== 'open')
  const open = own.filter(({ asked, state }) => asked && state === 'open')
  return (
    <li className="border-b border-rule">
      <Link
        to={`/setups/${id}`}
        className="grid min-h-13 items-center gap-x-5 gap-y-1 px-2 py-1 hover:bg-stock-shade md:grid-cols-[minmax(0,1fr)_20rem] xl:grid-cols-[minmax(0,1fr)_27rem_19rem_8.5rem]"
      >
        <span>
          <span className={`block leading-6 font-semibold ${onMachine ? 'text-xl' : 'text-lg'}`}>
            {title}
          </span>
          <span className="block text-sm leading-4 text-ink-soft">
            {away !== undefined ? 'put away' : onMachine ? 'worked on last' : 'earlier'}
            {unread > 0 && (
              <span className="font-semibold text-ink">
                , {unread === 1 ? 'an entry' : `${unread} entries`} cannot be read
              </span>
            )}
          </span>
        </span>
        <span className="flex flex-wrap gap-x-4">
          {begun.map(({ step, state }) => (
            <span key={step} className="inline-flex items-center gap-1.5">
              {STEP_NAMES[step]} <StateMark state={state} step={step} />
            </span>
          ))}
          {open.length > 0 && (
            <span className="self-center text-sm leading-4 text-ink-soft">
              Open: {open.map(({ step }) => STEP_NAMES[step]).join(', ')}
            </span>
          )}
        </span>
        <span className="leading-5">
          <span className="block">
            {next && <span className="font-semibold">{STEP_NAMES[next.step]}. </span>}
            {next?.says ?? NOTHING_LEFT.says}
          </span>
          {stale.length > 0 && (
            <span className="block text-sm leading-4 text-ink-soft">
              Stale: {stale[0]}
              {stale.length > 1 && ` and ${stale.length - 1} more`}
            </span>
          )}
        </span>
        <span className="text-ink-soft xl:text-right">
          <When at={lastAt} />
        </span>
      </Link>
    </li>
  )
}

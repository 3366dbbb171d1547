import { formatDuration } from '@dogleg/core/quantity'
import type { Went, WentLine } from '@dogleg/core/traveler'
import { useInfiniteQuery } from '@tanstack/react-query'
import { Repeat } from 'lucide-react'
import { Link, useParams } from 'react-router'
import { api } from '../log/api.ts'
import { useReference } from '../log/rows.ts'
import { Button } from '../ui/button.tsx'
import { sayWhen, When } from '../ui/when.tsx'
import { useSetUpAgain } from './set-up-again.ts'
import { UnreadableLines } from './unreadable-lines.tsx'

const DAY = 86_400

/** A time that may be days. */
const sayLong = (seconds: number) =>
  seconds < 2 * DAY ? formatDuration(Math.round(seconds / 60) * 60) : `${Math.round(seconds / DAY)} days`

/** Every setup of one job, and how each went: what the next person wants to know before setting it up again. */
export function JobPage() {
  const { job = '' } = useParams()
  const { reference } = useReference()
  const { setUpAgain, asking, wrong } = useSetUpAgain()
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ['job', job],
    queryFn: ({ pageParam }) => api.jobSetups(job, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: ({ next }) => next,
  })
  const setups = data?.pages.flatMap((page) => page.setups) ?? []
  const unreadable = data?.pages.flatMap((page) => page.unreadable) ?? []
  const reads = data?.pages[0]?.reads
  return (
    <div className="py-1">
      <h1 className="border-b-2 border-ink py-2 text-2xl font-semibold">
        {setups[0]?.title ?? job}: how each setup went
      </h1>
      {[error?.message, wrong].map(
        (says) =>
          says && (
            <p key={says} role="alert" className="my-4 border-2 border-ink p-3 font-semibold">
              {says}
            </p>
          ),
      )}
      {reads !== undefined && (
        <p role="status" className="my-3 border-2 border-rule p-3">
          Dogleg was changed, and reads the logbook through once: {reads} of 100. Older setups are not all
          found yet.
        </p>
      )}
      {data && setups.length === 0 && unreadable.length === 0 && (
        <p className="py-3 text-lg text-ink-soft">No setup has this title.</p>
      )}
      {setups.map((went, n) => (
        <WentSection
          key={went.id}
          went={went}
          first={n === 0}
          disabled={asking || !reference}
          onAgain={() => reference && void setUpAgain(went.id, reference)}
        />
      ))}
      <UnreadableLines setups={unreadable} />
      {hasNextPage && (
        <Button className="my-3" disabled={isFetching} onClick={() => void fetchNextPage()}>
          Show older ones
        </Button>
      )}
      {data && !hasNextPage && setups.length > 0 && (
        <p className="py-3 text-ink-soft">
          {setups.length === 1 ? 'This is the only one.' : `These are all ${setups.length}.`}
        </p>
      )}
    </div>
  )
}

/** How long it took, how it ran, in a sentence each. */
function inShort({ took, cycle, parts }: Went): string[] {
  const to = took.to === 'running' ? 'until parts were run' : 'until its last entry'
  return [
    `${sayLong(took.seconds)} from opening ${to}; ${sayLong(took.atIt)} of it at work, pauses of more than half an hour left out.`,
    ...(cycle === undefined ? [] : [`A cycle took ${formatDuration(cycle)}.`]),
    ...(parts === undefined
      ? []
      : [
          `${parts.measured} ${parts.measured === 1 ? 'part' : 'parts'} measured, ${parts.out === 0 ? 'none' : parts.out} out of tolerance.`,
        ]),
  ]
}

function WentSection({
  went,
  first,
  disabled,
  onAgain,
}: {
  went: Went
  first: boolean
  disabled: boolean
  onAgain: () => void
}) {
  const { id, machine, at, by, people, lastAt, away, off, noted } = went
  const others = people.filter((each) => each !== by)
  return (
    <section aria-label={`Opened ${sayWhen(at)}`} className="border-b-2 border-ink py-2">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2 className="text-xl font-semibold">
          <Link to={`/setups/${id}`} className="underline decoration-rule underline-offset-4">
            <When at={at} />, {machine}
          </Link>
        </h2>
        <p className="text-ink-soft">
          opened by {by}
          {others.length > 0 && `, with ${others.join(', ')}`}; last entry <When at={lastAt} />
          {away && '; put away'}
        </p>
        <Button
          look={first ? 'primary' : 'plain'}
          className="ml-auto"
          disabled={disabled}
          aria-label={`Set up again as opened ${sayWhen(at)}`}
          onClick={onAgain}
        >
          <Repeat aria-hidden size={20} /> Set up again
        </Button>
      </div>
      {inShort(went).map((says) => (
        <p key={says} className="text-lg leading-snug">
          {says}
        </p>
      ))}
      <div className="mt-1 grid gap-x-8 gap-y-2 md:grid-cols-2">
        <Lines title="What was off" of={off} none="Nothing was off." />
        <Lines title="What was noted" of={noted} none="Nothing was noted." />
      </div>
    </section>
  )
}

function Lines({ title, of, none }: { title: string; of: Went['off']; none: string }) {
  return (
    <div>
      <h3 className="border-b border-rule font-semibold">{title}</h3>
      {of.lines.length === 0 && <p className="py-1 text-ink-soft">{none}</p>}
      {of.more > 0 && <p className="py-1 text-ink-soft">{of.more} older ones are in its logbook.</p>}
      <ul>
        {of.lines.map((line, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: lines of a log that is told as a whole
          <Line key={n} line={line} />
        ))}
      </ul>
    </div>
  )
}

function Line({ line: { at, by, says, detail } }: { line: WentLine }) {
  return (
    <li className="border-b border-rule py-1 leading-snug">
      {says}
      {detail && <span className="block">{detail}</span>}
      <span className="block text-sm text-ink-soft">
        {by}, <When at={at} />
      </span>
    </li>
  )
}

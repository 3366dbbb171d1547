import { useInfiniteQuery } from '@tanstack/react-query'
import { useParams } from 'react-router'
import { api } from '../log/api.ts'
import { useOperator } from '../log/operator.ts'
import { useRows } from '../log/rows.ts'
import { Button } from '../ui/button.tsx'
import { SetupRow } from './setup-row.tsx'
import { UnreadableLines } from './unreadable-lines.tsx'

/** Every setup that there ever was on a machine, the one that was worked on last first, a page at a time. */
export function OlderSetupsPage() {
  const { id = '' } = useParams()
  const operator = useOperator()
  const { data: machines } = useRows('machines')
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ['older-setups', id, operator],
    queryFn: ({ pageParam }) => api.olderSetups(id, operator, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: ({ next }) => next,
  })
  const name = machines?.find((each) => each.id === id)?.name ?? id
  const setups = data?.pages.flatMap((page) => page.setups) ?? []
  const unreadable = data?.pages.flatMap((page) => page.unreadable) ?? []
  return (
    <div className="py-1">
      <h1 className="border-b-2 border-ink py-2 text-2xl font-semibold">All setups on {name}</h1>
      {error && (
        <p role="alert" className="my-4 border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      {data && setups.length === 0 && unreadable.length === 0 && (
        <p className="py-3 text-lg text-ink-soft">Nothing was set up on it yet.</p>
      )}
      <ul>
        {setups.map((setup, index) => (
          <SetupRow key={setup.id} setup={setup} onMachine={index === 0 && setup.away === undefined} />
        ))}
      </ul>
      <UnreadableLines setups={unreadable} />
      {hasNextPage && (
        <Button className="my-3" disabled={isFetching} onClick={() => void fetchNextPage()}>
          Show older ones
        </Button>
      )}
      {data && !hasNextPage && setups.length > 0 && <p className="py-3 text-ink-soft">These are all.</p>}
    </div>
  )
}

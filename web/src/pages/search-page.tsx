import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query'
import { useEffect, useId, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { api, type FoundSetup } from '../log/api.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'

/** The server is asked once nobody has typed for so long, in ms. */
const PAUSE_MS = 150
const LONGEST = 200

/** What a setup was found by, as it is said before the words themselves. */
const FOUND_BY: Record<FoundSetup['why'][number]['by'], string> = {
  part: 'Part',
  people: 'Person',
  tools: 'Tool',
  offsets: 'Offset',
  programs: 'Program',
  notes: 'Note',
  numbers: 'Serial number',
  days: 'Day',
  state: 'State',
  named: 'With',
}

/** A value as it was when it last stood still for a moment. */
function useAtRest(value: string): string {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE_MS)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}

/** Every setup that there ever was in the shop, found by any word of its log. */
export function SearchPage() {
  const [params, setParams] = useSearchParams()
  const [typed, setTyped] = useState(params.get('for') ?? '')
  const text = useAtRest(typed.trim())
  const id = useId()
  const { data, error, hasNextPage, fetchNextPage, isFetching } = useInfiniteQuery({
    queryKey: ['search', text],
    queryFn: ({ pageParam }) => api.search(text, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: ({ next }) => next,
    placeholderData: keepPreviousData,
    staleTime: 10_000,
  })
  // In the address, so that the way back leads to the same.
  useEffect(() => {
    setParams(text === '' ? {} : { for: text }, { replace: true })
  }, [text, setParams])
  const found = data?.pages.flatMap((page) => page.found) ?? []
  const reads = data?.pages[0]?.reads
  return (
    <div className="py-3">
      <h1 className="sr-only">Search the shop</h1>
      <label htmlFor={id} className="font-semibold">
        Search the whole shop
      </label>
      <input
        id={id}
        type="search"
        value={typed}
        maxLength={LONGEST}
        // biome-ignore lint/a11y/noAutofocus: the page is opened to type here
        autoFocus
        autoComplete="off"
        spellCheck={false}
        onChange={({ target }) => setTyped(target.value)}
        className="mt-1 block min-h-14 w-full max-w-3xl rounded-sm border border-ink-soft bg-white/60 px-3 text-2xl [&::-webkit-search-cancel-button]:hidden"
      />
      <p className="mt-1 text-ink-soft">
        Part, machine, person, tool (T5), program (O1042), offset (G54), serial number, a word of a note, a
        day (2026-11-24). All words must stand in the setup’s log; “two words” in quotes stand together.
      </p>
      {error && (
        <p role="alert" className="my-4 border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      {reads !== undefined && (
        <p role="status" className="my-3 border-2 border-rule p-3">
          Dogleg was changed, and reads the logbook through once: {reads} of 100. Older setups are not all
          found yet.
        </p>
      )}
      <p role="status" className="mt-3 border-b-2 border-ink pb-1 font-semibold">
        {!data ? 'Searching…' : saysFound(found.length, hasNextPage, text)}
      </p>
      <ul>
        {found.map((setup) => (
          <FoundRow key={setup.id} setup={setup} />
        ))}
      </ul>
      {hasNextPage && (
        <Button className="my-3" disabled={isFetching} onClick={() => void fetchNextPage()}>
          Show older ones
        </Button>
      )}
    </div>
  )
}

function saysFound(count: number, more: boolean, text: string): string {
  if (count === 0) return text === '' ? 'Nothing was set up yet.' : `No setup has ${text} in its log.`
  const setups = `${more ? 'The last ' : ''}${count} ${count === 1 ? 'setup' : 'setups'}`
  return text === '' ? `${setups} of the shop` : `${setups} with ${text}`
}

function FoundRow({ setup: { id, title, machine, openedAt, by, lastAt, why } }: { setup: FoundSetup }) {
  return (
    <li className="border-b border-rule">
      <Link
        to={`/setups/${id}`}
        className="grid min-h-13 gap-x-5 gap-y-0.5 px-2 py-1.5 hover:bg-stock-shade md:grid-cols-[minmax(0,1fr)_8rem_9rem]"
      >
        <span>
          <span className="block text-lg leading-6 font-semibold">{title}</span>
          {why
            .filter((each) => each.by !== 'part')
            .map((each) => (
              <span
                key={`${each.by}${each.says.map((part) => part.text).join('')}`}
                className="block leading-5"
              >
                <span className="text-ink-soft">{FOUND_BY[each.by]}: </span>
                {each.says.map((part, n) =>
                  part.hit ? (
                    // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text, which stand where they stand
                    <mark key={n} className="bg-stock-shade font-semibold text-ink underline">
                      {part.text}
                    </mark>
                  ) : (
                    part.text
                  ),
                )}
              </span>
            ))}
          {openedAt && (
            <span className="block text-sm leading-5 text-ink-soft">
              opened by {by}, <When at={openedAt} />
            </span>
          )}
        </span>
        <span>{machine}</span>
        <span className="text-ink-soft md:text-right">
          <When at={lastAt} />
        </span>
      </Link>
    </li>
  )
}

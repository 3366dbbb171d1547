import { nextFor } from '@dogleg/core/setup'
import { ArrowRight } from 'lucide-react'
import { Tabs } from 'radix-ui'
import { useEffect, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { Findings } from '../ui/verdict.tsx'
import { AxisStrip, type Place } from './axis-strip.tsx'
import { CheckPanel } from './check-panel.tsx'
import { PickupPanel } from './pickup-panel.tsx'

const PLACES: readonly string[] = ['X', 'Y', 'Z', 'check']
const asPlace = (text: string | null): Place | undefined =>
  text !== null && PLACES.includes(text) ? (text as Place) : undefined

/** The Zero step: one axis of one work offset at a time, from the readings to a fact in the log. */
export function ZeroStep() {
  const { setup } = useOpenSetup()
  const [offset, chooseOffset] = useOffset(setup)
  const [search, setSearch] = useSearchParams()
  const next = nextFor(offset)
  const [recorded, setRecorded] = useState(false)
  const named = asPlace(search.get('axis'))
  const place = named ?? asPlace(next.place) ?? 'check'
  const go = (to: Place | undefined) =>
    setSearch(
      (params) => {
        if (to) params.set('axis', to)
        else params.delete('axis')
        return params
      },
      { replace: true },
    )
  // The place is named in the address as soon as it is shown: what arrives from another tablet must not turn the page.
  useEffect(() => {
    if (!named) go(place)
  })
  return (
    <Tabs.Root value={place} onValueChange={(to) => go(asPlace(to))} className="flex flex-1 flex-col">
      <AxisStrip setup={setup} offset={offset} onOffset={chooseOffset} />
      {offset.findings.length > 0 && (
        <div className="border-b border-rule py-2">
          <Findings findings={offset.findings} />
        </div>
      )}
      <Tabs.Content value={place} className="flex flex-1 flex-col" tabIndex={-1}>
        {place === 'check' ? (
          <CheckPanel setup={setup} offset={offset} />
        ) : (
          <PickupPanel
            key={`${setup.id}-${offset.name}-${place}`}
            setup={setup}
            offset={offset}
            axis={place}
            takeFocus={recorded}
            onRecorded={() => {
              setRecorded(true)
              go(undefined)
            }}
          />
        )}
      </Tabs.Content>
      <p className="flex flex-wrap items-center gap-2 border-t border-rule py-2 text-lg" role="status">
        <ArrowRight aria-hidden size={20} />
        <NextSentence says={next.says} place={next.place} offset={offset.name} onPlace={go} here={place} />
        <span className="text-base text-ink-soft">{next.why}</span>
      </p>
    </Tabs.Root>
  )
}

interface NextSentenceProps {
  says: string
  place: string
  offset: string
  here: Place
  onPlace: (place: Place) => void
}

/** The next thing to do; a link where it is done elsewhere. */
function NextSentence({ says, place, offset, here, onPlace }: NextSentenceProps) {
  const look =
    'inline-flex min-h-11 items-center font-semibold underline decoration-rule decoration-2 underline-offset-4'
  if (place === 'program')
    return (
      <Link to={`../program?offset=${encodeURIComponent(offset)}`} relative="path" className={look}>
        {says}
      </Link>
    )
  const to = asPlace(place)
  if (!to || to === here) return <span className="font-semibold">{says}</span>
  return (
    <button type="button" className={look} onClick={() => onPlace(to)}>
      {says}
    </button>
  )
}

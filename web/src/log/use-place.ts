import { useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'

/**
 * The part of a step that is shown: the one that the address names under `name`, or else the next thing, which then
 * stays: what arrives from another tablet must not turn the page. `go` without a place goes to where the next thing is
 * done.
 */
export function usePlace<Place extends string>(
  name: string,
  places: readonly Place[],
  next: Place,
): [place: Place, go: (to: Place | undefined) => void] {
  const [search, setSearch] = useSearchParams()
  // Kept here and not written into the address by an effect: that would call off a link that was just pressed.
  const [kept, keep] = useState<Place>()
  // The address follows when the browser has the time; until then what was pressed is what is shown, and nothing else in between.
  const { key } = useLocation()
  const [pressed, press] = useState<{ place: Place; from: string }>()
  const named = pressed?.from === key ? pressed.place : places.find((each) => each === search.get(name))
  const held = named ? undefined : (places.find((each) => each === kept) ?? next)
  if (held !== kept) keep(held)
  const go = (to: Place | undefined) => {
    press({ place: to ?? next, from: key })
    setSearch(
      (params) => {
        if (to) params.set(name, to)
        else params.delete(name)
        return params
      },
      { replace: true },
    )
  }
  return [named ?? held ?? next, go]
}

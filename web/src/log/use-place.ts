import { useEffect } from 'react'
import { useSearchParams } from 'react-router'

/**
 * The part of a step that is shown, named in the address under `name` as soon as it is shown: what arrives from another
 * tablet must not turn the page. `go` without a place goes to where the next thing is done.
 */
export function usePlace<Place extends string>(
  name: string,
  places: readonly Place[],
  next: Place,
): [place: Place, go: (to: Place | undefined) => void] {
  const [search, setSearch] = useSearchParams()
  const named = places.find((each) => each === search.get(name))
  const place = named ?? next
  const go = (to: Place | undefined) =>
    setSearch(
      (params) => {
        if (to) params.set(name, to)
        else params.delete(name)
        return params
      },
      { replace: true },
    )
  useEffect(() => {
    if (!named) go(place)
  })
  return [place, go]
}

import { isRouteErrorResponse, useRouteError } from 'react-router'
import { ButtonLink } from '../ui/button.tsx'

/** Where there is nothing to show: why, and the way back. */
export function Lost({ says }: { says: string }) {
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-2xl font-semibold">Nothing to show here</h1>
      <p className="my-4 text-lg">{says}</p>
      <ButtonLink to="/" look="primary">
        To the shop
      </ButtonLink>
    </div>
  )
}

/** A mistake of ours: says so, and that nothing is lost. */
export function Sorry() {
  const error = useRouteError()
  const detail = isRouteErrorResponse(error)
    ? error.statusText
    : error instanceof Error
      ? error.message
      : String(error)
  return (
    <main className="p-8">
      <Lost
        says={`This page failed: ${detail}. What was recorded is safe in the logbook or on this tablet. Reload the page.`}
      />
    </main>
  )
}

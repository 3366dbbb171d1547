import { isRouteErrorResponse, useLocation, useNavigate, useRouteError } from 'react-router'
import { Button, ButtonLink } from '../ui/button.tsx'

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

/** What went wrong, as far as it says. */
function useDetail(): string {
  const error = useRouteError()
  if (isRouteErrorResponse(error)) return error.statusText
  return error instanceof Error ? error.message : String(error)
}

/** A part of the program that was to be loaded and did not come. */
const NOT_LOADED = /dynamically imported module|Importing a module script failed|error loading/i

/**
 * In the place of a step or a page that failed: a mistake of ours, or a server that is away. The rest of the page goes on, and what
 * was typed is kept on the tablet: opened again, it stands there.
 */
export function Failed() {
  const detail = useDetail()
  const navigate = useNavigate()
  const location = useLocation()
  const away = NOT_LOADED.test(detail)
  return (
    <div role="alert" className="max-w-prose py-10">
      <h1 className="text-2xl font-semibold">{away ? 'This part did not load' : 'This part failed'}</h1>
      <p className="my-4 text-lg">
        {away
          ? 'It is not on this tablet yet: the server does not answer, or Dogleg was updated meanwhile. What was opened before works.'
          : 'It is a mistake in Dogleg, not yours. The other steps and pages work.'}{' '}
        What was recorded is safe in the logbook or on this tablet, and what was typed here is kept: open it
        again.
      </p>
      {!away && <p className="my-4 text-ink-soft">It says: {detail}</p>}
      <div className="flex gap-3">
        <Button look="primary" className="min-h-12" onClick={() => navigate(location, { replace: true })}>
          Open it again
        </Button>
        {away && (
          <Button className="min-h-12" onClick={() => window.location.reload()}>
            Load the page again
          </Button>
        )}
        <ButtonLink to="/" className="min-h-12">
          To the shop
        </ButtonLink>
      </div>
    </div>
  )
}

/** Where the frame of the page itself failed: says so, and that nothing is lost. */
export function Sorry() {
  const detail = useDetail()
  return (
    <main className="p-8">
      <Lost
        says={`This page failed: ${detail}. What was recorded is safe in the logbook or on this tablet. Reload the page.`}
      />
    </main>
  )
}

import { Link, useLocation } from 'react-router'

/** Said in the place of a number that rests on a length nobody measured, with the way to where it is measured. */
export function MeasureFirst({ tool }: { tool: number }) {
  const params = new URLSearchParams(useLocation().search)
  params.delete('part')
  params.set('axis', 'tools')
  return (
    <p className="text-lg">
      How far Z goes is unknown:{' '}
      <Link
        to={`../zero?${params}`}
        relative="path"
        className="inline-flex min-h-11 items-center font-semibold underline decoration-rule decoration-2 underline-offset-4"
      >
        measure T{tool}
      </Link>
    </p>
  )
}

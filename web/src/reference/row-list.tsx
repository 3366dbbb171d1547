import { NavLink } from 'react-router'

/** The names of all rows, to choose one. */
export function RowList({
  noun,
  to = noun,
  rows,
}: {
  noun: string
  /** Where their addresses begin, where that is not the same. */
  to?: string
  rows: readonly { id: string; name: string; version: number }[]
}) {
  return (
    <nav aria-label={noun} className="flex flex-wrap gap-1 md:flex-col">
      {rows.map(({ id, name, version }) => (
        <NavLink
          key={id}
          to={`/${to}/${id}`}
          className={({ isActive }) =>
            `flex min-h-12 items-center justify-between gap-4 rounded-sm px-3 text-lg font-semibold ${isActive ? 'bg-ink text-stock' : 'hover:bg-stock-shade'}`
          }
        >
          {name}
          <span className="shrink-0 text-sm font-normal">version {version}</span>
        </NavLink>
      ))}
    </nav>
  )
}

import type { Noun, Row } from '@dogleg/core/setup'
import { type ReactNode, useMemo, useState } from 'react'
import { Navigate, useLocation, useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import { useBesideRows, useRows } from '../log/rows.ts'
import { EditingContext, NEW } from './editing.ts'
import { RowHistory } from './row-history.tsx'
import { RowList } from './row-list.tsx'

interface RowsPageProps<N extends Noun> {
  noun: N
  /** Said under the list. */
  aside?: ReactNode
  /** What a row is called in the list, where its name alone is not enough. */
  titleOf?: (row: Row<N>) => string
  /** In which order the list has them, where it is not that of the server. */
  order?: (a: Row<N>, b: Row<N>) => number
  editor: (row: Row<N>) => ReactNode
}

/** One kind of reference data: the names of all rows, and the editor of the one in the address. */
export function RowsPage<N extends Noun>({ noun, aside, titleOf, order, editor }: RowsPageProps<N>) {
  const { id } = useParams()
  const begun = newRowIn<N>(useLocation().state, noun)
  const { data, error } = useRows(noun)
  const out = new Set(useBesideRows(noun).retired.map((each) => each.id))
  const rows: readonly Row<N>[] | undefined = data && order ? [...data].sort(order) : data
  if (!rows)
    return error ? (
      <Lost says={error.message} />
    ) : (
      <div className="py-5">
        <h1 className="mb-3 text-3xl font-semibold capitalize">{noun}</h1>
        <p>Reading the {noun}…</p>
      </div>
    )
  const named = (some: readonly Row<N>[]) =>
    titleOf ? some.map((each) => ({ ...each, name: titleOf(each) })) : some
  const first = rows.find(({ id: each }) => !out.has(each)) ?? rows[0]
  if (!id && first) return <Navigate to={`/${noun}/${first.id}`} replace />
  const row = id === NEW ? begun : rows.find((each) => each.id === id)
  return (
    <div className="grid gap-6 py-5 md:grid-cols-[14rem_1fr]">
      <div>
        <h1 className="mb-3 text-3xl font-semibold capitalize">{noun}</h1>
        <RowList noun={noun} rows={named(rows.filter(({ id: each }) => !out.has(each)))} />
        {aside}
        {out.size > 0 && (
          <details open={id !== undefined && out.has(id)} className="mt-3">
            <summary className="min-h-11 content-center font-semibold">Retired: {out.size}</summary>
            <RowList
              noun={`retired ${noun}`}
              to={noun}
              rows={named(rows.filter(({ id: each }) => out.has(each)))}
            />
          </details>
        )}
        <Damaged noun={noun} />
      </div>
      {row ? (
        <Edited key={row.id} noun={noun} row={row} editor={editor} />
      ) : (
        <p>{id === NEW ? 'Nothing new was begun here.' : 'Nothing in the list has this address.'}</p>
      )}
    </div>
  )
}

/** The new row that was begun, where the address came with one. */
function newRowIn<N extends Noun>(state: unknown, noun: N): Row<N> | undefined {
  if (typeof state !== 'object' || state === null || !('noun' in state) || !('row' in state)) return undefined
  return state.noun === noun ? (state.row as Row<N>) : undefined
}

/** Rows that the server cannot read: they are not in the list, and what was made with them is stale. */
function Damaged({ noun }: { noun: Noun }) {
  const { damaged } = useBesideRows(noun)
  if (damaged.length === 0) return null
  return (
    <section aria-label="Rows that cannot be read" className="mt-4 border-2 border-ink p-3">
      <p className="font-semibold">
        {damaged.length === 1 ? 'One row' : `${damaged.length} rows`} of this list cannot be read and{' '}
        {damaged.length === 1 ? 'is' : 'are'} missing here. Whoever looks after the server can take the last
        backup.
      </p>
      <ul>
        {damaged.map(({ id, version, says }) => (
          <li key={id} className="mt-1">
            {id}, version {version}: {says}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** The editor of a row as it was opened: what somebody else saves meanwhile does not take away what is being typed. */
function Edited<N extends Noun>({
  noun,
  row,
  editor,
}: {
  noun: N
  row: Row<N>
  editor: (row: Row<N>) => ReactNode
}) {
  const [opened, setOpened] = useState(row)
  const [dirty, noteDirty] = useState(false)
  const isNewer = row.version > opened.version
  if (isNewer && !dirty) setOpened(row)
  const editing = useMemo(
    () => ({
      newer: isNewer && dirty ? row.version : undefined,
      onNewer: () => setOpened(row),
      dirty,
      noteDirty,
      isNew: row.id === NEW,
      adopt: (next: Row<Noun>) => {
        if (next.id === row.id) setOpened(next as Row<N>)
      },
    }),
    [isNewer, dirty, row],
  )
  return (
    <EditingContext.Provider value={editing}>
      <div className="min-w-0">
        {editor(opened)}
        {row.id !== NEW && <RowHistory noun={noun} row={opened} />}
      </div>
    </EditingContext.Provider>
  )
}

import { type AnyRow, rowChanges } from '@dogleg/core/rows'
import { type Noun, type Row, rowKind } from '@dogleg/core/setup'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Archive, ArchiveRestore, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { api } from '../log/api.ts'
import { operator } from '../log/operator.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { useBesideRows } from '../log/rows.ts'
import { useLeads } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { sayWhen } from '../ui/when.tsx'
import { useEditing } from './editing.ts'
import { useSave } from './use-save.ts'

/** Parts that are told of one version; of more, how many there are. */
const MOST_TOLD = 8

/** The versions of a row, what each changed and who made it; and whether it is used any more. */
export function RowHistory<N extends Noun>({ noun, row }: { noun: N; row: Row<N> }) {
  const [open, setOpen] = useState(false)
  return (
    <section aria-label="Versions" className="mt-6 max-w-4xl border-t-2 border-ink pt-2">
      <Retiring noun={noun} row={row} />
      <details onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
        <summary className="min-h-11 content-center text-lg font-semibold">
          {row.version === 1 ? 'The one version' : `All ${row.version} versions`}: who made it, when, and what
          changed
        </summary>
        {open && <Versions noun={noun} row={row} />}
      </details>
    </section>
  )
}

function Versions<N extends Noun>({ noun, row }: { noun: N; row: Row<N> }) {
  const { save } = useSave(noun)
  const { dirty } = useEditing()
  const leads = useLeads()
  const signed = useSigned()
  const { data, error } = useQuery({
    queryKey: ['row-versions', noun, row.id, row.version],
    queryFn: () => api.rowVersions(noun, row.id),
  })
  if (error) return <p role="alert">{error.message}</p>
  if (!data) return <p>Reading the versions…</p>
  return (
    <>
      {save.error && (
        <p role="alert" className="border-2 border-ink p-2 font-semibold">
          {save.error.message}
        </p>
      )}
      <ol>
        {data.map((each, n) => (
          <li
            key={each.version}
            className="flex flex-wrap items-start gap-x-4 gap-y-1 border-b border-rule py-1.5"
          >
            <div className="min-w-64 flex-1">
              <p className="font-semibold">
                Version {each.version}
                <span className="font-normal text-ink-soft">{saidOf(each)}</span>
              </p>
              <Changes version={each} before={data[n + 1]} />
            </div>
            {n > 0 && each.row && leads && (
              <Button
                disabled={dirty || save.isPending}
                aria-label={`Take version ${each.version} back`}
                onClick={() =>
                  signed(() => save.mutate({ row: { ...(each.row as Row<N>), version: row.version } }))
                }
              >
                <Undo2 aria-hidden size={20} /> Take it back
              </Button>
            )}
          </li>
        ))}
      </ol>
      {data.length > 1 && (
        <p className="py-1 text-ink-soft">
          {dirty
            ? 'Save what is typed above first, or let it go.'
            : `One that is taken back becomes version ${row.version + 1}; none is lost.`}
        </p>
      )}
    </>
  )
}

const saidOf = ({ by, at }: { by?: string; at?: string }) =>
  at === undefined ? ', from before that was kept' : `, ${by ?? 'nobody signed in'}, ${sayWhen(at)}`

/** A version, as far as its row was read. */
interface Read {
  row?: AnyRow
  unread?: string
}

function Changes({ version, before }: { version: Read; before: Read | undefined }) {
  if (!version.row) return <p>It cannot be read: {version.unread}</p>
  if (!before) return <p>The first one.</p>
  if (!before.row) return <p>What it changed is not known: the one before cannot be read.</p>
  const changes = rowChanges(before.row, version.row)
  if (changes.length === 0) return <p>Nothing changed.</p>
  return (
    <ul>
      {changes.slice(0, MOST_TOLD).map(({ of, was, is }) => (
        <li key={of}>
          {of}: {was === '' ? '' : <s>{was}</s>} {is === '' ? 'taken out' : is}
        </li>
      ))}
      {changes.length > MOST_TOLD && <li>and {changes.length - MOST_TOLD} more</li>}
    </ul>
  )
}

/** What follows for what is used elsewhere, said before it is done. */
const FOLLOWS: Record<Noun, string> = {
  machines: 'It leaves the board with all its setups, and no setup is opened on it any more.',
  profiles: 'No other machine is given it any more.',
  vises: 'It is not offered any more.',
  collets: 'It is not offered any more.',
  tools: 'Its number is free for another tool, and a proof that was made with it is stale.',
  materials: 'It is not offered any more.',
}

function Retiring<N extends Noun>({ noun, row }: { noun: N; row: Row<N> }) {
  const client = useQueryClient()
  const signed = useSigned()
  const retired = useBesideRows(noun).retired.find(({ id }) => id === row.id)
  const { one } = rowKind(noun)
  const retire = useMutation({
    networkMode: 'always',
    mutationFn: (is: boolean) => api.retireRow(noun, row.id, is, operator()),
    onSuccess: () => client.invalidateQueries({ queryKey: [noun] }),
  })
  const leads = useLeads()
  const press = (is: boolean) => signed(() => retire.mutate(is))
  return (
    <>
      {retire.error && (
        <p role="alert" className="border-2 border-ink p-2 font-semibold">
          {retire.error.message}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 py-1">
        {retired ? (
          <>
            {leads && (
              <Button disabled={retire.isPending} onClick={() => press(false)}>
                <ArchiveRestore aria-hidden size={20} /> Bring this {one} back
              </Button>
            )}
            <p role="status" className="min-w-64 flex-1 font-semibold">
              Retired{retired.by ? ` by ${retired.by}` : ''}, {sayWhen(retired.at)}. It is named where it was
              used.
            </p>
          </>
        ) : (
          leads && (
            <>
              <Button disabled={retire.isPending} onClick={() => press(true)}>
                <Archive aria-hidden size={20} /> Retire this {one}
              </Button>
              <p className="min-w-64 flex-1 text-ink-soft">
                {FOLLOWS[noun]} It stays here, is named where it was used, and can be brought back.
              </p>
            </>
          )
        )}
      </div>
    </>
  )
}

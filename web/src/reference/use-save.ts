import type { Noun, Row } from '@dogleg/core/setup'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, Refused } from '../log/api.ts'
import { newId } from '../log/clock.ts'
import { operator } from '../log/operator.ts'
import type { ToldRows } from '../log/rows.ts'
import { NEW, useEditing } from './editing.ts'

/** Saves a row of reference data as its next version, or adds one that is new; keeps the list on screen true. */
export function useSave<N extends Noun>(noun: N) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const { adopt, onCreated } = useEditing()
  const put = (row: Row<N>) =>
    client.setQueryData<ToldRows<N>>([noun], (told) => {
      const { rows = [], ...beside } = told ?? { damaged: [], retired: [] }
      const known = rows.some(({ id }) => id === row.id)
      return {
        ...beside,
        rows: known ? rows.map((each) => (each.id === row.id ? row : each)) : [...rows, row],
      }
    })
  const stands = (row: Row<N>) => {
    adopt(row)
    put(row)
  }
  const save = useMutation({
    networkMode: 'always',
    mutationFn: ({ row }: { row: Row<N> }) =>
      row.id === NEW
        ? api.create(noun, { ...row, id: newId().toLowerCase() }, operator())
        : api.save(noun, row, operator()),
    onSuccess: (row, { row: { id } }) => {
      stands(row)
      if (id !== NEW) return
      if (onCreated) onCreated(row)
      else void navigate(`/${noun}/${row.id}`, { replace: true })
    },
  })
  /** The row as somebody else saved it meanwhile, where that is why it was refused. */
  const theirs =
    save.error instanceof Refused && save.error.code === 'edited-meanwhile'
      ? (save.error.detail as Row<N>)
      : undefined
  /** Opens a new row in the editor, as it is given; it is kept when it is saved there. */
  const begin = (row: Row<N>) =>
    void navigate(`/${noun}/${NEW}`, { state: { noun, row: { ...row, id: NEW, version: 1 } } })
  const copy = (row: Row<N>) => begin({ ...row, name: `${row.name} copy`.slice(0, 40) })
  return { save, begin, copy, onTheirs: theirs && (() => stands(theirs)) }
}

import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, type Noun, Refused, type Row } from '../log/api.ts'
import { newId } from '../log/clock.ts'
import { useEditing } from './editing.ts'

/** Saves a row of reference data as its next version, or adds a new one; keeps the list on screen true. */
export function useSave<N extends Noun>(noun: N) {
  const client = useQueryClient()
  const navigate = useNavigate()
  const { adopt } = useEditing()
  const put = (row: Row<N>) =>
    client.setQueryData<Row<N>[]>([noun], (rows = []) =>
      rows.some(({ id }) => id === row.id)
        ? rows.map((each) => (each.id === row.id ? row : each))
        : [...rows, row],
    )
  const stands = (row: Row<N>) => {
    adopt(row)
    put(row)
  }
  const save = useMutation({
    networkMode: 'always',
    mutationFn: ({ row, isNew }: { row: Row<N>; isNew?: boolean }) =>
      isNew ? api.create(noun, row) : api.save(noun, row),
    onSuccess: (row) => stands(row),
  })
  /** The row as somebody else saved it meanwhile, where that is why it was refused. */
  const theirs =
    save.error instanceof Refused && save.error.code === 'edited-meanwhile'
      ? (save.error.detail as Row<N>)
      : undefined
  /** Adds a copy of a row under a new id, and goes to it. */
  const copy = (row: Row<N>) =>
    save.mutate(
      {
        row: { ...row, id: newId().toLowerCase(), name: `${row.name} copy`.slice(0, 40), version: 1 },
        isNew: true,
      },
      { onSuccess: ({ id }) => navigate(`/${noun}/${id}`) },
    )
  return { save, copy, onTheirs: theirs && (() => stands(theirs)) }
}

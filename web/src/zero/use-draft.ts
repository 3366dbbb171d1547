import type { LinearAxis } from '@dogleg/core/machine'
import type { FieldName, PickupDraft, PickupMethod } from '@dogleg/core/pickup'
import { type Setup, startingDraft, usualMethod } from '@dogleg/core/setup'
import { useState } from 'react'

const keyOf = (setup: Setup, offset: string, axis: LinearAxis) => `dogleg.draft.${setup.id}.${offset}.${axis}`

function readKept(key: string): PickupDraft | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as PickupDraft | null
    return kept?.fields ? kept : undefined
  } catch {
    return undefined
  }
}

/** A pickup form as it is typed, kept on the tablet until it is recorded, so that a reload loses nothing. */
export function useDraft(setup: Setup, offset: string, axis: LinearAxis) {
  const key = keyOf(setup, offset, axis)
  const [draft, setDraft] = useState<PickupDraft>(
    () => readKept(key) ?? startingDraft(setup, axis, usualMethod(setup, axis)),
  )
  const change = (next: PickupDraft) => {
    localStorage.setItem(key, JSON.stringify(next))
    setDraft(next)
  }
  return {
    draft,
    setField: (field: FieldName, text: string) =>
      change({ ...draft, fields: { ...draft.fields, [field]: text } }),
    setDirection: (direction: '+' | '-') => change({ ...draft, direction }),
    setMethod: (method: PickupMethod) => change(startingDraft(setup, axis, method)),
    clear: () => {
      localStorage.removeItem(key)
      setDraft(startingDraft(setup, axis, draft.method))
    },
  }
}

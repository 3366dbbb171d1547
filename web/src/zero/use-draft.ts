import type { LinearAxis } from '@dogleg/core/machine'
import { type FieldName, type PickupDraft, type PickupMethod, pickupDraft } from '@dogleg/core/pickup'
import { type Setup, startingDraft, usualMethod } from '@dogleg/core/setup'
import { useState } from 'react'

const keyOf = (setup: Setup, offset: string, axis: LinearAxis) => `dogleg.draft.${setup.id}.${offset}.${axis}`

function readKept(key: string): PickupDraft | undefined {
  try {
    return pickupDraft.safeParse(JSON.parse(localStorage.getItem(key) ?? 'null')).data
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
    /** Another method keeps what was typed for this one, for the way back. */
    setMethod: (method: PickupMethod) => {
      const starting = startingDraft(setup, axis, method)
      change({ ...draft, method, fields: { ...starting.fields, ...draft.fields } })
    },
    clear: () => {
      localStorage.removeItem(key)
      setDraft(startingDraft(setup, axis, draft.method))
    },
  }
}

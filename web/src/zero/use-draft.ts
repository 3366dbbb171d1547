import type { LinearAxis } from '@dogleg/core/machine'
import {
  type ChoiceName,
  type FieldName,
  type PickupDraft,
  type PickupMethod,
  pickupDraft,
} from '@dogleg/core/pickup'
import { startingDraft, usualMethod } from '@dogleg/core/prepare'
import type { Setup } from '@dogleg/core/setup'
import { useKept } from '../log/kept.ts'

/** A pickup form as it is typed, kept on the tablet until it is recorded, so that a reload loses nothing. */
export function useDraft(setup: Setup, offset: string, axis: LinearAxis) {
  const [draft, change, clear] = useKept<PickupDraft>(`${setup.id}.${offset}.${axis}`, pickupDraft, () =>
    startingDraft(setup, axis, usualMethod(setup, axis)),
  )
  return {
    draft,
    setField: (field: FieldName, text: string) =>
      change({ ...draft, fields: { ...draft.fields, [field]: text } }),
    setChoice: (choice: ChoiceName, value: string) =>
      change({ ...draft, choices: { ...draft.choices, [choice]: value } }),
    /** Another method keeps what was typed for this one, for the way back. */
    setMethod: (method: PickupMethod) => {
      const starting = startingDraft(setup, axis, method)
      change({
        ...draft,
        method,
        fields: { ...starting.fields, ...draft.fields },
        choices: { ...starting.choices, ...draft.choices },
      })
    },
    clear: () => clear(startingDraft(setup, axis, draft.method)),
  }
}

import type { PickupDraft } from '@dogleg/core/pickup'
import type { ToolFact } from '@dogleg/core/setup'
import { fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { PickupFields } from './pickup-form.tsx'

const log = logOf(/first side/)
const { setup, lengths } = openSetup(log)
const [known] = lengths as [ToolFact]

function Fields({ tools }: { tools: readonly ToolFact[] }) {
  const [draft, setDraft] = useState<PickupDraft>({
    axis: 'Z',
    method: 'tool-on-block',
    choices: {},
    fields: { tool: String(known.tool), drawingZ: '0' } as PickupDraft['fields'],
  })
  return (
    <PickupFields
      draft={draft}
      unit="inch"
      machine={setup.machine}
      tools={tools}
      problems={{}}
      lit={undefined}
      onField={(name, text) => setDraft({ ...draft, fields: { ...draft.fields, [name]: text } })}
      onChoice={() => undefined}
      onMethod={() => undefined}
      onLit={() => undefined}
    />
  )
}
const take = () => screen.queryByRole('button', { name: /^Take the measured length of T/ })
const field = () => screen.getByLabelText<HTMLInputElement>(/^Tool length|^Length/)

describe('the length of the tool that touched', () => {
  it('is a press away where it was measured, and not offered again once it stands there', () => {
    renderInSetup(<Fields tools={lengths} />, log)
    expect(field().value).toBe('')
    fireEvent.click(take() as HTMLElement)
    expect(Number(field().value)).toBeCloseTo(known.length.value, 4)
    expect(take()).toBeNull()
    fireEvent.change(field(), { target: { value: '1' } })
    expect(take()).not.toBeNull()
  })

  it('is not offered where it is stale, and that is said', () => {
    const cause = { entryId: 'x', at: '', says: 'measured before its tool was measured again' }
    renderInSetup(<Fields tools={[{ ...known, freshness: { state: 'stale', cause } }]} />, log)
    expect(take()).toBeNull()
    expect(screen.getByText(/^Tool table: .*, stale$/)).toBeTruthy()
  })

  it('is not offered of another tool', () => {
    renderInSetup(<Fields tools={[{ ...known, tool: 99 }]} />, log)
    expect(take()).toBeNull()
  })
})

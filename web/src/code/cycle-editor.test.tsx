import { type CycleName, type ItemDraft, newItem, newSheet, readItem } from '@dogleg/core/code'
import { fireEvent, screen, within } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf, renderInSetup } from '../testing/shop.tsx'
import { CycleEditor } from './cycle-editor.tsx'
import { TypedProvider } from './typed.tsx'

beforeEach(() => void fakeServer({}))
afterEach(() => vi.unstubAllGlobals())

function Editor({ of }: { of: ItemDraft }) {
  const [item, change] = useState(of)
  const [lit, setLit] = useState<string>()
  const read = readItem(item, 'inch')
  const sheet = { ...newSheet('Test', 5400, 'aluminium'), items: [item] }
  return (
    <TypedProvider value={sheet}>
      <CycleEditor
        item={item}
        problems={read.ok ? {} : read.problems}
        lit={lit}
        onLit={setLit}
        onChange={change}
        draft={sheet}
        onPartsAShift={() => undefined}
        ends={undefined}
        after={() => null}
      />
    </TypedProvider>
  )
}

const parts = () => within(screen.getByRole('tablist', { name: 'Parts of the cycle' })).getAllByRole('tab')
const fieldsShown = () =>
  new Set(
    [...document.querySelectorAll<HTMLElement>('[data-field]')].map(({ dataset }) => dataset.field ?? ''),
  )

/** Places of holes stand in one field, whichever of it is asked for. */
const shownAs = (field: string) => (field === 'list' ? 'places' : field)

describe('the parts of a cycle that lack something', () => {
  it.each<[CycleName, Record<string, string>]>([
    ['tap', {}],
    ['tap', { thread: 'own' }],
    ['groove', {}],
    ['engrave', { text: 'A-##' }],
    ['engrave', { text: 'A', sits: 'arc' }],
    ['wrap', {}],
    ['wrap', { middleEvery: '5', longEvery: '10', numeralEvery: '10' }],
    ['wrap', { what: 'holes', rows: '2' }],
  ])('of %s with %j are those that hold a field which is missing, and no others', (cycle, typed) => {
    const fresh = newItem(cycle, 'a', 'inch', cycle === 'groove')
    const item = { ...fresh, params: { ...fresh.params, ...typed } } as ItemDraft
    const read = readItem(item, 'inch')
    if (read.ok) throw new Error('a new form has answers that nobody gave')
    const missing = Object.keys(read.problems).map(shownAs)
    renderInSetup(<Editor of={item} />, logOf(cycle === 'groove' ? /O-ring/ : /first side/))
    const found = new Set<string>()
    for (let n = 0; n < parts().length; n++) {
      const tab = parts()[n] as HTMLElement
      fireEvent.mouseDown(tab)
      const shown = fieldsShown()
      const lacking = missing.filter((field) => shown.has(field))
      for (const field of lacking) found.add(field)
      const says = tab.textContent ?? ''
      expect([says, says.includes('something is missing')]).toEqual([says, lacking.length > 0])
    }
    expect([...found].sort()).toEqual([...new Set(missing)].sort())
  })
})

import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { logOf, renderInSetup } from '../testing/shop.tsx'
import { OffsetsPanel } from './offsets-panel.tsx'

describe('the geometry page of a lathe', () => {
  it('has the nose and the tip of each insert beside X and Z, as the page of the tool has them', () => {
    renderInSetup(<OffsetsPanel onOpen={() => undefined} />, logOf(/O-ring grooves/))
    expect(screen.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual([
      'Tool',
      'X',
      'Z',
      'Nose radius',
      'Tip',
    ])
    const [, first] = screen.getAllByRole('row')
    const cells = within(first as HTMLElement)
    expect(cells.getByText('0.0080')).toBeDefined()
    expect(cells.getByText('3')).toBeDefined()
  })
})

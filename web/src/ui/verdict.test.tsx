import type { Finding } from '@dogleg/core/fact'
import { render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Findings, VerdictMark } from './verdict.tsx'

const finding = (says: string, severity: Finding['severity'] = 'stop'): Finding => ({
  severity,
  code: 'corrected-wrong-way',
  where: 'line 1',
  says,
  why: `Because ${says}`,
})

/** React says of two parts with one key that they may be doubled or left standing. */
let said: unknown[][] = []
beforeEach(() => {
  said = []
  vi.spyOn(console, 'error').mockImplementation((...words) => void said.push(words))
})
afterEach(() => vi.restoreAllMocks())

describe('what the checks say', () => {
  it('is each said once, also two things of one line, and gone when it no longer holds', () => {
    const { rerender } = render(
      <Findings findings={[finding('T7 is corrected the wrong way.'), finding('T8 too.')]} />,
    )
    expect(screen.getAllByRole('listitem')).toHaveLength(2)
    rerender(<Findings findings={[finding('T8 too.'), finding('T8 too.'), finding('T9 as well.', 'look')]} />)
    expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      expect.stringContaining('T8 too.'),
      expect.stringContaining('T9 as well.'),
    ])
    expect(screen.getByLabelText('Check this')).toBeTruthy()
    rerender(<Findings findings={[]} />)
    expect(screen.queryAllByRole('listitem')).toEqual([])
    expect(said).toEqual([])
  })

  it('carries its verdict by a word and a shape', () => {
    const { container } = render(<VerdictMark verdict="stop" />)
    expect(container.textContent).toBe('Stop')
    expect(container.querySelector('svg')).toBeTruthy()
  })
})

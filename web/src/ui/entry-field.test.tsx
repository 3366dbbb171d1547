import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { LengthEntryField, nextFieldOnEnter } from './entry-field.tsx'

function Field({ start, wrong, unit = 'inch' }: { start: string; wrong?: string; unit?: 'inch' | 'mm' }) {
  const [value, setValue] = useState(start)
  return (
    <LengthEntryField label="Machine position" unit={unit} value={value} onChange={setValue} wrong={wrong} />
  )
}

const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: 'Machine position' })
/** What the field says of itself to whoever hears it only. */
const told = () => document.getElementById(field().getAttribute('aria-describedby') ?? '')?.textContent

describe('a field for a length', () => {
  it('says what it understood, as it is typed, in its own unit', () => {
    render(<Field start="" />)
    expect(told()).toBe('')
    fireEvent.change(field(), { target: { value: '-9.2205' } })
    expect(told()).toBe('= -9.2205 in')
    fireEvent.change(field(), { target: { value: '25.4mm' } })
    expect(told()).toBe('= 1.0000 in')
    expect(field().getAttribute('aria-invalid')).toBe('false')
  })

  it('says it in mm where the setup is in mm', () => {
    render(<Field start="1in" unit="mm" />)
    expect(told()).toBe('= 25.400 mm')
  })

  it('says what is wrong with what is no length, and keeps what was typed', () => {
    render(<Field start="9.2.2" />)
    expect(field().getAttribute('aria-invalid')).toBe('true')
    expect(told()).not.toMatch(/^=/)
    expect(told()?.length).toBeGreaterThan(10)
    expect(field().value).toBe('9.2.2')
  })

  it('says what the form has against a length that is understood, but nothing against an empty one', () => {
    const { unmount } = render(<Field start="40" wrong="That is beyond the travel." />)
    expect(told()).toBe('That is beyond the travel.')
    unmount()
    render(<Field start="" />)
    expect(field().getAttribute('aria-invalid')).toBe('false')
  })

  it('is selected as a whole when it is entered, so that a new reading replaces the last', () => {
    render(<Field start="-9.2205" />)
    field().focus()
    fireEvent.focus(field())
    expect([field().selectionStart, field().selectionEnd]).toEqual([0, 7])
  })
})

describe('Enter in a form', () => {
  const names = () => screen.getAllByRole('textbox').map((each) => each.getAttribute('aria-label'))
  const press = (key = 'Enter') => fireEvent.keyDown(document.activeElement as Element, { key })
  function show({ hidden }: { hidden: boolean }) {
    // happy-dom draws nothing: what is hidden is said here.
    HTMLElement.prototype.checkVisibility = function visible() {
      return this.style.display !== 'none'
    }
    render(
      <form onKeyDown={nextFieldOnEnter}>
        <input data-entry aria-label="first" />
        <input aria-label="no entry" />
        <input data-entry aria-label="second" style={hidden ? { display: 'none' } : {}} />
        <input data-entry aria-label="third" />
        <button type="button">Help</button>
        <button type="button" data-record>
          Record
        </button>
      </form>,
    )
  }

  it('goes to the next field, and from the last to the key that records', () => {
    show({ hidden: false })
    expect(names()).toHaveLength(4)
    screen.getByLabelText('first').focus()
    press()
    expect(document.activeElement).toBe(screen.getByLabelText('second'))
    press()
    expect(document.activeElement).toBe(screen.getByLabelText('third'))
    press()
    expect(document.activeElement).toBe(screen.getByText('Record'))
    // There Enter is the browser's own: it presses the key.
    expect(press()).toBe(true)
    expect(document.activeElement).toBe(screen.getByText('Record'))
  })

  it('passes over a field that is not shown, and leaves every other key alone', () => {
    show({ hidden: true })
    screen.getByLabelText('first').focus()
    expect(press('a')).toBe(true)
    expect(document.activeElement).toBe(screen.getByLabelText('first'))
    expect(press()).toBe(false)
    expect(document.activeElement).toBe(screen.getByLabelText('third'))
  })
})

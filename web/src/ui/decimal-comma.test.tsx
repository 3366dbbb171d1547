import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { asReadHere, setDecimalComma, watchDecimalComma } from './decimal-comma.ts'
import { LengthEntryField } from './entry-field.tsx'
import { ListField } from './list-field.tsx'

function Fields() {
  const [length, setLength] = useState('')
  const [list, setList] = useState('')
  const [name, setName] = useState('')
  return (
    <>
      <LengthEntryField label="Width" unit="mm" value={length} onChange={setLength} />
      <ListField label="Places" hint="X Y" rows={3} value={list} onChange={setList} />
      <input aria-label="Name" value={name} onChange={({ target }) => setName(target.value)} />
    </>
  )
}

/** Types as a browser does: asks first, then puts the character in unless it was refused. */
function type(field: HTMLInputElement | HTMLTextAreaElement, text: string) {
  for (const data of text) {
    const asked = new InputEvent('beforeinput', {
      bubbles: true,
      cancelable: true,
      inputType: 'insertText',
      data,
    })
    let taken = true
    act(() => {
      taken = field.dispatchEvent(asked)
    })
    if (taken) fireEvent.input(field, { target: { value: field.value + data } })
  }
}

/** Pastes; false where the page put the text in by itself. */
function paste(field: HTMLInputElement | HTMLTextAreaElement, text: string): boolean {
  const event = new Event('paste', { bubbles: true, cancelable: true })
  Object.assign(event, { clipboardData: { getData: () => text } })
  let taken = true
  act(() => {
    taken = field.dispatchEvent(event)
  })
  return taken
}

const field = (label: string) => screen.getByLabelText(label) as HTMLInputElement

describe('a decimal comma', () => {
  let stop: () => void
  beforeEach(() => {
    stop = watchDecimalComma(document)
    render(<Fields />)
  })
  afterEach(() => {
    stop()
    setDecimalComma(false)
    cleanup()
  })

  it('is asked about, as ever, where the tablet was not told', () => {
    type(field('Width'), '12,7')
    expect(field('Width').value).toBe('12,7')
    expect(screen.getByText(/has a comma/)).toBeDefined()
    expect(paste(field('Places'), '12,7 3,5')).toBe(true)
    expect(asReadHere('12,7')).toBe('12,7')
  })

  it('is a point as it is typed and pasted, where the tablet was told; what is no number stays', () => {
    setDecimalComma(true)
    type(field('Width'), '12,7')
    expect(field('Width').value).toBe('12.7')
    expect(screen.getByText(/12\.7/)).toBeDefined()
    type(field('Name'), 'A,B')
    expect(field('Name').value).toBe('A,B')
    expect(paste(field('Places'), '12,7;3,5\n-1,25;,5')).toBe(false)
    expect(field('Places').value).toBe('12.7;3.5\n-1.25;.5')
    expect(asReadHere('12,7\t3,5')).toBe('12.7\t3.5')
  })

  it('leaves a table that has points already: its commas stand between numbers', () => {
    setDecimalComma(true)
    expect(paste(field('Places'), '12.7,3.5')).toBe(true)
    expect(asReadHere('12.7,3.5\n1.5,2.5')).toBe('12.7,3.5\n1.5,2.5')
  })
})

import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { choose } from '../tablet/choices.ts'
import { setDecimalComma } from '../ui/decimal-comma.ts'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { ListField } from '../ui/list-field.tsx'
import { Keypad } from './keypad.tsx'
import { watchKeypad } from './keypad-field.ts'

let end = () => {}
beforeEach(() => {
  end = watchKeypad()
  choose('keypad', 'always')
})
afterEach(() => {
  end()
  document.documentElement.className = ''
})

function Form() {
  const [length, setLength] = useState('1.25')
  const [words, setWords] = useState('')
  const [list, setList] = useState('')
  const [readings, setReadings] = useState('1.25')
  return (
    <main>
      <form>
        <TextEntry several lengthIn="inch" label="Readings" value={readings} onChange={setReadings} />
        <LengthEntryField label="Length" unit="inch" value={length} onChange={setLength} />
        <TextEntry words label="Note" value={words} onChange={setWords} />
        <ListField label="Touches" rows={2} hint="" value={list} onChange={setList} />
      </form>
      <Keypad />
    </main>
  )
}
/** A finger on a field: the press is over before anything moves. */
async function touch(label: string, pointerType = 'touch') {
  const field = screen.getByLabelText(label) as HTMLInputElement
  fireEvent.pointerDown(field, { pointerType })
  field.focus()
  fireEvent.pointerUp(field, { pointerType })
  fireEvent.click(field)
  await act(async () => {
    await new Promise((resolve) => setTimeout(resolve, 5))
  })
  return field
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name, hidden: true }))
const keys = () => document.querySelector('[data-keypad]')

describe('the keypad', () => {
  it('comes for numbers and not for words, and keeps the tablet’s own keyboard away', async () => {
    render(<Form />)
    expect(keys()).toBeNull()
    const length = await touch('Length')
    expect(keys()?.getAttribute('aria-label')).toBe('Keys for Length')
    expect(length.inputMode).toBe('none')
    await touch('Note')
    expect(keys()).toBeNull()
  })

  it('comes for fingers only, where that is set, and not at all where it is not wanted', async () => {
    choose('keypad', 'fingers')
    render(<Form />)
    await touch('Length', 'mouse')
    expect(keys()).toBeNull()
    await touch('Touches', 'touch')
    expect(keys()).not.toBeNull()
    act(() => choose('keypad', 'never'))
    await touch('Length', 'touch')
    expect(keys()).toBeNull()
  })

  it('waits for the click that follows a finger: until then nothing moves', async () => {
    render(<Form />)
    const length = screen.getByLabelText('Length')
    fireEvent.pointerDown(length, { pointerType: 'touch' })
    length.focus()
    fireEvent.pointerUp(length, { pointerType: 'touch' })
    const wait = (ms: number) => act(() => new Promise((resolve) => setTimeout(resolve, ms)))
    await wait(30)
    expect(keys()).toBeNull()
    fireEvent.click(length)
    await wait(5)
    expect(keys()).not.toBeNull()
    // A finger that scrolled clicks nothing.
    await touch('Note')
    fireEvent.pointerDown(length, { pointerType: 'touch' })
    length.focus()
    fireEvent.pointerUp(length, { pointerType: 'touch' })
    await wait(400)
    expect(keys()).not.toBeNull()
  })

  it('types several readings of one thing, and steps the last of them', async () => {
    render(<Form />)
    const readings = await touch('Readings')
    for (const key of ['Another reading', '2', '+ .001']) press(key)
    expect(readings.value).toBe('1.25; 2.001')
    press('Another reading')
    press('− .0001')
    expect(readings.value).toBe('1.25; 2.001; -0.0001')
    await touch('Length')
    expect(screen.queryByRole('button', { name: 'Another reading', hidden: true })).toBeNull()
  })

  it('types where the cursor stands, takes back, and steps by a thou and a tenth', async () => {
    render(<Form />)
    const length = await touch('Length')
    length.setSelectionRange(0, length.value.length)
    for (const key of ['Minus', '.', '5', '0', 'Take back', '1', 'Slash']) press(key === '.' ? 'Point' : key)
    expect(length.value).toBe('-.51/')
    press('Take back')
    press('+ .001')
    expect(length.value).toBe('-0.509')
    press('− .0001')
    expect(length.value).toBe('-0.5091')
    press('As before')
    expect(length.value).toBe('1.25')
    press('mm')
    press('Take back')
    press('+ .001')
    expect(screen.getByRole('status').textContent).toMatch(/no length yet/)
  })

  it('has keys for the lines of a list, and shows a comma where that is the decimal point', async () => {
    render(<Form />)
    act(() => setDecimalComma(true))
    const list = await touch('Touches')
    press('1')
    press('Comma')
    press('5')
    press('space')
    press('2')
    press('Next line')
    press('3')
    // A comma is typed as the point that it means.
    expect(list.value).toBe('1.5 2\n3')
    act(() => setDecimalComma(false))
  })

  it('goes to the next field for numbers, and away when somebody puts it away', async () => {
    render(<Form />)
    await touch('Length')
    press('Next')
    await act(async () => {
      await new Promise((resolve) => setTimeout(resolve, 5))
    })
    expect(document.activeElement).toBe(screen.getByLabelText('Touches'))
    expect(keys()?.getAttribute('aria-label')).toBe('Keys for Touches')
    act(() => press('Put the keys away'))
    expect(keys()).toBeNull()
    await touch('Touches')
    expect(keys()).toBeNull()
    await touch('Length')
    expect(keys()).not.toBeNull()
  })
})

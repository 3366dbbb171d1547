import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { storage } from '../log/storage.ts'
import { fillStorage } from '../testing/full-storage.ts'
import { TextEntry } from '../ui/entry-field.tsx'
import { forgetTyped, typedBefore, typesIn } from './typed-before.ts'
import { ValueMenu } from './value-menu.tsx'
import { usePressedValue, watchValues } from './value-press.ts'

const FIRST = { id: 'FIRST', title: 'First part', machine: 'mill-1', unit: 'inch' } as const
const SECOND = { id: 'SECOND', title: 'Second part', machine: 'mill-1', unit: 'inch' } as const
const ELSEWHERE = { id: 'THIRD', title: 'Third part', machine: 'lathe-1', unit: 'inch' } as const

function Page() {
  const [text, setText] = useState('')
  const value = usePressedValue()
  return (
    <main>
      <TextEntry label="Tip" value={text} onChange={setText} />
      <p data-value="-15.6504" data-typed="-15.769 with a tip of .2362">
        -15.6504 in
      </p>
      <button type="button">Elsewhere</button>
      <div role="dialog" aria-label="Question">
        <p data-value="1">one</p>
      </div>
      {value && <ValueMenu value={value} />}
    </main>
  )
}
const field = () => screen.getByLabelText('Tip') as HTMLInputElement
const type = (text: string) => {
  field().focus()
  fireEvent.change(field(), { target: { value: text } })
  fireEvent.focusOut(field())
}
const items = () => screen.queryAllByRole('menuitem').map((item) => item.textContent)
const hold = (element: Element, { move = 0, ms = 700 } = {}) => {
  fireEvent.pointerDown(element, { pointerType: 'touch', clientX: 10, clientY: 10 })
  if (move) fireEvent.pointerMove(element, { pointerType: 'touch', clientX: 10, clientY: 10 + move })
  act(() => void vi.advanceTimersByTime(ms))
  fireEvent.pointerUp(element, { pointerType: 'touch' })
  const raised = new Event('touchend', { bubbles: true, cancelable: true })
  element.dispatchEvent(raised)
  act(() => void vi.advanceTimersByTime(400))
  return raised.defaultPrevented
}

let end = () => {}
beforeEach(() => {
  vi.useFakeTimers()
  end = watchValues()
  window.history.replaceState(null, '', '/setups/FIRST/zero')
})
afterEach(() => {
  act(() => end())
  typesIn(undefined)
  vi.useRealTimers()
  window.history.replaceState(null, '', '/')
})

describe('a finger that rests on a value', () => {
  it('asks what can be done with it; one that moves or is lifted does not', () => {
    render(<Page />)
    hold(field(), { move: 40 })
    expect(items()).toEqual([])
    hold(field(), { ms: 200 })
    act(() => void vi.advanceTimersByTime(2000))
    expect(items()).toEqual([])
    type('.2362')
    // Neither the focus nor a press follows a finger that rested.
    expect(hold(field())).toBe(true)
    expect(items()).toEqual(['Copy .2362', 'Paste'])
    fireEvent.keyDown(screen.getByRole('menu'), { key: 'Escape' })
    expect(items()).toEqual([])
  })

  it('leaves a mouse and what is no value alone', () => {
    render(<Page />)
    fireEvent.pointerDown(field(), { pointerType: 'mouse' })
    act(() => void vi.advanceTimersByTime(2000))
    hold(screen.getByRole('button', { name: 'Elsewhere' }))
    hold(screen.getByText('one'))
    expect(items()).toEqual([])
  })

  it('says of a number that is shown what was typed for it', () => {
    render(<Page />)
    hold(screen.getByText('-15.6504 in'))
    expect(items()).toEqual(['Copy -15.6504'])
    expect(screen.getByText('Typed: -15.769 with a tip of .2362')).toBeTruthy()
  })

  it('is there for a keyboard too', () => {
    render(<Page />)
    field().focus()
    fireEvent.keyDown(field(), { key: 'F10', shiftKey: true })
    expect(items()).toEqual(['Paste'])
  })
})

describe('what was typed before', () => {
  it('is offered, of this setup and of the last one on this machine, and put in by a press', () => {
    render(<Page />)
    typesIn(FIRST)
    type('.5')
    typesIn(SECOND)
    type('.25')
    type('.3')
    hold(field())
    expect(items()).toEqual(['Copy .3', 'Paste', 'As it was typed before: .25', 'As in First part: .5'])
    fireEvent.click(screen.getByRole('menuitem', { name: /First part/ }))
    expect(field().value).toBe('.5')
    // No number of an inch is offered where it would be read in mm, and none on another machine.
    typesIn({ ...SECOND, id: 'FOURTH', unit: 'mm' })
    expect(typedBefore(field())).toEqual({})
    typesIn(ELSEWHERE)
    expect(typedBefore(field())).toEqual({})
  })

  it('gives way where the storage is full, without an alarm, and is forgotten on a tablet that is shut out', () => {
    render(<Page />)
    typesIn(FIRST)
    type('.5')
    fillStorage()
    typesIn(SECOND)
    type('.25')
    expect(storage.keys('dogleg.typed.').filter(storage.isHeld)).toEqual([])
    vi.unstubAllGlobals()
    forgetTyped()
    expect(storage.keys('dogleg.typed.')).toEqual([])
  })

  it('is kept for so many fields and no more, and nothing that is damaged is taken', () => {
    render(<Page />)
    typesIn(FIRST)
    const tabs = document.createElement('div')
    screen.getByRole('main').append(tabs)
    for (let n = 0; n < 220; n++) {
      tabs.innerHTML = `<button role="tab" aria-selected="true" id="r-trigger-t${n}"></button>`
      type(`${n}`)
    }
    const kept = storage.keys('dogleg.typed.').filter((key) => !key.endsWith('order'))
    expect(kept).toHaveLength(200)
    expect(kept.some((key) => key.includes('|t0|'))).toBe(false)
    const newest = kept.find((key) => key.includes('|t219|')) ?? ''
    for (const damaged of ['{', '7', '[{"text":1}]', '[null]']) {
      storage.set(newest, damaged)
      expect(typedBefore(field())).toEqual({})
    }
    type('1.')
    typesIn(SECOND)
    fireEvent.change(field(), { target: { value: '2.' } })
    expect(typedBefore(field()).last?.text).toBe('1.')
  })
})

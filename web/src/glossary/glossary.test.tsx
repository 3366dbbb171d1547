import { act, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Glossary } from './glossary.tsx'
import { GlossaryKey } from './glossary-key.tsx'
import { textUnder, watchLongPress } from './long-press.ts'

describe('the words', () => {
  it('that were asked about come first, then those of the page, then what is searched', () => {
    const onClose = vi.fn()
    render(<Glossary about="Tap drill" page="Record the sweep" onClose={onClose} />)
    expect(screen.getByRole('heading', { name: 'What it means' })).toBeTruthy()
    expect(screen.getAllByRole('term').map(({ textContent }) => textContent)).toEqual(['tap drill'])
    fireEvent.click(screen.getByRole('button', { name: 'All words of this page' }))
    expect(screen.getAllByRole('term').map(({ textContent }) => textContent)).toEqual(['sweep'])
    fireEvent.change(screen.getByLabelText('Find a word'), { target: { value: 'zebra' } })
    expect(screen.getByText(/^No such word is explained here/)).toBeTruthy()
    fireEvent.change(screen.getByLabelText('Find a word'), { target: { value: 'thou' } })
    expect(screen.getAllByRole('term')[0]?.textContent).toBe('thou')
    fireEvent.click(screen.getByRole('button', { name: 'Close' }))
    expect(onClose).toHaveBeenCalled()
  })
})

describe('a finger that rests', () => {
  beforeEach(() => {
    vi.useFakeTimers()
  })
  afterEach(() => vi.useRealTimers())
  const pressed = vi.fn()
  const show = (takes: boolean) => {
    pressed.mockClear()
    const told = vi.fn(() => takes)
    const end = watchLongPress(told)
    render(
      <div>
        <button type="button" onClick={pressed}>
          Record the sweep
        </button>
        <input aria-label="a field" />
      </div>,
    )
    return { told, end, key: screen.getByRole('button') }
  }
  const rest = (ms: number) => act(() => vi.advanceTimersByTime(ms))

  it('has the word explained, and does not press the key under it', () => {
    const { told, end, key } = show(true)
    fireEvent.pointerDown(key, { button: 0, clientX: 5, clientY: 5 })
    rest(700)
    expect(told).toHaveBeenCalledWith('Record the sweep')
    fireEvent.pointerUp(key)
    fireEvent.click(key, { detail: 1 })
    expect(pressed).not.toHaveBeenCalled()
    fireEvent.pointerDown(key, { button: 0 })
    fireEvent.pointerUp(key)
    fireEvent.click(key)
    expect(pressed).toHaveBeenCalledTimes(1)
    end()
  })

  it('presses the key where there is nothing to explain, and asks nothing when it is short or moves', () => {
    const { told, end, key } = show(false)
    fireEvent.pointerDown(key, { button: 0 })
    rest(700)
    fireEvent.click(key)
    expect(pressed).toHaveBeenCalledTimes(1)
    told.mockClear()
    fireEvent.pointerDown(key, { button: 0 })
    rest(300)
    fireEvent.pointerUp(key)
    rest(700)
    fireEvent.pointerDown(key, { button: 0, clientX: 0, clientY: 0 })
    fireEvent.pointerMove(key, { clientX: 30, clientY: 0 })
    rest(700)
    expect(told).not.toHaveBeenCalled()
    end()
  })

  it('leaves fields alone', () => {
    const { end } = show(true)
    expect(textUnder(screen.getByLabelText('a field'))).toBeUndefined()
    expect(
      textUnder(
        document.body.appendChild(
          Object.assign(document.createElement('p'), { textContent: 'x'.repeat(200) }),
        ),
      ),
    ).toBeUndefined()
    end()
  })
})

describe('the question mark', () => {
  it('opens the words of this page, but where it is typed', async () => {
    render(
      <>
        <main>
          <p>Sweep</p>
          <p>bore</p>
        </main>
        <input aria-label="a note" />
        <GlossaryKey />
      </>,
    )
    fireEvent.keyDown(screen.getByLabelText('a note'), { key: '?' })
    expect(screen.queryByRole('dialog')).toBeNull()
    fireEvent.keyDown(document.body, { key: '?' })
    expect(await screen.findByRole('heading', { name: 'Words of this page' })).toBeTruthy()
    expect(screen.getAllByRole('term').map(({ textContent }) => textContent)).toEqual(['sweep', 'bore'])
  })
})

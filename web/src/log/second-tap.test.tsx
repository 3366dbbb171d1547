import { fireEvent, render, screen } from '@testing-library/react'
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

// When something was recorded outlives a file of tests: the hours that pass here are those of its own modules.
vi.resetModules()
const { watchSecondTap } = await import('./second-tap.ts')
const { noteRecorded, SETTLE_MS } = await import('./settled.ts')
afterAll(() => vi.resetModules())

let end: () => void
/** Each test begins long after what the ones before it recorded. */
let hours = 0
beforeEach(() => {
  vi.useFakeTimers()
  hours += 1
  vi.advanceTimersByTime(hours * 3_600_000)
  end = watchSecondTap()
})
afterEach(() => {
  end()
  vi.useRealTimers()
})

const pressed = vi.fn()
const show = (...keys: string[]) => {
  pressed.mockClear()
  return render(
    <form
      onSubmit={(event) => {
        event.preventDefault()
        pressed('sent')
      }}
    >
      {keys.map((says) => (
        <button
          key={says}
          type="button"
          onClick={() => {
            if (says.startsWith('Record')) noteRecorded()
            pressed(says)
          }}
        >
          {says}
        </button>
      ))}
      <input aria-label="a field" />
      <textarea aria-label="lines" />
    </form>,
  )
}
const tap = (says: string, x = 100, y = 100, detail = 1) =>
  fireEvent.click(screen.getByRole('button', { name: says }), { clientX: x, clientY: y, detail })
const all = () => pressed.mock.calls.map(([says]) => says)

describe('a second tap in the place where something was recorded', () => {
  it('presses no other key within a second, and does after it', () => {
    show('Record Z', 'It agrees')
    tap('Record Z')
    tap('It agrees', 110, 95)
    expect(all()).toEqual(['Record Z'])
    vi.advanceTimersByTime(SETTLE_MS)
    tap('It agrees', 110, 95)
    expect(all()).toEqual(['Record Z', 'It agrees'])
  })

  it('presses keys elsewhere at once, and the same key again', () => {
    show('Record Z', 'Plus one')
    tap('Record Z')
    tap('Plus one', 100, 150)
    tap('Plus one', 100, 150)
    expect(all()).toEqual(['Record Z', 'Plus one', 'Plus one'])
  })

  it('presses no key that says something else by now, though it is the same one', () => {
    const { container } = show('Record Z')
    tap('Record Z')
    const key = container.querySelector('button') as HTMLButtonElement
    key.textContent = 'Record the look'
    fireEvent.click(key, { clientX: 100, clientY: 100, detail: 2 })
    expect(all()).toEqual(['Record Z'])
  })

  it('is none where something was typed between them', () => {
    show('Record X', 'Record Z')
    tap('Record X')
    fireEvent.input(screen.getByLabelText('a field'), { target: { value: '-8.1' } })
    tap('Record Z')
    expect(all()).toEqual(['Record X', 'Record Z'])
  })

  it('is nothing to keys that record nothing', () => {
    show('Next', 'Back')
    tap('Next')
    tap('Back')
    expect(all()).toEqual(['Next', 'Back'])
  })

  it('leaves the keyboard alone, whose keys have no place', () => {
    show('Record Z', 'It agrees')
    tap('Record Z', 0, 0, 0)
    tap('It agrees', 0, 0, 0)
    expect(all()).toEqual(['Record Z', 'It agrees'])
  })
})

describe('Enter that is held down', () => {
  const down = (label: string, repeat: boolean, key = 'Enter') =>
    fireEvent.keyDown(screen.getByLabelText(label), { key, repeat })
  it('goes no further than the first press, but for lines of a text and for other keys', () => {
    show()
    // fireEvent says whether the page may go on with it.
    expect(down('a field', false)).toBe(true)
    expect(down('a field', true)).toBe(false)
    expect(down('lines', true)).toBe(true)
    expect(down('a field', true, 'ArrowUp')).toBe(true)
    end()
    expect(down('a field', true)).toBe(true)
  })
})

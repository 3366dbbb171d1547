import { act, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { HandWheel } from './hand-wheel.tsx'
import { HeldKey } from './parts.tsx'
import { useClicks } from './use-clicks.ts'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

describe('the handwheel', () => {
  const clicks = vi.fn()
  const show = () => {
    clicks.mockClear()
    render(<HandWheel onClicks={clicks} />)
    const wheel = screen.getByTestId('hand-wheel')
    wheel.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 100 }) as DOMRect
    return wheel
  }
  const at = (degrees: number) => ({
    clientX: 50 + 40 * Math.cos((degrees * Math.PI) / 180),
    clientY: 50 + 40 * Math.sin((degrees * Math.PI) / 180),
    pointerId: 1,
  })
  const sum = () => clicks.mock.calls.reduce((all, [n]) => all + n, 0)

  it('clicks as it is dragged round, clockwise plus, and back as far', () => {
    const wheel = show()
    fireEvent.pointerDown(wheel, at(0))
    for (let degrees = 6; degrees <= 360; degrees += 6) fireEvent.pointerMove(wheel, at(degrees))
    expect(sum()).toBe(30)
    for (let degrees = 354; degrees >= 0; degrees -= 6) fireEvent.pointerMove(wheel, at(degrees))
    expect(sum()).toBe(0)
    fireEvent.pointerUp(wheel, at(0))
    fireEvent.pointerMove(wheel, at(90))
    expect(sum()).toBe(0)
  })

  it('goes past the place where the angle begins anew without a jump', () => {
    const wheel = show()
    fireEvent.pointerDown(wheel, at(170))
    fireEvent.pointerMove(wheel, at(-166))
    expect(sum()).toBe(2)
  })

  it('clicks once for each notch of the mouse, up plus', () => {
    const wheel = show()
    for (const deltaY of [-100, -100, 100, -240]) fireEvent.wheel(wheel, { deltaY })
    expect(clicks.mock.calls.map(([n]) => n)).toEqual([1, 1, -1, 1])
    // A touchpad scrolls by little.
    clicks.mockClear()
    for (let n = 0; n < 10; n++) fireEvent.wheel(wheel, { deltaY: 12 })
    expect(sum()).toBe(-2)
  })
})

const sent = vi.fn()
function Wheel({ axis }: { axis: string }) {
  const click = useClicks(axis, (n) => sent(axis, n))
  return (
    <button type="button" onClick={() => click(1)}>
      click
    </button>
  )
}

describe('clicks that are sent', () => {
  const press = (times = 1) => {
    for (let n = 0; n < times; n++) fireEvent.click(screen.getByRole('button'))
  }
  const wait = (ms: number) => act(() => vi.advanceTimersByTime(ms))

  it('go out at once, then together, and all of them', () => {
    sent.mockClear()
    render(<Wheel axis="X" />)
    press(5)
    expect(sent.mock.calls).toEqual([['X', 1]])
    wait(100)
    expect(sent.mock.calls).toEqual([
      ['X', 1],
      ['X', 4],
    ])
    wait(500)
    press()
    expect(sent).toHaveBeenLastCalledWith('X', 1)
    press(130)
    wait(1000)
    expect(sent.mock.calls.reduce((all, [, n]) => all + n, 0)).toBe(136)
    for (const [, n] of sent.mock.calls) expect(n).toBeLessThanOrEqual(50)
  })

  it('of one axis never go to another', () => {
    sent.mockClear()
    const { rerender } = render(<Wheel axis="X" />)
    press(3)
    rerender(<Wheel axis="Y" />)
    press(2)
    wait(1000)
    const of = (axis: string) =>
      sent.mock.calls.filter(([to]) => to === axis).reduce((all, [, n]) => all + n, 0)
    expect([of('X'), of('Y')]).toEqual([3, 2])
  })
})

describe('a key that is held', () => {
  const pressed = vi.fn()
  const show = () => {
    pressed.mockClear()
    render(
      <HeldKey name="X plus 1 click" onPress={pressed}>
        +1
      </HeldKey>,
    )
    return screen.getByRole('button')
  }
  it('goes on while it is held, and its end is no press of its own', () => {
    const key = show()
    fireEvent.pointerDown(key)
    act(() => vi.advanceTimersByTime(650))
    expect(pressed).toHaveBeenCalledTimes(3)
    fireEvent.pointerUp(key)
    fireEvent.click(key)
    act(() => vi.advanceTimersByTime(1000))
    expect(pressed).toHaveBeenCalledTimes(3)
  })
  it('presses once when it is tapped, and by the keyboard', () => {
    const key = show()
    fireEvent.pointerDown(key)
    fireEvent.pointerUp(key)
    fireEvent.click(key)
    expect(pressed).toHaveBeenCalledTimes(1)
    fireEvent.click(key)
    expect(pressed).toHaveBeenCalledTimes(2)
  })
  it('stops where the finger leaves it', () => {
    const key = show()
    fireEvent.pointerDown(key)
    fireEvent.pointerLeave(key)
    act(() => vi.advanceTimersByTime(1000))
    expect(pressed).not.toHaveBeenCalled()
  })
})

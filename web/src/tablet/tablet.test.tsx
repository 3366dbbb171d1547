import { act, render, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { choose, chosen } from './choices.ts'
import { keepGround } from './ground.ts'
import { useRem } from './rem.ts'
import { useStayAwake } from './stay-awake.ts'
import { tell } from './tell.ts'

afterEach(() => vi.unstubAllGlobals())

describe('what is set at a tablet', () => {
  it('is what stands first until somebody says otherwise, and nothing else is taken', () => {
    expect([chosen('ground'), chosen('awake'), chosen('sound'), chosen('buzz')]).toEqual([
      'day',
      'on',
      'off',
      'off',
    ])
    choose('ground', 'night')
    expect(chosen('ground')).toBe('night')
    localStorage.setItem('dogleg.ground', 'purple')
    expect(chosen('ground')).toBe('day')
  })

  it('is the ground by night or day, and as the tablet has it where that was chosen', () => {
    const system = new EventTarget() as EventTarget & { matches: boolean }
    system.matches = false
    vi.stubGlobal('matchMedia', () => system)
    const isNight = () => document.documentElement.classList.contains('night')
    keepGround()
    expect(isNight()).toBe(false)
    choose('ground', 'night')
    expect(isNight()).toBe(true)
    choose('ground', 'system')
    expect(isNight()).toBe(false)
    system.matches = true
    system.dispatchEvent(new Event('change'))
    expect(isNight()).toBe(true)
    choose('ground', 'day')
    expect(isNight()).toBe(false)
  })
})

describe('words and keys', () => {
  it('are large where that was chosen, and what asks for px is told how many 1rem is', () => {
    vi.stubGlobal('matchMedia', () => Object.assign(new EventTarget(), { matches: false }))
    const isLarge = () => document.documentElement.classList.contains('large')
    keepGround()
    const { result } = renderHook(() => useRem())
    expect([isLarge(), result.current]).toEqual([false, 16])
    act(() => choose('size', 'large'))
    expect([isLarge(), result.current]).toEqual([true, 20])
    act(() => choose('size', 'usual'))
    expect([isLarge(), result.current]).toEqual([false, 16])
  })
})

describe('a tone and a buzz', () => {
  const played: number[] = []
  beforeEach(() => {
    played.length = 0
    vi.stubGlobal(
      'AudioContext',
      class {
        currentTime = 0
        destination = {}
        createOscillator() {
          const tone = {
            frequency: { value: 0 },
            connect: (to: unknown) => to,
            start: () => played.push(tone.frequency.value),
            stop: () => undefined,
          }
          return tone
        }
        createGain = () => ({ gain: { value: 0 }, connect: () => ({}) })
      },
    )
  })

  it('come only where they are wanted: up for taken, down for refused', () => {
    const vibrate = vi.fn()
    vi.stubGlobal('navigator', Object.assign(Object.create(navigator), { vibrate }))
    tell('taken')
    expect([played, vibrate.mock.calls]).toEqual([[], []])
    choose('sound', 'on')
    choose('buzz', 'on')
    tell('taken')
    tell('refused')
    const [low, high, first, last] = played as [number, number, number, number]
    expect([high > low, last < first]).toEqual([true, true])
    expect(vibrate).toHaveBeenCalledTimes(2)
  })

  it('that a tablet cannot make are silent, and take nothing down', () => {
    choose('sound', 'on')
    vi.stubGlobal('AudioContext', undefined)
    vi.resetModules()
    expect(() => tell('refused')).not.toThrow()
  })
})

function Awake() {
  useStayAwake()
  return null
}

describe('the screen', () => {
  it('stays on while a task is shown, is asked for again when the page is looked at, and is let go after it', async () => {
    const locks: { released: boolean; release: () => Promise<void> }[] = []
    const request = vi.fn(async () => {
      const lock = {
        released: false,
        release: async () => {
          lock.released = true
        },
      }
      locks.push(lock)
      return lock
    })
    vi.stubGlobal('navigator', Object.assign(Object.create(navigator), { wakeLock: { request } }))
    const { unmount } = render(<Awake />)
    await vi.waitFor(() => expect(locks).toHaveLength(1))
    document.dispatchEvent(new Event('visibilitychange'))
    expect(request).toHaveBeenCalledTimes(1)
    // The browser let go of it by itself.
    if (locks[0]) locks[0].released = true
    document.dispatchEvent(new Event('visibilitychange'))
    await vi.waitFor(() => expect(locks).toHaveLength(2))
    unmount()
    await vi.waitFor(() => expect(locks[1]?.released).toBe(true))
    choose('awake', 'off')
    render(<Awake />)
    expect(request).toHaveBeenCalledTimes(2)
  })
})

import { useEffect, useRef } from 'react'

/** Clicks are sent together this often: a hand on the wheel makes more of them than a server is asked for. */
const TOGETHER_MS = 90
/** Most clicks that are sent at once. */
const MOST = 50

/**
 * Gathers the clicks of a wheel: the first goes out at once, those that follow soon go together, none is lost. `of` is what they turn:
 * clicks of one axis never go to another.
 */
export function useClicks(of: string, send: (clicks: number) => void): (clicks: number) => void {
  const state = useRef({ of, send, waiting: 0, timer: 0 })
  useEffect(() => {
    const { current } = state
    return () => window.clearTimeout(current.timer)
  }, [])
  const flush = () => {
    const { current } = state
    window.clearTimeout(current.timer)
    current.timer = 0
    if (current.waiting === 0) return
    const clicks = Math.max(-MOST, Math.min(MOST, current.waiting))
    current.waiting -= clicks
    current.send(clicks)
    current.timer = window.setTimeout(flush, TOGETHER_MS)
  }
  return (clicks) => {
    const { current } = state
    while (current.of !== of && current.waiting !== 0) flush()
    current.of = of
    current.send = send
    current.waiting += clicks
    if (current.timer === 0) flush()
  }
}

/** From when a key that is held goes on by itself, and how quickly. */
const HOLD_MS = 400
const REPEAT_MS = 100

/** What a key needs so that it goes on while it is held down; its click is that of a short press. */
export function useHeld(onPress: () => void) {
  const state = useRef({ timer: 0, went: false, onPress })
  state.current.onPress = onPress
  const end = () => {
    window.clearTimeout(state.current.timer)
    state.current.timer = 0
  }
  useEffect(() => {
    const { current } = state
    return () => window.clearTimeout(current.timer)
  }, [])
  const again = () => {
    const { current } = state
    current.went = true
    current.onPress()
    current.timer = window.setTimeout(again, REPEAT_MS)
  }
  return {
    onPointerDown: () => {
      end()
      state.current.went = false
      state.current.timer = window.setTimeout(again, HOLD_MS)
    },
    onPointerUp: end,
    onPointerLeave: end,
    onPointerCancel: end,
    onClick: () => {
      // The end of a long press is no press of its own.
      if (!state.current.went) state.current.onPress()
      state.current.went = false
    },
  }
}

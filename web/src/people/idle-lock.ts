import { sessionNow } from '../log/session.ts'
import { storage } from '../log/storage.ts'
import { leave } from './sign.ts'

const KEY = 'dogleg.touched'
/** How often it is looked at, in ms. */
const LOOK_MS = 5000
const TOUCHES = ['pointerdown', 'keydown', 'wheel'] as const

/** How long nobody has touched this tablet, on any page of it, in ms. */
const untouched = () => Math.max(0, Date.now() - Number(storage.get(KEY) ?? Date.now()))

/** Locks the tablet once nobody has touched it for as long as was set; returns how to end that. */
export function lockWhenIdle(): () => void {
  let noted = 0
  const touch = () => {
    if (Date.now() - noted < LOOK_MS && Date.now() >= noted) return
    noted = Date.now()
    storage.set(KEY, String(noted))
  }
  const look = () => {
    const { tablet, person } = sessionNow()
    if (!tablet || !person || tablet.locksAfter === 0) return
    if (untouched() > tablet.locksAfter * 60_000) void leave()
  }
  // What was left unlocked and is opened again much later is locked before anybody reads it.
  look()
  touch()
  for (const event of TOUCHES) window.addEventListener(event, touch, { capture: true, passive: true })
  const timer = setInterval(look, LOOK_MS)
  document.addEventListener('visibilitychange', look)
  return () => {
    for (const event of TOUCHES) window.removeEventListener(event, touch, { capture: true })
    clearInterval(timer)
    document.removeEventListener('visibilitychange', look)
  }
}

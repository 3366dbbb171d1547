import { Search } from 'lucide-react'
import { Suspense, useEffect } from 'react'
import { NavLink, Outlet } from 'react-router'
import { GlossaryKey } from '../glossary/glossary-key.tsx'
import { useKeypadField, watchKeypad } from '../keypad/keypad-field.ts'
import { useReachable } from '../log/api.ts'
import { forgetKnown } from '../log/known-before.ts'
import { OperatorButton, OperatorGate } from '../log/operator-gate.tsx'
import { useIsDemo } from '../log/place.ts'
import { useReferenceWatch } from '../log/rows.ts'
import { watchSecondTap } from '../log/second-tap.ts'
import { useSession } from '../log/session.ts'
import { lockWhenIdle } from '../people/idle-lock.ts'
import { askSession } from '../people/sign.ts'
import { forgetTyped } from '../press/typed-before.ts'
import { usePressedValue, watchValues } from '../press/value-press.ts'
import { watchDecimalComma } from '../ui/decimal-comma.ts'
import { lazyPart, NotHereYet, whenIdle } from '../ui/lazy-part.tsx'
import { BackupAge } from './backup-age.tsx'
import { Delivery } from './delivery.tsx'
import { LossAlarm } from './loss-alarm.tsx'
import { OtherPageAlarm } from './other-page-alarm.tsx'

const linkLook = ({ isActive }: { isActive: boolean }) =>
  `inline-flex min-h-11 items-center px-1 font-semibold lg:px-3 ${isActive ? 'underline decoration-2 underline-offset-8' : 'hover:bg-stock-shade'}`

const loadKeypad = async () => (await import('../keypad/keypad.tsx')).Keypad
const LazyKeypad = lazyPart(loadKeypad, () => null)

/** The keypad, once a field asks for it. */
function KeypadWhenAsked() {
  const field = useKeypadField()
  useEffect(() => watchKeypad(), [])
  useEffect(() => whenIdle(loadKeypad), [])
  return field ? (
    <Suspense fallback={null}>
      <LazyKeypad />
    </Suspense>
  ) : null
}

const loadValueMenu = async () => (await import('../press/value-menu.tsx')).ValueMenu
const LazyValueMenu = lazyPart(loadValueMenu, () => null)

/** What can be done with the value that a finger rests on. */
function ValueMenuWhenAsked() {
  const value = usePressedValue()
  useEffect(() => watchValues(), [])
  useEffect(() => whenIdle(loadValueMenu), [])
  return value ? (
    <Suspense fallback={null}>
      <LazyValueMenu key={value.text} value={value} />
    </Suspense>
  ) : null
}

const loadLock = async () => (await import('../people/lock-screen.tsx')).LockScreen
const LockScreen = lazyPart(loadLock, NotHereYet)

/** Keeps to who is at this tablet: asked when it is opened, looked at anew and the server is back; locked when nobody touches it. */
function AtTablet() {
  const { signs, tablet, person } = useSession()
  const reachable = useReachable()
  // Where nobody signs in there is nothing to ask: a server that wants it from now on says so by itself.
  useEffect(() => {
    if (!signs) return
    if (reachable) void askSession()
    const looked = () => document.visibilityState === 'visible' && void askSession()
    document.addEventListener('visibilitychange', looked)
    return () => document.removeEventListener('visibilitychange', looked)
  }, [signs, reachable])
  useEffect(() => (signs ? whenIdle(loadLock) : undefined), [signs])
  useEffect(() => (signs ? lockWhenIdle() : undefined), [signs])
  const isOut = signs && tablet === undefined
  useEffect(() => {
    if (!isOut) return
    forgetTyped()
    void forgetKnown()
  }, [isOut])
  if (!signs || (tablet && person)) return null
  return (
    <Suspense fallback={<div className="fixed inset-0 z-60 bg-stock" />}>
      <LockScreen />
    </Suspense>
  )
}

export function Shell() {
  const demo = useIsDemo()
  useReferenceWatch()
  useEffect(() => watchDecimalComma(), [])
  useEffect(() => watchSecondTap(), [])
  return (
    <OperatorGate>
      <div className="flex min-h-dvh flex-col">
        <header
          className={`print:hidden ${demo ? 'bg-stock-shade' : ''} flex min-h-13 flex-wrap items-center gap-x-2 border-b border-rule px-4`}
        >
          <NavLink to="/" className="mr-2 flex min-h-11 items-center gap-2 text-xl font-semibold">
            <img src="/icon.svg" alt="" width={26} height={26} />
            <span className={demo ? 'max-lg:sr-only' : ''}>Dogleg</span>
            {demo && (
              <span className="rounded-sm bg-ink px-1.5 text-base leading-6 font-semibold text-stock">
                demo
              </span>
            )}
          </NavLink>
          <nav aria-label="Main" className="flex">
            <NavLink to="/" end className={linkLook}>
              Shop
            </NavLink>
            <NavLink to="/machines" className={linkLook}>
              Machines
            </NavLink>
            <NavLink to="/vises" className={linkLook}>
              Vises
            </NavLink>
            <NavLink to="/collets" className={linkLook}>
              Collets
            </NavLink>
            <NavLink to="/tools" className={linkLook}>
              Tools
            </NavLink>
            <NavLink to="/materials" className={linkLook}>
              Materials
            </NavLink>
            <NavLink to="/profiles" className={linkLook}>
              Profiles
            </NavLink>
            <NavLink to="/practice" className={linkLook}>
              Practice
            </NavLink>
          </nav>
          <div className="ml-auto flex flex-1 items-center justify-end gap-0.5 lg:gap-2">
            <Delivery />
            <NavLink
              to="/search"
              aria-label="Find a setup"
              className="inline-flex min-h-11 min-w-11 items-center justify-center hover:bg-stock-shade"
            >
              <Search aria-hidden size={24} />
            </NavLink>
            <GlossaryKey />
            <OperatorButton />
          </div>
        </header>
        <AtTablet />
        <KeypadWhenAsked />
        <ValueMenuWhenAsked />
        <main className="flex flex-1 flex-col px-4 print:px-0">
          <OtherPageAlarm />
          <LossAlarm />
          <Outlet />
        </main>
        <footer className="print:hidden flex items-center gap-x-4 border-t border-rule px-4 text-sm text-ink-soft">
          <p className="flex-1 py-1">
            The machine builder’s manual, the shop’s rules and local safety regulations come first. A
            qualified person must prove every program.
          </p>
          <BackupAge />
        </footer>
      </div>
    </OperatorGate>
  )
}

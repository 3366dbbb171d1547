import { Delete, LogIn } from 'lucide-react'
import { type ReactNode, useId, useRef, useState } from 'react'
import { useReachable } from '../log/api.ts'
import { useSession } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { recentPeople } from './recent.ts'
import { signIn } from './sign.ts'

const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const
const LONGEST_PIN = 8

interface SignInFormProps {
  /** Initials to begin with: whoever was here last. */
  begins?: string
  /** Somebody is signed in now. */
  onDone?: () => void
}

/** Who is at this tablet, and their PIN: by the keys on the screen or by a keyboard. */
export function SignInForm({ begins = '', onDone }: SignInFormProps) {
  const [by, setBy] = useState(begins)
  const [pin, setPin] = useState('')
  const [wrong, setWrong] = useState<string>()
  const [busy, setBusy] = useState(false)
  const reachable = useReachable()
  const field = useRef<HTMLInputElement>(null)
  const ids = { by: useId(), pin: useId(), told: useId() }
  const here = useSession().person?.initials
  const recent = recentPeople().filter((each) => each !== here)
  const submit = async () => {
    if (busy) return
    if (by.trim() === '') return setWrong('Say who you are: your initials.')
    if (pin === '') return setWrong('Type your PIN.')
    setBusy(true)
    setWrong(undefined)
    try {
      await signIn(by.trim(), pin)
      onDone?.()
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error))
    } finally {
      setPin('')
      setBusy(false)
      field.current?.focus()
    }
  }
  const add = (digit: string) => setPin((typed) => (typed + digit).slice(0, LONGEST_PIN))
  return (
    <form
      className="grid gap-x-8 gap-y-3 sm:grid-cols-[1fr_17rem]"
      onSubmit={(event) => {
        event.preventDefault()
        void submit()
      }}
    >
      <div className="flex flex-col gap-3">
        {recent.length > 0 && (
          <fieldset>
            <legend className="font-semibold">At this tablet before</legend>
            <div className="mt-1 flex flex-wrap gap-2">
              {recent.map((each) => (
                <button
                  key={each}
                  type="button"
                  aria-pressed={each === by}
                  onClick={() => {
                    setBy(each)
                    setPin('')
                    field.current?.focus()
                  }}
                  className={`min-h-16 min-w-20 rounded-sm border px-4 text-2xl font-semibold ${each === by ? 'border-ink bg-ink text-stock' : 'border-ink-soft hover:bg-stock-shade'}`}
                >
                  {each}
                </button>
              ))}
            </div>
          </fieldset>
        )}
        <div>
          <label htmlFor={ids.by} className="font-semibold">
            {recent.length > 0 ? 'Or somebody else: initials' : 'Your initials'}
          </label>
          <input
            id={ids.by}
            value={by}
            maxLength={8}
            onChange={({ target }) => setBy(target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return
              event.preventDefault()
              field.current?.focus()
            }}
            autoComplete="off"
            autoCorrect="off"
            autoCapitalize="characters"
            spellCheck={false}
            className="mt-0.5 block h-14 w-full rounded-sm border border-ink-soft bg-white/60 px-3 text-2xl"
          />
        </div>
        <div>
          <label htmlFor={ids.pin} className="font-semibold">
            PIN
          </label>
          <input
            id={ids.pin}
            ref={field}
            type="password"
            inputMode="none"
            autoComplete="off"
            value={pin}
            maxLength={LONGEST_PIN}
            onChange={({ target }) => setPin(target.value.replace(/\D/g, ''))}
            aria-invalid={wrong !== undefined}
            aria-describedby={ids.told}
            className={`mt-1.5 block h-14 w-full rounded-sm bg-white/60 px-3 text-3xl tracking-widest ${wrong ? 'border-3 border-ink' : 'border border-ink-soft'}`}
          />
          <p id={ids.told} role="alert" className="mt-2 min-h-6 font-semibold">
            {wrong}
          </p>
        </div>
        {!reachable && (
          <p role="status">
            The server does not answer. You can go on: your PIN is held against it when it is back, and what
            you record stays on this tablet until then.
          </p>
        )}
      </div>
      <fieldset className="grid grid-cols-3 gap-2 self-start" aria-label="Digits of the PIN">
        {DIGITS.map((digit) => (
          <Key key={digit} onPress={() => add(digit)}>
            {digit}
          </Key>
        ))}
        <Key label="Take the last digit back" onPress={() => setPin((typed) => typed.slice(0, -1))}>
          <Delete aria-hidden size={28} />
        </Key>
        <Key onPress={() => add('0')}>0</Key>
        <Button
          type="submit"
          look="primary"
          className="min-h-16 px-1 text-lg"
          aria-label="Sign in"
          disabled={busy}
        >
          <LogIn aria-hidden size={28} />
        </Button>
      </fieldset>
    </form>
  )
}

const Key = ({ children, label, onPress }: { children: ReactNode; label?: string; onPress: () => void }) => (
  <button
    type="button"
    aria-label={label}
    onClick={onPress}
    className="inline-flex min-h-16 items-center justify-center rounded-sm border border-ink-soft text-3xl font-semibold select-none hover:bg-stock-shade"
  >
    {children}
  </button>
)

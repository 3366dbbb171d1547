import { LockOpen } from 'lucide-react'
import { useState } from 'react'
import { operator } from '../log/operator.ts'
import { useWaiting } from '../log/outbox.ts'
import { useSession } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { OverAll } from './over-all.tsx'
import { takeScanned } from './scanned.ts'
import { letIn, wronglySignedIn } from './sign.ts'
import { SignInForm } from './sign-in-form.tsx'

/** Over everything while nobody is at this tablet, or it is not let in. What was typed stays under it. */
export function LockScreen() {
  const { tablet } = useSession()
  return tablet ? <SignInScreen name={tablet.name} /> : <LetInScreen />
}

function SignInScreen({ name }: { name: string }) {
  const wrong = wronglySignedIn()
  return (
    <OverAll
      title="Who is at this tablet?"
      says={operator() === '' ? name : `${name}. What was typed on it is still there.`}
    >
      {wrong !== undefined && (
        <p role="alert" className="mb-3 border-2 border-ink p-3 font-semibold">
          The PIN that was typed for {wrong} while the server was away is not the right one. What was recorded
          then waits on this tablet until {wrong} signs in.
        </p>
      )}
      <WaitingFor />
      <SignInForm begins={operator()} />
    </OverAll>
  )
}

/** Entries on this tablet that nobody has signed yet. */
function WaitingFor() {
  const waiting = useWaiting().filter(({ sitting, refused }) => sitting === undefined && !refused)
  const people = [...new Set(waiting.map(({ entry }) => entry.by))]
  if (people.length === 0) return null
  return (
    <p className="mb-3">
      {people
        .map((by) => {
          const count = waiting.filter(({ entry }) => entry.by === by).length
          return `${count} ${count === 1 ? 'entry waits' : 'entries wait'} here until ${by} signs in.`
        })
        .join(' ')}
    </p>
  )
}

function LetInScreen() {
  const [code, setCode] = useState(takeScanned)
  const [name, setName] = useState('')
  const [wrong, setWrong] = useState<string>()
  const [busy, setBusy] = useState(false)
  const waiting = useWaiting().length
  const submit = async () => {
    setBusy(true)
    setWrong(undefined)
    try {
      await letIn(code.replace(/\s/g, ''), name.trim())
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <OverAll
      title="This tablet is not let in yet"
      says="A lead of the shop makes a code for it, on a tablet that is let in: This shop, then People and tablets. For the first tablet: npm run people tablet, at the server’s own keyboard."
    >
      {waiting > 0 && (
        <p className="mb-3 border-2 border-ink p-3 font-semibold">
          {waiting} {waiting === 1 ? 'entry waits' : 'entries wait'} on this tablet. Once it is let in again,
          whoever made them signs in, and they go out.
        </p>
      )}
      <form
        className="max-w-xl"
        onSubmit={(event) => {
          event.preventDefault()
          void submit()
        }}
      >
        <TextEntry
          label="The code, six digits"
          value={code}
          onChange={setCode}
          maxLength={7}
          wrong={wrong}
          hint="Good for ten minutes, for one tablet."
        />
        <TextEntry
          words
          label="What this tablet is called"
          value={name}
          onChange={setName}
          maxLength={40}
          hint="After the machine that it hangs at, such as Mill 2."
        />
        <Button
          type="submit"
          look="primary"
          className="mt-2 min-h-16 w-full text-xl"
          disabled={busy || code.trim() === '' || name.trim() === ''}
        >
          <LockOpen aria-hidden size={24} /> Let it in
        </Button>
      </form>
    </OverAll>
  )
}

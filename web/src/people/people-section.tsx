import { MAY, type May, type Person, SAYS_MAY } from '@dogleg/core/people'
import { UserPlus } from 'lucide-react'
import { useState } from 'react'
import { newId } from '../log/clock.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { PinField } from './pin-field.tsx'
import { usePeople } from './use-people.ts'

/** The people of the shop: what they may do, and their PINs. */
export function PeopleSection() {
  const { people, error } = usePeople()
  const [open, setOpen] = useState<Person | 'new'>()
  const here = people?.filter(({ gone }) => !gone) ?? []
  const gone = people?.filter((each) => each.gone) ?? []
  return (
    <section aria-labelledby="people" className="space-y-3">
      <h2 id="people" className="text-lg font-semibold">
        People
      </h2>
      {error && (
        <p role="alert" className="border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      {people?.length === 0 && <p>Nobody yet. The first one leads the shop.</p>}
      <ul className="border-t border-rule">
        {here.map((person) => (
          <Line key={person.id} person={person} onOpen={() => setOpen(person)} />
        ))}
      </ul>
      <Button look="primary" className="min-h-14 text-lg" onClick={() => setOpen('new')}>
        <UserPlus aria-hidden size={22} /> Add somebody
      </Button>
      {gone.length > 0 && (
        <details>
          <summary className="min-h-11 content-center font-semibold">
            {gone.length} {gone.length === 1 ? 'has' : 'have'} left
          </summary>
          <ul className="border-t border-rule">
            {gone.map((person) => (
              <Line key={person.id} person={person} onOpen={() => setOpen(person)} />
            ))}
          </ul>
        </details>
      )}
      {open !== undefined && (
        <PersonDialog
          person={open === 'new' ? undefined : open}
          first={people?.length === 0}
          onClose={() => setOpen(undefined)}
        />
      )}
    </section>
  )
}

const Line = ({ person, onOpen }: { person: Person; onOpen: () => void }) => (
  <li className="flex min-h-14 items-center gap-4 border-b border-rule">
    <span className="w-20 text-2xl font-semibold">{person.initials}</span>
    <span className="flex-1">
      {person.name}
      <span className="block text-sm text-ink-soft">
        {person.gone ? 'has left' : person.may}
        {!person.pin && !person.gone && ': has no PIN, and cannot sign in'}
      </span>
    </span>
    <Button onClick={onOpen} aria-label={`Change ${person.initials}`}>
      Change
    </Button>
  </li>
)

interface PersonDialogProps {
  person: Person | undefined
  first: boolean
  onClose: () => void
}

function PersonDialog({ person, first, onClose }: PersonDialogProps) {
  const [initials, setInitials] = useState('')
  const [name, setName] = useState(person?.name ?? '')
  const [may, setMay] = useState<May>(person?.may ?? (first ? 'lead' : 'operator'))
  const [pin, setPin] = useState('')
  const { add, save } = usePeople()
  const { error, isPending } = person ? save : add
  const done = { onSuccess: onClose }
  const submit = (gone: boolean) => {
    const now = { name: name.trim(), may }
    if (person) save.mutate([person.id, { ...now, gone, ...(pin === '' ? {} : { pin }) }], done)
    else add.mutate({ id: newId(), initials: initials.trim(), ...now, pin }, done)
  }
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={person ? `${person.initials}, ${person.name}` : 'Who is it?'}
      says={
        person
          ? 'Initials stay: the logbook names people by them.'
          : 'The logbook names people by their initials; nobody else ever has the same here.'
      }
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          submit(false)
        }}
      >
        <div className="grid gap-x-4 sm:grid-cols-[8rem_1fr]">
          {!person && (
            <TextEntry words label="Initials" value={initials} onChange={setInitials} maxLength={8} />
          )}
          <div className={person ? 'col-span-full' : ''}>
            <TextEntry words label="Name" value={name} onChange={setName} maxLength={60} />
          </div>
        </div>
        <fieldset>
          <legend className="font-semibold">They are</legend>
          {MAY.toReversed().map((each) => (
            <label key={each} className="flex min-h-12 items-center gap-3">
              <input
                type="radio"
                name="may"
                className="size-6 shrink-0 accent-ink"
                checked={may === each}
                onChange={() => setMay(each)}
              />
              <span>
                <span className="font-semibold">{each}</span>: {SAYS_MAY[each]}
              </span>
            </label>
          ))}
        </fieldset>
        <div className="mt-2">
          <PinField
            label={person ? 'New PIN, 4 to 8 digits; empty where it stays' : 'PIN, 4 to 8 digits'}
            value={pin}
            onChange={setPin}
          />
        </div>
        <p className="min-h-6 text-sm text-ink-soft">
          {person ? 'With a new PIN they leave every other tablet.' : 'They can change it themselves.'}
        </p>
        {error && (
          <p role="alert" className="mb-2 border-2 border-ink p-2 font-semibold">
            {error.message}
          </p>
        )}
        <div className="flex gap-3">
          <Button type="submit" look="primary" className="min-h-14 flex-1 text-lg" disabled={isPending}>
            {person?.gone ? 'They are back' : person ? 'Save' : 'Add'}
          </Button>
          {person && !person.gone && (
            <Button className="min-h-14" disabled={isPending} onClick={() => submit(true)}>
              {person.initials} has left
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  )
}

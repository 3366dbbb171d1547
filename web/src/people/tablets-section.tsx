import type { Tablet } from '@dogleg/core/people'
import { useMutation } from '@tanstack/react-query'
import { QrCode } from 'lucide-react'
import { QRCodeSVG } from 'qrcode.react'
import { useState } from 'react'
import { api } from '../log/api.ts'
import { useReference } from '../log/rows.ts'
import { useSession } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { Select } from '../ui/select.tsx'
import { When } from '../ui/when.tsx'
import { useTablets } from './use-people.ts'

const LOCKS = [
  { minutes: 2, says: 'after 2 minutes' },
  { minutes: 5, says: 'after 5 minutes' },
  { minutes: 15, says: 'after 15 minutes' },
  { minutes: 60, says: 'after an hour' },
  { minutes: 0, says: 'never by itself' },
] as const

/** The tablets that are let in: where they hang, who is at them, and out at once. */
export function TabletsSection() {
  const { tablets, error } = useTablets(true)
  const own = useSession().tablet?.id
  const code = useMutation({ networkMode: 'always', mutationFn: api.newCode })
  const [open, setOpen] = useState<Tablet>()
  const here = tablets?.filter(({ out }) => !out) ?? []
  const problem = error ?? code.error
  return (
    <section aria-labelledby="tablets" className="space-y-3">
      <h2 id="tablets" className="text-lg font-semibold">
        Tablets
      </h2>
      {problem && (
        <p role="alert" className="border-2 border-ink p-3 font-semibold">
          {problem.message}
        </p>
      )}
      <ul className="border-t border-rule">
        {here.map((tablet) => (
          <li key={tablet.id} className="flex min-h-14 items-center gap-4 border-b border-rule">
            <span className="flex-1">
              <span className="text-xl font-semibold">{tablet.name}</span>
              {tablet.id === own && ' (this one)'}
              <span className="block text-sm text-ink-soft">
                {tablet.person === undefined ? 'nobody at it' : `${tablet.person} is at it`}
                {tablet.heard !== undefined && (
                  <>
                    , heard <When at={tablet.heard} />
                  </>
                )}
              </span>
            </span>
            <Button onClick={() => setOpen(tablet)} aria-label={`Change ${tablet.name}`}>
              Change
            </Button>
          </li>
        ))}
      </ul>
      <Button
        look="primary"
        className="min-h-14 text-lg"
        disabled={code.isPending}
        onClick={() => code.mutate()}
      >
        <QrCode aria-hidden size={22} /> Let a tablet in
      </Button>
      {code.data && <CodeDialog {...code.data} onClose={code.reset} />}
      {open && <TabletDialog tablet={open} onClose={() => setOpen(undefined)} />}
    </section>
  )
}

interface CodeDialogProps {
  code: string
  until: string
  addresses: readonly string[]
  plain?: string
  onClose: () => void
}

function CodeDialog({ code, until, addresses, plain, onClose }: CodeDialogProps) {
  const all = addresses.length > 0 ? addresses : [location.origin]
  const [at, setAt] = useState(all.find((each) => each === location.origin) ?? all[0] ?? location.origin)
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Let a tablet in"
      says="On the tablet: scan this with its camera, or open the address and type the code."
    >
      <div className="grid items-center gap-6 sm:grid-cols-[auto_1fr]">
        <div className="border border-rule bg-white p-3">
          <QRCodeSVG value={`${at}/let-in#${code}`} size={208} title={`${at}/let-in#${code}`} />
        </div>
        <div className="space-y-2">
          <p className="digits text-5xl font-semibold whitespace-nowrap">
            {code.slice(0, 3)} {code.slice(3)}
          </p>
          <p>
            Good until <When at={until} />, for one tablet.
          </p>
          {all.length > 1 ? (
            <label className="block">
              The address that the tablet opens
              <Select value={at} onChange={({ target }) => setAt(target.value)} className="mt-0.5 w-full">
                {all.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </Select>
            </label>
          ) : (
            <p className="font-mono break-all">{at}</p>
          )}
          {plain !== undefined && (
            <p>
              One that was never here opens <span className="font-mono break-all">{plain}</span> first: it
              says how the tablet comes to trust this shop.
            </p>
          )}
        </div>
      </div>
    </Dialog>
  )
}

function TabletDialog({ tablet, onClose }: { tablet: Tablet; onClose: () => void }) {
  const [name, setName] = useState(tablet.name)
  const [machine, setMachine] = useState(tablet.machine ?? '')
  const [locksAfter, setLocksAfter] = useState(tablet.locksAfter)
  const { save } = useTablets(false)
  const { reference } = useReference()
  const submit = (out: boolean) => {
    const now = { name: name.trim(), locksAfter, out, ...(machine === '' ? {} : { machine }) }
    save.mutate([tablet.id, now], { onSuccess: onClose })
  }
  const known = LOCKS.some(({ minutes }) => minutes === locksAfter)
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={tablet.name}
      says="Entries that it sends say what it is called."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          submit(false)
        }}
      >
        <TextEntry words label="What it is called" value={name} onChange={setName} maxLength={40} />
        <label className="mt-1 block font-semibold">
          It hangs at, and opens on
          <Select
            value={machine}
            onChange={({ target }) => setMachine(target.value)}
            className="mt-0.5 w-full"
          >
            <option value="">no machine: it opens on the shop</option>
            {reference?.machines.map(({ id, name: called }) => (
              <option key={id} value={id}>
                {called}
              </option>
            ))}
          </Select>
        </label>
        <label className="mt-3 block font-semibold">
          It locks where nobody touches it
          <Select
            value={String(locksAfter)}
            onChange={({ target }) => setLocksAfter(Number(target.value))}
            className="mt-0.5 w-full"
          >
            {!known && <option value={locksAfter}>after {locksAfter} minutes</option>}
            {LOCKS.map(({ minutes, says }) => (
              <option key={minutes} value={minutes}>
                {says}
              </option>
            ))}
          </Select>
        </label>
        {save.error && (
          <p role="alert" className="mt-2 border-2 border-ink p-2 font-semibold">
            {save.error.message}
          </p>
        )}
        <div className="mt-4 flex gap-3">
          <Button type="submit" look="primary" className="min-h-14 flex-1 text-lg" disabled={save.isPending}>
            Save
          </Button>
          <Button className="min-h-14" disabled={save.isPending} onClick={() => submit(true)}>
            Shut it out at once
          </Button>
        </div>
        <p className="mt-2 text-sm text-ink-soft">
          A tablet that is shut out shows and sends nothing more until it is let in anew. What waits on it
          stays on it.
        </p>
      </form>
    </Dialog>
  )
}

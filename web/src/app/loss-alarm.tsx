import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { type GivenBack, giveBack, heldEntries } from '../log/give-back.ts'
import { acceptLoss, useLoss } from '../log/place.ts'
import { useLeads } from '../log/session.ts'
import { Button } from '../ui/button.tsx'

const entries = (n: number) => `${n} ${n === 1 ? 'entry' : 'entries'}`

/** Told at once to everybody whose tablet has seen more of the logbook than the server has now. */
export function LossAlarm() {
  const loss = useLoss()
  const leads = useLeads()
  const client = useQueryClient()
  const [given, setGiven] = useState<GivenBack>()
  const [told, setTold] = useState<string>()
  const [busy, setBusy] = useState(false)
  if (!loss) return null
  const { seen, has } = loss
  const held = heldEntries(client)
  const back = async () => {
    setBusy(true)
    setTold(undefined)
    try {
      setGiven(await giveBack(held))
      await client.invalidateQueries()
    } catch (error) {
      setTold(error instanceof Error ? error.message : String(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <section role="alert" aria-label="Entries are missing" className="my-2 border-2 border-ink p-3">
      <h2 className="text-lg font-semibold">
        {has.logbook === seen.logbook
          ? `Entries are missing: the server’s logbook ends at ${has.seq}, this tablet has seen it up to ${seen.seq}.`
          : 'The server has another logbook than the one that this tablet has seen.'}
      </h2>
      <p className="max-w-prose">
        Do not rely on what is shown until it is clear why. Tell whoever looks after the server: the right
        logbook may have to be put back.{' '}
        {held.length === 0
          ? 'This tablet holds none of what was in it.'
          : `This tablet still holds ${entries(held.length)} that were in it.${leads ? '' : ' A lead who signs in here can give them back.'}`}
      </p>
      {given && (
        <p className="max-w-prose font-semibold">
          Given back: {entries(given.added)} that the server did not have; {given.known} were there.{' '}
          {given.refused.map((says) => (
            <span key={says} className="block">
              Not taken: {says}
            </span>
          ))}
        </p>
      )}
      {told && <p className="font-semibold">{told}</p>}
      <div className="mt-2 flex flex-wrap gap-3">
        {held.length > 0 && leads && (
          <Button look="primary" disabled={busy} onClick={back}>
            Give back what this tablet holds
          </Button>
        )}
        <Button onClick={acceptLoss}>It is right as the server has it</Button>
      </div>
    </section>
  )
}

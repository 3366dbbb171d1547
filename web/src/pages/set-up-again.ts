import { deriveSetup, inForce, isUnreadable, type Reference, repeatJob } from '@dogleg/core/setup'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api } from '../log/api.ts'
import { newId, now } from '../log/clock.ts'
import { operator } from '../log/operator.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { readLog } from '../log/read-log.ts'
import { send } from '../log/record.ts'

/** Sets an earlier job up again: its log is read from the server, and what stood in it is taken over. Leads to the new setup. */
export function useSetUpAgain() {
  const [asking, setAsking] = useState(false)
  const [wrong, setWrong] = useState<string>()
  const signed = useSigned()
  const navigate = useNavigate()
  const setUpAgain = async (setup: string, reference: Reference) => {
    setAsking(true)
    setWrong(undefined)
    try {
      const { entries } = await api.entriesSince(setup, 0)
      const last = deriveSetup(readLog(entries), reference)
      if (isUnreadable(last)) {
        setWrong(last.unreadable)
        return
      }
      const { id, name } = last.machine
      if (!inForce(reference, 'machines').some((machine) => machine.id === id)) {
        setWrong(`${name} is retired: nothing is set up on it. Bring it back on its page first.`)
        return
      }
      signed(() => {
        const repeated = repeatJob(last, { by: operator(), at: new Date(now()).toISOString(), nextId: newId })
        for (const entry of repeated) send(entry)
        navigate(`/setups/${repeated[0]?.id}`)
      })
    } catch (error) {
      setWrong(error instanceof Error ? error.message : String(error))
    } finally {
      setAsking(false)
    }
  }
  return { setUpAgain, asking, wrong, forget: () => setWrong(undefined) }
}

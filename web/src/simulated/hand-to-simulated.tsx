import type { Machine } from '@dogleg/core/machine'
import { useMutation } from '@tanstack/react-query'
import { MonitorPlay } from 'lucide-react'
import { Link } from 'react-router'
import { Button } from '../ui/button.tsx'
import { atMachine } from './at-machine.ts'

/** Handing a program to the simulated machine, where a machine has one; it runs there, and nothing else moves. */
export function useHanding(machine: Machine, text: string) {
  const handing = useMutation({ mutationFn: () => atMachine.work(machine.id, [{ do: 'load', text }]) })
  return machine.positions?.from === 'simulated' ? { machine, handing } : undefined
}
type Handing = NonNullable<ReturnType<typeof useHanding>>

interface HandKeyProps {
  of: Handing
  /** Signs what is to be done. */
  signed: (does: () => void) => void
  /** It stands there now. */
  onHanded: () => void
}

export const HandKey = ({ of: { machine, handing }, signed, onHanded }: HandKeyProps) => (
  <Button
    className="min-h-14 px-3!"
    onClick={() => signed(() => handing.mutate(undefined, { onSuccess: onHanded }))}
    disabled={handing.isPending}
    aria-label={`To the simulated ${machine.name}`}
    title={`To the simulated ${machine.name}`}
  >
    <MonitorPlay aria-hidden size={24} />
  </Button>
)

/** What came of it, and the way there. */
export function Handed({ of: { machine, handing } }: { of: Handing }) {
  const { error, data } = handing
  if (!error && !data) return null
  return (
    <p role="status" className="text-sm">
      {error ? error.message : data?.view.says}{' '}
      <Link
        to={`/machines/${machine.id}/simulated`}
        className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
      >
        To the simulated {machine.name}
      </Link>
    </p>
  )
}

import { fixedDigits, formatLength, unitSymbol } from '@dogleg/core/quantity'
import { againstHidden, type SimulatedView } from '@dogleg/core/simulated'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { atMachine } from './at-machine.ts'

/** What is hidden in the simulated machine against what is keyed in: for who is done, and wants to know how far off. */
export function Hidden({ id, view, onAnew }: { id: string; view: SimulatedView; onAnew: () => void }) {
  const [open, setOpen] = useState(false)
  const { data, error } = useQuery({
    queryKey: ['simulated-hidden', id, view.worked, view.offsets, view.lengths, view.rotary?.onTable],
    queryFn: () => atMachine.hidden(id),
    enabled: open,
  })
  const shown = (value: number | null, degrees = false, plus = false) =>
    value === null
      ? '-'
      : degrees
        ? `${plus && value > 0 ? '+' : ''}${fixedDigits(value, 3)}°`
        : formatLength(value, view.unit, { plus })
  return (
    <section aria-label="What is hidden" className="space-y-3 pt-3">
      {!open && (
        <p className="max-w-prose text-lg">
          Where the part lies, how far it is turned, and how long the tools are. Look once you are done: after
          that the piece is known.
        </p>
      )}
      <div className="flex gap-3">
        <Button onClick={() => setOpen(!open)}>{open ? 'Cover it again' : 'Uncover it'}</Button>
        <Button onClick={onAnew}>Another piece, from the start</Button>
      </div>
      {error && <p role="alert">{error.message}</p>}
      {open && data && (
        <table className="w-full max-w-3xl">
          <caption className="text-left text-lg font-semibold">
            {data.rotary
              ? 'The centre line of the rotary, and its angle with the flat up'
              : 'Part zero at the front left corner and the top of the block'}
            , {unitSymbol(view.unit)}
          </caption>
          <thead>
            <tr className="border-b border-ink-soft text-left">
              <th scope="col">What</th>
              <th scope="col" className="text-right">
                truly
              </th>
              <th scope="col" className="text-right">
                keyed in
              </th>
              <th scope="col" className="text-right">
                off by
              </th>
            </tr>
          </thead>
          <tbody>
            {againstHidden(view, data).map(({ name, truth, keyed, off, degrees }) => (
              <tr key={name} className="border-b border-rule">
                <th scope="row" className="text-left font-semibold">
                  {name}
                </th>
                <td className="digits py-1 text-right text-xl">{shown(truth, degrees)}</td>
                <td className="digits py-1 text-right text-xl">{shown(keyed, degrees)}</td>
                <td className="digits py-1 text-right text-xl">{shown(off, degrees, true)}</td>
              </tr>
            ))}
            {data.zero && (
              <tr className="border-b border-rule">
                <th scope="row" className="text-left font-semibold">
                  part turned, degrees
                </th>
                <td className="digits py-1 text-right text-xl">{data.zero.angle.toFixed(3)}</td>
                <td />
                <td />
              </tr>
            )}
          </tbody>
        </table>
      )}
    </section>
  )
}

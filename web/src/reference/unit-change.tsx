import { type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import type { TwoWays } from './typed-form.ts'

/** Examples that are shown; the others go the same way. */
const SHOWN = 4

interface UnitChangeProps {
  /** 'this machine'. */
  of: string
  from: LengthUnit
  to: LengthUnit
  lengths: readonly TwoWays[]
  onConvert: () => void
  /** The numbers are right, and were said to be in the wrong unit. */
  onRelabel: () => void
  onStay: () => void
}

/** Asks what a change of unit means for the lengths that are typed already, and shows both. */
export function UnitChange({ of, from, to, lengths, onConvert, onRelabel, onStay }: UnitChangeProps) {
  const [was, is] = [unitSymbol(from), unitSymbol(to)]
  const more = lengths.length - SHOWN
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onStay()}
      title={`Convert the lengths of ${of} to ${is}, or were they in the wrong unit?`}
      says={`${lengths.length === 1 ? 'One length is' : `${lengths.length} lengths are`} typed already.`}
    >
      <table className="mb-4 w-full">
        <thead>
          <tr className="text-left text-sm text-ink-soft">
            <th className="font-normal">typed</th>
            <th className="font-normal">converted</th>
            <th className="font-normal">wrong unit</th>
          </tr>
        </thead>
        <tbody className="digits text-lg">
          {[...new Map(lengths.map((each) => [each.typed, each])).values()]
            .slice(0, SHOWN)
            .map(({ typed, converted }) => (
              <tr key={typed} className="border-t border-rule">
                <td>
                  {typed} {was}
                </td>
                <td>
                  {converted} {is}
                </td>
                <td>
                  {typed} {is}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {more > 0 && <p className="mb-4 text-ink-soft">And {more} more, the same way.</p>}
      <div className="flex flex-wrap gap-3">
        <Button look="primary" className="min-h-12" onClick={onConvert}>
          Convert them
        </Button>
        <Button className="min-h-12" onClick={onRelabel}>
          They are {is} as they stand
        </Button>
        <Button look="quiet" className="min-h-12" onClick={onStay}>
          Leave it as it was
        </Button>
      </div>
    </Dialog>
  )
}

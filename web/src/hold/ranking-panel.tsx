import {
  barRange,
  byStop,
  type GripDraft,
  type Place,
  type Ranked,
  type RankedStop,
  rankPairs,
  readGripPart,
  STOPS,
} from '@dogleg/core/hold'
import { formatLength, unitSymbol } from '@dogleg/core/quantity'
import { inForce, measuredRatios } from '@dogleg/core/setup'
import { Ban, Check, CircleEllipsis, Eye, type LucideIcon, OctagonX } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { Button } from '../ui/button.tsx'
import { Select } from '../ui/select.tsx'

const PLACES: Record<Place, { word: string; Icon: LucideIcon; look: string }> = {
  good: { word: 'good', Icon: Check, look: '' },
  close: { word: 'close', Icon: Eye, look: '' },
  'too-wide': { word: 'too wide', Icon: Ban, look: '' },
  'last-resort': { word: 'last resort', Icon: CircleEllipsis, look: '' },
  never: { word: 'never', Icon: OctagonX, look: 'text-hazard' },
}

interface RankingPanelProps {
  draft: GripDraft
  onUse: (collet: string, stop: Ranked['stop']) => void
  /** Where bars and length are typed. */
  onForm: () => void
}

/** Every collet with every stop that goes with it, the best for this part first, with the reason for each place. */
export function RankingPanel({ draft, onUse, onForm }: RankingPanelProps) {
  const { setup, reference } = useOpenSetup()
  const { unit, hold } = setup
  const [which, setWhich] = useState('')
  const collets = useMemo(() => inForce(reference, 'collets'), [reference])
  const ranked = useMemo(() => {
    const read = readGripPart(draft, unit)
    if (!read.ok) return undefined
    return rankPairs({
      collets,
      operation: read.value.operation,
      unit,
      range: barRange(read.value.bars, unit),
      allowed: read.value.allowed.value,
      measured: measuredRatios(hold),
    })
  }, [draft, unit, collets, hold])
  if (!ranked)
    return (
      <div className="space-y-3 py-6 text-lg">
        <p className="font-semibold">First say what the bars are, and what length the part allows.</p>
        <Button onClick={onForm}>To collet and stop</Button>
      </div>
    )
  const rows = byStop(which === '' ? ranked : ranked.filter(({ collet }) => collet.id === which))
  return (
    <div className="py-2">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
        <label className="flex items-center gap-3 font-semibold">
          Collet
          <Select value={which} onChange={({ target }) => setWhich(target.value)} className="font-normal">
            <option value="">all of the library</option>
            {collets.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </label>
        <p className="text-ink-soft">
          {draft.operation === 'first' ? 'To face' : 'Length tolerance'}{' '}
          <span className="digits">{draft.allowed}</span> {unitSymbol(unit)}; the best first, those never to
          use last.
        </p>
      </div>
      <RankedTable rows={rows} unit={unit} preferred={draft.collet} onUse={onUse} />
    </div>
  )
}

interface RankedTableProps {
  rows: readonly RankedStop[]
  /** The collet that is used where several stand equal. */
  preferred: string
  unit: Parameters<typeof formatLength>[1]
  onUse: RankingPanelProps['onUse']
}

function RankedTable({ rows, unit, preferred, onUse }: RankedTableProps) {
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-sm text-ink-soft">
          <th className="font-normal">Verdict</th>
          <th className="font-normal">Stop</th>
          <th className="font-normal">Collet or jaws</th>
          <th className="pr-4 text-right font-normal">Length varies by, {unitSymbol(unit)}</th>
          <th className="font-normal">Why</th>
          <th className="sr-only">Use it</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ collets, stop, spread, place, reason }) => {
          const { word, Icon, look } = PLACES[place]
          const use = collets.find(({ id }) => id === preferred) ?? collets[0]
          return (
            <tr key={`${stop}-${use?.id}`} className="border-t border-rule">
              <td className={`pr-3 font-semibold whitespace-nowrap ${look}`}>
                <Icon aria-hidden size={18} className="mr-1.5 inline align-[-3px]" />
                {word}
              </td>
              <td className="pr-3">{STOPS[stop].name}</td>
              <td className="pr-3 text-sm leading-tight">{collets.map(({ name }) => name).join(', ')}</td>
              <td className="digits pr-4 text-right text-lg">{formatLength(spread, unit)}</td>
              <td className="pr-3 text-sm leading-tight">{reason}</td>
              <td className="text-right">
                {use && place !== 'never' && (
                  <Button
                    look="quiet"
                    className="px-2"
                    aria-label={`Use ${use.name} with the stop: ${STOPS[stop].name}`}
                    onClick={() => onUse(use.id, stop)}
                  >
                    use {use.name}
                  </Button>
                )}
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

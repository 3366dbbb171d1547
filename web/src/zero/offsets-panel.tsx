import { formatAngle } from '@dogleg/core/angle'
import type { Freshness } from '@dogleg/core/fact'
import { methodName, type Reading, readingDetail } from '@dogleg/core/pickup'
import { formatLength } from '@dogleg/core/quantity'
import { FLAT_METHODS } from '@dogleg/core/rotary'
import { type OffsetRow, offsetTable } from '@dogleg/core/setup'
import { Copy, Hourglass } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useOpenSetup } from '../log/open-setup.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'
import { CopyDialog } from './copy-dialog.tsx'

/** How a value was found, in a few words. */
const howFound = (reading: Reading) =>
  reading.method === 'from-offset' ? `from ${reading.source}` : methodName(reading.method)

const NotKnown = () => <span className="inline-flex min-h-11 items-center text-ink-soft">not known here</span>

interface CellLinesProps {
  value: string
  doubt: string
  how: string
  /** What was typed to find it. */
  typed?: string
  fact: { entry: { by: string; at: string }; freshness: Freshness }
  /** The setup that it comes from, where that is another one. */
  other: { id: string; title: string } | undefined
}

/** One value of one offset: how far off it may be, how it was found, when, and whether it still holds. */
function CellLines({ value, doubt, how, typed, fact, other }: CellLinesProps) {
  const { freshness, entry } = fact
  return (
    <div className={freshness.state === 'stale' ? 'hatched px-1' : ''}>
      <p className="flex flex-wrap items-baseline gap-x-2 whitespace-nowrap">
        <span
          className={`digits text-2xl ${other ? 'text-ink-soft' : ''}`}
          data-value={value}
          data-typed={typed}
        >
          {value}
        </span>
        <span className="digits text-sm">±{doubt}</span>
      </p>
      <p className="text-sm leading-tight text-ink-soft">
        {freshness.state === 'stale' && (
          <span className="flex items-center gap-1 font-semibold text-ink">
            <Hourglass aria-hidden size={14} /> {freshness.cause.says}
          </span>
        )}
        {how}, {entry.by}, <When at={entry.at} />
        {other && (
          <Link to={`/setups/${other.id}`} className="block underline decoration-rule underline-offset-2">
            by {other.title}
          </Link>
        )}
      </p>
    </div>
  )
}

function CellView({ cell, unit }: { cell: OffsetRow['axes']['X']; unit: 'inch' | 'mm' }) {
  if (!cell) return <NotKnown />
  const { fact, value, doubt, other } = cell
  return (
    <CellLines
      value={formatLength(value, unit)}
      doubt={formatLength(doubt, unit)}
      how={howFound(fact.entry.reading)}
      typed={readingDetail(fact.entry.reading)}
      fact={fact}
      other={other}
    />
  )
}

/** The same of the rotary, in degrees. */
function RotaryCell({ cell }: { cell: OffsetRow['rotary'] }) {
  if (!cell) return <NotKnown />
  const { fact, value, doubt, other } = cell
  return (
    <CellLines
      value={formatAngle(value)}
      doubt={formatAngle(doubt)}
      how={FLAT_METHODS[fact.entry.reading.method]}
      fact={fact}
      other={other}
    />
  )
}

/** Nose radius and tip number of an insert, as the page of the tool has them. */
function NoseCells({ nose, unit }: { nose: OffsetRow['nose']; unit: 'inch' | 'mm' }) {
  return (
    <>
      <td className="pr-3">
        {nose?.radius === undefined ? (
          <Link
            to="/tools"
            className="inline-flex min-h-11 items-center text-ink-soft underline decoration-rule"
          >
            {nose ? 'not entered' : 'not known here'}
          </Link>
        ) : (
          <span className="digits text-2xl">{formatLength(nose.radius, unit)}</span>
        )}
      </td>
      <td className="digits pr-3 text-2xl">{nose?.tip}</td>
    </>
  )
}

/** Every offset as the control should show it, with where each value comes from; and copies of one to others. */
export function OffsetsPanel({ onOpen }: { onOpen: (offset: string) => void }) {
  const { setup, machineEntries, reference } = useOpenSetup()
  const [copying, setCopying] = useState(false)
  const rows = useMemo(
    () => offsetTable(setup, machineEntries, reference),
    [setup, machineEntries, reference],
  )
  const { unit, machine } = setup
  const axes = setup.offsets[0]?.wants ?? []
  const { rotary } = machine
  const mill = machine.kind === 'mill'
  return (
    <div className="flex-1 py-2">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p className="max-w-prose">
          As the {mill ? 'offset page' : 'geometry page'} of {machine.name} should show {mill ? 'them' : 'it'}
          , in {unit === 'inch' ? 'inches' : 'mm'}. Compare before you start.
        </p>
        {mill && (
          <Button onClick={() => setCopying(true)}>
            <Copy aria-hidden size={20} /> Copy or shift an offset
          </Button>
        )}
      </div>
      {setup.shift && (
        <div className="mt-2 flex items-baseline gap-3">
          <span className="font-semibold">Work shift, Z</span>
          <CellLines
            value={formatLength(setup.shift.shift.value, unit)}
            doubt={formatLength(setup.shift.shift.doubt.value, unit)}
            how={`by ${setup.shift.entry.offset}`}
            fact={setup.shift}
            other={undefined}
          />
        </div>
      )}
      {rows.length === 0 && <p className="py-6 text-ink-soft">Nothing has been taken on this machine yet.</p>}
      <table className="mt-2 w-full">
        <thead>
          <tr className="border-b border-ink-soft text-left">
            <th scope="col" className="py-1 pr-3">
              {mill ? 'Offset' : 'Tool'}
            </th>
            {axes.map((axis) => (
              <th key={axis} scope="col" className="py-1 pr-3">
                {axis}
              </th>
            ))}
            {!mill && (
              <>
                <th scope="col" className="py-1 pr-3">
                  Nose radius
                </th>
                <th scope="col" className="py-1 pr-3">
                  Tip
                </th>
              </>
            )}
            {rotary && (
              <th scope="col" className="py-1 pr-3">
                {rotary.word}, degrees
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.name} className="border-b border-rule align-top">
              <th scope="row" className="pr-3 text-left">
                <button
                  type="button"
                  onClick={() => onOpen(row.name)}
                  className="digits inline-flex min-h-11 items-center text-xl whitespace-nowrap underline decoration-rule decoration-2 underline-offset-4"
                >
                  {row.name}
                </button>
              </th>
              {axes.map((axis) => (
                <td key={axis} className="pr-3">
                  <CellView cell={row.axes[axis]} unit={unit} />
                </td>
              ))}
              {!mill && <NoseCells nose={row.nose} unit={unit} />}
              {rotary && (
                <td className="pr-3">
                  <RotaryCell cell={row.rotary} />
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {copying && <CopyDialog onClose={() => setCopying(false)} />}
    </div>
  )
}

import { numbersSaid } from '@dogleg/core/code'
import type { EngraveDraft } from '@dogleg/core/cycles/engraving'
import { givenOut, leftOutBefore, nextSerial, SHOWN_GAPS, serialList, seriesOf } from '@dogleg/core/setup'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { useNumbers } from '../log/use-numbers.ts'
import { Button } from '../ui/button.tsx'
import { NumberField, Pair } from './cycle-field.tsx'

interface SerialPanelProps {
  draft: EngraveDraft
  /** The control counts by itself. */
  counts: boolean
  onNext: (serial: string) => void
}

/** Lines of the list that are shown; the logbook has them all. */
const SHOWN = 4

/** The serial number of this part, what the control would engrave, and the shop's list of what was given out. */
export function SerialPanel({ draft, counts, onNext }: SerialPanelProps) {
  const { setup } = useOpenSetup()
  const series = seriesOf(draft.text)
  const { entries, known } = useNumbers(series === undefined ? [] : [series])
  const signed = useSigned()
  const [why, setWhy] = useState('')
  if (series === undefined) return null
  const step = Math.max(1, Math.floor(Number(draft.step)) || 1)
  const number = /^\d{1,9}$/.test(draft.serial.trim()) ? Number(draft.serial) : undefined
  const list = serialList(entries, series, step)
  const { lines, gaps, twice } = list
  const next = nextSerial(list, step)
  const given = number !== undefined && givenOut(list, number) !== undefined
  const gap = number === undefined ? undefined : leftOutBefore(list, number, step)
  const said = (first: number, last = first) => numbersSaid({ series, first, last })
  const engraved = () =>
    signed(() => {
      if (number === undefined) return
      record(setup.id, { kind: 'numbered', series, first: number, last: number, fate: 'engraved', note: '' })
      onNext(String(number + step))
    })
  const leftOut = () =>
    signed(() => {
      if (!gap || why.trim() === '') return
      record(setup.id, { kind: 'numbered', series, ...gap, fate: 'left-out', note: why.trim() })
      setWhy('')
    })
  return (
    <div className="space-y-1">
      <Pair>
        <NumberField field="serial" label="This part" hint={number === undefined ? '' : said(number)} />
        <NumberField field="step" label="In steps of" />
      </Pair>
      {counts && (
        <NumberField
          field="counter"
          label="The control’s counter shows"
          hint="read it before the part is run"
        />
      )}
      {!known && <p>The server has not answered: only what this tablet knows is looked at.</p>}
      {next !== undefined && number !== next && (
        <p>
          Next in the list is <span className="digits font-semibold">{said(next)}</span>.{' '}
          <button
            type="button"
            className="inline-flex min-h-11 items-center font-semibold underline decoration-rule underline-offset-4"
            onClick={() => onNext(String(next))}
          >
            Take it
          </button>
        </p>
      )}
      <Button
        look="primary"
        className="h-12 w-full"
        disabled={number === undefined || given}
        onClick={engraved}
      >
        {number === undefined
          ? 'Record as engraved'
          : given
            ? `${said(number)} is given out`
            : `Record ${said(number)} as engraved`}
      </Button>
      {gap && (
        <div className="space-y-1 border-t border-rule pt-1">
          <label htmlFor="why-left-out" className="font-semibold">
            {said(gap.first, gap.last)} left out, because
          </label>
          <div className="flex gap-2">
            <input
              id="why-left-out"
              value={why}
              maxLength={300}
              onChange={({ target }) => setWhy(target.value)}
              className="h-12 min-w-0 flex-1 rounded-sm border border-ink-soft bg-white/60 px-2"
            />
            <Button className="h-12" disabled={why.trim() === ''} onClick={leftOut}>
              Record
            </Button>
          </div>
        </div>
      )}
      {gaps.length > 0 && (
        <p className="font-semibold">
          Nobody has accounted for{' '}
          <span className="digits">
            {gaps
              .slice(0, SHOWN_GAPS)
              .map(({ first, last }) => said(first, last))
              .join(', ')}
          </span>
          {gaps.length > SHOWN_GAPS && ` and ${gaps.length - SHOWN_GAPS} more gaps`}.
        </p>
      )}
      {twice.length > 0 && (
        <p className="font-semibold">
          Given out twice:{' '}
          <span className="digits">{twice.map(({ first, last }) => said(first, last)).join(', ')}</span>. Find
          both parts.
        </p>
      )}
      {lines.length > 0 && (
        <table className="w-full text-sm">
          <caption className="sr-only">The last of the series</caption>
          <tbody>
            {lines
              .slice(-SHOWN)
              .reverse()
              .map(({ first, last, entry }) => (
                <tr key={entry.id} className="border-t border-rule">
                  <td className="digits py-1 font-semibold">{said(first, last)}</td>
                  <td className="py-1">
                    {entry.fate === 'engraved' ? 'engraved' : `left out: ${entry.note}`}
                  </td>
                  <td className="py-1 text-right">
                    {entry.by} <span className="digits">{entry.at.slice(5, 10)}</span>
                  </td>
                </tr>
              ))}
          </tbody>
        </table>
      )}
    </div>
  )
}

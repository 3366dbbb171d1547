import { verdictOf, worstFirst } from '@dogleg/core/fact'
import {
  finishedZero,
  readStockDraft,
  type StockDraft,
  type StockField,
  startingStock,
  stockDraft,
  stockDraftOf,
  ZERO_WORDS,
} from '@dogleg/core/pickup'
import { asksSeatLength, moveHindrances, zeroMoves } from '@dogleg/core/prepare'
import { unitSymbol } from '@dogleg/core/quantity'
import { type OffsetState, stockOf, touchedBlock } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { PositionEntry } from '../positions/position-entry.tsx'
import { Judged, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { ComesOff, ZeroStands } from './stock-answer.tsx'
import { StockDrawing } from './stock-drawing.tsx'

type ZeroField = 'zeroX' | 'zeroY' | 'zeroZ'

const LABELS: Record<StockField, readonly [label: string, hint: string]> = {
  X: ['Finished, along X', 'Of the part.'],
  Y: ['Finished, along Y', 'Of the part.'],
  Z: ['Finished height', 'If it is known.'],
  offTop: ['Off the top', '0 if it stays.'],
  offX: ['Off the left', 'Half, if empty.'],
  offY: ['Off the front', 'Half, if empty.'],
  seat: ['Machine Z on its seat', 'Same tool; for its height.'],
  seatLength: ['Probe length', 'As in the tool table.'],
}

/** A block of stock against the part that is asked for: what comes off each face, and part zero put where it is wanted. */
export function StockPanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit } = setup
  const touched = useMemo(() => touchedBlock(offset, unit), [offset, unit])
  const [draft, change, clear] = useKept<StockDraft>(`${setup.id}.${offset.name}.stock`, stockDraft, () =>
    offset.stock ? stockDraftOf(offset.stock.entry.asked) : startingStock(touched),
  )
  const [lit, setLit] = useState<StockField | ZeroField>()
  const signed = useSigned()
  const needsLength = asksSeatLength(offset)
  const live = useMemo(() => {
    const read = readStockDraft(draft, unit, needsLength)
    if (!read.ok) return read
    const stock = stockOf(read.value, offset, setup)
    const moves = zeroMoves(offset, stock, setup)
    return {
      ...read,
      stock,
      moves,
      findings: worstFirst([...stock.findings, ...moveHindrances(moves, offset, setup)]),
    }
  }, [draft, unit, needsLength, offset, setup])
  const taken = Object.values(offset.axes)
  const stale = taken.filter(({ freshness }) => freshness.state === 'stale')
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const same =
    live.ok &&
    live.moves.length === 0 &&
    offset.stock?.freshness.state === 'fresh' &&
    JSON.stringify(offset.stock.entry.asked) === JSON.stringify(live.value)

  const entry = live.ok
    ? {
        kind: 'stock' as const,
        offset: offset.name,
        asked: live.value,
        rests: taken.map(({ entry: { id } }) => id),
      }
    : undefined
  const submit = () => {
    if (!live.ok || !entry || stopped || taken.length === 0) return
    signed(() => {
      const moved = new Map(
        live.moves.map((move) => [move.reading.axis as string, record(setup.id, move).id]),
      )
      const rests = taken.map(({ axis, entry: { id } }) => moved.get(axis) ?? id)
      record(setup.id, { ...entry, rests })
      clear(stockDraftOf(live.value))
    })
  }

  const label = (field: StockField): readonly [string, string] => {
    // Of a block that was touched on one side only, what is said counts for that side.
    if (field === 'offX' && touched.X?.side === 'minus') return ['Off the right', 'What stays there is 0.']
    if (field === 'offY' && touched.Y?.side === 'minus') return ['Off the back', 'What stays there is 0.']
    const alone =
      (field === 'offX' && touched.X?.side === 'plus') || (field === 'offY' && touched.Y?.side === 'plus')
    return alone ? [LABELS[field][0], 'What stays there is 0.'] : LABELS[field]
  }
  const field = (name: StockField) => {
    const [text, hint] = label(name)
    const told = problems[name]
    const common = {
      label: text,
      hint,
      value: draft[name],
      onChange: (value: string) => change({ ...draft, [name]: value }),
      lit: lit === name,
      onFocus: () => setLit(name),
      narrow: true,
      ...(told && !told.empty ? { wrong: told.says } : {}),
    }
    return name === 'seat' ? (
      <PositionEntry key={name} {...common} axis="Z" unit={unit} suffix={unitSymbol(unit)} plain />
    ) : (
      <LengthEntryField key={name} {...common} unit={unit} />
    )
  }
  const zero = <Axis extends 'X' | 'Y' | 'Z'>(axis: Axis) => (
    <PickOne
      key={axis}
      label={`${axis} zero at`}
      value={draft[`zero${axis}`]}
      onChange={(value) => change({ ...draft, [`zero${axis}`]: value })}
      onFocus={() => setLit(`zero${axis}`)}
      options={Object.entries(ZERO_WORDS[axis])}
    />
  )
  const shown = live.ok ? live.stock : offset.stock
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[21rem_1fr] xl:grid-cols-[21rem_1fr_24rem]">
      <form
        aria-label={`The block of ${offset.name}`}
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <div className="grid grid-cols-2 gap-x-3 gap-y-1">
          {(['X', 'Y', 'Z', 'offTop', 'offX', 'offY', 'seat'] as const).map(field)}
          {needsLength && draft.seat.trim() !== '' ? field('seatLength') : zero('Z')}
          {zero('X')}
          {zero('Y')}
          {needsLength && draft.seat.trim() !== '' && zero('Z')}
        </div>
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.ok || stopped || taken.length === 0 || same}
          className="min-h-14 w-full text-lg"
        >
          {live.ok && live.moves.length > 0
            ? `Move zero of ${offset.name}, and record`
            : `Record the block of ${offset.name}`}
        </Button>
        <MissingLine
          problems={problems}
          stopped={stopped}
          says={
            taken.length === 0
              ? `Take X, Y and Z of ${offset.name} first.`
              : same && !stopped
                ? 'Recorded as it stands.'
                : undefined
          }
        />
        {live.ok && !stopped && !same && (
          <GoesStale entry={live.moves} besides={`The stock of ${offset.name}`} />
        )}
      </form>
      <div className="min-h-80">
        {shown ? (
          <StockDrawing stock={shown} zero={finishedZero(shown, draft)} lit={lit} />
        ) : (
          <p className="text-ink-soft">The picture appears once the finished sizes are typed.</p>
        )}
      </div>
      <section aria-label="What comes off" className="space-y-3 md:col-span-2 xl:col-span-1">
        {shown ? (
          <>
            <ComesOff stock={shown} />
            <ZeroStands stock={shown} offset={offset} />
            <Judged
              findings={live.ok ? live.findings : shown.findings}
              {...(live.ok && !same ? {} : { fact: offset.stock })}
            />
            {stale.length > 0 && (
              <p className="font-semibold">
                {stale.map(({ axis }) => axis).join(' and ')} of {offset.name}{' '}
                {stale.length > 1 ? 'are' : 'is'} stale: what is measured with it no longer holds.
              </p>
            )}
            <Working answer={{ working: [...shown.X.working, ...shown.Y.working, ...shown.Z.working] }} />
          </>
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">A block of unknown size</h2>
            <p>
              Touch both ends along X and both sides along Y, and the top: by hand, each as a middle of two
              faces, or by one program under Probe. What is there is then held against the finished part.
            </p>
            <p>
              It says what comes off each face, and puts part zero where you want it: a corner or the middle,
              the top of the stock or the finished face.
            </p>
          </div>
        )}
      </section>
    </div>
  )
}

import type { LinearAxis } from '@dogleg/core/machine'
import { takenText } from '@dogleg/core/pickup'
import { formatLength, type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import { Crosshair, LoaderCircle, Unplug } from 'lucide-react'
import { type ComponentProps, useState } from 'react'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { ListField } from '../ui/list-field.tsx'
import { useLatest } from '../ui/use-latest.ts'
import { sayWhen } from '../ui/when.tsx'
import { type Positions, usePositions } from './use-positions.ts'

const SECONDS = 'HH:mm:ss'

/** The key that takes a position: where there is none now it says so by its mark and its name. */
function TakeKey({
  positions,
  what,
  onTake,
}: {
  positions: Positions
  /** 'X', 'X and Y'. */
  what: string
  onTake: () => Promise<void>
}) {
  const [asking, setAsking] = useState(false)
  const lost = positions.now.state === 'lost'
  const Mark = asking ? LoaderCircle : lost ? Unplug : Crosshair
  return (
    <button
      type="button"
      onClick={() => {
        setAsking(true)
        void onTake().finally(() => setAsking(false))
      }}
      disabled={asking}
      aria-busy={asking}
      title={titleOf(positions)}
      aria-label={`Take position ${what}${lost ? ': none to be had now' : ` from ${positions.source.name}`}`}
      className="flex min-w-12 shrink-0 self-stretch items-center justify-center border-l border-ink-soft hover:bg-stock-shade"
    >
      <Mark aria-hidden size={24} className={asking ? 'motion-safe:animate-spin' : ''} />
    </button>
  )
}

/** Behind the key: where each axis stands and since when, or why nobody knows. */
function titleOf({ now, source }: Positions): string | undefined {
  if (now.state === 'lost') return now.says
  if (now.state === 'waiting') return undefined
  const axes = Object.entries(now.positions).map(([axis, value]) => {
    const since = sayWhen(now.since[axis as LinearAxis] ?? '', SECONDS)
    return `${axis} ${formatLength(value, source.unit)}${since && ` since ${since}`}`
  })
  return `${now.name}: ${axes.join(', ')}`
}

/** What the machine shows of an axis now, or why nobody knows: under an empty field. */
function hintOf(positions: Positions, axis: LinearAxis, hint: string | undefined) {
  const { now, source } = positions
  if (now.state === 'live') {
    const value = now.positions[axis]
    if (value === undefined) return `${source.name} tells no ${axis} now: type it.`
    // What the source leaves open is said in place of the usual hint.
    const open = now.notes.filter((note) => note.includes(` ${axis} `)).join(' ')
    return `Now ${formatLength(value, source.unit)} ${unitSymbol(source.unit)}. ${open || hint || ''}`
  }
  return now.state === 'lost' && !now.off ? now.says : hint
}

type EntryProps = Omit<ComponentProps<typeof TextEntry>, 'action'> & {
  axis: LinearAxis
  /** The unit that the field is read in. */
  unit: LengthUnit
  /** Lengths are read as `LengthEntryField` does; else the caller says what it understood. */
  plain?: boolean
  /** Without a key of its own: one beside it takes several. */
  bare?: boolean
}

/** A field for a machine position, with the key that takes it from the machine where that can be read. */
export function PositionEntry({ axis, unit, plain, bare, ...rest }: EntryProps) {
  const positions = usePositions()
  const [taken, setTaken] = useState<{ text: string; at: string }>()
  const [wrong, setWrong] = useState<string>()
  // Where the field has become that of another axis meanwhile, its position is not this one.
  const put = useLatest((text: string, of: LinearAxis) => of === axis && rest.onChange(text))
  const take = async (from: Positions) => {
    try {
      const { positions: now, readAt } = await from.take()
      const value = now[axis]
      if (value === undefined) return setWrong(`${from.source.name} tells no ${axis} now. Type it.`)
      const text = takenText(value, from.source, unit)
      setTaken({ text, at: sayWhen(readAt, SECONDS) })
      setWrong(undefined)
      put(text, axis)
    } catch (error) {
      setWrong((error as Error).message)
    }
  }
  const common = {
    ...rest,
    onChange: (text: string) => {
      setWrong(undefined)
      rest.onChange(text)
    },
    wrong: wrong ?? rest.wrong,
    hint: positions && !bare ? hintOf(positions, axis, rest.hint) : rest.hint,
    ...(taken && taken.text === rest.value ? { understoodMore: `taken ${taken.at}` } : {}),
    ...(positions && !bare
      ? { action: <TakeKey positions={positions} what={axis} onTake={() => take(positions)} /> }
      : {}),
  }
  return plain ? <LengthEntryField {...common} unit={unit} /> : <TextEntry {...common} lengthIn={unit} />
}

/** An angle as it was read, as the display shows it. */
const angleText = (degrees: number) => String(Number(degrees.toFixed(4)))

/** A field for the angle of a rotary, with the key that takes it from the machine where that can be read. */
export function TurnedEntry({
  word,
  ...rest
}: Omit<ComponentProps<typeof TextEntry>, 'action'> & { word: string }) {
  const positions = usePositions()
  const [wrong, setWrong] = useState<string>()
  const put = useLatest(rest.onChange)
  const { now } = positions ?? {}
  const take = async (from: Positions) => {
    try {
      const { rotary } = await from.take()
      if (!rotary) return setWrong(`${from.source.name} tells no ${word} now. Type it.`)
      setWrong(undefined)
      put(angleText(rotary.degrees))
    } catch (error) {
      setWrong((error as Error).message)
    }
  }
  return (
    <TextEntry
      {...rest}
      suffix="°"
      onChange={(text) => {
        setWrong(undefined)
        rest.onChange(text)
      }}
      wrong={wrong ?? rest.wrong}
      hint={now?.state === 'live' && now.rotary ? `Now ${angleText(now.rotary.degrees)}°.` : rest.hint}
      {...(positions
        ? { action: <TakeKey positions={positions} what={word} onTake={() => take(positions)} /> }
        : {})}
    />
  )
}

/** Positions as they stand in the fields of their axes; that of a rotary in degrees. */
type TakenTexts = Partial<Record<LinearAxis | 'rotary', string>>

interface TakeAllProps {
  unit: LengthUnit
  /** The axes that are wanted, in words. */
  what?: string
  onTake: (texts: TakenTexts) => void
}

/** The key that takes several axes at once, where the machine can be read; nothing where it cannot. */
export function TakeAll({ unit, what = 'X, Y and Z', onTake }: TakeAllProps) {
  const positions = usePositions()
  const [wrong, setWrong] = useState<string>()
  const put = useLatest(onTake)
  if (!positions) return null
  const take = async () => {
    try {
      const { positions: now, rotary } = await positions.take()
      put({
        ...Object.fromEntries(
          Object.entries(now).map(([axis, value]) => [axis, takenText(value, positions.source, unit)]),
        ),
        ...(rotary ? { rotary: angleText(rotary.degrees) } : {}),
      })
      setWrong(undefined)
    } catch (error) {
      setWrong((error as Error).message)
    }
  }
  return (
    <div className="flex flex-col items-end">
      <div className="flex h-12 overflow-hidden rounded-sm border border-ink-soft">
        <TakeKey positions={positions} what={what} onTake={take} />
      </div>
      {wrong && (
        <p role="alert" className="text-sm">
          {wrong}
        </p>
      )}
    </div>
  )
}

/** A list of touches, with the key that adds where the spindle stands, X and Y. */
export function TouchListEntry({
  unit,
  ...rest
}: Omit<ComponentProps<typeof ListField>, 'action'> & { unit: LengthUnit }) {
  const positions = usePositions()
  const [wrong, setWrong] = useState<string>()
  const add = useLatest((line: string) =>
    rest.onChange(rest.value.trim() === '' ? line : `${rest.value.trimEnd()}\n${line}`),
  )
  if (!positions) return <ListField {...rest} />
  const take = async () => {
    try {
      const { X, Y } = (await positions.take()).positions
      if (X === undefined || Y === undefined) return setWrong('No X and Y to be had now. Type them.')
      setWrong(undefined)
      add(`${takenText(X, positions.source, unit)} ${takenText(Y, positions.source, unit)}`)
    } catch (error) {
      setWrong((error as Error).message)
    }
  }
  return (
    <ListField
      {...rest}
      onChange={(text) => {
        setWrong(undefined)
        rest.onChange(text)
      }}
      wrong={wrong ?? rest.wrong}
      action={<TakeKey positions={positions} what="X and Y" onTake={take} />}
    />
  )
}

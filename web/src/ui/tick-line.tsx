import type { EntryOf } from '@dogleg/core/setup'
import { CircleCheckBig, Hourglass, Square } from 'lucide-react'
import { useMayStrike } from '../log/session.ts'
import { Button } from './button.tsx'
import { When } from './when.tsx'

interface TickLineProps {
  says: string
  tick: EntryOf<'ticked'> | undefined
  /** Why the tick no longer holds: 'ticked before the alarm'. */
  due: string | undefined
  onTick: () => void
  onTakeBack: (reason: string) => void
}

/** A line to tick: large, with who ticked it and when. A slip is taken back as a struck entry. */
export function TickLine({ says, tick, due, onTick, onTakeBack }: TickLineProps) {
  const mayStrike = useMayStrike()
  const holds = tick !== undefined && due === undefined
  const Icon = holds ? CircleCheckBig : due ? Hourglass : Square
  const inner = (
    <>
      <Icon aria-hidden size={24} className={`shrink-0 ${holds ? 'text-verified' : ''}`} />
      <span className="flex-1 text-left text-lg leading-tight">
        {says}
        {due && <span className="block text-sm">Again: {due}.</span>}
      </span>
    </>
  )
  return (
    <li className={`flex items-center gap-2 border-t border-rule ${due ? 'hatched' : ''}`}>
      {holds ? (
        <>
          <span className="flex min-h-12 flex-1 items-center gap-3 px-2">{inner}</span>
          <span className="shrink-0 text-sm text-ink-soft">
            {tick.by}, <When at={tick.at} />
          </span>
          {mayStrike(tick) && (
            <Button
              look="quiet"
              className="px-2 text-sm font-normal"
              aria-label={`Take back: ${says}`}
              onClick={() => onTakeBack('Ticked by mistake.')}
            >
              take back
            </Button>
          )}
        </>
      ) : (
        <button
          type="button"
          onClick={onTick}
          className="flex min-h-12 flex-1 items-center gap-3 px-2 hover:bg-stock-shade"
          aria-label={`Tick: ${says}`}
        >
          {inner}
        </button>
      )}
    </li>
  )
}

import {
  loadable,
  newPlay,
  type PalletAction,
  type PalletPlan,
  type PalletReading,
  playPallets,
} from '@dogleg/core/pallet'
import { CirclePlay, RotateCcw, StepForward } from 'lucide-react'
import { useEffect, useReducer, useRef } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { Button } from '../../ui/button.tsx'
import { Choice } from '../../ui/choice.tsx'
import { Duration } from '../../ui/duration.tsx'
import { PalletDrawing } from './pallet-drawing.tsx'

const STATES = {
  idle: 'stands',
  runs: 'runs',
  waits: 'waits',
  alarm: 'alarm',
  crash: 'crash',
  ended: 'has ended',
} as const

/** The run as it would go, one happening a press: the change waits for the ready button, the interlock refuses, a crash is shown for what it is. */
export function PlayPanel({ plan, reading }: { plan: PalletPlan; reading: PalletReading }) {
  const { setup } = useOpenSetup()
  const swap = plan.shift.swap ?? setup.machine.pallets?.swap ?? 0
  const programs = loadable(plan)
  const [play, act] = useReducer(
    (now: ReturnType<typeof newPlay>, action: PalletAction) =>
      playPallets(now, action, { plan, reading, swap }),
    undefined,
    () => newPlay(plan, programs[0] ?? 0),
  )
  const told = useRef<HTMLOListElement>(null)
  const last = play.told.length
  // biome-ignore lint/correctness/useExhaustiveDependencies: each new line comes into sight
  useEffect(() => {
    told.current?.lastElementChild?.scrollIntoView({ block: 'nearest' })
  }, [last])
  const stands = play.state !== 'runs' && play.state !== 'waits'
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-3 py-3 md:grid-cols-[17rem_1fr] lg:grid-cols-[20rem_1fr_22rem]">
      <section aria-label="At the control" className="space-y-3">
        <Choice
          label="Pallet on the machine"
          value={String(play.inside)}
          onChange={(pallet) => act({ do: 'inside', pallet: Number(pallet) })}
          options={plan.pallets.map((_, index) => ({ value: String(index + 1), label: index + 1 }))}
        />
        <Choice
          label="Program that is loaded"
          value={String(play.loaded)}
          onChange={(program) => act({ do: 'load', program: Number(program) })}
          options={programs.map((number) => ({ value: String(number), label: `O${number}` }))}
        />
        <Choice
          label="Interlock"
          value={play.interlock ? 'on' : 'off'}
          onChange={(to) => act({ do: 'interlock', on: to === 'on' })}
          options={[
            { value: 'on', label: 'on' },
            { value: 'off', label: 'off' },
          ]}
        />
        <div className="flex flex-wrap gap-2">
          <Button
            look="primary"
            className="min-h-14 flex-1"
            disabled={!stands}
            onClick={() => act({ do: 'start' })}
          >
            <CirclePlay aria-hidden size={22} /> Cycle start
          </Button>
          <Button
            className="min-h-14 flex-1"
            disabled={play.state !== 'runs'}
            onClick={() => act({ do: 'next' })}
          >
            <StepForward aria-hidden size={22} /> Go on
          </Button>
          <Button look="quiet" onClick={() => act({ do: 'reset' })}>
            <RotateCcw aria-hidden size={18} /> From the beginning
          </Button>
        </div>
      </section>
      <div className="min-w-0 space-y-2">
        <PalletDrawing plan={plan} play={play} />
        <div className="flex flex-wrap gap-2">
          {plan.pallets.map((_, index) => {
            const pallet = index + 1
            const waited = play.state === 'waits' && play.waitsFor === pallet
            return (
              <Button
                // biome-ignore lint/suspicious/noArrayIndexKey: a pallet is its number
                key={index}
                look={waited ? 'primary' : 'plain'}
                className="min-h-14 flex-1"
                disabled={pallet === play.inside || play.ready.includes(pallet)}
                onClick={() => act({ do: 'ready', pallet })}
              >
                Ready, pallet {pallet}
              </Button>
            )
          })}
        </div>
      </div>
      <section aria-label="What happened" className="min-w-0 md:col-span-2 lg:col-span-1">
        <p className="text-lg">
          The machine{' '}
          <span
            className={`font-semibold ${play.state === 'crash' ? 'bg-hazard px-2 text-stock' : play.state === 'alarm' ? 'bg-ink px-2 text-stock' : ''}`}
          >
            {STATES[play.state]}
          </span>
          , <span className="digits font-semibold">{play.swaps}</span>{' '}
          {play.swaps === 1 ? 'change' : 'changes'}, <Duration seconds={play.seconds} />
        </p>
        <ol
          ref={told}
          // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls
          tabIndex={0}
          aria-label="Happenings"
          className="mt-1 h-72 overflow-y-auto border-t border-rule"
        >
          {play.told.map(({ seconds, says }, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a line of what happened is known by its place
            <li key={index} className="flex gap-2 border-b border-rule py-1">
              <Duration seconds={seconds} className="w-24 shrink-0 text-right text-ink-soft" />
              <span>{says}</span>
            </li>
          ))}
          {play.told.length === 0 && (
            <li className="py-2 text-ink-soft">Choose what is inside and loaded, and press cycle start.</li>
          )}
        </ol>
      </section>
    </div>
  )
}

import {
  type PalletPlan,
  type PalletReading,
  palletOptions,
  shiftCase,
  simulateShift,
  steadyCycle,
} from '@dogleg/core/pallet'
import { formatDuration } from '@dogleg/core/quantity'
import { type ReactNode, useDeferredValue, useMemo, useState } from 'react'
import { z } from 'zod'
import { useKept } from '../../log/kept.ts'
import { useOpenSetup } from '../../log/open-setup.ts'
import { Duration } from '../../ui/duration.tsx'
import { PickOne } from '../../ui/pick-one.tsx'
import { money } from '../money.ts'
import { ShiftChart } from './shift-chart.tsx'

const SHARES = [90, 75, 60, 50] as const
/** How much of the shift the chart shows at once, in minutes. */
const WINDOWS = [30, 60, 120, 0] as const

/** Both pallets and the people over a shift: who waits for whom, parts by the end, and what would bring more. */
export function ShiftPanel({ plan, reading }: { plan: PalletPlan; reading: PalletReading }) {
  const { setup } = useOpenSetup()
  const { machine } = setup
  const [share, setShare] = useKept(`${setup.id}.shift-share`, z.number(), () => 75)
  const [minutes, setMinutes] = useState(60)
  const [shown, setShown] = useState<string>('now')
  const deferred = useDeferredValue(share)
  const base = useMemo(
    () => shiftCase(plan, reading.seconds, machine.pallets?.swap ?? 0),
    [plan, reading.seconds, machine.pallets],
  )
  const options = useMemo(
    () =>
      palletOptions(base, deferred / 100, {
        shiftsAMonth: machine.costs?.shiftsAMonth ?? null,
        anHour: machine.costs?.anHour ?? null,
      }),
    [base, deferred, machine.costs],
  )
  const chosen = options.find(({ what }) => what === shown)
  const shift = useMemo(() => simulateShift(chosen?.of ?? base), [chosen, base])
  const [first, second] = base.pallets
  const closed =
    base.pallets.length === 2 && first && second ? steadyCycle([first, second], base.swap) : undefined
  return (
    <div className="flex flex-1 flex-col gap-1.5 py-1">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <Readout name="Finished by the end" value={`${shift.parts}`} more="parts" />
        <Readout
          name="A round of all pallets"
          value={shift.cycle === undefined ? '–' : <Duration seconds={shift.cycle} />}
          more={
            !chosen &&
            closed !== undefined &&
            shift.cycle !== undefined &&
            Math.abs(closed - shift.cycle) > 0.05
              ? `${formatDuration(closed)} but for work elsewhere`
              : ''
          }
        />
        <Readout
          name="The machine waits for hands"
          value={`${Math.round(100 * shift.waitsShare)} %`}
          more={formatDuration(shift.machineWaits)}
        />
        <Readout name="Hands with nothing to do" value={`${Math.round(100 * shift.idleShare)} %`} more="" />
        <div className="ml-auto w-36">
          <PickOne
            label="Loading in"
            value={String(share)}
            onChange={(to) => setShare(Number(to))}
            options={SHARES.map((each) => [String(each), `${each} %`])}
          />
        </div>
        <div className="w-36">
          <PickOne
            label="Chart"
            value={String(minutes)}
            onChange={(to) => setMinutes(Number(to))}
            options={WINDOWS.map((each) => [String(each), each === 0 ? 'whole shift' : `${each} min`])}
          />
        </div>
      </div>
      <ShiftChart
        spans={shift.spans}
        to={minutes === 0 ? base.length : Math.min(base.length, minutes * 60)}
        pallets={base.pallets.length}
        hands={chosen?.of.hands ?? base.hands}
      />
      <section aria-label="What would bring more">
        <table className="w-full">
          <thead>
            <tr className="text-left text-sm text-ink-soft">
              <th className="text-left text-base font-semibold text-ink">
                What would bring more, each by itself (a press shows it in the chart)
              </th>
              <th className="text-right font-normal">parts a shift</th>
              <th className="text-right font-normal">more</th>
              <th className="text-right font-normal">machine hours a month</th>
              <th className="text-right font-normal">money a month</th>
            </tr>
          </thead>
          <tbody>
            <Row
              says="As it is"
              parts={simulateShift(base).parts}
              lit={!chosen}
              onShow={() => setShown('now')}
            />
            {options.map(({ what, says, parts, gained, hoursAMonth, moneyAMonth }) => (
              <Row
                key={what}
                says={says}
                parts={parts}
                gained={gained}
                hours={hoursAMonth}
                worth={moneyAMonth}
                lit={what === shown}
                onShow={() => setShown(what)}
              />
            ))}
          </tbody>
        </table>
        <div>
          {!machine.costs && (
            <p className="pb-3 text-ink-soft">
              Enter what an hour costs and how many shifts a month has on the machine’s page: then hours and
              money are said too.
            </p>
          )}
        </div>
      </section>
    </div>
  )
}

function Readout({ name, value, more }: { name: string; value: ReactNode; more: string }) {
  return (
    <p>
      <span className="block text-ink-soft">{name}</span>
      <span className="text-3xl font-semibold">{value}</span>{' '}
      <span className="inline-block max-w-32 align-bottom text-sm leading-4">{more}</span>
    </p>
  )
}

function Row({
  says,
  parts,
  gained,
  hours,
  worth,
  lit,
  onShow,
}: {
  says: string
  parts: number
  gained?: number
  hours?: number | null
  worth?: number | null
  lit: boolean
  onShow: () => void
}) {
  return (
    <tr className={`border-t border-rule ${lit ? 'bg-stock-shade' : ''}`}>
      <td>
        <button
          type="button"
          aria-pressed={lit}
          onClick={onShow}
          className="min-h-11 w-full px-2 text-left font-semibold hover:underline"
        >
          {says}
        </button>
      </td>
      <td className="digits text-right text-xl">{parts}</td>
      <td className="digits text-right text-xl font-semibold">
        {gained === undefined ? '' : gained > 0 ? `+${gained}` : gained}
      </td>
      <td className="digits text-right">{hours == null ? '' : hours.toFixed(1)}</td>
      <td className="digits text-right">{worth == null ? '' : money.format(worth)}</td>
    </tr>
  )
}

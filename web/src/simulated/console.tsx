import type { LinearAxis } from '@dogleg/core/machine'
import { fixedDigits, formatLength, readDegrees, readLength, unitSymbol } from '@dogleg/core/quantity'
import { FINDER_RPM, type SimulatedView, WHEEL_STEPS } from '@dogleg/core/simulated'
import { OctagonX } from 'lucide-react'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Select } from '../ui/select.tsx'
import { DeviceKeys } from './device-keys.tsx'
import { HandWheel } from './hand-wheel.tsx'
import { Group, HeldKey, Key } from './parts.tsx'
import { useClicks } from './use-clicks.ts'
import type { Simulated } from './use-simulated.ts'

interface ConsoleProps {
  view: SimulatedView
  work: Simulated['work']
}

/** Machine positions, as the control shows them. */
function PositionRows({ view }: { view: SimulatedView }) {
  const { toGo } = view.run ?? {}
  return (
    <table className="w-full" aria-label="Machine positions">
      {toGo && (
        <thead className="text-sm text-ink-soft">
          <tr>
            <th scope="col" className="sr-only">
              Axis
            </th>
            <th scope="col" className="text-right font-normal">
              machine position
            </th>
            <td />
            <th scope="col" className="text-right font-normal">
              distance to go
            </th>
          </tr>
        </thead>
      )}
      <tbody>
        {view.axes.map((axis) => (
          <tr key={axis} className="border-b border-rule">
            <th scope="row" className="w-8 text-left text-2xl font-semibold">
              {axis}
            </th>
            <td className="digits text-right text-3xl leading-9" data-testid={`position-${axis}`}>
              {formatLength(view.positions[axis] ?? 0, view.unit)}
            </td>
            <td className="w-10 pl-2 text-ink-soft">{unitSymbol(view.unit)}</td>
            {toGo && (
              <td className="digits w-28 text-right text-xl">
                {formatLength(toGo['XYZ'.indexOf(axis)] ?? 0, view.unit)}
              </td>
            )}
          </tr>
        ))}
        {view.rotary?.onTable && (
          <tr className="border-b border-rule">
            <th scope="row" className="w-8 text-left text-2xl font-semibold">
              {view.rotary.word}
            </th>
            <td className="digits text-right text-3xl leading-9" data-testid={`position-${view.rotary.word}`}>
              {fixedDigits(view.rotary.shown, 3)}
            </td>
            <td className="w-10 pl-2 text-ink-soft">°</td>
            {toGo && <td />}
          </tr>
        )}
      </tbody>
    </table>
  )
}

/** What just happened; an alarm with what to do, and the key that clears it. */
function Happened({ view, work }: ConsoleProps) {
  if (view.alarm)
    return (
      <div role="alert" className="border-2 border-hazard p-2">
        <p className="flex gap-2 leading-5 font-semibold text-hazard">
          <OctagonX aria-hidden size={20} className="shrink-0" />
          {view.alarm.says}
        </p>
        <p className="py-1 text-sm leading-4">{view.alarm.fix}</p>
        <Button look="primary" className="w-full" onClick={() => work({ do: 'reset' })}>
          Reset
        </Button>
      </div>
    )
  return (
    <p role="status" className="min-h-10 text-sm leading-5">
      {view.says || view.mounted.harmed || 'Ready.'}
    </p>
  )
}

const FINDERS = [
  ['edge-finder', 'edge finder'],
  ['indicator', 'test indicator'],
  ['sensor', '3D sensor'],
  ['probe', 'probe'],
] as const

/** What is in the spindle, and how the spindle turns. */
function Spindle({ view, work }: ConsoleProps) {
  const { mounted, kind } = view
  const value = mounted.kind === 'tool' ? `T${mounted.tool}` : mounted.kind
  const usual = mounted.kind === 'edge-finder' ? FINDER_RPM.usual : 800
  return (
    <div className="flex items-end gap-1.5">
      <div className="min-w-0 flex-1">
        <PickOne
          label={kind === 'mill' ? 'In the spindle' : 'At work'}
          value={value}
          onChange={(what) =>
            work(
              what.startsWith('T')
                ? { do: 'mount', what: 'tool', tool: Number(what.slice(1)) }
                : { do: 'mount', what: what as 'nothing' },
            )
          }
          options={[
            ['nothing', kind === 'mill' ? 'nothing' : 'choose a tool'],
            ...(kind === 'mill' ? FINDERS : []),
            ...view.tools.map(({ number, name }) => [`T${number}`, `T${number} ${name}`] as const),
          ]}
        />
      </div>
      <div className="flex w-28">
        <Key
          pressed={view.rpm > 0}
          name={view.rpm > 0 ? 'Stop the spindle' : `Start the spindle at ${usual}`}
          onPress={() => work({ do: 'spindle', rpm: view.rpm > 0 ? 0 : usual })}
        >
          <span className="text-sm">{view.rpm > 0 ? `${view.rpm} rpm` : `start ${usual}`}</span>
        </Key>
      </div>
    </div>
  )
}

const ARROWS: Record<string, number> = { ArrowRight: 1, ArrowUp: 10, ArrowLeft: -1, ArrowDown: -10 }

/** What a machinist calls a step of the wheel. */
const STEP_NAMES: Record<SimulatedView['unit'], Record<number, string>> = {
  inch: { 0.0001: 'a tenth', 0.001: 'a thou', 0.01: 'ten thou', 0.1: 'a hundred thou' },
  mm: { 0.001: 'a thousandth of a mm', 0.01: 'a hundredth of a mm', 0.1: 'a tenth of a mm', 1: 'a mm' },
}

/** Degrees that a click of the handwheel turns a rotary by. */
const TURN_STEPS: readonly number[] = [0.001, 0.01, 0.1, 1, 10]

/** The handwheel: an axis, a step, clicks; and moves by a distance. */
function Handwheel({ view, work }: ConsoleProps) {
  const steps = WHEEL_STEPS[view.unit]
  const rotary = view.rotary?.onTable ? view.rotary : undefined
  const [chosen, setAxis] = useState<LinearAxis | 'rotary'>('X')
  // The rotary may be taken off the table by somebody else.
  const turns = chosen === 'rotary' && rotary !== undefined
  const axis: LinearAxis = chosen === 'rotary' ? 'X' : chosen
  const name = turns ? rotary.word : axis
  const [ownStep, setStep] = useState(steps[1] as number)
  const [ownTurn, setTurn] = useState(1)
  const step = turns ? ownTurn : ownStep
  const [distance, setDistance] = useState('')
  const entry = turns ? readDegrees(distance) : readLength(distance, view.unit)
  const click = useClicks(`${name} ${step}`, (clicks) =>
    work(turns ? { do: 'turn', by: step * clicks } : { do: 'wheel', axis, step, clicks }),
  )
  const move = (way: 1 | -1, does: 'jog' | 'search') => {
    if (!entry.ok) return
    const by = way * Math.abs(entry.value)
    work(turns ? { do: 'turn', by } : { do: does, axis, by })
  }
  const seeks =
    !turns && (view.mounted.kind === 'probe' || (view.mounted.kind === 'tool' && view.setter && axis === 'Z'))
  return (
    <div className="space-y-1.5">
      <div className="flex items-center gap-3">
        <div className="min-w-0 flex-1 space-y-1.5">
          <Group label="Axis">
            {view.axes.map((each) => (
              <Key
                key={each}
                pressed={!turns && axis === each}
                onPress={() => setAxis(each)}
                name={`Axis ${each}`}
              >
                {each}
              </Key>
            ))}
            {rotary && (
              <Key pressed={turns} onPress={() => setAxis('rotary')} name={`Axis ${rotary.word}`}>
                {rotary.word}
              </Key>
            )}
          </Group>
          <label className="flex items-center gap-1.5">
            <span className="w-20 shrink-0 text-sm leading-4 text-ink-soft">One click is</span>
            <Select
              value={String(step)}
              onChange={({ target }) => (turns ? setTurn : setStep)(Number(target.value))}
              className="min-w-0 flex-1 text-lg"
            >
              {(turns ? TURN_STEPS : steps.toReversed()).map((each) => (
                <option key={each} value={String(each)}>
                  {turns ? `${each}°` : STEP_NAMES[view.unit][each]}
                </option>
              ))}
            </Select>
          </label>
        </div>
        <HandWheel onClicks={click} />
      </div>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the keys inside are buttons; arrows are quicker */}
      <div
        onKeyDown={({ key, target }) => {
          const clicks = ARROWS[key]
          if (clicks !== undefined && !(target instanceof HTMLInputElement)) click(clicks)
        }}
      >
        <Group label={`Wheel ${name}`}>
          {[-10, -1, 1, 10].map((clicks) => (
            <HeldKey
              key={clicks}
              name={`${name} ${clicks > 0 ? 'plus' : 'minus'} ${Math.abs(clicks)} ${Math.abs(clicks) === 1 ? 'click' : 'clicks'}`}
              onPress={() => click(clicks)}
            >
              <span className="digits">
                {clicks > 0 ? '+' : '−'}
                {Math.abs(clicks)}
              </span>
            </HeldKey>
          ))}
        </Group>
      </div>
      <Group label={`${turns ? 'Turn' : 'Move'} ${name} by`}>
        <input
          aria-label={turns ? `Degrees of ${name}` : `Distance along ${axis}`}
          value={distance}
          onChange={({ target }) => setDistance(target.value)}
          aria-invalid={distance !== '' && !entry.ok}
          placeholder={turns ? '°' : unitSymbol(view.unit)}
          className="digits h-11 w-24 min-w-0 rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
        />
        <Key onPress={() => move(-1, 'jog')} name={`Jog ${name} minus`} disabled={!entry.ok}>
          −
        </Key>
        <Key onPress={() => move(1, 'jog')} name={`Jog ${name} plus`} disabled={!entry.ok}>
          +
        </Key>
        {seeks && (
          <>
            <Key onPress={() => move(-1, 'search')} name={`Search ${axis} minus`} disabled={!entry.ok}>
              <span className="text-sm">seek −</span>
            </Key>
            {view.mounted.kind === 'probe' && (
              <Key onPress={() => move(1, 'search')} name={`Search ${axis} plus`} disabled={!entry.ok}>
                <span className="text-sm">seek +</span>
              </Key>
            )}
          </>
        )}
      </Group>
      {view.kind === 'mill' && (
        <Group label="Quickly">
          <Key onPress={() => work({ do: 'up' })}>Z to the top</Key>
          <Key onPress={() => work({ do: 'home' })}>home</Key>
        </Group>
      )}
    </div>
  )
}

/** The panel of a simulated machine: positions, what happened, spindle, handwheel, and what goes with the device. */
export function Console({ view, work }: ConsoleProps) {
  return (
    <section aria-label="Machine" className="space-y-2">
      <PositionRows view={view} />
      <Happened view={view} work={work} />
      <Spindle view={view} work={work} />
      <Handwheel view={view} work={work} />
      <DeviceKeys view={view} work={work} />
    </section>
  )
}

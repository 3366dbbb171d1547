import { fixedDigits, formatLength, readDegrees, readLength, unitSymbol } from '@dogleg/core/quantity'
import type { SimulatedView } from '@dogleg/core/simulated'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import type { Simulated } from './use-simulated.ts'

/** So many variables are shown: those with the highest numbers. */
const MOST_SHOWN = 24
/** A number with no more digits behind the point than this, and none that say nothing. */
const shortest = (value: number, digits: number) => String(Number(value.toFixed(digits)))

/** One value that is keyed in at the control. */
function KeyIn({
  label,
  unit,
  onKey,
}: {
  label: string
  unit: SimulatedView['unit'] | 'deg'
  onKey: (value: number) => void
}) {
  const [text, setText] = useState('')
  const entry = unit === 'deg' ? readDegrees(text) : readLength(text, unit)
  return (
    <form
      className="flex items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!entry.ok) return
        onKey(entry.value)
        setText('')
      }}
    >
      <div className="min-w-0 flex-1">
        {unit === 'deg' ? (
          <TextEntry
            label={label}
            value={text}
            onChange={setText}
            suffix="°"
            narrow
            wrong={entry.ok || text.trim() === '' ? undefined : entry.says}
          />
        ) : (
          <LengthEntryField label={label} unit={unit} value={text} onChange={setText} narrow />
        )}
      </div>
      <Button type="submit" disabled={!entry.ok} className="mt-6 min-h-12" aria-label={`Key in ${label}`}>
        Key in
      </Button>
    </form>
  )
}

/** Common variables as the macro page of the control shows them: what probe programs leave there. */
function Variables({ variables }: Pick<SimulatedView, 'variables'>) {
  const set = Object.entries(variables)
  if (set.length === 0) return null
  return (
    <section aria-label="Variables" className="xl:col-span-2">
      <h3 className="text-lg font-semibold">Variables</h3>
      <ul className="flex flex-wrap gap-x-8 gap-y-1">
        {set.slice(-MOST_SHOWN).map(([number, value]) => (
          <li key={number} className="text-xl">
            #{number} <span className="digits ml-2">{shortest(value, 6)}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** The offset that the simulated lathe takes for the work shift. */
const SHIFT = 'G54'

/** What is keyed in at the simulated control: the first work offset, the tool lengths; on a lathe the geometry. */
export function KeyedTables({ view, work }: { view: SimulatedView; work: Simulated['work'] }) {
  const { unit, axes, offsets, rotary, rotaryZeros, lengths, tools, kind, variables } = view
  const length = (value: number | undefined | null) =>
    value === undefined || value === null ? '-' : formatLength(value, unit)
  const names =
    kind === 'mill'
      ? [...new Set(['G54', ...Object.keys(offsets), ...Object.keys(rotaryZeros)])]
      : tools.map(({ number }) => `T${number}`)
  const [offset, setOffset] = useState(names[0] ?? 'G54')
  const [tool, setTool] = useState(tools[0]?.number ?? 1)
  return (
    <div className="grid gap-x-8 gap-y-3 pt-2 xl:grid-cols-2">
      <section aria-label="Offsets">
        <table className="w-full">
          <caption className="text-left text-lg font-semibold">
            {kind === 'mill' ? 'Work offsets' : 'Tool geometry'}, {unitSymbol(unit)}
          </caption>
          <thead>
            <tr className="border-b border-ink-soft text-left">
              <th scope="col">{kind === 'mill' ? 'Offset' : 'Tool'}</th>
              {axes.map((axis) => (
                <th key={axis} scope="col" className="text-right">
                  {axis}
                </th>
              ))}
              {rotary && (
                <th scope="col" className="text-right">
                  {rotary.word}, °
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {names.map((name) => (
              <tr key={name} className="border-b border-rule">
                <th scope="row" className="text-left">
                  {name}
                </th>
                {axes.map((axis) => (
                  <td key={axis} className="digits py-1 text-right text-xl">
                    {length(offsets[name]?.[axis])}
                  </td>
                ))}
                {rotary && (
                  <td className="digits py-1 text-right text-xl">
                    {rotaryZeros[name] === undefined ? '-' : fixedDigits(rotaryZeros[name], 3)}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
        {kind === 'lathe' && (
          <p className="flex items-baseline gap-3 py-1">
            Work shift, Z of {SHIFT}
            <span className="digits text-xl" data-testid="work-shift">
              {length(offsets[SHIFT]?.Z)}
            </span>
          </p>
        )}
        {names.length > 1 && (
          <PickOne
            label={kind === 'mill' ? 'Offset' : 'Tool'}
            value={offset}
            onChange={setOffset}
            options={names.map((name) => [name, name] as const)}
          />
        )}
        <div className="grid gap-x-4 sm:grid-cols-2">
          {axes.map((axis) => (
            <KeyIn
              key={axis}
              label={`${axis} of ${offset}`}
              unit={unit}
              onKey={(value) => work({ do: 'key-offset', offset, axis, value })}
            />
          ))}
          {kind === 'lathe' && (
            <KeyIn
              label={`Z of ${SHIFT}`}
              unit={unit}
              onKey={(value) => work({ do: 'key-offset', offset: SHIFT, axis: 'Z', value })}
            />
          )}
          {rotary && (
            <KeyIn
              label={`${rotary.word} of ${offset}`}
              unit="deg"
              onKey={(value) => work({ do: 'key-offset', offset, axis: rotary.word, value })}
            />
          )}
        </div>
      </section>
      {kind === 'mill' && (
        <section aria-label="Tool lengths">
          <table className="w-full">
            <caption className="text-left text-lg font-semibold">Tool lengths, {unitSymbol(unit)}</caption>
            <thead>
              <tr className="border-b border-ink-soft text-left">
                <th scope="col">Tool</th>
                <th scope="col" className="text-right">
                  keyed in
                </th>
                <th scope="col" className="text-right">
                  by the presetter
                </th>
              </tr>
            </thead>
            <tbody>
              {tools.map(({ number, name, length: preset }) => (
                <tr key={number} className="border-b border-rule">
                  <th scope="row" className="text-left">
                    T{number} <span className="font-normal text-ink-soft">{name}</span>
                  </th>
                  <td className="digits py-1 text-right text-xl">{length(lengths[number])}</td>
                  <td className="digits py-1 text-right text-lg">{length(preset)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="flex flex-wrap items-start gap-x-4">
            <PickOne
              label="Tool"
              value={String(tool)}
              onChange={(value) => setTool(Number(value))}
              options={tools.map(({ number }) => [String(number), `T${number}`] as const)}
            />
            <div className="min-w-60 flex-1">
              <KeyIn
                label={`Length of T${tool}`}
                unit={unit}
                onKey={(value) => work({ do: 'key-length', tool, length: value })}
              />
            </div>
          </div>
          <Button
            onClick={() =>
              work(
                ...tools.flatMap(({ number, length: preset }) =>
                  preset === null ? [] : [{ do: 'key-length' as const, tool: number, length: preset }],
                ),
              )
            }
          >
            Key in all as the presetter says
          </Button>
        </section>
      )}
      <Variables variables={variables} />
    </div>
  )
}

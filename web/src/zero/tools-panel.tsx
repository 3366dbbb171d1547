import { verdictOf } from '@dogleg/core/fact'
import {
  judgeToolLength,
  pickupSettings,
  readToolLengthDraft,
  type ToolLengthDraft,
  type ToolLengthField,
  toolLength,
  toolLengthDraft,
} from '@dogleg/core/pickup'
import { convertLength, formatLength, unitSymbol } from '@dogleg/core/quantity'
import type { Traveler } from '@dogleg/core/traveler'
import { Hourglass } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { PositionEntry } from '../positions/position-entry.tsx'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { When } from '../ui/when.tsx'
import { SetProgram } from './set-program.tsx'
import { SetterDrawing } from './setter-drawing.tsx'
import { SetterLine, SetterPanel, setterInUse, useSetter } from './setter-panel.tsx'
import { ToolDrawing } from './tool-drawing.tsx'

/** The tool whose length is asked for first, but for the one that was just measured: its number as it is typed, or nothing. */
const toolAsked = ({ steps }: Traveler, measured?: number): string =>
  steps
    .find(({ step }) => step === 'zero')
    ?.tasks.find(({ part, about }) => part === 'tools' && about !== `T${measured}`)
    ?.about?.slice(1) ?? ''

/** How a length is had, over its form. */
const HOW = {
  'gauge-line': 'From the gauge line: measured against a tool whose length is known, on the same block.',
  'master-tool': 'Against a master tool: the difference on the same block; the master is 0.',
  setter: 'By the height of the setter: calibrated with a master, and again after a knock.',
  shown: 'The control has measured it itself, on its setter: as its tool page shows it.',
}
/** What is read with the tool on what it is measured on. */
const MEASURED: Record<ToolLengthDraft['on'], [label: string, hint: string]> = {
  block: ['Machine Z, this tool on the block', 'Block in last; never slide a carbide tool on.'],
  setter: ['Machine Z at the trigger', 'Spindle stopped; down slowly.'],
  shown: ['Length on the tool page', 'After the macro has run.'],
}

/** Lengths of the machine's tools: one measured against another, and the table that stands. */
export function ToolsPanel() {
  const { setup, lengths: tools, traveler } = useOpenSetup()
  const { unit, machine } = setup
  const fromGauge = machine.toolLengths === 'gauge-line'
  const empty = (last?: ToolLengthDraft): ToolLengthDraft => ({
    tool: '',
    machinePosition: '',
    // The block stays where it is for the next tool.
    masterPosition: last?.masterPosition ?? '',
    masterLength: last?.masterLength ?? (fromGauge ? '' : '0'),
    on: last?.on ?? 'block',
  })
  const setter = useSetter()
  const [typed, change, clear] = useKept<ToolLengthDraft>(`${setup.id}.tool`, toolLengthDraft, () => empty())
  // The one that is asked for first stands there until another is typed, or its reading. It does not change under the hand that
  // touches it off, whatever another tablet records meanwhile.
  const [ownTool, setOwnTool] = useState(false)
  const [asked, setAsked] = useState(() => toolAsked(traveler))
  const draft = useMemo(
    () => (ownTool || typed.tool !== '' ? typed : { ...typed, tool: asked }),
    [ownTool, typed, asked],
  )
  const lastMaster = tools.map(({ entry }) => entry).sort((a, b) => b.at.localeCompare(a.at))[0]?.masterLength
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readToolLengthDraft(draft, unit, setter && setterInUse(setter))
    if (!read.ok) return read
    const answer = toolLength(read.reading, pickupSettings(machine, unit))
    const last = tools.find(({ tool }) => tool === read.reading.tool)?.length.value
    const entry = {
      kind: 'tool-length' as const,
      ...read.reading,
      machine: { id: machine.id, version: machine.version },
    }
    return {
      ...read,
      answer,
      entry,
      findings: judgeToolLength(read.reading, answer, { machine, unit, last }),
    }
  }, [draft, unit, machine, tools, setter])
  const [calibrates, setCalibrates] = useState(false)
  const onSetter = draft.on === 'setter'
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const masterKey = takeKnown({
    label: 'Take the length of the last master',
    length: lastMaster && convertLength(lastMaster.value, lastMaster.unit, unit),
    unit,
    value: draft.masterLength,
    onTake: (masterLength) => change({ ...draft, masterLength }),
  })
  const field = (name: ToolLengthField, label: string, hint: string) => {
    const told = problems[name]
    const common = {
      label,
      value: draft[name],
      onChange: (text: string) => {
        if (name === 'tool') setOwnTool(true)
        change({ ...draft, [name]: text })
      },
      suffix: name === 'tool' ? '' : unitSymbol(unit),
      wrong: told && !told.empty ? told.says : undefined,
      hint,
      maxLength: name === 'tool' ? 10 : 400,
    }
    const isPosition = name === 'masterPosition' || (name === 'machinePosition' && draft.on !== 'shown')
    return isPosition ? (
      <PositionEntry {...common} axis="Z" unit={unit} />
    ) : (
      <TextEntry {...common} {...(name === 'masterLength' ? masterKey : {})} />
    )
  }
  const submit = () => {
    if (!live.ok || stopped) return
    const { entry } = live
    signed(() => {
      record(setup.id, entry)
      clear(empty(draft))
      setOwnTool(false)
      setAsked(toolAsked(traveler, entry.tool))
    })
  }
  if (calibrates) return <SetterPanel setter={setter} onDone={() => setCalibrates(false)} />
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_20rem_1fr]">
      <form
        aria-label="Tool length"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <Choice
          label="Measured on"
          quiet
          value={draft.on}
          onChange={(on) => change({ ...draft, on })}
          options={[
            { value: 'block', label: 'a block' },
            { value: 'setter', label: 'a setter' },
            { value: 'shown', label: 'its macro' },
          ]}
        />
        <p className="pb-1">{HOW[draft.on === 'block' ? machine.toolLengths : draft.on]}</p>
        {onSetter && <SetterLine setter={setter} onCalibrate={() => setCalibrates(true)} />}
        {field('tool', 'Tool', '')}
        {field('machinePosition', ...MEASURED[draft.on])}
        {draft.on === 'block' && (
          <>
            {field('masterPosition', 'Machine Z, master on the same block', 'Stays for the next tool.')}
            {field(
              'masterLength',
              fromGauge ? 'Length of the master' : 'Length of the master, 0',
              fromGauge ? 'From the gauge line to its tip.' : '',
            )}
          </>
        )}
        {live.ok && !stopped && <GoesStale entry={live.entry} />}
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.ok || stopped}
          className="min-h-14 w-full text-lg"
        >
          Record the length{live.ok ? ` of T${live.reading.tool}` : ''}
        </Button>
      </form>
      <div className="min-h-80">
        {draft.on !== 'block' ? (
          <SetterDrawing
            unit={unit}
            height={setter?.height.value}
            at={live.ok && setter ? live.answer.value + setter.height.value : undefined}
            name={draft.tool.trim() ? `T${draft.tool.replace(/\D/g, '')}` : 'this tool'}
            length={live.ok ? live.answer.value : undefined}
          />
        ) : (
          <ToolDrawing draft={draft} unit={unit} length={live.ok ? live.answer.value : undefined} />
        )}
      </div>
      <section aria-label="Tool table" className="space-y-4 md:col-span-2 xl:col-span-1">
        {live.ok && (
          <AnswerPanel
            title={`T${live.reading.tool}, not recorded yet`}
            answer={live.answer}
            findings={live.findings}
          />
        )}
        {draft.on !== 'block' && <SetProgram />}
        <h2 className="text-lg font-semibold">Tools of {machine.name}</h2>
        {tools.length === 0 && <p className="text-ink-soft">No length has been measured with Dogleg yet.</p>}
        {tools.length > 0 && (
          <table className="w-full">
            <thead>
              <tr className="border-b border-ink-soft text-left">
                <th scope="col" className="py-1 pr-2">
                  Tool
                </th>
                <th scope="col" className="py-1 pr-2">
                  Length, {unitSymbol(unit)}
                </th>
                <th scope="col" className="py-1 pr-2">
                  ±
                </th>
                <th scope="col" className="py-1">
                  Measured
                </th>
              </tr>
            </thead>
            <tbody>
              {tools.map(({ tool, length, entry, freshness, findings }) => (
                <tr
                  key={tool}
                  className={`border-b border-rule align-baseline ${freshness.state === 'stale' ? 'hatched' : ''}`}
                >
                  <th scope="row" className="digits py-1 pr-2 text-left text-xl">
                    T{tool}
                  </th>
                  <td className="digits py-1 pr-2 text-2xl">{formatLength(length.value, unit)}</td>
                  <td className="digits py-1 pr-2">{formatLength(length.doubt.value, unit)}</td>
                  <td className="py-1 text-sm">
                    {entry.by}, <When at={entry.at} />
                    {freshness.state === 'stale' && (
                      <span className="flex items-center gap-1 font-semibold">
                        <Hourglass aria-hidden size={14} /> stale: {freshness.cause.says}
                      </span>
                    )}
                    {freshness.state === 'fresh' && findings[0] && (
                      <span className="block">{findings[0].says}</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
    </div>
  )
}

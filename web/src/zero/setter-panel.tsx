import { verdictOf, worstFirst } from '@dogleg/core/fact'
import {
  judgeSetter,
  pickupSettings,
  readSetterDraft,
  SETTER_FIELDS,
  type SetterDraft,
  type SetterField,
  type SetterInUse,
  setterAge,
  setterDraft,
  setterHeight,
  startingSetter,
} from '@dogleg/core/pickup'
import { convertLength, formatLength, unitSymbol } from '@dogleg/core/quantity'
import { deriveSetter, type SetterFact } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { now } from '../log/clock.ts'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { PositionEntry } from '../positions/position-entry.tsx'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { Findings } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'
import { SetterDrawing } from './setter-drawing.tsx'

/** The tool setter of the machine, as it was calibrated last. */
export function useSetter(): SetterFact | undefined {
  const {
    machineEntries,
    setup: { machine, unit },
  } = useOpenSetup()
  return useMemo(() => deriveSetter(machineEntries, machine, unit), [machineEntries, machine, unit])
}

/** What a length that is measured with it rests on; one that no longer holds measures nothing. */
export const setterInUse = ({ entry, height, freshness }: SetterFact): SetterInUse | undefined =>
  freshness.state === 'stale'
    ? undefined
    : { entry: entry.id, height: height.value, doubt: height.doubt.value }

/** How the setter stands, over the form that uses it, with the way to calibrate it. */
export function SetterLine({
  setter,
  onCalibrate,
}: {
  setter: SetterFact | undefined
  onCalibrate: () => void
}) {
  const { unit } = useOpenSetup().setup
  const stale = setter?.freshness.state === 'stale'
  const findings = setter ? [...setter.findings, ...setterAge(Date.parse(setter.entry.at), now())] : []
  return (
    <div className="space-y-1">
      <div className={`flex items-center justify-between gap-2 ${stale ? 'hatched px-1' : ''}`}>
        {setter ? (
          <p className="leading-5">
            <span className="digits text-lg font-semibold">{formatLength(setter.height.value, unit)}</span>{' '}
            <span className="digits">±{formatLength(setter.height.doubt.value, unit)}</span>
            <span className="block text-sm">
              {stale && setter.freshness.state === 'stale'
                ? `stale: ${setter.freshness.cause.says}`
                : setter.entry.by}
              , <When at={setter.entry.at} />
            </span>
          </p>
        ) : (
          <p>Nobody has calibrated the setter yet.</p>
        )}
        <Button onClick={onCalibrate} className="shrink-0">
          Calibrate it
        </Button>
      </div>
      {!stale && <Findings findings={findings} />}
    </div>
  )
}

const LABELS: Record<SetterField, readonly [label: string, hint: string]> = {
  machinePosition: ['Machine Z at the trigger', 'With the master; spindle stopped.'],
  masterLength: ['Length of the master', 'As lengths are counted here.'],
  masterWithin: ['The master is known within', 'By its own certificate or measuring.'],
  height: ['Height of the setter', 'Machine Z of a tool of no length.'],
  heightWithin: ['It is known within', 'How far off it may be.'],
}

/** Calibrating the setter: with a master, or as its height is known. */
export function SetterPanel({ setter, onDone }: { setter: SetterFact | undefined; onDone: () => void }) {
  const { setup, lengths } = useOpenSetup()
  const { unit, machine } = setup
  const [draft, change, clear] = useKept<SetterDraft>(`${setup.id}.setter`, setterDraft, () => ({
    ...startingSetter(unit),
    masterLength: machine.toolLengths === 'master-tool' ? '0' : '',
  }))
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readSetterDraft(draft, unit)
    if (!read.ok) return read
    const answer = setterHeight(read.value, pickupSettings(machine, unit))
    const last = setter && { value: setter.height.value, doubt: setter.height.doubt.value }
    return { ...read, answer, findings: judgeSetter(read.value, answer, { machine, unit, last }) }
  }, [draft, unit, machine, setter])
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const measuredWith = lengths.filter(({ entry }) => setter && entry.setter?.entry === setter.entry.id)
  const submit = () => {
    if (!live.ok || stopped) return
    signed(() => {
      record(setup.id, {
        kind: 'setter',
        reading: live.value,
        machine: { id: machine.id, version: machine.version },
      })
      clear()
      onDone()
    })
  }
  const field = (name: SetterField) => {
    const [label, hint] = LABELS[name]
    const told = problems[name]
    const common = {
      label,
      hint,
      value: draft[name],
      onChange: (text: string) => change({ ...draft, [name]: text }),
      ...(told && !told.empty ? { wrong: told.says } : {}),
    }
    return name === 'machinePosition' ? (
      <PositionEntry
        key={name}
        {...common}
        axis="Z"
        unit={unit}
        suffix={unitSymbol(unit)}
        maxLength={400}
        understood={undefined}
      />
    ) : (
      <LengthEntryField key={name} {...common} unit={unit} />
    )
  }
  const length =
    live.ok && live.value.how === 'master'
      ? convertLength(live.value.masterLength.value, live.value.masterLength.unit, unit)
      : undefined
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_20rem_1fr]">
      <form
        aria-label="Tool setter"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <Choice
          label="Its height"
          quiet
          value={draft.how}
          onChange={(how) => change({ ...draft, how })}
          options={[
            { value: 'master', label: 'with a master' },
            { value: 'typed', label: 'it is known' },
          ]}
        />
        {SETTER_FIELDS[draft.how].map(field)}
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.ok || stopped}
          className="min-h-14 w-full text-lg"
        >
          Record the setter
        </Button>
        <Button onClick={onDone} className="w-full">
          Back to the tools
        </Button>
        <MissingLine problems={problems} stopped={stopped} />
      </form>
      <div className="min-h-80">
        <SetterDrawing
          unit={unit}
          height={live.ok ? live.answer.value : setter?.height.value}
          at={live.ok && length !== undefined ? live.answer.value + length : undefined}
          name="master"
          length={length}
        />
      </div>
      <div className="space-y-3 md:col-span-2 xl:col-span-1">
        {live.ok ? (
          <AnswerPanel
            title="Height of the setter, not recorded yet"
            answer={live.answer}
            findings={live.findings}
          />
        ) : setter ? (
          <AnswerPanel
            title="Height of the setter, as recorded"
            answer={setter.height}
            findings={worstFirst([...setter.findings, ...setterAge(Date.parse(setter.entry.at), now())])}
            fact={setter}
          />
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">A tool setter</h2>
            <p>
              Touch a master of known length on it, spindle stopped. Its height then measures every tool,
              until an alarm, a homing or a knock makes it doubtful.
            </p>
          </div>
        )}
        {measuredWith.length > 0 && (
          <p>Measured with it as it stands: {measuredWith.map(({ tool }) => `T${tool}`).join(', ')}.</p>
        )}
      </div>
    </div>
  )
}

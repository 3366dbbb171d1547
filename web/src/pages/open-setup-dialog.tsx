import { asTyped, type LengthUnit, readLength, typedInOther, unitSymbol } from '@dogleg/core/quantity'
import { inForce, type Reference } from '@dogleg/core/setup'
import type { SetupSummary } from '@dogleg/core/traveler'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useSigned } from '../log/operator-gate.tsx'
import { problemsOf, record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { Select } from '../ui/select.tsx'
import { sayWhen } from '../ui/when.tsx'
import { ReadSetupFile } from './read-setup-file.tsx'
import { useSetUpAgain } from './set-up-again.ts'

interface OpenSetupDialogProps {
  reference: Reference
  /** The machine that was chosen already. */
  machineId: string
  /** The setups on each machine, the newest first: one of them can be set up again. */
  setupsOf: (machineId: string) => readonly SetupSummary[]
  onClose: () => void
}

/** Opens a setup: what it is, on which machine, in which unit, and how close part zero must be. */
export function OpenSetupDialog({ reference, machineId: chosen, setupsOf, onClose }: OpenSetupDialogProps) {
  const [title, setTitle] = useState('')
  const [machineId, setMachineId] = useState(chosen)
  const machine = reference.machines.find(({ id }) => id === machineId)
  const [chosenUnit, setChosenUnit] = useState<LengthUnit>()
  const unit = chosenUnit ?? machine?.unit ?? 'inch'
  const [tolerance, setTolerance] = useState('')
  /** The unit that the tolerance is asked about. */
  const [changing, setChanging] = useState<LengthUnit>()
  const [told, setTold] = useState<Record<string, string>>({})
  const signed = useSigned()
  const navigate = useNavigate()
  const [again, setAgain] = useState('')
  const { setUpAgain, asking, wrong, forget } = useSetUpAgain()

  const takeUnit = (next: LengthUnit, typed: string) => {
    setChosenUnit(next)
    setTolerance(typed)
    setChanging(undefined)
  }
  /** Takes another unit; where a tolerance is typed, only once it is said what becomes of it. */
  const askUnit = (next: LengthUnit) => {
    const read = readLength(tolerance, unit)
    if (next === unit) setChanging(undefined)
    else if (read.ok && read.value !== 0) {
      setChosenUnit(unit)
      setChanging(next)
    } else setChosenUnit(next)
  }
  const before = setupsOf(machineId).find(({ id }) => id === again)
  const converted = (changing && typedInOther(tolerance, unit, changing)) ?? ''

  const submit = () => {
    const read = readLength(tolerance, unit)
    if (!machine) return
    const entry = {
      kind: 'opened' as const,
      title: title.trim(),
      machine: { id: machine.id, version: machine.version },
      unit,
      tolerance: read.ok ? { text: read.text, value: read.value, unit } : asTyped(1, unit),
    }
    const problems = { ...problemsOf(undefined, entry), ...(read.ok ? {} : { tolerance: read.says }) }
    setTold(problems)
    if (Object.keys(problems).length > 0) return
    signed(() => navigate(`/setups/${record(undefined, entry).id}`))
  }

  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Open a setup"
      says="One part, held one way, on one machine. Everything that is measured for it goes into its logbook."
    >
      <form
        className="space-y-2"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          if (again === '') submit()
          else void setUpAgain(again, reference)
        }}
      >
        <label className="block font-semibold">
          Machine
          <Select
            value={machineId}
            onChange={(event) => {
              const next = reference.machines.find(({ id }) => id === event.target.value)
              setMachineId(event.target.value)
              setAgain('')
              // Its display tells the unit, unless that was said; what is typed does not become another length with it.
              if (chosenUnit === undefined && next && tolerance.trim() !== '') askUnit(next.unit)
            }}
            className="mt-0.5 block w-full font-normal"
          >
            {inForce(reference, 'machines', machineId).map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </label>
        <label className="block font-semibold">
          The job
          <Select
            value={again}
            onChange={({ target }) => {
              setAgain(target.value)
              setTold({})
              forget()
            }}
            className="mt-0.5 block w-full font-normal"
          >
            <option value="">a new one</option>
            {setupsOf(machineId).map(({ id, title: of, lastAt }) => (
              <option key={id} value={id}>
                {of} again, last {sayWhen(lastAt)}
              </option>
            ))}
          </Select>
        </label>
        {again === '' ? (
          <>
            <TextEntry
              words
              label="Part and side"
              value={title}
              onChange={(text) => {
                setTitle(text)
                setTold({})
              }}
              wrong={told.title}
            />
            <Choice
              label="Lengths are in"
              value={unit}
              onChange={askUnit}
              options={[
                { value: 'inch', label: 'inch' },
                { value: 'mm', label: 'mm' },
              ]}
            />
            {changing && (
              <fieldset className="flex flex-wrap gap-2 py-1">
                <legend className="sr-only">The tolerance in the other unit</legend>
                <Button onClick={() => takeUnit(changing, converted)}>
                  Convert it: {converted} {unitSymbol(changing)}
                </Button>
                <Button onClick={() => takeUnit(changing, tolerance)}>
                  It was {tolerance} {unitSymbol(changing)}
                </Button>
              </fieldset>
            )}
            <LengthEntryField
              label="Tightest position tolerance"
              unit={unit}
              value={tolerance}
              onChange={(text) => {
                setTolerance(text)
                setChanging(undefined)
                setTold({})
              }}
              wrong={told.tolerance}
              hint={`From the drawing: how far off part zero may be. Unsure: ${unit === 'inch' ? '.005' : '.1'}.`}
            />
          </>
        ) : (
          <p className="py-2">
            How it was held and measured, its programs and plans are taken over from the last time. Everything
            that was measured is stale until it is measured again; the last values stand beside it.{' '}
            <Link
              to={`/jobs/${encodeURIComponent(before?.title ?? '')}`}
              className="font-semibold whitespace-nowrap underline underline-offset-4"
            >
              How it went before
            </Link>
          </p>
        )}
        {wrong && (
          <p role="alert" className="font-semibold">
            {wrong}
          </p>
        )}
        <Button
          type="submit"
          look="primary"
          data-record
          className="min-h-14 w-full text-lg"
          disabled={asking}
        >
          {again === '' ? 'Open it' : 'Set it up again'}
        </Button>
      </form>
      <ReadSetupFile />
    </Dialog>
  )
}

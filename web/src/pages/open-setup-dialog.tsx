import { asTyped, type LengthUnit, readLength } from '@dogleg/core/quantity'
import type { Reference } from '@dogleg/core/setup'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useSigned } from '../log/operator-gate.tsx'
import { problemsOf, record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { Select } from '../ui/select.tsx'

interface OpenSetupDialogProps {
  reference: Reference
  /** The machine that was chosen already. */
  machineId: string
  onClose: () => void
}

/** Opens a setup: what it is, on which machine, in which unit, and how close part zero must be. */
export function OpenSetupDialog({ reference, machineId: chosen, onClose }: OpenSetupDialogProps) {
  const [title, setTitle] = useState('')
  const [machineId, setMachineId] = useState(chosen)
  const machine = reference.machines.find(({ id }) => id === machineId)
  const [chosenUnit, setChosenUnit] = useState<LengthUnit>()
  const unit = chosenUnit ?? machine?.unit ?? 'inch'
  const [tolerance, setTolerance] = useState('')
  const [told, setTold] = useState<Record<string, string>>({})
  const signed = useSigned()
  const navigate = useNavigate()

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
          submit()
        }}
      >
        <TextEntry
          label="Part and side"
          value={title}
          onChange={(text) => {
            setTitle(text)
            setTold({})
          }}
          wrong={told.title}
        />
        <label className="block font-semibold">
          Machine
          <Select
            value={machineId}
            onChange={(event) => setMachineId(event.target.value)}
            className="mt-0.5 block w-full font-normal"
          >
            {reference.machines.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </label>
        <Choice
          label="Lengths are in"
          value={unit}
          onChange={setChosenUnit}
          options={[
            { value: 'inch', label: 'inch' },
            { value: 'mm', label: 'mm' },
          ]}
        />
        <LengthEntryField
          label="How far off part zero may be"
          unit={unit}
          value={tolerance}
          onChange={(text) => {
            setTolerance(text)
            setTold({})
          }}
          wrong={told.tolerance}
          hint="The tightest position tolerance from it. An edge finder is good for about a thousandth."
        />
        <Button type="submit" look="primary" data-record className="min-h-14 w-full text-lg">
          Open it
        </Button>
      </form>
    </Dialog>
  )
}

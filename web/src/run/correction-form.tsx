import { formatLength, readLength } from '@dogleg/core/quantity'
import { type GaugeSeries, toMiddle, type ValueSeries } from '@dogleg/core/setup'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'

/** A correction that somebody made by hand: the chart begins a new run after it. */
export function CorrectionForm({ series, value }: { series: GaugeSeries; value: ValueSeries }) {
  const { setup } = useOpenSetup()
  const signed = useSigned()
  const [text, setText] = useState('')
  const { of, parts } = value
  const last = parts.at(-1)
  if (of.unit === 'deg' || !last) return null
  const read = readLength(text, of.unit)
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 content-center font-semibold">It was corrected by hand</summary>
      <form
        aria-label="Correction"
        className="space-y-1"
        onSubmit={(event) => {
          event.preventDefault()
          if (!read.ok || of.unit === 'deg') return
          const amount = { text: read.text, value: read.value, unit: of.unit }
          signed(() => {
            record(setup.id, {
              kind: 'corrected',
              plan: series.title,
              key: of.key,
              gauged: last.entry.id,
              part: last.part,
              label: last.label,
              tool: of.tool,
              amount,
              note: '',
            })
            setText('')
          })
        }}
      >
        <LengthEntryField
          label={`${of.key} should move by`}
          unit={of.unit}
          value={text}
          onChange={setText}
          hint={`The last part is ${formatLength(toMiddle(value), of.unit, { plus: true })} from the middle.`}
          narrow
        />
        <Button type="submit" disabled={!read.ok} className="w-full">
          Enter it after part {last.label}
        </Button>
      </form>
    </details>
  )
}

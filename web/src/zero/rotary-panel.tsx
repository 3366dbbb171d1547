import type { OffsetState } from '@dogleg/core/setup'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { Choice } from '../ui/choice.tsx'
import { RotaryCentre } from './rotary-centre.tsx'
import { RotaryFlat } from './rotary-flat.tsx'

/** The rotary's zero: its centre line in Y and Z, and its angle from a flat of the part. */
export function RotaryPanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { rotary } = setup.machine
  const [part, setPart] = useState<'centre' | 'flat'>(
    setup.centre?.freshness.state === 'fresh' ? 'flat' : 'centre',
  )
  if (!rotary) return null
  const choice = (
    <Choice
      label="What is found"
      quiet
      value={part}
      onChange={setPart}
      options={[
        { value: 'centre', label: 'centre line' },
        { value: 'flat', label: `${rotary.word} from a flat` },
      ]}
    />
  )
  return part === 'centre' ? (
    <RotaryCentre offset={offset} rotary={rotary}>
      {choice}
    </RotaryCentre>
  ) : (
    <RotaryFlat offset={offset} rotary={rotary}>
      {choice}
    </RotaryFlat>
  )
}

import { labelOf, type ProbeDraft, type ProbeField } from '@dogleg/core/probe'
import { formatLength, type LengthUnit, unitSymbol } from '@dogleg/core/quantity'
import type { ToolFact } from '@dogleg/core/setup'
import { PositionEntry, TakeAll } from '../positions/position-entry.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import { KnownKey } from '../ui/known-key.tsx'

interface WholeFieldsProps {
  draft: ProbeDraft
  unit: LengthUnit
  /** The measured length of the machine's probe, where there is one. */
  probe: ToolFact | undefined
  lit: ProbeField | undefined
  onLit: (field: ProbeField) => void
  onChange: (part: Partial<ProbeDraft>) => void
}

const STARTS = [
  ['startX', 'X'],
  ['startY', 'Y'],
  ['startZ', 'Z'],
] as const

/** The fields of a block or a corner with its top: the part, the touches, and where the probe was put by hand. */
export function WholeFields({ draft, unit, probe, lit, onLit, onChange }: WholeFieldsProps) {
  const common = (field: ProbeField) => ({
    ...labelOf(draft.feature, field),
    value: draft[field],
    onChange: (text: string) => onChange({ [field]: text }),
    lit: lit === field,
    onFocus: () => onLit(field),
    narrow: true,
  })
  const length = (field: ProbeField) => <LengthEntryField key={field} {...common(field)} unit={unit} />
  const known = probe?.freshness.state === 'fresh' && formatLength(probe.length.value, unit)
  const probeLength = (
    <LengthEntryField
      {...common('probeLength')}
      unit={unit}
      {...(known && draft.probeLength.trim() === ''
        ? {
            action: (
              <KnownKey
                label={`Take the measured length of T${probe.tool}`}
                text={known}
                onTake={(text) => onChange({ probeLength: text })}
              />
            ),
          }
        : {})}
    />
  )
  const block = draft.feature === 'block'
  return (
    <div className="grid grid-cols-3 gap-x-2 gap-y-1">
      {block ? [length('size'), length('sizeY')] : length('inset')}
      {length('depth')}
      {!block && <span />}
      {(['x', 'y', 'top', 'gap', 'within', 'clearance'] as const).map(length)}
      {probeLength}
      <div className="col-span-2 flex items-center justify-between gap-2 pt-1">
        <p className="leading-5">
          {block
            ? 'Put the probe over the middle of the block,'
            : 'Put it over the place where the top is touched,'}{' '}
          about {unit === 'inch' ? '3/8 in' : '10 mm'} above.
        </p>
        <TakeAll
          unit={unit}
          onTake={({ X, Y, Z }) => onChange({ startX: X ?? '', startY: Y ?? '', startZ: Z ?? '' })}
        />
      </div>
      {STARTS.map(([field, axis]) => (
        <PositionEntry
          key={field}
          {...common(field)}
          axis={axis}
          unit={unit}
          suffix={unitSymbol(unit)}
          plain
          bare
        />
      ))}
    </div>
  )
}

import type { SheetDraft } from '@dogleg/core/code'
import type { Material } from '@dogleg/core/cutting'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { FilePlus2, Trash2 } from 'lucide-react'
import { type ReactNode, useId } from 'react'
import { Button } from '../ui/button.tsx'
import { Select } from '../ui/select.tsx'

interface ProgramBarProps {
  setup: Setup
  materials: readonly Material[]
  sheets: readonly SheetDraft[]
  /** The place of the one in hand. */
  at: number
  draft: SheetDraft
  /** Programs of the logbook that are not open on this tablet. */
  elsewhere: readonly SheetDraft[]
  offset: OffsetState
  canRemove: boolean
  onChoose: (at: number) => void
  onOpen: (sheet: SheetDraft) => void
  onAdd: () => void
  onRemove: () => void
  onChange: (draft: SheetDraft) => void
  onOffset: (name: string) => void
  /** What it comes to, and the key that takes it on. */
  children: ReactNode
}

/** Which program is in hand: its name and number, the material, the offset that it runs in. */
export function ProgramBar({
  setup,
  materials,
  sheets,
  at,
  draft,
  elsewhere,
  offset,
  canRemove,
  onChoose,
  onOpen,
  onAdd,
  onRemove,
  onChange,
  onOffset,
  children,
}: ProgramBarProps) {
  const ids = useId()
  const label = (name: string) => `${ids}-${name}`
  const lathe = setup.machine.kind === 'lathe'
  return (
    <div className="flex flex-wrap items-end gap-x-3 gap-y-1 py-1">
      <div>
        <label htmlFor={label('program')} className="text-sm text-ink-soft">
          Program
        </label>
        <div className="flex gap-1">
          <Select
            id={label('program')}
            value={at}
            onChange={({ target }) => {
              const kept = elsewhere.find(({ title }) => `log:${title}` === target.value)
              if (kept) onOpen(kept)
              else onChoose(Number(target.value))
            }}
            className="max-w-60"
          >
            {sheets.map((each, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: programs of a tablet are known by their place
              <option key={index} value={index}>
                {each.title || 'without a name'}
              </option>
            ))}
            {elsewhere.length > 0 && (
              <optgroup label="from the logbook">
                {elsewhere.map(({ title }) => (
                  <option key={title} value={`log:${title}`}>
                    {title}
                  </option>
                ))}
              </optgroup>
            )}
          </Select>
          <Button aria-label="New program" title="New program" className="h-12 px-3" onClick={onAdd}>
            <FilePlus2 aria-hidden size={20} />
          </Button>
          <Button
            aria-label="Put this program away"
            title="Put this program away"
            className="h-12 px-3"
            disabled={!canRemove}
            onClick={onRemove}
          >
            <Trash2 aria-hidden size={20} />
          </Button>
        </div>
      </div>
      <Small label="Name" id={label('title')} className="w-56">
        <input
          id={label('title')}
          value={draft.title}
          maxLength={60}
          onChange={({ target }) => onChange({ ...draft, title: target.value })}
          className="h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
        />
      </Small>
      <Small label="O" id={label('number')} className="w-20">
        <input
          id={label('number')}
          value={draft.number}
          maxLength={6}
          inputMode="numeric"
          onChange={({ target }) => onChange({ ...draft, number: target.value })}
          className="digits h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
        />
      </Small>
      <Small label="Material" id={label('material')}>
        <Select
          id={label('material')}
          value={draft.material}
          onChange={({ target }) => onChange({ ...draft, material: target.value })}
          className="max-w-44"
        >
          {materials.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Select>
      </Small>
      {!lathe && (
        <Small label="Offset" id={label('offset')}>
          <Select
            id={label('offset')}
            value={offset.name}
            onChange={({ target }) => onOffset(target.value)}
            className="digits"
          >
            {[...new Set([...setup.offsets.map(({ name }) => name), offset.name])].map((name) => (
              <option key={name}>{name}</option>
            ))}
          </Select>
        </Small>
      )}
      {!lathe && offset.angle && (
        <label className="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            checked={draft.turned}
            onChange={({ target }) => onChange({ ...draft, turned: target.checked })}
            className="size-6 accent-ink"
          />
          turned as it lies
        </label>
      )}
      {children}
    </div>
  )
}

function Small({
  label,
  id,
  className = '',
  children,
}: {
  label: string
  id: string
  className?: string
  children: ReactNode
}) {
  return (
    <div className={className}>
      <label htmlFor={id} className="block text-sm text-ink-soft">
        {label}
      </label>
      {children}
    </div>
  )
}

import type { SheetDraft } from '@dogleg/core/code'
import type { Material } from '@dogleg/core/cutting'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { type ReactNode, useId } from 'react'
import { KeptPicker } from '../ui/kept-picker.tsx'
import { Select } from '../ui/select.tsx'
import { SmallField } from '../ui/small-field.tsx'
import { Typed } from './typed.tsx'

interface ProgramBarProps {
  setup: Setup
  materials: readonly Material[]
  sheets: readonly SheetDraft[]
  /** The place of the one in hand. */
  at: number
  /** Programs of the logbook that are not open on this tablet. */
  elsewhere: readonly SheetDraft[]
  offset: OffsetState
  canRemove: boolean
  onChoose: (at: number) => void
  onOpen: (sheet: SheetDraft) => void
  onAdd: () => void
  onRemove: () => void
  onChange: (fields: Partial<SheetDraft>) => void
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
      <KeptPicker
        label="Program"
        titles={sheets.map(({ title }) => title)}
        at={at}
        elsewhere={elsewhere.map(({ title }) => title)}
        canRemove={canRemove}
        onChoose={onChoose}
        onOpen={(index) => {
          const kept = elsewhere[index]
          if (kept) onOpen(kept)
        }}
        onAdd={onAdd}
        onRemove={onRemove}
        className="max-w-60"
      />
      <SmallField label="Name" id={label('title')} className="w-56">
        <Typed field="title">
          {(title) => (
            <input
              id={label('title')}
              value={title}
              maxLength={60}
              onChange={({ target }) => onChange({ title: target.value })}
              className="h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
            />
          )}
        </Typed>
      </SmallField>
      <SmallField label="O" id={label('number')} className="w-20">
        <Typed field="number">
          {(number) => (
            <input
              id={label('number')}
              value={number}
              maxLength={6}
              inputMode="numeric"
              onChange={({ target }) => onChange({ number: target.value })}
              className="digits h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
            />
          )}
        </Typed>
      </SmallField>
      <SmallField label="Material" id={label('material')}>
        <Typed field="material">
          {(material) => (
            <Select
              id={label('material')}
              value={material}
              onChange={({ target }) => onChange({ material: target.value })}
              className="max-w-44"
            >
              <option value="" disabled>
                choose
              </option>
              {materials.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Select>
          )}
        </Typed>
      </SmallField>
      {!lathe && (
        <SmallField label="Offset" id={label('offset')}>
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
        </SmallField>
      )}
      {!lathe && offset.angle && (
        <Typed field="turned">
          {(turned) => (
            <label className="flex min-h-12 items-center gap-2">
              <input
                type="checkbox"
                checked={turned}
                onChange={({ target }) => onChange({ turned: target.checked })}
                className="size-6 accent-ink"
              />
              turned as it lies
            </label>
          )}
        </Typed>
      )}
      {children}
    </div>
  )
}

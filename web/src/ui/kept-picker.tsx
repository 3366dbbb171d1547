import { FilePlus2, Trash2 } from 'lucide-react'
import { useId } from 'react'
import { Button } from './button.tsx'
import { Select } from './select.tsx'

interface KeptPickerProps {
  /** What is chosen: 'Program', 'Plan'. */
  label: string
  titles: readonly string[]
  at: number
  /** Of the logbook, not open on this tablet. */
  elsewhere: readonly string[]
  canRemove: boolean
  onChoose: (at: number) => void
  /** Opens one of `elsewhere`, by its place there. */
  onOpen: (index: number) => void
  onAdd: () => void
  onRemove: () => void
  className?: string
}

/** Which one of several that are kept on the tablet is in hand; a new one, and putting one away. */
export function KeptPicker(props: KeptPickerProps) {
  const { label, titles, at, elsewhere, canRemove, onChoose, onOpen, onAdd, onRemove, className } = props
  const id = useId()
  const noun = label.toLowerCase()
  return (
    <div>
      <label htmlFor={id} className="text-sm text-ink-soft">
        {label}
      </label>
      <div className="flex gap-1">
        <Select
          id={id}
          value={at}
          onChange={({ target }) => {
            const [, kept] = /^log:(\d+)$/.exec(target.value) ?? []
            if (kept === undefined) onChoose(Number(target.value))
            else onOpen(Number(kept))
          }}
          className={className}
        >
          {titles.map((title, index) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: what a tablet keeps is known by its place
            <option key={index} value={index}>
              {title || 'without a name'}
            </option>
          ))}
          {elsewhere.length > 0 && (
            <optgroup label="from the logbook">
              {elsewhere.map((title, index) => (
                <option key={title} value={`log:${index}`}>
                  {title}
                </option>
              ))}
            </optgroup>
          )}
        </Select>
        <Button aria-label={`New ${noun}`} title={`New ${noun}`} className="h-12 px-3" onClick={onAdd}>
          <FilePlus2 aria-hidden size={20} />
        </Button>
        <Button
          aria-label={`Put this ${noun} away`}
          title={`Put this ${noun} away`}
          className="h-12 px-3"
          disabled={!canRemove}
          onClick={onRemove}
        >
          <Trash2 aria-hidden size={20} />
        </Button>
      </div>
    </div>
  )
}

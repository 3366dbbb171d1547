import {
  FEATURE_KINDS,
  FEATURE_NAMES,
  type FeatureKind,
  type GaugePlanDraft,
  MOST_FEATURES,
} from '@dogleg/core/gauge'
import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from 'lucide-react'
import { useId, useState } from 'react'
import { Button } from '../ui/button.tsx'
import { intoView } from '../ui/into-view.ts'
import { Select } from '../ui/select.tsx'

interface FeatureListProps {
  features: GaugePlanDraft['features']
  chosen: string | undefined
  /** Features that are not complete, and those that something says stop about. */
  incomplete: ReadonlySet<string>
  stopped: ReadonlySet<string>
  /** Place in the order of the program, and what leaving it out would save, in words. */
  order: ReadonlyMap<string, number>
  saves: ReadonlyMap<string, string>
  /** What can be added. */
  kinds: readonly FeatureKind[]
  onChoose: (id: string) => void
  onAdd: (what: FeatureKind) => void
  onMove: (id: string, by: -1 | 1) => void
  onCopy: (id: string) => void
  onRemove: (id: string) => void
}

/** What is gauged, and what each would save. */
export function FeatureList(props: FeatureListProps) {
  const { features, chosen, incomplete, stopped, order, saves, kinds } = props
  const [adding, setAdding] = useState<FeatureKind>(kinds[0] ?? 'hand')
  const id = useId()
  const place = features.findIndex((each) => each.id === chosen)
  const full = features.length >= MOST_FEATURES
  const icon = (label: string, disabled: boolean, does: () => void, Icon: typeof Copy) => (
    <Button aria-label={label} title={label} className="px-0" disabled={disabled} onClick={does}>
      <Icon aria-hidden size={20} />
    </Button>
  )
  return (
    <section
      aria-label="What is gauged"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 lg:block lg:space-y-1"
    >
      <ol className="flex min-w-52 flex-1 flex-wrap gap-1 lg:block lg:max-h-[19rem] lg:space-y-1 lg:overflow-y-auto">
        {features.map(({ id: own, draft }) => {
          const state = incomplete.has(own)
            ? 'not complete'
            : stopped.has(own)
              ? 'stop'
              : (saves.get(own) ?? '')
          return (
            <li key={own} className="min-w-40 flex-1 lg:min-w-0">
              <button
                type="button"
                ref={own === chosen ? intoView : null}
                aria-pressed={own === chosen}
                onClick={() => props.onChoose(own)}
                className="flex min-h-14 w-full items-center gap-2 rounded-sm border border-ink-soft px-2 text-left leading-tight aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-stock"
              >
                <span className="digits w-4 text-lg font-semibold">{order.get(own) ?? ''}</span>
                <span className="min-w-0 flex-1">
                  <span className="block font-semibold break-words">
                    {draft.name.trim() || 'no name yet'}
                  </span>
                  <span className="block text-sm">{FEATURE_NAMES[draft.what]}</span>
                </span>
                <span className="digits text-right text-sm">{state}</span>
              </button>
            </li>
          )
        })}
      </ol>
      {saves.size > 0 && <p className="text-sm text-ink-soft">Seconds: saved without it.</p>}
      {place >= 0 && (
        <fieldset className="grid grid-cols-4 gap-1 max-lg:w-52">
          <legend className="sr-only">The feature in hand</legend>
          {icon('Earlier', place <= 0, () => props.onMove(chosen as string, -1), ArrowUp)}
          {icon('Later', place >= features.length - 1, () => props.onMove(chosen as string, 1), ArrowDown)}
          {icon('Copy the feature', full, () => props.onCopy(chosen as string), Copy)}
          {icon('Take the feature out', false, () => props.onRemove(chosen as string), Trash2)}
        </fieldset>
      )}
      {full ? (
        <p>A plan holds {MOST_FEATURES} features at most. Begin another one for more.</p>
      ) : (
        <div>
          <label htmlFor={id} className="text-sm text-ink-soft">
            Another one
          </label>
          <div className="flex gap-1">
            <Select
              id={id}
              value={adding}
              onChange={({ target }) => setAdding(target.value as FeatureKind)}
              className="min-w-0 flex-1"
            >
              {FEATURE_KINDS.filter((kind) => kinds.includes(kind)).map((kind) => (
                <option key={kind} value={kind}>
                  {FEATURE_NAMES[kind]}
                </option>
              ))}
            </Select>
            <Button className="h-12 px-3" onClick={() => props.onAdd(adding)}>
              <Plus aria-hidden size={20} /> Add
            </Button>
          </div>
        </div>
      )}
    </section>
  )
}

import type { GaugePlanDraft } from '@dogleg/core/gauge'
import type { FieldProblems } from '@dogleg/core/quantity'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { type ReactNode, useId } from 'react'
import { KeptPicker } from '../ui/kept-picker.tsx'
import { Select } from '../ui/select.tsx'
import { SmallField } from '../ui/small-field.tsx'

interface PlanBarProps {
  setup: Setup
  plans: readonly GaugePlanDraft[]
  at: number
  draft: GaugePlanDraft
  problems: FieldProblems
  /** Plans of the logbook that are not open on this tablet. */
  elsewhere: readonly GaugePlanDraft[]
  offset: OffsetState
  canRemove: boolean
  /** The control can print to a log file. */
  canPrint: boolean
  /** What the empty fields come to. */
  computed: { clearance: string; feed: string }
  onChoose: (at: number) => void
  onOpen: (plan: GaugePlanDraft) => void
  onAdd: () => void
  onRemove: () => void
  onChange: (draft: GaugePlanDraft) => void
  onOffset: (name: string) => void
  children: ReactNode
}

const INPUT = 'h-12 w-full rounded-sm border bg-white/60 px-2 text-lg placeholder:text-ink-soft'

/** Which plan is in hand: its name and number, the offset that it runs in, how it moves and how it ends. */
export function PlanBar(props: PlanBarProps) {
  const { setup, plans, at, draft, problems, elsewhere, offset, canRemove, canPrint, computed, onChange } =
    props
  const ids = useId()
  const label = (name: string) => `${ids}-${name}`
  const set = (part: Partial<GaugePlanDraft['head']>) =>
    onChange({ ...draft, head: { ...draft.head, ...part } })
  const entry = (
    field: 'title' | 'number' | 'clearance' | 'feed',
    words: string,
    width: string,
    more: { placeholder?: string; most: number; digits?: boolean },
  ) => {
    const wrong = problems[field]
    return (
      <SmallField label={words} id={label(field)} className={width}>
        <input
          id={label(field)}
          value={draft.head[field]}
          maxLength={more.most}
          placeholder={more.placeholder}
          aria-invalid={wrong !== undefined}
          title={wrong?.says}
          onChange={({ target }) => set({ [field]: target.value })}
          className={`${INPUT} ${more.digits ? 'digits' : ''} ${wrong ? 'border-3 border-ink' : 'border-ink-soft'}`}
        />
      </SmallField>
    )
  }
  return (
    <div className="flex flex-wrap items-end gap-x-3 gap-y-1 py-1">
      <KeptPicker
        label="Plan"
        titles={plans.map(({ head: { title } }) => title)}
        at={at}
        elsewhere={elsewhere.map(({ head: { title } }) => title)}
        canRemove={canRemove}
        onChoose={props.onChoose}
        onOpen={(index) => {
          const kept = elsewhere[index]
          if (kept) props.onOpen(kept)
        }}
        onAdd={props.onAdd}
        onRemove={props.onRemove}
        className="max-w-36"
      />
      {entry('title', 'Name', 'w-40', { most: 40 })}
      {setup.machine.probe && (
        <>
          {entry('number', 'O', 'w-18', { most: 6, digits: true })}
          <SmallField label="Offset" id={label('offset')}>
            <Select
              id={label('offset')}
              value={offset.name}
              onChange={({ target }) => props.onOffset(target.value)}
              className="digits"
            >
              {[...new Set([...setup.offsets.map(({ name }) => name), offset.name])].map((name) => (
                <option key={name}>{name}</option>
              ))}
            </Select>
          </SmallField>
          {entry('clearance', 'Clear by', 'w-24', {
            most: 20,
            placeholder: computed.clearance,
            digits: true,
          })}
          {entry('feed', 'Feed', 'w-20', { most: 20, placeholder: computed.feed, digits: true })}
          <SmallField label="Ends as" id={label('ends')}>
            <Select
              id={label('ends')}
              value={draft.head.ends}
              onChange={({ target }) => set({ ends: target.value as 'program' | 'subprogram' })}
            >
              <option value="program">M30</option>
              <option value="subprogram">M99</option>
            </Select>
          </SmallField>
          {canPrint && (
            <label className="flex min-h-12 items-center gap-2">
              <input
                type="checkbox"
                checked={draft.head.prints}
                onChange={({ target }) => set({ prints: target.checked })}
                className="size-6 accent-ink"
              />
              log file
            </label>
          )}
        </>
      )}
      {props.children}
    </div>
  )
}

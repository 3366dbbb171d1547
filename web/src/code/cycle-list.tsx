import { CYCLE_NAMES, type CycleName, type ItemDraft, MOST_ITEMS, type WrittenItem } from '@dogleg/core/code'
import { verdictOf } from '@dogleg/core/fact'
import { formatShort } from '@dogleg/core/quantity'
import { ArrowDown, ArrowUp, Copy, Eye, OctagonX, Plus, Trash2 } from 'lucide-react'
import { Button } from '../ui/button.tsx'
import { intoView } from '../ui/into-view.ts'

interface CycleListProps {
  items: readonly ItemDraft[]
  written: readonly WrittenItem[]
  incomplete: readonly string[]
  chosen: string | undefined
  cycles: readonly CycleName[]
  onChoose: (id: string) => void
  onAdd: (cycle: CycleName) => void
  onMove: (id: string, by: -1 | 1) => void
  onCopy: (id: string) => void
  onOff: (id: string, off: boolean) => void
  onRemove: (id: string) => void
}

const WRAPPED = { scale: 'scale', text: 'text', slots: 'slots', holes: 'holes', program: 'layout' }

/** What a cycle is, in a few words. */
function about(item: ItemDraft): string {
  if (item.cycle === 'wrap') return `${WRAPPED[item.params.what]} round ${item.params.diameter}`
  if (item.cycle === 'engrave') return item.params.text.trim() || 'no text yet'
  if (item.cycle === 'groove')
    return `${item.params.where === 'face' ? 'in the face' : item.params.where}${item.params.count === '1' ? '' : `, ${item.params.count}`}`
  return item.params.tapping ? (item.params.thread === 'own' ? 'own thread' : item.params.thread) : 'drilled'
}

/** The cycles of the program in the order in which they run. */
export function CycleList(props: CycleListProps) {
  const { items, written, incomplete, chosen, cycles } = props
  const selected = items.find(({ id }) => id === chosen)
  const place = items.findIndex(({ id }) => id === chosen)
  const full = items.length >= MOST_ITEMS
  return (
    <section
      aria-label="Cycles of the program"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 lg:block lg:space-y-1"
    >
      <ol className="flex min-w-52 flex-1 flex-wrap gap-1 lg:block lg:max-h-72 lg:space-y-1 lg:overflow-y-auto">
        {items.map((item, index) => {
          const of = written.find(({ id }) => id === item.id)
          const verdict = of ? verdictOf(of.findings) : undefined
          const state = item.off
            ? 'off'
            : incomplete.includes(item.id)
              ? 'not complete'
              : verdict === 'stop'
                ? 'stop'
                : of?.seconds === undefined
                  ? ''
                  : formatShort(of.seconds)
          return (
            <li key={item.id} className="min-w-40 flex-1 lg:min-w-0">
              <button
                type="button"
                ref={item.id === chosen ? intoView : null}
                aria-pressed={item.id === chosen}
                onClick={() => props.onChoose(item.id)}
                className="flex min-h-14 w-full items-center gap-2 rounded-sm border border-ink-soft px-2 text-left leading-tight aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-stock"
              >
                <span className="digits text-lg font-semibold">{index + 1}</span>
                <span className={`min-w-0 flex-1 ${item.off ? 'line-through' : ''}`}>
                  <span className="block font-semibold">{CYCLE_NAMES[item.cycle]}</span>
                  <span className="block text-sm">{about(item)}</span>
                </span>
                <span className="flex items-center gap-1 text-sm">
                  {verdict === 'stop' && !item.off && (
                    <OctagonX aria-hidden size={18} className="rounded-sm bg-hazard text-stock" />
                  )}
                  {verdict === 'look' && !item.off && <Eye aria-label="check this" size={18} />}
                  <span className="digits">{state}</span>
                </span>
              </button>
            </li>
          )
        })}
      </ol>
      {selected && (
        <fieldset className="grid grid-cols-4 gap-1 max-lg:w-52">
          <legend className="sr-only">The cycle in hand</legend>
          <IconButton label="Earlier" disabled={place <= 0} onClick={() => props.onMove(selected.id, -1)}>
            <ArrowUp aria-hidden size={20} />
          </IconButton>
          <IconButton
            label="Later"
            disabled={place >= items.length - 1}
            onClick={() => props.onMove(selected.id, 1)}
          >
            <ArrowDown aria-hidden size={20} />
          </IconButton>
          <IconButton label="Copy the cycle" disabled={full} onClick={() => props.onCopy(selected.id)}>
            <Copy aria-hidden size={20} />
          </IconButton>
          <IconButton label="Take the cycle out" onClick={() => props.onRemove(selected.id)}>
            <Trash2 aria-hidden size={20} />
          </IconButton>
        </fieldset>
      )}
      {selected && (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            checked={!selected.off}
            onChange={({ target }) => props.onOff(selected.id, !target.checked)}
            className="size-6 shrink-0 accent-ink"
          />
          in the program
        </label>
      )}
      {full ? (
        <p>A program holds {MOST_ITEMS} cycles at most. Begin another one for more.</p>
      ) : (
        <div className="flex gap-1 lg:flex-wrap">
          {cycles.map((cycle) => (
            <Button key={cycle} className="flex-1 px-2" onClick={() => props.onAdd(cycle)}>
              <Plus aria-hidden size={20} /> {CYCLE_NAMES[cycle]}
            </Button>
          ))}
        </div>
      )}
    </section>
  )
}

function IconButton({ label, ...rest }: React.ComponentProps<'button'> & { label: string }) {
  return <Button aria-label={label} title={label} className="px-0" {...rest} />
}

import type { ToolKind, ToolShape } from '@dogleg/core/machine'
import { formatWithUnit } from '@dogleg/core/quantity'
import { List, Plus } from 'lucide-react'
import { type ReactNode, useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { EditingContext } from '../reference/editing.ts'
import { type BegunTool, newTool } from '../reference/new-tool.ts'
import { TOOL_KINDS, ToolEditor } from '../reference/tool-editor.tsx'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { useAnswer, useCycleForm } from './cycle-field.tsx'

interface ToolFieldProps {
  field: string
  label: ReactNode
  /** The kind that does this work: those come first, and a new one is begun as one. */
  kind: ToolKind
  /** What a new one is known by from what it is to do. */
  begun?: BegunTool | undefined
  hint?: string
}

/** The number of a tool: typed, or chosen from the tools of the machine with what they are, or made new. */
export function ToolField({ field, label, kind, begun, hint }: ToolFieldProps) {
  const { change, problems, lit, onLit } = useCycleForm()
  const { setup, reference } = useOpenSetup()
  const { machine } = setup
  const [choosing, setChoosing] = useState(false)
  const tools = useMemo(
    () =>
      reference.tools
        .filter(({ machineId }) => machineId === machine.id)
        .sort((a, b) => Number(b.kind === kind) - Number(a.kind === kind) || a.number - b.number),
    [reference.tools, machine.id, kind],
  )
  const typed = String(useAnswer(field) ?? '')
  const tool = tools.find(({ number }) => String(number) === typed.trim())
  const problem = problems[field]
  return (
    <div data-field={field}>
      <TextEntry
        label={label}
        narrow
        value={typed}
        onChange={(next) => change(field, next)}
        onFocus={() => onLit(field)}
        lit={lit === field}
        understood={tool?.name}
        wrong={problem && !problem.empty ? problem.says : undefined}
        hint={typed.trim() === '' || !/^\d+$/.test(typed.trim()) ? hint : 'not in the list'}
        action={
          <button
            type="button"
            aria-label={`List of tools: ${String(label).replace(/ (is )?T$/, '')}`}
            className="inline-flex h-full w-11 shrink-0 items-center justify-center border-l border-rule hover:bg-stock-shade"
            onClick={() => setChoosing(true)}
          >
            <List aria-hidden size={20} />
          </button>
        }
      />
      {choosing && (
        <ToolDialog
          tools={tools}
          kind={kind}
          begun={begun}
          onClose={() => setChoosing(false)}
          onChoose={(number) => {
            change(field, String(number))
            setChoosing(false)
          }}
        />
      )}
    </div>
  )
}

interface ToolDialogProps {
  tools: readonly ToolShape[]
  kind: ToolKind
  begun: BegunTool | undefined
  onClose: () => void
  onChoose: (number: number) => void
}

function ToolDialog({ tools, kind, begun, onClose, onChoose }: ToolDialogProps) {
  const { setup, reference } = useOpenSetup()
  const { machine } = setup
  const [making, setMaking] = useState(false)
  const editing = {
    newer: undefined,
    dirty: false,
    onNewer: () => undefined,
    noteDirty: () => undefined,
    isNew: true,
    adopt: () => undefined,
    onCreated: (row: object) => 'number' in row && onChoose(Number(row.number)),
  }
  return (
    <Dialog
      open
      wide={making}
      onOpenChange={(open) => !open && onClose()}
      title={making ? `A new tool of ${machine.name}` : `Tools of ${machine.name}`}
      says={
        making
          ? 'Measure what is in the holder. It stands in the list once it is saved.'
          : 'Press the one that does this work.'
      }
    >
      {making ? (
        <EditingContext value={editing}>
          <ToolEditor tool={newTool(machine, reference.tools, kind, begun)} machines={reference.machines} />
        </EditingContext>
      ) : (
        <>
          <ul className="max-h-[60dvh] overflow-y-auto">
            {tools.map((tool) => (
              <li key={tool.id} className="border-t border-rule">
                <button
                  type="button"
                  className="flex min-h-12 w-full items-center gap-4 px-2 text-left text-lg hover:bg-stock-shade"
                  onClick={() => onChoose(tool.number)}
                >
                  <span className="digits w-12 font-semibold">T{tool.number}</span>
                  <span className="flex-1">{tool.name}</span>
                  <span className="text-ink-soft">
                    {TOOL_KINDS[tool.kind]},{' '}
                    <span className="digits">{formatWithUnit(tool.diameter, tool.unit)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {tools.length === 0 && <p className="py-2">No tool of {machine.name} has been entered yet.</p>}
          <Button className="mt-3 min-h-12" onClick={() => setMaking(true)}>
            <Plus aria-hidden size={20} /> New tool
          </Button>
        </>
      )}
    </Dialog>
  )
}

import type { ToolShape } from '@dogleg/core/machine'
import { Plus } from 'lucide-react'
import { useRowsInForce } from '../log/rows.ts'
import { useLeads } from '../log/session.ts'
import { newTool } from '../reference/new-tool.ts'
import { RowsPage } from '../reference/rows-page.tsx'
import { ToolEditor } from '../reference/tool-editor.tsx'
import { useSave } from '../reference/use-save.ts'
import { Button } from '../ui/button.tsx'

/** The tools that each machine carries: their shapes, for finding where one hits. */
export const ToolsPage = () => (
  <RowsPage
    noun="tools"
    aside={
      <>
        <NewTool />
        <p className="mt-4 text-sm text-ink-soft">
          Measure what is in the holder. Lengths for the control are taken in the Zero step; these are shapes.
        </p>
      </>
    }
    titleOf={({ number, name }) => `T${number} ${name}`}
    order={(a, b) => a.machineId.localeCompare(b.machineId) || a.number - b.number}
    editor={(tool) => <ToolWhenKnown key={`${tool.id}-${tool.version}`} tool={tool} />}
  />
)

/** A new tool of the first machine, of which nothing is known yet. */
function NewTool() {
  const machines = useRowsInForce('machines')
  const tools = useRowsInForce('tools')
  const { begin } = useSave('tools')
  const [machine] = machines
  const leads = useLeads()
  if (!machine || !leads) return null
  return (
    <Button className="mt-3 w-full" onClick={() => begin(newTool(machine, tools))}>
      <Plus aria-hidden size={20} /> New tool
    </Button>
  )
}

/** A list of machines that came later than its field would show another one than the tool's. */
function ToolWhenKnown({ tool }: { tool: ToolShape }) {
  const machines = useRowsInForce('machines', tool.machineId)
  return machines.length > 0 ? (
    <ToolEditor tool={tool} machines={machines} />
  ) : (
    <p className="py-8">Reading the machines…</p>
  )
}

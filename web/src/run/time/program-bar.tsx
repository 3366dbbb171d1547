import { type ReactNode, useId } from 'react'
import { Select } from '../../ui/select.tsx'
import { SmallField } from '../../ui/small-field.tsx'
import { VerdictMark } from '../../ui/verdict.tsx'
import { EndedLine } from '../../ui/worker-ended.tsx'
import type { RunProgram } from './use-run-program.ts'

/** Which program of the setup is looked at, and what Prove says of it. */
export function ProgramBar({ run, children }: { run: RunProgram; children: ReactNode }) {
  const { programs, program, choose, time } = run
  const id = useId()
  return (
    <div className="flex min-h-16 flex-wrap items-end gap-x-8 gap-y-2 border-b border-rule pb-2">
      <SmallField label="Program" id={id}>
        <Select
          id={id}
          value={program?.title ?? ''}
          onChange={({ target }) => choose(target.value)}
          className="max-w-96"
        >
          {programs.map(({ title }) => (
            <option key={title}>{title}</option>
          ))}
        </Select>
      </SmallField>
      {children}
      <span className="ml-auto flex items-center gap-3 pb-1">
        {time.share !== undefined && (
          <span role="status" className="text-ink-soft">
            proving…
          </span>
        )}
        {time.failed && (
          <EndedLine
            ended={time.failed}
            broke="Proving broke off."
            again={time.again}
            tryAgain="Prove again"
          />
        )}
        {time.answer && <VerdictMark verdict={time.answer.verdict} />}
      </span>
    </div>
  )
}

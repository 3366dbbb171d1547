import { readToolList, writeSetLengths } from '@dogleg/core/pickup'
import { useMemo, useState } from 'react'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { TakeProgram, WholeProgram } from '../program/take-program.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { Findings } from '../ui/verdict.tsx'

/** The program that measures tools on the setter by the control's own macro. */
export function SetProgram() {
  const { setup } = useOpenSetup()
  const [offset] = useOffset(setup)
  const [typed, setTyped] = useState('')
  const list = readToolList(typed)
  const written = useMemo(() => {
    const read = readToolList(typed)
    return read.ok
      ? writeSetLengths(read.tools, setup, [
          `Setup: ${setup.opened.title}, ${setup.machine.name}.`,
          `Log ${setup.id}.`,
        ])
      : undefined
  }, [typed, setup])
  return (
    <details>
      <summary className="min-h-11 content-center font-semibold">
        Several tools, by the macro of the control
      </summary>
      <div className="space-y-2">
        <TextEntry
          label="Tools"
          value={typed}
          onChange={setTyped}
          hint="Their numbers, such as 3 5 7."
          wrong={!list.ok && !list.empty ? list.says : undefined}
          understood={list.ok ? list.tools.map((tool) => `T${tool}`).join(', ') : undefined}
          maxLength={300}
        />
        {written && <Findings findings={written.findings} />}
        {written?.ok && (
          <>
            <TakeProgram setup={setup} offset={offset} what="setting" rests={[]} text={written.text} />
            <p>Afterwards read each length on the tool page: the control has set it itself.</p>
            <WholeProgram text={written.text} />
          </>
        )}
      </div>
    </details>
  )
}

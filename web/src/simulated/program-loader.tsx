import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { ListField } from '../ui/list-field.tsx'
import { OpenFile } from '../ui/open-file.tsx'
import { readFile } from '../ui/read-file.ts'
import type { Simulated } from './use-simulated.ts'

/** Hands a program to the machine: pasted, or from a file. */
export function ProgramLoader({ work }: { work: Simulated['work'] }) {
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState<string>()
  const load = (program: string) => {
    if (program.trim() === '') return setWrong('Paste a program first.')
    if (program.length > 200_000) return setWrong('Longer than 200,000 characters: too long for it.')
    setWrong(undefined)
    work({ do: 'load', text: program })
  }
  return (
    <section aria-label="Load a program" className="space-y-2 pt-2">
      <ListField
        label="Another program"
        value={text}
        onChange={setText}
        rows={6}
        most={200_000}
        hint="Pasted; or from the setup, by its key 'To the simulated machine'."
        wrong={wrong}
      />
      <div className="flex gap-2">
        <Button onClick={() => load(text)}>Load it</Button>
        <OpenFile
          says="Open a file"
          label="Open a program file"
          accept=".nc,.txt,.tap,.ngc"
          onFile={async (file) => {
            if (!file) return
            const read = await readFile(file)
            if (read.ok) load(read.text)
            else setWrong(read.says)
          }}
        />
      </div>
    </section>
  )
}

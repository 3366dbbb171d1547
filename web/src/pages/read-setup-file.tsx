import { readSetupFile } from '@dogleg/core/sheet'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../log/api.ts'
import { readWaitingFile, takeWaiting } from '../log/waiting-file.ts'
import { OpenFile } from '../ui/open-file.tsx'

const LONGEST_FILE = 60_000_000

/** Takes a setup in from the file that another installation saved from its setup sheet, or what waited on another tablet. */
export function ReadSetupFile() {
  const client = useQueryClient()
  const [told, setTold] = useState<{ says: string; setup?: string }>()
  const take = async (file: File | undefined) => {
    if (!file) return
    if (file.size > LONGEST_FILE) {
      setTold({ says: `${file.name} is too large for a setup.` })
      return
    }
    setTold({ says: `Reading ${file.name}…` })
    try {
      const text = await file.text()
      const waiting = readWaitingFile(text)
      if (waiting && 'says' in waiting) {
        setTold({ says: `${file.name} is not taken in. ${waiting.says}` })
        return
      }
      if (waiting) {
        takeWaiting(waiting)
        setTold({
          says: `${waiting.length} ${waiting.length === 1 ? 'entry' : 'entries'} that waited on another tablet go to the logbook from here, each under whoever made it.`,
        })
        return
      }
      const read = readSetupFile(text)
      if (!read.ok) {
        setTold({ says: `${file.name} is not taken in. ${read.says}` })
        return
      }
      const { setup, added, kept } = await api.importSetup(read.data)
      await client.invalidateQueries()
      const rows = kept.map(({ name }) => name).join(', ')
      setTold({
        setup,
        says: `${added === 0 ? 'All of it was here already' : `${added} entries are taken in`}.${rows ? ` As they are here, not as in the file: ${rows}.` : ''}`,
      })
    } catch (error) {
      setTold({
        says: `${file.name} is not taken in. ${error instanceof Error ? error.message : String(error)}`,
      })
    }
  }
  return (
    <div className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule pt-3">
      <OpenFile
        says="Read a setup from a file"
        label="Read a setup from a file"
        accept=".json,application/json"
        onFile={(file) => void take(file)}
      />
      <p role="status" className="font-semibold">
        {told?.says}{' '}
        {told?.setup && (
          <Link to={`/setups/${told.setup}`} className="underline underline-offset-4">
            Open it
          </Link>
        )}
      </p>
    </div>
  )
}

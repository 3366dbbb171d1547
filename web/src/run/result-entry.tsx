import {
  type Characteristic,
  LONGEST_RESULTS,
  type MeasuredParts,
  MOST_PARTS,
  readResults,
  readTypedPart,
  resultSuspicions,
} from '@dogleg/core/gauge'
import type { FieldProblems } from '@dogleg/core/quantity'
import { Eye } from 'lucide-react'
import { useMemo, useState } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { asReadHere } from '../ui/decimal-comma.ts'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { ListField } from '../ui/list-field.tsx'
import { OpenFile } from '../ui/open-file.tsx'
import { readFile } from '../ui/read-file.ts'
import { useLatest } from '../ui/use-latest.ts'

const keptEntry = z.object({
  way: z.enum(['typed', 'pasted']),
  label: z.string().max(40),
  texts: z.record(z.string(), z.string().max(80)),
  list: z.string().max(LONGEST_RESULTS),
})

interface ResultEntryProps {
  title: string
  characteristics: readonly Characteristic[]
  /** Parts that are there already. */
  count: number
  onRecord: (parts: Omit<MeasuredParts, 'unit'>) => void
}

/** Results come in: a part typed, many pasted, or a file of the control. */
export function ResultEntry({ title, characteristics, count, onRecord }: ResultEntryProps) {
  const { setup } = useOpenSetup()
  const { unit } = setup
  const [draft, change, clear] = useKept(`${setup.id}.results.${title}`, keptEntry, () => ({
    way: 'typed' as const,
    label: '',
    texts: {},
    list: '',
  }))
  const [fromFile, setFromFile] = useState<string>()
  const [unread, setUnread] = useState<string>()
  const next = String(count + 1)
  const keys = useMemo(() => characteristics.map(({ key }) => key), [characteristics])
  const typed = useMemo(
    () => readTypedPart(draft.label.trim() || next, draft.texts, characteristics, unit),
    [draft.label, draft.texts, next, characteristics, unit],
  )
  const results = useMemo(() => readResults(draft.list, keys, count + 1), [draft.list, keys, count])
  const suspicions = resultSuspicions(
    draft.way === 'pasted' ? results.parts : typed.ok ? [typed.value] : [],
    characteristics,
  )
  const problems: FieldProblems = typed.ok ? {} : typed.problems
  const empty = () => clear({ way: draft.way, label: '', texts: {}, list: '' })
  const takeList = useLatest((list: string) => change({ ...draft, way: 'pasted', list }))
  const open = async (file: File | undefined) => {
    if (!file) return
    if (file.size > LONGEST_RESULTS) {
      setUnread(`${file.name} is larger than two megabytes. Take it in pieces.`)
      return
    }
    const read = await readFile(file)
    if (!read.ok) {
      setUnread(read.says)
      return
    }
    setUnread(undefined)
    setFromFile(file.name)
    takeList(asReadHere(read.text))
  }
  const many = results.parts.length > MOST_PARTS
  return (
    <form
      aria-label="Results"
      className="space-y-2"
      onKeyDown={draft.way === 'typed' ? nextFieldOnEnter : undefined}
      onSubmit={(event) => {
        event.preventDefault()
        if (draft.way === 'typed' && typed.ok) onRecord({ parts: [typed.value], came: 'typed' })
        else if (draft.way === 'pasted' && results.parts.length > 0 && !many)
          onRecord({ parts: results.parts, came: fromFile ? 'file' : 'pasted' })
        else return
        setFromFile(undefined)
        empty()
      }}
    >
      <Choice
        label="Results come"
        quiet
        value={draft.way}
        onChange={(way) => change({ ...draft, way })}
        options={[
          { value: 'typed', label: 'one part' },
          { value: 'pasted', label: 'many' },
        ]}
      />
      {suspicions.map((says) => (
        <p key={says} role="status" className="flex items-start gap-1 font-semibold">
          <Eye aria-label="check this:" size={20} className="mt-0.5 shrink-0" /> {says}
        </p>
      ))}
      {draft.way === 'typed' ? (
        <>
          <TextEntry
            words
            label="Part"
            value={draft.label}
            placeholder={next}
            maxLength={30}
            onChange={(label) => change({ ...draft, label })}
            hint="Stop the spindle before you measure."
            narrow
          />
          <div className="grid grid-cols-2 gap-x-3">
            {characteristics.map(({ key, unit: of }) => {
              const wrong = problems[key]?.empty ? undefined : problems[key]?.says
              const field = {
                label: key,
                value: draft.texts[key] ?? '',
                onChange: (text: string) => change({ ...draft, texts: { ...draft.texts, [key]: text } }),
                narrow: true,
                wrong,
              }
              return of === 'deg' ? (
                <TextEntry key={key} {...field} suffix="deg" />
              ) : (
                <LengthEntryField key={key} {...field} unit={of} />
              )
            })}
          </div>
          <Button
            type="submit"
            look="primary"
            data-record
            disabled={!typed.ok}
            className="min-h-12 w-full text-lg"
          >
            Record the part
          </Button>
        </>
      ) : (
        <>
          <ListField
            label="A part to a line"
            value={draft.list}
            onChange={(list) => {
              setFromFile(undefined)
              change({ ...draft, list })
            }}
            hint={`${keys.join(', ')}; or a table with a heading, or the log file of the control.`}
            understood={results.parts.length > 0 ? results.says : undefined}
            wrong={
              many
                ? `${results.parts.length} parts are more than ${MOST_PARTS} at once. Take them in pieces.`
                : undefined
            }
            rows={6}
            most={LONGEST_RESULTS}
          />
          {results.problems.length > 0 && (
            <ul className="max-h-28 overflow-y-auto text-sm" role="status">
              {results.problems.slice(0, 20).map(({ line, says }) => (
                <li key={`${line}/${says}`}>
                  <span className="font-semibold">Line {line}:</span> {says}
                </li>
              ))}
              {results.problems.length > 20 && <li>and {results.problems.length - 20} more.</li>}
            </ul>
          )}
          {unread && <p role="alert">{unread}</p>}
          <div className="flex flex-wrap gap-2">
            <OpenFile
              says="Open a file"
              label="Open a file of results"
              accept=".csv,.txt,.log,.prn,.nc"
              onFile={(file) => void open(file)}
            />
            <Button
              type="submit"
              look="primary"
              data-record
              disabled={results.parts.length === 0 || many}
              className="flex-1"
            >
              Record {results.parts.length || ''} {results.parts.length === 1 ? 'part' : 'parts'}
            </Button>
          </div>
        </>
      )}
    </form>
  )
}

import { programFor } from '@dogleg/core/prepare'
import type { ProgramFinding } from '@dogleg/core/prove'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { Copy, Download } from 'lucide-react'
import { useMemo, useRef } from 'react'
import { Button } from '../ui/button.tsx'
import { copyText } from '../ui/clipboard.ts'
import { OpenFile } from '../ui/open-file.tsx'
import { type ProgramText, programText } from './large-text.ts'
import { ProgramEditor } from './program-editor.tsx'
import type { Stepper } from './stepper.ts'
import type { OpenProgram } from './use-program.ts'
import { useStanding } from './use-standing.ts'

const WINDOW_LINES = 400

interface ProgramColumnProps {
  setup: Setup
  offset: OffsetState
  program: OpenProgram | null
  /** What the last key came to. */
  told: string | undefined
  /** The tablet could not keep it. */
  unkept: boolean
  findings: readonly ProgramFinding[]
  lineStarts: Uint32Array | undefined
  stepper: Stepper
  onLine: (line: number) => void
  /** One file, or a program with those that it calls. */
  onFiles: (files: readonly File[]) => Promise<void>
  onOpen: (program: OpenProgram) => void
  onChange: (program: OpenProgram) => void
  onTold: (says: string | undefined) => void
}

/** The program as text: opened, named, edited, taken away again. */
export function ProgramColumn({
  setup,
  offset,
  program,
  told,
  unkept,
  findings,
  lineStarts,
  stepper,
  onLine,
  onFiles,
  onOpen,
  onChange,
  onTold,
}: ProgramColumnProps) {
  const lathe = setup.machine.kind === 'lathe'
  const text = program?.text ?? ''
  const large = typeof text !== 'string'
  return (
    <div className="order-2 flex min-w-0 flex-col gap-2 lg:order-1">
      <div className="flex items-center gap-2">
        <label className="min-w-0 flex-1">
          <span className="sr-only">Name of the program</span>
          <input
            value={program?.title ?? ''}
            placeholder="Name of the program"
            maxLength={80}
            onChange={({ target }) => onChange({ title: target.value, text })}
            className="h-11 w-full rounded-sm border border-ink-soft bg-white/60 px-2 font-semibold"
          />
        </label>
        <OpenFile
          says="Open"
          label="Open a program file"
          accept=".nc,.txt,.tap,.cnc,.ngc,text/plain"
          onFile={(file) => void onFiles(file ? [file] : [])}
          onFiles={(files) => void onFiles(files)}
        />
      </div>
      {text.length === 0 && (
        <div className="space-y-2 rounded-sm border border-dashed border-ink-soft p-3">
          <p>Open or drop a file, with those that it calls, or paste the text below.</p>
          {!lathe && (
            <Button
              onClick={() => {
                const written = programFor(setup, offset)
                if (written.ok) onOpen({ title: `Load and check ${offset.name}`, text: written.text })
                else onTold(written.findings[0]?.says)
              }}
            >
              The load program for {offset.name}
            </Button>
          )}
        </div>
      )}
      {told && (
        <p className="font-semibold" role="status">
          {told}
        </p>
      )}
      {unkept && (
        <p className="font-semibold">This tablet has no room for the program: it is lost on a reload.</p>
      )}
      {large && (
        <p className="text-sm text-ink-soft">A large program: shown round the line that runs, for reading.</p>
      )}
      <div
        className={
          text.length === 0
            ? 'h-72 lg:h-[calc(100dvh-27.5rem)] lg:min-h-[12rem]'
            : 'h-[26rem] lg:h-[calc(100dvh-19.5rem)] lg:min-h-[20rem]'
        }
      >
        <EditorAtLine
          key={large ? 'large' : 'whole'}
          setup={setup}
          stepper={stepper}
          text={text}
          lineStarts={lineStarts}
          findings={findings}
          onLine={onLine}
          onChange={(next) => onChange({ title: program?.title || 'Program', text: programText(next) })}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() =>
            saveFile(large ? text.file : new Blob([text], { type: 'text/plain' }), program?.title ?? '')
          }
          disabled={text.length === 0}
        >
          <Download aria-hidden size={20} /> Save file
        </Button>
        <Button
          onClick={() =>
            void copyText(text.slice(0)).then((wrong) =>
              onTold(wrong === undefined ? 'Copied.' : `${wrong} Save the file.`),
            )
          }
          disabled={text.length === 0}
        >
          <Copy aria-hidden size={20} /> Copy
        </Button>
      </div>
    </div>
  )
}

interface EditorAtLineProps {
  setup: Setup
  stepper: Stepper
  text: ProgramText
  lineStarts: Uint32Array | undefined
  findings: readonly ProgramFinding[]
  onLine: (line: number) => void
  onChange: (text: string) => void
}

/** The editor, at the line that the next press runs; of a large text the piece round it. */
function EditorAtLine({ setup, stepper, text, lineStarts, ...rest }: EditorAtLineProps) {
  const { line } = useStanding(stepper, setup)
  // Where the program has ended, what was shown last stays.
  const last = useRef(0)
  if (line > 0) last.current = line
  const half = WINDOW_LINES / 2
  const begin = Math.max(0, Math.floor((last.current - half / 2) / half) * half)
  const shown = useMemo(() => {
    if (typeof text === 'string') return { text, before: 0 }
    if (!lineStarts) return { text: firstLines(text.slice(0, 40 * WINDOW_LINES)), before: 0 }
    const end = lineStarts[begin + WINDOW_LINES] ?? text.length
    return { text: text.slice(lineStarts[begin] ?? text.length, end), before: begin }
  }, [text, lineStarts, begin])
  return (
    <ProgramEditor
      text={shown.text}
      before={shown.before}
      readOnly={typeof text !== 'string'}
      line={line}
      kind={setup.machine.kind}
      profile={setup.profile}
      {...rest}
    />
  )
}

/** What stands there until it is known where each line begins. */
const firstLines = (text: string) =>
  text
    .split(/(?<=\n)/)
    .slice(0, WINDOW_LINES)
    .join('')

/** The text as a file again. */
function saveFile(file: Blob, title: string) {
  const address = URL.createObjectURL(file)
  const link = document.createElement('a')
  link.href = address
  link.download = /\.\w{2,4}$/.test(title)
    ? title
    : `${title.toLowerCase().replace(/[^a-z0-9]+/g, '-') || 'program'}.nc`
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), 10_000)
}

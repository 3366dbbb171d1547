import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint'
import { Annotation, EditorState } from '@codemirror/state'
import {
  drawSelection,
  EditorView,
  hoverTooltip,
  keymap,
  lineNumbers,
  type PluginValue,
  ViewPlugin,
  type ViewUpdate,
} from '@codemirror/view'
import type { Profile } from '@dogleg/core/control'
import type { MachineKind } from '@dogleg/core/machine'
import { explainWord } from '@dogleg/core/program'
import type { ProgramFinding } from '@dogleg/core/prove'
import { useEffect, useRef } from 'react'
import { ncLanguage } from './nc-language.ts'

const theme = EditorView.theme({
  '&': {
    height: '100%',
    fontSize: '1rem',
    backgroundColor: 'rgb(255 255 255 / 0.6)',
    color: 'var(--color-ink)',
  },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.5', overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--color-ink)' },
  '.cm-gutters': {
    backgroundColor: 'var(--color-stock-shade)',
    color: 'var(--color-ink-soft)',
    border: 'none',
  },
  '&.cm-focused': { outline: '3px solid var(--color-ink)', outlineOffset: '-3px' },
  '.cm-next': {
    position: 'absolute',
    inset: '0 0 auto',
    zIndex: '-1',
    backgroundColor: 'rgb(240 194 90 / 0.55)',
    boxShadow: 'inset 0 2px 0 var(--color-ink), inset 0 -2px 0 var(--color-ink)',
  },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'rgb(27 61 143 / 0.22) !important',
  },
  '.cm-tooltip': {
    backgroundColor: 'var(--color-stock)',
    color: 'var(--color-ink)',
    border: '1px solid var(--color-ink)',
    fontFamily: 'var(--font-sans)',
    padding: '6px 10px',
    maxWidth: '24rem',
    zIndex: '60',
  },
  '.cm-diagnostic': { borderLeft: '4px solid var(--color-ink)', padding: '2px 8px', whiteSpace: 'pre-line' },
  '.cm-diagnostic-error': { borderLeftColor: 'var(--color-hazard)' },
  '.cm-lintRange-error': { backgroundImage: 'none', boxShadow: 'inset 0 -3px 0 var(--color-hazard)' },
  '.cm-lintRange-warning': { backgroundImage: 'none', boxShadow: 'inset 0 -3px 0 var(--color-ink)' },
  '.cm-lintRange-info': { backgroundImage: 'none', boxShadow: 'inset 0 -2px 0 var(--color-rule)' },
  '.cm-gutter-lint': { width: '1.25em' },
  // Shapes of our own: an octagon that is filled, an open square, a dot.
  '.cm-lint-marker': { width: '0.9em', height: '0.9em', content: 'none' },
  '.cm-lint-marker-error': {
    content: 'none',
    backgroundColor: 'var(--color-hazard)',
    clipPath: 'polygon(30% 0, 70% 0, 100% 30%, 100% 70%, 70% 100%, 30% 100%, 0 70%, 0 30%)',
  },
  '.cm-lint-marker-warning': { content: 'none', border: '3px solid var(--color-ink)' },
  '.cm-lint-marker-info': {
    content: 'none',
    backgroundColor: 'var(--color-ink-soft)',
    borderRadius: '50%',
    transform: 'scale(0.5)',
  },
})

/** A text that was put in from outside: opened, mended, another piece of a large one. It is no typing. */
const outside = Annotation.define<boolean>()

/**
 * The mark behind the line that the next press runs: an element of its own instead of a decoration, because a step
 * would have the editor measure all that it shows.
 */
class NextMark implements PluginValue {
  private readonly dom = document.createElement('div')
  private readonly view: EditorView
  private line = 0

  constructor(view: EditorView) {
    this.view = view
    this.dom.className = 'cm-next'
    view.scrollDOM.append(this.dom)
    this.place()
  }

  update({ geometryChanged }: ViewUpdate) {
    if (geometryChanged) this.place()
  }

  destroy() {
    this.dom.remove()
  }

  go(line: number) {
    this.line = line
    this.place()
  }

  private place() {
    const { state, documentPadding } = this.view
    const shown = this.line >= 1 && this.line <= state.doc.lines
    this.dom.hidden = !shown
    if (!shown) return
    const { top, height } = this.view.lineBlockAt(state.doc.line(this.line).from)
    this.dom.style.transform = `translateY(${top + documentPadding.top}px)`
    this.dom.style.height = `${height}px`
  }
}

const nextMark = ViewPlugin.fromClass(NextMark)

const SEVERITIES = { stop: 'error', look: 'warning', note: 'info' } as const

/** Findings where they stand in the text as it is now. */
function diagnosticsOf(
  state: EditorState,
  findings: readonly ProgramFinding[],
  before: number,
): Diagnostic[] {
  return findings.flatMap(({ line, from, to, severity, says, why }) => {
    const shown = line - before
    if (shown < 1 || shown > state.doc.lines) return []
    const at = state.doc.line(shown)
    const start = Math.min(at.from + (from ?? 0), at.to)
    const end = Math.max(start, Math.min(at.from + (to ?? at.length), at.to))
    return [{ from: start, to: end, severity: SEVERITIES[severity], message: `${says}\n${why}` }]
  })
}

/** What the word under the pointer does on this control. */
const wordHover = (control: () => { kind: MachineKind; profile: Profile }) =>
  hoverTooltip((view, position) => {
    const { kind, profile } = control()
    const line = view.state.doc.lineAt(position)
    for (const found of line.text
      .replace(/\([^)]*\)?|;.*/g, (part) => ' '.repeat(part.length))
      .matchAll(/([A-Za-z])\s*([-+]?(?:\d+\.?\d*|\.\d+))/g)) {
      const from = line.from + found.index
      const to = from + found[0].length
      if (position < from || position > to) continue
      const letter = (found[1] ?? '').toUpperCase()
      const says = explainWord(letter, Number(found[2]), kind, profile)
      if (!says) return null
      return {
        pos: from,
        end: to,
        create: () => {
          const dom = document.createElement('div')
          dom.textContent = `${letter}${found[2]}: ${says}`
          return { dom }
        },
      }
    }
    return null
  })

interface ProgramEditorProps {
  text: string
  onChange: (text: string) => void
  findings: readonly ProgramFinding[]
  /** The line that the next press runs, or 0. */
  line: number
  onLine: (line: number) => void
  kind: MachineKind
  profile: Profile
  /** Lines of the program before the first that is shown; a piece of a large program is for reading only. */
  before?: number
  readOnly?: boolean
}

/** The program as text: what it does coloured, what is wrong in the margin, the next line marked. */
export function ProgramEditor({
  text,
  onChange,
  findings,
  line,
  onLine,
  kind,
  profile,
  before = 0,
  readOnly = false,
}: ProgramEditorProps) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView>(undefined)
  const calls = useRef({ onChange, onLine, kind, profile })
  calls.current = { onChange, onLine, kind, profile }
  const start = useRef(text)
  const told = useRef(new Set<string>())
  /** How many findings are marked in it. */
  const marked = useRef(0)
  useEffect(() => {
    if (!host.current) return
    // In a shadow root its styles come as a sheet of their own: the page's policy allows no others.
    const root = host.current.shadowRoot ?? host.current.attachShadow({ mode: 'open' })
    const editor = new EditorView({
      root,
      parent: root,
      state: EditorState.create({
        doc: start.current,
        extensions: [
          lineNumbers({ formatNumber: (number) => String(number + before) }),
          EditorState.readOnly.of(readOnly),
          history(),
          drawSelection(),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          ncLanguage,
          lintGutter(),
          nextMark,
          theme,
          wordHover(() => calls.current),
          EditorView.contentAttributes.of({
            'aria-label': 'Program text',
            spellcheck: 'false',
            tabindex: '0',
          }),
          EditorView.updateListener.of((update) => {
            const fromOutside = update.transactions.some((each) => each.annotation(outside))
            if (update.docChanged && !fromOutside) {
              const now = update.state.doc.toString()
              told.current.add(now)
              calls.current.onChange(now)
            } else if (
              update.selectionSet &&
              update.transactions.some((each) => each.isUserEvent('select.pointer'))
            )
              calls.current.onLine(update.state.doc.lineAt(update.state.selection.main.head).number + before)
          }),
        ],
      }),
    })
    view.current = editor
    marked.current = 0
    return () => {
      editor.destroy()
      view.current = undefined
    }
  }, [before, readOnly])
  useEffect(() => {
    const editor = view.current
    start.current = text
    // What was typed here comes back a moment later, when more may have been typed: it is no new text.
    if (told.current.has(text)) {
      if (editor?.state.doc.toString() === text) told.current.clear()
      return
    }
    if (editor && editor.state.doc.toString() !== text)
      editor.dispatch({
        changes: { from: 0, to: editor.state.doc.length, insert: text },
        annotations: outside.of(true),
      })
  }, [text])
  useEffect(() => {
    const editor = view.current
    if (!editor || (findings.length === 0 && marked.current === 0)) return
    marked.current = findings.length
    editor.dispatch(setDiagnostics(editor.state, diagnosticsOf(editor.state, findings, before)))
  }, [findings, before])
  useEffect(() => {
    const editor = view.current
    if (!editor) return
    const own = line - before
    const within = own >= 1 && own <= editor.state.doc.lines
    editor.plugin(nextMark)?.go(own)
    if (!within || editor.hasFocus) return
    // Only the editor scrolls, never the page under it.
    // It turns the page when the line comes near the edge: one that crept along would be hard to read.
    const { scrollDOM } = editor
    const { top, bottom, height } = editor.lineBlockAt(editor.state.doc.line(own).from)
    const [first, last] = [scrollDOM.scrollTop, scrollDOM.scrollTop + scrollDOM.clientHeight]
    if (top < first + height || bottom > last - height) scrollDOM.scrollTop = top - scrollDOM.clientHeight / 3
  }, [line, before])
  return (
    <div
      ref={host}
      className="h-full min-h-0 overflow-hidden rounded-sm border border-ink-soft contain-strict"
    />
  )
}

import { unifiedMergeView } from '@codemirror/merge'
import { EditorState } from '@codemirror/state'
import { EditorView, lineNumbers } from '@codemirror/view'
import { type Mending, withEdits } from '@dogleg/core/prove'
import { useEffect, useState } from 'react'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { ncLanguage } from './nc-language.ts'

const look = EditorView.theme({
  '&': { fontSize: '1rem', maxHeight: '50dvh' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', overflow: 'auto' },
  '.cm-gutters': {
    backgroundColor: 'var(--color-stock-shade)',
    color: 'var(--color-ink-soft)',
    border: 'none',
  },
  '.cm-changedLine': { backgroundColor: 'rgb(240 194 90 / 0.35) !important' },
  '.cm-changedText': { background: 'none !important', fontWeight: '600', textDecoration: 'underline 3px' },
  '.cm-deletedChunk': {
    backgroundColor: 'var(--color-stock-shade) !important',
    textDecoration: 'line-through',
  },
  '.cm-changedLineGutter': { backgroundColor: 'var(--color-ink)' },
  '.cm-deletedLineGutter': { backgroundColor: 'var(--color-ink-soft)' },
  '.cm-collapsedLines': {
    background: 'var(--color-stock-shade)',
    color: 'var(--color-ink-soft)',
    fontFamily: 'var(--font-sans)',
  },
  '.cm-collapsedLines:before, .cm-collapsedLines:after': { content: 'none' },
  '.cm-deletedText': { background: 'none !important', fontWeight: '600' },
})

/** A fix before it is taken: the lines that change, as they are and as they will be. */
export function Difference({
  text,
  mending,
  onTake,
  onClose,
}: {
  text: string
  mending: Mending
  onTake: (text: string) => void
  onClose: () => void
}) {
  const after = withEdits(text, mending.edits)
  return (
    <TextDifference
      title={mending.says}
      text={text}
      after={after}
      takes="Take this change"
      onTake={() => onTake(after)}
      onClose={onClose}
    />
  )
}

/** A text before it takes the place of another: what goes, and what comes. An empty `text` is a new one. */
export function TextDifference({
  title,
  text,
  after,
  takes,
  onTake,
  onClose,
}: {
  title: string
  text: string
  after: string
  /** What the key that takes it says. */
  takes: string
  onTake: () => void
  onClose: () => void
}) {
  // The dialog puts it on the page a moment later than this is drawn.
  const [host, setHost] = useState<HTMLDivElement | null>(null)
  useEffect(() => {
    if (!host) return
    const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' })
    const editor = new EditorView({
      root,
      parent: root,
      state: EditorState.create({
        doc: after,
        extensions: [
          lineNumbers(),
          EditorState.readOnly.of(true),
          EditorView.editable.of(false),
          ncLanguage,
          look,
          EditorView.contentAttributes.of({ 'aria-label': 'The change', tabindex: '0' }),
          ...(text === ''
            ? []
            : [
                unifiedMergeView({
                  original: text,
                  mergeControls: false,
                  gutter: true,
                  collapseUnchanged: { margin: 3, minSize: 6 },
                }),
              ]),
        ],
      }),
    })
    return () => editor.destroy()
  }, [host, text, after])
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
      says={
        text === ''
          ? 'All of it is new.'
          : 'What is struck through goes, what is marked comes. Everything else stays as it is.'
      }
      wide
    >
      <div ref={setHost} className="overflow-hidden rounded-sm border border-rule bg-white/60" />
      <div className="mt-4 flex gap-3">
        <Button look="primary" onClick={onTake}>
          {takes}
        </Button>
        <Button onClick={onClose}>Leave it as it is</Button>
      </div>
    </Dialog>
  )
}

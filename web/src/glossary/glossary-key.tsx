import { CircleHelp } from 'lucide-react'
import { type ComponentProps, type ComponentType, useEffect, useState } from 'react'
import { whenIdle } from '../ui/lazy-part.tsx'
import { watchLongPress } from './long-press.ts'

type Glossary = ComponentType<ComponentProps<typeof import('./glossary.tsx').Glossary>>
type HasTerm = (text: string) => boolean

/** Whether a question mark is typed somewhere, rather than asked. */
const isTyping = (target: EventTarget | null) =>
  target instanceof Element &&
  target.closest('input, textarea, select, [contenteditable], [role="dialog"]') !== null

/** What stands in a part of the page, piece by piece. */
function wordsOf(part: Element | null): string {
  if (!part) return ''
  const pieces: string[] = []
  const walker = document.createTreeWalker(part, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) pieces.push(walker.currentNode.nodeValue ?? '')
  return pieces.join(' · ')
}

/**
 * The words of the trade, a press away: the key, `?`, or a finger that rests on a word. They are loaded when the page has nothing else
 * to do, so that the first screen does not wait for them.
 */
export function GlossaryKey() {
  const [loaded, setLoaded] = useState<{ Glossary: Glossary; hasTerm: HasTerm }>()
  const [asked, setAsked] = useState<{ about: string | undefined; page: string }>()
  useEffect(() => {
    let gone = false
    // Without the network the page goes on without them; the key asks for them again.
    const end = whenIdle(async () => {
      const found = await load()
      if (!gone) setLoaded(found)
    })
    return () => {
      gone = true
      end()
    }
  }, [])
  const open = async (about?: string) => {
    const page = wordsOf(document.querySelector('main'))
    const found = loaded ?? (await load().catch(() => undefined))
    if (!found) return
    setLoaded(found)
    setAsked({ about, page })
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '?' || event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target))
        return
      event.preventDefault()
      void open()
    }
    window.addEventListener('keydown', onKey)
    const end = watchLongPress((text) => {
      if (!loaded?.hasTerm(text)) return false
      document.getSelection()?.removeAllRanges()
      void open(text)
      return true
    })
    return () => {
      window.removeEventListener('keydown', onKey)
      end()
    }
  })
  return (
    <>
      <button
        type="button"
        aria-label="What the words mean"
        aria-keyshortcuts="?"
        className="inline-flex size-11 items-center justify-center rounded-sm hover:bg-stock-shade"
        onClick={() => void open()}
      >
        <CircleHelp aria-hidden size={22} />
      </button>
      {asked && loaded && <loaded.Glossary {...asked} onClose={() => setAsked(undefined)} />}
    </>
  )
}

async function load(): Promise<{ Glossary: Glossary; hasTerm: HasTerm }> {
  const [{ Glossary }, { termsIn }] = await Promise.all([
    import('./glossary.tsx'),
    import('@dogleg/core/glossary'),
  ])
  return { Glossary, hasTerm: (text) => termsIn(text).length > 0 }
}

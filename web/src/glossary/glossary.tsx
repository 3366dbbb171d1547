import { searchTerms, type Term, termsIn } from '@dogleg/core/glossary'
import { useState } from 'react'
import { Dialog } from '../ui/dialog.tsx'

interface GlossaryProps {
  /** The text that somebody asked about; undefined for the words of the whole page. */
  about: string | undefined
  /** What stands on the page. */
  page: string
  onClose: () => void
}

/** The words of the trade: those that were asked about, those of this page, or what is searched for. */
export function Glossary({ about, page, onClose }: GlossaryProps) {
  const [typed, setTyped] = useState('')
  const [all, setAll] = useState(about === undefined)
  const asked = about === undefined ? [] : termsIn(about)
  const here = termsIn(page)
  const shown = typed.trim() !== '' ? searchTerms(typed) : all ? here : asked
  const title = typed.trim() !== '' ? 'Words' : all ? 'Words of this page' : 'What it means'
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={title}
      says="Rest a finger on a word to have it explained, or press the key with the question mark."
    >
      <label className="mb-2 block font-semibold">
        Find a word
        <input
          value={typed}
          maxLength={40}
          autoComplete="off"
          onChange={({ target }) => setTyped(target.value)}
          className="mt-0.5 block h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-3 text-lg font-normal"
        />
      </label>
      <Terms terms={shown} />
      {!all && typed.trim() === '' && (
        <button
          type="button"
          className="mt-2 inline-flex min-h-11 items-center font-semibold underline decoration-rule underline-offset-4"
          onClick={() => setAll(true)}
        >
          All words of this page
        </button>
      )}
    </Dialog>
  )
}

const Terms = ({ terms }: { terms: readonly Term[] }) =>
  terms.length === 0 ? (
    <p className="py-2">No such word is explained here. Ask whoever has stood at this machine longest.</p>
  ) : (
    <dl className="max-h-[55dvh] overflow-y-auto">
      {terms.map(({ term, says }) => (
        <div key={term} className="border-t border-rule py-2">
          <dt className="text-lg font-semibold first-letter:uppercase">{term}</dt>
          <dd className="leading-snug">{says}</dd>
        </div>
      ))}
    </dl>
  )

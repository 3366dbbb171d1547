import type { CodeLine } from '@dogleg/core/code'
import { Fragment, useEffect, useRef } from 'react'

/** Lines beyond these are not shown here: the whole text is in Prove and in the file. */
const MOST_LINES = 400

interface CodeListingProps {
  lines: readonly CodeLine[]
  /** Number of the first of them in the whole program. */
  from: number
  lit: string | undefined
  /** A word was pointed at; without it the field of the form stands. */
  onPoint: (field: string | undefined) => void
  onPick: (field: string) => void
}

/** The code, each word tied to its field: point at one and the other lights up. */
export function CodeListing({ lines, from, lit, onPoint, onPick }: CodeListingProps) {
  const list = useRef<HTMLOListElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: another field lights other words
  useEffect(() => {
    list.current?.querySelector('[data-lit="true"]')?.scrollIntoView({ block: 'nearest' })
  }, [lit])
  const shown = lines.slice(0, MOST_LINES)
  return (
    <>
      <ol ref={list} className="digits py-1 text-base leading-6" onPointerLeave={() => onPoint(undefined)}>
        {shown.map((line, index) => {
          const number = from + index
          return (
            <li key={number} className="flex gap-3 px-2">
              <span className="w-8 shrink-0 text-right text-ink-soft select-none" aria-hidden>
                {number}
              </span>
              <code className="min-w-0 font-mono break-words whitespace-pre-wrap">
                {line.parts.map(({ text, field }, place) => {
                  const key = `${place}${text}`
                  if (field === undefined)
                    return (
                      <span key={key} className={/^[(;]/.test(text) ? 'text-ink-soft' : 'font-semibold'}>
                        {text}{' '}
                      </span>
                    )
                  const on = field === lit
                  return (
                    <Fragment key={key}>
                      {/* biome-ignore lint/a11y/noStaticElementInteractions: the same is had from the field by keyboard */}
                      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the same is had from the field by keyboard */}
                      <span
                        data-lit={on}
                        data-word={field}
                        onPointerEnter={() => onPoint(field)}
                        onClick={() => onPick(field)}
                        className={`cursor-pointer rounded-sm font-semibold ${on ? 'bg-layout text-scribe' : 'hover:bg-stock-shade'}`}
                      >
                        {text}
                      </span>{' '}
                    </Fragment>
                  )
                })}
              </code>
            </li>
          )
        })}
      </ol>
      {lines.length > MOST_LINES && (
        <p className="px-2 text-sm text-ink-soft">
          {lines.length - MOST_LINES} more lines: the whole text is in Prove and in the file.
        </p>
      )}
    </>
  )
}

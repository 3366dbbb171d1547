/** Splits a line into its words and its comment, so that the comment can stand back. */
function parts(line: string): [string, string] {
  const at = line.search(/[(;]/)
  return at < 0 ? [line, ''] : [line.slice(0, at), line.slice(at)]
}

/** NC text with line numbers; long lines wrap under themselves. */
export function Listing({ text }: { text: string }) {
  const lines = text.trimEnd().split('\n')
  return (
    <ol
      className="digits rounded-sm border border-rule bg-white/50 py-2 text-base leading-6"
      aria-label="Program text"
    >
      {lines.map((line, index) => {
        const [words, comment] = parts(line)
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line of a program is known by its number
          <li key={index} className="flex gap-3 px-3">
            <span className="w-7 shrink-0 text-right text-ink-soft select-none" aria-hidden>
              {index + 1}
            </span>
            <code className="min-w-0 font-mono break-words whitespace-pre-wrap">
              <span className="font-semibold">
                {words.split(/(?<= )/).map((word, place) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: so is a word of a line; it never breaks at its minus sign
                  <span key={place} className="inline-block whitespace-pre">
                    {word}
                  </span>
                ))}
              </span>
              <span className="text-ink-soft">{comment}</span>
            </code>
          </li>
        )
      })}
    </ol>
  )
}

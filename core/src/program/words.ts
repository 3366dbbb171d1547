/** One address and its number: `X-14.1312`; or a macro variable in its place: `R#189`. */
export interface Word {
  letter: string
  /** NaN where a variable stands. */
  value: number
  variable?: number
  /** Where it stands in its line: from its letter, up to after its last digit. */
  from: number
  to: number
}

/** One line of NC text, taken apart (ISO 6983-1 words). */
export interface ProgramBlock {
  /** Line of the text, from 1. */
  line: number
  words: Word[]
  comments: string[]
  /** What was not understood, as it stands; the rest of the line is not read. */
  unclear?: string
  /** It begins with a slash: the control can be told to skip it. */
  optional: boolean
}

export interface Diagnostic {
  line: number
  says: string
}

const WORD = /\s*([A-Za-z])\s*(?:([+-]?(?:\d+\.?\d*|\.\d+))|#(\d{1,5}))/y
const SKIP = /\s*(?:\(([^()]*)\)|;(.*)$|%)\s*/y

/** Takes one line apart. What is not a word, a comment or a percent sign is a diagnostic; the rest of the line is skipped. */
function readLine(text: string, line: number, diagnostics: Diagnostic[]): ProgramBlock {
  const block: ProgramBlock = { line, words: [], comments: [], optional: /^\s*\//.test(text) }
  let at = block.optional ? text.indexOf('/') + 1 : 0
  while (at < text.length) {
    SKIP.lastIndex = at
    const skipped = SKIP.exec(text)
    if (skipped) {
      const comment = skipped[1] ?? skipped[2]
      if (comment !== undefined) block.comments.push(comment.trim())
      at = SKIP.lastIndex
      continue
    }
    WORD.lastIndex = at
    const word = WORD.exec(text)
    if (!word) {
      diagnostics.push({ line, says: `"${text.slice(at, at + 20).trim()}" is not a word.` })
      block.unclear = text.slice(at).trim()
      break
    }
    const letter = (word[1] ?? '').toUpperCase()
    const from = at + word[0].search(/\S/)
    const place = { from, to: WORD.lastIndex }
    block.words.push(
      word[3] === undefined
        ? { letter, value: Number(word[2]), ...place }
        : { letter, value: Number.NaN, variable: Number(word[3]), ...place },
    )
    at = WORD.lastIndex
  }
  return block
}

/** Any text in, blocks and diagnostics out; empty lines give no block. Never throws. */
export function readBlocks(text: string): { blocks: ProgramBlock[]; diagnostics: Diagnostic[] } {
  const diagnostics: Diagnostic[] = []
  const blocks = text
    .split(/\r\n|\r|\n/)
    .map((line, index) => readLine(line.trimEnd(), index + 1, diagnostics))
    .filter((block) => block.words.length > 0 || block.comments.length > 0 || block.unclear !== undefined)
  return { blocks, diagnostics }
}

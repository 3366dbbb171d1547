/** One address and its number: `X-14.1312`. */
export interface Word {
  letter: string
  value: number
}

/** One line of NC text, taken apart (ISO 6983-1 words). */
export interface ProgramBlock {
  /** Line of the text, from 1. */
  line: number
  words: Word[]
  comments: string[]
}

export interface Diagnostic {
  line: number
  says: string
}

const WORD = /\s*([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/y
const SKIP = /\s*(?:\(([^()]*)\)|;(.*)$|%)\s*/y

/** Takes one line apart. What is not a word, a comment or a percent sign is a diagnostic; the rest of the line is skipped. */
function readLine(text: string, line: number, diagnostics: Diagnostic[]): ProgramBlock {
  const block: ProgramBlock = { line, words: [], comments: [] }
  let at = 0
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
      break
    }
    block.words.push({ letter: (word[1] ?? '').toUpperCase(), value: Number(word[2]) })
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
    .filter((block) => block.words.length > 0 || block.comments.length > 0)
  return { blocks, diagnostics }
}

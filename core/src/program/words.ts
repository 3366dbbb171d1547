import { EXPRESSION, letterAtPlace, Scanner } from './scan.ts'

/** One address and its number: `X-14.1312`; or a macro variable in its place: `R#189`. */
export interface Word {
  letter: string
  /** NaN where a variable or an expression stands. */
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
  /** What is no word, as it stands; the rest of the line is not read. */
  unclear?: string
  /** It begins with a slash: the control can be told to skip it. */
  optional: boolean
}

const COMMENT = /\(([^)]*)\)?|;(.*)$/g

function wordsOf(scan: Scanner, start: number): Word[] {
  return Array.from({ length: scan.count }, (_, n) => {
    const [from, to] = [scan.from[n] as number, scan.to[n] as number]
    const word: Word = {
      letter: letterAtPlace(scan.letters[n] as number),
      value: scan.values[n] as number,
      from: from - start,
      to: to - start,
    }
    if ((scan.marks[n] as number) & EXPRESSION) {
      const variable = /^#(\d{1,5})$/.exec(scan.text.slice(from + 1, to).trim())
      word.variable = variable ? Number(variable[1]) : 0
    }
    return word
  })
}

/** Takes any text apart, line by line, as objects; empty lines give no block. Never throws. */
export function readBlocks(input: string): ProgramBlock[] {
  const text = input.replace(/\r\n?/g, '\n')
  const scan = new Scanner(text)
  const blocks: ProgramBlock[] = []
  for (let at = 0, line = 1; at < text.length; line++) {
    const start = at
    at = scan.line(start)
    const raw = text.slice(start, at).trimEnd()
    const unclearAt = scan.macroAt >= 0 ? scan.macroAt : scan.badAt >= 0 ? scan.badAt : scan.openCommentAt
    const block: ProgramBlock = {
      line,
      words: wordsOf(scan, start),
      comments: scan.hasComment
        ? [...raw.matchAll(COMMENT)].map((found) => (found[1] ?? found[2] ?? '').trim())
        : [],
      optional: scan.optional,
    }
    if (unclearAt >= 0) block.unclear = raw.slice(unclearAt - start).trim()
    if (block.words.length > 0 || block.comments.length > 0 || block.unclear !== undefined) blocks.push(block)
  }
  return blocks
}

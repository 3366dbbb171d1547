import { LONGEST_NAME, programName } from './program-name.ts'

/** A number in a word was written with a decimal point. */
export const POINT = 1
/** A macro expression or variable stands where the number would; its value is NaN until it is evaluated. */
export const EXPRESSION = 2

/** More words than this in one line are not read. */
const MOST_WORDS = 256
/** Nine digits before the point: more than any control takes. */
export const GREATEST = 999_999_999.999_999

const NEWLINE = 10
const [SPACE, PERCENT, OPEN, CLOSE, PLUS, COMMA, MINUS, DOT, SLASH, COLON, SEMICOLON] = [
  32, 37, 40, 41, 43, 44, 45, 46, 47, 58, 59,
]
const [LESS, EQUALS, GREATER] = [60, 61, 62]
const [HASH, BRACKET, BRACKET_END] = [35, 91, 93]

/** Ten to the n; a whole number of nine digits over one of these is rounded once, as it should be. */
const POWERS = Float64Array.from({ length: 10 }, (_, n) => Number(`1e${n}`))

const isDigit = (code: number) => code >= 48 && code <= 57
/** A letter's place from 1 (A) to 26 (Z), or 0. */
const letterAt = (code: number) => {
  const low = code | 32
  return low >= 97 && low <= 122 ? low - 96 : 0
}
const isBlank = (code: number) => code <= SPACE && code !== NEWLINE

/** The bit of a letter in `mask`. */
export const bit = (letter: string) => 1 << (letter.charCodeAt(0) & 31)
/** The place of a letter in `slot`. */
export const place = (letter: string) => letter.charCodeAt(0) & 31

/** Words of a drawing with a comma before their letter, as letters of their own: chamfer, rounding and angle. */
export const [COMMA_C, COMMA_R, COMMA_A] = ['[', '\\', ']'] as const
const COMMA_WORDS: Record<number, number> = { 3: place(COMMA_C), 18: place(COMMA_R), 1: place(COMMA_A) }

/** How a word is written, by the place of its letter. */
export const letterAtPlace = (at: number) => (at <= 26 ? String.fromCharCode(at + 64) : `,${'CRA'[at - 27]}`)

/** Where a bracket that opens at `at` closes (after it), or -1 within this line. */
function bracketEnd(text: string, at: number): number {
  let depth = 0
  for (let i = at; i < text.length; i++) {
    const code = text.charCodeAt(i)
    if (code === BRACKET) depth++
    else if (code === BRACKET_END && --depth === 0) return i + 1
    else if (code === NEWLINE) return -1
  }
  return -1
}

/** Where a variable or expression that stands at `at` ends, or -1 where it is none. */
function expressionEnd(text: string, at: number): number {
  let i = at
  while (i < text.length) {
    const code = text.charCodeAt(i)
    if (code !== PLUS && code !== MINUS && !isBlank(code)) break
    i++
  }
  if (text.charCodeAt(i) === BRACKET) return bracketEnd(text, i)
  let hashes = 0
  while (text.charCodeAt(i) === HASH || isBlank(text.charCodeAt(i))) {
    if (text.charCodeAt(i) === HASH) hashes++
    i++
  }
  if (hashes === 0) return -1
  if (text.charCodeAt(i) === BRACKET) return bracketEnd(text, i)
  const start = i
  while (isDigit(text.charCodeAt(i))) i++
  return i === start ? -1 : i
}

/**
 * Reads NC text a line at a time into buffers that it uses again (ISO 6983-1 / RS-274 words): nothing is allocated for
 * a line of plain words. Takes any text; what it cannot read stands in `badAt`.
 */
export class Scanner {
  readonly letters = new Uint8Array(MOST_WORDS)
  readonly values = new Float64Array(MOST_WORDS)
  /** Where each word stands in the text: from its letter up to after its last digit. */
  readonly from = new Int32Array(MOST_WORDS)
  readonly to = new Int32Array(MOST_WORDS)
  readonly marks = new Uint8Array(MOST_WORDS)
  /** The last word of each letter; only where the letter's bit is in `mask`. */
  readonly slot = new Uint8Array(32)
  count = 0
  mask = 0
  /** Letters that stand more than once. */
  repeated = 0
  /** Some word has an expression for its number. */
  hasExpression = false
  /** A word has a number that no control takes. */
  tooLarge = false
  /** It begins with a slash: the control can be told to skip it. */
  optional = false
  /** The switch that skips it, 1 to 9: /2. */
  level = 1
  /** Where a macro statement begins (#1 = 2, IF, WHILE, GOTO, DO, END, DPRNT), or -1. */
  macroAt = -1
  /** Where text stands that is no word, or -1; the rest of the line is not read. */
  badAt = -1
  /** Where a name in angle brackets stands, which a program is called by, from the bracket on; or -1. */
  nameAt = -1
  /** A comment that is not closed, or -1. */
  openCommentAt = -1
  hasComment = false
  percent = false

  readonly text: string
  constructor(text: string) {
    this.text = text
  }

  /** The value of a letter's last word; undefined where there is none. NaN for an expression. */
  value(letter: string): number | undefined {
    return this.mask & bit(letter) ? this.values[this.slot[place(letter)] as number] : undefined
  }

  /** Reads the line that begins at `start`; gives where the next one begins. */
  line(start: number): number {
    const { text, letters, values, from, to, marks, slot } = this
    const end = text.length
    let at = start
    let count = 0
    let mask = 0
    this.repeated = 0
    this.hasExpression = false
    this.optional = false
    this.macroAt = -1
    this.badAt = -1
    this.openCommentAt = -1
    this.nameAt = -1
    this.tooLarge = false
    this.hasComment = false
    this.percent = false

    while (at < end) {
      const code = text.charCodeAt(at)
      if (code === NEWLINE) {
        this.count = count
        this.mask = mask
        return at + 1
      }
      if (code <= SPACE) {
        at++
        continue
      }
      const letter = letterAt(code)
      if (letter === 0) {
        if (code === OPEN) {
          at = this.comment(at)
          continue
        }
        if (code === PERCENT) {
          this.percent = true
          at++
          continue
        }
        if (code === SLASH && count === 0) {
          this.optional = true
          at++
          const digit = text.charCodeAt(at)
          this.level = isDigit(digit) ? digit - 48 : 1
          if (isDigit(digit)) at++
          continue
        }
        if (code === LESS && this.nameAt < 0) {
          const after = this.named(at)
          if (after < 0) break
          at = after
          continue
        }
        if (code === COLON && count === 0) {
          // A colon stands for O on some readers.
          const number = at + 1
          if (isDigit(text.charCodeAt(number))) {
            at = this.number(number, number, count, 15, at)
            if (at < 0) break
            mask |= 1 << 15
            slot[15] = count++
            continue
          }
        }
        if (code === COMMA) {
          const word = this.commaWord(at, count)
          if (word < 0) break
          at = word
          const own = letters[count] as number
          if (mask & (1 << own)) this.repeated |= 1 << own
          mask |= 1 << own
          slot[own] = count++
          continue
        }
        if (code === SEMICOLON) this.hasComment = true
        else if (code === HASH) this.macroAt = at
        else this.badAt = at
        break
      }

      let next = at + 1
      let c = text.charCodeAt(next)
      while (c <= SPACE && c !== NEWLINE && next < end) c = text.charCodeAt(++next)
      // The number, inline: this is where a large program spends its time. Nine digits fit an integer.
      let i = next
      let negative = false
      if (c === MINUS) {
        negative = true
        c = text.charCodeAt(++i)
      } else if (c === PLUS) c = text.charCodeAt(++i)
      const begins = i
      let mantissa = 0
      let decimals = 0
      let point = 0
      while (c >= 48 && c <= 57) {
        mantissa = (Math.imul(mantissa, 10) + (c - 48)) | 0
        c = text.charCodeAt(++i)
      }
      let digits = i - begins
      if (c === DOT) {
        point = 1
        const fraction = i + 1
        c = text.charCodeAt(++i)
        while (c >= 48 && c <= 57) {
          mantissa = (Math.imul(mantissa, 10) + (c - 48)) | 0
          c = text.charCodeAt(++i)
        }
        decimals = i - fraction
        digits += decimals
      }
      if (digits === 0 || digits > 9 || (c === SPACE && this.goesOn(i, point))) {
        // Spaces in a number, very long ones, none at all: the careful way.
        const ended = this.number(at, next, count, letter, at)
        if (ended < 0) break
        at = ended
      } else {
        if (count === MOST_WORDS) {
          this.badAt = at
          break
        }
        letters[count] = letter
        const amount = decimals === 0 ? mantissa : mantissa / (POWERS[decimals] as number)
        values[count] = negative ? -amount : amount
        from[count] = at
        to[count] = i
        marks[count] = point
        at = i
      }
      const own = 1 << letter
      if (mask & own) this.repeated |= own
      mask |= own
      slot[letter] = count++
    }
    this.count = count
    this.mask = mask
    const newline = text.indexOf('\n', at)
    return newline < 0 ? end : newline + 1
  }

  /** Reads a word with a comma before its letter; gives where it ends, or -1 with the reason set. */
  private commaWord(at: number, count: number): number {
    const { text } = this
    let next = at + 1
    while (next < text.length && isBlank(text.charCodeAt(next))) next++
    const letter = COMMA_WORDS[letterAt(text.charCodeAt(next))]
    if (letter === undefined) {
      this.badAt = at
      return -1
    }
    return this.number(next, next + 1, count, letter, at)
  }

  /** Passes over a name in angle brackets; gives where it ends, or -1 with the reason set. */
  private named(at: number): number {
    const { text } = this
    const most = Math.min(text.length, at + LONGEST_NAME + 2)
    for (let i = at + 1; i < most; i++) {
      const code = text.charCodeAt(i)
      if (code === NEWLINE || code === LESS) break
      if (code === GREATER) {
        if (i === at + 1) break
        this.nameAt = at
        return i + 1
      }
    }
    this.badAt = at
    return -1
  }

  /** The name in angle brackets, in capitals; undefined where none stands in the line. */
  get name(): string | undefined {
    if (this.nameAt < 0) return undefined
    return programName(this.text.slice(this.nameAt + 1, this.text.indexOf('>', this.nameAt)))
  }

  /** Whether a number goes on after the spaces that stand at `at`. */
  private goesOn(at: number, point: number): boolean {
    const { text } = this
    let after = at
    while (after < text.length && isBlank(text.charCodeAt(after))) after++
    const code = text.charCodeAt(after)
    return isDigit(code) || (code === DOT && point === 0)
  }

  /** Passes over a comment; gives where it ends. */
  private comment(at: number): number {
    const { text } = this
    this.hasComment = true
    for (let i = at + 1; i < text.length; i++) {
      const code = text.charCodeAt(i)
      if (code === CLOSE) return i + 1
      if (code === NEWLINE) {
        this.openCommentAt = at
        return i
      }
    }
    this.openCommentAt = at
    return text.length
  }

  /** Reads a number with spaces in it, an expression, or a macro keyword; gives where it ends, or -1 with the reason set. */
  private number(at: number, start: number, count: number, letter: number, from: number): number {
    const { text } = this
    if (count === MOST_WORDS) {
      this.badAt = at
      return -1
    }
    let cleaned = ''
    let i = start
    let last = start
    for (; i < text.length; i++) {
      const code = text.charCodeAt(i)
      if (isBlank(code)) continue
      const signs = cleaned === '' && (code === PLUS || code === MINUS)
      if (!signs && !isDigit(code) && !(code === DOT && !cleaned.includes('.'))) break
      cleaned += text[i]
      last = i + 1
      if (cleaned.length > 400) break
    }
    this.letters[count] = letter
    this.from[count] = from
    if (/\d/.test(cleaned)) {
      const value = Number(cleaned)
      this.values[count] = value
      if (Math.abs(value) > GREATEST) this.tooLarge = true
      this.marks[count] = cleaned.includes('.') ? POINT : 0
      this.to[count] = last
      return last
    }
    if (letter === place('O') && this.nameAt < 0 && text.charCodeAt(i) === LESS) {
      const after = this.named(i)
      this.values[count] = 0
      this.marks[count] = 0
      this.to[count] = after
      return after
    }
    const ended = expressionEnd(text, start)
    if (ended >= 0) {
      this.values[count] = Number.NaN
      this.marks[count] = EXPRESSION
      this.hasExpression = true
      this.to[count] = ended
      return ended
    }
    const next = text.charCodeAt(start)
    if (letterAt(next) > 0 || next === EQUALS || next === COMMA) {
      if (/^(?:IF|WHILE|GOTO|THEN|DO|END|DPRNT|POPEN|PCLOS)/i.test(text.slice(at, at + 5))) this.macroAt = at
      else this.badAt = at
    } else this.badAt = at
    return -1
  }
}

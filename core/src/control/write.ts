import { fixedDigits, type LengthUnit } from '../quantity/index.ts'
import type { Profile } from './profile.ts'

/** Digits after the point that the profile prints in a unit. */
export const printedDigits = (profile: Profile, unit: LengthUnit) =>
  unit === 'inch' ? profile.numbers.inchDigits : profile.numbers.mmDigits

/** Without the zeros at its end; digits are written ten thousand times in a program, so without an expression. */
function withoutZeros(text: string): string {
  let end = text.length
  while (text.charCodeAt(end - 1) === 48) end--
  return end === text.length ? text : text.slice(0, end)
}

/** A length, feed or angle as the control wants it: always with a decimal point, never as -0. */
export function writeNumber(value: number, unit: LengthUnit, profile: Profile): string {
  let text = fixedDigits(value, printedDigits(profile, unit))
  if (!profile.numbers.trailingZeros) text = withoutZeros(text)
  if (!profile.numbers.leadingZero) text = text.replace(/^(-?)0\.(?=\d)/, '$1.')
  return text
}

const REPLACEMENTS: Record<string, string> = {
  '±': '+/-',
  '·': '-',
  '×': 'X',
  '°': ' DEG',
  '"': 'IN',
  Ø: 'DIA ',
}

/**
 * Text that every control can carry inside a comment: capitals, digits and plain punctuation.
 * Parentheses, percent signs and semicolons would end or break the comment, so they become spaces.
 */
export function commentText(text: string): string {
  return text
    .replace(/[±·×°"Ø]/g, (mark) => REPLACEMENTS[mark] ?? ' ')
    .normalize('NFKD')
    .replace(/[\u2010-\u2015\u2212]/g, '-')
    .replace(/[\u0300-\u036f]/g, '')
    .toUpperCase()
    .replace(/[^A-Z0-9 .,:+\-=/'*#]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
}

/** A comment in the profile's style. */
export const writeComment = (text: string, profile: Profile) =>
  profile.comments.style === 'parentheses' ? `(${commentText(text)})` : `; ${commentText(text)}`

/** Comment lines of at most the profile's length, broken at spaces. */
function writeCommentLines(text: string, profile: Profile): string[] {
  const room = profile.comments.longest - 2
  const lines: string[] = []
  let line = ''
  for (const word of commentText(text)
    .split(' ')
    .flatMap((long) => long.match(new RegExp(`.{1,${room}}`, 'g')) ?? [])) {
    if (line && line.length + 1 + word.length > room) {
      lines.push(line)
      line = word
    } else line = line ? `${line} ${word}` : word
  }
  if (line) lines.push(line)
  return lines.map((each) => writeComment(each, profile))
}

/** A word of a program, and the field of a form that it comes from. */
export interface Word {
  text: string
  field?: string
}

/** One block of a program: its words, and what it does. */
export interface Block {
  words: string | readonly Word[]
  does?: string
  /** Carries a block-delete slash: the switch on the panel skips it. */
  slashed?: boolean
}

const CAUTION =
  'Prove this program before it is used. A qualified person must prove every program. ' +
  "The machine builder's manual, the shop's rules and local safety regulations come first."

/**
 * How far behind the first O number of the profile programs begin: no two kinds share one. What loads an offset has the first; what
 * is built from cycles, gauges, or calls pallets is looked for from its own place on.
 */
const NUMBERS_FROM = {
  load: 0,
  angle: 1,
  probe: 2,
  bar: 3,
  setting: 4,
  coded: 10,
  gauge: 20,
  pallets: 90,
} as const

/** The O number that a kind of program has, or is looked for from on: behind the first of the profile, before it where there is no room. */
export function ownNumber({ program: { number, digits } }: Profile, of: keyof typeof NUMBERS_FROM): number {
  const behind = number + NUMBERS_FROM[of]
  return behind < 10 ** digits ? behind : number - NUMBERS_FROM[of]
}

/** A program's number as this control writes it: O05400. */
export const programName = (number: number, { program }: Pick<Profile, 'program'>) =>
  `O${String(number).padStart(program.digits, '0')}`

export interface ProgramText {
  /** What it is for, on the line of the program number. */
  title: string
  /** Lines under the caution: the setup, its log, what the values rest on. */
  about: string[]
  unit: LengthUnit
  blocks: readonly Block[]
  /** Said on the line of the program number instead of the profile's own. */
  number?: number
  /** Codes that a mill knows and a lathe reads otherwise are left out of the start. */
  lathe?: boolean
}

/** One line of a program as it is written. */
export interface ProgramLine {
  /** All of it. */
  text: string
  /** The block that it is of; undefined for the heading and the frame. */
  block?: number
  /** Its block number, its words and its comment, in order; together with spaces between they are the text. */
  parts: readonly Word[]
}

/** Cancels what an earlier program may have left on, and states the unit. */
function safeStart(unit: LengthUnit, { rotation }: Profile, lathe = false): Block {
  const code = unit === 'inch' ? 'G20' : 'G21'
  return lathe
    ? { words: `${code} G18 G40 G80 G97 G99`, does: `${unit}, diameters, feed a turn, modes cancelled` }
    : {
        words: `${code} G90 G17 G40 G49 G80${rotation ? ` ${rotation.off}` : ''} G94`,
        does: `${unit}, absolute, modes cancelled`,
      }
}

/** The spindle to the top before anything moves sideways: to a machine position, or by a home return. */
export function clearUpBlocks(top: number | 'home', unit: LengthUnit, profile: Profile): Block[] {
  const number = (value: number) => writeNumber(value, unit, profile)
  return top === 'home'
    ? [
        { words: `G91 G28 Z${number(0)}`, does: 'spindle up to home before anything moves sideways' },
        { words: 'G90' },
      ]
    : [{ words: `G53 G0 Z${number(top)}`, does: 'spindle to the top before anything moves sideways' }]
}

const partsOf = (words: Block['words']): readonly Word[] =>
  typeof words === 'string' ? [{ text: words }] : words

/** The slash stands before everything else of the block. */
const slashedParts = (parts: readonly Word[], slashed: boolean): readonly Word[] =>
  slashed ? parts.map((word, index) => (index === 0 ? { ...word, text: `/${word.text}` } : word)) : parts

const asLine = (parts: readonly Word[], block?: number): ProgramLine => ({
  text: parts.map(({ text }) => text).join(' '),
  parts,
  ...(block === undefined ? {} : { block }),
})

/**
 * A whole program in the profile's style, line by line: number, caution, heading, safe start, blocks, end. A line says
 * which block it is of (the safe start is none), and each word which field it comes from.
 */
export function programLines(of: ProgramText, profile: Profile): ProgramLine[] {
  const { title, about, unit, blocks, lathe } = of
  const { comments, program, blocks: numbering } = profile
  const name = programName(of.number ?? program.number, profile)
  const body = [safeStart(unit, profile, lathe), ...blocks].flatMap(
    ({ words, does, slashed }, index): ProgramLine[] => {
      const block = index === 0 ? undefined : index - 1
      const n: Word[] = numbering.numbered ? [{ text: `N${(index + 1) * numbering.step}` }] : []
      const parts = slashedParts([...n, ...partsOf(words)], slashed === true)
      if (!does || comments.amount !== 'every-block') return [asLine(parts, block)]
      const lines = writeCommentLines(does, profile)
      return lines.length === 1
        ? [asLine([...parts, { text: lines[0] as string }], block)]
        : [...lines.map((text) => asLine([{ text }], block)), asLine(parts, block)]
    },
  )
  const percent = program.percentSigns ? [asLine([{ text: '%' }])] : []
  return [
    ...percent,
    asLine([{ text: name }, { text: writeComment(title, profile) }]),
    ...[CAUTION, ...about].flatMap((line) =>
      writeCommentLines(line, profile).map((text) => asLine([{ text }])),
    ),
    ...body,
    ...percent,
  ]
}

/** The text of a whole program in the profile's style. */
export const writeProgram = (of: ProgramText, profile: Profile): string =>
  programLines(of, profile)
    .map(({ text }) => `${text}\n`)
    .join('')

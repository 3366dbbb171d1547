import { type Block, type Profile, type Word, writeNumber } from '../../control/index.ts'
import { fixedDigits, type LengthUnit } from '../../quantity/index.ts'

/** Writes words for a control, each with the field that it comes from. */
export interface Pen {
  profile: Profile
  unit: LengthUnit
  /** A length, feed or angle: always with a point. */
  length: (letter: string, value: number, field?: string) => Word
  /** A place as it was printed. */
  place: (at: { x: string; y: string }, field: string) => Word[]
  /** A whole number: tools, speeds, counts. */
  whole: (letter: string, value: number, field?: string) => Word
  /** A number with as many digits as it needs, at most `digits`, and a point. */
  decimal: (letter: string, value: number, digits: number, field?: string) => Word
  /** A code or anything else as it stands. */
  code: (text: string, field?: string) => Word
  block: (words: readonly (Word | string | undefined)[], does?: string) => Block
}

const word = (text: string, field?: string): Word => (field === undefined ? { text } : { text, field })

export function penOf(profile: Profile, unit: LengthUnit): Pen {
  const code = word
  return {
    profile,
    unit,
    length: (letter, value, field) => word(`${letter}${writeNumber(value, unit, profile)}`, field),
    place: ({ x, y }, field) => [
      { text: `X${x}`, field },
      { text: `Y${y}`, field },
    ],
    whole: (letter, value, field) => word(`${letter}${Math.round(value)}`, field),
    decimal: (letter, value, digits, field) =>
      word(`${letter}${fixedDigits(value, digits).replace(/0+$/, '')}`, field),
    code,
    block: (words, does) => ({
      words: words.flatMap((each) =>
        each === undefined ? [] : typeof each === 'string' ? [word(each)] : [each],
      ),
      ...(does ? { does } : {}),
    }),
  }
}

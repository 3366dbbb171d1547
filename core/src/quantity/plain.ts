/** Spaces that look like one: no-break, thin, figure and the like; and what has no width at all. */
const SPACES = /[\u00a0\u2000-\u200a\u202f\u205f\u3000\t]/g
const NOTHING = /[\u200b\u2060\ufeff]/g
/** Dashes that a keyboard or a drawing puts in place of a minus. */
const DASHES = /[\u2010-\u2015\u2212\ufe63\uff0d]/g
/** Inch marks: typographic quotes, the double prime, two single ones. */
const INCH_MARKS = /[\u201c\u201d\u201e\u2033]|''|\u2019\u2019|\u2032\u2032/g
/** One half, three eighths and the like as one character. */
const FRACTION = /(\d?)([\u00bc-\u00be\u2150-\u215e])/g

/** A fraction of one character as its two numbers (Unicode's own decomposition), after a whole number with a hyphen between. */
const spelled = (_: string, whole: string, one: string) =>
  `${whole}${whole ? '-' : ''}${one.normalize('NFKC').replace('\u2044', '/')}`

/**
 * What was typed or pasted, in the plain characters that are read: no-break spaces, dashes for a minus, typographic inch
 * marks and fractions of one character are what they look like.
 */
export const plainText = (typed: string): string =>
  typed
    .replace(NOTHING, '')
    .replace(SPACES, ' ')
    .replace(DASHES, '-')
    .replace(INCH_MARKS, '"')
    .replace(FRACTION, spelled)
    .replace(/\u2044/g, '/')

/**
 * A text in which commas are decimal points, with points: every comma between two digits. One that has points between
 * digits already is left as it is: its commas stand between numbers.
 */
export const decimalPoints = (text: string): string =>
  /\d\.\d/.test(text) ? text : text.replace(/(?<=\d),(?=\d)|(?<![\d,]),(?=\d)/g, '.')

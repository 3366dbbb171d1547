import { glyphOf, layText, reach } from '../../lettering/index.ts'
import type { CycleCase } from '../cycle/index.ts'
import { type EngraveParams, hasSerial } from './params.ts'
import type { EngraveSizes } from './sizes.ts'

/** A piece of the text that one call of the control's cycle engraves, and how far from the start it begins, in heights. */
export interface Piece {
  said: string
  /** With the number filled in. */
  text: string
  counts: boolean
  at: number
}

/** The text in pieces: a serial number that the control counts is one of its own. */
export function piecesOf(
  params: EngraveParams,
  { text, laid }: Pick<EngraveSizes, 'text' | 'laid'>,
  counts: boolean,
): Piece[] {
  const said = params.text.trim()
  if (!counts || !hasSerial(said)) return [{ said: text, text, counts: false, at: 0 }]
  const pieces: Piece[] = []
  let index = 0
  for (const part of said.match(/#+|[^#]+/g) ?? []) {
    const length = part.startsWith('#')
      ? String(params.serial).padStart(part.length, '0').length
      : part.length
    const shown = text.slice(index, index + length)
    const before = shown.length - shown.trimStart().length
    // Characters that the control has and these letters have not leave no room in the row.
    const letter = laid.letters[[...text.slice(0, index + before)].filter((each) => glyphOf(each)).length]
    if (letter && shown.trim() !== '')
      pieces.push({
        said: part.trim(),
        text: shown.trim(),
        counts: part.startsWith('#'),
        at: letter.at + reach(letter.glyph)[0],
      })
    index += length
  }
  return pieces
}

/** Letters closer than this, in heights, run together. By judgement: the space between two letters is about a third. */
const LEAST_GAP = 0.1

/**
 * Pieces of a text that the control sets one after another, where nobody has measured how wide its letters are: how far a piece
 * may run over the start of the next at the worst (in the case's unit), and which; none where none does. Every piece starts where
 * it was computed to, whatever the width of the one before came to.
 */
export function piecesRunOver(
  params: EngraveParams,
  sizes: Pick<EngraveSizes, 'text' | 'laid' | 'moves' | 'doubt' | 'height'>,
  { profile }: CycleCase,
): { said: string; by: number } | undefined {
  if (sizes.moves || sizes.doubt === 0) return undefined
  const pieces = piecesOf(params, sizes, profile.reading.lettering.counts)
  const over = pieces.slice(1).map((next, n) => {
    const piece = pieces[n] as Piece
    const end = piece.at + layText(piece.text).width * (1 + sizes.doubt)
    return { said: piece.said, by: (end + LEAST_GAP - next.at) * sizes.height }
  })
  const worst = over.sort((a, b) => b.by - a.by)[0]
  return worst && worst.by > 0 ? worst : undefined
}

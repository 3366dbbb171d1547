/** Longer programs are read in pieces, a window of lines round the one that runs; they are changed elsewhere. */
export const LARGE = 2_000_000

/** The text of a large file in the pieces that it came in: put together it would hold up the page. */
export class LargeText {
  /** The same text as a file, which can be handed on without being copied. */
  readonly file: Blob
  /** Characters. */
  readonly length: number
  private readonly pieces: readonly string[]
  /** Where each piece begins. */
  private readonly starts: number[] = []

  constructor(file: Blob, pieces: readonly string[]) {
    this.file = file
    this.pieces = pieces
    let at = 0
    for (const piece of pieces) {
      this.starts.push(at)
      at += piece.length
    }
    this.length = at
  }

  /** The characters from one place up to another, as a string has them. */
  slice(from: number, to = this.length): string {
    let text = ''
    for (let n = this.pieceAt(from); n < this.pieces.length && (this.starts[n] as number) < to; n++) {
      const start = this.starts[n] as number
      text += (this.pieces[n] as string).slice(Math.max(0, from - start), to - start)
    }
    return text
  }

  private pieceAt(place: number): number {
    let [low, high] = [0, this.starts.length - 1]
    while (low < high) {
      const middle = Math.ceil((low + high) / 2)
      if ((this.starts[middle] as number) <= place) low = middle
      else high = middle - 1
    }
    return Math.max(0, low)
  }
}

/** The text of a program: whole, or in pieces where it is large. */
export type ProgramText = string | LargeText

/** A text that was typed or pasted, however long. */
export const programText = (text: string): ProgramText =>
  text.length > LARGE ? new LargeText(new Blob([text], { type: 'text/plain' }), [text]) : text

/** Pieces that are there already are taken for so long before the page has its turn again. */
const AT_ONCE_MS = 8

/** The text of a file, UTF-8, taken as it comes. */
export async function textOf(file: Blob): Promise<ProgramText> {
  const pieces: string[] = []
  const reader = file.stream().pipeThrough(new TextDecoderStream()).getReader()
  let began = performance.now()
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    pieces.push(piece.value)
    if (performance.now() - began < AT_ONCE_MS) continue
    await new Promise((resolve) => setTimeout(resolve, 0))
    began = performance.now()
  }
  const large = new LargeText(file, pieces)
  return large.length > LARGE ? large : large.slice(0)
}

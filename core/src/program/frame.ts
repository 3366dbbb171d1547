/** Local variables #1 to #33. */
export const LOCALS = 34

/** One level of calls: where it goes back to, and what is its own. */
export interface Frame {
  kind: 'main' | 'M97' | 'M98' | 'G65'
  /** Line (from 0) that runs after it, and the line that it begins with. */
  back: number
  begins: number
  repeats: number
  /** What it is called in messages: O9901, M51. */
  name: string
  locals: Float64Array
  /** WHILE loops that it stands in. */
  loops: { number: number; line: number }[]
}

export const newLocals = () => new Float64Array(LOCALS).fill(Number.NaN)

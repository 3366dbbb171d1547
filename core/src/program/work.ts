/**
 * The work of reading is counted, not its time, so that the same program comes to the same end on every computer. A unit is some
 * 25 ns on a PC of 2024 (measured over loops, expressions and cycles).
 */
export const MOST_WORK = 50_000_000

/** A block that is run, and a row of the motion that a cycle puts out, beside the characters of its line. */
export const BLOCK_WORK = 20
const ROW_WORK = 20
/** A character of an expression or a statement of the macro language. */
export const EXPRESSION_WORK = 5
/** A line that is looked through for where a loop or a program goes on. */
const LINE_WORK = 10
/** What a text may take for each of its characters, before anything of it runs twice. */
const WORK_OF_TEXT = 12

/** More was to be done than may be. */
export class OutOfWork extends Error {}

/** What is left to be spent on a program. */
export class Work {
  /** All that may be spent. */
  readonly most: number
  private left: number

  constructor(text: string, most = MOST_WORK) {
    this.most = most
    this.left = most + WORK_OF_TEXT * text.length
  }

  /** @throws OutOfWork when there is none left. */
  spend(units: number): void {
    this.left -= units
    if (this.left < 0) throw new OutOfWork()
  }

  row(): void {
    this.spend(ROW_WORK)
  }

  lines(number: number): void {
    this.spend(LINE_WORK * number)
  }
}

import { NAMED_PROGRAM, programName } from './program-name.ts'
import type { Work } from './work.ts'

/** Programs that have a name have numbers from here on: beyond all that can be written. */
const FIRST_NAMED = 1_000_000_000

/** Finds lines of a program: where each begins, its N numbers, the programs (O numbers) in the text. Built as far as asked for. */
export class TextIndex {
  private readonly text: string
  private starts: Uint32Array
  private known = 1
  private numbers: Map<number, number[]> | undefined
  private programs: { number: number; line: number }[] | undefined
  private readonly names = new Map<string, number>()

  private readonly work: Work | undefined
  private readonly ends = new Map<string, number | undefined>()

  constructor(text: string, work?: Work) {
    this.work = work
    this.text = text
    this.starts = new Uint32Array(1024)
  }

  /** Notes where a line begins that was reached by reading on. */
  note(line: number, at: number): void {
    if (line !== this.known) return
    if (line === this.starts.length) {
      const next = new Uint32Array(line * 2)
      next.set(this.starts)
      this.starts = next
    }
    this.starts[line] = at
    this.known = line + 1
  }

  /** Where a line (from 0) begins; undefined past the end. */
  startOf(line: number): number | undefined {
    while (this.known <= line) {
      const newline = this.text.indexOf('\n', this.starts[this.known - 1] as number)
      if (newline < 0) return undefined
      this.note(this.known, newline + 1)
    }
    return this.starts[line]
  }

  /** Without the line break. */
  lineText(line: number): string {
    const start = this.startOf(line)
    if (start === undefined) return ''
    const newline = this.text.indexOf('\n', start)
    return this.text.slice(start, newline < 0 ? undefined : newline)
  }

  /** The first line after another that a pattern fits; looked for once. `name` says which pattern. */
  firstAfter(line: number, name: string, pattern: RegExp): number | undefined {
    const key = `${line}/${name}`
    if (this.ends.has(key)) return this.ends.get(key)
    let at = line + 1
    while (this.startOf(at) !== undefined && !pattern.test(this.lineText(at))) at++
    this.work?.lines(at - line)
    const found = this.startOf(at) === undefined ? undefined : at
    this.ends.set(key, found)
    return found
  }

  private scanNumbers(): Map<number, number[]> {
    const numbers = new Map<number, number[]>()
    const programs: { number: number; line: number }[] = []
    for (let line = 0; this.startOf(line) !== undefined; line++) {
      const start = this.starts[line] as number
      const head = this.text.slice(start, start + 24)
      const n = /^[ \t\r/]*[Nn][ \t]*(\d{1,8})/.exec(head)
      if (n) {
        const number = Number(n[1])
        const lines = numbers.get(number)
        if (lines) lines.push(line)
        else numbers.set(number, [line])
      }
      const o = /^[ \t\r/]*(?:[Oo]|:)[ \t]*(\d{1,8})/.exec(head)
      if (o) programs.push({ number: Number(o[1]), line })
      else if (head.includes('<')) {
        const name = NAMED_PROGRAM.exec(this.lineText(line))?.[1]
        if (name !== undefined) programs.push({ number: this.numberOf(name), line })
      }
    }
    this.programs = programs
    this.numbers = numbers
    return numbers
  }

  private allPrograms() {
    if (!this.programs) this.scanNumbers()
    return this.programs ?? []
  }

  /** What stands for the number of a program that is called by its name. */
  numberOf(name: string): number {
    const key = programName(name)
    const number = this.names.get(key) ?? FIRST_NAMED + this.names.size
    this.names.set(key, number)
    return number
  }

  /** The line of a program by its O number. */
  program(number: number): number | undefined {
    this.work?.lines(this.allPrograms().length)
    return this.allPrograms().find((each) => each.number === number)?.line
  }

  /** Lines with this N number, in the program that `line` is in: from there on first, then from its start. */
  numbered(number: number, line: number): number | undefined {
    const lines = (this.numbers ?? this.scanNumbers()).get(number)
    if (!lines) return undefined
    this.work?.lines(lines.length + this.allPrograms().length)
    let from = 0
    let to = Number.POSITIVE_INFINITY
    for (const { line: at } of this.allPrograms()) {
      if (at <= line) from = at
      else {
        to = at
        break
      }
    }
    const inside = lines.filter((each) => each >= from && each < to)
    return inside.find((each) => each > line) ?? inside[0]
  }
}

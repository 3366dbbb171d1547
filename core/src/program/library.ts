import { isOn, type OwnCode } from '../control/index.ts'
import type { ReadOptions } from './read-options.ts'

/** O numbers that stand for programs which a G or an M code calls: beyond all that a program can have. */
const FIRST_OWN_NUMBER = 99_900_000
/** Ends the last program of a library. */
const LAST_NUMBER = 99_999_999

/** What the profile says of the codes of one machine, by their words: 'M51', 'O9901'. */
export interface Library {
  codes: ReadonlyMap<string, OwnCode>
  /** O numbers of the programs that codes call, by their words. */
  numbers: ReadonlyMap<string, number>
  /** The texts of those programs, one after the other; empty where there are none. */
  text: string
}

/** A program without what stands before its first block: percent signs, empty lines, its own O number. */
const bodyOf = (text: string) => text.replace(/^[\s%]*(?:[Oo:]\s*\d+)?/, '')

export function libraryOf({ profile, machine }: ReadOptions): Library {
  const codes = new Map(
    profile.ownCodes.flatMap((own) => (isOn(own, machine.kind) ? [[own.code, own] as const] : [])),
  )
  const numbers = new Map<string, number>()
  const texts: string[] = []
  for (const [word, own] of codes) {
    if (own.does !== 'call') continue
    const number = word.startsWith('O') ? Number(word.slice(1)) : FIRST_OWN_NUMBER + numbers.size
    numbers.set(word, number)
    texts.push(`O${number}${bodyOf(own.text.replace(/\r\n?/g, '\n')).trimEnd()}\n`)
  }
  return { codes, numbers, text: texts.length > 0 ? `${texts.join('')}O${LAST_NUMBER}\n` : '' }
}

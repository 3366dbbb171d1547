import { type Block, has, ROTARY } from './block.ts'
import { MAY_MOVE } from './check-words.ts'
import { isDrawn } from './drawn-words.ts'
import { isDrivenWord } from './driven.ts'
import type { Run } from './run.ts'
import { COMMA_A, COMMA_C, COMMA_R, letterAtPlace, place } from './scan.ts'

const notFollowed = (run: Run, letter: string, why: string) =>
  run.wrong('word-not-seen', 'stop', `${letterAtPlace(place(letter))} is not followed here: ${why}.`, {
    does: MAY_MOVE,
    word: run.scan.slot[place(letter)] as number,
    once: letter,
  })

/** Words for axes that the reader does not have: what they may mean. Common practice. */
const AXES = {
  mill: {
    U: 'a further axis, or a distance along X',
    V: 'a further axis, or a distance along Y',
    W: 'a further axis, or a distance along Z',
  },
  lathe: {
    Y: 'an axis that is not looked at on a lathe',
    V: 'a further axis',
    B: 'a further axis, or an angle',
    C: 'a chamfer, or the angle of the spindle',
    H: 'the angle of the spindle',
  },
} as const

/** Says where a block names an axis that the reader does not follow. */
export function unseenAxes({ run, g }: Block): void {
  const { kind } = run.options.machine
  for (const [letter, why] of Object.entries(AXES[kind]))
    if (has(run, letter) && !(letter === 'U' && g.includes(4)) && !(run.lathe && isDrivenWord(run, letter)))
      notFollowed(run, letter, why)
  const turning = ROTARY.filter((letter) => has(run, letter))
  if (kind === 'mill' && turning.length > 1)
    notFollowed(run, turning[1] as string, `only one rotary is, and here that is ${turning[0]}`)
}

/** Words that make something else of a straight move or an arc on some controls. Common practice. */
const IN_MOVES = {
  mill: { R: 'some controls round a corner by it' },
  lathe: {
    A: 'the angle of a line, or an axis',
    R: 'some controls round a corner by it',
    I: 'some controls chamfer a corner by it',
    K: 'some controls chamfer a corner by it',
  },
} as const
const COMMA_WORDS = {
  [COMMA_C]: 'a chamfer',
  [COMMA_R]: 'a rounding',
  [COMMA_A]: 'the angle of a line',
}
const OF_ARCS = new Set(['I', 'J', 'K', 'R'])
const IDLE = ['I', 'J', 'K', 'Q'] as const

/** Says where the words of a macro call have one with a comma, which is no argument. */
export function unseenArguments(run: Run): void {
  for (const letter of Object.keys(COMMA_WORDS))
    if (has(run, letter)) notFollowed(run, letter, 'it is no argument of a macro')
}

/** Says where a plain move carries a word that the reader passes over. */
export function unseenInMove(run: Run): void {
  const { kind } = run.options.machine
  const arc = run.motion === 2 || run.motion === 3
  const isArcs = (letter: string) => arc && OF_ARCS.has(letter)
  const others: Partial<Record<string, string>> = { ...IN_MOVES[kind], ...COMMA_WORDS }
  for (const [letter, why = ''] of Object.entries(others))
    if (has(run, letter) && !isArcs(letter) && !isDrawn(run, letter)) notFollowed(run, letter, why)
  for (const letter of IDLE)
    if (has(run, letter) && !isArcs(letter) && !isDrawn(run, letter) && others[letter] === undefined)
      run.wrong('word-idle', 'look', `${letter} does nothing in this line.`, {
        does: 'The control passes over it, or stops with an alarm: something may be missing from the line.',
        word: run.scan.slot[place(letter)] as number,
        once: letter,
      })
}

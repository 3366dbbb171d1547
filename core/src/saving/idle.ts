import { ROW } from '../program/index.ts'
import {
  type Candidate,
  hasCode,
  isFeed,
  lineText,
  onlyWords,
  type SavingCase,
  withLines,
  wordOf,
} from './case.ts'

/** Dwells that wait for what the control waits for by itself. */
function dwells(of: SavingCase): Candidate[] {
  const { motion } = of
  if (of.jumps) return []
  const found: Candidate[] = []
  for (let row = 0; row < motion.count; row++) {
    const event = motion.kind[row] === ROW.EVENT ? motion.events[motion.aux[row] as number] : undefined
    if (event?.does !== 'dwell') continue
    const line = motion.line[row] as number
    if (!onlyWords(of.blocks.get(line), ['G4', 'P', 'X', 'U'])) continue
    const before = row > 0 ? (motion.kind[row - 1] as number) : -1
    // At the bottom of a cut it lets the tool go round: that is not lost.
    if (isFeed(before) || before === ROW.IN_STEP || before === ROW.PROBE) continue
    const last = before === ROW.EVENT ? motion.events[motion.aux[row - 1] as number] : undefined
    const starts = last?.does === 'spindle'
    found.push({
      code: 'dwell',
      line,
      says: `Without the dwell of ${event.seconds} s.`,
      why: starts
        ? 'The control waits until the spindle is up to speed by itself.'
        : 'The tool stands in the air and waits for nothing.',
      risk: starts ? 'little' : 'some',
      mind: starts
        ? 'Look in the manual whether the control waits for its spindle.'
        : 'Look whether it waits for something outside: a clamp, a door, coolant that must come.',
      after: withLines(of, new Map([[line, []]])),
    })
  }
  return found
}

/** A probe that is switched off and on again between two features. */
function probeOnOff(of: SavingCase): Candidate[] {
  const { probing } = of.of.profile
  if (!probing || of.jumps) return []
  const calls = [...of.blocks.values()].filter((block) => hasCode(block, 'G', 65) || hasCode(block, 'M', 98))
  const callOf = (line: number, program: number) =>
    calls.find((each) => each.line === line && hasCode(each, 'P', program))
  const found: Candidate[] = []
  for (const off of calls) {
    if (!callOf(off.line, probing.off)) continue
    const on = calls.find((each) => each.line > off.line && hasCode(each, 'P', probing.on))
    if (!on) continue
    const between = [...of.blocks.values()].filter(({ line }) => line > off.line && line < on.line)
    if (
      between.some((block) => wordOf(block, 'T') || hasCode(block, 'M', 6) || callOf(block.line, probing.off))
    )
      continue
    const changed = new Map<number, string[]>([
      [off.line, []],
      [on.line, []],
    ])
    let plain = true
    for (const block of between) {
      if (block.words.length === 0) continue
      if (calls.includes(block)) continue
      if (!onlyWords(block, ['G0', 'X', 'Y', 'Z'])) plain = false
      const words = ['X', 'Y', 'Z'].flatMap((letter) => {
        const word = wordOf(block, letter)
        return word ? [lineText(of, block.line).slice(word.from, word.to).trim()] : []
      })
      const feed = of.proof.program.inch ? probing.feed.inch : probing.feed.mm
      if (words.length > 0)
        changed.set(block.line, [`G65 P${probing.protectedMove} ${words.join(' ')} F${feed}.`])
    }
    if (!plain) continue
    found.push({
      code: 'probe-on',
      line: off.line,
      says: 'The probe stays on between the two features.',
      why: 'Switching it off and on again takes seconds each time, and the way between them can be protected.',
      risk: 'none',
      mind: 'The moves between them become protected moves. Whether each switching takes as long as is calculated depends on the probe.',
      after: withLines(of, changed),
    })
  }
  return found
}

export const idleFinders = [dwells, probeOnOff]

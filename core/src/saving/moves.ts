import { toolIn } from '../machine/index.ts'
import { endOf, type Motion, ROW } from '../program/index.ts'
import { boundsOf } from '../prove/index.ts'
import { formatWithUnit } from '../quantity/index.ts'
import {
  type Candidate,
  hasCode,
  heightWord,
  isFeed,
  lineText,
  onlyWords,
  prefixed,
  type SavingCase,
  stateAt,
  withLines,
  withWord,
  wordOf,
} from './case.ts'

const upOrDown = (of: SavingCase, row: number) => {
  const [from, to] = [endOf(of.motion, row - 1), endOf(of.motion, row)]
  return from[0] === to[0] && from[1] === to[1] ? Math.sign(to[2] - from[2]) : 0
}

/** Rapids along Z in one go that are written in two. */
function rapidPieces(of: SavingCase): Candidate[] {
  const { motion } = of
  if (of.jumps) return []
  const found: Candidate[] = []
  for (let row = 1; row + 1 < motion.count; row++) {
    const way = upOrDown(of, row)
    if (motion.kind[row] !== ROW.RAPID || motion.kind[row + 1] !== ROW.RAPID || way === 0) continue
    if (upOrDown(of, row + 1) !== way) continue
    const [a, b] = [motion.line[row] as number, motion.line[row + 1] as number]
    const [first, second] = [of.blocks.get(a), of.blocks.get(b)]
    // A tool change goes up by itself on some machines only.
    if (a === b || !(wordOf(second, 'Z') || hasCode(second, 'G', 28))) continue
    const changed = new Map<number, string[]>()
    const z = wordOf(first, 'Z')
    const next = wordOf(second, 'Z')
    if (onlyWords(first, ['G0', 'Z'])) {
      changed.set(a, [])
      if (hasCode(first, 'G', 0) && !second?.words.some(({ letter, value }) => letter === 'G' && value <= 3))
        changed.set(b, [prefixed(lineText(of, b), second, 'G0')])
    } else if (
      z &&
      next &&
      onlyWords(second, ['G0', 'Z']) &&
      !hasCode(first, 'G', 53) &&
      !hasCode(first, 'G', 28)
    ) {
      changed.set(a, [withWord(lineText(of, a), z, lineText(of, b).slice(next.from, next.to).trim())])
      changed.set(b, [])
    } else continue
    found.push({
      code: 'rapid-pieces',
      line: a,
      says: way > 0 ? 'Up in one rapid instead of two.' : 'Down in one rapid instead of two.',
      why: 'The axis stops between them and speeds up again.',
      risk: way > 0 ? 'none' : 'some',
      mind:
        way > 0
          ? 'It ends at the same height.'
          : 'The stop on the way down is what the eye has on a first run. Take it once the program has run.',
      after: withLines(of, changed),
    })
  }
  return found
}

/** Whether a row at feed stays where nothing of the part is: above it, or beside it. */
export function inAir(of: SavingCase, motion: Motion, row: number): boolean {
  const { safe, clearance } = of
  if (safe === undefined) return false
  const state = stateAt(motion, row)
  const shape = of.of.tools.find(({ number }) => number === state?.tool)
  const radius = shape ? toolIn(shape, of.of.unit).diameter / 2 : undefined
  const [from, to] = [endOf(motion, row - 1), endOf(motion, row)]
  if (Math.min(from[2], to[2]) >= safe - 1e-9) return true
  if (radius === undefined) return false
  const room = radius + clearance
  return of.proof.bodies
    .filter(({ role }) => role === 'part')
    .every((body) => {
      const { least, greatest } = boundsOf(body)
      return [0, 1].some(
        (axis) =>
          Math.min(from[axis] as number, to[axis] as number) > (greatest[axis] as number) + room ||
          Math.max(from[axis] as number, to[axis] as number) < (least[axis] as number) - room,
      )
    })
}

const saysMotion = (of: SavingCase, line: number) =>
  of.blocks.get(line)?.words.some(({ letter, value }) => letter === 'G' && value <= 3) ?? false

/** Feed moves that cut nothing: whole ones go at rapid, a plunge goes at rapid down to where it is safe. */
function airAtFeed(of: SavingCase): Candidate[] {
  const { motion, safe } = of
  if (safe === undefined || of.jumps) return []
  const found: Candidate[] = []
  const base = { code: 'air-cut', risk: 'some' as const }
  const mind = 'Only the part as it is placed was looked at: stock that is larger is met at rapid.'
  for (let row = 1; row < motion.count; row++) {
    if (motion.kind[row] !== ROW.LINE || (motion.flags[row] as number) & 2) continue
    const state = stateAt(motion, row)
    const line = motion.line[row] as number
    if (!state || state.cycle || state.feedMode === 93) continue
    const block = of.blocks.get(line)
    const code = block?.words.find(({ letter, value }) => letter === 'G' && value === 1)
    const text = lineText(of, line)
    /** The next line that moves and leans on the G1 that goes. */
    const after = [...motion.line.subarray(row + 1)].find((each) => each !== line)
    const nextRow = after === undefined ? -1 : motion.line.indexOf(after, row + 1)
    const leans = after !== undefined && isFeed(motion.kind[nextRow] as number) && !saysMotion(of, after)
    if (inAir(of, motion, row)) {
      const changed = new Map([[line, [code ? withWord(text, code, 'G0') : prefixed(text, block, 'G0')]]])
      // The feed that stood on this line still counts for the next.
      const feed = wordOf(block, 'F')
      if (leans && after !== undefined) {
        const word =
          feed && !wordOf(of.blocks.get(after), 'F') ? ` ${text.slice(feed.from, feed.to).trim()}` : ''
        changed.set(after, [`${prefixed(lineText(of, after), of.blocks.get(after), 'G1')}${word}`])
      }
      found.push({
        ...base,
        line,
        says: `Line ${line} at rapid: it cuts nothing.`,
        why: 'At feed the tool goes through air, clear of the part.',
        mind,
        after: withLines(of, changed),
      })
      continue
    }
    const [from, to] = [endOf(motion, row - 1), endOf(motion, row)]
    const word = heightWord(of, state, safe)
    if (upOrDown(of, row) >= 0 || !(from[2] > safe + of.clearance) || to[2] >= safe || word === undefined)
      continue
    found.push({
      ...base,
      line,
      says: `At rapid to Z${word}, then at feed.`,
      why: `From ${formatWithUnit(from[2] - (of.proof.top ?? 0), of.of.unit)} over the part it comes down at feed.`,
      mind,
      after: withLines(of, new Map([[line, [`G0 Z${word}`, code ? text : prefixed(text, block, 'G1')]]])),
    })
  }
  return found
}

export const moveFinders = [rapidPieces, airAtFeed]

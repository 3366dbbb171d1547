import { toolIn } from '../machine/index.ts'
import { endOf, ROW } from '../program/index.ts'
import { type Candidate, isFeed, lineText, type SavingCase, stateAt, withLines, wordOf } from './case.ts'

/** What one tool does between two tool changes: its lines, and the box in plan that it cuts in, with its radius. */
interface Stretch {
  tool: number
  from: number
  to: number
  least: [number, number]
  greatest: [number, number]
}

function stretches(of: SavingCase): Stretch[] {
  const { motion } = of
  const found: Stretch[] = []
  const end = [...of.blocks.values()].find(({ words }) =>
    words.some(({ letter, value }) => letter === 'M' && (value === 30 || value === 2 || value === 99)),
  )?.line
  for (let row = 0; row < motion.count; row++) {
    const line = motion.line[row] as number
    const event = motion.kind[row] === ROW.EVENT ? motion.events[motion.aux[row] as number] : undefined
    if (event?.does === 'tool') {
      const last = found.at(-1)
      if (last) last.to = line - 1
      found.push({
        tool: event.tool,
        from: line,
        to: (end ?? of.lines.length + 1) - 1,
        least: [Infinity, Infinity],
        greatest: [-Infinity, -Infinity],
      })
      continue
    }
    const now = found.at(-1)
    const kind = motion.kind[row] as number
    if (!now || (!isFeed(kind) && kind !== ROW.IN_STEP)) continue
    const shape = of.of.tools.find(({ number }) => number === stateAt(motion, row)?.tool)
    const radius = shape ? toolIn(shape, of.of.unit).diameter / 2 : 0
    // The box of an arc is that of its whole circle.
    const arc = kind !== ROW.LINE && kind !== ROW.IN_STEP
    const reach = radius + (arc ? 2 * (motion.arcs[6 * (motion.aux[row] as number) + 4] as number) : 0)
    for (const point of [endOf(motion, row - 1), endOf(motion, row)])
      for (const axis of [0, 1] as const) {
        now.least[axis] = Math.min(now.least[axis], point[axis] - reach)
        now.greatest[axis] = Math.max(now.greatest[axis], point[axis] + reach)
      }
  }
  return found
}

const apart = (a: Stretch, b: Stretch) =>
  ([0, 1] as const).some((axis) => a.least[axis] > b.greatest[axis] || a.greatest[axis] < b.least[axis])

/** A tool that comes back later, for work that touches nothing of what is cut in between: done in one go. */
export function toolOrder(of: SavingCase): Candidate[] {
  if (of.jumps) return []
  const all = stretches(of)
  const found: Candidate[] = []
  for (const [at, first] of all.entries()) {
    const again = all.findIndex(({ tool }, index) => index > at + 1 && tool === first.tool)
    if (again < 0) continue
    const later = all[again] as Stretch
    const between = all.slice(at + 1, again)
    if (!between.every((each) => apart(each, later))) continue
    const block = of.blocks.get(later.from)
    const words = [
      wordOf(block, 'T'),
      block?.words.find(({ letter, value }) => letter === 'M' && value === 6),
    ]
    let head = lineText(of, later.from)
    for (const word of words.filter((each) => each !== undefined).sort((a, b) => b.from - a.from))
      head = `${head.slice(0, word.from)}${head.slice(word.to)}`
    const moved = [head.trim(), ...of.lines.slice(later.from, later.to)].filter(
      (line, index) => index > 0 || line !== '',
    )
    const changed = new Map<number, string[]>()
    for (let line = later.from; line <= later.to; line++) changed.set(line, [])
    changed.set(first.to, [lineText(of, first.to), ...moved])
    found.push({
      code: 'tool-order',
      line: later.from,
      says: `T${first.tool} does both its jobs in one go: one tool change less.`,
      why: `It comes back in line ${later.from}, for work that touches nothing of what the tools in between cut.`,
      risk: 'some',
      mind: 'Whether the later work needs what comes before it (a face, a deburred edge, a part let loose) only you know.',
      after: withLines(of, changed),
    })
  }
  return found
}

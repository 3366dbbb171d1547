import { lengthOf, MOST_EXACT, shortestOrder } from '../geometry/index.ts'
import { endOf } from '../program/index.ts'
import { formatWithUnit } from '../quantity/index.ts'
import { rapidSeconds } from '../timing/index.ts'
import {
  type Candidate,
  type CycleGroup,
  cycleGroups,
  endOfWords,
  hasCode,
  heightWord,
  highest,
  lineText,
  onlyWords,
  type SavingCase,
  withLines,
  withWord,
  wordOf,
} from './case.ts'

const TAPS = new Set([74, 84])

/** Tapping that comes out no faster than it went in, on a control that can do better. */
function retractMultiple(of: SavingCase): Candidate[] {
  const { motion } = of
  const { profile } = of.of
  const retract = profile.reading.tapRetract
  if (!retract) return []
  const top = of.proof.speeds.tapTop * 60
  return cycleGroups(of).flatMap((group): Candidate[] => {
    const block = of.blocks.get(group.line)
    if (!hasCode(block, 'G', 84) && !hasCode(block, 'G', 74)) return []
    const step = motion.inStep.find(
      (_, index) =>
        [...motion.aux.subarray(group.first, group.last + 1)].includes(index) && motion.inStep[index]?.tap,
    )
    if (!step || step.rpm <= 0) return []
    // On a spindle that nobody has timed two is enough to begin with (common practice).
    const timed = of.of.machine.dynamics?.spindleTimed === true
    const most = Math.min(retract.most, top / step.rpm, timed ? Number.POSITIVE_INFINITY : 2)
    const multiple = retract.decimal ? Math.floor(most * 10 + 1e-9) / 10 : Math.floor(most + 1e-9)
    if (multiple < step.multiple + 0.1) return []
    const text = lineText(of, group.line)
    const old = wordOf(block, retract.address)
    const word = `${retract.address}${multiple}`
    const at = endOfWords(text, block)
    const next = old ? withWord(text, old, word) : `${text.slice(0, at)} ${word}${text.slice(at)}`
    return [
      {
        code: 'tap-retract',
        line: group.line,
        says: `Let the tap come out ${multiple} times as fast.`,
        why: `It comes out at ${step.multiple === 1 ? 'the speed that it went in' : `${step.multiple} times the speed in`}; ${Math.round(multiple * step.rpm)} rpm is within what the spindle taps at.`,
        risk: 'little',
        mind: `Only in rigid tapping. Watch the first hole: a chip in the flute breaks a tap on the way out.${timed ? '' : ' Nobody has timed this spindle: two timed holes, in Code, say whether more pays.'}`,
        after: withLines(of, new Map([[group.line, [next]]])),
      },
    ]
  })
}

/** A line with the plane that its cycle comes back to said, after the cycle's own word. */
function withReturn(of: SavingCase, { line, state }: CycleGroup, word: 'G98' | 'G99'): string | undefined {
  const block = of.blocks.get(line)
  const text = lineText(of, line)
  const own = (wanted: number) => block?.words.find(({ letter, value }) => letter === 'G' && value === wanted)
  const old = own(98) ?? own(99)
  if (old) return withWord(text, old, word)
  const cycle = own(state.cycle)
  return cycle ? `${text.slice(0, cycle.to)} ${word}${text.slice(cycle.to)}` : undefined
}

/** Between holes back to the R plane only; a cycle after it that says neither keeps what it had. */
function returnPlane(of: SavingCase): Candidate[] {
  const groups = cycleGroups(of)
  return groups.flatMap((group, index): Candidate[] => {
    if (group.state.retract !== 98 || group.holes.length < 2 || of.safe === undefined) return []
    const low = withReturn(of, group, 'G99')
    const after = groups[index + 1]
    const words = after ? of.blocks.get(after.line)?.words : undefined
    const leans =
      after?.state.retract === 98 &&
      !words?.some(({ letter, value }) => letter === 'G' && (value === 98 || value === 99))
    const high = after && leans ? withReturn(of, after, 'G98') : undefined
    if (low === undefined || (leans && high === undefined)) return []
    const changed = new Map([[group.line, [low]]])
    if (after && high !== undefined) changed.set(after.line, [high])
    return [
      {
        code: 'return-plane',
        line: group.line,
        says: `G99: back to the R plane only between the ${group.holes.length} holes.`,
        why: 'G98 goes up to the initial level and down again at every hole. Nothing that is placed stands between them at the height of R.',
        risk: 'little',
        mind: 'Only what is placed was looked at: a boss of the part, a chip, a screw head between the holes is not in it.',
        after: withLines(of, changed),
      },
    ]
  })
}

/** The lowest R plane that still clears the part by as much as is usual. */
function lowerR(of: SavingCase): Candidate[] {
  const { safe } = of
  if (safe === undefined) return []
  return cycleGroups(of).flatMap((group): Candidate[] => {
    const block = of.blocks.get(group.line)
    const r = wordOf(block, 'R')
    const word = heightWord(of, group.state, safe)
    // A tap needs the room over the part to come into step.
    if (!r || word === undefined || r.variable !== undefined || TAPS.has(group.state.cycle)) return []
    // The level at which the cycle begins to feed.
    const level = r.value
    const low = Number(word)
    if (!(level > low + 1e-9)) return []
    const text = lineText(of, group.line)
    const unit = group.state.inch ? 'inch' : 'mm'
    return [
      {
        code: 'r-plane',
        line: group.line,
        says: `R${word}: the R plane ${formatWithUnit(of.clearance, of.of.unit)} over the part.`,
        why: `From R ${formatWithUnit(level, unit)} down the tool feeds through air, at every hole.`,
        risk: 'little',
        mind: 'Stock that is higher than placed is met at rapid.',
        after: withLines(of, new Map([[group.line, [withWord(text, r, `R${word}`)]]])),
      },
    ]
  })
}

/** The level that the tool comes down to before a cycle, and goes back to: no higher than what stands there asks for. */
function lowerInitial(of: SavingCase): Candidate[] {
  const { motion } = of
  if (of.safe === undefined) return []
  const clear = Math.max(of.safe, highest(of) + of.clearance)
  return cycleGroups(of).flatMap((group): Candidate[] => {
    let row = group.first - 1
    while (row >= 0 && endOf(motion, row)[2] === endOf(motion, row - 1)[2]) row--
    if (row < 0) return []
    const line = motion.line[row] as number
    const block = of.blocks.get(line)
    const z = wordOf(block, 'Z')
    const state = motion.states[motion.state[row] as number]
    // No lower than the R plane, where the first hole begins to feed.
    let feeds = group.first
    while (feeds < group.last && motion.kind[feeds] === 0) feeds++
    const word = state && heightWord(of, state, Math.max(clear, endOf(motion, feeds - 1)[2]))
    if (!z || word === undefined || hasCode(block, 'G', 53) || hasCode(block, 'G', 28)) return []
    if (motion.kind[row] !== 0 || !(z.value > Number(word) + 1e-9)) return []
    return [
      {
        code: 'initial-level',
        line,
        says: `Z${word} before the holes: as low as the R plane and what is placed allow.`,
        why: 'The cycle goes back to this level; higher than everything that stands there is time for nothing.',
        risk: 'little',
        mind: 'Only what is placed was looked at.',
        after: withLines(of, new Map([[line, [withWord(lineText(of, line), z, `Z${word}`)]]])),
      },
    ]
  })
}

/** Holes that are only places, so that their order is free; the words of each. */
function freeHoles(of: SavingCase, group: CycleGroup) {
  const { holes, state } = group
  if (holes.length < 3 || !state.absolute || of.jumps) return undefined
  let [x, y] = ['', '']
  const found: { line: number; x: string; y: string; tail: string }[] = []
  for (const [index, hole] of holes.entries()) {
    const block = of.blocks.get(hole.line)
    const text = lineText(of, hole.line)
    const words = ['X', 'Y'].map((letter) => wordOf(block, letter))
    if (index > 0 && !onlyWords(block, ['X', 'Y'])) return undefined
    if (!block || words.some((word) => word?.variable !== undefined)) return undefined
    if (
      ['L', 'K'].some((letter) => wordOf(block, letter)) &&
      index === 0 &&
      hasCode(block, 'G', state.cycle) &&
      wordOf(block, of.of.profile.reading.repeats)
    )
      return undefined
    const [wx, wy] = words
    if (wx) x = text.slice(wx.from, wx.to).trim()
    if (wy) y = text.slice(wy.from, wy.to).trim()
    const tail = text.slice(endOfWords(text, block)).trim()
    found.push({ line: hole.line, x, y, tail })
  }
  return found.every((each) => each.x !== '' && each.y !== '') ? found : undefined
}

/** The order of the holes of a cycle, by the time of the rapids between them. */
function holeOrder(of: SavingCase): Candidate[] {
  const { motion } = of
  const { speeds } = of.proof
  return cycleGroups(of).flatMap((group): Candidate[] => {
    const words = freeHoles(of, group)
    if (!words) return []
    const { holes } = group
    const from = endOf(motion, group.first - 1)
    // Where it goes on to, once it moves sideways again; anywhere, if it does not.
    const [lastX, lastY] = endOf(motion, group.last)
    let next = group.last + 1
    while (next < motion.count && motion.x[next] === lastX && motion.y[next] === lastY) next++
    const after = next < motion.count ? endOf(motion, next) : undefined
    const seconds = (a: { x: number; y: number }, b: { x: number; y: number }) =>
      rapidSeconds(b.x - a.x, b.y - a.y, 0, speeds)
    const legs = {
      between: holes.map((a) => holes.map((b) => seconds(a, b))),
      fromStart: holes.map((hole) => seconds({ x: from[0], y: from[1] }, hole)),
      toEnd: holes.map((hole) => (after ? seconds(hole, { x: after[0], y: after[1] }) : 0)),
    }
    const order = shortestOrder(legs)
    const now = lengthOf([...holes.keys()], legs)
    if (!(lengthOf(order, legs) < now - 0.01)) return []
    const changed = new Map<number, string[]>()
    for (const [index, take] of order.entries()) {
      const hole = words[take] as (typeof words)[number]
      const at = words[index] as (typeof words)[number]
      const block = of.blocks.get(at.line)
      const text = lineText(of, at.line)
      const place = `${hole.x} ${hole.y}`
      if (index > 0) {
        const n = wordOf(block, 'N')
        changed.set(at.line, [
          [n ? text.slice(n.from, n.to) : '', place, hole.tail].filter(Boolean).join(' '),
        ])
        continue
      }
      const [x, y] = ['X', 'Y'].map((letter) => wordOf(block, letter))
      let next = text.slice(0, endOfWords(text, block))
      for (const [word, insert] of [[x, hole.x] as const, [y, hole.y] as const].sort(
        (a, b) => (b[0]?.from ?? 0) - (a[0]?.from ?? 0),
      ))
        if (word) next = withWord(next, word, insert)
      const missing = [x ? '' : hole.x, y ? '' : hole.y].filter(Boolean).join(' ')
      changed.set(at.line, [[next, missing, hole.tail].filter(Boolean).join(' ')])
    }
    return [
      {
        code: 'hole-order',
        line: group.line,
        says: `The ${holes.length} holes in a shorter order.`,
        why: `The way between them takes ${now.toFixed(1)} s; ${holes.length <= MOST_EXACT ? 'the shortest of all orders' : 'a shorter order'} takes ${lengthOf(order, legs).toFixed(1)} s.`,
        risk: 'none',
        mind: 'The holes and their cycle stay as they are. Look at the way round the clamps in the drawing.',
        after: withLines(of, changed),
      },
    ]
  })
}

export const holeFinders = [retractMultiple, returnPlane, lowerR, lowerInitial, holeOrder]

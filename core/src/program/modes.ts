import { type Block, has, OF_PROFILE, wordValue } from './block.ts'
import { MAY_MOVE, notSeen } from './check-words.ts'
import { type CodeMeaning, gCode, mCode } from './codes.ts'
import { drivenCode, isOfDriven, startsAxis } from './driven.ts'
import { polarFromZero } from './polar.ts'
import type { Run } from './run.ts'

/** Takes the G and M codes of the block; says which are not known, and which contradict each other. */
export function gather(block: Block): void {
  const { run, codes } = block
  const { scan } = run
  const kind = run.options.machine.kind
  let groups = 0
  const own = Object.values(codes)
  for (let n = 0; n < scan.count; n++) {
    const letter = scan.letters[n] as number
    if (letter !== 7 && letter !== 13) continue
    const value = scan.values[n] as number
    if (Number.isNaN(value)) continue
    if (letter === 13) {
      const lacks = (value === 23 || value === 24) && !(run.lathe && run.options.profile.reading.threads)
      if (
        (isRead(mCode(value)) && !lacks) ||
        value === run.options.profile.reading.rigidTap ||
        isPallet(run, value) ||
        isOfDriven(run, value)
      )
        block.m.push(value)
      else further(block, 'M', value, n)
      continue
    }
    const meaning = gCode(value, kind)
    const isOffset = value >= 54 && value < 60
    const lacks =
      isOffset ||
      (run.lathe && (value === 12.1 || value === 13.1)) ||
      (value === 68 && codes.rotationOn === undefined) ||
      (!run.lathe && OF_PROFILE.has(value))
    if (!own.includes(value) && !run.offsetOfCode.has(value) && (lacks || !isRead(meaning))) {
      further(block, 'G', value, n)
      continue
    }
    const group = meaning?.group ?? 0
    if (group !== 0 && groups & (1 << group) && !block.g.includes(value))
      run.wrong('two-of-a-group', 'look', `G${value} and another code of its group stand in one block.`, {
        does: 'The control takes the last one, or stops with an alarm.',
        word: n,
      })
    groups |= 1 << group
    block.g.push(value)
  }
  block.handsOver =
    block.g.includes(65) || block.g.includes(66) || block.own.some(({ own: { does } }) => does === 'call')
}

const isRead = (meaning: CodeMeaning | undefined) => meaning !== undefined && meaning.standing !== 'not-seen'

/** A code that the reader does not follow by itself: one that the profile says something of, or one that is not seen. */
function further(block: Block, letter: 'G' | 'M', value: number, word: number): void {
  const own = block.run.library.codes.get(`${letter}${value}`)
  if (own) {
    block.own.push({ own, word })
    return
  }
  block.unseen = true
  notSeen(block, letter, value, word)
}

export const isPallet = (run: Run, code: number) => run.options.profile.reading.pallets.includes(code)

/** Modes that hold from this block on, before anything moves. Order as in RS274/NGC, table 8. */
export function setModes(block: Block): void {
  const { run, g } = block
  let changed = false
  for (const code of g) {
    let isMode = true
    switch (code) {
      case 0:
      case 1:
      case 2:
      case 3:
        run.motion = code
        if (code < 2) run.lastPlain = code
        break
      case 80:
        run.motion = run.lastPlain
        run.rigidAnnounced = false
        break
      case 17:
      case 18:
      case 19:
        run.plane = code
        break
      case 20:
      case 21:
        run.inch = code === 20
        run.unitSaid = true
        run.scale = run.inch === (run.unit === 'inch') ? 1 : run.unit === 'mm' ? 25.4 : 1 / 25.4
        break
      case 61:
      case 64:
        run.exactStop = code === 61
        break
      case 40:
      case 41:
      case 42:
        run.compensation = code
        break
      case 9:
        run.exactStop = true
        block.exactOnce = true
        break
      default:
        isMode = !modeOfKind(block, code) || run.lathe
    }
    // One of them is enough, whatever stands after it.
    changed ||= isMode
  }
  if (has(run, 'F') && !block.handsOver) {
    const feed = wordValue(run, 'F') as number
    if (feed < 0)
      run.wrong('feed-negative', 'stop', `A feed of ${feed} is below zero.`, {
        does: 'The control stops with an alarm.',
      })
    run.feed = run.feedMode === 93 ? feed : Math.max(0, feed) * run.scale
  }
  if (has(run, 'S') && !block.handsOver && !(run.lathe && g.includes(50))) {
    const speed = wordValue(run, 'S') as number
    if (run.surfaceSpeed > 0 || g.includes(96)) run.surfaceSpeed = Math.max(0, speed)
    else run.speed = Math.max(0, speed)
    changed = true
  }
  if (changed) run.changed()
}

/** Modes that a mill and a lathe write differently; true where it was none of them. */
function modeOfKind({ run, codes }: Block, code: number): boolean {
  if (run.lathe) {
    if (code === 98) run.feedMode = 94
    else if (code === 99) run.feedMode = 95
    else if (code === 97) run.surfaceSpeed = 0
    else return true
    return false
  }
  if (code === 90 || code === 91) run.absolute = code === 90
  else if (code === 93 || code === 94 || code === 95) run.feedMode = code
  else if (code === 98 || code === 99) run.retract = code
  else if (code === codes.polarOn) run.polar = polarFromZero()
  else if (code === codes.polarOff) run.polar = null
  else return true
  return false
}

/** Work offsets and length offsets: where part zero is changes, the tool does not move. */
export function setFrames(block: Block): void {
  const { run, g, codes } = block
  let changed = false
  for (const code of g) {
    const offset = run.offsetOfCode.get(code)
    if (offset !== undefined && run.lathe) {
      if (offset !== run.options.profile.offsets.standard[0]) furtherShift(run, offset)
    } else if (offset !== undefined) {
      run.offset = offset
      changed = true
    } else if (code === codes.extended && code !== undefined) {
      const p = wordValue(run, 'P')
      const { extended } = run.options.profile.offsets
      if (run.lathe) furtherShift(run, `G${code} P${p ?? ''}`)
      else if (p === undefined || p < 1 || p > (extended?.count ?? 0))
        run.wrong('offset-number', 'stop', `G${code} needs P1 to P${extended?.count}.`, {
          does: 'The control stops with an alarm.',
        })
      else {
        run.offset = `G${code} P${p}`
        changed = true
      }
    } else if (!run.lathe && (code === 43 || code === 44 || code === 49)) {
      run.lengthCode = code
      const h = wordValue(run, 'H')
      if (code !== 49 && h === undefined && run.h === 0)
        run.wrong('length-no-h', 'stop', `G${code} without H: which length is not said.`, {
          does: 'The control uses H0: no length at all.',
        })
      changed = true
    }
  }
  if (has(run, 'H') && !run.lathe && !block.handsOver) {
    run.h = wordValue(run, 'H') as number
    changed = true
  }
  if (has(run, 'D') && !run.lathe && !block.handsOver) {
    run.d = wordValue(run, 'D') as number
    changed = true
  }
  if (changed) {
    run.reshift()
    run.changed()
  }
}

/** A lathe's tools have their zero by their geometry and one work offset. */
const furtherShift = (run: Run, offset: string) =>
  run.wrong(
    'not-seen',
    'stop',
    `${offset} is not followed on a lathe: another zero than that of the tools.`,
    {
      does: MAY_MOVE,
      once: offset,
    },
  )

export function tools(block: Block): void {
  const { run, m } = block
  if (block.handsOver) return
  if (has(run, 'T')) {
    const word = wordValue(run, 'T') as number
    if (run.lathe) {
      // T0101: the station, and the geometry that is used with it; T1 alone names the station only.
      const [station, geometry] = word >= 100 ? [Math.floor(word / 100), word % 100] : [word, 0]
      run.changeStation(station, geometry)
    } else run.nextTool = word
  }
  if (!run.lathe && m.includes(6)) {
    if (run.nextTool < 0)
      run.wrong('tool-not-said', 'stop', 'M6 without T: which tool is not said.', {
        does: 'The control stops with an alarm.',
      })
    else run.changeTool(run.nextTool)
  }
  for (const code of m) {
    if (isOfDriven(run, code)) drivenCode(block, code)
    else if (code === 3 || code === 4) {
      startsAxis(run, code)
      if (run.rpm() === 0)
        run.wrong('spindle-no-speed', 'look', `M${code} and no speed has been given.`, {
          does: 'The spindle does not turn.',
        })
      run.spindle(code)
    } else if (code === 7 || code === 8 || code === 9) {
      run.coolant = code !== 9
      run.changed()
    } else if (code === 23 || code === 24) run.threadOut = code === 23
    else if (code === run.options.profile.reading.rigidTap) {
      run.rigidAnnounced = true
      // Lines are read with care until the cycle is over.
      run.changed()
    }
  }
  // A new speed while it turns.
  if (
    has(run, 'S') &&
    run.turning &&
    !m.includes(3) &&
    !m.includes(4) &&
    !(run.lathe && block.g.includes(50))
  )
    run.event({ does: 'spindle', rpm: run.rpm(), turning: run.turning })
}

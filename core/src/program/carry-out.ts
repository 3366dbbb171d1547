import { goArc } from './arc.ts'
import {
  type Block,
  dwellOf,
  has,
  lengthOf,
  movesAxes,
  ROTARY,
  target,
  turningTarget,
  wordValue,
} from './block.ts'
import { callMacro, goBack, subprogram } from './calls.ts'
import { evaluateWords, noFeed } from './check-words.ts'
import { RADIAN } from './control-state.ts'
import { byAngle, cornerWord, goDrawn, isDrawn } from './drawn-words.ts'
import { notTurnedAlong, spindleAngle, turnsOfWhat } from './driven.ts'
import { faceTarget, movesOnFace, refusedOnFace } from './face.ts'
import { type CycleSaid, type CycleWords, MILL_CYCLES, millCycle } from './mill-cycles.ts'
import { gather, isPallet, setFrames, setModes, tools } from './modes.ts'
import { PLANE_AXES, ROW } from './motion.ts'
import { nonModal } from './non-modal.ts'
import { ownAfter, ownCalls } from './own-codes.ts'
import { holesAround } from './patterns.ts'
import type { Run } from './run.ts'
import { notWhileScaled } from './scaled.ts'
import { COMMA_A } from './scan.ts'
import { turningBlock } from './turning.ts'
import { unseenAxes, unseenInMove } from './unseen-words.ts'

/** Where the rotary word leads on the wrapped face, where the control wraps that word and not Y; a Y word then is a mistake. */
function wrappedWord(run: Run, rotary: (typeof ROTARY)[number] | undefined): number {
  if (has(run, 'Y'))
    run.wrong('mapping-y', 'stop', 'Y while the rotary word is wrapped.', {
      does: 'This control wraps degrees of the rotary word; Y moves the table across, off the centre line.',
      once: 'moves',
    })
  const { mapping } = run
  if (rotary === undefined || mapping === null) return run.wy
  const value = wordValue(run, rotary) as number
  return (turnedTo(run, value) - mapping.rotary) * RADIAN * mapping.radius
}

/** Where a rotary word turns to, as the motion counts. */
const turnedTo = (run: Run, value: number) => (run.absolute ? value + run.shiftTurn : run.rotary + value)

/** The rotary is turned in an offset whose angle is not known, while that of the main one is. */
function turnsUnknown(run: Run): void {
  const { frame, rotaryZeros, profile } = run.options
  const main = frame ?? profile.offsets.standard[0] ?? 'G54'
  if (rotaryZeros?.get(main) === undefined || run.rotaryAt(run.offset) !== undefined) return
  run.wrong('rotary-not-known', 'look', `The angle of the rotary in ${run.offset} is not known.`, {
    does: `It is taken for that of ${main}; the control goes by what stands in ${run.offset}.`,
    once: 'all',
  })
}

/** What the block moves: plain moves, arcs, canned cycles; nothing where it names no axis. */
function move(block: Block): void {
  const { run, g } = block
  if (refusedOnFace(block)) return
  if (run.lathe && !run.face && turningBlock(block)) return
  if (pattern(block)) return
  const cycle = run.lathe ? undefined : g.findLast((code) => MILL_CYCLES.has(code))
  const cycleBefore = MILL_CYCLES.has(run.motion)
  if (cycle !== undefined) run.motion = cycle
  const rotary = run.lathe ? undefined : ROTARY.find((letter) => has(run, letter))
  const angle = spindleAngle(run)
  if (
    cycle === undefined &&
    !movesAxes(run) &&
    !(run.face && movesOnFace(run)) &&
    !(
      run.lathe &&
      (has(run, 'U') ||
        has(run, 'W') ||
        ['A', COMMA_A].some((letter) => has(run, letter) && isDrawn(run, letter)))
    ) &&
    rotary === undefined &&
    angle === undefined
  ) {
    const arc = run.motion === 2 || run.motion === 3
    if (!(arc && (has(run, 'I') || has(run, 'J') || has(run, 'K')))) return
  }
  const taps = run.motion === 74 || run.motion === 84
  if (run.rigidAnnounced && !taps && movesAxes(run))
    run.wrong(
      'axis-after-rigid',
      'look',
      'An axis is named between the announcing of rigid tapping and its cycle.',
      {
        does: 'Many controls of this kind stop with an alarm there: position first, announce then.',
        once: 'rigid',
      },
    )
  const to = run.face ? faceTarget(run) : run.lathe ? turningTarget(run) : target(run, { machine: false })
  turnsOfWhat(run)
  if (run.lathe && !run.face && byAngle(block, to)) return
  const wraps = run.mapping !== null && run.options.profile.reading.mapping?.by === 'rotary-word'
  if (wraps) {
    if (rotary !== undefined) turnsUnknown(run)
    to[1] = wrappedWord(run, rotary)
  }
  if (MILL_CYCLES.has(run.motion) && !run.lathe) {
    if (cycle !== undefined) run.changed()
    if (run.scaled && (run.scaled.times[2] !== 1 || run.motion === 76 || run.motion === 87))
      notWhileScaled(
        run,
        run.motion === 76 || run.motion === 87 ? `G${run.motion}` : `G${run.motion} with its Z`,
      )
    const { tapRetract, repeats } = run.options.profile.reading
    const normal = run.plane === 17 ? 'Z' : run.plane === 18 ? 'Y' : 'X'
    const often = wordValue(run, repeats)
    holes(
      run,
      to,
      {
        depth: lengthOf(run, normal),
        r: lengthOf(run, 'R'),
        q: lengthOf(run, 'Q'),
        p: has(run, 'P') ? dwellOf(run) : undefined,
        i: lengthOf(run, 'I'),
        j: taps ? undefined : lengthOf(run, 'J'),
        repeats: often === undefined ? 1 : Math.max(0, Math.floor(often)),
        multiple: taps && tapRetract ? wordValue(run, tapRetract.address) : undefined,
      },
      cycle === undefined ? 'goes on' : cycleBefore ? 'again' : 'begins',
    )
    return
  }
  if (wraps && (run.motion === 0 || run.motion === 2 || run.motion === 3))
    run.wrong(
      run.motion === 0 ? 'mapping-rapid' : 'mapping-arc',
      'look',
      run.motion === 0
        ? 'A rapid while the rotary word is wrapped.'
        : 'An arc while the rotary word is wrapped.',
      {
        does:
          run.motion === 0
            ? 'Many controls of this kind stop with an alarm: rapids are not allowed there. Feed, or switch it off first.'
            : 'How it is written there differs: by R only, in a plane that was named before. Straight pieces depend on neither.',
        once: 'moves',
      },
    )
  if (!block.unseen) unseenInMove(run)
  if (run.motion === 2 || run.motion === 3) {
    noFeed(run)
    if (angle !== undefined || (rotary !== undefined && !wraps))
      notTurnedAlong(run, `an arc (G${run.motion})`)
    const words = {
      i: lengthOf(run, 'I'),
      j: lengthOf(run, 'J'),
      k: lengthOf(run, 'K'),
      r: lengthOf(run, 'R'),
    }
    goArc(run, run.motion === 2, to, words)
    return
  }
  const kind = run.motion === 0 ? ROW.RAPID : ROW.LINE
  if (kind === ROW.LINE) noFeed(run)
  if (rotary !== undefined && !wraps) {
    turnsUnknown(run)
    run.goTurning(kind, ...to, turnedTo(run, wordValue(run, rotary) as number))
  } else if (angle !== undefined) run.goTurning(kind, ...to, angle)
  else if (kind === ROW.LINE) goDrawn(run, to, cornerWord(run))
  else run.go(kind, ...to)
  if (run.modalMacro?.level === run.frames.length)
    callMacro(block, run.modalMacro.program, run.modalMacro.args.slice(), run.modalMacro.name)
}

/** A pattern of holes of the canned cycle that holds, or that stands in the block too; true where it is one. */
function pattern(block: Block): boolean {
  const { run, g, codes } = block
  const code = g.find(
    (each) => each === codes.circle || each === codes.arcOfHoles || each === codes.lineOfHoles,
  )
  if (run.lathe || code === undefined) return false
  if (!MILL_CYCLES.has(run.motion) || Number.isNaN(run.sticky.z)) {
    run.wrong(
      'pattern-no-cycle',
      'stop',
      `G${code} without a canned cycle before it: write that with L0 first.`,
      {
        does: 'The control stops with an alarm.',
      },
    )
    return true
  }
  const [first, second] = PLANE_AXES[run.plane]
  const centre = [run.wx, run.wy, run.wz]
  const { absolute } = run
  run.absolute = true
  for (const [p, q] of holesAround(run, code as 70 | 71 | 72) ?? []) {
    const to: [number, number, number] = [run.wx, run.wy, run.wz]
    to[first] = (centre[first] as number) + p
    to[second] = (centre[second] as number) + q
    millCycle(run, run.motion, to, NO_WORDS, 'goes on')
  }
  run.absolute = absolute
  return true
}

const NO_WORDS: CycleWords = {
  ...{ depth: undefined, r: undefined, q: undefined, p: undefined, i: undefined, j: undefined },
  repeats: 1,
  multiple: undefined,
}

/** The holes of a block: under polar positions each repeat of an angle goes on round the circle. */
function holes(run: Run, to: [number, number, number], words: CycleWords, said: CycleSaid): void {
  const round = run.polar !== null && !run.absolute ? Math.min(words.repeats, 1_000) : 1
  millCycle(run, run.motion, to, round > 1 ? { ...words, repeats: 1 } : words, said)
  const again = { ...words, repeats: 1, depth: undefined, r: undefined }
  for (let n = 1; n < round; n++)
    millCycle(run, run.motion, target(run, { machine: false }), again, 'goes on')
}

/** What the block does after its move: stops, the spindle off, calls and returns, the end. */
function after(block: Block): void {
  const { run, m } = block
  for (const code of m) {
    if (code === 5 || code === 19) run.spindle(0)
    else if (code === 0 || code === 1) run.event({ does: 'stop', optional: code === 1 })
    else if (code === 97 || code === 98 || code === 198) subprogram(block, code)
    else if (code === 99) goBack(block)
    else if (code === 2 || code === 30) {
      run.event({ does: 'end' })
      run.ended = true
    } else if (isPallet(run, code))
      run.event({ does: 'pallet', pallet: run.options.profile.reading.pallets.indexOf(code) + 1 })
  }
}

/** Says where a name in angle brackets does not say which program is called. */
function nameCalls({ run, g, m }: Block): void {
  const { name } = run.scan
  const calls = g.includes(65) || g.includes(66) || m.includes(98) || m.includes(198)
  if (calls && !has(run, 'P')) return
  run.wrong(
    'name-idle',
    'stop',
    calls
      ? `Both <${name}> and P say which program is called.`
      : `<${name}> stands in a line that calls nothing.`,
    { does: 'The control stops with an alarm.' },
  )
}

/** Carries out one block whose words are in the scanner. */
export function carryOut(block: Block): void {
  const { run } = block
  if (run.scan.hasExpression) evaluateWords(run)
  const before = run.exactStop
  gather(block)
  if (run.scan.nameAt >= 0) nameCalls(block)
  setModes(block)
  setFrames(block)
  block.listen?.(block)
  tools(block)
  if (!block.handsOver && !block.unseen) unseenAxes(block)
  if (!ownCalls(block) && !nonModal(block)) move(block)
  if (block.m.length > 0) after(block)
  if (block.own.length > 0) ownAfter(block)
  if (block.exactOnce) {
    run.exactStop = before
    run.changed()
  }
}

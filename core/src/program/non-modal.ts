import { type Block, dwellOf, has, lengthOf, ROTARY, target, turningTarget, wordValue } from './block.ts'
import { macroCall } from './calls.ts'
import { MAY_MOVE } from './check-words.ts'
import { movesOnFace, refusedOnFace, switchFace } from './face.ts'
import { loadingBlock } from './loads-offset.ts'
import { FLAG, ROW } from './motion.ts'
import { oneSided } from './one-side.ts'
import { roundPocket } from './round-pocket.ts'
import type { Run } from './run.ts'
import { mirrorOff, mirrorOn, notWhileScaled, scalingOff, scalingOn } from './scaled.ts'
import { bit, place } from './scan.ts'
import { signalMove } from './signal-move.ts'
import { textCycle } from './text-cycle.ts'

/** Home (G28, G30) and machine positions (G53): by way of the point given, on the axes that are named. */
function toMachine(block: Block, code: 28 | 30 | 53): void {
  const { run } = block
  const named = [
    has(run, 'X') || (run.lathe && has(run, 'U')),
    has(run, 'Y'),
    has(run, 'Z') || (run.lathe && has(run, 'W')),
  ]
  if (code === 53) {
    const to = run.toMachine()
    const half = run.lathe ? 0.5 : 1
    const at = [lengthOf(run, 'X'), lengthOf(run, 'Y'), lengthOf(run, 'Z')]
    const home = run.home()
    const scene = [run.sx, run.sy, run.sz].map((now, axis) => {
      const word = at[axis]
      if (word === undefined) return now
      const shift = to[axis] as number
      // Without a known offset: as far from home as the word says.
      const radius = axis === 0 ? half : 1
      return Number.isNaN(shift) ? (home[axis] as number) + word * radius : word * radius - shift
    }) as [number, number, number]
    const kind = run.motion === 1 ? ROW.LINE : ROW.RAPID
    run.goScene(kind, ...scene, FLAG.TO_MACHINE)
    run.rework()
    return
  }
  const { secondHome } = run.options.machine
  const further = code === 30 && (wordValue(run, 'P') ?? 2) > 2
  if (further || (code === 30 && !secondHome))
    run.wrong(
      'second-home',
      'stop',
      further
        ? `G30 P${wordValue(run, 'P')} goes to a place that is not known here.`
        : 'Where the second home of this machine is, is not known.',
      {
        does: further
          ? MAY_MOVE
          : 'It is drawn to where G28 goes. Enter the second home on the machine’s page.',
        once: 'all',
      },
    )
  // Without an axis all of them go; a rotary that is named goes alone.
  if (!named.some(Boolean) && !(!run.lathe && ROTARY.some((letter) => has(run, letter)))) named.fill(true)
  const via = run.lathe ? turningTarget(run) : target(run, { machine: false })
  run.via = run.sceneOf(...via)
  if (via[0] !== run.wx || via[1] !== run.wy || via[2] !== run.wz) run.go(ROW.RAPID, ...via)
  const home = code === 30 && secondHome ? run.home(secondHome) : run.home()
  const scene = [run.sx, run.sy, run.sz].map((now, axis) => (named[axis] ? (home[axis] as number) : now)) as [
    number,
    number,
    number,
  ]
  run.goScene(ROW.RAPID, ...scene, FLAG.TO_MACHINE)
  run.rework()
}

/** G29: at rapid to the point by which it last went home, and from there to where the words lead. Common practice. */
function fromHome({ run }: Block): void {
  const { via } = run
  if (!via) {
    run.wrong('no-home-before', 'stop', 'G29 without a G28 before it: by way of which point is not said.', {
      does: 'The control stops with an alarm, or goes by way of part zero.',
    })
    return
  }
  const named = (letter: string) => has(run, letter) || (run.lathe && has(run, letter === 'X' ? 'U' : 'W'))
  const stood = [run.sx, run.sy, run.sz] as const
  const by = (['X', 'Y', 'Z'] as const).map((letter, axis) => (named(letter) ? via[axis] : stood[axis]))
  run.goScene(ROW.RAPID, ...(by as [number, number, number]))
  run.rework()
  run.go(ROW.RAPID, ...(run.lathe ? turningTarget(run) : target(run, { machine: false })))
}

/** Local shifts: G52 sets one, G92 makes the place where the tool stands be called what the words say. */
function localShift(block: Block, code: 52 | 92): void {
  const { run } = block
  if (notWhileScaled(run, `G${code}`)) return
  const at = [run.wx, run.wy, run.wz]
  ;(['X', 'Y', 'Z'] as const).forEach((letter, axis) => {
    const length = lengthOf(run, letter)
    if (length === undefined) return
    const word = run.lathe && axis === 0 ? length / 2 : length
    if (code === 52) run.local[axis] = word
    else run.local[axis] = (run.local[axis] as number) + (at[axis] as number) - word
  })
  run.reshift()
  run.changed()
}

function mapping(block: Block, code: number): void {
  const { run } = block
  notWhileScaled(run, `G${code}`)
  const { reading } = run.options.profile
  const rotary = ROTARY.find((letter) => has(run, letter))
  const radius =
    reading.mapping?.by === 'radius'
      ? lengthOf(run, 'R')
      : rotary && (wordValue(run, rotary) as number) * run.scale
  if (radius === undefined || radius === 0) {
    run.mapping = null
    run.rework()
  } else if (radius < 0) {
    run.wrong('mapping-radius', 'stop', `G${code} with a radius of ${radius}.`, {
      does: 'The control stops with an alarm.',
    })
    return
  } else {
    if (reading.mapping?.by === 'rotary-word' && run.motion === 0)
      run.wrong('mapping-under-rapid', 'look', `G${code} is called while G0 holds.`, {
        does: 'Many controls of this kind stop with an alarm: it is called in a feed mode, with G1 before it.',
      })
    const y = run.wy
    run.mapping = { radius, y, rotary: run.rotary }
    run.wy = 0
  }
  run.changed()
}

/** Codes of moves that do not turn a rotary here. */
const NOT_TURNING: ReadonlySet<number> = new Set([12, 13, 28, 29, 30, 31, 38.2, 53, 60])

/** Says where a rotary word stands beside such a code. */
function notTurned(run: Run, code: number): void {
  const rotary = run.lathe ? undefined : ROTARY.find((letter) => has(run, letter))
  if (rotary === undefined || !NOT_TURNING.has(code)) return
  run.wrong('word-not-seen', 'stop', `${rotary} with G${code} is not followed: where the rotary turns to.`, {
    does: MAY_MOVE,
    word: run.scan.slot[place(rotary)] as number,
    once: `${rotary} ${code}`,
  })
}

/** Codes that use the axis words for something else than a move; true where one did. */
export function nonModal(block: Block): boolean {
  const { run, g, codes } = block
  if (run.face && g.some((code) => code !== 4 && code < 65) && refusedOnFace(block)) return true
  for (const code of g) {
    notTurned(run, code)
    if (code === 4) run.dwell(dwellOf(run))
    else if (code === 28 || code === 30 || code === 53) toMachine(block, code)
    else if (code === 29) fromHome(block)
    else if (code === 31 || code === 38.2) signalMove(block, code)
    else if (code === codes.pocketClockwise || code === codes.pocketCounter)
      roundPocket(block, code as 12 | 13)
    else if (code === codes.oneSide) oneSided(block)
    else if (code === codes.faceOn || code === codes.faceOff) {
      switchFace(block, code === codes.faceOn)
      // Such a code stands alone in its block.
      if (!movesOnFace(run)) return true
      run.wrong('face-words', 'stop', `G${code} stands together with a move.`, {
        does: 'The control stops with an alarm: it stands in a block of its own.',
      })
    } else if (code === 52 || (code === 92 && !run.lathe)) localShift(block, code)
    else if (code === codes.load) loadingBlock(block)
    else if (code === codes.rotationOn) turnOn(block, code)
    else if (code === codes.rotationOff) {
      run.rotation = null
      run.rework()
      run.changed()
      continue
    } else if (code === codes.scalingOff) {
      scalingOff(run)
      continue
    } else if (code === codes.scalingOn) scalingOn(block, code)
    else if (code === codes.mirrorOn) mirrorOn(block, code)
    else if (code === codes.mirrorOff) mirrorOff(block)
    else if (code === codes.mapping) mapping(block, code)
    else if (code === codes.text) textCycle(block, code)
    else if (code === codes.pathTolerance) {
      const e = lengthOf(run, 'E') ?? null
      run.pathTolerance = e !== null && e > 0 ? e : null
      run.changed()
    } else if (code === codes.lookAhead) {
      run.held = (wordValue(run, 'P') ?? 0) > 0
      return true
    } else if (code === 65) macroCall(block, false)
    else if (code === 66) macroCall(block, true)
    else if (code === 67) {
      run.modalMacro = null
      run.changed()
      continue
    } else continue
    return true
  }
  return false
}

function turnOn({ run }: Block, code: number): void {
  if (notWhileScaled(run, `G${code}`)) return
  if (run.unset & bit('R')) return
  if (!has(run, 'R')) {
    run.wrong('rotation-no-r', 'stop', `G${code} without R: the angle is not said.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  const [x, y] = [lengthOf(run, 'X') ?? run.wx, lengthOf(run, 'Y') ?? run.wy]
  run.turn(x, y, wordValue(run, 'R') as number)
}

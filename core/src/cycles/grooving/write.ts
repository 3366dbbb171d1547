import type { Block, Word } from '../../control/index.ts'
import type { Material } from '../../cutting/index.ts'
import {
  type CycleCase,
  type Operation,
  type Pen,
  type PlannedRow,
  penOf,
  printed,
  type WrittenCycle,
} from '../cycle/index.ts'
import { checkGroove } from './check.ts'
import type { GrooveParams } from './params.ts'
import {
  chipBreak,
  grooveMoves,
  type Move,
  type PrintedMove,
  planMoves,
  printMoves,
  printPlace,
} from './plan.ts'
import { type GrooveSizes, grooveSizes, inSection, onMachine } from './sizes.ts'

/** Least increment that P and Q of a two-line cycle count. */
const incrementOf = (unit: CycleCase['unit']) => (unit === 'inch' ? 0.0001 : 0.001)

/** Sizes as the control will have them: places as printed, a peck and a step as they can be written. */
export function asWritten(sizes: GrooveSizes, on: CycleCase): GrooveSizes {
  const place = (u: number, v: number) => inSection(sizes, printPlace(onMachine(sizes, { u, v }), on).meant)
  const twoLine = on.profile.reading.turningCycles === 'two-line'
  const least = incrementOf(on.unit)
  const step = (value: number) => (twoLine ? Math.round(value / least) * least : printed(value, on))
  return {
    ...sizes,
    start: place(sizes.start, 0).u,
    last: place(sizes.last, 0).u,
    level: place(0, sizes.level).v,
    plungeDepth: place(0, sizes.plungeDepth).v,
    stepover: step(sizes.stepover),
    peck: step(sizes.peck),
    peckRetreat: printed(sizes.peckRetreat, on),
    front: printed(sizes.front, on),
  }
}

/** The cycle's own blocks for one groove, where the control has it. */
function cycleBlocks(sizes: GrooveSizes, on: CycleCase, shift: number, pen: Pen): Block[] {
  const face = sizes.where === 'face'
  const bottom = printPlace(onMachine(sizes, { u: sizes.last + shift, v: sizes.plungeDepth }), on).said
  const oneLine = on.profile.reading.turningCycles === 'one-line'
  const single = Math.abs(sizes.last - sizes.start) < 1e-9
  const code = pen.code(face ? 'G74' : 'G75', 'where')
  const pecks = sizes.peck > 0
  const count = (letter: string, value: number, field: string): Word =>
    pen.whole(letter, value / incrementOf(on.unit), field)
  const [depthField, lastField] = ['bottom', 'last']
  const x = pen.length('X', bottom.x, face ? lastField : depthField)
  const z = pen.length('Z', bottom.z, face ? depthField : lastField)
  const places = single ? [face ? z : x] : [x, z]
  const feed = pen.length('F', printed(sizes.feed, on), 'feed')
  if (oneLine) {
    const peck = pecks ? pen.length(face ? 'K' : 'I', sizes.peck, 'peck') : undefined
    const step = single ? undefined : pen.length(face ? 'I' : 'K', sizes.stepover, 'stepover')
    return [
      pen.block(
        [code, ...places, ...(face ? [step, peck] : [peck, step]), feed],
        'plunges, from wall to wall',
      ),
    ]
  }
  const whole = sizes.plungeDepth - sizes.level
  // Without pecks as far as it goes, rounded up: a least increment less would be a second peck.
  const all = Math.ceil(whole / incrementOf(on.unit) - 1e-6) * incrementOf(on.unit)
  const peck = count(face ? 'Q' : 'P', pecks ? sizes.peck : all, 'peck')
  const step = single ? undefined : count(face ? 'P' : 'Q', sizes.stepover, 'stepover')
  return [
    pen.block([code, pen.length('R', sizes.peckRetreat, 'peckRetreat')], 'how far a peck comes back'),
    pen.block([code, ...places, ...(face ? [step, peck] : [peck, step]), feed], 'plunges, from wall to wall'),
  ]
}

const FIELD: Record<Move['part'], string> = {
  plunge: 'bottom',
  peck: 'peckRetreat',
  aside: 'stepover',
  finish: 'finish',
  out: 'clearance',
}

const SAYS: Partial<Record<Move['part'], string>> = { finish: 'finishing pass, each wall down to the middle' }

/** Moves written out, each with the words that change. */
function moveBlocks(
  moves: readonly PrintedMove[],
  from: { x: number; z: number },
  pen: Pen,
  on: CycleCase,
): Block[] {
  let at = printSaid(from)
  let feedSaid: number | undefined
  let part: Move['part'] | undefined
  return moves.map((move) => {
    const { said, feed, toCentre, clockwise } = move
    const field = FIELD[move.part]
    const code = feed === undefined ? 'G0' : toCentre ? (clockwise ? 'G2' : 'G3') : 'G1'
    const rounded = feed === undefined ? undefined : printed(feed, on)
    const words = [
      pen.code(code),
      said.x !== at.x || toCentre ? pen.length('X', said.x, field) : undefined,
      said.z !== at.z || toCentre ? pen.length('Z', said.z, field) : undefined,
      ...(toCentre ? [pen.length('I', toCentre.i, 'corner'), pen.length('K', toCentre.k, 'corner')] : []),
      rounded !== undefined && rounded !== feedSaid
        ? pen.length('F', rounded, move.part === 'finish' ? 'finishFeed' : 'feed')
        : undefined,
    ]
    if (rounded !== undefined) feedSaid = rounded
    const does = part === move.part ? undefined : SAYS[move.part]
    part = move.part
    at = said
    return pen.block(words, does)
  })
}

const printSaid = ({ x, z }: { x: number; z: number }) => ({ x: 2 * x, z })

const plural = (count: number) => (count === 1 ? '1 groove' : `${count} grooves`)

/** The operation that cuts the grooves, without its checks. */
export function grooveOperation(params: GrooveParams, exact: GrooveSizes, on: CycleCase): Operation {
  const pen = penOf(on.profile, on.unit)
  const sizes = asWritten(exact, on)
  const byCycle = on.profile.reading.turningCycles !== null
  const ofCycle = (move: Move) => byCycle && move.part !== 'finish'
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  const over = (shift: number) => printPlace(onMachine(sizes, { u: sizes.start + shift, v: sizes.level }), on)
  const first = over(0)
  const inside = sizes.where === 'inside'
  if (inside) {
    blocks.push(
      pen.block(['G0', pen.length('Z', first.said.z, 'start')], 'into the bore, over the first plunge'),
    )
    planned.push({ does: 'rapid', to: [first.meant.x, null, first.meant.z] })
  }
  let at = first.meant
  sizes.shifts.forEach((exactShift, n) => {
    const next = over(exactShift)
    // As the place is printed, so that the whole groove is where its start is.
    const shift = inSection(sizes, next.meant).u - sizes.start
    if (n > 0) {
      const face = sizes.where === 'face'
      blocks.push(
        pen.block(
          ['G0', face ? pen.length('X', next.said.x, 'pitch') : pen.length('Z', next.said.z, 'pitch')],
          `groove ${n + 1} of ${sizes.shifts.length}`,
        ),
      )
      planned.push({ does: 'rapid', to: [next.meant.x, null, next.meant.z] })
    }
    at = next.meant
    const moves = grooveMoves(sizes, chipBreak(sizes, on), shift)
    // What the cycle makes ends before the first move of the finishing pass.
    const roughs = moves.findIndex(
      ({ part }, index) => index > 0 && part === 'aside' && finishFollows(moves, index),
    )
    const split = roughs < 0 ? moves.length : roughs
    const rough = printMoves(moves.slice(0, split), sizes, on, at, ofCycle)
    const afterRough = rough.at(-1)?.meant ?? at
    const fine = printMoves(moves.slice(split), sizes, on, afterRough, () => false)
    blocks.push(
      ...(byCycle ? cycleBlocks(sizes, on, shift, pen) : moveBlocks(rough, at, pen, on)),
      ...moveBlocks(fine, afterRough, pen, on),
    )
    planned.push(...planMoves(rough, sizes, on, at), ...planMoves(fine, sizes, on, afterRough))
    at = fine.at(-1)?.meant ?? afterRough
  })
  if (inside) {
    blocks.push(pen.block(['G0', pen.length('Z', sizes.front, 'front')], 'out of the bore'))
    planned.push({ does: 'rapid', to: [at.x, null, sizes.front] })
    at = { x: at.x, z: sizes.front }
  }
  const { spindle } = sizes
  return {
    tool: params.tool,
    toolField: 'tool',
    says: `groove ${sizes.where === 'face' ? 'in the face' : sizes.where}, ${plural(sizes.shifts.length)}`,
    spindle:
      'turns' in spindle
        ? { turning: 3, rpm: spindle.turns, field: 'turns' }
        : {
            turning: 3,
            surface: spindle.surface,
            clamp: spindle.clamp,
            field: 'surfaceSpeed',
            clampField: 'clamp',
          },
    start: {
      x: first.meant.x,
      y: 0,
      z: inside ? sizes.front : first.meant.z,
      zField: inside ? 'front' : 'start',
    },
    // Beside the bar first, then in; an insert for a bore or a face comes along Z.
    zFirst: sizes.where === 'outside',
    coolant: params.coolant,
    blocks,
    planned,
    clear: at,
  }
}

/** The first move aside of the finishing pass: only finishing cuts and ways out follow it. */
const finishFollows = (moves: readonly Move[], index: number) =>
  moves.slice(index + 1).every(({ part }) => part === 'finish' || part === 'out' || part === 'aside') &&
  moves.slice(index + 1).some(({ part }) => part === 'finish')

/** A groove for a control, with what its checks say; nothing is written where one says stop. */
export function writeGroove(params: GrooveParams, on: CycleCase, material: Material): WrittenCycle {
  const sizes = grooveSizes(params, on, material)
  const findings = checkGroove(params, sizes, on)
  if (findings.some(({ severity }) => severity === 'stop')) return { operations: [], findings }
  return { operations: [grooveOperation(params, sizes, on)], findings }
}

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { whereTimeGoes } from './breakdown.ts'
import { cycleTime } from './cycle-time.ts'
import { speedsOf } from './machine-speeds.ts'
import { cornerSpeedSquared, restToRest } from './trapezoid.ts'

const [compact] = BUILT_IN_PROFILES as [Profile]
/** Each axis has its own, so that no two can be taken for each other: inches a second squared. */
const ACCELERATION = [50, 40, 25] as const
const TOP_FEED = 8
const TOLERANCE = 0.004
const mill = {
  ...(demoReference.machines[0] as Machine),
  rapids: { X: 600, Y: 480, Z: 400 },
  dynamics: {
    acceleration: { X: ACCELERATION[0], Y: ACCELERATION[1], Z: ACCELERATION[2] },
    smoothing: 0,
    topFeed: TOP_FEED * 60,
    cornerTolerance: TOLERANCE,
    spindleTop: 8000,
    tapTop: 600,
    spindleAcceleration: 20,
    spindleTimed: false,
    toolChange: 4,
    rotary: { top: 3600, acceleration: 360 },
  },
} satisfies Machine
const timed = (text: string, machine: Machine = mill) => {
  const { motion } = read(text, { profile: compact, machine, unit: 'inch' })
  const time = cycleTime(motion, speedsOf(machine, compact, 'inch'))
  return { motion, time, ...whereTimeGoes(text, motion, time, speedsOf(machine, compact, 'inch')) }
}

type Point = [number, number, number]
/** A piece of a path: its points close together, how fast it may be taken, and how strongly its axes pull along it. */
interface Piece {
  points: Point[]
  /** Inches a second. */
  top: number
  pull: number
}

const minus = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const lengthOf = (a: Point) => Math.hypot(...a)
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/**
 * Seconds over pieces that follow each other, walked in small steps: nowhere faster than the piece allows, through a corner no
 * faster than its rounding does, and from step to step no change of speed that the axes cannot make: v^2 - u^2 = 2 a s, once
 * backwards and once forwards (equations of motion, nothing of the look-ahead that is tested).
 */
function walk(pieces: readonly Piece[], tolerance: number): number {
  const steps = pieces.flatMap(({ points, top, pull }) =>
    points.slice(1).map((point, n) => ({ size: lengthOf(minus(point, points[n] as Point)), top, pull })),
  )
  const most = new Array<number>(steps.length + 1).fill(0)
  let at = 0
  for (const [index, piece] of pieces.entries()) {
    for (let n = 1; n < piece.points.length - 1; n++) most[at + n] = piece.top ** 2
    at += piece.points.length - 1
    const next = pieces[index + 1]
    if (!next) break
    const [a, b] = [piece.points.at(-2) as Point, piece.points.at(-1) as Point]
    const [into, out] = [minus(b, a), minus(next.points[1] as Point, b)]
    const cosine = dot(into, out) / (lengthOf(into) * lengthOf(out))
    const slower = Math.min(piece.top, next.top) ** 2
    most[at] =
      tolerance > 0
        ? Math.min(slower, cornerSpeedSquared(cosine, Math.min(piece.pull, next.pull), tolerance))
        : 0
  }
  for (let n = steps.length - 1; n >= 0; n--) {
    const { size, pull } = steps[n] as (typeof steps)[number]
    most[n] = Math.min(most[n] as number, (most[n + 1] as number) + 2 * pull * size)
  }
  let seconds = 0
  for (const [n, { size, pull }] of steps.entries()) {
    most[n + 1] = Math.min(most[n + 1] as number, (most[n] as number) + 2 * pull * size)
    seconds += (2 * size) / (Math.sqrt(most[n] as number) + Math.sqrt(most[n + 1] as number))
  }
  return seconds
}

/** A straight piece, in small steps. */
function straight(from: Point, to: Point, top: number): Piece {
  const way = minus(to, from)
  const size = lengthOf(way)
  const steps = Math.max(2, Math.ceil(size / 0.002))
  const pull = Math.min(
    ...way.map((part, axis) =>
      part === 0 ? Infinity : ((ACCELERATION[axis] as number) * size) / Math.abs(part),
    ),
  )
  return {
    points: Array.from(
      { length: steps + 1 },
      (_, n) => from.map((v, axis) => v + ((way[axis] as number) * n) / steps) as Point,
    ),
    top,
    pull,
  }
}

const PLANES = { 17: [0, 1, 2, 'I', 'J'], 18: [2, 0, 1, 'K', 'I'], 19: [1, 2, 0, 'J', 'K'] } as const

interface Bend {
  plane: 17 | 18 | 19
  radius: number
  from: number
  sweep: number
  rise: number
}

/** A bend of the plane, perhaps rising along the third axis: its piece, and the words that a program says it with. */
function bend(
  start: Point,
  { plane, radius, from, sweep, rise }: Bend,
  top: number,
): { piece: Piece; words: string } {
  const [first, second, normal, one, two] = PLANES[plane]
  const rad = (degrees: number) => (degrees * Math.PI) / 180
  const centre: Point = [...start]
  centre[first] -= radius * Math.cos(rad(from))
  centre[second] -= radius * Math.sin(rad(from))
  const steps = Math.max(400, Math.ceil((radius * Math.abs(rad(sweep))) / 0.002))
  const points = Array.from({ length: steps + 1 }, (_, n): Point => {
    const point: Point = [...start]
    const angle = rad(from + (sweep * n) / steps)
    point[first] = centre[first] + radius * Math.cos(angle)
    point[second] = centre[second] + radius * Math.sin(angle)
    point[normal] = start[normal] + (rise * n) / steps
    return point
  })
  const end = points.at(-1) as Point
  const say = (value: number) => value.toFixed(5)
  const pull = Math.min(ACCELERATION[first], ACCELERATION[second])
  return {
    // Round it no faster than v^2 = a r.
    piece: { points, top: Math.min(top, Math.sqrt(pull * radius)), pull },
    words: `G${plane} G${sweep > 0 ? 3 : 2} X${say(end[0])} Y${say(end[1])} Z${say(end[2])} ${one}${say(centre[first] - start[first])} ${two}${say(centre[second] - start[second])}`,
  }
}

const step = evenly(-2, 2).map((v) => Math.round(v * 1000) / 1000)
const line = fc.record({
  kind: fc.constant('line' as const),
  by: fc.tuple(step, step, step),
  feed: fc.integer({ min: 60, max: 700 }),
})
const arc = fc.record({
  kind: fc.constant('arc' as const),
  plane: fc.constantFrom(17 as const, 18 as const, 19 as const),
  radius: fc.constantFrom(0.02, 0.1, 0.5, 1.5),
  from: fc.integer({ min: 0, max: 359 }),
  sweep: fc.oneof(fc.integer({ min: 20, max: 300 }), fc.integer({ min: -300, max: -20 })),
  rise: fc.constantFrom(0, 0, 0.3, -0.2),
  feed: fc.integer({ min: 60, max: 700 }),
})

describe('the time of feed moves', () => {
  it('is that of the path walked in small steps: lines and bends in all planes, rising too', () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(line, arc), { minLength: 1, maxLength: 7 }),
        fc.boolean(),
        (moves, exact) => {
          let at: Point = [0, 0, 0]
          const pieces: Piece[] = []
          const lines: string[] = []
          for (const move of moves) {
            const top = Math.min(move.feed / 60, TOP_FEED)
            if (move.kind === 'line') {
              const to = at.map((v, axis) => v + (move.by[axis] as number)) as Point
              if (lengthOf(minus(to, at)) < 0.05) continue
              lines.push(`G1 X${to[0].toFixed(5)} Y${to[1].toFixed(5)} Z${to[2].toFixed(5)} F${move.feed}.`)
              pieces.push(straight(at, to, top))
            } else {
              const { piece, words } = bend(at, move, top)
              lines.push(`${words} F${move.feed}.`)
              pieces.push(piece)
            }
            at = (pieces.at(-1) as Piece).points.at(-1) as Point
          }
          const { time } = timed(
            `G20 G90 G17 G0 X0. Y0. Z0.\n${exact ? 'G61' : 'G64'}\n${lines.join('\n')}\nM30`,
          )
          const wanted = walk(pieces, exact ? 0 : TOLERANCE)
          expect(Math.abs(time.parts.cutting - wanted)).toBeLessThan(0.002 + 0.003 * wanted)
        },
      ),
      depth(80, 600),
    )
  })

  it('of one move is rest to rest at its feed, its top or what its axes can pull (equations of motion)', () => {
    const cutting = (words: string) => timed(`G20 G90 G17 G0 X0. Y0. Z0.\n${words}\nM30`).time.parts.cutting
    expect(cutting('G1 Z3. F6000.')).toBeCloseTo(restToRest(3, TOP_FEED, 25), 4)
    expect(cutting('G1 Y3. F120.')).toBeCloseTo(restToRest(3, 2, 40), 4)
    // (3, 4, 12): 13 long; Z holds it, at 25 x 13 / 12.
    expect(cutting('G1 X3. Y4. Z12. F240.')).toBeCloseTo(restToRest(13, 4, (25 * 13) / 12), 4)
    // A half turn of radius .1: v^2 = 40 x .1 = 2 in/s squared, not the 5 that are asked for.
    expect(cutting('G3 X-.2 Y0. I-.1 J0. F300.')).toBeCloseTo(restToRest(Math.PI * 0.1, 2, 40), 4)
    expect(cutting('G1 X0. Y0. F60.')).toBe(0)
    // Nobody said how fast: no time, and not for ever.
    expect(cutting('G1 X1.')).toBe(0)
  })

  it('goes from one feed to another within the faster, and round a corner as the weaker axis pulls (by hand)', () => {
    const cutting = (words: string) => timed(`G20 G90 G17 G0 X0. Y0. Z0.\n${words}\nM30`).time.parts.cutting
    // Up to 2 in .04 s over .04 in, along 4.96; on to 4 in .04 s over .12, along to where .08 s takes it down over .16.
    const wanted = 0.04 + 4.96 / 2 + 0.04 + (5 - 0.12 - 0.16) / 4 + 0.08
    expect(cutting('G1 X5. F120.\nX10. F240.')).toBeCloseTo(wanted, 4)
    expect(cutting('G1 X5. F240.\nX10. F120.')).toBeCloseTo(wanted, 4)
    // Square from X to Z: v^2 = 25 t s / (1 - s); down from 2 to it and up again costs (2 - v)^2 / 2a on each side.
    const v = Math.sqrt((25 * TOLERANCE * Math.SQRT1_2) / (1 - Math.SQRT1_2))
    const square =
      5 / 2 + 2 / (2 * 50) + (2 - v) ** 2 / (2 * 2 * 50) + 5 / 2 + 2 / (2 * 25) + (2 - v) ** 2 / (2 * 2 * 25)
    expect(cutting('G1 X5. F120.\nZ5.')).toBeCloseTo(square, 4)
    expect(cutting('G1 Z5. F120.\nX5.')).toBeCloseTo(square, 4)
  })
})

describe('the time of what is no feed move', () => {
  const LEAD = 'G20 G90 G17 G0 X0. Y0. Z0.\n'
  /** Where the program begins is not the matter: what the way to zero takes is left out. */
  const partsOf = (words: string, machine: Machine = mill, profile = compact) => {
    const of = (text: string) =>
      cycleTime(read(text, { profile, machine, unit: 'inch' }).motion, speedsOf(machine, profile, 'inch'))
        .parts
    const all = of(`${LEAD}${words}\nM30`)
    return { ...all, rapid: all.rapid - of(`${LEAD}M30`).rapid }
  }
  it('a rapid, straight: all axes stretched to the slowest, in speed and in pull', () => {
    const straightProfile = { ...compact, reading: { ...compact.reading, rapids: 'straight' as const } }
    const rapid = (words: string) => partsOf(`G0 ${words}`, mill, straightProfile).rapid
    // 5 long: Y takes 4 of it at 8 in/s and 40 in/s2, so the path 10 in/s and 50 in/s2.
    expect(rapid('X3. Y4. Z0.')).toBeCloseTo(restToRest(5, 10, 50), 5)
    expect(rapid('X3. Y4. Z0.')).toBeCloseTo(0.7, 5)
    expect(rapid('X0. Y0. Z6.')).toBeCloseTo(restToRest(6, 20 / 3, 25), 5)
    // X holds the speed, 10 in at 10 in/s, and Z the pull, 6 in at 25 in/s2: 1 s and .24 s; each by itself was there in 1.2.
    expect(rapid('X10. Z6.')).toBeCloseTo(1.24, 5)
    expect(partsOf('G0 X10. Z6.').rapid).toBeCloseTo(1.2, 5)
    expect(partsOf('G0 Y1.\nY3.').rapid).toBeCloseTo(restToRest(1, 8, 40) + restToRest(2, 8, 40), 5)
  })

  it('a probe move: rest to rest at its feed along its direction', () => {
    // (0, 3, 4): 5 long at 2 in/s; Z pulls 25 x 5 / 4.
    expect(partsOf('G65 P9810 Y3. Z4. F120.').probing).toBeCloseTo(restToRest(5, 2, (25 * 5) / 4), 4)
    expect(partsOf('G65 P9810 X3. F60.').probing).toBeCloseTo(restToRest(3, 1, 50), 4)
    const { time, sections, tools } = timed('G20 G90 G0 X0. Y0. Z0.\nT1 M6\nG65 P9810 X3. F60.\nM30')
    expect(sections.reduce((sum, { parts }) => sum + parts.probing, 0)).toBeCloseTo(time.parts.probing, 5)
    expect(tools.reduce((sum, { parts }) => sum + parts.probing, 0)).toBeCloseTo(time.parts.probing, 5)
  })

  it('a turn of the rotary at rapid, and a move that ends later by it', () => {
    const turning: Machine = { ...mill, rotary: { word: 'A', top: 'front', turns: null } }
    // 60 degrees a second, 360 degrees a second squared: 90 degrees in 1.5 + 1/6 s.
    expect(partsOf('G0 A90.', turning).rapid).toBeCloseTo(1.5 + 1 / 6, 4)
    expect(partsOf('G0 A90. X.1', turning).rapid).toBeCloseTo(1.5 + 1 / 6, 4)
    expect(partsOf('G0 A90.\nA80.\nA80.', turning).rapid).toBeCloseTo(
      1.5 + 1 / 6 + 2 * Math.sqrt(10 / 360),
      4,
    )
  })

  it('in inverse time as many seconds as the block says, the rotary no faster than it turns', () => {
    const turning: Machine = { ...mill, rotary: { word: 'A', top: 'front', turns: null } }
    // F2: half a minute.
    expect(partsOf('G93\nG1 X1. A10. F2.', turning).cutting).toBeCloseTo(30, 4)
    // 90 degrees in .6 s is more than 60 degrees a second.
    expect(partsOf('G93\nG1 X1. A90. F100.', turning).cutting).toBeCloseTo(1.5, 4)
    expect(partsOf('G93\nG1 X1. A90. F100.\nG1 X2. A100. F100.', turning).cutting).toBeCloseTo(1.5 + 0.6, 4)
  })

  it('taps in and out: turns from rest to rest, out no faster than the spindle taps (trade.md 7, derived)', () => {
    const tapping = partsOf('S600 M3\nG84 Z-.4 R.1 F30. J4')
    // .5 in at .05 a turn: 10 turns, in at 10 a second; out four times as fast would be 40, the top is 10.
    const once = 10 / 10 + 10 / 20
    expect(tapping.tappingOut).toBeCloseTo(once, 4)
    expect(tapping.cutting).toBeCloseTo(once, 4)
    expect(
      partsOf('S600 M3\nG84 Z-.4 R.1 F30. J4', { ...mill, dynamics: { ...mill.dynamics, tapTop: 6000 } })
        .tappingOut,
    ).toBeCloseTo(2 * Math.sqrt(10 / 20), 4)
    // At S300 the ten turns take 10/5 + 5/20 in; twice as fast is 10 turns a second.
    const slower = partsOf('S300 M3\nG84 Z-.4 R.1 F15. J2')
    expect(slower.cutting).toBeCloseTo(10 / 5 + 5 / 20, 4)
    expect(slower.tappingOut).toBeCloseTo(once, 4)
    const [{ parts } = { parts: tapping }] = timed(
      'G20 G90 G0 X0. Y0. Z0.\nS600 M3\nG84 Z-.4 R.1 F30. J4\nM30',
    ).sections
    expect(parts.tappingOut).toBeCloseTo(once, 4)
    expect(parts.spindle).toBeCloseTo(10 / 20, 4)
  })

  it('a tool change stops the spindle first on a mill, and what it takes is told apart', () => {
    const { time, tools } = timed('G20 G90 G0 X0. Y0. Z0.\nT1 M6\nS1200 M3\nT2 M6\nS600 M4\nM5\nG4 P250\nM30')
    // 20 turns a second: 1 s up, 1 s down before the change; 10 turns: half a second each way.
    expect(time.parts).toMatchObject({ toolChange: 8, spindle: 3, dwell: 0.25 })
    expect(tools[1]?.parts).toMatchObject({ toolChange: 4, spindle: 1 })
    expect(tools[2]?.parts).toMatchObject({ toolChange: 4, spindle: 2, dwell: 0.25 })
    expect(tools.slice(1).map(({ tool, seconds }) => [tool, Math.round(seconds * 1000) / 1000])).toEqual([
      [1, 4 + 1],
      [2, 1 + 4 + 0.5 + 0.5 + 0.25],
    ])
  })

  it('a thread goes along at its feed', () => {
    const lathe = demoReference.machines[1] as Machine
    const { motion } = read('G20 G99\nT0101\nG97 S600 M3\nG0 X1. Z.2\nG32 Z-1. F.05\nM30', {
      profile: compact,
      machine: lathe,
      unit: 'inch',
    })
    // 1.2 in at .05 a turn and 10 turns a second.
    expect(cycleTime(motion, speedsOf(lathe, compact, 'inch')).parts.cutting).toBeCloseTo(1.2 / 0.5, 4)
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import { endOf, ROW, read } from '../program/index.ts'
import { speedsOf } from '../timing/index.ts'
import { type Body, boundsOf, type Triple } from './body.ts'
import { findHits, MOST_HITS } from './hits.ts'

const [compact] = BUILT_IN_PROFILES as [Profile]
/** Rapids of 600 in/min along X and Y, 300 along Z, dogleg. */
const mill: Machine = { ...(demoReference.machines[0] as Machine), rapids: { X: 600, Y: 600, Z: 300 } }
const speeds = speedsOf(mill, compact, 'inch')

const tool: ToolShape = {
  ...(demoReference.tools.find(({ kind }) => kind === 'mill') as ToolShape),
  number: 1,
  diameter: 0.5,
  flute: 0.75,
  stickOut: 1.5,
  holderDiameter: 2,
  holderLength: 1,
}

const hitsOf = (text: string, bodies: readonly Body[], of: ToolShape = tool) => {
  const { motion } = read(text, { profile: compact, machine: mill, unit: 'inch' })
  return {
    motion,
    hits: findHits({ motion, bodies, tools: new Map([[1, of]]), speeds, lathe: false }),
  }
}

// The other way: the tool set down at many places of each move, and asked at each whether it stands in something.

/** How far an axis has come after some seconds: from rest to rest at so much a second squared, or at its top at once. */
function come(distance: number, top: number, pull: number, seconds: number): number {
  const peak = Math.min(top, Math.sqrt(distance * pull))
  const ramp = peak / pull
  const whole = distance === 0 ? 0 : distance / peak + ramp
  if (seconds >= whole) return distance
  if (seconds < ramp) return (pull * seconds ** 2) / 2
  return seconds > whole - ramp ? distance - (pull * (whole - seconds) ** 2) / 2 : peak * (seconds - ramp / 2)
}

/** Seconds of the longest move at the lowest override, more or less. */
const LONG = 20

/**
 * Where the tip is at a share of the time that a move takes: a rapid axis goes by itself, at an override, from its own
 * acceleration.
 */
function placeAt(from: Triple, to: Triple, override: number | undefined, share: number): Triple {
  if (override === undefined)
    return to.map((value, axis) => along(from[axis], value, share)) as unknown as Triple
  const d = to.map((value, axis) => Math.abs(value - (from[axis] as number)))
  const rates = speeds.rapid.map((rate) => rate * override)
  const whole = Math.min(
    LONG,
    Math.max(...d.map((each, axis) => each / (rates[axis] as number) + (rates[axis] as number) / 50)),
  )
  return d.map((each, axis) => {
    const [rate, pull] = [rates[axis] as number, speeds.acceleration[axis] as number]
    const way = Math.sign((to[axis] as number) - (from[axis] as number))
    return (from[axis] as number) + way * come(each, rate, pull, share * whole)
  }) as unknown as Triple
}

const along = (from: number | undefined, to: number, share: number) =>
  (from as number) + (to - (from as number)) * share

/** How deep the standing tool is in a box or a standing post; below zero it is clear by that much. */
function depthIn([x, y, z]: Triple, of: ToolShape, body: Body): number {
  const { least, greatest } = boundsOf(body)
  const parts = [
    { radius: of.diameter / 2, from: 0, to: of.stickOut },
    { radius: of.holderDiameter / 2, from: of.stickOut, to: of.stickOut + of.holderLength },
  ]
  return Math.max(
    ...parts.map(({ radius, from, to }) => {
      const across =
        body.shape === 'cylinder'
          ? Math.hypot(x - body.at.x, y - body.at.y) - body.diameter / 2
          : Math.hypot(Math.max(least[0] - x, 0, x - greatest[0]), Math.max(least[1] - y, 0, y - greatest[1]))
      return Math.min(radius - across, z + to - least[2], greatest[2] - (z + from))
    }),
  )
}

const hundredths = (least: number, greatest: number) =>
  fc.integer({ min: least, max: greatest }).map((value) => value / 100)
const place = fc.record({ x: hundredths(-300, 300), y: hundredths(-300, 300), z: hundredths(-200, 100) })
const size = hundredths(20, 200)
const bodies = fc
  .array(
    fc.oneof(
      fc.record({ at: place, size: fc.record({ x: size, y: size, z: size }) }).map((of) => ({
        ...of,
        shape: 'box' as const,
      })),
      fc.record({ at: place, diameter: size, length: size }).map((of) => ({
        ...of,
        shape: 'cylinder' as const,
        axis: 'Z' as const,
      })),
    ),
    { minLength: 1, maxLength: 4 },
  )
  .map((all) => all.map((of, n): Body => ({ ...of, id: `b${n}`, name: `b${n}`, role: 'clamp' })))
const moves = fc.array(
  fc.tuple(fc.boolean(), hundredths(-400, 400), hundredths(-400, 400), hundredths(-100, 300)),
  { minLength: 2, maxLength: 10 },
)
const programOf = (of: readonly (readonly [boolean, number, number, number])[]) =>
  [
    'G20 G90\nT1 M6\nS1000 M3\nF20.',
    ...of.map(
      ([rapid, x, y, z]) => `${rapid ? 'G0' : 'G1'} X${x.toFixed(2)} Y${y.toFixed(2)} Z${z.toFixed(2)}`,
    ),
    'M30',
  ].join('\n')

const names = (found: ReturnType<typeof hitsOf>['hits']) => found.map(({ row, body }) => `${row} ${body.id}`)

const box = (at: Body['at'], size: { x: number; y: number; z: number }, id: string): Body => ({
  id,
  name: id,
  role: 'clamp',
  shape: 'box',
  at,
  size,
})
/** A rapid whose X and Z are there at one moment, in sum, but for rounding: found by the property below. */
const TOGETHER: [Body[], [boolean, number, number, number][], number, number] = [
  [
    box({ x: -0.79, y: -0.38, z: 0 }, { x: 0.2, y: 0.38, z: 0.2 }, 'b0'),
    box({ x: 0, y: 0, z: 0 }, { x: 0.2, y: 0.2, z: 0.2 }, 'b1'),
  ],
  [
    [false, 0, 0, 0],
    [false, 0.44, 1.69, -0.65],
    [true, -2.56, -1.18, 0.85],
    [false, 0, 0, 0],
    [false, 0, 0, 0],
  ],
  0,
  -3.13,
]

describe('crash finding over a program', () => {
  it('finds what a tool set down at 500 places of every move stands in, and nothing else', () => {
    fc.assert(
      fc.property(bodies, moves, (all, path) => {
        const { motion, hits } = hitsOf(programOf(path), all)
        const found = new Set(names(hits))
        for (let row = 1; row < motion.count; row++) {
          if (motion.kind[row] === ROW.EVENT) continue
          const [from, to] = [endOf(motion, row - 1), endOf(motion, row)]
          for (const body of all) {
            const overrides = motion.kind[row] === ROW.RAPID ? [1, 0.6, 0.05] : [undefined]
            for (const override of overrides) {
              const depths = Array.from({ length: 501 }, (_, n) =>
                depthIn(placeAt(from, to, override, n / 500), tool, body),
              )
              // What is met by less than a hair may be a touch.
              if (Math.max(...depths) > 1e-3) expect(found).toContain(`${row} ${body.id}`)
            }
          }
        }
        for (const { body, at } of hits) expect(Math.abs(depthIn(at, tool, body))).toBeLessThan(2.5)
      }),
      depth(60, 600),
    )
  })

  it('says where it first meets: there it touches, and on the way there it stood clear', () => {
    fc.assert(
      fc.property(bodies, moves, (all, path) => {
        const { motion, hits } = hitsOf(programOf(path), all)
        for (const { row, body, at, sure } of hits) {
          // In a band of which nobody knows the one way there is no first place.
          if (!sure) continue
          const from = endOf(motion, row - 1)
          const inside = depthIn(from, tool, body)
          // Unless it stood in it already, the place is one of touching.
          if (inside <= 0) expect(Math.abs(depthIn(at, tool, body))).toBeLessThan(1e-3)
        }
      }),
      depth(150, 1500),
    )
  })

  it('neither another body, nor a larger one, nor a wider tool takes a hit away', () => {
    const grown = (body: Body): Body =>
      body.shape === 'box'
        ? { ...body, size: { x: body.size.x + 0.3, y: body.size.y + 0.2, z: body.size.z + 0.1 } }
        : { ...body, diameter: body.diameter + 0.2, length: body.length + 0.1 }
    fc.assert(
      fc.property(bodies, bodies, moves, (all, others, path) => {
        const text = programOf(path)
        const before = names(hitsOf(text, all).hits)
        const further = others.map((body) => ({ ...body, id: `c${body.id}` }))
        for (const more of [
          hitsOf(text, [...all, ...further]),
          hitsOf(text, all.map(grown)),
          hitsOf(text, all, { ...tool, diameter: 0.6, holderDiameter: 2.2 }),
        ])
          expect(names(more.hits)).toEqual(expect.arrayContaining(before))
      }),
      depth(100, 1000),
    )
  })

  it('is the same wherever part zero is', () => {
    fc.assert(
      fc.property(bodies, moves, hundredths(-500, 500), hundredths(-500, 500), (all, path, dx, dy) => {
        const moved = all.map((body) => ({
          ...body,
          at: { ...body.at, x: body.at.x + dx, y: body.at.y + dy },
        }))
        const shifted = path.map(([rapid, x, y, z]) => [rapid, x + dx, y + dy, z] as const)
        // The first move comes from home, which is not moved.
        const later = (found: string[]) => found.filter((each) => Number(each.split(' ')[0]) > 3)
        expect(later(names(hitsOf(programOf(shifted), moved).hits))).toEqual(
          later(names(hitsOf(programOf(path), all).hits)),
        )
      }),
      { ...depth(100, 1000), examples: [TOGETHER] },
    )
  })
})

describe('crash finding in a long program', () => {
  const part: Body = {
    id: 'part',
    name: 'part',
    role: 'part',
    shape: 'box',
    at: { x: 0, y: -3, z: -2 },
    size: { x: 4, y: 3, z: 2 },
  }
  const clamp: Body = {
    ...part,
    id: 'clamp',
    role: 'clamp',
    at: { x: 5, y: -2, z: 0 },
    size: { x: 1, y: 1, z: 1 },
  }
  const head = 'G20 G90\nT1 M6\nS1000 M3\nG0 X1. Y-1.5\nZ.1\nG1 Z-.5 F20.\nX3.\nZ-1.\n'

  it('goes on looking, however long the shank runs in a slot that was cut before', () => {
    const slot = Array.from({ length: 22_000 }, (_, n) => `X${(1 + (n % 200) / 100).toFixed(2)}`).join('\n')
    const { hits } = hitsOf(`${head}${slot}\nG0 Z.5\nX5.5 Y-1.5\nM30`, [part, clamp])
    expect(hits.map(({ body }) => body.id)).toContain('clamp')
  })

  it('stops at so many: a program that hits everywhere is mended from the top', () => {
    const through = 'X5.5 Y-1.5\nX4. Y-2.6\n'.repeat(MOST_HITS)
    const { hits } = hitsOf(`G20 G90\nT1 M6\nS1000 M3\nG0 Z.1\n${through}M30`, [clamp])
    expect(hits).toHaveLength(MOST_HITS)
  })
})

import {
  areaPaths,
  difference,
  FillRule,
  isPositive,
  type Path64,
  type Paths64,
  reversePath,
} from 'clipper2-ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../../testing/depth.ts'
import { type SheetCase, writeSheet } from '../../code/index.ts'
import { caseOf, compact, grooveSizesOf, plain, sheetOf, twoLine } from '../../code/testing.ts'
import { endOf, ROW } from '../../program/index.ts'
import type { GrooveDraft } from './params.ts'
import { cutsOf, grooveMoves, plungePlaces } from './plan.ts'
import { type Cut, type Insert, leftStanding, type Section, type UV, wantedDepth } from './section.ts'
import { grooveWorking } from './working.ts'

type Ring = [number, number][]

const ARC = 20

/** The insert in section, with its two round corners, as a polygon up to `top`. */
function insertShape({ width, corner, programmed }: Insert, { u, v }: UV, top: number): Ring {
  const low = programmed === 'low' ? u : u - width
  const arc = (cu: number, from: number): Ring =>
    Array.from({ length: ARC + 1 }, (_, n) => {
      const angle = from + (Math.PI / 2) * (n / ARC)
      return [cu + corner * Math.cos(angle), v - corner + corner * Math.sin(angle)]
    })
  const bottom: Ring =
    corner > 0
      ? [...arc(low + width - corner, 0), ...arc(low + corner, Math.PI / 2)]
      : [
          [low + width, v],
          [low, v],
        ]
  return [[low + width, top], ...bottom, [low, top], [low + width, top]]
}

/** What a drawing wants cut, as a polygon. */
function wantedShape(section: Section, top: number): Ring {
  const { low, high, edge } = section
  const [from, to] = [low - edge.size, high + edge.size]
  const points = new Set([from, low - 1e-9, low + 1e-9, high - 1e-9, high + 1e-9, to])
  for (let n = 0; n <= 600; n++) points.add(from + ((to - from) * n) / 600)
  const bottom = [...points].sort((a, b) => a - b).map((u): [number, number] => [u, wantedDepth(section, u)])
  return [[from, top], ...bottom, [to, top], [from, top]]
}

/** Whole units of a tenth of a millionth of an inch: the library joins outlines of whole numbers. */
const UNIT = 1e7

function outlines(rings: readonly Ring[]): Paths64 {
  const paths: Paths64 = []
  for (const ring of rings) {
    const path: Path64 = []
    for (const [x, y] of ring) path.push({ x: Math.round(x * UNIT), y: Math.round(y * UNIT) })
    // All one way round, whatever way an arc or the programmed end turned them.
    paths.push(isPositive(path) ? path : reversePath(path))
  }
  return paths
}

/** The area of one set of outlines without another: the general-purpose library clipper2. */
const areaWithout = (of: Paths64, without: Paths64) =>
  Math.abs(areaPaths(difference(of, without, FillRule.NonZero))) / UNIT ** 2

/** Outlines of the insert at all places that it passes; along the floor one that is as much wider. */
function sweptOutlines(cuts: readonly Cut[], insert: Insert, top: number): Ring[] {
  const deepest = new Map<number, number>()
  const along: Ring[] = []
  for (const { from, to, centre } of cuts) {
    const stations: UV[] = []
    if (centre) {
      const a = Math.atan2(from.v - centre.v, from.u - centre.u)
      let sweep = Math.atan2(to.v - centre.v, to.u - centre.u) - a
      if (sweep > Math.PI) sweep -= 2 * Math.PI
      if (sweep < -Math.PI) sweep += 2 * Math.PI
      const r = Math.hypot(from.u - centre.u, from.v - centre.v)
      for (let n = 0; n <= 64; n++)
        stations.push({
          u: centre.u + r * Math.cos(a + (sweep * n) / 64),
          v: centre.v + r * Math.sin(a + (sweep * n) / 64),
        })
    } else if (from.v === to.v && from.v > 0) {
      const wider = { ...insert, width: insert.width + Math.abs(to.u - from.u) }
      const end = insert.programmed === 'low' ? Math.min(from.u, to.u) : Math.max(from.u, to.u)
      along.push(insertShape(wider, { u: end, v: from.v }, top))
    } else
      for (let n = 0; n <= 150; n++)
        stations.push({ u: from.u + ((to.u - from.u) * n) / 150, v: from.v + ((to.v - from.v) * n) / 150 })
    for (const { u, v } of stations) if (v > (deepest.get(u) ?? 0)) deepest.set(u, v)
  }
  return [...[...deepest].map(([u, v]) => insertShape(insert, { u, v }, top)), ...along]
}

const on = (): SheetCase => caseOf('lathe', compact)
const write = (groove: Partial<GrooveDraft>) => writeSheet(sheetOf({ groove }), on())
const codesOf = (groove: Partial<GrooveDraft>) =>
  write(groove).items.flatMap(({ findings }) => findings.map(({ severity, code }) => `${severity} ${code}`))

const rough: Partial<GrooveDraft> = {
  surface: '1.25',
  near: '-.5',
  far: '-1.5',
  bottom: '1',
  finish: false,
  corner: '.008',
  stepover: '.1',
}

describe('a groove', () => {
  it('starts its width inside and ends at the wall (trade.md 7: -0.500 to -1.500, insert 0.125: start -0.625, end -1.500)', () => {
    const { start, last, stepover } = grooveSizesOf({ ...rough, stepover: '' })
    expect([start, last, stepover]).toEqual([-0.625, -1.5, 0.1])
    const high = grooveSizesOf({ ...rough, programmed: 'high' })
    expect([high.start, high.last]).toEqual([-0.5, -1.375])
  })

  it('plunges ten times over a span of 0.875 at 0.100, the last one short (trade.md 7)', () => {
    const places = plungePlaces(-0.625, -1.5, 0.1)
    expect(places).toHaveLength(10)
    expect((places[8] as number) - (places[9] as number)).toBeCloseTo(0.075, 12)
    expect(plungePlaces(-0.5, -0.5, 0.1)).toEqual([-0.5])
  })

  it('shows its arithmetic with the numbers put in', () => {
    const lines = grooveWorking(grooveSizesOf({ ...rough, surfaceSpeed: '400' }), on()).map(
      ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
    )
    expect(lines).toEqual([
      'start: -0.5000 - 0.1250 = -0.6250',
      'plunges: 0.8750 / 0.1000, rounded up, + 1 = 10',
      'bottom of the plunges: depth 0.1250 = 0.1250',
      'spindle speed at the start: 12 x 400 / (3.1416 x 1.2500) = 1222 rpm',
    ])
  })

  it('is written as it is by hand: one line, and two lines in least increments (common practice)', () => {
    const text = write(rough).code?.text
    // Beside the bar first, then in: one axis after the other.
    expect(text).toMatch(/\nG0 Z-0\.625[^\n]*\nG0 X1\.35 M8\n/)
    expect(text).toContain('G75 X1. Z-1.5 I0.05 K0.1 F0.004')
  })

  it('moves one axis at a time from home and back: Z first to an outside groove, X first out of it', () => {
    for (const where of ['outside', 'face', 'inside'] as const)
      for (const profile of [compact, twoLine, plain]) {
        const groove = {
          ...(where === 'outside' ? rough : {}),
          where,
          reach: '1',
          minBore: '.5',
          bottom: where === 'inside' ? '1.5' : where === 'face' ? '-.2' : '1',
          surface: where === 'face' ? '0' : '1.25',
          ...(where === 'face' ? { near: '2', far: '1' } : {}),
          corner: '.008',
          finish: false,
        }
        const { code } = writeSheet(sheetOf({ groove }), caseOf('lathe', profile))
        if (!code) throw new Error(`${where} is written`)
        const { motion } = code.program
        const rapids = Array.from({ length: motion.count }, (_, row) => row).filter(
          (row) => motion.kind[row] === ROW.RAPID,
        )
        const axes = rapids
          .map((row) => {
            const [a, b] = [endOf(motion, row - 1), endOf(motion, row)]
            return [a[0] !== b[0] ? 'X' : '', a[2] !== b[2] ? 'Z' : ''].join('')
          })
          .filter(Boolean)
        expect(axes.filter((moved) => moved.length > 1)).toEqual([])
        const lines = code.lines.map(({ text }) => text)
        const first = lines
          .slice(lines.findIndex((line) => /T\d{4}/.test(line)))
          .filter((line) => /^(N\d+ )?G0 /.test(line))
        expect(
          first
            .slice(0, 2)
            .map((line) => /G0 ([XZ])/.exec(line)?.[1])
            .join(''),
        ).toBe(where === 'outside' ? 'ZX' : 'XZ')
      }
  })

  it('an insert as wide as the groove, or a little wider within its tolerance, plunges once in its middle', () => {
    // Nothing typed but the groove: it was refused for the stock that it leaves, or as the wrong way round.
    for (const programmed of ['low', 'high'] as const)
      for (const [width, start] of [
        ['.125', programmed === 'low' ? -0.625 : -0.5],
        ['.127', programmed === 'low' ? -0.626 : -0.499],
      ] as const) {
        const fits = {
          near: '-.5',
          far: '-.625',
          bottom: '1',
          corner: '.008',
          insertWidth: width,
          programmed,
          widthTolerance: '.003',
        }
        for (const finish of [true, false]) {
          expect(codesOf({ ...fits, finish }).filter((code) => code.startsWith('stop'))).toEqual([])
          const sizes = grooveSizesOf({ ...fits, finish })
          expect([sizes.start, sizes.last]).toEqual([expect.closeTo(start, 9), expect.closeTo(start, 9)])
        }
      }
    expect(
      codesOf({ near: '-.5', far: '-.625', bottom: '1', insertWidth: '.132', widthTolerance: '.003' }),
    ).toContain('stop insert-too-wide')
  })

  it('without pecks two lines say one peck, rounded up: rounded down it was two, and was not read back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 9_000, max: 12_200 }),
        fc.integer({ min: 100, max: 2_000 }),
        (bottom, clear) => {
          // Odd ten thousandths of a diameter are half of one on the radius.
          const groove = {
            ...rough,
            pecking: false,
            bottom: (bottom / 10_000).toFixed(4),
            clearance: (clear / 10_000).toFixed(4),
          }
          const { code, findings } = writeSheet(
            sheetOf({ groove: { ...groove, reach: '1' } }),
            caseOf('lathe', twoLine),
          )
          expect(findings.map(({ code: of }) => of)).not.toContain('not-read-back')
          expect(code).toBeDefined()
        },
      ),
    )
  })

  it('turns 1222 rpm at 400 ft a minute on 1.25 in, and no faster than its clamp', () => {
    const { code } = write({ ...rough, surfaceSpeed: '400', clamp: '1300' })
    const states = code?.program.motion.states.map(({ rpm }) => Math.round(rpm)) ?? []
    // 12 x 400 / (pi x 1.25) = 1222.3 (worked by hand).
    expect((12 * 400) / (Math.PI * 1.25)).toBeCloseTo(1222.3, 1)
    expect(Math.max(...states)).toBeLessThanOrEqual(1300)
  })

  it('takes as long as worked by hand: one plunge of 0.2 in at 0.004 a turn and 1000 rpm is 3 s', () => {
    const { code } = write({
      near: '-.5',
      far: '-.625',
      surface: '1.3',
      bottom: '1',
      clearance: '.1',
      corner: '.008',
      finish: false,
      pecking: false,
      speed: 'turns',
      turns: '1000',
      feed: '.004',
    })
    const motion = code?.program.motion
    const feeds = motion ? [...motion.kind].flatMap((kind, row) => (kind === 1 ? [row] : [])) : []
    expect(feeds).toHaveLength(1)
    // (1.4 - 1.0) / 2 = 0.2; 0.2 / (0.004 x 1000) min = 3 s.
    expect((60 * 0.2) / (motion?.feed[feeds[0] as number] as number)).toBeCloseTo(3, 6)
  })
})

describe('what is left standing', () => {
  const insertOf = fc.record({
    width: fc.integer({ min: 60, max: 250 }).map((n) => n / 1000),
    corner: fc.integer({ min: 0, max: 15 }).map((n) => n / 1000),
    programmed: fc.constantFrom('low' as const, 'high' as const),
  })

  it('is the area that joining the outlines of the insert leaves (clipper2), plunges and finishing pass', () => {
    fc.assert(
      fc.property(
        insertOf,
        fc.record({
          extra: fc.integer({ min: 0, max: 500 }),
          depth: fc.integer({ min: 80, max: 300 }),
          share: fc.integer({ min: 40, max: 130 }),
          cornerMore: fc.integer({ min: 0, max: 20 }),
          edge: fc.constantFrom('none' as const, 'chamfer' as const, 'round' as const),
          finish: fc.boolean(),
        }),
        (insert, { extra, depth: d, share, cornerMore, edge, finish }) => {
          const corner = insert.corner + cornerMore / 1000
          const sizes = {
            ...grooveSizesOf({
              ...rough,
              finish,
              edge: finish ? edge : 'none',
              edgeSize: '.012',
              wallStock: '.02',
              floorStock: '.02',
            }),
            insert,
          }
          const [low, high] = [-1, -1 + insert.width + 0.05 + extra / 1000]
          const stock = finish ? 0.02 : 0
          const depth = d / 1000
          const aside = insert.programmed === 'low' ? 0 : insert.width
          const of = {
            ...sizes,
            section: { ...sizes.section, low, high, depth, corner },
            start: high - stock - insert.width + aside,
            last: low + stock + aside,
            stepover: (insert.width * share) / 100,
            plungeDepth: depth - stock,
          }
          const cuts = cutsOf(grooveMoves(of, 0, 0), { u: of.start, v: of.level })
          const left = leftStanding(of.section, cuts, insert)
          const top = -0.2
          const over = outlines([
            [
              [-9, top * 2],
              [9, top * 2],
              [9, 0],
              [-9, 0],
              [-9, top * 2],
            ],
          ])
          const below = (rings: readonly Ring[]) => difference(outlines(rings), over, FillRule.NonZero)
          const cut = below(sweptOutlines(cuts, insert, top))
          const wanted = below([wantedShape(of.section, top)])
          // Chords for arcs, and 150 places on the way down a chamfer, on the library's side.
          const near = 1e-5
          expect(Math.abs(left.standing - areaWithout(wanted, cut))).toBeLessThan(near)
          expect(Math.abs(left.overcut - areaWithout(cut, wanted))).toBeLessThan(near)
        },
      ),
      depth(10, 300),
    )
  })

  it('is nothing but the corners after a finishing pass, whichever end of the insert is programmed', () => {
    for (const programmed of ['low', 'high'] as const)
      for (const edge of ['none', 'chamfer', 'round'] as const) {
        const sizes = grooveSizesOf({
          ...rough,
          finish: true,
          corner: '.02',
          edge,
          programmed,
          wallStock: '.02',
          floorStock: '.02',
        })
        const left = leftStanding(
          sizes.section,
          cutsOf(grooveMoves(sizes, 0, 0), { u: sizes.start, v: sizes.level }),
          sizes.insert,
        )
        expect(left.floor).toBeLessThan(1e-6)
        expect(Math.max(Math.abs(left.walls.low), Math.abs(left.walls.high))).toBeLessThan(1e-6)
        expect(left.gouge).toBeLessThan(2e-5)
        expect(left.standing + left.overcut).toBeLessThan(2e-5)
      }
  })

  it('is a ring as high as the groove is deep where the stepover is wider than the insert', () => {
    const sizes = grooveSizesOf({ ...rough, stepover: '.15' })
    const { rings } = leftStanding(
      sizes.section,
      cutsOf(grooveMoves(sizes, 0, 0), { u: sizes.start, v: sizes.level }),
      sizes.insert,
    )
    // Span 0.875 at 0.150: seven plunges, five full rings, and between the last two, 0.125 apart, what the corners leave.
    expect(rings.map(({ height }) => Number(height.toFixed(4))).sort()).toEqual([
      sizes.insert.corner,
      ...Array(5).fill(sizes.section.depth),
    ])
  })
})

describe('a groove is refused', () => {
  it.each<[string, Partial<GrooveDraft>]>([
    ['insert-too-wide', { ...rough, far: '-.6' }],
    ['reach', { ...rough, reach: '.1' }],
    ['rings-left', { ...rough, stepover: '.125' }],
    ['rings-left', { ...rough, finish: true, stepover: '.2' }],
    ['start-cuts-wall', { ...rough, start: '-.5' }],
    ['start-cuts-wall', { ...rough, last: '-1.6' }],
    ['start-and-last', { ...rough, start: '-1.4', last: '-.7' }],
    ['corner-too-large', { ...rough, corner: '.004' }],
    ['cuts-too-much', { ...rough, corner: '.05' }],
    ['no-clamp', { ...rough, clamp: '' }],
    ['bar-cannot-enter', { ...rough, where: 'inside', surface: '1', bottom: '1.2', minBore: '.95' }],
    ['past-centre', { ...rough, where: 'inside', surface: '.1', bottom: '1.2', clearance: '.2' }],
    [
      'face-range',
      { where: 'face', surface: '0', near: '2', far: '1', bottom: '-.2', faceLeast: '2.5', faceMost: '4' },
    ],
    ['groove-no-depth', { ...rough, bottom: '1.3' }],
    ['groove-no-width', { ...rough, far: '-.5' }],
    ['grooves-overlap', { ...rough, count: '2', pitch: '.9' }],
    ['edge-meets-corner', { ...rough, finish: true, edge: 'chamfer', edgeSize: '.2' }],
    ['no-room-for-corners', { ...rough, finish: true, far: '-.64', corner: '.03' }],
    ['spindle-fast', { ...rough, speed: 'turns', turns: '9000' }],
  ])('%s', (code, groove) => {
    const written = write(groove)
    expect(
      written.items.flatMap(({ findings }) => findings.map((each) => `${each.severity} ${each.code}`)),
    ).toContain(`stop ${code}`)
    expect(written.code).toBeUndefined()
  })

  it('but not where nothing is wrong, and says what is left', () => {
    // Two plunges stand nearer to each other than the stepover that was typed: no ring.
    expect(codesOf({ ...rough, far: '-.69', stepover: '.2' })).not.toContain('stop rings-left')
    expect(codesOf(rough).filter((each) => !each.endsWith('tool-unknown'))).toEqual([])
    expect(codesOf({ ...rough, stepover: '.12', insertCorner: '.03', corner: '.03' })).toContain(
      'look floor-left',
    )
  })
})

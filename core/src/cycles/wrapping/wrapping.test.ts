import fc from 'fast-check'
import { evaluate } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { depth } from '../../../testing/depth.ts'
import { writeSheet } from '../../code/index.ts'
import { caseOf, compact, machineOf, plain, sheetOf, twoLine } from '../../code/testing.ts'
import type { Profile } from '../../control/index.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import type { RotaryAxis } from '../../machine/index.ts'
import { type Motion, read } from '../../program/index.ts'
import type { CycleCase, PlanBody } from '../cycle/index.ts'
import { checkWrap } from './check.ts'
import { outlineProgram } from './outline.ts'
import { type WrapDraft, type WrapParams, wrapForm } from './params.ts'
import { cylinderOutline, flatLines, onCylinder } from './picture.ts'
import { degreesRound, wrapSizes } from './sizes.ts'
import { wrapWorking } from './working.ts'

const steel = USUAL_MATERIALS[1] as (typeof USUAL_MATERIALS)[number]
const axis = (more: Partial<RotaryAxis> = {}): RotaryAxis => ({
  word: 'A',
  top: 'front',
  turns: null,
  ...more,
})
const onMill = (
  profile: Profile = compact,
  rotary: RotaryAxis | null = axis(),
  more: Partial<CycleCase> = {},
) => ({
  ...caseOf('mill', profile),
  machine: { ...machineOf('mill'), rotary },
  ...more,
})
const paramsOf = (draft: Partial<WrapDraft>) => sheetOf({ wrap: draft }).items[0]?.params as WrapParams
const sizesOf = (draft: Partial<WrapDraft>, on: CycleCase = onMill()) => wrapSizes(paramsOf(draft), on, steel)
const motionOf = (draft: Partial<WrapDraft>, on = onMill()): Motion => {
  const { code, items } = writeSheet(sheetOf({ wrap: draft }), on)
  if (!code) throw new Error(JSON.stringify(items))
  return code.program.motion
}

interface Cut {
  x: number
  degrees: number
  z: number
  /** Length over the face and seconds of the row that ends here. */
  length: number
  seconds: number
  /** Degrees that it turned. */
  turn: number
}

/** The ends of the rows at feed, and what each took; `radius` is of the face. */
/** Faster than any feed of these tests. */
const QUICK = 450

function cutsOf({ count, kind, x, z, rotary, seconds, feed }: Motion, radius: number): Cut[] {
  const turn = (row: number) => rotary?.[row] ?? 0
  return Array.from({ length: count }, (_, row) => row).flatMap((row) => {
    if (kind[row] !== 1 || row === 0) return []
    const [dx, dz] = [
      (x[row] as number) - (x[row - 1] as number),
      (z[row] as number) - (z[row - 1] as number),
    ]
    const round = ((turn(row) - turn(row - 1)) * Math.PI * radius) / 180
    const length = Math.hypot(dx, round, dz)
    const took = seconds?.[row] || (60 * length) / (feed[row] as number)
    // Where no rapid is allowed it goes from line to line as quickly as it feeds: that cuts nothing.
    if ((60 * length) / took > QUICK) return []
    return [
      {
        x: x[row] as number,
        degrees: turn(row),
        z: z[row] as number,
        length,
        seconds: took,
        turn: Math.abs(turn(row) - turn(row - 1)),
      },
    ]
  })
}

const controls: [string, Profile][] = [
  ['by an R word', compact],
  ['by the rotary word', twoLine],
  ['written out', plain],
]

describe('the angle of a length round', () => {
  // Common practice: half round a 1.5 in tube is 2.3562 in, and turns 180 degrees; a length of one radius 57.2958.
  it.each([
    [2.35619449, 0.75, 180],
    [1, 1, 57.29577951],
    [Math.PI * 40, 20, 360],
  ])('%s on a radius of %s is %s degrees', (length, radius, degrees) => {
    expect(degreesRound(length, radius)).toBeCloseTo(degrees, 6)
  })
})

describe.each(controls)('in space, %s', (_, profile) => {
  it('each line of a layout lies where the flat one wrapped by hand does, whichever way the axis turns', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 200, max: 4000 }),
        fc.integer({ min: 2, max: 90 }),
        fc.constantFrom('front' as const, 'back' as const),
        fc.integer({ min: -180, max: 180 }),
        fc.constantFrom('top' as const, 'centre' as const),
        (thou, divisions, top, turn, zZero) => {
          const radius = thou / 1000
          const cuts = cutsOf(
            motionOf(
              {
                diameter: String(2 * radius),
                divisions: String(divisions),
                numeralEvery: '0',
                turn: String(turn),
                x: '1',
                zZero,
                depth: '.005',
              },
              onMill(profile, axis({ top })),
            ),
            radius,
          )
          // By hand: two ends a line, one down, one along, at whole shares of the turn.
          expect(cuts.length).toBe(2 * divisions)
          const sense = top === 'front' ? 1 : -1
          cuts.forEach(({ x, degrees, z }, n) => {
            const line = Math.floor(n / 2)
            const long = line % 10 === 0 ? 0.12 : line % 5 === 0 ? 0.09 : 0.06
            expect(Math.abs(x - (n % 2 === 0 ? 1 : 1 + long))).toBeLessThan(1e-9)
            expect(z).toBeCloseTo(zZero === 'top' ? -0.005 : radius - 0.005, 3)
            const meant = sense * (turn + (360 * line) / divisions)
            // Half a least increment round, or half of the last digit of an angle.
            const off = Math.abs(degrees - meant) * (Math.PI / 180) * radius
            expect(off).toBeLessThan(0.00006 + (0.00006 * Math.PI * radius) / 180)
          })
          // A long scale closes: the last line is one division short of the first, within the least increment.
          const [first, last] = [cuts[0]?.degrees ?? 0, cuts.at(-1)?.degrees ?? 0]
          const open = (360 / divisions - (first + sense * 360 - last) * sense) * (Math.PI / 180) * radius
          expect(Math.abs(open)).toBeLessThan(0.0001 + (0.0001 * Math.PI * radius) / 180)
        },
      ),
      depth(60, 600),
    )
  })

  it('arcs of a flat program stay on their circle round the cylinder within the tolerance of chords', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 3000 }),
        fc.integer({ min: 100, max: 900 }),
        fc.boolean(),
        (thou, size, clockwise) => {
          const [radius, r] = [thou / 1000, size / 1000]
          const cuts = cutsOf(
            motionOf(
              {
                what: 'program',
                diameter: String(2 * radius),
                x: '0',
                program: `G20\nG0 X0 Y0\nZ.1\nG1 Z-.01 F4.\n${clockwise ? 'G2' : 'G3'} X0 Y0 I${r.toFixed(3)} J0 F8.\nG0 Z.1`,
              },
              onMill(profile),
            ),
            radius,
          )
          const flat = cuts.map(({ x, degrees }) => [x, (degrees * Math.PI * radius) / 180] as const)
          expect(flat.length).toBeGreaterThan(4)
          let around = 0
          flat.forEach(([x, y], n) => {
            expect(Math.abs(Math.hypot(x - r, y) - r)).toBeLessThan(0.0004)
            const [px, py] = flat[n - 1] ?? [0, 0]
            // The chord's middle is no further inside than the tolerance.
            expect(r - Math.hypot((x + px) / 2 - r, (y + py) / 2)).toBeLessThan(0.0005 + 0.0004)
            around += (px - r) * y - py * (x - r)
          })
          expect(Math.sign(around)).toBe(clockwise ? -1 : 1)
        },
      ),
      depth(40, 400),
    )
  })

  it('the tool goes over the face at the feed, within 1 %, or as fast as the axis turns', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 150, max: 4000 }),
        fc.integer({ min: 5, max: 200 }),
        fc.constantFrom('inverse-time' as const, 'along-way' as const),
        (thou, feed, rotaryFeed) => {
          const radius = thou / 1000
          const control = { ...profile, reading: { ...profile.reading, rotaryFeed } }
          const on = onMill(control)
          const draft = {
            what: 'text',
            text: 'S80',
            runs: 'round',
            diameter: String(2 * radius),
            feed: String(feed),
            depth: '.01',
          } as const
          let turning = 0
          for (const { length, seconds, turn } of cutsOf(motionOf(draft, on), radius)) {
            if (turn < 1e-9 || length < 0.002) continue
            turning++
            const speed = (60 * length) / seconds
            // Mapped, the control slows down by itself: what is written is the feed.
            const fastest = on.profile.reading.mapping ? Number.POSITIVE_INFINITY : (3000 * length) / turn
            expect(speed / Math.min(feed, fastest)).toBeGreaterThan(0.99)
            expect(speed / Math.min(feed, fastest)).toBeLessThan(1.01)
          }
          expect(turning).toBeGreaterThan(5)
        },
      ),
      depth(60, 600),
    )
  })
})

describe('what is written', () => {
  const lines = (draft: Partial<WrapDraft>, on = onMill()) =>
    writeSheet(sheetOf({ wrap: draft }), on)
      .code?.lines.filter(({ item }) => item)
      .map(({ text }) => text.replace(/ [(;].*/, '')) ?? []
  it('stands over the centre line and above the part before it wraps, and is clear before it stops', () => {
    const code = lines({ diameter: '1.5', numeralEvery: '0', slash: true })
    const on = code.indexOf('/G107 A0. Y0. R0.75')
    const off = code.lastIndexOf('G107')
    expect(code.slice(0, on).some((line) => /G0 X-0\.5 Y0\.$/.test(line))).toBe(true)
    expect(code[on - 1]).toBe('G0 A0.')
    expect(code[off - 1]).toBe('G0 Z1.')
    expect(code[off + 1]).toBe('G0 A0.')
    expect(lines({ diameter: '1.5', numeralEvery: '0' }, onMill(twoLine))).toContainEqual(
      expect.stringMatching(/^N\d+ G7\.1 A\.75$/),
    )
    expect(lines({ diameter: '1.5', numeralEvery: '0' }, onMill(plain))).toContain('G93')
  })
  it('an arc too small to be printed is left out, and never becomes a full circle', () => {
    const program = (end: string) => `G20\nG0 X0 Y0\nZ.1\nG1 Z-.01 F4.\nG3 X${end} I.2 J0 F8.\nG0 Z.1`
    const circles = (end: string) =>
      lines({ what: 'program', x: '0', program: program(end) }).filter((line) => line.startsWith('G3'))
    // A tenth of a least increment round, and the whole circle, which ends where it begins.
    expect(circles('0 Y-.00001')).toEqual([])
    expect(circles('0 Y0').length).toBe(1)
  })
  it('without the slashed line shows the flat layout, as the graphics of the control would', () => {
    const { code } = writeSheet(
      sheetOf({ wrap: { diameter: '1.5', slash: true, numeralEvery: '0', divisions: '4' } }),
      onMill(),
    )
    const { motion } = read(code?.text ?? '', {
      profile: compact,
      machine: onMill().machine,
      unit: 'inch',
      frame: 'G54',
      skipOptional: true,
    })
    // A quarter round is 1.1781 (2 pi 0.75 / 4).
    const cut = [...motion.y].filter((_, row) => motion.kind[row] === 1)
    expect(Math.max(...cut)).toBeCloseTo(3 * 1.1781, 3)
    expect(motion.rotary?.some((angle) => angle !== 0) ?? false).toBe(false)
  })
})

const tube: PlanBody = {
  name: 'tube',
  part: true,
  top: 0,
  lies: { radius: 0.75, axisZ: -0.75, from: -2, to: 0 },
  shape: { kind: 'rectangle', least: { x: -2, y: -0.75 }, greatest: { x: 0, y: 0.75 } },
}
const jaw: PlanBody = {
  name: 'chuck',
  part: false,
  top: 1,
  shape: { kind: 'rectangle', least: { x: -3, y: -2 }, greatest: { x: -1.5, y: 2 } },
}

describe('what is wrong is found, and what is right is not', () => {
  it.each<
    [code: string, wrong: Partial<WrapDraft>, on: CycleCase, right: Partial<WrapDraft>, rightOn?: CycleCase]
  >([
    ['no-rotary', {}, onMill(compact, null), {}, onMill()],
    [
      'rotary-limits',
      { covers: 'part', span: '90', turn: '45', numeralEvery: '0' },
      onMill(compact, axis({ turns: { least: -100, greatest: 100 } })),
      { turn: '5' },
    ],
    [
      'rotary-limits',
      { covers: 'part', span: '90', turn: '5', numeralEvery: '0' },
      onMill(compact, axis({ top: 'back', turns: { least: -90, greatest: 180 } })),
      { turn: '-5' },
    ],
    ['wrap-turned', {}, onMill(compact, axis(), { angle: 1 }), {}, onMill()],
    ['rotary-slow', { feed: '200', diameter: '.5' }, onMill(), { feed: '8' }],
    [
      'flat-program',
      { what: 'program', program: 'G81 X0 Y0 Z-.1 R.1 F4.\nG84 X1. Z-.2 R.1 F5.' },
      onMill(),
      { program: 'G0 X0 Y0\nG1 Z-.1 F4.\nX1.' },
    ],
    ['serial-wrapped', { what: 'text', text: 'SN ##' }, onMill(), { text: 'SN 07' }],
    [
      'part-not-round',
      {},
      onMill(compact, axis(), { bodies: [{ name: 'block', part: true, top: 0, shape: tube.shape }] }),
      {},
      onMill(compact, axis(), { bodies: [tube] }),
    ],
    [
      'flat-tools',
      { what: 'program', program: 'T1 M6\nG0 X0 Y0 Z1.\nG1 Z-.1 F4.' },
      onMill(),
      { program: 'G0 X0 Y0 Z1.\nG1 Z-.1 F4.' },
    ],
    ['character-lacking', { what: 'text', text: 'ö' }, onMill(), { text: 'oe' }],
    [
      'nothing-cut',
      { what: 'program', program: 'G0 X1. Y1. Z.1' },
      onMill(),
      { program: 'G0 X0 Y0\nG1 Z-.1 F4.' },
    ],
    [
      'seam-overlap',
      { what: 'text', text: 'ABCDEFGHIJKL', runs: 'round', textHeight: '.5', diameter: '1' },
      onMill(),
      { textHeight: '.2' },
    ],
    ['numerals-touch', { numeralHeight: '.6' }, onMill(), { numeralHeight: '.1' }],
    ['past-centre', { diameter: '.5', depth: '.25' }, onMill(), { depth: '.01' }],
    ['z-zero-differs', { zZero: 'centre' }, onMill(compact, axis(), { bodies: [tube] }), { zZero: 'top' }],
    [
      'diameter-differs',
      { zZero: 'top' },
      onMill(compact, axis(), {
        bodies: [{ ...tube, lies: { radius: 0.8, axisZ: -0.75, from: -2, to: 0 } }],
      }),
      {},
      onMill(compact, axis(), { bodies: [tube] }),
    ],
    ['text-off-part', { x: '-.1' }, onMill(compact, axis(), { bodies: [tube] }), { x: '-.5' }],
    ['text-on-body', { x: '-1.6' }, onMill(compact, axis(), { bodies: [tube, jaw] }), { x: '-.9' }],
    ['spindle-fast', { turns: '9000' }, onMill(), { turns: '8000' }],
    ['clearance-low', { rPlane: '.5', clearance: '.4' }, onMill(), { clearance: '.6' }],
  ])('%s', (code, wrong, on, right, rightOn = on) => {
    const codes = (draft: Partial<WrapDraft>, at: CycleCase) => {
      const params = paramsOf(draft)
      return checkWrap(params, wrapSizes(params, at, steel), at).map((each) => each.code)
    }
    expect(codes(wrong, on)).toContain(code)
    expect(codes({ ...wrong, ...right }, rightOn)).not.toContain(code)
  })
})

describe('lengths on a smaller radius', () => {
  it('are true at the bottom where that is asked for, and shrink by (R - d) / R where not', () => {
    const draft = { what: 'text', text: 'HI', runs: 'round', diameter: '2', depth: '.1' } as const
    const round = (trueAt: 'surface' | 'bottom') => {
      const { extent, mapped } = sizesOf({ ...draft, trueAt })
      const [from, to] = extent?.y ?? [0, 0]
      // As an angle, then as a length at the bottom.
      return ((to - from) / mapped) * 0.9
    }
    const flat = sizesOf({ ...draft, trueAt: 'surface' }).extent?.y ?? [0, 0]
    expect(round('bottom')).toBeCloseTo(flat[1] - flat[0], 9)
    expect(round('surface')).toBeCloseTo((flat[1] - flat[0]) * 0.9, 9)
  })
})

describe('an outline as a flat program', () => {
  it('goes along its lines, and round its bulges as a half circle by hand does', () => {
    // A bulge of 1 is a half circle (DXF reference): from 0 0 to 2 0 counter-clockwise it comes down to -1.
    const text = outlineProgram(
      [
        {
          closed: false,
          vertices: [
            { x: 0, y: 0, bulge: 1 },
            { x: 2, y: 0 },
            { x: 3, y: 1 },
          ],
        },
        {
          closed: true,
          vertices: [
            { x: 5, y: 5 },
            { x: 6, y: 5 },
            { x: 6, y: 6 },
          ],
        },
        { closed: true, vertices: [{ x: 9, y: 9 }] },
      ],
      { unit: 'inch', depth: 0.01, r: 0.05, feed: 8 },
    )
    const lines = flatLines(sizesOf({ what: 'program', program: text, x: '0', diameter: '20' }))
    expect(lines.map((line) => line.length > 2)).toEqual([true, true])
    const [open, closed] = lines as [(typeof lines)[number], (typeof lines)[number]]
    expect(open[0]).toEqual([0, 0])
    expect(open.at(-1)).toEqual([3, 1])
    expect(Math.min(...open.map(([, y]) => y))).toBeCloseTo(-1, 2)
    expect(closed.at(-1)).toEqual(closed[0])
  })
})

describe('the picture of the cylinder', () => {
  it('bounds what lies on it, and shows half of it', () => {
    const outline = cylinderOutline(-1, 0, 0.75)
    const left = Math.min(...outline.far.map(({ x }) => x))
    const right = Math.max(...outline.near.map(({ x }) => x))
    let near = 0
    for (let degrees = 0; degrees < 360; degrees++) {
      const at = onCylinder(-0.5, (degrees * Math.PI * 0.75) / 180, 0.75, 0.75, 30)
      if (at.near) near++
      expect(at.x).toBeGreaterThan(left)
      expect(at.x).toBeLessThan(right)
    }
    expect(Math.abs(near - 180)).toBeLessThan(2)
    // Turned by as much as it lies round, it is on top again.
    const top = onCylinder(0, 0, 1, 1, 0)
    const back = onCylinder(0, Math.PI / 3, 1, 1, 60)
    expect(back.x).toBeCloseTo(top.x, 12)
    expect(back.y).toBeCloseTo(top.y, 12)
  })
})

describe('the working', () => {
  it('comes to what it says, computed with a calculator', () => {
    for (const draft of [
      { divisions: '7' },
      { what: 'text', text: 'AB', trueAt: 'bottom', runs: 'round' },
      { what: 'slots', slotsRun: 'round', slotSpan: '400' },
    ] as const) {
      const params = paramsOf(draft)
      for (const { arithmetic, gives } of wrapWorking(params, wrapSizes(params, onMill(), steel), 'inch'))
        expect(Number(evaluate(arithmetic.replaceAll('x', '*')))).toBeCloseTo(Number.parseFloat(gives), 2)
    }
  })
  it('and the form reads back what it wrote', () => {
    const params = paramsOf({ what: 'holes', rows: '3' })
    expect(wrapForm.read(wrapForm.write(params), 'inch')).toEqual({ ok: true, value: params })
  })
})

import fc from 'fast-check'
import { evaluate } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { depth } from '../../../testing/depth.ts'
import { evenly } from '../../../testing/evenly.ts'
import { caseOf, compact, machineOf, plain, sheetOf, twoLine } from '../../code/testing.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import { layText } from '../../lettering/index.ts'
import { read } from '../../program/index.ts'
import type { CycleCase, PlanBody } from '../cycle/index.ts'
import { checkEngrave } from './check.ts'
import { type EngraveDraft, type EngraveParams, engraveForm } from './params.ts'
import { piecesOf } from './pieces.ts'
import { cutLetters, depthFor, engraveSizes, fallOff, lineWidthAt, widthFactorFrom } from './sizes.ts'
import { engraveWorking } from './working.ts'
import { writeEngrave } from './write.ts'

const aluminium = USUAL_MATERIALS[0] as (typeof USUAL_MATERIALS)[number]
const paramsOf = (draft: Partial<EngraveDraft>, unit: 'inch' | 'mm' = 'inch') =>
  sheetOf({ engrave: draft }, unit).items[0]?.params as EngraveParams
const sizesOf = (draft: Partial<EngraveDraft>, on: CycleCase = caseOf('mill', compact)) =>
  engraveSizes(paramsOf(draft, on.unit), on, aluminium)
const pointsOf = (draft: Partial<EngraveDraft>, on?: CycleCase) =>
  cutLetters(sizesOf(draft, on)).flatMap(({ strokes }) => strokes.flat())

const number = (least: number, most: number) => evenly(least, most)
const text = fc.string({ unit: fc.constantFrom(...'ABQWgjpqy0189-./('), minLength: 1, maxLength: 15 })

describe('width and depth of the line', () => {
  it('by handbook trigonometry: a 60 degree point 0.010 deep cuts 0.01155 wide, a 90 degree one twice its depth', () => {
    expect(lineWidthAt(0.01, 60, 0)).toBeCloseTo(0.02 / Math.sqrt(3), 12)
    expect(lineWidthAt(0.01, 90, 0.005)).toBeCloseTo(0.025, 12)
  })
  it('there and back', () => {
    fc.assert(
      fc.property(number(0.001, 1), number(10, 150), number(0, 0.05), (depth, angle, tip) => {
        expect(depthFor(lineWidthAt(depth, angle, tip), angle, tip)).toBeCloseTo(depth, 9)
      }),
    )
  })
  // ISO 3098-1 (from memory): heights 2.5, 3.5, 5, 7, 10 mm; type B has lines of h/10: 0.25, 0.35, 0.5, 0.7, 1.
  it.each([
    [2.5, 0.25],
    [3.5, 0.35],
    [5, 0.5],
    [7, 0.7],
    [10, 1],
  ])('a letter %s mm tall has a line of %s mm, where nothing else is asked for', (height, line) => {
    const on = caseOf('mill', compact, { unit: 'mm', machine: machineOf('mill', 'mm') })
    const sizes = sizesOf({ sits: 'start', height: String(height), tip: '.1' }, on)
    expect(sizes.lineWidth).toBeCloseTo(line, 2)
    expect(sizes.ratio).toBeGreaterThan(9.9)
    expect(sizes.ratio).toBeLessThan(10.1)
  })
})

describe('a text sits where it is meant to', () => {
  it('in a box, turned as it is: inside it, centred, and touching it one way or the other', () => {
    fc.assert(
      fc.property(
        text,
        number(0.3, 5),
        number(0.3, 5),
        fc.integer({ min: -180, max: 180 }),
        (said, boxWidth, boxHeight, angle) => {
          const [width, height] = [Number(boxWidth.toFixed(3)), Number(boxHeight.toFixed(3))]
          const turn = (angle * Math.PI) / 180
          const inBox = pointsOf({
            text: said,
            way: 'moves',
            x: '1',
            y: '-2',
            boxWidth: String(width),
            boxHeight: String(height),
            angle: String(angle),
          }).map(([x, y]) => [
            (x - 1) * Math.cos(turn) + (y + 2) * Math.sin(turn),
            -(x - 1) * Math.sin(turn) + (y + 2) * Math.cos(turn),
          ])
          if (inBox.length === 0) return
          const [us, vs] = [inBox.map(([u]) => u as number), inBox.map(([, v]) => v as number)]
          const [left, right] = [Math.min(...us), width - Math.max(...us)]
          expect(left).toBeGreaterThan(-1e-9)
          expect(Math.min(...vs)).toBeGreaterThan(-1e-9)
          expect(Math.max(...vs)).toBeLessThan(height + 1e-9)
          expect(left).toBeCloseTo(right, 9)
          // As high as possible: a thousandth more in height does not fit.
          const tall = sizesOf({
            text: said,
            way: 'moves',
            boxWidth: String(width),
            boxHeight: String(height),
          })
          const grown = (tall.height + 0.001001) / tall.height
          expect(
            (width - left - right) * grown > width ||
              tall.height * grown * (tall.laid.high - tall.laid.low) > height,
          ).toBe(true)
        },
      ),
      depth(200, 2000),
    )
  })
  it('along a line: its feet on it, at either end or in the middle', () => {
    for (const [align, share] of [
      ['left', 0],
      ['middle', 0.5],
      ['right', 1],
    ] as const) {
      // A 3-4-5 line from 1 1 to 4 5; capitals without hooks stand on it.
      const points = pointsOf({
        text: 'HEX',
        way: 'moves',
        sits: 'line',
        x: '1',
        y: '1',
        toX: '4',
        toY: '5',
        align,
        height: '.5',
      })
      const along = points.map(([x, y]) => ((x - 1) * 3 + (y - 1) * 4) / 5)
      const up = points.map(([x, y]) => (-(x - 1) * 4 + (y - 1) * 3) / 5)
      expect(Math.min(...up)).toBeCloseTo(0, 9)
      expect(Math.max(...up)).toBeCloseTo(0.5, 9)
      const over = 5 - (Math.max(...along) - Math.min(...along))
      expect(Math.min(...along)).toBeCloseTo(share * over, 9)
    }
  })
})

describe('the width of a control that has been measured', () => {
  it('makes the text as long as it was measured', () => {
    fc.assert(
      fc.property(number(0.5, 2), number(0.05, 0.5), (factor, height) => {
        const own = sizesOf({ text: 'SAMPLE', way: 'moves', sits: 'start', height: height.toFixed(4) })
        const measured = own.width * factor + 0.01
        const found = widthFactorFrom('SAMPLE', own.height, 0.01, measured) as number
        expect(found).toBeCloseTo(factor, 9)
        const lettering = { ...compact.reading.lettering, widthFactor: found }
        const on = caseOf('mill', { ...compact, reading: { ...compact.reading, lettering } })
        const sizes = sizesOf({ text: 'SAMPLE', sits: 'start', height: height.toFixed(4) }, on)
        expect(sizes.doubt).toBe(0)
        expect(sizes.width + 0.01).toBeCloseTo(measured, 9)
      }),
    )
    expect(widthFactorFrom('  ', 1, 0, 1)).toBeUndefined()
  })
})

const on = (more: Partial<Parameters<typeof caseOf>[2]> = {}, profile = compact) =>
  caseOf('mill', profile, more)
const block: PlanBody = {
  name: 'part',
  part: true,
  top: 0,
  shape: { kind: 'rectangle', least: { x: 0, y: 0 }, greatest: { x: 4, y: 2 } },
}
const clamp: PlanBody = {
  name: 'clamp',
  part: false,
  top: 0.5,
  shape: { kind: 'circle', at: { x: 2, y: 1 }, radius: 0.25 },
}
const inside = { x: '.5', y: '.5', boxWidth: '3', boxHeight: '1', way: 'moves' } as const

describe('what is wrong is found, and what is right is not', () => {
  it.each<[code: string, wrong: Partial<EngraveDraft>, on: CycleCase, right: Partial<EngraveDraft>]>([
    ['character-lacking', { text: 'Grüße', way: 'moves' }, on(), { text: 'Gruesse' }],
    ['character-not-carried', { text: 'Ø20' }, on(), { text: 'D20' }],
    [
      'letter-not-seen',
      { text: 'Grüße' },
      on(
        {},
        {
          ...compact,
          reading: {
            ...compact.reading,
            lettering: { ...compact.reading.lettering, characters: 'Grüße' },
          },
        },
      ),
      { text: 'Gre' },
    ],
    ['width-unknown', {}, on(), { way: 'moves' }],
    ['text-too-long', { ...inside, height: '.9', text: 'ABCDEFGH' }, on(), { height: '.3' }],
    ['text-too-tall', { ...inside, height: '1.1', text: 'I' }, on(), { height: '.9' }],
    [
      'text-may-run-out',
      { x: '0', boxWidth: '1', boxHeight: '2', height: '.2', text: 'ABCDE' },
      on(),
      { height: '.13' },
    ],
    ['line-under-tip', { tip: '.05', sits: 'start', height: '.125' }, on(), { tip: '.005' }],
    ['line-thick', { by: 'depth', depth: '.04', sits: 'start', height: '.1' }, on(), { depth: '.005' }],
    [
      'line-thin',
      { by: 'depth', depth: '.002', tip: '0', sits: 'start', height: '.5' },
      on(),
      { depth: '.03' },
    ],
    [
      'round-too-deep',
      { surface: 'across', surfaceDiameter: '3', boxWidth: '2', boxHeight: '.4' },
      on(),
      { surface: 'along', boxHeight: '.1' },
    ],
    [
      'text-off-round',
      { surface: 'across', surfaceDiameter: '1', sits: 'start', height: '.6' },
      on(),
      { surface: 'flat' },
    ],
    ['text-off-part', { ...inside, x: '1.5' }, on({ bodies: [block] }), { x: '.5' }],
    ['text-on-body', inside, on({ bodies: [block, clamp] }), { boxHeight: '.2' }],
    ['text-not-on-top', { ...inside, top: '.1' }, on({ bodies: [block] }), { top: '0' }],
    ['spindle-fast', { turns: '9000' }, on(), { turns: '8000' }],
    ['r-plane-low', { rPlane: '.0001', top: '0', clearance: '.00005' }, on(), {}],
    ['serial-digits', { text: 'SN ##', serial: '100' }, on(), { serial: '99' }],
    ['serial-twice', { text: '## ##' }, on(), { text: '##' }],
    ['serial-counter', { text: 'SN ###', serial: '12', counter: '11' }, on(), { counter: '12' }],
    ['serial-counter-unknown', { text: 'SN ###' }, on(), { counter: '1' }],
    ['serial-step', { text: 'SN ###', step: '2' }, on(), { way: 'moves' }],
    ['serial-over-letters', { text: 'DRAWTUBE ####' }, on(), { way: 'moves' }],
    [
      'text-may-hit',
      { ...inside, way: 'cycle', sits: 'start', height: '.31', text: 'LONG ENOUGH' },
      on({ bodies: [block] }),
      { height: '.2' },
    ],
    ['feed-zero', { feed: '.00001' }, on(), { feed: '1' }],
  ])('%s', (code, wrong, where, right) => {
    const codes = (draft: Partial<EngraveDraft>) => {
      const params = paramsOf(draft)
      return checkEngrave(params, engraveSizes(params, where, aluminium), where).map((each) => each.code)
    }
    if (code === 'r-plane-low') expect(codes(wrong)).toContain('clearance-low')
    else expect(codes(wrong)).toContain(code)
    expect(codes({ ...wrong, ...right })).not.toContain(code)
  })

  it('a number that the control counts never runs into the letters before it, whatever its letters turn out to be', () => {
    const stops = (draft: Partial<EngraveDraft>, widthFactor: number | null = null) => {
      const { reading } = compact
      const where = on(
        {},
        { ...compact, reading: { ...reading, lettering: { ...reading.lettering, widthFactor } } },
      )
      const params = paramsOf(draft)
      const sizes = engraveSizes(params, where, aluminium)
      return {
        sizes,
        params,
        said: checkEngrave(params, sizes, where).filter(({ severity }) => severity === 'stop'),
      }
    }
    // It was a note only: twelve letters of 0.2 are 0.4 longer at the worst, and a space is not half of that.
    expect(
      stops({ text: 'DRAWTUBE-ASM ####', sits: 'start', height: '.2' }).said.map(({ code }) => code),
    ).toContain('serial-over-letters')
    expect(stops({ text: 'DRAWTUBE-ASM ####', sits: 'start', height: '.2' }, 1.1).said).toEqual([])
    expect(stops({ text: '####', sits: 'start', height: '.2' }).said).toEqual([])
    expect(
      stops({ text: 'SN ####', sits: 'box', boxWidth: '2', boxHeight: '.5', height: '.3' }).said.map(
        ({ code }) => code,
      ),
    ).toContain('text-may-run-out')
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'ABIJ- '), minLength: 0, maxLength: 8 }),
        fc.string({ unit: fc.constantFrom(...'ABIJ- '), minLength: 0, maxLength: 5 }),
        number(0.8, 1.2),
        (before, after, real) => {
          const { sizes, params, said } = stops({ text: `${before}###${after}`, sits: 'start', height: '.2' })
          const pieces = piecesOf(params, sizes, true)
          const over = pieces.slice(1).some((next, n) => {
            const piece = pieces[n] as (typeof pieces)[number]
            return piece.at + layText(piece.text).width * real > next.at
          })
          if (over) expect(said.map(({ code }) => code)).toContain('serial-over-letters')
        },
      ),
    )
  })

  it('by depth, with none typed, goes as deep as makes the line of standard lettering: a tenth of the height', () => {
    // ISO 3098 type B, height 0.2: a line of 0.02. V of 60 degrees, tip 0.005: (0.02 - 0.005) / (2 tan 30) = 0.013.
    const sizes = sizesOf({
      by: 'depth',
      depth: '',
      sits: 'start',
      height: '.2',
      toolAngle: '60',
      tip: '.005',
    })
    expect(sizes.depth).toBeCloseTo(0.013, 4)
    expect(sizes.lineWidth).toBeCloseTo(0.02, 3)
    expect(sizesOf({ by: 'depth', depth: '.004', sits: 'start', height: '.2' }).depth).toBe(0.004)
  })

  it('a round face falls away by the sagitta of the handbook: 1 wide on 4 across, 0.0635', () => {
    const sizes = sizesOf({ surface: 'across', surfaceDiameter: '4', sits: 'start', height: '.2' })
    // s = R - root of (R^2 - c^2 / 4): 2 - root of 3.75.
    expect(fallOff({ ...sizes, width: 1 })).toBeCloseTo(2 - Math.sqrt(3.75), 12)
  })
})

describe('what is written', () => {
  it('holds corners close round the text and lets go after it, where the control can', () => {
    const lines = (profile: typeof compact, draft: Partial<EngraveDraft>) =>
      writeEngrave(paramsOf(draft), caseOf('mill', profile), aluminium).operations.flatMap(({ blocks }) =>
        blocks.map(({ words }) =>
          typeof words === 'string' ? words : words.map((word) => word.text).join(' '),
        ),
      )
    const written = lines(compact, { sits: 'start', text: 'A1', height: '.2' })
    expect(written[0]).toBe('G187 P3 E0.002')
    expect(written.at(-1)).toBe('G187')
    expect(written[1]).toMatch(/^G47 P0 \(A1\) X0\. Y0\. I0\. J0\.2 R0\.05 Z-0\.013 F/)
    expect(lines(twoLine, { sits: 'start' }).some((line) => line.startsWith('G187'))).toBe(false)
    expect(lines(compact, { sits: 'start', sharp: false }).some((line) => line.startsWith('G187'))).toBe(
      false,
    )
  })
  it('a serial number by the cycle and as moves comes to the same letters, at the same places', () => {
    for (const said of ['##-A', 'SN ####', '(##)', 'X##Y']) {
      const paths = (['cycle', 'moves'] as const).map((way) => {
        const lettering = {
          ...compact.reading.lettering,
          widthFactor: 1,
          characters: `${compact.reading.lettering.characters}()`,
        }
        const profile = { ...compact, reading: { ...compact.reading, lettering } }
        const at = caseOf('mill', profile)
        const { operations } = writeEngrave(
          paramsOf({
            text: said.replace(/[()]/g, '/'),
            serial: '7',
            counter: '7',
            way,
            sits: 'start',
            height: '.2',
          }),
          at,
          aluminium,
        )
        const blocks = operations[0]?.blocks.map(({ words }) =>
          typeof words === 'string' ? words : words.map((word) => word.text).join(' '),
        )
        const start = operations[0]?.start
        const { motion } = read(`G20 G90 G0 X${start?.x} Y${start?.y} Z1.\n${blocks?.join('\n')}\nM30\n`, {
          profile,
          machine: machineOf('mill'),
          unit: 'inch',
          serial: 7,
        })
        return [...motion.x].flatMap((x, row) => (motion.kind[row] === 1 ? [x, motion.y[row] as number] : []))
      })
      expect(paths[0]?.length).toBe(paths[1]?.length)
      paths[0]?.forEach((value, n) => {
        expect(Math.abs(value - (paths[1]?.[n] as number))).toBeLessThan(1.01e-4)
      })
    }
  })
  it('a control without a cycle has the letters written out', () => {
    expect(sizesOf({}, caseOf('mill', plain)).moves).toBe(true)
    expect(sizesOf({}, caseOf('mill', compact)).moves).toBe(false)
    expect(sizesOf({ sits: 'arc' }, caseOf('mill', compact)).moves).toBe(true)
  })
})

describe('the working', () => {
  it('comes to what it says, computed with a calculator', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<Partial<EngraveDraft>>(
          { sits: 'box' },
          { sits: 'line', by: 'depth', depth: '.012' },
          { sits: 'arc', height: '.2' },
          { surface: 'across', surfaceDiameter: '6' },
        ),
        fc.integer({ min: 30, max: 120 }),
        (draft, toolAngle) => {
          const params = paramsOf({ ...draft, toolAngle: String(toolAngle), tip: '.003' })
          const lines = engraveWorking(
            params,
            engraveSizes(params, caseOf('mill', compact), aluminium),
            'inch',
          )
          for (const { arithmetic, gives } of lines) {
            const sum = arithmetic
              .replaceAll('x', '*')
              .replaceAll('²', '^2')
              .replaceAll('root of', 'sqrt')
              .replace(/tan ([\d.]+)/, 'tan($1 deg)')
            const value = Number(evaluate(sum))
            // Numbers in it are rounded as they are shown.
            expect(Math.abs(value - Number.parseFloat(gives))).toBeLessThan(
              Math.max(2e-4, Math.abs(value) * 0.02),
            )
          }
        },
      ),
      depth(60, 600),
    )
  })
  it('and the form reads back what it wrote', () => {
    const params = paramsOf({ text: 'AB ##', sits: 'line' })
    expect(engraveForm.read(engraveForm.write(params), 'inch')).toEqual({ ok: true, value: params })
  })
})

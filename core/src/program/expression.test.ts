import fc from 'fast-check'
import { evaluate as mathjs } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evaluate } from './expression.ts'

const NOTHING = { get: () => Number.NaN }
const worth = (source: string, get: (number: number) => number = NOTHING.get) =>
  evaluate(source, 0, { get }).value

/** The same expression in the macro language and for mathjs (degrees are said there). */
interface Both {
  macro: string
  math: string
}

const number: fc.Arbitrary<Both> = fc
  .integer({ min: -9999, max: 9999 })
  .map((n) => ({ macro: String(n / 100), math: `(${n / 100})` }))

const inBrackets = ({ macro, math }: Both): Both => ({ macro: `[${macro}]`, math: `(${math})` })

const { tree } = fc.letrec<{ tree: Both }>((tie) => ({
  tree: fc.oneof(
    { maxDepth: 5, withCrossShrink: true },
    number,
    fc
      .tuple(tie('tree'), fc.constantFrom('+', '-', '*'), tie('tree'))
      .map(([a, by, b]) =>
        inBrackets({ macro: `${a.macro} ${by} ${b.macro}`, math: `${a.math} ${by} ${b.math}` }),
      ),
    fc
      .tuple(tie('tree'), fc.integer({ min: 1, max: 99 }))
      .map(([a, by]) => inBrackets({ macro: `${a.macro} / ${by}`, math: `${a.math} / ${by}` })),
    // Without brackets of their own: the order of the operators is under test.
    fc
      .tuple(number, fc.constantFrom('+', '-', '*'), number, fc.constantFrom('+', '-', '*'), number)
      .map(([a, p, b, q, c]) =>
        inBrackets({
          macro: `${a.macro} ${p} ${b.macro} ${q} ${c.macro}`,
          math: `${a.math} ${p} ${b.math} ${q} ${c.math}`,
        }),
      ),
    fc.tuple(fc.constantFrom('SIN', 'COS'), number).map(([name, of]) => ({
      macro: `${name}[${of.macro}]`,
      math: `${name.toLowerCase()}(${of.math} deg)`,
    })),
    fc.tuple(fc.constantFrom(['ABS', 'abs'], ['ATAN', 'atan']), tie('tree')).map(([[macro, math], of]) => ({
      // In brackets of its own: ATAN[a] / [b] is the arc tangent of a over b.
      macro: `[${macro}[${of.macro}]]`,
      math: macro === 'ATAN' ? `(atan(${of.math}) * 180 / pi)` : `${math}(${of.math})`,
    })),
    fc.tuple(tie('tree')).map(([of]) => ({ macro: `SQRT[ABS[${of.macro}]]`, math: `sqrt(abs(${of.math}))` })),
    fc.tuple(tie('tree'), tie('tree')).map(([a, b]) => ({
      macro: `ATAN[${a.macro}]/[${b.macro}]`,
      math: `(atan2(${a.math}, ${b.math}) * 180 / pi)`,
    })),
    // Of plain numbers only: what comes before a step must not be rounded.
    fc
      .tuple(number, fc.integer({ min: 1, max: 50 }))
      .map(([a, b]) => inBrackets({ macro: `${a.macro} MOD ${b}`, math: `mod(${a.math}, ${b})` })),
    number.map((of) => ({ macro: `EXP[${of.macro} / 10]`, math: `exp(${of.math} / 10)` })),
    number.map((of) => ({ macro: `FIX[${of.macro}]`, math: `fix(${of.math})` })),
  ),
}))

describe('macro expressions', () => {
  it('come to what mathjs makes of them', () => {
    let compared = 0
    fc.assert(
      fc.property(tree, ({ macro, math }) => {
        const wanted = Number(mathjs(math))
        const got = evaluate(macro, 0, NOTHING)
        // The arc tangent of nothing over nothing turns with the sign of a zero.
        if (/ATAN\[.*\/\[/.test(macro) && Math.abs(Math.abs(wanted - got.value) - 180) < 1e-9) return
        expect(got.wrong).toBeUndefined()
        expect(Math.abs(got.value - wanted)).toBeLessThanOrEqual(1e-7 * Math.max(1, Math.abs(wanted)))
        compared++
      }),
      depth(2000, 20_000),
    )
    expect(compared).toBeGreaterThan(1000)
  })

  it.each([
    ['[2 + 3 * 4]', 14],
    ['[2 ** 3 ** 1]', 8],
    ['-[2 - 5]', 3],
    ['[1 EQ 1]', 1],
    ['[1 GT 1]', 0],
    ['[[1 LT 2] AND [2 LE 2]]', 1],
    ['[[1 NE 1] OR [3 GE 4]]', 0],
    ['ROUND[2.5]', 3],
    ['ROUND[-2.5]', -3],
    ['FUP[2.1]', 3],
    ['ACOS[0]', 90],
  ])('%s is %d', (source, value) => expect(worth(source)).toBeCloseTo(value, 12))

  it('a variable that was never set is none: equal to another such, not to zero (common practice)', () => {
    expect(worth('#1')).toBeNaN()
    expect(worth('[#1 EQ #0]')).toBe(1)
    expect(worth('[#1 EQ 0]')).toBe(0)
    expect(worth('[#1 + 2]')).toBe(2)
    expect(worth('#[#1+1]', (n) => (n === 1 ? 4 : n * 10))).toBe(50)
  })

  it.each([
    '[1/0]',
    '[5 MOD 0]',
    'SQRT[-1]',
    'LN[0]',
    '[1',
    'HUGE[1]',
    '[]',
    '',
    '[1 2]',
    `${'['.repeat(200)}1${']'.repeat(200)}`,
  ])('%s is wrong, and said', (source) =>
    expect(evaluate(source, 0, NOTHING)).toMatchObject({ value: 0, wrong: expect.any(String) }),
  )
})

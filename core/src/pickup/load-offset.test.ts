import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, offsetNames, type Profile, profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { readSteps } from '../program/index.ts'
import { checkLoad, type LoadOffset, planLoad, readsBack, writeLoad } from './load-offset.ts'

const mill = demoReference.machines[0] as Machine
const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
const axis = (value: number) => ({ value, about: 'edge finder, ±0.0010 (the "left" face)' })
const load = (more: Partial<LoadOffset> = {}): LoadOffset => ({
  offset: 'G54',
  unit: 'inch',
  axes: { X: axis(-14.1312), Y: axis(-6.1205), Z: axis(-15.346) },
  about: ['Setup: focuser housing (first side)'],
  ...more,
})
const text = (of: LoadOffset, on: Profile) => {
  const written = writeLoad(of, on, mill)
  return written.ok ? written.text : written.findings.map(({ says }) => says).join(' ')
}
const lines = (of: LoadOffset, on: Profile) =>
  text(of, on)
    .split('\n')
    .map((line) => line.replace(/ [(;].*/, ''))

describe('the program that loads and checks an offset', () => {
  // G10 L2 P1 X.. Y.. Z.. loads G54, P6 loads G59 (RS274/NGC, NISTIR 6556, 3.5.6, from memory; extended offsets common practice).
  it('is in the words of the profile', () => {
    expect(lines(load(), compact)).toContain('G90 G10 L2 P1 X-14.1312 Y-6.1205 Z-15.346')
    expect(lines(load({ offset: 'G59' }), compact)).toContain('G90 G10 L2 P6 X-14.1312 Y-6.1205 Z-15.346')
    expect(lines(load({ offset: 'G154 P3' }), compact)).toContain(
      'G90 G10 L20 P3 X-14.1312 Y-6.1205 Z-15.346',
    )
    expect(lines(load({ axes: { X: axis(-0.5) } }), twoLine)).toContain('N40 G90 G10 L2 P1 X-.5')
    expect(lines(load({ axes: { X: axis(-0.5) } }), plain)).toContain('G90 G10 L2 P1 X-0.5000')
  })

  it('goes to the top before it goes sideways, and calls no tool length', () => {
    for (const on of BUILT_IN_PROFILES) {
      const { steps } = readSteps(text(load(), on), { profile: on, machine: mill, unit: 'inch' })
      const moves = steps.filter((step) => step.does === 'rapid')
      expect(Object.keys(moves[0]?.axes ?? {})).toEqual(['Z'])
      expect(moves.map(({ axes }) => Object.keys(axes).join(''))).toEqual(['Z', 'XY', 'Z'])
      expect(text(load(), on)).toMatch(/QUALIFIED PERSON[\s\S]*MUST PROVE|QUALIFIED PERSON MUST PROVE/)
      expect(text(load(), on)).not.toMatch(/G43|G44/)
    }
  })

  it('loads the angle of a rotary with it, and turns the part to its zero before it is looked at', () => {
    const turned = (value: number) => load({ rotary: { word: 'A', value, about: 'flat' } })
    expect(lines(turned(-12.3456), compact)).toContain('G90 G10 L2 P1 X-14.1312 Y-6.1205 Z-15.346 A-12.346')
    expect(lines(turned(90), plain).join('|')).toContain('M0|G90 G54 G0 A0.|M0|G90 G54 G0 X0.0000 Y0.0000|M0')
    expect(lines({ ...turned(-0.0001), axes: {} }, compact).join('|')).toContain('G90 G10 L2 P1 A0.')
    expect(checkLoad({ ...turned(1), axes: {} }, compact, mill).map(({ code }) => code)).toEqual([])
    const good = text(turned(12.5), compact)
    const plan = planLoad(turned(12.5), compact, mill)
    const on = { profile: compact, machine: mill, unit: 'inch' as const }
    expect(readsBack(good, plan, 'G54', on)).toBe(true)
    expect(readsBack(good.replace('A12.5', 'A12.6'), plan, 'G54', on)).toBe(false)
    expect(readsBack(good.replace('G0 A0.', 'G0 A1.'), plan, 'G54', on)).toBe(false)
    expect(readsBack(good.replace('G0 A0.', 'G0 B0.'), plan, 'G54', on)).toBe(false)
  })

  it('keeps comments inside their marks, in characters and lengths that the control can carry', () => {
    for (const on of BUILT_IN_PROFILES) {
      for (const line of text(load({ about: ['Téléscope (5") · 100% ; weird\u0000'] }), on).split('\n')) {
        const comment = line.match(on.comments.style === 'semicolon' ? /;(.*)$/ : /\((.*)\)$/)?.[1] ?? ''
        expect(comment).toMatch(/^[A-Z0-9 .,:+\-=/'*#]*$/)
        expect(comment.length).toBeLessThanOrEqual(on.comments.longest)
      }
    }
  })

  it('reads back to the planned loads and moves, to the last printed digit, for every profile and any trait', () => {
    const position = fc.integer({ min: -160_000, max: 0 }).map((n) => n / 10_000 - 0.00003)
    const turns = fc.option(fc.integer({ min: -3_600_000, max: 3_600_000 }).map((n) => n / 10_000))
    const traits = fc.record({
      on: fc.constantFrom(...BUILT_IN_PROFILES),
      inchDigits: fc.integer({ min: 3, max: 5 }),
      leadingZero: fc.boolean(),
      trailingZeros: fc.boolean(),
      numbered: fc.boolean(),
      amount: fc.constantFrom('every-block' as const, 'head-only' as const),
      way: fc.constantFrom('machine-position' as const, 'home-return' as const),
      loads: fc.boolean(),
    })
    fc.assert(
      fc.property(
        traits,
        position,
        position,
        fc.option(position),
        fc.nat(),
        turns,
        (t, x, y, z, pick, turned) => {
          const on = profile.parse({
            ...t.on,
            numbers: {
              ...t.on.numbers,
              inchDigits: t.inchDigits,
              leadingZero: t.leadingZero,
              trailingZeros: t.trailingZeros,
            },
            blocks: { ...t.on.blocks, numbered: t.numbered },
            comments: { ...t.on.comments, amount: t.amount },
            clearUp: { ...t.on.clearUp, way: t.way },
            loadOffset: t.loads ? t.on.loadOffset : null,
          })
          const names = offsetNames(on)
          const of = load({
            offset: names[pick % names.length] as string,
            axes: { X: axis(x), Y: axis(y), ...(z === null ? {} : { Z: axis(z) }) },
            ...(turned === null ? {} : { rotary: { word: 'A', value: turned, about: 'flat' } }),
          })
          const written = writeLoad(of, on, mill)
          if (!written.ok) throw new Error(written.findings[0]?.says)
          const step = readSteps(written.text, { profile: on, machine: mill, unit: 'inch' }).steps.find(
            ({ does }) => does === 'load-offset',
          )
          if (on.loadOffset) {
            const loaded = step?.does === 'load-offset' ? step.axes : {}
            expect(Math.abs((loaded.X ?? 1) - x)).toBeLessThanOrEqual(0.5000001 * 10 ** -t.inchDigits)
            expect(loaded.Z === undefined).toBe(z === null)
            expect(loaded.A === undefined).toBe(turned === null)
            expect(Math.abs((loaded.A ?? turned ?? 0) - (turned ?? 0))).toBeLessThanOrEqual(0.0005000001)
          } else expect(step).toBeUndefined()
          expect(
            readsBack(written.text, planLoad(of, on, mill), of.offset, {
              profile: on,
              machine: mill,
              unit: 'inch',
            }),
          ).toBe(true)
        },
      ),
    )
  })

  it('does not read back when a digit, a sign or a word is changed', () => {
    const plan = planLoad(load(), compact, mill)
    const good = text(load(), compact)
    expect(readsBack(good, plan, 'G54', { profile: compact, machine: mill, unit: 'inch' })).toBe(true)
    for (const [from, to] of [
      ['X-14.1312', 'X-14.1313'],
      ['Y-6.1205', 'Y6.1205'],
      ['P1', 'P2'],
      ['G20', 'G21'],
      ['G53 G0 Z0.', 'G53 G1 Z0.'],
      ['G90 G10', 'G91 G10'],
    ] as const)
      expect(
        readsBack(good.replace(from, to), plan, 'G54', { profile: compact, machine: mill, unit: 'inch' }),
      ).toBe(false)
  })

  it('writes nothing that cannot be read back, whatever codes a profile holds, and never throws', () => {
    const code = fc
      .tuple(fc.constantFrom('G', 'M', 'T'), fc.integer({ min: 0, max: 999 }))
      .map(([l, n]) => `${l}${n}`)
    fc.assert(
      fc.property(code, code, (select, loader) => {
        const on = profile.parse({
          ...compact,
          offsets: { ...compact.offsets, standard: [select] },
          loadOffset: { code: loader, standardL: 2, extendedL: 20, note: '' },
        })
        const written = writeLoad(load({ offset: select }), on, mill)
        if (written.ok)
          expect(
            readsBack(written.text, planLoad(load({ offset: select }), on, mill), select, {
              profile: on,
              machine: mill,
              unit: 'inch',
            }),
          ).toBe(true)
        else expect(written.findings.map(({ code: named }) => named)).toEqual(['not-read-back'])
      }),
    )
    const odd = { ...compact, offsets: { ...compact.offsets, standard: ['G60'] } }
    expect(writeLoad(load({ offset: 'G60' }), odd, mill)).toMatchObject({ ok: false })
  })

  it('writes nothing for an offset that the control lacks, a check move out of reach, or no axis at all', () => {
    const refused = (of: LoadOffset, on: Profile) => {
      const written = writeLoad(of, on, mill)
      return written.ok ? [] : written.findings.map(({ code }) => code)
    }
    expect(refused(load({ offset: 'G154 P3' }), plain)).toEqual(['offset-not-on-control'])
    expect(refused(load({ offset: 'G154 P100' }), compact)).toEqual(['offset-not-on-control'])
    expect(refused(load({ offset: 'G54.1 P0' }), twoLine)).toEqual(['offset-not-on-control'])
    expect(refused(load({ axes: { X: axis(1), Y: axis(-2) } }), compact)).toContain(
      'check-move-outside-travel',
    )
    expect(refused(load({ axes: {} }), compact)).toEqual(['nothing-to-load'])
    expect(checkLoad(load({ axes: { X: axis(-1) } }), compact, mill).map(({ code }) => code)).toEqual([
      'axes-missing',
    ])
  })
})

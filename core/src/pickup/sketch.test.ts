import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { draftOf, type PickupDraft, readDraft } from './draft.ts'
import { pickUp } from './pick-up.ts'
import { sketch } from './sketch.ts'

const length = (least: number, greatest: number) =>
  fc.integer({ min: least * 1000, max: greatest * 1000 }).map((n) => String(n / 1000))

const edgeFinder: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constantFrom('X' as const, 'Y' as const),
  method: fc.constant('edge-finder' as const),
  choices: fc.record({ direction: fc.constantFrom('+' as const, '-' as const) }),
  fields: fc.record({
    diameter: length(0.1, 1),
    machinePosition: length(-30, 0),
    drawingPosition: length(-6, 6),
  }),
})
const indicator: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constantFrom('X' as const, 'Y' as const),
  method: fc.constant('indicator' as const),
  choices: fc.constant({}),
  fields: fc.record({
    minusSide: length(-30, -15),
    plusSide: length(-14, 0),
    drawingPosition: length(-6, 6),
  }),
})
const toolOnBlock: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constant('Z' as const),
  method: fc.constantFrom('tool-on-block' as const, 'tool-on-feeler' as const),
  choices: fc.constant({}),
  fields: fc.record({
    tool: fc.constant('7'),
    toolLength: length(0.5, 9),
    blockHeight: length(0, 3),
    machinePosition: length(-16, 0),
    drawingPosition: length(-2, 2),
  }),
})
const middle: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constantFrom('X' as const, 'Y' as const),
  method: fc.constant('middle' as const),
  choices: fc.record({
    side: fc.constantFrom('web' as const, 'pocket' as const),
    device: fc.constantFrom('edge-finder' as const, 'probe' as const),
  }),
  fields: fc.record({
    diameter: length(0.1, 0.5),
    low: length(-30, -15),
    high: length(-13, 0),
    drawingPosition: length(-6, 6),
  }),
})
const swept: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constantFrom('X' as const, 'Y' as const),
  method: fc.constant('swept' as const),
  choices: fc.record({ side: fc.constantFrom('bore' as const, 'boss' as const) }),
  fields: fc.record({
    machinePosition: length(-30, 0),
    plusDial: length(-1, 1),
    minusDial: length(-1, 1),
    drawingPosition: length(-6, 6),
  }),
})
const turned: fc.Arbitrary<PickupDraft> = fc.record({
  axis: fc.constant('X' as const),
  method: fc.constant('skimmed' as const),
  choices: fc.constant({}),
  fields: fc.record({ machinePosition: length(-16, 0), measured: length(0.1, 4) }),
})
const anyDraft = fc.oneof(edgeFinder, indicator, toolOnBlock, middle, swept, turned)

describe('the picture behind the numbers', () => {
  it('puts part zero where the arithmetic puts it, and shows all that it names', () => {
    fc.assert(
      fc.property(anyDraft, (draft) => {
        const read = readDraft(draft, 'inch')
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        const picture = sketch(draft, 'inch')
        expect(picture.zero).toBeCloseTo(pickUp(read.reading, { unit: 'inch', leastStep: 0.0001 }).value, 9)
        const shown = [...picture.spindles.map(({ at }) => at), picture.feature, picture.zero]
        for (const place of shown) {
          expect(place).toBeGreaterThanOrEqual(picture.least - 1e-9)
          expect(place).toBeLessThanOrEqual(picture.greatest + 1e-9)
        }
        expect(picture.greatest).toBeGreaterThan(picture.least)
        for (const { from, to } of picture.bodies) expect(to).toBeGreaterThan(from)
      }),
    )
  })

  it('touches: the finder lies against the face on the side that it came from', () => {
    fc.assert(
      fc.property(edgeFinder, (draft) => {
        const { spindles, feature, tip, bodies, direction } = sketch(draft, 'inch')
        const at = spindles[0]?.at ?? Number.NaN
        expect(Math.abs(feature - at)).toBeCloseTo(tip / 2, 9)
        expect(
          direction === '+'
            ? at < feature && bodies[0]?.from === feature
            : at > feature && bodies[0]?.to === feature,
        ).toBe(true)
      }),
    )
  })

  it('is drawn the same from the form as from the reading that the form became', () => {
    fc.assert(
      fc.property(anyDraft, (draft) => {
        const read = readDraft(draft, 'inch')
        if (!read.ok) throw new Error('not read')
        expect(sketch(draftOf(read.reading), 'inch')).toEqual(sketch(draft, 'inch'))
      }),
    )
  })

  it('means something before anything is typed, and says which numbers are real', () => {
    for (const method of ['edge-finder', 'indicator', 'tool-on-block'] as const) {
      const axis = method === 'tool-on-block' ? 'Z' : 'X'
      const empty = sketch(
        { axis, method, choices: {}, fields: { drawingPosition: '0', machinePosition: 'abc' } },
        'mm',
      )
      expect([...empty.known]).toEqual(['drawingPosition'])
      expect(Number.isFinite(empty.least) && empty.greatest > empty.least).toBe(true)
    }
    const half = sketch({ axis: 'X', method: 'indicator', choices: {}, fields: { plusSide: '-5' } }, 'inch')
    expect(half.spindles.map(({ at }) => at)).toEqual([-7, -5])
  })
})

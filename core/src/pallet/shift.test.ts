import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { type PalletWork, type ShiftCase, simulateShift, steadyCycle } from './shift.ts'
import { palletOptions } from './worth.ts'

const time = fc.integer({ min: 0, max: 600 })
const work = fc.record<PalletWork>({
  cut: fc.integer({ min: 1, max: 900 }),
  unload: time,
  load: time,
  aside: fc.constant(0),
  parts: fc.integer({ min: 1, max: 4 }),
  finishes: fc.boolean(),
})
const two = fc.tuple(work, work)
const of = (pallets: readonly PalletWork[], more: Partial<ShiftCase> = {}): ShiftCase => ({
  pallets,
  swap: 12,
  hands: 1,
  length: 200_000,
  ...more,
})

describe('a shift of pallets', () => {
  it('settles into the closed form of two pallets', () => {
    // Cycle of two pallets = the sum over each change of the longer of cutting on one and unloading and loading on the
    // other, and the change (trade.md 10, common practice).
    fc.assert(
      fc.property(
        two,
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 3 }),
        (pallets, swap, hands) => {
          expect(simulateShift(of(pallets, { swap, hands })).cycle).toBeCloseTo(steadyCycle(pallets, swap), 6)
        },
      ),
      depth(300, 3000),
    )
  })

  it('an example worked by hand', () => {
    // Cut 300 and 200 s, loading 250 s in all each, change 10 s: max(300, 250) + 10 + max(200, 250) + 10 = 570 s a round.
    // In 3600 s: the first round has pallet 2 loaded already: 300, 10, then 250 (pallet 1 is loaded longer than 200), 10.
    const pallets = [300, 200].map((cut, index) => ({
      cut,
      unload: 100,
      load: 150,
      aside: 0,
      parts: 2,
      finishes: index === 1,
    }))
    const shift = simulateShift(of(pallets, { swap: 10, length: 3600 }))
    expect(shift.cycle).toBeCloseTo(570, 9)
    // Pallet 2 ends at 510, 1080, ... 510 + 570 n: six times by 3600.
    expect(shift.cuts).toEqual([6, 6])
    expect(shift.parts).toBe(12)
    // In each round the machine waits 50 s for pallet 1; the sixth wait, from 3360, is cut off by nothing.
    expect(shift.machineWaits).toBeCloseTo(6 * 50, 9)
    expect(shift.waitsShare).toBeCloseTo(300 / 3600, 9)
  })

  it('no round is shorter than the machine, any pallet or all hands need', () => {
    const many = fc.array(
      fc.record<PalletWork>({
        cut: fc.integer({ min: 1, max: 500 }),
        unload: time,
        load: time,
        aside: time,
        parts: fc.constant(1),
        finishes: fc.constant(true),
      }),
      { minLength: 2, maxLength: 5 },
    )
    fc.assert(
      fc.property(many, fc.integer({ min: 1, max: 4 }), (pallets, hands) => {
        const sum = (pick: (each: PalletWork) => number) =>
          pallets.reduce((total, each) => total + pick(each), 0)
        const { cycle = 0, spans, cuts } = simulateShift(of(pallets, { hands }))
        // The mean is over half the shift, which need not be whole rounds of the hands.
        const slack = 0.02 * cycle
        expect(cycle + slack).toBeGreaterThanOrEqual(sum(({ cut }) => cut) + 12 * pallets.length)
        expect(cycle + slack).toBeGreaterThanOrEqual(
          Math.max(...pallets.map(({ cut, unload, load }) => cut + unload + load + 24)),
        )
        expect(cycle + slack).toBeGreaterThanOrEqual(sum(({ unload, load }) => unload + load) / hands)
        // Turn by turn: no pallet is cut more than once more than another.
        expect(Math.max(...cuts) - Math.min(...cuts)).toBeLessThanOrEqual(1)
        // Nothing does two things at once.
        for (const lane of new Set(spans.map((span) => span.lane))) {
          const own = spans.filter((span) => span.lane === lane).sort((a, b) => a.from - b.from)
          for (let n = 1; n < own.length; n++)
            expect(own[n]?.from ?? 0).toBeGreaterThanOrEqual((own[n - 1]?.to ?? 0) - 1e-9)
        }
      }),
      depth(20, 600),
    )
  })

  it('faster loading and more people never make fewer parts, and are worth what they gain', () => {
    fc.assert(
      fc.property(two, (pallets) => {
        const options = palletOptions(of(pallets, { length: 28_800 }), 0.5, { shiftsAMonth: 20, anHour: 80 })
        for (const { what, gained, hoursAMonth, moneyAMonth } of options) {
          if (what !== 'even-split') expect(gained).toBeGreaterThanOrEqual(0)
          expect(moneyAMonth).toBeCloseTo((hoursAMonth ?? 0) * 80, 6)
        }
      }),
      depth(20, 600),
    )
    // Cut 100 s each, loading 300 s: 2 (300 + 12) a round; in half the time 2 (150 + 12). Hours that the same parts do not
    // need: 8 h x (1 - 324/624) x 20 shifts.
    const slow = { cut: 100, unload: 100, load: 200, aside: 0, parts: 1, finishes: true }
    const [best] = palletOptions(of([slow, slow], { length: 28_800 }), 0.5, {
      shiftsAMonth: 20,
      anHour: null,
    })
    expect(best).toMatchObject({ what: 'faster-load', moneyAMonth: null })
    expect(best?.hoursAMonth).toBeCloseTo(8 * (1 - 324 / 624) * 20, 6)
  })

  it('a second person takes the work aside away from the one who loads', () => {
    const pallet = { cut: 200, unload: 60, load: 100, aside: 120, parts: 1, finishes: true }
    const one = simulateShift(of([pallet, pallet]))
    const both = simulateShift(of([pallet, pallet], { hands: 2 }))
    expect(one.cycle).toBeGreaterThan(both.cycle ?? 0)
    expect(both.cycle).toBeCloseTo(steadyCycle([pallet, pallet], 12), 6)
  })

  it('three pallets and one person: the hands set the pace once they are slower than the machine', () => {
    const pallet = (cut: number): PalletWork => ({
      cut,
      unload: 50,
      load: 100,
      aside: 0,
      parts: 1,
      finishes: true,
    })
    // Cut 100 s each: 3 x (100 + 12) = 336 s a round of machine; 3 x 150 = 450 s a round of hands.
    expect(simulateShift(of([pallet(100), pallet(100), pallet(100)])).cycle).toBeCloseTo(450, 6)
    // Two people: 225 s of hands; the machine's 336 s.
    expect(simulateShift(of([pallet(100), pallet(100), pallet(100)], { hands: 2 })).cycle).toBeCloseTo(336, 6)
    expect(simulateShift(of([pallet(400), pallet(400), pallet(400)])).cycle).toBeCloseTo(3 * 412, 6)
  })

  it('nothing is counted beyond the end of the shift', () => {
    fc.assert(
      fc.property(two, fc.integer({ min: 1, max: 3000 }), (pallets, length) => {
        const { spans, cuts, machineWaits, handsIdle, parts, waitsShare, idleShare } = simulateShift(
          of(pallets, { length }),
        )
        for (const { from, to } of spans) expect(from >= 0 && to <= length && from < to).toBe(true)
        const sum = (does: string) =>
          spans
            .filter((span) => span.lane === 'machine' && span.does === does)
            .reduce((all, { from, to }) => all + to - from, 0)
        // The machine cuts, changes or waits, and nothing else.
        expect(sum('cuts') + sum('changes') + sum('waits')).toBeCloseTo(length, 6)
        expect(sum('waits')).toBeCloseTo(machineWaits, 6)
        expect(handsIdle).toBeGreaterThanOrEqual(-1e-9)
        expect(waitsShare * length).toBeCloseTo(machineWaits, 6)
        expect(idleShare * length).toBeCloseTo(handsIdle, 6)
        expect(parts).toBe(
          pallets.reduce(
            (all, each, index) => all + (each.finishes ? each.parts * (cuts[index] ?? 0) : 0),
            0,
          ),
        )
      }),
      depth(100, 1000),
    )
  })

  it('an even split is worth what the longer operation holds up', () => {
    // 500 and 100 s, loading 200 s: max(500, 200) + max(100, 200) + 24 = 724; evenly 300 each: 2 x 300 + 24 = 624.
    const pallets = [500, 100].map((cut, index) => ({
      cut,
      unload: 100,
      load: 100,
      aside: 0,
      parts: 1,
      finishes: index === 1,
    }))
    const options = palletOptions(of(pallets, { length: 28_800 }), 0.75, { shiftsAMonth: 20, anHour: 50 })
    const even = options.find(({ what }) => what === 'even-split')
    expect(even?.hoursAMonth).toBeCloseTo(8 * (1 - 624 / 724) * 20, 6)
    expect(even?.moneyAMonth).toBeCloseTo(8 * (1 - 624 / 724) * 20 * 50, 4)
  })
})

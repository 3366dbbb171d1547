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

  const forty = [300, 200].map((cut, index) => ({
    cut,
    unload: 100,
    load: 150,
    aside: 40,
    parts: 2,
    finishes: index === 1,
  }))
  it('stretch by stretch, worked by hand: what stands aside is done before the next load where it can begin first', () => {
    const { spans, ...shift } = simulateShift(of(forty, { swap: 10, length: 1000 }))
    const lane = (name: string) =>
      spans.filter((each) => each.lane === name).map(({ does, pallet, from, to }) => [does, pallet, from, to])
    expect(lane('machine')).toEqual([
      ['cuts', 1, 0, 300],
      ['changes', 2, 300, 310],
      ['cuts', 2, 310, 510],
      ['waits', 1, 510, 560],
      ['changes', 1, 560, 570],
      ['cuts', 1, 570, 870],
      ['changes', 2, 870, 880],
      ['cuts', 2, 880, 1000],
    ])
    expect(lane('person 1')).toEqual([
      ['unloads', 1, 310, 410],
      ['loads', 1, 410, 560],
      ['aside', 1, 560, 600],
      ['unloads', 2, 600, 700],
      ['loads', 2, 700, 850],
      ['aside', 2, 850, 890],
      ['unloads', 1, 890, 990],
      ['loads', 1, 990, 1000],
    ])
    expect(lane('pallet 2')).toEqual([
      ['ready', 2, 0, 300],
      ['changes', 2, 300, 310],
      ['cuts', 2, 310, 510],
      ['waits', 2, 510, 560],
      ['changes', 1, 560, 570],
      ['waits', 2, 570, 600],
      ['unloads', 2, 600, 700],
      ['loads', 2, 700, 850],
      ['ready', 2, 850, 870],
      ['changes', 2, 870, 880],
      ['cuts', 2, 880, 1000],
    ])
    // Of 1000 s the hands work 250 + 40 + 250 + 40 + 110, the machine waits 50. One round is too few to tell a cycle.
    expect(shift).toEqual({
      cuts: [2, 1],
      parts: 2,
      cycle: undefined,
      machineWaits: 50,
      handsIdle: 310,
      waitsShare: 0.05,
      idleShare: 0.31,
    })
    // Two people: 250 and 250 and the last 120 of loading, 40 and 40 by the other one, of 2000 s of hands.
    expect(simulateShift(of(forty, { swap: 10, length: 1000, hands: 2 }))).toMatchObject({
      handsIdle: 1300,
      idleShare: 0.65,
    })
    // A part that ends with the shift counts.
    expect(simulateShift(of(forty, { swap: 10, length: 870 })).cuts).toEqual([2, 1])
    expect(simulateShift(of(forty, { swap: 10, length: 869 })).cuts).toEqual([1, 1])
  })

  it('the machine waits for hands that are busy with what stands aside, and goes on', () => {
    // Cuts of 10, loading of 2, 20 aside. P1 is loaded from 10 to 12, then aside to 32; P2 comes out at 20 and is loaded from 32
    // to 34, while the machine is done at 30.
    const slow = [1, 2].map((n) => ({ cut: 10, unload: 1, load: 1, aside: 20, parts: 1, finishes: n === 2 }))
    const { spans, cuts } = simulateShift(of(slow, { swap: 0, length: 50 }))
    const lane = (name: string) =>
      spans
        .filter((each) => each.lane === name && each.to > each.from)
        .map(({ does, pallet, from, to }) => [does, pallet, from, to])
    expect(lane('machine')).toEqual([
      ['cuts', 1, 0, 10],
      ['cuts', 2, 10, 20],
      ['cuts', 1, 20, 30],
      ['waits', 2, 30, 34],
      ['cuts', 2, 34, 44],
      ['cuts', 1, 44, 50],
    ])
    expect(cuts).toEqual([2, 2])
  })

  it('loads before it does what stands aside, where both could begin', () => {
    const three = [300, 5, 300].map((cut, index) => ({
      cut,
      unload: 100,
      load: 150,
      aside: 40,
      parts: 1,
      finishes: index === 2,
    }))
    const lane = (cuts: number[]) =>
      simulateShift(
        of(
          three.map((each, n) => ({ ...each, cut: cuts[n] as number })),
          { swap: 10, length: 900 },
        ),
      )
        .spans.filter((each) => each.lane === 'person 1')
        .map(({ does, pallet, from }) => [does, pallet, from])
    // Pallet 1 is loaded at 560; pallet 2 came out at 325 and waits.
    expect(lane([300, 5, 300]).slice(0, 4)).toEqual([
      ['unloads', 1, 310],
      ['loads', 1, 410],
      ['unloads', 2, 560],
      ['loads', 2, 660],
    ])
    // It comes out at 560, just then.
    expect(lane([300, 240, 300])[2]).toEqual(['unloads', 2, 560])
  })

  it('a cycle is told from four rounds on', () => {
    const plain = forty.map((each) => ({ ...each, aside: 0 }))
    // Rounds begin at 0, 570, 1140, 1710 and 2280.
    expect(simulateShift(of(plain, { swap: 10, length: 2281 })).cycle).toBeCloseTo(570, 9)
    expect(simulateShift(of(plain, { swap: 10, length: 2280 })).cycle).toBeUndefined()
    // In 2200 s only the faster way has four: 2 parts in 520 s against 6 parts in all.
    const [faster] = palletOptions(of(plain, { swap: 10, length: 2200 }), 0.5, {
      shiftsAMonth: 1,
      anHour: null,
    })
    expect(faster?.hoursAMonth).toBeCloseTo((2200 / 3600) * (1 - 6 / 2200 / (2 / 520)), 9)
  })

  it('what another way is worth, worked by hand', () => {
    // Without work aside a round is 310 + 260 = 570; loaded in half the time, or split evenly, 520: 50 / 570 of the time.
    const plain = forty.map((each) => ({ ...each, aside: 0 }))
    const options = palletOptions(of(plain, { swap: 10, length: 3600 }), 0.5, {
      shiftsAMonth: 40,
      anHour: 70,
    })
    const hours = 40 * (1 - 520 / 570)
    expect(
      options.map(({ what, gained, parts, hoursAMonth, moneyAMonth }) => [
        what,
        gained,
        parts,
        hoursAMonth,
        moneyAMonth,
      ]),
    ).toEqual([
      ['faster-load', 0, 12, expect.closeTo(hours, 9), expect.closeTo(70 * hours, 9)],
      ['even-split', 0, 12, expect.closeTo(hours, 9), expect.closeTo(70 * hours, 9)],
      ['more-hands', 0, 12, 0, 0],
    ])
    expect(options[0]?.says).toBe('Unloading and loading in 50 % of the time')
    expect(options[2]?.says).toBe('A second person')
    expect(
      palletOptions(of(plain, { hands: 2 }), 0.5, { shiftsAMonth: null, anHour: 70 }).map(
        ({ says, moneyAMonth }) => [says, moneyAMonth],
      ),
    ).toContainEqual(['3 people', null])
    // Too short a shift for a cycle: by its count. 900 s: pallet 2 ends at 510 only, faster not sooner.
    const short = palletOptions(of(plain, { swap: 10, length: 1050 }), 0.5, { shiftsAMonth: 1, anHour: null })
    // Loaded in 125 s it ends at 510 and 1030: twice as many.
    expect(short[0]).toMatchObject({
      what: 'faster-load',
      gained: 2,
      hoursAMonth: expect.closeTo(1050 / 2 / 3600, 9),
    })
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

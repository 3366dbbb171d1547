import fc from 'fast-check'

/**
 * Numbers spread evenly over a range, its ends and now and then one hardly different from zero among them. `fc.double` by
 * itself takes each number that a double can be as often as any other: nine in ten of a range about zero are then
 * nothing at all, and a property is hardly tried.
 */
export const evenly = (least: number, greatest: number): fc.Arbitrary<number> =>
  fc.oneof(
    {
      weight: 9,
      arbitrary: fc
        .integer({ min: 0, max: 1_000_000 })
        .map((n) => (n === 1_000_000 ? greatest : least + ((greatest - least) * n) / 1_000_000)),
    },
    { weight: 1, arbitrary: fc.double({ min: least, max: greatest, noNaN: true }) },
  )

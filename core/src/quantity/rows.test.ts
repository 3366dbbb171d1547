import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readRows, readsTwoWays } from './rows.ts'

const XY = { columns: ['X', 'Y'], needs: 'Two numbers.', least: 1 }
const read = (text: string) => readRows(text, 'inch', XY)
const values = (text: string) => {
  const list = read(text)
  return list.ok ? list.rows.map(({ cells }) => cells.map(({ value }) => value)) : list.says
}

describe('a list that is typed or pasted', () => {
  it.each([
    ['12.7 -3.5', [[12.7, -3.5]]],
    ['X Y\n12.7 -3.5', [[12.7, -3.5]]],
    ['Y X\n12.7\t-3.5', [[-3.5, 12.7]]],
    ['hole X Y\nA 1.5 2', [[1.5, 2]]],
    ['1.5,2.5', [[1.5, 2.5]]],
    [
      '1.5, 2.5\n3., 4',
      [
        [1.5, 2.5],
        [3, 4],
      ],
    ],
    ['A1 1.5,2.5', [[1.5, 2.5]]],
    ['X-1.5 Y2.', [[-1.5, 2]]],
  ])('%j is read as it stands', (text, rows) => {
    expect(values(text)).toEqual(rows)
  })

  it('a comma between digits beside another mark between numbers is asked about, under a heading as well', () => {
    // Under a heading this was X12 Y7, and -3.5 was dropped without a word.
    for (const text of ['X Y\n12,7 -3.5', '12,7 -3.5', '12,7;3.5', 'A 12,7 -3.5', '12,7 -3,5', '12,7\t-.5'])
      expect(values(text), text).toMatch(/comma/)
  })

  it('under a heading no cell is surplus and none is missing', () => {
    expect(values('X Y\n1.5 2.5 3.5')).toMatch(/3 cells under a heading of 2/)
    expect(values('part X Y\n1.5 2.5')).toMatch(/2 cells under a heading of 3/)
    expect(values('X Y\n1.5')).toMatch(/1 cells under a heading of 2/)
  })

  it('every number that is written comes back, whatever stands between, or it is refused: none is lost or moved', () => {
    const thou = fc.integer({ min: -9_999, max: 9_999 }).map((n) => n / 1000)
    const shown = (value: number, comma: boolean) => String(value).replace('.', comma ? ',' : '.')
    fc.assert(
      fc.property(
        fc.array(fc.tuple(thou, thou, fc.boolean(), fc.boolean()), { minLength: 1, maxLength: 5 }),
        fc.constantFrom(' ', '\t', ', ', '; ', ','),
        fc.constantFrom('', 'X Y', 'Y X'),
        (rows, between, heading) => {
          const lines = rows.map(([x, y, cx, cy]) => `${shown(x, cx)}${between}${shown(y, cy)}`)
          const got = values([...(heading ? [heading] : []), ...lines].join('\n'))
          if (typeof got === 'string') return
          const meant = rows.map(([x, y]) => (heading === 'Y X' ? [y, x] : [x, y]))
          expect(got).toEqual(meant)
        },
      ),
    )
  })

  it('knows what can be read in one way only', () => {
    expect(readsTwoWays('1.5 2.5')).toBeUndefined()
    expect(readsTwoWays('1 1/2')).toMatch(/hyphen/)
    expect(readsTwoWays('12,7')).toMatch(/comma/)
  })
})

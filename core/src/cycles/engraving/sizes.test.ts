import { describe, expect, it } from 'vitest'
import { caseOf, compact, machineOf, plain, sheetOf } from '../../code/testing.ts'
import type { Profile } from '../../control/index.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import { glyphOf, layText } from '../../lettering/index.ts'
import type { CycleCase, PlanBody } from '../cycle/index.ts'
import { outside } from '../cycle/index.ts'
import { between, holeUnder, pointsAlong } from './fits.ts'
import type { EngraveDraft, EngraveParams } from './params.ts'
import { piecesOf, piecesRunOver } from './pieces.ts'
import {
  askedRoom,
  atItsLongest,
  cutLetters,
  engraveSizes,
  fallOff,
  rowSpan,
  widthFactorFrom,
  withNumber,
} from './sizes.ts'
import { engraveWorking } from './working.ts'

// The letters are those of the set: HI is 22/21 heights long, H by itself 14/21, capitals from 0 to 1. What follows from
// that was worked with a pencil.

const aluminium = USUAL_MATERIALS[0] as (typeof USUAL_MATERIALS)[number]
const measured = (widthFactor: number | null): Profile => ({
  ...compact,
  reading: { ...compact.reading, lettering: { ...compact.reading.lettering, widthFactor } },
})
const on = (widthFactor: number | null = null, more: Partial<CycleCase> = {}): CycleCase =>
  caseOf('mill', measured(widthFactor), more)
const paramsOf = (draft: Partial<EngraveDraft>, unit: 'inch' | 'mm' = 'inch') =>
  sheetOf({ engrave: { text: 'HI', ...draft } }, unit).items[0]?.params as EngraveParams
const sizesOf = (draft: Partial<EngraveDraft>, where = on()) =>
  engraveSizes(paramsOf(draft, where.unit), where, aluminium)
const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const HI = 22 / 21

const lines = (draft: Partial<EngraveDraft>, where = on(1)) => {
  const params = paramsOf({ tip: '.005', ...draft })
  return engraveWorking(params, engraveSizes(params, where, aluminium), 'inch').map(
    ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
  )
}

describe('where a text stands', () => {
  it('at its start, as tall as typed or of the standard series', () => {
    expect(sizesOf({ sits: 'start', x: '1', y: '2', angle: '30', height: '.21' }, on(1.1))).toMatchObject({
      stands: { row: { x: 1, y: 2, angle: 30, height: near(0.21), stretch: 1.1 } },
      height: near(0.21),
      width: near(0.22 * 1.1),
      doubt: 0,
      room: null,
    })
    expect(sizesOf({ sits: 'start' })).toMatchObject({ height: 0.125, doubt: 0.2, width: near(0.125 * HI) })
    const mm = caseOf('mill', plain, { unit: 'mm', machine: machineOf('mill', 'mm') })
    expect(sizesOf({ sits: 'start' }, mm)).toMatchObject({ height: 3.5, doubt: 0, moves: true })
  })

  it('along a line of 5 (3-4-5): before it none, half, or all of what is over; as high as surely fits', () => {
    const line = (align: EngraveDraft['align'], where = on(1), height = '.42') =>
      sizesOf({ sits: 'line', x: '1', y: '1', toX: '4', toY: '5', align, height }, where)
    // .42 x 22 / 21 = .44 of 5: 4.56 over.
    for (const [align, before] of [
      ['left', 0],
      ['middle', 2.28],
      ['right', 4.56],
    ] as const)
      expect(line(align)).toMatchObject({
        stands: { row: { x: near(1 + 0.6 * before), y: near(1 + 0.8 * before), angle: near(53.130102, 6) } },
        room: { along: 5, across: null, before: near(before) },
      })
    // A control that sets it a tenth wider: .484 of 5, half of what is over before it.
    expect(line('middle', on(1.1)).room?.before).toBeCloseTo(2.258, 9)
    // As high as fits, to a thousandth: 5 / (22 / 21) = 4.7727; of a width in doubt by a fifth 3.977, and centred by two fifths.
    expect(line('left', on(1), '').height).toBeCloseTo(4.772, 9)
    expect(line('left', on(null), '').height).toBeCloseTo(3.977, 9)
    expect(line('right', on(null), '').height).toBeCloseTo(3.977, 9)
    expect(line('middle', on(null), '').height).toBeCloseTo(3.409, 9)
    // Characters that there are no letters for have no length: the usual height, and no arithmetic with nothing in it.
    const nothing = { sits: 'line', text: 'é', toX: '3', toY: '4', align: 'left' } as const
    expect(sizesOf(nothing, on(1)).height).toBe(0.125)
    expect(lines(nothing).join()).not.toMatch(/NaN|Infinity/)
    // A line without a length has the usual height.
    expect(
      sizesOf({ sits: 'line', x: '1', y: '1', toX: '1', toY: '1', align: 'middle' }, on(1)),
    ).toMatchObject({ height: 0.125, stands: { row: { x: 1, y: 1 } } })
  })

  it('in a box: centred both ways, turned with it, as high as the room allows', () => {
    const box = { sits: 'box', x: '1', y: '-2', boxWidth: '2', boxHeight: '.5' } as const
    // .42 high: (2 - .44) / 2 = .78 before it and (.5 - .42) / 2 = .04 under it.
    expect(sizesOf({ ...box, height: '.42' }, on(1))).toMatchObject({
      stands: { row: { x: near(1.78), y: near(-1.96), angle: 0 } },
      room: { along: 2, across: 0.5, before: near(0.78) },
    })
    expect(sizesOf({ ...box, angle: '90', height: '.42' }, on(1)).stands).toMatchObject({
      row: { x: near(1 - 0.04), y: near(-2 + 0.78), angle: 90 },
    })
    // 3-4-5 again: turned by 36.8699 degrees.
    expect(sizesOf({ ...box, angle: '36.8698976', height: '.42' }, on(1)).stands).toMatchObject({
      row: { x: near(1 + 0.78 * 0.8 - 0.04 * 0.6, 7), y: near(-2 + 0.78 * 0.6 + 0.04 * 0.8, 7) },
    })
    expect(sizesOf(box, on(1)).height).toBe(0.5)
    // A narrow one: .3 / (22 / 21) = .28636; in doubt by two fifths of it .20454.
    expect(sizesOf({ ...box, boxWidth: '.3' }, on(1)).height).toBeCloseTo(0.286, 9)
    expect(sizesOf({ ...box, boxWidth: '.3' }, on(null)).height).toBeCloseTo(0.204, 9)
    // A letter with a tail has its own low and high: g goes a third under the line.
    const { low, high } = layText('Hg')
    expect(low).toBeLessThan(0)
    const tailed = sizesOf({ ...box, text: 'Hg' }, on(1))
    expect(tailed.height).toBeCloseTo(Math.floor(1e3 * (0.5 / (high - low))) / 1e3, 9)
    expect(tailed.stands).toMatchObject({ row: { y: near(-2 + 0.25 - ((low + high) / 2) * tailed.height) } })
  })

  it('on a circle: the room is all the way round, and the letters are written out', () => {
    expect(sizesOf({ sits: 'arc', diameter: '3', angle: '90', height: '.2', x: '1', y: '2' })).toMatchObject({
      stands: { arc: { x: 1, y: 2, radius: 1.5, at: 90, height: 0.2, reads: 'outside' } },
      room: { along: near(3 * Math.PI), across: null, before: 0 },
      moves: true,
      doubt: 0,
    })
    expect(sizesOf({ sits: 'arc' }).height).toBe(0.125)
  })

  it('the room that was asked for is drawn where it lies', () => {
    const room = (draft: Partial<EngraveDraft>) => askedRoom(paramsOf({ x: '1', y: '2', ...draft }), 'inch')
    expect(room({ sits: 'start' })).toEqual([{ x: 1, y: 2 }])
    expect(room({ sits: 'line', toX: '3', toY: '4' })).toEqual([
      { x: 1, y: 2 },
      { x: 3, y: 4 },
    ])
    expect(room({ sits: 'box', boxWidth: '2', boxHeight: '1', angle: '36.8698976' })).toEqual([
      { x: 1, y: 2 },
      { x: near(1 + 1.6, 7), y: near(2 + 1.2, 7) },
      { x: near(1 + 1.6 - 0.6, 7), y: near(2 + 1.2 + 0.8, 7) },
      { x: near(1 - 0.6, 7), y: near(2 + 0.8, 7) },
    ])
  })
})

describe('the letters of a series', () => {
  it('are as tall on every part, whatever the digits, and every number has room', () => {
    for (const sits of ['box', 'line'] as const) {
      const heights = [0, 1, 11, 27, 88, 99].map((serial) => {
        const sizes = sizesOf(
          { sits, text: 'PN-##', serial: String(serial), boxWidth: '1.5', boxHeight: '.5', toX: '1.5' },
          on(1),
        )
        expect(sizes.width).toBeLessThanOrEqual(1.5 + 1e-9)
        return sizes.height
      })
      expect(new Set(heights).size).toBe(1)
    }
  })
  it('are as tall as a text without a number that is as wide as the widest of them', () => {
    const box = { sits: 'box', boxWidth: '1.5', boxHeight: '.5' } as const
    const widest = Math.min(
      ...[...'0123456789'].map((digit) => sizesOf({ ...box, text: `PN-${digit}${digit}` }, on(1)).height),
    )
    expect(sizesOf({ ...box, text: 'PN-##', serial: '1' }, on(1)).height).toBeCloseTo(widest, 9)
  })
})

describe('depth, speed and feed of a text', () => {
  it('as typed, or as standard lettering and its material have it', () => {
    // 60 degrees, tip .005: .02 wide is (.02 - .005) / (2 tan 30) = .01299 deep. Grooving speed of aluminium: 800 ft a minute,
    // 12 x 800 / (3.1416 x .02) is far over the machine's 8000. A twenty-fifth of the width a turn: .04 x .02 x 8000 = 6.4.
    const sizes = sizesOf({ sits: 'start', height: '.2', top: '.5', rPlane: '.07', clearance: '.9' })
    expect(sizes).toMatchObject({
      depth: 0.013,
      lineWidth: near(2 * 0.013 * Math.tan(Math.PI / 6) + 0.005),
      rpm: 8000,
      feed: 6.4,
      plungeFeed: 3.2,
      ratio: near(0.2 / (2 * 0.013 * Math.tan(Math.PI / 6) + 0.005)),
      top: 0.5,
      r: near(0.57),
      clearance: near(1.4),
      tolerance: 0.002,
      round: null,
    })
    expect(
      sizesOf({ sits: 'start', height: '.2', turns: '5000', feed: '7', plungeFeed: '2', tolerance: '.001' }),
    ).toMatchObject({ rpm: 5000, feed: 7, plungeFeed: 2, tolerance: 0.001, r: 0.05 })
    expect(sizesOf({ sits: 'start', sharp: false }).tolerance).toBeNull()
    expect(sizesOf({ sits: 'start', by: 'width', lineWidth: '.03', toolAngle: '90' }).depth).toBe(0.0125)
    // A speed below the machine's top is what the width asks for: 12 x 800 / (3.1416 x .5) = 6111, in fifties.
    expect(
      sizesOf({ sits: 'start', by: 'width', lineWidth: '.505', toolAngle: '90', tip: '.005' }).rpm,
    ).toBeCloseTo(6050, -2)
    const mm = caseOf('mill', compact, { unit: 'mm', machine: machineOf('mill', 'mm') })
    expect(sizesOf({ sits: 'start' }, mm)).toMatchObject({ r: 1, tolerance: 0.05 })
    // Without what the machine can turn, 8000.
    const { dynamics: _, ...machine } = machineOf('mill')
    expect(
      sizesOf({ sits: 'start' }, caseOf('mill', compact, { machine: { ...machine, dynamics: null } })).rpm,
    ).toBe(8000)
  })

  it('a round face falls away by R - root of (R^2 - (w / 2)^2), along its own way (3-4-5)', () => {
    // On a radius of 5 what lies 3 off the middle is 1 lower.
    const sizes = sizesOf({ sits: 'start', height: '6', surface: 'along', surfaceDiameter: '10' })
    expect(sizes.round).toEqual({ radius: 5, runs: 'along' })
    expect(fallOff(sizes)).toBeCloseTo(1, 12)
    const across = sizesOf({ sits: 'start', height: '6', surface: 'across', surfaceDiameter: '10' })
    expect(fallOff({ ...across, width: 6 })).toBeCloseTo(1, 12)
    // Wider than it is all of it.
    expect(fallOff({ ...across, width: 30 })).toBeCloseTo(5, 12)
    expect(fallOff(sizesOf({ sits: 'start' }))).toBe(0)
    // A tail makes it taller: g reaches 7/21 under the line.
    const tailed = sizesOf({
      sits: 'start',
      text: 'Hg',
      height: '4.5',
      surface: 'along',
      surfaceDiameter: '10',
    })
    expect(fallOff(tailed)).toBeCloseTo(1, 12)
    expect(
      lines({ sits: 'start', text: 'Hg', height: '4.5', surface: 'along', surfaceDiameter: '10' }).at(-1),
    ).toBe('falls away at its edges: 5.0000 - root of (5.0000² - 3.0000²) = 1.0000')
  })

  it('the width factor from one text, line width and all', () => {
    // HI of .21 is .22 by the set; .25 measured with a line of .008 is 1.1 of it.
    expect(widthFactorFrom('HI', 0.21, 0.008, 0.25)).toBeCloseTo(1.1, 9)
    expect(widthFactorFrom('HI', 0.21, 0.25, 0.25)).toBeUndefined()
    expect(widthFactorFrom('  ', 0.21, 0.008, 0.25)).toBeUndefined()
  })

  it('a serial number takes the place of its signs, with zeros before it', () => {
    expect(withNumber('SN ####-A', 42)).toBe('SN 0042-A')
    expect(withNumber('##', 1234)).toBe('1234')
    expect(sizesOf({ text: ' SN ## ', serial: '7', sits: 'start' }).text).toBe('SN 07')
  })
})

describe('a text whose width is in doubt', () => {
  it('has a band at its end, and is as long as it may become', () => {
    const sizes = sizesOf({ sits: 'start', x: '1', y: '2', angle: '90', height: '.21' })
    // .22 long, up the page: from .176 to .264, and capitals to the left of it.
    expect(rowSpan(sizes)).toEqual([
      {
        band: [
          { x: near(1), y: near(2.176) },
          { x: near(1), y: near(2.264) },
          { x: near(0.79), y: near(2.264) },
          { x: near(0.79), y: near(2.176) },
        ],
        longest: [
          { x: near(1), y: near(2) },
          { x: near(1), y: near(2.264) },
          { x: near(0.79), y: near(2.264) },
          { x: near(0.79), y: near(2) },
        ],
      },
    ])
    expect(atItsLongest(sizes).stands).toMatchObject({ row: { stretch: near(1.2) } })
    expect(rowSpan(sizesOf({ sits: 'start' }, on(1)))).toEqual([])
    expect(rowSpan(sizesOf({ sits: 'arc' }))).toEqual([])
    expect(atItsLongest(sizesOf({ sits: 'arc' }))).toEqual(sizesOf({ sits: 'arc' }))
  })

  it('its letters are cut where they stand', () => {
    const letters = cutLetters(sizesOf({ sits: 'start', x: '1', y: '2', angle: '90', height: '.21' }, on(1)))
    expect(letters.map(({ character }) => character)).toEqual(['H', 'I'])
    const [, I] = letters
    // The I is one stroke, 22 / 21 heights on, from the top down.
    expect(I?.strokes.flat()).toEqual([
      [near(0.79), near(2.22)],
      [near(1), near(2.22)],
    ])
    // On a circle every letter stands upright on its own radius: one by itself at the top.
    const [one] = cutLetters(sizesOf({ sits: 'arc', text: 'I', angle: '90', diameter: '2', height: '.21' }))
    expect(one?.strokes.flat()).toEqual([
      [near(0), near(1.21)],
      [near(0), near(1)],
    ])
  })
})

describe('the pieces of a text that the control counts', () => {
  const sizes = (text: string, where = on()) => {
    const params = paramsOf({ text, sits: 'start', height: '.2' })
    return { params, sizes: engraveSizes(params, where, aluminium), where }
  }
  const pieces = (text: string, counts = true) => {
    const of = sizes(text)
    return piecesOf(of.params, of.sizes, counts)
  }
  /** How far right of its own place a letter's first stroke begins. */
  const left = (character: string) =>
    Math.min(...(glyphOf(character)?.strokes ?? []).flatMap((stroke) => stroke.map(([x]) => x)))
  it('begin where their first letter does', () => {
    expect(pieces('AB')).toEqual([{ said: 'AB', text: 'AB', counts: false, at: 0 }])
    expect(pieces('AB##', false)).toEqual([{ said: 'AB01', text: 'AB01', counts: false, at: 0 }])
    const { letters } = layText('AB01')
    expect(pieces('AB##')).toEqual([
      { said: 'AB', text: 'AB', counts: false, at: near(0) },
      { said: '##', text: '01', counts: true, at: near((letters[2]?.at as number) + left('0')) },
    ])
    const spaced = layText('N 01-B').letters
    expect(pieces('N ##-B').map(({ said, text, at }) => [said, text, at])).toEqual([
      ['N', 'N', near(0)],
      ['##', '01', near((spaced[2]?.at as number) + left('0'))],
      ['-B', '-B', near((spaced[4]?.at as number) + left('-'))],
    ])
    const later = layText('01 B').letters
    expect(pieces('## B').at(-1)).toMatchObject({ said: 'B', at: near((later[3]?.at as number) + left('B')) })
  })
  it('may run over the next by a fifth of their own width, less the space between; the worst one is named', () => {
    const { letters } = layText('ABAB01')
    const own = layText('ABAB').width
    const gap = (letters[4]?.at as number) + left('0')
    const of = sizes('ABAB##')
    const over = piecesRunOver(of.params, of.sizes, of.where)
    expect(over).toEqual({ said: 'ABAB', by: near(0.2 * (1.2 * own + 0.1 - gap)) })
    const known = sizes('ABAB##', on(1))
    expect(piecesRunOver(known.params, known.sizes, known.where)).toBeUndefined()
    // A letter and a space: a fifth of one letter is less than the space.
    const spaced = sizes('A  ##')
    expect(piecesRunOver(spaced.params, spaced.sizes, spaced.where)).toBeUndefined()
    const two = sizes('AB##ABABABAB##')
    expect(piecesRunOver(two.params, two.sizes, two.where)?.said).toBe('ABABABAB')
    const first = sizes('ABABABAB##AB##')
    expect(piecesRunOver(first.params, first.sizes, first.where)?.said).toBe('ABABABAB')
  })
})

describe('whether it fits', () => {
  const circle = { shape: { kind: 'circle', at: { x: 1, y: 2 }, radius: 5 } } as PlanBody
  const box = {
    shape: { kind: 'rectangle', least: { x: 1, y: 2 }, greatest: { x: 4, y: 6 } },
  } as unknown as PlanBody
  it('how far a point lies outside, negative inside (3-4-5 at a corner)', () => {
    expect([outside(circle, [4, 6]), outside(circle, [7, 10]), outside(circle, [1, 2])]).toEqual([0, 5, -5])
    expect([outside(box, [7, 10]), outside(box, [-2, -2]), outside(box, [7, -2])]).toEqual([5, 5, 5])
    expect([outside(box, [5, 4]), outside(box, [2, 0.5]), outside(box, [2, 6.5])]).toEqual([1, 1.5, 0.5])
    expect([outside(box, [1.5, 4]), outside(box, [2.5, 5.75]), outside(box, [0.75, 6])]).toEqual([
      -0.5, -0.25, 0.25,
    ])
  })
  it('points along strokes: its start, and pieces no longer than the step', () => {
    expect(
      pointsAlong(
        [
          [
            [1, 1],
            [4, 5],
          ],
        ],
        2.5,
      ),
    ).toEqual([
      [1, 1],
      [2.5, 3],
      [4, 5],
    ])
    expect(
      pointsAlong(
        [
          [
            [0, 0],
            [1000, 0],
          ],
        ],
        1,
      ),
    ).toHaveLength(201)
    expect(pointsAlong([[[3, 4]]], 1)).toEqual([[3, 4]])
  })
  it('the hole that a line comes into, and the least distance of two sets', () => {
    const holes = [{ x: 3, y: 4, radius: 1 }]
    expect(holeUnder([[0, 0]], holes, 4)).toBeUndefined()
    expect(holeUnder([[0, 0]], holes, 4.01)).toBe(holes[0])
    expect(holeUnder([[6, 8]], holes, 4.01)).toBe(holes[0])
    expect(
      between(
        [
          [0, 0],
          [1, 1],
        ],
        [
          [4, 5],
          [9, 9],
        ],
      ),
    ).toBe(5)
    expect(between([], [[1, 1]])).toBe(Number.POSITIVE_INFINITY)
  })
})

describe('the arithmetic of a text', () => {
  it('along a line, by width; with the factor of the control', () => {
    expect(
      lines({ sits: 'line', toX: '3', toY: '4', height: '.21', lineWidth: '.02', toolAngle: '90' }),
    ).toEqual([
      'length of the text: 1.0476 x 0.2100 = 0.2200',
      'room left along: 5.0000 - 0.2200 = 4.7800',
      'depth: (0.0200 - 0.0050) / (2 x tan 45) = 0.0075',
      'height over line: 0.2100 / 0.0200 = 10.5',
    ])
    const meant = (where: CycleCase) => {
      const params = paramsOf({ sits: 'start', height: '.21' })
      return engraveWorking(params, engraveSizes(params, where, aluminium), 'inch')[0]?.means
    }
    expect([meant(on(1)), meant(on(1.1))]).toEqual([
      'heights of a capital x height',
      "heights of a capital x height x the control's factor",
    ])
    expect(lines({ sits: 'start', height: '.21' }, on(1.1)).slice(0, 2)).toEqual([
      'length of the text: 1.0476 x 0.2100 x 1.1000 = 0.2420',
      'depth: (0.0210 - 0.0050) / (2 x tan 30) = 0.0139',
    ])
  })
  it('by depth, on a circle and on a round face', () => {
    expect(
      lines({ sits: 'arc', diameter: '3', height: '.21', by: 'depth', depth: '.01', toolAngle: '90' }),
    ).toEqual([
      'length of the text: 1.0476 x 0.2100 = 0.2200',
      // All the way round: 9.4248.
      'room left along: 9.4248 - 0.2200 = 9.2048',
      'width of the line: 2 x 0.0100 x tan 45 + 0.0050 = 0.0250',
      'height over line: 0.2100 / 0.0250 = 8.4',
      'angle that it takes: 0.2200 / 1.5000 x 57.2958 = 8.4°',
    ])
    expect(lines({ sits: 'start', height: '6', surface: 'along', surfaceDiameter: '10' }).at(-1)).toBe(
      'falls away at its edges: 5.0000 - root of (5.0000² - 3.0000²) = 1.0000',
    )
    expect(lines({ sits: 'start', height: '2.1', surface: 'across', surfaceDiameter: '10' }).at(-1)).toBe(
      'falls away at its edges: 5.0000 - root of (5.0000² - 1.1000²) = 0.1225',
    )
  })
})

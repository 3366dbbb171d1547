import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { compact } from '../program/testing.ts'
import { asTyped, type LengthUnit } from '../quantity/index.ts'
import { adviseMethod } from './choose-method.ts'
import { cornerIn } from './corner.ts'
import { type PickupDraft, readDraft } from './draft.ts'
import type { Expectation } from './expectation.ts'
import { identify, readIdentification } from './identify.ts'
import { judgePickup } from './judge.ts'
import { checkLoad } from './load-offset.ts'
import { pickUp } from './pick-up.ts'
import { positionReading } from './position.ts'
import { type Reading, reading } from './reading.ts'
import { takenText } from './taken.ts'
import { judgeToolLength, readToolLengthDraft, toolLength } from './tool-length.ts'
import { toolSketch } from './tool-length-sketch.ts'

// Where each guard begins to speak and what it then says, on either side of its limit. The limits are judgement and common
// practice; three times the doubt of a difference is that of two repeats (expectation.ts). Inches on a mill of 30 by 16.

const [mill, lathe] = demoReference.machines as [Machine, Machine]
const inch = { unit: 'inch', leastStep: 0.0001 } as const
const length = (value: number) => asTyped(value, 'inch')

function read(
  method: PickupDraft['method'],
  fields: PickupDraft['fields'],
  choices: Record<string, string> = {},
  axis: 'X' | 'Y' | 'Z' = 'X',
): Reading {
  const of = readDraft({ method, axis, choices, fields } as PickupDraft, 'inch')
  if (!of.ok) throw new Error(JSON.stringify(of.problems))
  return of.reading
}

/** What is found of a reading: code, and everything that is said. */
function found(of: Reading, more: Partial<Expectation> = {}) {
  const expected: Expectation = { machine: mill, unit: 'inch', tolerance: 0.01, ...more }
  return judgePickup(of, pickUp(of, inch), expected).map(({ code, says, why, fix }) =>
    [code, says, why, fix].join(' | '),
  )
}
const codes = (of: Reading, more: Partial<Expectation> = {}) =>
  found(of, more).map((each) => each.slice(0, each.indexOf(' ')))

const middle = (fields: PickupDraft['fields'], side = 'web', device = 'edge-finder') =>
  read('middle', { diameter: '.2', drawingPosition: '0', ...fields }, { side, device })
const circle = (points: string, side: string, fields: PickupDraft['fields'] = {}) =>
  read(
    'circle',
    { diameter: '.25', points, drawingX: '0', drawingY: '0', ...fields },
    { side, device: 'probe' },
  )
/** A corner of X plus and Y minus, by its touches. */
const cornerFields = (pointsX: string, pointsY: string) => ({
  pointsX,
  pointsY,
  diameter: '.2',
  cornerAngle: '90',
  drawingX: '0',
  drawingY: '0',
})
const CORNER_WAYS = { device: 'probe', directionX: '+', directionY: '-' }
const edge = (machinePosition: string, fields: PickupDraft['fields'] = {}, axis: 'X' | 'Y' = 'X') =>
  read(
    'edge-finder',
    { diameter: '.2', drawingPosition: '0', machinePosition, ...fields },
    { direction: '+' },
    axis,
  )
const height = (method: PickupDraft['method'], fields: PickupDraft['fields']) =>
  read(
    method,
    { tool: '7', toolLength: '4.5', machinePosition: '-9', drawingPosition: '0', ...fields },
    {},
    'Z',
  )

describe('what touches', () => {
  it('a sensor and an indicator have no tip; a finder of an inch is the largest that is usual', () => {
    const tipped = (device: string) => found(middle({ low: '-10', high: '-9' }, 'web', device))[0]
    expect(tipped('sensor')).toContain('| A 3D sensor has no tip to take away')
    expect(tipped('indicator')).toContain('| An indicator has no tip to take away')
    expect(codes(edge('-14', { diameter: '1' }))).toEqual([])
    expect(found(edge('-14', { diameter: '1.001' }))[0]).toContain(
      'finder-diameter | A tip of 1.0010 in is unusual.',
    )
  })

  it('an indicator swings 6 in at most', () => {
    const swung = (low: string, high: string) =>
      codes(read('indicator', { minusSide: low, plusSide: high, drawingPosition: '0' }))
    expect(swung('-20', '-8')).toEqual([])
    expect(swung('-20', '-7.99')).toEqual(['large-swing'])
  })

  it('a tool on the face itself, a feeler of a tenth, a length of nothing', () => {
    expect(codes(height('tool-on-block', { blockHeight: '0' }))).toEqual([])
    expect(codes(height('tool-on-feeler', { blockHeight: '.1' }))).toEqual([])
    expect(codes(height('tool-on-feeler', { blockHeight: '.11' }))).toEqual(['thick-feeler'])
    expect(codes(height('tool-on-block', { blockHeight: '.11' }))).toEqual([])
    expect(codes(height('tool-on-block', { blockHeight: '1', toolLength: '0' }))).toEqual([
      'tool-length-sign',
    ])
  })

  it('repeats of each way of touching: three times the doubt of two', () => {
    // 3 root 2 = 4.243 times .001, .0005, .0004, .0001.
    expect(codes(edge('-9.2; -9.2042'))).toEqual([])
    expect(codes(edge('-9.2; -9.2043'))).toEqual(['repeats-apart'])
    const sensor = (position: string) => codes(height('sensor-down', { machinePosition: position }))
    expect([sensor('-9; -9.0016'), sensor('-9; -9.0018')]).toEqual([[], ['repeats-apart']])
    const probe = (position: string) => codes(height('probe-down', { machinePosition: position }))
    expect([probe('-9; -9.0004'), probe('-9; -9.0005')]).toEqual([[], ['repeats-apart']])
    const block = (position: string) =>
      codes(height('tool-on-block', { machinePosition: position, blockHeight: '1' }))
    expect([block('-9; -9.002'), block('-9; -9.0022')]).toEqual([[], ['repeats-apart']])
  })
})

describe('whether it is the feature of the drawing', () => {
  it('a tip that does not go in, and a feature of which nothing is left', () => {
    const quarter = '-10 -5\n-9 -4\n-8 -5\n-9 -6'
    expect(found(circle(quarter, 'bore', { nominal: '.25' }))[0]).toContain(
      'tip-larger-than-pocket | A tip of 0.2500 in does not go into a bore of 0.2500 in.',
    )
    // A boss of any size is touched from outside.
    expect(codes(circle('-10 -5\n-9.75 -4.75\n-9.5 -5\n-9.75 -5.25', 'boss', { nominal: '.25' }))).toEqual([])
    const none = found(middle({ diameter: '.5', low: '-10', high: '-9.5' }))[0]
    expect(none).toContain('Nothing of the web is left: it would be 0.0000 in wide.')
    expect(none).toContain('or say pocket if it was touched from inside.')
    const small = found(circle('-10 -5\n-9.95 -4.95\n-9.9 -5\n-9.95 -5.05', 'boss'))[0]
    expect(small).toContain('Nothing of the boss is left: it would be -0.1500 in across.')
    expect(small).toContain('or say bore if')
  })

  it('another size: past a hundredth, or three times the doubt; twice the tip is the other way of touching', () => {
    expect(codes(middle({ width: '.8', low: '-10', high: '-9' }))).toEqual([])
    expect(codes(middle({ width: '.791', low: '-10', high: '-9' }))).toEqual([])
    const other = (width: string, side = 'web') =>
      found(middle({ width, low: '-10', high: '-9' }, side))[0] ?? ''
    expect(other('.788')).toContain('It measures 0.8000 in; the drawing says 0.7880 in.')
    expect(other('.788')).toContain('Another feature or the wrong part')
    expect(other('1.2')).toContain(
      'it would fit if it were touched as a pocket. | Say pocket if that is what it is.',
    )
    expect(other('1.205')).toContain('touched as a pocket')
    expect(other('1.215')).toContain('Another feature')
    expect(other('.8', 'pocket')).toContain('touched as a web')
    // A sensor has no tip that could have been taken the wrong way.
    expect(
      found(middle({ diameter: '0', width: '.9', low: '-10', high: '-9' }, 'web', 'sensor'))[0],
    ).toContain('Another feature')
  })

  it('another angle of a corner: past half a degree, or three times its doubt', () => {
    const corner = (pointsY: string, device: string, pointsX = '-10 -6\n-10 -8', cornerAngle = '90') =>
      read('corner', { ...cornerFields(pointsX, pointsY), cornerAngle }, { ...CORNER_WAYS, device })
    // Over 3 in the tangent of .4 degree is .0209, of .6 degree .0314.
    expect(codes(corner('-9 -5\n-6 -5.0209', 'probe'))).toEqual([])
    const [other] = found(corner('-9 -5\n-6 -5.0314', 'probe'))
    expect(other).toMatch(
      /^other-angle \| The faces meet at (90\.60|89\.40) degrees; the drawing says 90\.00\./,
    )
    // Touches .05 apart by an edge finder tell the angle to 1.6 degrees: two degrees are nothing, six are.
    expect(codes(corner('-9 -5\n-8.95 -5.0017', 'edge-finder'))).not.toContain('other-angle')
    expect(codes(corner('-9 -5\n-8.95 -5.0053', 'edge-finder'))).toContain('other-angle')
  })

  it('names the touch that fits worst, wherever it stands in the list', () => {
    const corner = read('corner', cornerFields('-10 -6\n-10.003 -7\n-10 -8', '-9 -5\n-6 -5'), CORNER_WAYS)
    expect(found(corner)[0]).toContain(
      'out-of-form | The touches do not fit: along X, touch 2 is off by 0.0020 in.',
    )
  })

  it('a sweep that stands .05 off its centre, by the half of the two dials', () => {
    const swept = (plusDial: string, minusDial: string) =>
      found(
        read('swept', { machinePosition: '-9', plusDial, minusDial, drawingPosition: '0' }, { side: 'bore' }),
      )
    expect(swept('.05', '-.05')).toEqual([])
    expect(swept('.06', '-.06')[0]).toContain('far-off-centre | The spindle stands 0.0600 in off the centre.')
    expect(swept('.2', '.15')).toEqual([])
  })

  it('a diameter that looks like a radius, but none as small as .05', () => {
    const skim = (measured: string, last: number) =>
      found(read('skimmed', { machinePosition: '-10', measured }), {
        machine: lathe,
        last: { value: last, position: last, doubt: 1, fresh: true },
      })
    expect(skim('.625', -11.25)[0]).toContain('As a diameter of 1.2500 in it would give -11.2500, as before.')
    expect(skim('.05', -10.1)).toEqual([])
    expect(skim('.0625', -10.125)).toHaveLength(1)
  })
})

describe('against what stood before', () => {
  const was = (value: number, more: Partial<NonNullable<Expectation['last']>> = {}) => ({
    value,
    position: value - 0.1,
    doubt: 0.001,
    fresh: true,
    ...more,
  })

  it('a slip that would bring it inside the travel', () => {
    expect(found(edge('14.2312'))[0]).toContain(
      'With the other sign, -14.2312, it would be inside: check the sign.',
    )
    expect(found(edge('361.47'))[0]).toContain('Read in millimetres it would be inside')
    expect(found(edge('-361.47'))[0]).toContain('Read in millimetres it would be inside')
  })

  it('millimetres read for inches, one axis for the other', () => {
    // -20 mm is -.7874 in; with half the tip of .2 on that is -.6874.
    expect(codes(edge('-20'), { last: was(-0.6874) })).toEqual(['unit-mixed'])
    const swapped = (axis: 'X' | 'Y', position: number) =>
      found(edge('-14.2', {}, axis), { last: was(-8), lastOther: was(0, { position }) })[0]
    expect(swapped('X', -14.4)).toContain('axes-swapped | This X is where Y was.')
    expect(swapped('Y', -14.4)).toContain('axes-swapped | This Y is where X was.')
    expect(swapped('X', -14.6)).toContain('far-from-last | X is 6.1000 in from the last value.')
  })

  it('a stale one moved by an inch is nothing yet', () => {
    // Half of .25 on: -13.875.
    const moved = (last: number) =>
      codes(edge('-14', { diameter: '.25' }), { last: was(last, { fresh: false }) })
    expect([moved(-14.875), moved(-14.876)]).toEqual([[], ['far-from-last']])
  })

  it('what would be better depends on the axis and the machine', () => {
    const better = (of: Reading, machine = mill) => found(of, { tolerance: 0.00001, machine }).at(-1)
    expect(better(edge('-14'))).toContain('| An indicator on both sides leaves about a tenth.')
    const finer = '| Use a finer method if the part must be right the first time.'
    expect(better(height('tool-on-block', { blockHeight: '1' }))).toContain(finer)
    expect(better(read('skimmed', { machinePosition: '-10.5', measured: '1.25' }), lathe)).toContain(finer)
  })
})

describe('words and parts of the doubt', () => {
  const partsOf = (of: Reading) => pickUp(of, inch).doubt.parts.map(({ from }) => from)
  it('how often it was read, how many touches, from which side', () => {
    expect(partsOf(edge('-9.2'))[0]).toMatch(/repeats to$/)
    expect(partsOf(edge('-9.2; -9.2002; -9.2'))[0]).toMatch(/^mean of 3, /)
    const corner = read('corner', cornerFields('-10 -6', '-9 -5\n-6 -5'), CORNER_WAYS)
    expect(partsOf(corner)[0]).toMatch(/^3 touches, /)
    const means = (of: Reading) => pickUp(of, inch).working.map((line) => line.means)
    expect(means(middle({ low: '-10', high: '-9' }))[1]).toBe('the tip stood outside on both sides')
    expect(means(middle({ low: '-10', high: '-9' }, 'pocket'))[1]).toBe('the tip stood inside on both sides')
    const round = '-10 -5\n-9 -4\n-8 -5\n-9 -6.002'
    expect(means(circle(round, 'bore'))[1]).toBe('the tip stood inside')
    expect(means(circle(round, 'boss'))[1]).toBe('the tip stood outside')
    expect(pickUp(circle(round, 'bore'), inch).residuals?.map(({ name }) => name)).toEqual([
      'touch 1',
      'touch 2',
      'touch 3',
      'touch 4',
    ])
  })

  it('an offset from another: the sum, and the doubts of both', () => {
    const from = (shift: number): Reading => ({
      method: 'from-offset',
      axis: 'X',
      source: 'G54',
      base: length(-9.5),
      baseDoubt: length(0.0003),
      shift: length(shift),
      shiftWithin: length(0.0004),
    })
    const moved = pickUp(from(-0.25), inch)
    expect([moved.value, moved.position]).toEqual([-9.75, -9.75])
    expect(moved.doubt.value).toBeCloseTo(0.0005, 12)
    expect(moved.working).toEqual([
      {
        finds: 'from G54',
        arithmetic: '-9.5000 + (-0.2500)',
        means: 'G54 and the shift from it',
        gives: '-9.7500',
      },
    ])
    expect(pickUp(from(0), inch).working[0]?.means).toBe('a copy')
    const within = (value: number) => reading.safeParse({ ...from(1), shiftWithin: length(value) }).success
    expect([within(0), within(-0.0001)]).toEqual([true, false])
  })

  it('which way leaves half, or only enough', () => {
    const bare: Machine = { ...mill, probe: null }
    expect(adviseMethod('X', bare, 'inch', 0.005)?.why).toContain('is the quickest that leaves half or less.')
    expect(adviseMethod('X', bare, 'inch', 0.0001)).toMatchObject({
      says: 'Take X with an indicator, both sides.',
      why: 'It leaves 0.0001 in of the 0.0001 in that the part allows, and nothing here leaves half.',
    })
  })

  it('a position that was read stands as the display shows it', () => {
    expect(takenText(-9.2, { unit: 'inch', leastStep: 0.0001 }, 'inch')).toBe('-9.2000')
    expect(takenText(-233.68, { unit: 'mm', leastStep: 0.001 }, 'inch')).toBe('-233.680mm')
    expect(takenText(-9.2, { unit: 'inch', leastStep: 0.0005 }, 'mm')).toMatch(/^-9\.2000 ?in$/)
  })

  it('one axis is not taken, or two are not', () => {
    const load = (axes: Parameters<typeof checkLoad>[0]['axes']) =>
      checkLoad({ offset: 'G54', unit: 'inch', axes, about: [] }, compact, mill).map(({ says }) => says)
    const at = { value: -5, about: '' }
    expect(load({ X: at, Y: at })).toEqual(['Z of G54 is not taken and will not be loaded.'])
    expect(load({ Z: at })).toEqual(['X and Y of G54 are not taken and will not be loaded.'])
  })
})

describe('what is no reading', () => {
  const problems = (method: PickupDraft['method'], fields: PickupDraft['fields'], choices = {}) => {
    const of = readDraft({ method, axis: 'X', choices, fields } as PickupDraft, 'inch')
    return of.ok ? [] : Object.values(of.problems).map(({ says }) => says)
  }
  it('a diameter of nothing, a corner of two touches or of none', () => {
    expect(problems('skimmed', { machinePosition: '-10', measured: '0' }).join()).toMatch(/more than zero/)
    const corner = (pointsX: string, pointsY: string) =>
      problems('corner', cornerFields(pointsX, pointsY), CORNER_WAYS).join()
    expect(corner('-10 -6', '-9 -5')).toMatch(/needs three touches or more/)
    expect(corner('-10 -6', '-9 -5\n-9 -5')).toMatch(/These touches make no corner/)
    expect(corner('-10 -6\n-10 -8', '-9 -5\n-9 -4')).toMatch(/These touches make no corner/)
    expect(corner('-10 -6', '-9 -5\n-8 -5')).toBe('')
  })

  it('twenty readings of one position at most', () => {
    const times = (count: number) =>
      positionReading.safeParse({ ...length(1), repeats: Array.from({ length: count - 1 }, () => length(1)) })
        .success
    expect([times(20), times(21)]).toEqual([true, false])
  })

  it('a pocket is told from a part at its corner, whichever way the faces look', () => {
    // Inside: the touches stand at the corner's own side of both faces. Faces along X = 3 and Y = 2, seen from each quarter.
    // Touches of the face across X stand off along Y, to the open side of the other face or to the part's; and so the others.
    for (const [sx, sy] of [
      [1, 1],
      [1, -1],
      [-1, 1],
      [-1, -1],
    ] as const)
      for (const [alongX, alongY] of [
        [-1, -1],
        [1, 1],
        [-1, 1],
        [1, -1],
      ] as const) {
        const point = (x: number, y: number) => ({ x: length(x), y: length(y) })
        const corner = cornerIn({
          // The tip is .2: its centre stops .1 short of each face.
          pointsX: [1, 2].map((off) => point(3 - 0.1 * sx, 2 + off * alongX * sy)),
          pointsY: [1, 2].map((off) => point(3 + off * alongY * sx, 2 - 0.1 * sy)),
          directionX: sx > 0 ? '+' : '-',
          directionY: sy > 0 ? '+' : '-',
          diameter: { value: 0.2 },
          cornerAngle: 90,
        })
        // A pocket only where both stand on the open side.
        expect(corner?.inside, `${sx} ${sy}, ${alongX} ${alongY}`).toBe(alongX < 0 && alongY < 0)
        expect(corner?.at.x).toBeCloseTo(3, 9)
        expect(corner?.at.y).toBeCloseTo(2, 9)
      }
  })
})

describe('the right part', () => {
  const of = (text: string) => {
    const list = readIdentification(text, 'inch')
    if (!list.ok) throw new Error(list.says)
    const { as, distances, findings } = identify(list.value, 'inch')
    return { as, names: distances.map(({ name }) => name), findings }
  }
  it('just within what is allowed, on either part; just too near to tell', () => {
    // 1.1 - 1 and 2.1 - 2 are a hair more than .1 in binary.
    expect(of('A 1.1 1 .1').as).toBe('right')
    expect(of('A 2.1 1 .1 2').as).toBe('turned')
    expect(of('A 2 2 .25 2.5').findings[0]?.code).toBe('cannot-tell')
    expect(of('A 2 2 .25 2.51').findings).toEqual([])
  })
  it('names what has no name, and says by how much and how many', () => {
    expect(of('1 1 .1\n2 2 .1').names).toEqual(['distance 1', 'distance 2'])
    expect(of('A-B 2.5 2 .005').findings[0]?.says).toBe('A-B is off by +0.5000 in; 0.0050 in is allowed.')
    expect(of('A-B 3 2 .005 3').findings[0]?.why).toBe('A-B is as on a part turned round.')
    expect(of('A-B 3 2 .005 3\nB-C 1 4 .005 1').findings[0]?.why).toBe(
      'A-B, B-C are as on a part turned round.',
    )
  })
})

describe("a tool's length", () => {
  const form = {
    tool: 'T3',
    machinePosition: '-9.1',
    masterPosition: '-10.3',
    masterLength: '4',
    on: 'block' as const,
  }
  const judged = (last: number | undefined, more: Partial<typeof form> = {}) => {
    const of = readToolLengthDraft({ ...form, ...more }, 'inch')
    if (!of.ok) throw new Error(JSON.stringify(of.problems))
    return judgeToolLength(of.reading, toolLength(of.reading, inch), { machine: mill, unit: 'inch', last })
  }
  it('is another one past three times the doubt of two, longer or shorter; and more than nothing', () => {
    // A touch is known to .0005: root 2 of it for a length, 3 root 2 of that is .0030.
    expect(judged(5.2029)).toEqual([])
    expect(judged(5.2032)[0]?.says).toBe('T3 is 0.0032 in shorter than last time.')
    expect(judged(5.19)[0]?.says).toBe('T3 is 0.0100 in longer than last time.')
    expect(
      judged(undefined, { machinePosition: '-10', masterPosition: '-9', masterLength: '1' })[0]?.code,
    ).toBe('tool-length-sign')
  })
  it('its picture: both gauge lines where they were read, and how much longer it is', () => {
    const drawn = (more: Partial<typeof form>, unit: LengthUnit = 'inch') =>
      toolSketch({ ...form, ...more }, unit)
    expect(drawn({})).toMatchObject({
      master: -10.3,
      tool: -9.1,
      longerBy: expect.closeTo(1.2, 9),
      block: -14.3,
    })
    expect(drawn({ masterLength: '0' }).block).toBeCloseTo(-13.3, 9)
    expect(drawn({ machinePosition: '' })).toMatchObject({ master: -10.3, tool: -9.3, longerBy: undefined })
    expect(drawn({ masterPosition: '' }, 'mm')).toMatchObject({
      tool: -9.1,
      master: -34.1,
      longerBy: undefined,
    })
    const { least, greatest, block, tool } = drawn({})
    expect(least).toBeLessThan(block)
    expect(greatest).toBeGreaterThan(tool)
  })
})

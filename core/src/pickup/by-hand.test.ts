import { describe, expect, it } from 'vitest'
import { readDraft } from './draft.ts'
import type { PickupMethod } from './methods.ts'
import { pickUp } from './pick-up.ts'
import { meanOf, readPosition, spreadOf } from './position.ts'

// Every method worked with a pencil: face = position + D / 2 into it, middle = half the sum, and so on (common practice);
// doubts as JCGM 100:2008 combines them, a display in steps of .0001 read to .0001 / root of 12.

const inch = { unit: 'inch', leastStep: 0.0001 } as const
const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const STEP = 0.0001 / Math.sqrt(12)

function worked(
  method: PickupMethod,
  axis: 'X' | 'Y' | 'Z',
  choices: Record<string, string>,
  fields: Record<string, string>,
) {
  const read = readDraft({ method, axis, choices, fields } as Parameters<typeof readDraft>[0], 'inch')
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  const pickup = pickUp(read.reading, inch)
  return {
    ...pickup,
    lines: pickup.working.map(({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`),
    means: pickup.working.map(({ means }) => means),
  }
}

describe('one face', () => {
  it('by an edge finder: half its tip on, the mean of three, their doubt over root of 3', () => {
    const minus = worked(
      'edge-finder',
      'X',
      { direction: '-' },
      { diameter: '.2', machinePosition: '-9.2; -9.2006; -9.2003', drawingPosition: '.5' },
    )
    expect(minus.lines).toEqual([
      'mean: ((-9.2000) + (-9.2006) + (-9.2003)) / 3 = -9.2003',
      'face: -9.2003 - 0.2000 / 2 = -9.3003',
      'part zero: -9.3003 - 0.5000 = -9.8003',
    ])
    expect(minus).toMatchObject({
      value: near(-9.8003),
      position: near(-9.2003),
      repeated: { spread: near(0.0006), times: 3 },
      doubt: { value: near(Math.hypot(0.001 / Math.sqrt(3), STEP)) },
    })
    const plus = worked(
      'edge-finder',
      'X',
      { direction: '+' },
      { diameter: '.2', machinePosition: '-9.2', drawingPosition: '.5' },
    )
    expect(plus.lines[0]).toBe('face: -9.2000 + 0.2000 / 2 = -9.1000')
    expect(plus.value).toBeCloseTo(-9.6, 12)
    expect(plus.repeated).toBeUndefined()
  })
  it('by a sensor, an indicator on both sides, a tool on a block, a sensor from above', () => {
    expect(worked('sensor', 'Y', {}, { machinePosition: '-9.2', drawingPosition: '-.25' })).toMatchObject({
      value: near(-8.95),
      lines: ['face: -9.2000 = -9.2000', 'part zero: -9.2000 - (-0.2500) = -8.9500'],
      doubt: { value: near(Math.hypot(0.0004, STEP)) },
    })
    const indicated = worked(
      'indicator',
      'X',
      {},
      { minusSide: '-10.003', plusSide: '-8; -8.0002', drawingPosition: '.5' },
    )
    expect(indicated).toMatchObject({
      value: near(-9.50155),
      swing: near(1.00145),
      // One side .0001; the other two readings .0002 apart, range over 1.128 pooled with five of the method's own, over
      // root 2. Half the root of the sum of both squares, and of two displays root 2 less than of one.
      doubt: {
        value: near(
          Math.hypot(
            Math.hypot(0.0001, Math.sqrt((5 * 0.0001 ** 2 + (0.0002 / 1.128) ** 2) / 6 / 2)) / 2,
            STEP / Math.SQRT2,
          ),
        ),
      },
    })
    expect(indicated.lines).toEqual([
      'plus side: ((-8.0000) + (-8.0002)) / 2 = -8.0001',
      'plane: (-10.0030 + (-8.0001)) / 2 = -9.0016',
      'swing: |-8.0001 - (-10.0030)| / 2 = 1.0015',
      'part zero: -9.0016 - 0.5000 = -9.5016',
    ])
    const block = {
      tool: '7',
      toolLength: '4.5',
      blockHeight: '1',
      machinePosition: '-9',
      drawingPosition: '.1',
    }
    expect(worked('tool-on-block', 'Z', {}, block)).toMatchObject({
      value: near(-14.6),
      lines: ['face: -9.0000 - 4.5000 - 1.0000 = -14.5000', 'part zero: -14.5000 - 0.1000 = -14.6000'],
    })
    expect(worked('tool-on-block', 'Z', {}, block).means[0]).toBe('machine position less T7 less block')
    expect(worked('tool-on-feeler', 'Z', {}, { ...block, blockHeight: '.002' })).toMatchObject({
      value: near(-13.602),
      means: ['machine position less T7 less feeler', 'face less its place on the drawing'],
    })
    expect(
      worked(
        'sensor-down',
        'Z',
        {},
        { tool: '7', toolLength: '4.5', machinePosition: '-9', drawingPosition: '.1' },
      ),
    ).toMatchObject({
      value: near(-13.6),
      lines: ['face: -9.0000 - 4.5000 = -13.5000', 'part zero: -13.5000 - 0.1000 = -13.6000'],
    })
  })
  it('on a lathe by a skim and a face; from what the probe cycle set', () => {
    // Two thousandths apart, four times what a skim repeats to: half of that, over root of 2.
    expect(worked('skimmed', 'X', {}, { machinePosition: '-10.5; -10.502', measured: '1.25' })).toMatchObject(
      {
        value: near(-11.751),
        lines: ['mean: ((-10.5000) + (-10.5020)) / 2 = -10.5010', 'X geometry: -10.5010 - 1.2500 = -11.7510'],
        doubt: { value: near(Math.hypot(0.001 / Math.SQRT2, STEP)) },
      },
    )
    expect(
      worked('skimmed', 'X', {}, { machinePosition: '-10.5', measured: '1.25' }).doubt.value,
    ).toBeCloseTo(Math.hypot(0.0005, STEP), 12)
    expect(worked('faced', 'Z', {}, { machinePosition: '-8', drawingPosition: '.02' })).toMatchObject({
      value: near(-8.02),
      lines: ['part zero: -8.0000 - 0.0200 = -8.0200'],
    })
    expect(worked('probe-set', 'X', {}, { shown: '-9.2' })).toMatchObject({
      value: -9.2,
      doubt: { value: near(Math.hypot(0.0001, STEP)) },
    })
  })
})

describe('two faces, circles and corners', () => {
  it('the middle of two, and how wide it is: the tip outside or inside', () => {
    const web = worked(
      'middle',
      'Y',
      { side: 'web', device: 'edge-finder' },
      { diameter: '.2', width: '1.8', low: '-10', high: '-8; -8.004', drawingPosition: '1' },
    )
    expect(web).toMatchObject({
      value: near(-10.001),
      position: near(-9.001),
      // .004 apart: half of it over root 2 beside .001; of the width the root of the sum of squares, of the middle half of it.
      size: {
        what: 'width',
        value: near(1.798),
        nominal: 1.8,
        doubt: near(Math.hypot(0.001, 0.002 / Math.SQRT2, STEP * Math.SQRT2)),
      },
      doubt: { value: near(Math.hypot(Math.hypot(0.001, 0.002 / Math.SQRT2) / 2, STEP / Math.SQRT2)) },
      repeated: { spread: near(0.004), times: 2 },
    })
    expect(web.lines).toEqual([
      'plus side: ((-8.0000) + (-8.0040)) / 2 = -8.0020',
      'middle: (-10.0000 + (-8.0020)) / 2 = -9.0010',
      'width: |-8.0020 - (-10.0000)| - 0.2000 = 1.7980',
      'part zero: -9.0010 - 1.0000 = -10.0010',
    ])
    const fields = { diameter: '.2', width: '2.2', low: '-10', high: '-8', drawingPosition: '1' }
    expect(worked('middle', 'Y', { side: 'pocket', device: 'probe' }, fields).lines[1]).toBe(
      'width: |-8.0000 - (-10.0000)| + 0.2000 = 2.2000',
    )
    const indicated = worked(
      'middle',
      'Y',
      { side: 'pocket', device: 'indicator' },
      { ...fields, diameter: '0' },
    )
    expect(indicated.size).toBeUndefined()
    expect(indicated.lines).toHaveLength(2)
    // Of two positions that were read twice the wider is the one that is looked at.
    const twice = { ...fields, low: '-10; -10.001', high: '-8; -8.0005' }
    expect(worked('middle', 'Y', { side: 'pocket', device: 'probe' }, twice).repeated?.spread).toBeCloseTo(
      0.001,
      9,
    )
    const other = { ...fields, low: '-10; -10.0005', high: '-8; -8.001' }
    expect(worked('middle', 'Y', { side: 'pocket', device: 'probe' }, other).repeated?.spread).toBeCloseTo(
      0.001,
      9,
    )
  })
  it('a bore that is swept: nearer on the side that reads more; a boss the other way', () => {
    const fields = { machinePosition: '-9', plusDial: '.003', minusDial: '-.001', drawingPosition: '1' }
    expect(worked('swept', 'X', { side: 'bore' }, fields)).toMatchObject({
      value: near(-10.002),
      doubt: { value: near(Math.hypot(0.0002, STEP)) },
      lines: [
        'off centre: (0.0030 - (-0.0010)) / 2 = 0.0020',
        'centre: -9.0000 - 0.0020 = -9.0020',
        'part zero: -9.0020 - 1.0000 = -10.0020',
      ],
    })
    expect(worked('swept', 'X', { side: 'boss' }, fields).lines[1]).toBe('centre: -9.0000 + 0.0020 = -8.9980')
  })
  it('a circle through four touches at its quarters: the centre is known to a touch over root 2', () => {
    const fields = { diameter: '.2', points: '-10 -5\n-9 -4\n-8 -5\n-9 -6', drawingX: '1', drawingY: '0' }
    const boss = worked('circle', 'X', { side: 'boss', device: 'probe' }, { ...fields, nominal: '1.8' })
    expect(boss).toMatchObject({
      value: near(-10),
      size: { value: near(1.8), nominal: 1.8, doubt: near(Math.hypot(0.0001, STEP)) },
      doubt: { value: near(Math.hypot(0.0001, STEP) / Math.SQRT2) },
    })
    expect(boss.lines[1]).toBe('diameter: 2 x 1.0000 - 0.2000 = 1.8000')
    expect(boss.lines).toHaveLength(4)
    const bore = worked('circle', 'Y', { side: 'bore', device: 'probe' }, fields)
    expect(bore.lines[1]).toBe('diameter: 2 x 1.0000 + 0.2000 = 2.2000')
    expect(bore.value).toBeCloseTo(-5, 9)
    // Three always lie on a circle: nothing is left over.
    const three = worked(
      'circle',
      'X',
      { side: 'bore', device: 'probe' },
      { ...fields, points: '-10 -5\n-9 -4\n-8 -5' },
    )
    expect(three.means[0]).toMatch(/^three always/)
    expect([three.lines.length, three.scatter]).toEqual([3, undefined])
    expect(boss.means[0]).toBe('')
    // An oval: two touches .002 out, two .002 in, and its form is what they lie apart.
    const oval = worked(
      'circle',
      'X',
      { side: 'bore', device: 'probe' },
      { ...fields, points: '-10.002 -5\n-9 -4.002\n-7.998 -5\n-9 -5.998' },
    )
    expect(oval.lines[2]).toMatch(/^form: 0\.0020 - \(-0\.0020\) = 0\.0040$/)
  })
  it('a corner of four touches: each face moved by half the tip, known as its touches and their distance allow', () => {
    const fields = {
      pointsX: '-10 -6\n-10 -8',
      pointsY: '-9 -5\n-6 -5',
      diameter: '.2',
      cornerAngle: '90',
      drawingX: '1',
      drawingY: '0',
    }
    const choices = { device: 'probe', directionX: '+', directionY: '-' }
    const corner = worked('corner', 'X', choices, fields)
    // The face along X at -9.9, that along Y at -5.1: .9 beyond touches 2 apart, 1.45 of the one less .45 of the other.
    const slope = Math.hypot(1.45, 0.45)
    expect(corner).toMatchObject({
      value: near(-10.9),
      doubt: { value: near(slope * Math.hypot(0.0001, STEP), 8) },
      // Lines over 2 and 3: a touch over half of each, root 2 of it.
      size: {
        what: 'corner angle',
        value: near(90),
        doubt: near((180 / Math.PI) * Math.hypot((0.0001 * Math.SQRT2) / 2, (0.0001 * Math.SQRT2) / 3), 8),
      },
    })
    expect(corner.lines).toEqual([
      'face along X: line through its touches, base 2.0000 = -90.000 deg',
      'face along Y: line through its touches, base 3.0000 = 180.000 deg',
      'corner: both moved by 0.2000 / 2, where they meet = -9.9000',
      'part zero: -9.9000 - 1.0000 = -10.9000',
    ])
    expect(worked('corner', 'Y', choices, fields).value).toBeCloseTo(-5.1, 9)
    // One touch on a face: its direction is that of the other and the drawing's angle.
    const single = worked('corner', 'X', choices, { ...fields, pointsX: '-10 -6' })
    expect(single.value).toBeCloseTo(-10.9, 9)
    expect(single.size).toBeUndefined()
    expect(single.lines[0]).toBe(
      'face along X: one touch: direction by the other face, -90.000 deg = -90.000 deg',
    )
    expect(single.residuals).toBeUndefined()
    // Three touches, the middle one .003 off: .002 of it is left there, .001 at the ends.
    const three = worked('corner', 'X', choices, { ...fields, pointsX: '-10 -6\n-10.003 -7\n-10 -8' })
    expect(three.residuals?.map(({ value }) => Math.abs(value)).slice(0, 3)).toEqual([
      near(0.001),
      near(0.002),
      near(0.001),
    ])
    expect(three.residuals?.map(({ name }) => name)).toEqual([
      'along X, touch 1',
      'along X, touch 2',
      'along X, touch 3',
      'along Y, touch 1',
      'along Y, touch 2',
    ])
  })
})

describe('positions', () => {
  it('have a mean and a spread; twenty at most', () => {
    const read = readPosition('-9.2; -9.2006; -9.2003', 'inch')
    if (!read.ok) throw new Error(read.says)
    expect([meanOf(read.value), spreadOf(read.value)]).toEqual([near(-9.2003), near(0.0006)])
    expect(readPosition(Array.from({ length: 20 }, () => '1').join(';'), 'inch').ok).toBe(true)
    const many = readPosition(Array.from({ length: 21 }, () => '1').join(';'), 'inch')
    expect(!many.ok && many.says).toBe('That is 21 readings; at most 20 are taken.')
    expect(readPosition('1;', 'inch').ok).toBe(true)
    expect(readPosition(';1', 'inch')).toMatchObject({ ok: false, empty: true })
  })
})

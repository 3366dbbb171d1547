import fc from 'fast-check'
import { rotationMatrix, unit as units } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { asTyped, type LengthUnit } from '../quantity/index.ts'
import { squareness } from './squaring.ts'
import { type JawUpright, readUprightDraft, type UprightDraft, uprightness } from './upright.ts'

const look = (
  more: Partial<Record<keyof JawUpright, number | string>>,
  unit: LengthUnit = 'inch',
): JawUpright => {
  const of = {
    height: 1.2,
    up: 0,
    lift: 0,
    dialStep: 0.0005,
    partHeight: 1.8,
    allowed: 0.001,
    plusMeans: 'towards',
    stylusAngle: 0,
    ...more,
  }
  const length = (value: number | string) => asTyped(Number(value), unit)
  return {
    height: length(of.height),
    up: length(of.up),
    lift: length(of.lift),
    dialStep: length(of.dialStep),
    partHeight: length(of.partHeight),
    allowed: length(of.allowed),
    plusMeans: of.plusMeans === 'towards' ? 'towards' : 'away',
    stylusAngle: Number(of.stylusAngle),
  }
}

describe('a fixed jaw that was squared', () => {
  it('leans over the height of the part by what the dial found over the height it was run up', () => {
    // By hand: .0004 over 1.2 is .0006 over 1.8.
    const { lean, leans, lift, findings } = uprightness(look({ up: 0.0004, lift: -0.0002 }), 'inch')
    expect(lean.value).toBeCloseTo(0.0006, 12)
    expect(lean.working[0]).toMatchObject({ arithmetic: '|0.0004| / 1.2000 x 1.8000', gives: '0.0006' })
    expect(leans).toBe('over')
    expect(lift.value).toBeCloseTo(-0.0002, 12)
    expect(findings).toEqual([])
    expect(uprightness(look({ up: 0.0004, plusMeans: 'away' }), 'inch').leans).toBe('back')
    expect(uprightness(look({ lift: 0.0004, plusMeans: 'away' }), 'inch').lift.value).toBeCloseTo(-0.0004, 12)
    expect(uprightness(look({}), 'inch').leans).toBeNull()
  })

  it('is as a general library turns it: a face turned about its foot, seen by a dial that stands in front', () => {
    fc.assert(
      fc.property(
        evenly(-0.2, 0.2),
        evenly(10, 60),
        evenly(5, 90),
        fc.integer({ min: 0, max: 60 }),
        (tilt, height, partHeight, stylusAngle) => {
          const turn = rotationMatrix(units(tilt, 'deg').toNumber('rad') as never) as unknown as number[][]
          /** How far the face stands in front of its foot at a height: x of what was (0, h), against its own height. */
          const ahead = (h: number) => ((turn[0]?.[1] ?? 0) * h) / (turn[1]?.[1] ?? 1)
          const shown = ahead(height) / Math.cos(units(stylusAngle, 'deg').toNumber('rad'))
          const { lean, leans } = uprightness(
            look({ height, partHeight, up: shown, stylusAngle, dialStep: 0.01 }, 'mm'),
            'mm',
          )
          expect(lean.value).toBeCloseTo(Math.abs(ahead(partHeight)), 9)
          if (shown !== 0) expect(leans).toBe(shown > 0 ? 'over' : 'back')
        },
      ),
    )
  })

  it('is known as well as two readings of a jaw over the same way: the sweep has the same doubt', () => {
    const point = (at: number, reading: number) => ({
      at: asTyped(at, 'inch'),
      reading: asTyped(reading, 'inch'),
    })
    const swept = squareness(
      {
        bolts: 'tight',
        pivot: asTyped(-1, 'inch'),
        points: [point(0, 0), point(1.2, 0.0004)],
        plusMeans: 'towards',
        stylusAngle: 15,
        dialStep: asTyped(0.0005, 'inch'),
        partLength: asTyped(1.8, 'inch'),
        allowed: asTyped(0.001, 'inch'),
      },
      'inch',
    )
    const { lean, lift } = uprightness(look({ up: 0.0004, stylusAngle: 15 }), 'inch')
    if (!swept.ok) throw new Error('no sweep')
    expect(lean.value).toBeCloseTo(swept.outOfSquare.value, 12)
    expect(lean.doubt.value).toBeCloseTo(swept.outOfSquare.doubt.value, 12)
    // On top there is no way that it is brought over: as much as the lean, over a part as high as the way run up.
    expect(lift.doubt.value).toBeCloseTo((lean.doubt.value * 1.2) / 1.8, 12)
  })

  it.each([
    [{ up: 0.0009 }, 'jaw-leans', 'leans over the part by 0.0014 in over its height; it allows 0.0010 in'],
    [{ up: -0.0009 }, 'jaw-leans', 'leans back from the part by 0.0014 in'],
    [{ lift: 0.0011 }, 'jaw-lifts', 'rises by 0.0011 in as the part is clamped'],
    [{ lift: -0.0011 }, 'jaw-lifts', 'goes down by 0.0011 in'],
    [{ height: 0.2 }, 'cannot-tell-lean', 'the part allows 0.0010 in'],
    [{ dialStep: 0.005, height: 40 }, 'cannot-tell-lift', 'the part allows 0.0010 in'],
  ])('%j says %s', (more, code, says) => {
    const { findings } = uprightness(look(more), 'inch')
    expect(findings.map((each) => each.code)).toEqual([code])
    expect(findings[0]?.says).toContain(says)
    expect(findings[0]?.severity).toBe('look')
  })

  it('that leans or lifts by just what is allowed is within it', () => {
    expect(uprightness(look({ up: 0.001, height: 1.8, lift: 0.001 }), 'inch').findings).toEqual([])
  })

  it('is the same in millimetres', () => {
    const inch = uprightness(look({ up: 0.0004, lift: 0.0003, stylusAngle: 12 }), 'inch')
    const mm = uprightness(look({ up: 0.0004, lift: 0.0003, stylusAngle: 12 }), 'mm')
    expect(mm.lean.value).toBeCloseTo(inch.lean.value * 25.4, 9)
    expect(mm.lift.value).toBeCloseTo(inch.lift.value * 25.4, 9)
  })
})

describe('the form', () => {
  const typed: UprightDraft = {
    height: '1-1/4',
    up: '.0004',
    lift: '-.0002',
    plusMeans: 'towards',
    stylusAngle: '10',
    dialStep: '.0005',
    partHeight: '40mm',
    allowed: '.001',
  }
  it('is read, and each field says what it still needs', () => {
    const read = readUprightDraft(typed, 'inch')
    expect(read.ok && read.value.partHeight.value).toBeCloseTo(40 / 25.4, 12)
    const says = (more: Partial<UprightDraft>) => {
      const of = readUprightDraft({ ...typed, ...more }, 'inch')
      return of.ok ? [] : Object.entries(of.problems).map(([path, problem]) => `${path}: ${problem?.says}`)
    }
    expect(says({ height: '0' })).toEqual(['height: How far the stylus was run up must be more than zero.'])
    expect(says({ partHeight: '-1' })).toEqual(['partHeight: The height of the part must be more than zero.'])
    expect(says({ allowed: '0' })).toEqual(['allowed: What is allowed must be more than zero.'])
    expect(says({ stylusAngle: '85' })).toEqual([
      'stylusAngle: The angle of the stylus is between 0 and 80 degrees.',
    ])
    expect(says({ up: '1.1.1' })).toHaveLength(1)
    expect(says({ lift: '' })).toHaveLength(1)
  })
})

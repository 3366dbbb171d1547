import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { material, materialIn, USUAL_MATERIALS } from './material.ts'
import { roundRpm, rpmFor, surfaceFor } from './speed.ts'

describe('speeds', () => {
  it('are those of the handbook: 100 ft a minute on 1 in is 382 rpm, 30 m a minute on 10 mm is 955 (common practice)', () => {
    expect(rpmFor(100, 1, 'inch')).toBeCloseTo(381.97, 2)
    expect(rpmFor(30, 10, 'mm')).toBeCloseTo(954.93, 2)
  })

  it('are the same cut in either unit, and the other way round', () => {
    const speeds = evenly(5, 2000)
    const diameters = evenly(0.02, 20)
    fc.assert(
      fc.property(speeds, diameters, (feet, inches) => {
        const turns = rpmFor(feet, inches, 'inch')
        expect(rpmFor(feet * 0.3048, inches * 25.4, 'mm') / turns).toBeCloseTo(1, 12)
        expect(surfaceFor(turns, inches, 'inch') / feet).toBeCloseTo(1, 12)
      }),
    )
  })

  it('are set in steps that a spindle is set in, never faster than asked for', () => {
    expect([38, 97.3, 381.97, 1234, 2].map(roundRpm)).toEqual([35, 95, 380, 1200, 5])
    // What stands on a step stays on it.
    expect([85, 100, 640, 1000, 2500].map(roundRpm)).toEqual([85, 100, 640, 1000, 2500])
  })

  it('of a material are the same in the other unit and back', () => {
    for (const of of USUAL_MATERIALS) {
      expect(material.safeParse(of).success).toBe(true)
      const back = materialIn(materialIn(of, 'mm'), 'inch')
      expect(back.tapping).toBeCloseTo(of.tapping, 9)
      expect(back.grooveFeed).toBeCloseTo(of.grooveFeed, 9)
      expect(materialIn(of, 'mm').drilling).toBeCloseTo(of.drilling * 0.3048, 9)
    }
  })
})

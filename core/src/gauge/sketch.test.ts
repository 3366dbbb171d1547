import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { characteristicsOf, isOut } from './characteristic.ts'
import { partWith } from './part-with.ts'
import { draftOfPlan, readPlan } from './plan.ts'
import { placeAt, playOf } from './play.ts'
import { decisionSketch, gaugeSketch, sliderOf } from './sketch.ts'
import { standInOf } from './stand-in.ts'
import { anyPlan, caseOf, compact, featureOf, planOf } from './testing.ts'
import { tryProgram } from './try.ts'
import { writeGauge } from './write.ts'

const where = caseOf(compact)
const { probing, macros } = compact

describe('pictures of a plan', () => {
  it('have every touch on the material, with the ball coming to it through air, whatever the plan', () => {
    fc.assert(
      fc.property(anyPlan('inch'), (plan) => {
        // As on the drawing: nothing larger, nothing moved.
        const { holds } = standInOf(plan.features, { unit: 'inch', stylus: where.shape.stylus }, {})
        for (const { id, touches } of gaugeSketch(plan, where).features) {
          const params = plan.features.find((each) => each.id === id)?.params
          const z = (params?.top.value ?? 0) + (params?.depth.value ?? 0)
          for (const [from, to] of touches) {
            const [dx, dy] = [to.x - from.x, to.y - from.y]
            const at = (share: number) => holds(from.x + share * dx, from.y + share * dy, z)
            expect([at(0), at(0.5), at(0.999)], `${params?.what}`).toEqual([false, false, false])
            expect(at(1 + 1e-6 + 0.01 / Math.hypot(dx, dy)), `${params?.what}`).toBe(true)
          }
        }
      }),
    )
  })

  it('show the probe going: over the features in order, in the time that it takes', () => {
    fc.assert(
      fc.property(anyPlan('inch'), (plan) => {
        if (!probing || !macros) return
        const { text, variables, arranged } = writeGauge(plan, where, probing, macros)
        const tried = tryProgram(text, plan.features, variables, where, partWith(plan, new Map(), 'inch'))
        const points = playOf(tried)
        expect(points.every(({ t }, at) => at === 0 || t >= (points[at - 1]?.t ?? 0))).toBe(true)
        expect(points.at(-1)?.t ?? 0).toBeLessThanOrEqual(tried.seconds)
        const first = arranged.steps.find((step) => step.does === 'measure')
        expect(placeAt(points, 0)).toMatchObject(first ? { x: points[0]?.x } : {})
        expect(placeAt(points, 1)).toEqual(points.at(-1))
      }),
      depth(40, 400),
    )
    expect(placeAt([], 0.5)).toBeUndefined()
  })

  it('put the dead band inside the limits, and a slider over both', () => {
    const of = { lower: 0.999, upper: 1.002, middle: 1.0005, unit: 'inch' as const }
    const sketch = decisionSketch(of, { deadBand: 0.0002, limit: 0.002, stopsAtTolerance: false })
    expect(sketch.least).toBeLessThan(sketch.limits?.[0] ?? 0)
    expect(sketch.deadBand?.map((value) => value.toFixed(4))).toEqual(['1.0003', '1.0007'])
    expect(decisionSketch(of, { deadBand: 0, limit: 0.0015, stopsAtTolerance: true }).limits).toBeUndefined()
    const slider = sliderOf({ ...of, key: 'A', feature: 'a', quantity: 'size', nominal: 1, tool: null })
    expect(slider).toEqual({ least: 0.9945, greatest: 1.0065, step: 0.0001 })
  })
})

describe('the form of a plan', () => {
  it('keeps what was typed: the form of what it comes to comes to the same', () => {
    fc.assert(
      fc.property(anyPlan('mm'), (plan) => {
        expect(readPlan(draftOfPlan(plan), 'mm')).toMatchObject({ complete: true, plan })
      }),
    )
  })

  it('says which values have one name, and which distance lacks an end', () => {
    const corner = featureOf('outside-corner', 'C', { x: '0', y: '0', tolerance: '.01' })
    const twin = featureOf('bore', 'C X', { nominal: '1', tolerance: '.01', x: '3', y: '0' })
    const far = featureOf('distance', 'D', { from: 'c', to: '', nominal: '1', tolerance: '.01' })
    const read = readPlan({ head: draftOfPlan(planOf([corner])).head, features: [corner, twin, far] }, 'inch')
    expect(read.features['c-x']?.name?.says).toContain('C X')
    expect(read.features.d?.to?.says).toContain('has a place')
    expect(read.plan?.features.map(({ id }) => id)).toEqual(['c'])
  })

  it('takes a value at its limit, as printed, for in: 20 H7 and 0.7874 in', () => {
    const [of] = characteristicsOf(
      planOf([featureOf('bore', 'FIT', { nominal: '20 H7', x: '0', y: '0' })]).features[0] as never,
      'inch',
    )
    expect([0.7874, 0.7882, 0.7873, 0.7883].map((value) => of && isOut(value, of))).toEqual([
      false,
      false,
      true,
      true,
    ])
  })
})

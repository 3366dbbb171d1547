import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth, times } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { type Correction, heldWithin, simulate } from './corrected.ts'
import { nextValue } from './next-part.ts'
import { partWith } from './part-with.ts'
import { caseOf, compact, featureOf, planOf } from './testing.ts'
import { nextErrors, tryProgram } from './try.ts'
import { writeGauge } from './write.ts'

const anyCorrection = fc.record({
  drift: evenly(-0.4, 0.4),
  share: evenly(0.05, 1),
  deadBand: evenly(0, 0.8),
  scatter: evenly(0, 0.3),
  reading: evenly(0, 0.2),
})
const wide: Pick<Correction, 'half' | 'limit'> = { half: 1, limit: Number.POSITIVE_INFINITY }

describe('a process that is corrected from part to part', () => {
  it('stays within what is said over 500 parts, with any drift, share, dead band, scatter and readings', () => {
    fc.assert(
      fc.property(anyCorrection, fc.infiniteStream(evenly(-1, 1)), (of, stream) => {
        const held = heldWithin({ ...of, ...wide })
        const next = () => stream.next().value as number
        const { errors } = simulate({ ...of, ...wide }, 500, next, next)
        expect(Math.max(...errors.map(Math.abs))).toBeLessThanOrEqual(held.most + 1e-9)
        if (held.stays) expect(errors.every((error) => Math.abs(error) <= 1)).toBe(true)
      }),
      depth(100, 3000),
    )
  })

  it('says so where it cannot stay: without scatter it then really goes out', () => {
    fc.assert(
      fc.property(anyCorrection, ({ drift, share, deadBand }) => {
        const of = { drift, share, deadBand, scatter: 0, reading: 0, ...wide }
        const d = Math.abs(drift)
        const held = heldWithin(of)
        const { errors } = simulate(
          of,
          500,
          () => 0,
          () => 0,
        )
        const worst = Math.max(...errors.map(Math.abs))
        // What it settles at: the drift over the share, or just over the dead band.
        const truly = d / share >= deadBand ? d / share : undefined
        if (truly !== undefined && truly > 1.001 && share > 0.02) {
          expect(held.stays).toBe(false)
          expect(worst).toBeGreaterThan(1)
        }
        if (worst > 1 + 1e-9) expect(held.stays).toBe(false)
      }),
    )
  })

  it('stops where a reading comes beyond the limit, and says that it may', () => {
    const of = { drift: 0.3, share: 0.2, deadBand: 0, scatter: 0, reading: 0, half: 2, limit: 1 }
    expect(heldWithin(of)).toMatchObject({ stays: true, goesOn: false })
    expect(
      simulate(
        of,
        500,
        () => 0,
        () => 0,
      ).stoppedAt,
    ).toBeLessThan(20)
  })

  it.each([compact])(
    'by the program itself: a wearing cutter over 500 bores, the wear table filled by the macro',
    (profile) => {
      const plan = planOf([
        featureOf('bore', 'BORE', {
          nominal: '1',
          tolerance: '.002',
          x: '1',
          y: '1',
          tool: '5',
          react: 'wear',
          share: '0.4',
          deadBand: '.0002',
        }),
      ])
      const [feature] = plan.features
      const where = caseOf(profile)
      const { probing, macros } = profile
      if (!feature || !probing || !macros) throw new Error('no macros')
      const { text, variables } = writeGauge(plan, where, probing, macros)
      const drift = -0.00015
      const held = heldWithin({
        drift,
        share: 0.4,
        deadBand: 0.0002,
        scatter: 0,
        reading: 0.00005,
        half: 0.002,
        limit: 0.002,
      })
      expect(held.stays).toBe(true)
      let wear = 0
      let worst = 0
      const variable = macros.diameterWear + 4
      for (let part = 0; part < times(500, 500); part++) {
        const worn = 1 + drift * part
        const size = nextValue(feature.params, 'size', worn, wear, macros.wearAs)
        worst = Math.max(worst, Math.abs(size - 1))
        const tried = tryProgram(
          text,
          plan.features,
          variables,
          where,
          partWith(plan, new Map([['BORE', size]]), 'inch'),
          new Map([[variable, wear]]),
        )
        expect(tried.alarm).toBeUndefined()
        wear = tried.corrected[0]?.after ?? 0
      }
      expect(worst).toBeLessThanOrEqual(held.most)
      // Uncorrected it would have been out by part 14.
      expect(Math.abs(drift * 499)).toBeGreaterThan(0.07)
      const far = tryProgram(
        text,
        plan.features,
        variables,
        where,
        partWith(plan, new Map([['BORE', 1.0015]]), 'inch'),
      )
      expect(nextErrors(plan.features, far, () => 1.0015, where).get('BORE')?.after).toBeCloseTo(0.0009, 9)
    },
  )
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../../testing/depth.ts'
import { evenly } from '../../../testing/evenly.ts'
import { writeSheet } from '../../code/index.ts'
import { caseOf, compact, plain, sheetOf } from '../../code/testing.ts'
import { endOf, FLAG } from '../../program/index.ts'
import type { GrooveDraft } from './params.ts'
import { groovePlay, grooveScene } from './play.ts'
import type { UV } from './section.ts'
import { grooveSizes, onMachine } from './sizes.ts'

const grooves: fc.Arbitrary<Partial<GrooveDraft>> = fc.record({
  where: fc.constantFrom('outside', 'inside', 'face'),
  programmed: fc.constantFrom('low', 'high'),
  finish: fc.boolean(),
  pecking: fc.boolean(),
  edge: fc.constantFrom('none', 'chamfer'),
  far: fc.integer({ min: 700, max: 1400 }).map((n) => `${-n / 1000}`),
})
const sized = (groove: Partial<GrooveDraft>, profile = compact) => {
  const face = groove.where === 'face'
  const draft: Partial<GrooveDraft> = {
    surface: face ? '0' : '2',
    bottom: face ? '-.15' : groove.where === 'inside' ? '2.3' : '1.7',
    ...groove,
    ...(face ? { near: '2', far: `${2 + 2 * Number(groove.far)}` } : {}),
  }
  const sheet = sheetOf({ groove: draft })
  const [item] = sheet.items
  if (item?.cycle !== 'groove') throw new Error('no groove')
  const on = caseOf('lathe', profile)
  const material = on.materials[1]
  if (!material) throw new Error('no material')
  return { sheet, on, sizes: grooveSizes(item.params, on, material) }
}
/** How deep an outline is at a place, between its points. */
const deepAt = (outline: readonly UV[], u: number) => {
  const n = outline.findIndex((point) => point.u >= u)
  const [a, b] = [outline[Math.max(0, n - 1)], outline[n]] as [UV, UV]
  return a.u === b.u ? b.v : a.v + ((b.v - a.v) * (u - a.u)) / (b.u - a.u)
}

describe('a groove that is played', () => {
  it('loses more and more, never grows back, and ends at the depth of its plunges, tool out', () => {
    fc.assert(
      fc.property(grooves, fc.array(evenly(0, 1), { maxLength: 6 }), (groove, shares) => {
        const { sizes } = sized(groove)
        const play = groovePlay(sizes)
        let before: UV[] | undefined
        for (const share of [0, ...shares.sort((a, b) => a - b), 1]) {
          const { outline, at, low, move } = grooveScene(sizes, play, share)
          expect(move).toBeLessThanOrEqual(play.moves.length)
          // The insert stands where its programmed end is: its low end a width below, or just there.
          expect(at.u - low).toBeCloseTo(groove.programmed === 'low' ? 0 : sizes.insert.width, 12)
          if (before)
            for (let n = 1; n < 60; n++) {
              const u = sizes.section.low + ((sizes.section.high - sizes.section.low) * n) / 60
              // An arc on the way is drawn as a chord: less than its own height off.
              expect(deepAt(outline, u)).toBeGreaterThanOrEqual(deepAt(before, u) - 0.01)
            }
          before = outline
        }
        const last = grooveScene(sizes, play, 1)
        expect(Math.max(...last.outline.map(({ v }) => v))).toBeCloseTo(sizes.section.depth, 9)
        expect(last.at.v).toBeLessThan(0)
      }),
      depth(60, 600),
    )
  })
  it('takes the way that the written-out program takes, as the reader reads it', () => {
    fc.assert(
      fc.property(grooves, (groove) => {
        const { sheet, on, sizes } = sized({ ...groove, pecking: false }, plain)
        const { code } = writeSheet(sheet, on)
        fc.pre(code !== undefined)
        if (!code) return
        const { motion } = code.program
        const read = Array.from({ length: motion.count }, (_, row) => row)
          .filter((row) => ((motion.flags[row] as number) & FLAG.TO_MACHINE) === 0)
          .map((row) => endOf(motion, row))
        // Every place that the picture shows the tip in is one of the program's, to what is printed, in that order.
        let next = 0
        for (const { to } of groovePlay(sizes).moves) {
          const { x, z } = onMachine(sizes, to)
          const found = read.findIndex(
            ([rx, , rz], row) => row >= next && Math.abs(rx - x) < 2e-4 && Math.abs(rz - z) < 2e-4,
          )
          expect(found, `${x} ${z}`).toBeGreaterThanOrEqual(0)
          next = found
        }
      }),
      depth(60, 600),
    )
  })
})

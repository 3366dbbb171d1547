import { describe, expect, it } from 'vitest'
import { caseOf, compact, sheetOf } from '../../code/testing.ts'
import type { TapDraft } from './params.ts'
import { tapSizes } from './sizes.ts'
import { holeSketch } from './sketch.ts'

const sketchOf = (tap: Partial<TapDraft>) => {
  const [item] = sheetOf({ tap: { list: '0 0', ...tap } }).items
  if (item?.cycle !== 'tap') throw new Error('no tapped holes')
  const on = caseOf('mill', compact)
  const material = on.materials[0]
  if (!material) throw new Error('no material')
  return holeSketch(item.params, tapSizes(item.params, on, material))
}
const corners = (tap: Partial<TapDraft>) =>
  sketchOf(tap).wall.map(({ across, depth }) => [Number(across.toFixed(4)), Number(depth.toFixed(4))])

// Worked by hand: 1/4-20, No. 7 drill (0.201) with a point of 118 deg: 0.1005 / tan 59 = 0.0604.
// A chamfer of 90 deg, 0.300 wide: at the drill's wall it is 0.150 - 0.1005 = 0.0495 deep.
describe('a tapped hole in section', () => {
  const hole: Partial<TapDraft> = { threadDepth: '.5', drillDepth: '.8', chamferDiameter: '.3' }
  it('has its chamfer, wall and point where they are', () => {
    expect(corners(hole)).toEqual([
      [0.15, 0],
      [0.1005, 0.0495],
      [0.1005, 0.8],
      [0, 0.8604],
    ])
    expect(corners({ ...hole, chamfer: false })[0]).toEqual([0.1005, 0])
    // A flat drill has no point; a steeper chamfer of 60 deg goes deeper: 0.0495 / tan 30.
    expect(corners({ ...hole, point: '180' }).at(-1)).toEqual([0, 0.8])
    expect(corners({ ...hole, chamferAngle: '60' })[1]).toEqual([0.1005, 0.0857])
  })
  it('shows a countersink alone as the cone that it is, and nothing where nothing is done', () => {
    expect(corners({ ...hole, drill: false, tapping: false })).toEqual([
      [0.15, 0],
      [0, 0.15],
    ])
    expect(corners({ ...hole, drill: false, chamfer: false })).toEqual([])
  })
  it('has its full thread above the lead of the tap; through a plate the thread is as long as the plate', () => {
    // A plug tap has four unfinished threads here (3 to 5, trade.md 7): 4 x 0.05 under the full thread.
    const { thread, thickness } = sketchOf({ ...hole, tapDepth: '.7' })
    expect(thickness).toBeNull()
    expect(thread?.tip).toBe(0.7)
    expect(0.7 - (thread?.full ?? 0)).toBeGreaterThanOrEqual(3 * 0.05)
    expect(0.7 - (thread?.full ?? 0)).toBeLessThanOrEqual(5 * 0.05)
    const through = sketchOf({ hole: 'through', thickness: '.6' })
    expect([through.thickness, through.thread?.full]).toEqual([0.6, 0.6])
    // Tap and drill come out on the other side.
    expect(Math.min(through.thread?.tip ?? 0, through.drillDepth)).toBeGreaterThan(0.6)
    expect(sketchOf({ ...hole, tapping: false }).thread).toBeNull()
  })
  it('goes as deep as its deepest piece', () => {
    expect(sketchOf({ ...hole, drillDepth: '.6', tapDepth: '.7' }).deepest).toBeCloseTo(0.7, 12)
    expect(sketchOf(hole).deepest).toBeCloseTo(0.8604, 4)
  })
})

import { describe, expect, it } from 'vitest'
import { caseOf, compact, sheetOf } from '../../code/testing.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import type { CycleCase, PlanBody } from '../cycle/index.ts'
import { checkTap } from './check.ts'
import { tapSizes } from './sizes.ts'

const steel = USUAL_MATERIALS[1] as (typeof USUAL_MATERIALS)[number]
/** A plate 4 x 3, its left back corner at part zero. */
const plate: PlanBody = {
  name: 'part',
  part: true,
  top: 0,
  shape: { kind: 'rectangle', least: { x: 0, y: -3 }, greatest: { x: 4, y: 0 } },
}
const clamp: PlanBody = {
  ...plate,
  name: 'clamp',
  part: false,
  top: 0.5,
  shape: { kind: 'rectangle', least: { x: 5, y: -3 }, greatest: { x: 6, y: 0 } },
}

function said(list: string, bodies: PlanBody[], more = {}) {
  const [item] = sheetOf({ tap: { list, ...more } }).items
  if (item?.cycle !== 'tap') throw new Error('no tap')
  const on: CycleCase = caseOf('mill', compact, { bodies })
  return checkTap(item.params, tapSizes(item.params, on, steel), on)
    .filter(({ code }) => code === 'hole-off-part' || code === 'hole-breaks-edge')
    .map(({ severity, code, says }) => `${severity} ${code}: ${says}`)
}

describe('holes against the part in the work area', () => {
  it('in it are nothing to say, wherever', () => {
    expect(said('.5 -.5\n3.5 -2.5', [plate])).toEqual([])
    expect(said('.5 .5', [])).toEqual([])
    expect(said('.5 .5', [clamp])).toEqual([])
  })

  it('beside it are a stop: a sign that was forgotten, as the first of them is named', () => {
    expect(said('.5 -.5\n3.5 2.5', [plate])).toEqual([
      'stop hole-off-part: Hole 2 at X 3.5000 Y 2.5000 lies beside the part.',
    ])
    // A clamp is no part.
    expect(said('5.5 -1.5', [plate, clamp])).toHaveLength(1)
  })

  it('that break out at its edge are looked at: the widest that is cut, the chamfer', () => {
    // The chamfer of a 1/4-20 is 6 % wider than the thread: .1325 from the middle.
    expect(said('.13 -.5', [plate])).toEqual([
      'look hole-breaks-edge: Hole 1 at X 0.1300 Y -0.5000 breaks out at the edge of the part.',
    ])
    expect(said('.135 -.5', [plate])).toEqual([])
    expect(said('.13 -.5', [plate], { chamfer: false })).toEqual([])
    // One beside the part comes before one at its edge.
    expect(said('.13 -.5\n9 -.5', [plate])).toEqual([
      'stop hole-off-part: Hole 2 at X 9.0000 Y -0.5000 lies beside the part.',
    ])
  })

  it('lie in the round part or the other one', () => {
    const round: PlanBody = { ...plate, shape: { kind: 'circle', at: { x: 8, y: 0 }, radius: 1 } }
    expect(said('8.5 .5', [plate, round])).toEqual([])
    expect(said('8.8 .8', [plate, round])).toHaveLength(1)
  })
})

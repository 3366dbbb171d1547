import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { type ToolOnLathe, type ToolShape, toolIn, toolShape } from './tool.ts'
import { noseWords, tipOf } from './tool-tip.ts'

const [insert, boring] = demoReference.tools.filter(({ machineId }) => machineId === 'lathe-1') as [
  ToolShape,
  ToolShape,
]
const standing = (
  side: 'outside' | 'inside' | 'face',
  corner: 'low' | 'high',
  point: ToolOnLathe['point'] = 'corner',
): ToolShape => ({
  ...insert,
  onLathe: { side, corner, point, bar: side === 'inside' ? 0.5 : null },
})

describe('the tip of an insert', () => {
  // Common practice, from memory: 3 turns outside towards the chuck, 2 bores towards it; 4 and 1 are their mirror images along Z.
  it.each([
    ['outside', 'low', 3],
    ['outside', 'high', 4],
    ['inside', 'low', 2],
    ['inside', 'high', 1],
    ['face', 'low', 3],
    ['face', 'high', 2],
  ] as const)('%s, %s corner: %i', (side, corner, number) => {
    expect(tipOf(standing(side, corner))?.number).toBe(number)
  })

  it.each([
    ['outside', 'edge', 8, -1, 0],
    ['inside', 'edge', 6, 1, 0],
    ['face', 'edge', 7, 0, -1],
    ['outside', 'nose', 0, 0, 0],
    ['face', 'nose', 0, 0, 0],
  ] as const)(
    '%s, programmed at the %s: %i, level with the nose where it is its middle',
    (side, point, number, x, z) => {
      for (const corner of ['low', 'high'] as const)
        expect(tipOf(standing(side, corner, point))).toEqual({ number, x, z })
    },
  )

  it('lies on the side of the nose where the number has it: 1 and 2 away from the centre line, 1 and 4 away from the chuck', () => {
    for (const side of ['outside', 'inside', 'face'] as const)
      for (const corner of ['low', 'high'] as const) {
        const tip = tipOf(standing(side, corner))
        expect(tip?.x).toBe(tip?.number === 1 || tip?.number === 2 ? 1 : -1)
        expect(tip?.z).toBe(tip?.number === 1 || tip?.number === 4 ? 1 : -1)
      }
  })

  it('is usual for its kind where nobody said how it stands, and no tool that turns has one', () => {
    const { onLathe: _, ...usual } = standing('outside', 'low')
    expect(tipOf(usual)?.number).toBe(3)
    for (const kind of ['mill', 'drill', 'tap', 'engraver', 'probe'] as const)
      expect(tipOf({ kind })).toBeUndefined()
  })

  it('is said with the nose where that was entered, in the unit of who looks', () => {
    expect(noseWords(insert, 'inch')).toEqual(['nose 0.0080', 'tip 3'])
    expect(noseWords(boring, 'mm')).toEqual(['nose 0.102', 'tip 2'])
    expect(noseWords({ ...insert, nose: null }, 'inch')).toEqual(['tip 3'])
    expect(noseWords({ ...insert, kind: 'drill' }, 'inch')).toEqual([])
  })
})

describe('the nose radius of an insert', () => {
  const wrong = (nose: number | null) =>
    toolShape.safeParse({ ...insert, nose }).error?.issues.map(({ path, message }) => `${path}: ${message}`)

  it('is no larger than half of the insert, more than nothing, or not entered', () => {
    expect(wrong(0.008)).toBeUndefined()
    expect(wrong(insert.diameter / 2)).toBeUndefined()
    expect(wrong(null)).toBeUndefined()
    // Typed in millimetres.
    expect(wrong(0.2)).toEqual([expect.stringMatching(/^nose: .*check the unit/)])
    expect(wrong(0)).toEqual([expect.stringMatching(/^nose: .*more than zero/)])
    const { nose: _, ...old } = insert
    expect(toolShape.parse(old)).toEqual(old)
  })

  it('is needed where the insert is not programmed at its corner', () => {
    const of = (nose: number | null, point: ToolOnLathe['point']) =>
      toolShape
        .safeParse({ ...standing('outside', 'low', point), nose })
        .error?.issues.map(({ message }) => message)
    expect(of(null, 'corner')).toBeUndefined()
    expect(of(0.008, 'nose')).toBeUndefined()
    expect(of(null, 'edge')).toEqual([expect.stringMatching(/needs its nose radius/)])
  })

  it('goes with the tool into the other unit', () => {
    expect(toolIn(insert, 'mm').nose).toBeCloseTo(0.2032, 9)
    expect(toolIn({ ...insert, nose: null }, 'mm').nose).toBeNull()
  })
})

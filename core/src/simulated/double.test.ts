import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { act } from './act.ts'
import { doubleOf, positionsOf } from './double.ts'
import { positionsShown } from './view.ts'

const AT = '2026-11-24T08:00:00.000Z'
const rows = (id: string) => {
  const machine = demoReference.machines.find((each) => each.id === id)
  if (!machine) throw new Error(`the demo has no ${id}`)
  const profile = demoReference.profiles.find((each) => each.id === machine.profileId)
  return { machine, profile, tools: demoReference.tools.filter(({ machineId }) => machineId === id) }
}

describe('the double of a machine of the shop', () => {
  it.each(demoReference.machines.map(({ id }) => id))('of %s is the same piece for the same number', (id) => {
    const [one, same, other] = [doubleOf(7, rows(id)), doubleOf(7, rows(id)), doubleOf(8, rows(id))]
    expect(same).toEqual(one)
    expect(other.world).not.toEqual(one.world)
    expect(one.world.machine.id).toBe(id)
  })

  it('tells what it shows as a position, axis by axis, in the unit of its machine', () => {
    const on = doubleOf(7, rows('mill-1'))
    expect(positionsOf(on, AT)).toMatchObject({ unit: 'inch', positions: { X: 0, Y: 0, Z: 0 }, readAt: AT })
    const moved = act(on, { do: 'jog', axis: 'X', by: -1.5 })
    expect(positionsOf(moved, AT).positions.X).toBeCloseTo(positionsShown(moved).X ?? 0, 6)
  })
})

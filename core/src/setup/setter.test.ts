import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import type { Entry } from './kinds.ts'
import { add, inch, opened } from './testing.ts'
import { deriveSetter, deriveTools } from './tools.ts'

const mill = demoReference.machines[0] as Machine
const on = { machine: { id: mill.id, version: mill.version } }
const calibrated = (machinePosition: number) =>
  add('setter', {
    reading: {
      how: 'master',
      machinePosition: inch(machinePosition),
      masterLength: inch(4),
      masterWithin: inch(0.0001),
    },
    ...on,
  }) as Entry
const measured = (setter: Entry, machinePosition: number) =>
  add('tool-length', {
    tool: 7,
    machinePosition: inch(machinePosition),
    masterPosition: inch(-15.2),
    masterLength: inch(0),
    setter: { entry: setter.id, within: inch(0.0002) },
    ...on,
  }) as Entry
const happened = (what: 'alarm' | 'homed-again' | 'vise-moved') =>
  add('happened', { what, note: '' }) as Entry
const setterOf = (...log: Entry[]) => deriveSetter([opened, ...log], mill, 'inch')
const toolOf = (...log: Entry[]) => deriveTools([opened, ...log], mill, 'inch')[0]

describe('the tool setter of a machine, from every log on it', () => {
  it('stands as it was calibrated last; nobody did: it stands nowhere', () => {
    expect(setterOf()).toBeUndefined()
    const again = setterOf(calibrated(-11.2), calibrated(-11.2001))
    expect(again?.height.value).toBeCloseTo(-15.2001, 9)
    expect([again?.freshness.state, again?.findings]).toEqual(['fresh', []])
    expect(setterOf(calibrated(-11.2), calibrated(-11.21))?.findings[0]?.code).toBe('setter-moved')
  })

  it.each([
    ['alarm', 'calibrated before the alarm'],
    ['homed-again', 'calibrated before the machine was homed again'],
  ] as const)('is doubtful after %s, until it is calibrated again', (what, says) => {
    const stale = setterOf(calibrated(-11.2), happened(what))
    expect(stale?.freshness).toMatchObject({ state: 'stale', cause: { says } })
    expect(setterOf(calibrated(-11.2), happened(what), calibrated(-11.2))?.freshness.state).toBe('fresh')
  })

  it('does not mind the vise, and is no more where it is struck out', () => {
    expect(setterOf(calibrated(-11.2), happened('vise-moved'))?.freshness.state).toBe('fresh')
    const slip = calibrated(-1)
    const strike = add('struck', { target: slip.id, reason: 'A slip.' }) as Entry
    expect(setterOf(calibrated(-11.2), slip, strike)?.height.value).toBeCloseTo(-15.2, 9)
  })

  it('a length by it is stale once it is found to lie elsewhere, and fresh where it is found as it was', () => {
    const first = calibrated(-11.2)
    const tool = measured(first, -9.7)
    expect(toolOf(first, tool)?.length.value).toBeCloseTo(5.5, 9)
    expect(toolOf(first, tool, calibrated(-11.2001))?.freshness.state).toBe('fresh')
    expect(toolOf(first, tool, calibrated(-11.205))?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'measured before the setter was found to lie elsewhere' },
    })
    // One that was calibrated before it does not count against it.
    const [older, then] = [calibrated(-11.3), calibrated(-11.2)]
    expect(toolOf(older, then, measured(then, -9.7))?.freshness.state).toBe('fresh')
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES } from '../control/index.ts'
import { machine as machineSchema, toolShape } from '../machine/index.ts'
import { rowKind } from '../setup/index.ts'
import { describeProfile, firstMachine, firstTools, usualTravels } from './index.ts'

const kinds = ['mill', 'lathe'] as const
const units = ['inch', 'mm'] as const
const travels = (kind: (typeof kinds)[number], unit: (typeof units)[number]) => {
  const { X, Y, Z } = usualTravels(kind, unit)
  return { X, Y: kind === 'mill' ? Y : null, Z }
}

describe('what an own shop is begun with', () => {
  it('is a machine that its schema takes, with the travel below home and nothing that nobody said', () => {
    const length = fc.integer({ min: 1, max: 50_000_000 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        fc.constantFrom(...units),
        length,
        length,
        length,
        (kind, unit, X, Y, Z) => {
          const made = firstMachine('m', {
            name: 'One',
            kind,
            unit,
            travels: { X, Y: kind === 'mill' ? Y : null, Z },
            profileId: 'compact',
          })
          expect(machineSchema.parse(made)).toEqual(made)
          expect(made.axes.X.greatest - made.axes.X.least).toBe(X)
          expect([made.home.X, made.home.Y, made.home.Z, made.axes.Z.greatest]).toEqual([0, 0, 0, 0])
          const { rapids, dynamics, around, head, probe, costs, positions } = made
          expect([rapids, dynamics, around, head, probe, costs, positions]).toEqual(Array(7).fill(null))
        },
      ),
    )
  })

  it('are tools that their schema takes, one of each number, in the unit of the machine', () => {
    for (const kind of kinds)
      for (const unit of units) {
        const of = firstMachine('m', {
          name: 'One',
          kind,
          unit,
          travels: travels(kind, unit),
          profileId: 'compact',
        })
        const tools = firstTools(of, (number) => `t-${number}`)
        expect(tools.length).toBeGreaterThan(2)
        for (const tool of tools) expect(toolShape.parse(tool)).toEqual(tool)
        for (const [n, tool] of tools.entries()) {
          expect(tool.unit).toBe(unit)
          for (const other of tools.slice(0, n))
            expect(rowKind('tools').clashes?.(tool, other)).toBeUndefined()
        }
        const [tap] = tools.filter((tool) => tool.kind === 'tap')
        const drills = tools.filter((tool) => tool.kind === 'drill').map(({ diameter }) => diameter)
        // The tapping drill is the nominal diameter less the pitch, to a number drill or half a millimetre: common practice.
        if (tap)
          expect(
            Math.min(...drills.map((d) => Math.abs(d - (tap.diameter - (tap.pitch ?? 0))))),
          ).toBeLessThan(0.04 * tap.diameter)
      }
  })

  it('are profiles that are told apart by what stands in a program', () => {
    const said = BUILT_IN_PROFILES.map((profile) => JSON.stringify(describeProfile(profile, 'inch')))
    expect(new Set(said).size).toBe(BUILT_IN_PROFILES.length)
    const [compact] = BUILT_IN_PROFILES
    expect(compact && describeProfile(compact, 'mm').map(({ is }) => is)).toEqual([
      'G1 X1.5',
      '(T1 END MILL)',
      'G154 P1 to P99',
      'G53',
    ])
  })
})

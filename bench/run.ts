import { bracketFirst, bracketPallets, demoReference, housingProgram } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { palletOptions, readPalletPlan, readPallets, shiftCase, simulateShift } from '@dogleg/core/pallet'
import { proveCase } from '@dogleg/core/prepare'
import { read } from '@dogleg/core/program'
import { prove } from '@dogleg/core/prove'
import { findSavings } from '@dogleg/core/saving'
import { deriveTools, offsetTable } from '@dogleg/core/setup'
import { setupOf } from './code.ts'
import { medianTime, report } from './report.ts'

const FRAME_MS = 1000 / 60

/** Pallets read and simulated, and what would save time in the demo's housing. */
export function benchRun() {
  const machine = demoReference.machines.find(({ id }) => id === 'mill-2') as Machine
  const profile = demoReference.profiles[0]
  const { plan } = readPalletPlan(bracketPallets, 'mm')
  if (!plan || !profile) throw new Error('the demo has no pallets')
  const control = { machine, profile, unit: 'mm' as const }
  const reading = readPallets(plan, control)
  const shift = shiftCase(plan, reading.seconds, 11)
  const once = () => read(bracketFirst, { ...control })
  const [reads, one, simulating] = medianTime(
    [
      () => readPallets(plan, control),
      once,
      () => [simulateShift(shift), palletOptions(shift, 0.75, { shiftsAMonth: 42, anHour: 110 })],
    ],
    40,
  )
  report({
    name: 'two programs that call each other, followed until the control stops, from either',
    baseline: 'reading one of them once',
    measured: `${reads.toFixed(1)} ms`,
    against: `${one.toFixed(2)} ms`,
    ratio: reads / one,
    limit: 79,
  })
  report({
    name: 'a shift of eight hours and three other ways to run it',
    baseline: 'one frame',
    measured: `${simulating.toFixed(2)} ms`,
    against: `${FRAME_MS.toFixed(1)} ms`,
    ratio: simulating / FRAME_MS,
    limit: 0.33,
  })
  const setup = setupOf(/first side/)
  const log = setup.log.map(({ entry }) => entry)
  const of = proveCase(
    setup,
    offsetTable(setup, log, demoReference),
    deriveTools(log, setup.machine, setup.unit),
    demoReference.tools,
    setup.prove.layout?.layout ?? { unit: 'inch', bodies: [] },
    { text: housingProgram, frame: 'G54' },
  )
  const found = findSavings(of)
  const looked = found.offers.length + found.refused
  const [finding, proving] = medianTime([() => findSavings(of), () => prove(of)], 12)
  report({
    name: `what would save time: ${looked} changes, each proved twice, in a worker`,
    baseline: 'proving the program as often',
    measured: `${finding.toFixed(0)} ms`,
    against: `${(proving * 2 * (looked + 1)).toFixed(0)} ms`,
    ratio: finding / (proving * 2 * (looked + 1)),
    limit: 1.5,
  })
}

import { demoReference, housingProgram } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { prove } from '@dogleg/core/prove'
import {
  act,
  handOn,
  millWorld,
  practiceMachine,
  switchOn,
  touchByFinder,
  viewOf,
} from '@dogleg/core/simulated'
import { medianTime, report } from './report.ts'

const FRAME_MS = 1000 / 60

/** The simulated machine: a click of the handwheel with all that it may touch, and a program handed over to it. */
export function benchSimulated() {
  const machine = demoReference.machines[0] as Machine
  const profile = demoReference.profiles[0]
  const tools = demoReference.tools.filter(({ machineId }) => machineId === machine.id)
  if (!profile) throw new Error('the demo has no profile')
  const practice = switchOn(millWorld(7, { machine: practiceMachine('mill', 'inch'), squared: true }))
  const hand = handOn(practice)
  touchByFinder(hand, { axis: 'X', way: 1 })
  const touching = hand.simulated
  const clicks = () => {
    for (let n = 0; n < 10; n++)
      viewOf(act(touching, { do: 'wheel', axis: 'X', step: 0.0001, clicks: n % 2 === 0 ? 1 : -1 }))
  }
  const [ten] = medianTime([clicks], 40)
  report({
    name: 'ten clicks of the handwheel with an edge finder at a face, each with what is seen of it',
    baseline: 'one frame',
    measured: `${ten.toFixed(2)} ms`,
    against: `${FRAME_MS.toFixed(1)} ms`,
    ratio: ten / FRAME_MS,
    limit: 0.1,
  })
  const mill = switchOn(millWorld(7, { machine, profile, tools, squared: true }))
  const text = housingProgram
  const [handing, proving] = medianTime(
    [
      () => act(mill, { do: 'load', text }),
      () =>
        prove({
          text,
          profile,
          machine,
          unit: 'inch',
          frame: 'G54',
          offsets: [{ name: 'G54', axes: { X: 0, Y: 0, Z: 0 } }],
          lengths: tools.map(({ number }) => ({ tool: number, length: 0 })),
          tools,
          layout: { unit: 'inch', bodies: [] },
        }),
    ],
    40,
  )
  report({
    name: 'a program handed over: read, and where it really goes with what it hits',
    baseline: 'proving the same text with nothing on the table',
    measured: `${handing.toFixed(1)} ms`,
    against: `${proving.toFixed(1)} ms`,
    ratio: handing / proving,
    limit: 3.2,
  })
}

import { onRotary } from './rotary.ts'
import type { SimulatedState } from './state.ts'
import { levelOf } from './true-rotary.ts'
import type { HiddenTruth, SimulatedView } from './view-schema.ts'
import { isMillWorld, partZeroOf } from './world.ts'

/** What is hidden, for who wants to know how far off they were: then the piece is known. On a lathe Z 0 is the face as it is now. */
export function hiddenOf(simulated: SimulatedState): HiddenTruth {
  const { world, vise, bar } = simulated
  const turning = onRotary(simulated) ? simulated.world.rotary : undefined
  return {
    zero: !turning && isMillWorld(world) && vise ? partZeroOf(world, vise.frame) : null,
    rotary: turning
      ? { Y: turning.axis.y, Z: turning.axis.z, word: turning.word, level: levelOf(turning) }
      : null,
    tools: world.tools.map(({ shape, length, geometry }) => ({
      number: shape.number,
      length: isMillWorld(world) ? length : null,
      geometry: geometry && bar ? { X: geometry.X, Z: geometry.Z + bar.face } : null,
    })),
  }
}

/** One value that is hidden, what is keyed in for it, and how far that is off; null where nothing is keyed in. */
export interface AgainstHidden {
  name: string
  truth: number
  keyed: number | null
  off: number | null
  degrees?: true
}

/** Every hidden value against what is keyed in: G54 against the block's corner, lengths and geometries against the true ones. */
export function againstHidden(
  { offsets, rotaryZeros, lengths }: SimulatedView,
  { zero, rotary, tools }: HiddenTruth,
): AgainstHidden[] {
  const line = (name: string, truth: number, keyed: number | undefined): AgainstHidden => ({
    name,
    truth,
    keyed: keyed ?? null,
    off: keyed === undefined ? null : keyed - truth,
  })
  return [
    ...(zero
      ? (['X', 'Y', 'Z'] as const).map((axis) => line(`${axis} of G54`, zero[axis], offsets.G54?.[axis]))
      : []),
    ...(rotary
      ? [
          line('the centre line, Y', rotary.Y, offsets.G54?.Y),
          line('the centre line, Z', rotary.Z, offsets.G54?.Z),
          {
            ...line(`${rotary.word} with the flat up`, rotary.level, rotaryZeros.G54),
            degrees: true as const,
          },
        ]
      : []),
    ...tools.flatMap(({ number, length, geometry }) => [
      ...(length === null ? [] : [line(`length of T${number}`, length, lengths[number])]),
      ...(geometry
        ? (['X', 'Z'] as const).map((axis) =>
            line(`${axis} geometry of T${number}`, geometry[axis], offsets[`T${number}`]?.[axis]),
          )
        : []),
    ]),
  ]
}

import type { BenchView } from './view.ts'

/** What is hidden in a simulated machine, in its unit. */
export interface HiddenTruth {
  zero: { X: number; Y: number; Z: number; angle: number } | null
  tools: readonly { number: number; length: number | null; geometry: { X: number; Z: number } | null }[]
}

/** One value that is hidden, what is keyed in for it, and how far that is off; null where nothing is keyed in. */
export interface AgainstHidden {
  name: string
  truth: number
  keyed: number | null
  off: number | null
}

/** Every hidden value against what is keyed in: G54 against the block's corner, lengths and geometries against the true ones. */
export function againstHidden(
  { offsets, lengths }: BenchView,
  { zero, tools }: HiddenTruth,
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

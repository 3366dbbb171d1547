import type { LinearAxis } from '../machine/index.ts'
import { type Reading, zeroMoved } from '../pickup/index.ts'
import { type EntryOf, offsetOf, type Setup } from '../setup/index.ts'
import { edge, inch, touch } from '../setup/testing.ts'

// What a person reads and says of a zero, as the bodies of their entries.

type Body<Kind extends 'stock' | 'pickup'> = Omit<EntryOf<Kind>, 'id' | 'setup' | 'at' | 'by' | 'kind'>

/** An axis as it is taken. */
export const readingOf = (kind: 'mill' | 'lathe', axis: LinearAxis): Reading => {
  if (kind === 'lathe')
    return axis === 'X'
      ? { method: 'skimmed', axis, machinePosition: inch(-10.5), measured: inch(1.25) }
      : { method: 'faced', axis: 'Z', machinePosition: inch(-8), drawingPosition: inch(0.02) }
  return axis === 'Z' ? touch(3) : edge(axis, axis === 'X' ? -14 : -6)
}

/** The block as it was touched, against a part that is so high: what is too high does not come out of it. */
export function stockOf(setup: Setup, offset: string, high: number): Body<'stock'> | undefined {
  const { axes } = offsetOf(setup, offset)
  const rests = Object.values(axes).map(({ entry }) => entry.id)
  if (rests.length === 0) return undefined
  return {
    offset,
    asked: {
      finished: { X: inch(3.9), Y: inch(1.9), Z: inch(high) },
      offTop: inch(0.02),
      offLow: { X: inch(0.05), Y: inch(0.05) },
      zero: { X: 'low', Y: 'low', Z: 'finished-top' },
      seat: inch((axes.Z?.position ?? 0) - 1.1),
    },
    rests,
  }
}

/** X0 put half an inch further along the drawing. */
export function zeroMovedOf(setup: Setup, offset: string): Body<'pickup'> | undefined {
  const fact = offsetOf(setup, offset).axes.X
  const { machine } = setup
  return (
    fact && {
      offset,
      reading: zeroMoved(fact.entry.reading, 0.5, 'inch'),
      machine: { id: machine.id, version: machine.version },
      moved: inch(0.5),
    }
  )
}

/** How the part lies, by three touches along an edge of four inches that rises so far. */
export function angleOf(rise: number): Pick<EntryOf<'angled'>, 'reading' | 'reach' | 'allowed'> {
  const at = (x: number, y: number) => ({ x: inch(x), y: inch(y) })
  return {
    reading: {
      method: 'edge',
      device: 'probe',
      points: [at(-14, -6), at(-12, -6 + rise / 2), at(-10, -6 + rise)],
      nominal: 0,
    },
    reach: inch(4),
    allowed: inch(0.002),
  }
}

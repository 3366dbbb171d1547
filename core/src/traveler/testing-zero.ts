import type { LinearAxis } from '../machine/index.ts'
import { type Reading, zeroMoved } from '../pickup/index.ts'
import { readCentreDraft, readFlatDraft, startingCentre, startingFlat } from '../rotary/index.ts'
import { type Entry, type EntryOf, offsetOf, onCentreLine, type Setup, shiftTools } from '../setup/index.ts'
import { add, edge, inch, touch } from '../setup/testing.ts'

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

const on = ({ machine: { id, version } }: Setup) => ({ machine: { id, version } })

function centreLine(setup: Setup): Entry[] {
  const read = readCentreDraft(
    {
      ...startingCentre('sensor', 'inch'),
      turned: '0',
      front: '-9',
      back: '-7',
      halfTurned: '180',
      halfFront: '-9.001',
      halfBack: '-7.001',
    },
    'inch',
  )
  return read.ok ? [add('centre-line', { reading: read.value, ...on(setup) }) as Entry] : []
}

function flat(setup: Setup, offset: string, z2: string): Entry[] {
  const read = readFlatDraft(
    { ...startingFlat('probe'), turned: '10', y1: '-8.5', z1: '-10', y2: '-7.5', z2 },
    'inch',
  )
  return read.ok ? [add('flat', { offset, reading: read.value, ...on(setup) }) as Entry] : []
}

const onLine = (setup: Setup, offset: string): Entry[] =>
  setup.centre
    ? onCentreLine(setup.centre, inch(0)).map(
        ({ reading, rests }) => add('pickup', { offset, reading, rests, ...on(setup) }) as Entry,
      )
    : []

const ROTARY = ['centre line', 'flat', 'flat of another face', 'put on line'] as const
type RotaryWork = (typeof ROTARY)[number]

export const isRotaryWork = (what: string): what is RotaryWork => ROTARY.some((each) => each === what)

/** What a person enters of a rotary, well or badly. */
export const rotaryWork = (setup: Setup, what: RotaryWork, offset: string): Entry[] =>
  ({
    'centre line': () => centreLine(setup),
    flat: () => flat(setup, offset, '-9.99'),
    'flat of another face': () => flat(setup, offset, '-8'),
    'put on line': () => onLine(setup, offset),
  })[what]()

/** What is asked for of a rotary, done: the line first, then what lies on it, then the angle. */
export function followRotary(setup: Setup, offset: string): Entry[] {
  const { centre } = setup
  if (centre && (centre.freshness.state === 'stale' || centre.verdict === 'stop')) return centreLine(setup)
  const { Y } = offsetOf(setup, offset).axes
  return Y?.entry.reading.method === 'centre-line' && Y.freshness.state === 'stale'
    ? onLine(setup, offset)
    : flat(setup, offset, '-9.99')
}

/** The work shift by the first tool that it can be taken with; nothing where there is none. */
export function workShiftOf(setup: Setup): Entry[] {
  const [tool] = shiftTools(setup.offsets)
  const z = tool?.axes.Z
  if (!tool || !z) return []
  const reading = {
    machinePosition: inch(-7.9),
    drawingPosition: inch(0.02),
    geometry: inch(z.value),
    geometryWithin: inch(0.0005),
  }
  return [add('work-shift', { offset: tool.name, reading, rests: [z.entry.id], ...on(setup) }) as Entry]
}

/** A tool's length against the master, as long as the Z of the tests is taken with. */
export const lengthOf = (tool: number) => ({
  tool,
  machinePosition: inch(-9.5),
  masterPosition: inch(-10),
  masterLength: inch(4),
})

/** The look at the part: a distance that the drawing has as 2, and as 3 where it lies the other way round. */
export const identifiedAs = (measured: number) => ({
  distances: [
    { name: 'A-B', drawing: inch(2), within: inch(0.005), turned: inch(3), measured: inch(measured) },
  ],
})

/** What a program that is turned for an offset rests on. */
export function turnedRests(setup: Setup, name: string): string[] {
  const { axes, angle } = offsetOf(setup, name)
  return [...Object.values(axes).map(({ entry }) => entry.id), ...(angle ? [angle.entry.id] : [])]
}

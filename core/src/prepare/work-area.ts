import { barRange, jawsOf, movesIn, type Vise, viseIn, viseOpening } from '../hold/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { type Side, touchedAt } from '../pickup/index.ts'
import type { Body } from '../prove/index.ts'
import { convertLength, type LengthUnit } from '../quantity/index.ts'
import type { OffsetState, Setup } from '../setup/index.ts'

/** Numbers of a body that is to be placed, by their field; lengths in the setup's unit, places from part zero. */
export type BodyNumbers = Partial<
  Record<'x' | 'y' | 'z' | 'sizeX' | 'sizeY' | 'sizeZ' | 'diameter' | 'length', number>
>

/** What the log knows of a body before anybody types it, and where each number comes from. */
export interface KnownBody {
  numbers: BodyNumbers
  why: string[]
}

const FACES: Record<LinearAxis, Record<Side, string>> = {
  X: { plus: 'its left face', minus: 'its right face', round: 'the middle of its width' },
  Y: { plus: 'its front face', minus: 'its back face', round: 'the middle of its depth' },
  Z: { plus: 'its bottom', minus: 'its top', round: 'the middle of its height' },
}

const lowest = (at: number, side: Side, size: number) =>
  side === 'plus' ? at : side === 'minus' ? at - size : at - size / 2

const SIZES = { X: 'sizeX', Y: 'sizeY', Z: 'sizeZ' } as const
const SIZE_NAMES = { X: 'its length', Y: 'its width', Z: 'its height' } as const
const PLACES = { X: 'x', Y: 'y', Z: 'z' } as const

/** The corner of the part as zero was taken, for the sizes that are typed so far. */
function knownPart({ unit }: Setup, { axes, name, stock }: OffsetState, typed: BodyNumbers): KnownBody {
  const known: KnownBody = { numbers: {}, why: [] }
  for (const axis of ['X', 'Y', 'Z'] as const) {
    const fact = axes[axis]
    const touched = fact && touchedAt(fact.entry.reading, unit)
    if (!touched) continue
    const measured =
      touched.side === 'round' ? fact.size?.value : axis === 'Z' ? stock?.Z.measured : undefined
    if (measured !== undefined && typed[SIZES[axis]] === undefined) {
      known.numbers[SIZES[axis]] = measured
      known.why.push(`${SIZE_NAMES[axis]} is that of the block as it was touched`)
    }
    const size = typed[SIZES[axis]] ?? measured
    const needsNone = touched.side === 'plus'
    if (size !== undefined || needsNone)
      known.numbers[PLACES[axis]] = lowest(touched.at, touched.side, size ?? 0)
    known.why.push(`${axis} of ${name} was taken at ${FACES[axis][touched.side]}`)
  }
  return known
}

/** The bar as it was gripped, its end as Z was faced. */
function knownBar(
  { hold: { grip }, unit }: Setup,
  { axes, name }: OffsetState,
  typed: BodyNumbers,
): KnownBody {
  const known: KnownBody = { numbers: {}, why: [] }
  if (grip) {
    known.numbers.diameter = barRange(grip.entry.bars, unit).greatest
    known.why.push('the bar is that of Hold')
  }
  const faced = axes.Z && touchedAt(axes.Z.entry.reading, unit)
  if (faced) {
    if (typed.length !== undefined) known.numbers.z = lowest(faced.at, faced.side, typed.length)
    known.why.push(`Z of ${name} was taken at its face`)
  }
  return known
}

/**
 * What is known of a part or a bar before it is placed: where its corner lies by how zero was taken, and on a lathe its diameter.
 * `typed` are the numbers that stand in the form. What nobody measured is not there.
 */
export const knownBody = (setup: Setup, offset: OffsetState, typed: BodyNumbers): KnownBody =>
  setup.machine.kind === 'lathe' ? knownBar(setup, offset, typed) : knownPart(setup, offset, typed)

/** How a part lies in a vise, in the setup's unit. */
export interface InVise {
  /** How far it stands out above the jaws. */
  above: number
  /** From the left end of the jaws to its left face, plus where it begins further right. */
  fromLeft: number
}

/**
 * The jaws of a vise round a part: the fixed one against its back face, the moving one against its front, their tops as far below
 * its top as it stands out. The jaws are the parts of the vise that stand highest. In the unit of the part; nothing where the vise
 * does not open so far.
 */
export function jawsRound(of: Vise, part: Body, unit: LengthUnit, { above, fromLeft }: InVise): Body[] {
  if (part.shape !== 'box') return []
  const vise = viseIn(of, unit)
  const opening = part.size.y
  const most = viseOpening(vise) ?? Number.POSITIVE_INFINITY
  return jawsOf(vise).flatMap((jaw, index): Body[] => {
    const moves = movesIn(jaw)
    if (moves && opening > most + 1e-6) return []
    const thick = jaw.closed.back - jaw.closed.front
    const front = moves ? -opening - thick : jaw.closed.front
    const top = part.at.z + part.size.z - above
    const high = jaw.top - jaw.bottom
    return [
      {
        id: `jaw-${index + 1}`,
        name: jaw.name.slice(0, 30),
        role: 'vise',
        shape: 'box',
        at: { x: part.at.x - fromLeft, y: part.at.y + part.size.y + front, z: top - high },
        size: { x: vise.jawLength, y: thick, z: high },
      },
    ]
  })
}

/** How far the farthest corner of the part lies from part zero, in X and Y, where it is placed; undefined where it is not. */
export function reachOfPart({ prove: { layout }, unit }: Setup): number | undefined {
  const own = (value: number) => convertLength(value, layout?.layout.unit ?? unit, unit)
  const corners = (layout?.layout.bodies ?? []).flatMap((body) =>
    body.role === 'part' && body.shape === 'box'
      ? [body.at.x, body.at.x + body.size.x].flatMap((x) =>
          [body.at.y, body.at.y + body.size.y].map((y) => Math.hypot(own(x), own(y))),
        )
      : [],
  )
  return corners.length > 0 ? Math.max(...corners) : undefined
}

/** Sizes of the part as it was placed in the work area, in the setup's unit; nothing where it is not, or where there are several. */
export interface PartSizes {
  /** Along X, as a vise holds it. */
  along?: number
  high?: number
  /** Of a bar. */
  diameter?: number
}

/** The sizes of the part that is placed: how large it is does not go stale with where it stands. */
export function partSizes({ prove: { layout }, unit }: Setup): PartSizes {
  const parts = (layout?.layout.bodies ?? []).filter(({ role }) => role === 'part')
  const [part] = parts
  if (!part || !layout || parts.length > 1) return {}
  const own = (value: number) => convertLength(value, layout.layout.unit, unit)
  if (part.shape === 'box') return { along: own(part.size.x), high: own(part.size.z) }
  if (part.axis === 'Z') return { diameter: own(part.diameter), high: own(part.length) }
  return part.axis === 'X'
    ? { along: own(part.length), high: own(part.diameter) }
    : { along: own(part.diameter), high: own(part.diameter) }
}

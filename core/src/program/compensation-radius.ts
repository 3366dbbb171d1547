import type { Profile } from '../control/index.ts'
import { type ModalState, PLANE_AXES } from './motion.ts'
import type { ReadOptions } from './read-options.ts'
import type { Scaled } from './ways.ts'

/** What of a control's state says the radius. */
interface Asked {
  options: ReadOptions
  /** Number of the D word. */
  d: number
  /** From the program's unit to that of the setup. */
  scale: number
  common: ReadonlyMap<number, number>
  /** What the program wrote into the table. */
  tables: { radii: ReadonlyMap<number, number> }
}

/** Which tool's wear of diameter or radius a variable holds, by its number; undefined where it is none. */
export function wearOf({ macros }: Profile, variable: number): number | undefined {
  const first = macros?.diameterWear
  return first !== undefined && variable >= first && variable < first + 200 ? variable - first + 1 : undefined
}

/**
 * The radius by which a control leads the tool beside its path, in the setup's unit: what D holds of the tool's geometry, and its wear as
 * far as it is in the variables, added or taken away as the profile says. D0 is no radius. NaN where it is not known.
 */
export function compensationRadius({ options, d, scale, common, tables }: Asked): number {
  if (d === 0) return 0
  const { macros, reading } = options.profile
  const { holds, wear: sign } = reading.compensation
  const geometry = holds === 'wear' ? 0 : (tables.radii.get(d) ?? options.radii?.get(d) ?? Number.NaN)
  const kept = macros ? common.get(macros.diameterWear + d - 1) : undefined
  const wear = ((kept ?? 0) * scale) / (macros?.wearAs === 'diameter' ? 2 : 1)
  return geometry + (sign === 'added' ? wear : -wear)
}

/** How far to the left of the written path the tool's centre goes: the radius of D with its wear, or on a lathe of the nose, on its side. */
export function besideOf(
  of: Asked &
    Pick<ModalState, 'compensation' | 'offset' | 'plane'> & {
      lathe: boolean
      scaled: Scaled | null
      face: { words: ModalState['face'] } | null
    },
): Pick<ModalState, 'beside' | 'tip'> {
  if (of.compensation === 40) return { beside: 0, tip: null }
  const geometry = of.lathe ? Number(/^T(\d+)$/.exec(of.offset)?.[1]) : 0
  // On the face of a turned part a driven cutter goes round, and no insert.
  const nose = of.lathe && !of.face ? of.options.noses?.get(geometry) : undefined
  const own = of.face ? of.options.radii?.get(geometry) : nose?.radius
  const radius = of.lathe ? (own ?? Number.NaN) : compensationRadius(of)
  // Mirrored, left is right.
  const [first, second] = PLANE_AXES[of.plane]
  const mirrored = of.scaled && of.scaled.times[first] * of.scaled.times[second] < 0
  const left = (of.compensation === 41) !== !!mirrored
  return {
    beside: left ? radius : -radius,
    tip: nose && !Number.isNaN(radius) ? [nose.x * nose.radius, 0, nose.z * nose.radius] : null,
  }
}

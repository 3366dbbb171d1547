import { insertNoses, leastStepIn, type Machine, type Nose, type ToolShape } from '../machine/index.ts'
import { alongArc, endOf, FLAG, isArc, type ModalState, type Motion, ROW } from '../program/index.ts'
import { formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type ProgramFinding, programFinding } from './program-finding.ts'

/** What a tool's nose makes of the surfaces that it is led along without compensation: how many of a kind, and the worst. */
interface Left {
  tool: number
  kind: 'taper' | 'arc'
  row: number
  /** How far off it comes out, as it is measured: a diameter, a length along Z, or a radius of an arc. */
  off: number
  says: string
  times: number
}

/**
 * What a nose leaves standing, square to a surface, when its programmed point is led along it: its circle reaches one radius towards the
 * material, the point `across` of one. For a corner point and a surface at an angle t to the axis R (sin t + cos t - 1), common practice,
 * and derived in the same way; below 0 where it cuts too deep.
 */
export const leftByNose = (radius: number, across: number): number => radius * (across - 1)

/** From the middle of the nose to its programmed point, in radii: the share of it that points square to a way, from the side of the nose. */
function acrossOf(nose: Nose, dx: number, dz: number): number {
  const length = Math.hypot(dx, dz)
  return Math.abs(nose.x * dz - nose.z * dx) / length
}

/** A straight way that is neither along Z nor along X: the surface comes out so much too large or small, measured as a diameter or along Z. */
function onTaper(nose: Nose, dx: number, dz: number) {
  const normal = leftByNose(nose.radius, acrossOf(nose, dx, dz))
  const length = Math.hypot(dx, dz)
  const steep = Math.abs(dx) > Math.abs(dz) * (1 + 1e-9)
  return {
    normal,
    steep,
    measured: steep ? (normal * length) / Math.abs(dx) : (2 * normal * length) / Math.abs(dz),
  }
}

/**
 * Where an insert is led along tapers and arcs by its imaginary tip, without compensation: what its nose leaves of them. One note for the
 * tapers of a tool and one for its arcs, at the worst. Roughing is left out: stock stays on it.
 */
export function noseFindings(
  motion: Motion,
  { machine, tools, unit }: { machine: Machine; tools: readonly ToolShape[]; unit: LengthUnit },
): ProgramFinding[] {
  const noses = insertNoses(tools, unit)
  const least = leastStepIn(machine, unit)
  const found = new Map<string, Left>()
  const seen = new Set<string>()
  const put = (kind: Left['kind'], row: number, tool: number, off: number, says: string) => {
    const key = `${kind}/${tool}`
    const before = found.get(key)
    const at = `${key}/${motion.line[row]}`
    const times = (before?.times ?? 0) + (seen.has(at) ? 0 : 1)
    seen.add(at)
    if (!before || off > before.off + 1e-9) found.set(key, { tool, kind, row, off, says, times })
    else before.times = times
  }
  let state: ModalState | undefined
  let nose: Nose | undefined
  let index = -1
  for (let row = 0; row < motion.count; row++) {
    const kind = motion.kind[row] as number
    if (kind !== ROW.LINE && !isArc(kind)) continue
    if (motion.state[row] !== index) {
      index = motion.state[row] as number
      state = motion.states[index]
      nose = state ? noses.get(state.tool) : undefined
    }
    const flags = motion.flags[row] as number
    const roughs = (flags & FLAG.CYCLE) !== 0 && (flags & FLAG.CONTOUR) === 0
    if (!state || !nose || !(nose.radius > 0) || state.beside !== 0 || roughs) continue
    if (nose.x === 0 && nose.z === 0) continue
    // What goes off is not along a surface.
    if (row > 0 && motion.states[motion.state[row - 1] as number]?.beside !== 0) continue
    const from = endOf(motion, row - 1)
    const to = endOf(motion, row)
    const [dx, dz] = [to[0] - from[0], to[2] - from[2]]
    const say = (length: number) => formatWithUnit(Math.abs(length), unit)
    if (!isArc(kind)) {
      if (Math.abs(dx) < least || Math.abs(dz) < least) continue
      const { normal, steep, measured } = onTaper(nose, dx, dz)
      if (Math.abs(normal) < least) continue
      const inside = nose.x > 0
      const large = normal > 0 !== inside
      put(
        'taper',
        row,
        state.tool,
        Math.abs(measured),
        steep
          ? `this taper comes out ${say(measured)} ${normal > 0 ? 'too far out' : 'too deep'} along Z`
          : `this taper comes out ${say(measured)} ${large ? 'large' : 'small'} in diameter`,
      )
      continue
    }
    const base = 6 * (motion.aux[row] as number)
    const radius = motion.arcs[base + 3 + 1] as number
    // The nose goes round outside of the centre of a ridge: the arc that is left is that much smaller, and in a fillet that much larger.
    const [x, , z] = alongArc(motion, row, 0.5)
    const outwards =
      nose.x * (x - (motion.arcs[base] as number)) + nose.z * (z - (motion.arcs[base + 2] as number))
    const ridge = outwards < 0
    const comes = ridge ? radius - nose.radius : radius + nose.radius
    put(
      'arc',
      row,
      state.tool,
      nose.radius,
      comes > 0
        ? `this arc of ${say(radius)} comes out with a radius of ${say(comes)}`
        : `this arc of ${say(radius)} comes out as a sharp corner`,
    )
  }
  return [...found.values()].map(({ tool, kind, row, says, times }) =>
    programFinding(
      'note',
      kind === 'taper' ? 'nose-taper' : 'nose-arc',
      motion.line[row] as number,
      `Without compensation for the nose of T${tool}, ${says}.`,
      'Right if the program allows for the nose already: its tip is led along what is written.',
      {
        row,
        fix: 'Write G41 or G42 before the contour and G40 after it.',
        ...(times > 1 ? { more: times - 1 } : {}),
      },
    ),
  )
}

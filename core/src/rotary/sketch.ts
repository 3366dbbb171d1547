import { radians } from '../geometry/index.ts'
import { type LengthUnit, readLength } from '../quantity/index.ts'
import type { Centre } from './centre.ts'
import type { CentreDraft, FlatDraft } from './draft.ts'
import type { Flat } from './flat.ts'

/** A place of the picture, about the middle: to the right is to the back (Y plus), up is up; the part's radius is 1. */
interface SketchPlace {
  right: number
  up: number
}

/** A part with a flat, seen from its right end: the picture behind a flat's numbers. */
export interface FlatSketch {
  /** Degrees that the flat's outward side looks to, from the right, counter-clockwise. */
  looks: number
  /** Degrees that the tilt is drawn with: a small one as much as can be seen. */
  shownTilt: number
  /** The two ends of the flat. */
  ends: readonly [SketchPlace, SketchPlace]
  /** The tips, outside of the flat, in the order of the touches. */
  tips: readonly [SketchPlace, SketchPlace]
  tipRadius: number
}

/** Smaller tilts cannot be seen; larger ones are drawn as they are. Degrees. */
const SEEN_FROM = 4
const FLAT_HEIGHT = 0.72
const TIP = 0.1
const LOOKS = { up: 90, front: 180, back: 0 } as const

const along = (degrees: number): SketchPlace => ({
  right: Math.cos(radians(degrees)),
  up: Math.sin(radians(degrees)),
})
const sum = (a: SketchPlace, b: SketchPlace, times: number): SketchPlace => ({
  right: a.right + times * b.right,
  up: a.up + times * b.up,
})
const NOWHERE: SketchPlace = { right: 0, up: 0 }

/** Works out the picture of a flat; without an answer yet it lies straight. */
export function flatSketch(draft: FlatDraft, flat: Pick<Flat, 'tilt'> | undefined): FlatSketch {
  const tilt = flat?.tilt ?? 0
  const shownTilt = tilt === 0 ? 0 : Math.sign(tilt) * Math.max(SEEN_FROM, Math.abs(tilt))
  const faces = draft.method === 'level' ? 'up' : draft.faces
  const looks = LOOKS[faces] + shownTilt
  const normal = along(looks)
  const side = along(looks - 90)
  const middle = sum(NOWHERE, normal, FLAT_HEIGHT)
  const half = Math.sqrt(1 - FLAT_HEIGHT ** 2)
  // Which end is touched first: the lower Y of one that faces up, the lower Z of another.
  const [a, b] = [sum(middle, side, -0.6 * half), sum(middle, side, 0.6 * half)]
  const low = faces === 'up' ? a.right <= b.right : a.up <= b.up
  const number = (text: string) => {
    const read = readLength(text, 'inch')
    return read.ok ? read.value : undefined
  }
  const [one, two] =
    faces === 'up' ? [number(draft.y1), number(draft.y2)] : [number(draft.z1), number(draft.z2)]
  const forward = one === undefined || two === undefined || one <= two
  const [first, second] = low === forward ? [a, b] : [b, a]
  const tip = (at: SketchPlace) => sum(at, normal, TIP)
  return {
    looks,
    shownTilt,
    ends: [sum(middle, side, -half), sum(middle, side, half)],
    tips: [tip(first), tip(second)],
    tipRadius: TIP,
  }
}

/** What a rotary holds, seen from its right end: the axis in the middle, the part beside it as far as can be seen. */
export interface CentreSketch {
  /** The part's middle as touched first, and after half a turn where it was; the radius of the part is 1. */
  first: SketchPlace
  half: SketchPlace | undefined
  tipRadius: number
}

/** A part that runs out is drawn this far off the axis at most, and off it at least so far where it does at all. */
const OFF_MOST = 0.16
const OFF_LEAST = 0.06

/** Works out the picture of a centre line; how far the part runs out is drawn larger than it is. */
export function centreSketch(draft: CentreDraft, centre: Centre | undefined, unit: LengthUnit): CentreSketch {
  const [y, z] = [centre?.Y?.runsOut ?? 0, centre?.Z?.runsOut ?? 0]
  const off = Math.hypot(y, z)
  const across = readLength(draft.across, unit)
  const radius = across.ok && across.value > 0 ? across.value / 2 : unit === 'inch' ? 1 : 25
  const shown = off === 0 ? 0 : Math.min(OFF_MOST, Math.max(OFF_LEAST, off / radius))
  const first = off === 0 ? NOWHERE : { right: (y / off) * shown, up: (z / off) * shown }
  return {
    first,
    half: centre?.runsOut ? { right: -first.right, up: -first.up } : undefined,
    tipRadius: TIP,
  }
}

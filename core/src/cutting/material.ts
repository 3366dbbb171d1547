import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'

const speed = z.number().positive('A speed must be more than zero.').max(5_000)

/**
 * What a material is cut at: a starting point, to be corrected by what the shop has found. A row with a version.
 * Speeds over the surface are in feet a minute where `unit` is inch, else in metres a minute.
 */
export const material = z.object({
  id: z.string().min(1).max(40),
  version: z.int().min(1),
  name: z.string().trim().min(1, 'Give the material a name.').max(40, 'Keep the name under 40 characters.'),
  unit: lengthUnit,
  drilling: speed.describe('high-speed steel drill'),
  tapping: speed.describe('cut tap'),
  forming: speed.describe('form tap'),
  grooving: speed.describe('carbide insert'),
  drillFeed: z
    .number()
    .positive('A feed must be more than zero.')
    .max(20)
    .describe('feed a turn of a drill, in percent of its diameter'),
  grooveFeed: z.number().positive('A feed must be more than zero.').max(1).describe('feed a turn, in unit'),
  note: z.string().max(300),
})
export type Material = z.infer<typeof material>

export type SpeedOf = 'drilling' | 'tapping' | 'forming' | 'grooving'

/** A material's speeds in another unit: feet a minute or metres a minute, feed in inches or millimetres a turn. */
export function materialIn(of: Material, unit: LengthUnit): Material {
  if (of.unit === unit) return of
  // A foot a minute is 0.3048 m a minute (international foot).
  const own = (value: number) => (unit === 'mm' ? value * 0.3048 : value / 0.3048)
  return {
    ...of,
    unit,
    drilling: own(of.drilling),
    tapping: own(of.tapping),
    forming: own(of.forming),
    grooving: own(of.grooving),
    grooveFeed: convertLength(of.grooveFeed, of.unit, unit),
  }
}

const usual = (
  id: string,
  name: string,
  [drilling, tapping, forming, grooving]: readonly [number, number, number, number],
  drillFeed: number,
  grooveFeed: number,
): Material => ({
  id,
  version: 1,
  name,
  unit: 'inch',
  drilling,
  tapping,
  forming,
  grooving,
  drillFeed,
  grooveFeed,
  note: '',
})

/** Cautious starting points in feet a minute. Common practice, from memory: the tool maker's page comes first. */
export const USUAL_MATERIALS: readonly Material[] = [
  usual('aluminium', 'Aluminium', [220, 60, 70, 800], 1.8, 0.004),
  usual('mild-steel', 'Mild steel', [85, 35, 40, 400], 1.5, 0.004),
  usual('alloy-steel', 'Alloy steel', [60, 25, 25, 320], 1.2, 0.003),
  usual('stainless', 'Stainless steel, austenitic', [40, 15, 20, 260], 1.2, 0.003),
  usual('brass', 'Brass', [180, 70, 70, 600], 1.8, 0.004),
  usual('cast-iron', 'Cast iron', [75, 40, 40, 320], 1.6, 0.004),
  usual('titanium', 'Titanium', [30, 12, 10, 130], 1.0, 0.002),
  usual('plastic', 'Plastic', [200, 60, 60, 700], 2.0, 0.005),
]

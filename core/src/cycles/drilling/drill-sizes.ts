import { convertLength, type LengthUnit } from '../../quantity/index.ts'

/** A drill of a standard set. */
export interface DrillSize {
  /** 'No. 7', 'F', '5/16', '6.80 mm'. */
  name: string
  unit: LengthUnit
  diameter: number
}

/** Number drills 1 to 80, thousandths of an inch times ten (ASME B94.11M; from memory). */
const NUMBERS = [
  2280, 2210, 2130, 2090, 2055, 2040, 2010, 1990, 1960, 1935, 1910, 1890, 1850, 1820, 1800, 1770, 1730, 1695,
  1660, 1610, 1590, 1570, 1540, 1520, 1495, 1470, 1440, 1405, 1360, 1285, 1200, 1160, 1130, 1110, 1100, 1065,
  1040, 1015, 995, 980, 960, 935, 890, 860, 820, 810, 785, 760, 730, 700, 670, 635, 595, 550, 520, 465, 430,
  420, 410, 400, 390, 380, 370, 360, 350, 330, 320, 310, 292, 280, 260, 250, 240, 225, 210, 200, 180, 160,
  145, 135,
]

/** Letter drills A to Z, thousandths of an inch (ASME B94.11M; from memory). */
const LETTERS = [
  234, 238, 242, 246, 250, 257, 261, 266, 272, 277, 281, 290, 295, 302, 316, 323, 332, 339, 348, 358, 368,
  377, 386, 397, 404, 413,
]

const inch = (name: string, diameter: number): DrillSize => ({ name, unit: 'inch', diameter })

function fraction(of64: number): string {
  const whole = Math.floor(of64 / 64)
  let [top, bottom] = [of64 % 64, 64]
  while (top % 2 === 0 && top > 0) {
    top /= 2
    bottom /= 2
  }
  return [whole > 0 ? String(whole) : '', top > 0 ? `${top}/${bottom}` : ''].filter(Boolean).join('-')
}

/** Fractions by 64ths to 1-1/2 inch. */
const FRACTIONS = Array.from({ length: 96 }, (_, n) => inch(fraction(n + 1), (n + 1) / 64))

/** Metric drills: by 0.05 to 3 mm, by 0.1 to 14 mm, by 0.25 to 32 mm. */
const METRIC = [
  ...Array.from({ length: 50 }, (_, n) => 50 + 5 * (n + 1)),
  ...Array.from({ length: 110 }, (_, n) => 300 + 10 * (n + 1)),
  ...Array.from({ length: 72 }, (_, n) => 1400 + 25 * (n + 1)),
].map(
  (hundredths): DrillSize => ({
    name: `${(hundredths / 100).toFixed(2)} mm`,
    unit: 'mm',
    diameter: hundredths / 100,
  }),
)

const INCH = [
  // Fractions first: E and 1/4 are one size, and it is called by its fraction.
  ...FRACTIONS,
  ...NUMBERS.map((size, n) => inch(`No. ${n + 1}`, size / 10_000)),
  ...LETTERS.map((size, n) => inch(String.fromCharCode(65 + n), size / 1_000)),
]

/** Each drill with its diameter in mm, converted exactly and once: a field that is typed in asks for the nearest at every key. */
const IN_MM = [...INCH, ...METRIC]
  .map((drill) => ({ drill, mm: convertLength(drill.diameter, drill.unit, 'mm') }))
  .sort((a, b) => a.mm - b.mm)

/** Every drill of the standard sets, in rising size. */
export const DRILL_SIZES: readonly DrillSize[] = IN_MM.map(({ drill }) => drill)

/** The nearest drill, and how far it is from the diameter, in mm. */
function nearest(diameter: number, unit: LengthUnit) {
  const wanted = convertLength(diameter, unit, 'mm')
  let best: { drill: DrillSize; off: number } | undefined
  for (const { drill, mm } of IN_MM) {
    const off = Math.abs(mm - wanted)
    const isNearer = !best || off < best.off
    const isOwn = off === best?.off && drill.unit === unit && best.drill.unit !== unit
    if (isNearer || isOwn) best = { drill, off }
  }
  return best as { drill: DrillSize; off: number }
}

/** The drill of all sets together that is nearest to a diameter in `unit`; of two that are as near that of its own unit. */
export const nearestDrill = (diameter: number, unit: LengthUnit): DrillSize => nearest(diameter, unit).drill

/** The drill by its diameter, where it is one of the sets: the nearest within a hundredth of a millimetre. */
export function drillName(diameter: number, unit: LengthUnit): string | undefined {
  const { drill, off } = nearest(diameter, unit)
  return off < 0.01 ? drill.name : undefined
}

import { type GaugePlanDraft, type MeasuredPart, newPlan, startingFeature } from '../gauge/index.ts'
import { roundTo } from '../quantity/index.ts'

const feature = (
  id: string,
  what: Parameters<typeof startingFeature>[0],
  name: string,
  more: Partial<ReturnType<typeof startingFeature>>,
) => ({ id, draft: { ...startingFeature(what, name, 'inch'), ...more } })

/** What is gauged on each focuser housing. */
export const housingGauging: GaugePlanDraft = {
  ...newPlan('Housing, first side', 5420),
  features: [
    feature('bore', 'bore', 'BORE', {
      nominal: '1.25',
      tolerance: '+.0010 -0',
      x: '1.9',
      y: '-1.5',
      tool: '7',
      react: 'wear',
      share: '0.5',
      deadBand: '.0001',
    }),
    feature('dowel', 'bore', 'DOWEL', {
      nominal: '.375',
      tolerance: '.0005',
      x: '.5',
      y: '-2.6',
      past: '.050',
      react: 'stop',
    }),
    feature('pitch', 'distance', 'PITCH', {
      from: 'bore',
      to: 'dowel',
      nominal: '1.7804',
      tolerance: '.010',
      react: 'right-part',
    }),
    feature('face', 'surface', 'FACE', {
      axis: 'Z',
      x: '3',
      y: '-.5',
      top: '0',
      tolerance: '.002',
      tool: '7',
    }),
  ],
}

/** Numbers from 0 to 1 that are the same each time (a linear congruential generator, made up like the parts). */
function repeatable(seed: number): () => number {
  let state = seed
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return state / 2 ** 32
  }
}

const PARTS = 200
/** The face was corrected by hand after this many. */
export const FACE_CORRECTED_AFTER = 120
/** A part that came out large, and one that was measured with a chip in the bore. */
export const OUT_PART = 137
export const CHIP_PART = 164

/** Two hundred housings as the log file of the control has them: a bore that the program corrects, a face that drifts. All made up. */
export function measuredHousings(): MeasuredPart[] {
  const random = repeatable(7)
  const scatter = () => (random() + random() + random() - 1.5) / 1.5
  let wear = 0
  return Array.from({ length: PARTS }, (_, index): MeasuredPart => {
    const number = index + 1
    const drifted = number - (number > FACE_CORRECTED_AFTER ? FACE_CORRECTED_AFTER : 0)
    // The cutter wears, and the bore closes; wear of the diameter that is less opens it again.
    const bore = roundTo(1.250_55 - 0.000_012 * number - wear + 0.000_12 * scatter(), 4)
    const error = roundTo(bore - 1.2505, 9)
    if (Math.abs(error) >= 0.0001) wear = roundTo(wear + 0.5 * error, 9)
    const dowel = number === OUT_PART ? 0.3757 : 0.375 + 0.000_18 * scatter()
    const face = -0.000_3 + 0.000_011 * drifted + 0.000_35 * scatter()
    return {
      label: String(number),
      values: {
        BORE: number === CHIP_PART ? 1.2476 : bore,
        DOWEL: roundTo(dowel, 4),
        PITCH: roundTo(1.7804 + 0.000_9 * scatter(), 4),
        FACE: roundTo(face, 4),
      },
      corrected: { 'T7 DIA WEAR': roundTo(wear, 4) },
    }
  })
}

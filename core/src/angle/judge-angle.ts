import { type Finding, finding, type Verdict, verdictOf, worstFirst } from '../fact/index.ts'
import { formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type Angle, costAt, formatAngle } from './measure.ts'

/** What can be done about an angle. */
export type AngleChoice = 'leave' | 'turn' | 'square'

export interface AngleJudgement {
  advised: AngleChoice
  says: string
  why: string
  /** At the farthest cut: what is lost by ignoring it, and what its own doubt leaves there once it is followed. */
  cost: number
  costDoubt: number
  findings: Finding[]
  verdict: Verdict
}

export interface AngleQuestion {
  /** How far the farthest cut is from part zero, and what may be lost there; in `unit`. */
  reach: number
  allowed: number
  needsSquare: boolean
  /** Whether the control can turn a program. */
  canTurn: boolean
  unit: LengthUnit
}

/** Degrees that are better turned by hand first than by the program: travels and clamps are met. By judgement. */
const TURN_BY_HAND_FROM = 5
/** Degrees that no part is clamped askew by: it is turned round, or readings are swapped. By judgement. */
const TURNED_ROUND_FROM = 60

/**
 * Square the part up, turn the program, or leave it: by what ignoring the angle costs at the farthest cut. The allowed
 * is that of one point; common practice for the choice.
 */
export function judgeAngle(
  angle: Angle,
  { reach, allowed, needsSquare, canTurn, unit }: AngleQuestion,
): AngleJudgement {
  const cost = costAt(reach, angle.value)
  const costDoubt = costAt(reach, Math.min(180, angle.doubt.value))
  const findings = [...angle.findings]
  if (costDoubt > allowed)
    findings.push(
      finding(
        'look',
        'angle-doubt-over-allowed',
        'points',
        `The angle itself may be off by ${formatAngle(angle.doubt.value)} deg: ${formatWithUnit(costDoubt, unit)} at the farthest cut.`,
        `It was measured over ${formatWithUnit(angle.base, unit)}, and the part allows ${formatWithUnit(allowed, unit)} there. The doubt shrinks as the base grows.`,
        'Touch further apart, at more places, or with something finer.',
      ),
    )
  const at = formatWithUnit(cost, unit)
  const may = formatWithUnit(allowed, unit)
  const common = { cost, costDoubt, findings: worstFirst(findings), verdict: verdictOf(findings) }
  if (cost <= allowed)
    return {
      ...common,
      advised: 'leave',
      says: 'Leave it.',
      why: `Ignored, it costs ${at} at the farthest cut; ${may} is allowed.`,
    }
  if (needsSquare)
    return {
      ...common,
      advised: 'square',
      says: 'Square the part up.',
      why: `Ignored, it costs ${at} at the farthest cut; ${may} is allowed. Something else rests on the part being square, so turning the program would not do.`,
    }
  if (Math.abs(angle.value) > TURNED_ROUND_FROM)
    return {
      ...common,
      advised: 'square',
      says: 'It lies turned round, or readings are swapped.',
      why: `At ${formatAngle(Math.abs(angle.value), 1)} degrees a cut lands ${at} away. Look which reading belongs to which feature; if they are right, turn the part by hand and measure again.`,
    }
  if (Math.abs(angle.value) > TURN_BY_HAND_FROM)
    return {
      ...common,
      advised: 'square',
      says: 'Square the part up first.',
      why: `At ${formatAngle(Math.abs(angle.value), 1)} degrees a turned program meets clamps and jaws that it cleared before. Bring it near by hand, then measure again.`,
    }
  return {
    ...common,
    advised: 'turn',
    says: canTurn ? 'Turn the program.' : 'Turn the moves of the program.',
    why: `Ignored, it costs ${at} at the farthest cut; ${may} is allowed.${canTurn ? '' : ' This control has no code for it; Dogleg turns the moves themselves.'}`,
  }
}

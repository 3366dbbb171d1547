/** What else rests on the jaw being square to the table. */
export const JAW_BEARERS = {
  'fourth-axis': 'a fourth axis or a tailstock lines up with it',
  stop: 'a stop or a second vise lines up with it',
  'next-part': 'the next parts go into the same jaw',
  'straight-moves': 'the program moves in machine coordinates, or has words that are not turned',
} as const
export type JawBearer = keyof typeof JAW_BEARERS

export interface SquareOrTurn {
  choice: 'square' | 'turn' | 'either'
  says: string
  why: string
}

/** Beyond this angle it is no longer a matter of a vise that is a little out, in degrees. Common practice. */
const A_LITTLE = 5

/**
 * Whether to square the vise or to turn the program to it (common practice): turn it if the control can and nothing
 * else depends on the jaw being square.
 * @param angle of the jaw in degrees
 * @param rotationCode the control's code that turns the program, null where it has none
 */
export function squareOrTurn(
  angle: number,
  withinTolerance: boolean,
  rotationCode: string | null,
  bearers: readonly JawBearer[],
): SquareOrTurn {
  if (withinTolerance)
    return {
      choice: 'either',
      says: 'It is square: there is nothing to turn.',
      why: 'Within what the part allows.',
    }
  if (rotationCode === null)
    return {
      choice: 'square',
      says: 'Square the vise.',
      why: 'This control cannot turn the program.',
    }
  if (bearers.length > 0)
    return {
      choice: 'square',
      says: `Square the vise: ${bearers.map((each) => JAW_BEARERS[each]).join('; ')}.`,
      why: `${rotationCode} turns the program, not what stands on the table.`,
    }
  if (Math.abs(angle) > A_LITTLE)
    return {
      choice: 'square',
      says: 'Square the vise: the angle is large.',
      why: `At ${Math.abs(angle).toFixed(1)} degrees the turned program reaches other places of the travel and other clamps.`,
    }
  return {
    choice: 'turn',
    says: `Turning the program by ${rotationCode} is quicker for one part.`,
    why: 'Nothing else depends on the jaw. The Angle step measures the part itself once it is clamped. For more than one part, square the vise.',
  }
}

import type { Driven, Profile } from '../control/index.ts'
import type { MachineKind } from '../machine/index.ts'
import { gCode, LETTERS, mCode } from './codes.ts'

/** Codes that this control has of its own, in words. */
function ownCode(
  code: number,
  { rotation, offsets, reading }: Profile,
  driven: Driven | null,
): string | undefined {
  const is = (text: string | null | undefined) =>
    text !== null && text !== undefined && Number(text.slice(1)) === code
  if (is(driven?.face?.on))
    return `Polar interpolation: X and ${driven?.face?.across} make the face of the part.`
  if (is(driven?.face?.off)) return 'Polar interpolation off.'
  if (is(rotation?.on)) return 'Turns the program about X Y by R degrees.'
  if (is(rotation?.off)) return 'Turning off.'
  if (is(offsets.extended?.code)) return `Further work offsets: P1 to P${offsets.extended?.count}.`
  if (is(reading.text)) return 'Engraves the text in the comment of its line.'
  if (is(reading.mapping?.code))
    return reading.mapping?.by === 'radius'
      ? 'Wraps Y on the rotary axis; without a radius it ends that.'
      : 'Wraps the rotary word on the radius that it names; a radius of 0 ends that.'
  if (is(reading.pathTolerance)) return 'How far corners may be rounded: E.'
  if (is(reading.lookAhead)) return 'How many blocks the control reads ahead: P.'
  return undefined
}

/** What an M code of a lathe with driven tools does, as its profile has it. */
function drivenCode(code: number, { turns, axis }: Driven): string | undefined {
  if (code === axis?.on) return 'Makes the spindle an axis.'
  if (code === axis?.off) return 'Lets the spindle go as an axis.'
  if (code === turns?.off) return 'Driven tool off.'
  if (code === turns?.clockwise) return `Driven tool on, clockwise: ${turns.speed} is its speed in rpm.`
  return code === turns?.counter
    ? `Driven tool on, counter-clockwise: ${turns.speed} is its speed in rpm.`
    : undefined
}

/** What a word does on this control, in one sentence: `G43`, `M3`, `H7`. Undefined where nothing is known of it. */
export function explainWord(
  letter: string,
  value: number,
  kind: MachineKind,
  profile: Profile,
): string | undefined {
  const driven = kind === 'lathe' ? profile.reading.driven : null
  if (letter === 'G') return ownCode(value, profile, driven) ?? gCode(value, kind)?.says
  if (letter === 'M') {
    const ofDriven = driven ? drivenCode(value, driven) : undefined
    if (ofDriven !== undefined) return ofDriven
    const pallet = profile.reading.pallets.indexOf(value)
    if (pallet >= 0) return `Calls pallet ${pallet + 1}.`
    return value === profile.reading.rigidTap ? 'Rigid tapping is announced.' : mCode(value)?.says
  }
  if (letter === profile.reading.tapRetract?.address && kind === 'mill')
    return `${LETTERS[kind][letter] ?? ''}; on a tapping line, how many times faster it comes out`
  if (driven && letter === 'C')
    return `angle of the spindle, degrees${driven.face?.across === 'C' ? '; on the face, a length across X' : ''}`
  if (driven && letter === 'H') return 'the same as C, from where the spindle stands'
  return LETTERS[kind][letter]
}

import type { Profile } from '../control/index.ts'
import type { MachineKind } from '../machine/index.ts'
import { gCode, LETTERS, mCode } from './codes.ts'

/** Codes that this control has of its own, in words. */
function ownCode(code: number, { rotation, offsets, reading }: Profile): string | undefined {
  const is = (text: string | null | undefined) =>
    text !== null && text !== undefined && Number(text.slice(1)) === code
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

/** What a word does on this control, in one sentence: `G43`, `M3`, `H7`. Undefined where nothing is known of it. */
export function explainWord(
  letter: string,
  value: number,
  kind: MachineKind,
  profile: Profile,
): string | undefined {
  if (letter === 'G') return ownCode(value, profile) ?? gCode(value, kind)?.says
  if (letter === 'M') {
    const pallet = profile.reading.pallets.indexOf(value)
    if (pallet >= 0) return `Calls pallet ${pallet + 1}.`
    return value === profile.reading.rigidTap ? 'Rigid tapping is announced.' : mCode(value)?.says
  }
  if (letter === profile.reading.tapRetract?.address && kind === 'mill')
    return `${LETTERS[kind][letter] ?? ''}; on a tapping line, how many times faster it comes out`
  return LETTERS[kind][letter]
}

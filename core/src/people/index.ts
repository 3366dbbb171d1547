export { MAY, type May, mayAlso, mayStrike, SAYS_MAY, sameInitials } from './may.ts'
export { isEasilyGuessed, may, newPin, type Person, person, personName, typedPin } from './person.ts'
export {
  CODE_DIGITS,
  letInCode,
  locksAfter,
  type Tablet,
  tablet,
  tabletName,
  USUAL_LOCK_MIN,
} from './tablet.ts'

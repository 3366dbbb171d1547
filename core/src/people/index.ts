export {
  isEasilyGuessed,
  MAY,
  type May,
  may,
  mayAlso,
  mayStrike,
  newPin,
  type Person,
  person,
  personName,
  SAYS_MAY,
  sameInitials,
  typedPin,
} from './person.ts'
export {
  CODE_DIGITS,
  letInCode,
  locksAfter,
  type Tablet,
  tablet,
  tabletName,
  USUAL_LOCK_MIN,
} from './tablet.ts'

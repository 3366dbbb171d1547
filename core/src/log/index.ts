export { buildChain, type Chain } from './chain.ts'
export {
  dependsOn,
  entrySchema,
  initials,
  LONGEST_PROGRAM,
  type LogEntry,
  reshapedSchema,
  type Stamp,
  spokenWords,
  textHash,
  versionRef,
  words,
} from './entry.ts'
export {
  type Act,
  type AnyKind,
  type Common,
  type Description,
  defineEntry,
  defineFact,
  type EntriesOf,
  type EntryBy,
  type EntryKind,
  type EntrySchema,
  type FactsOf,
  type Follower,
  type Given,
  type Link,
  type PlacedAct,
  reaching,
  type StatesFact,
  type Wording,
} from './kind.ts'
export { type AcrossRule, across, type Kinds, kindsOf } from './kinds.ts'
export { type LogLine, type Standing, standingOf } from './lines.ts'
export {
  inPlaceOf,
  LONG_TEXT,
  mayName,
  standsApart,
  textsNamedIn,
  withoutTexts,
  withTexts,
} from './long-texts.ts'
export { claimedMoment, inOrder, type Moment, type Order, orderOf } from './order.ts'
export { plainly } from './plainly.ts'
export { entryDoor, type Place, type Trust } from './read.ts'
export { isObject, issueIn, raised, type Shaped, shapeOf } from './shapes.ts'
export { type ClockStamp, clockStamp, latestOf, type Stamped } from './stamp.ts'
export { effectiveStrikes, type Strike, struck } from './struck.ts'
export { hear, type LastHeard, type Reading, stampOf } from './tablet-clock.ts'
export { isUnread, NO_TIME, UNREAD_TAG, UNREAD_TITLES, type UnreadEntry, unreadPast } from './unread.ts'

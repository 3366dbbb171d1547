export { inOrder, type Moment, type Order, orderOf } from './order.ts'
export { type ClockStamp, clockStamp, latestOf, type Stamped } from './stamp.ts'
export { hear, type LastHeard, type Reading, stampOf } from './tablet-clock.ts'

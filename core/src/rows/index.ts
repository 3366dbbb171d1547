export { type RowChange, rowChanges } from './changes.ts'
export {
  type AnyRow,
  type AnyRowKind,
  defineRow,
  isUnreadRow,
  type RowKind,
  type RowsOf,
  rowDoor,
  type UnreadRow,
} from './row.ts'

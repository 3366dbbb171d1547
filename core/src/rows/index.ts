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

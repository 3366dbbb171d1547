export { isProblemCode, PROBLEM_CODES, type ProblemCode } from '../problem/index.ts'
export {
  type Answer,
  type Asked,
  CONTRACT,
  type Question,
} from './contract.ts'
export { demoName, idOfLogbook, isDemo } from './demo-name.ts'
export {
  type Contract,
  type DamagedRow,
  entry,
  listOfRows,
  type Place,
  type ProblemBody,
  problemBody,
  type Retirement,
  type RowList,
  type RowVersion,
  rowOf,
  unreadEntry,
} from './parts.ts'
export { RIGHTS, ROW_RIGHTS, STANDINGS, type Standing, standsFor } from './rights.ts'
export {
  type Address,
  ASKED_IN_ANY,
  addressOf,
  LANGUAGE,
  LANGUAGE_HEADER,
  PAGE_HEADER,
  ROUTES,
  ROW_ROUTES,
  type RouteName,
  type RowRouteName,
} from './routes.ts'
export { type RowAnswers, rowContract } from './row-contract.ts'

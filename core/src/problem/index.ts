export { isProblemCode, PROBLEM_CODES, type ProblemCode } from './problems.ts'

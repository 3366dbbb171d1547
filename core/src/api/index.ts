export { isProblemCode, PROBLEM_CODES, type ProblemBody, type ProblemCode } from './problems.ts'

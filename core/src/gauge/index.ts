export { type Individuals, individuals } from './individuals.ts'

export {
  housingLayout,
  housingProgram,
  housingSlips,
  ringProgram,
  type Slip,
  turnedProgram,
  withSlip,
} from './programs.ts'
export { demoReference } from './reference.ts'
export { demoEntries } from './setups.ts'

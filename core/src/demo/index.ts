export { housingLayout, housingProgram, housingSlips, type Slip, withSlip } from './programs.ts'
export { demoReference } from './reference.ts'
export { demoEntries } from './setups.ts'

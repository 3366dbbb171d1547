export { demoReference } from './reference.ts'
export { demoEntries } from './setups.ts'

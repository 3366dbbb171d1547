export { describeProfile, type FirstMachine, firstMachine, firstTools, usualTravels } from './first.ts'

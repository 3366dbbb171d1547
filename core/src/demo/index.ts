export { housingGauging, measuredHousings } from './gauging.ts'
export { moveLog } from './move-log.ts'
export { BRACKET_HASHES } from './pallet-setup.ts'
export { bracketAlone, bracketFirst, bracketFirstSaved, bracketPallets, bracketSecond } from './pallets.ts'
export {
  housingLayout,
  housingProgram,
  housingSheet,
  housingSlips,
  rebateProgram,
  ringProgram,
  type Slip,
  scaleLayout,
  scaleSheet,
  taperProgram,
  tubeLayout,
  tubeSheet,
  turnedProgram,
  withSlip,
} from './programs.ts'
export { demoReference } from './reference.ts'
export { demoEntries } from './setups.ts'

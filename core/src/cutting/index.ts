export { type Material, material, materialIn, type SpeedOf, USUAL_MATERIALS } from './material.ts'
export { materials } from './rows.ts'
export { roundRpm, rpmFor, surfaceFor } from './speed.ts'

export {
  LINEAR_AXES,
  type LinearAxis,
  leastStepIn,
  linearAxis,
  type Machine,
  machine,
  type Travel,
  travelIn,
  withinTravel,
} from './machine.ts'

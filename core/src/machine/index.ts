export { type Obstacle, obstacle, type Surroundings, surroundings } from './around.ts'
export {
  axesOf,
  type Dynamics,
  dynamics,
  LINEAR_AXES,
  type LinearAxis,
  leastStepIn,
  linearAxis,
  type Machine,
  type MachineKind,
  machine,
  machineKind,
  type ProbeShape,
  probeShape,
  readyListOf,
  type Travel,
  travelIn,
  withinTravel,
} from './machine.ts'
export { type DueAgain, dueAgain, type ReadyItem, readyItem, USUAL_READY_LIST } from './ready-list.ts'
export {
  isRoundTool,
  type ToolKind,
  type ToolOnLathe,
  type ToolShape,
  type ToolSide,
  toolIn,
  toolKind,
  toolOnLathe,
  toolShape,
  toolSide,
} from './tool.ts'

export {
  headIn,
  type SpindleHead,
  spindleHead,
  type Turret,
  turret,
  turretIn,
  usualHead,
  usualTurret,
} from './above-tool.ts'
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
  type PositionSource,
  type ProbeShape,
  positionSource,
  probeShape,
  type RotaryAxis,
  readyListOf,
  rotaryAxis,
  senseOf,
  type Travel,
  travelIn,
  USUAL_RAPID_MARKS,
  withinTravel,
} from './machine.ts'
export { POSITION_DIGITS, type PositionsRead, positionsRead } from './positions.ts'
export { type DueAgain, dueAgain, type ReadyItem, readyItem, USUAL_READY_LIST } from './ready-list.ts'
export { machines, tools } from './rows.ts'
export {
  cutterRadii,
  isRoundTool,
  probeAsTool,
  probeIn,
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
export { cornerTip, insertNoses, type Nose, noseWords, type ToolTip, tipOf } from './tool-tip.ts'

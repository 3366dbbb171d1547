export { aboveTool, movingParts } from './above-tool.ts'
export { adviseRun, type RunAdvice } from './advice.ts'
export { type Approach, type ApproachFacts, approaches, judgeApproach } from './approach.ts'
export {
  type Body,
  type BodyRole,
  type Box,
  body,
  bodyRole,
  boundsOf,
  type Layout,
  layout,
  layoutIn,
  type Triple,
} from './body.ts'
export { type Coverage, coverageOf, coverageSays } from './coverage.ts'
export { type TextEdit, withEdits } from './edit.ts'
export { LAYOUT, laidOut, letStand, proved } from './entries.ts'
export { type CrashCase, findHits, type Hit, MOST_HITS } from './hits.ts'
export { pathOf, rapidPath } from './path.ts'
export { type PartAxis, type PathPicture, pathPicture } from './picture.ts'
export { type Press, pressOf, rowsOfBlock } from './press.ts'
export { type Mending, type ProgramFinding, programFinding } from './program-finding.ts'
export { type Proof, type ProveCase, prove } from './prove.ts'
export { bandOutline, type RapidStop } from './rapid.ts'
export {
  alongRow,
  blockAt,
  blockOfFinding,
  blockOfLine,
  blockOfRow,
  cumulate,
  nextBlock,
  nextFindingBlock,
  nextToolBlock,
} from './stepping.ts'
export { type FlatPart, partBox, type ToolPart, toolParts } from './tool-parts.ts'

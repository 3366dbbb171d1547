import { type Profile, turnedLine } from '../control/index.ts'
import { type Verdict, verdictOf, worstFirst } from '../fact/index.ts'
import {
  cutterRadii,
  insertNoses,
  type LinearAxis,
  type Machine,
  probeAsTool,
  probeIn,
  senseOf,
  type ToolShape,
  toolIn,
  usualHead,
} from '../machine/index.ts'
import { boxStandIn, type Program, ROW, read, type StandIn } from '../program/index.ts'
import { convertLength, formatLength, type LengthUnit } from '../quantity/index.ts'
import { type CycleTime, cycleTime, type MachineSpeeds, speedsOf } from '../timing/index.ts'
import { aboveTool } from './above-tool.ts'
import { type Approach, approaches } from './approach.ts'
import { type Body, boundsOf, type Layout, layoutIn } from './body.ts'
import { hitFindings, stoppedFindings } from './hit-findings.ts'
import { findHits } from './hits.ts'
import { modeFindings } from './mode-findings.ts'
import { noseFindings } from './nose-findings.ts'
import type { PartAxis } from './picture.ts'
import { type ProbingFacts, probeFindings } from './probe-findings.ts'
import { type ProgramFinding, programFinding } from './program-finding.ts'

/** Free height that is wanted over an obstacle, in mm: common practice. */
const CLEARANCE_MM = 2.5

/** A text whose moves Dogleg turned, and that the control turns once more. */
function turnedTwice(text: string, { motion }: Program): ProgramFinding[] {
  const by = turnedLine(text)
  const row =
    by === undefined ? -1 : motion.state.findIndex((state) => motion.states[state]?.rotation != null)
  return by === undefined || row < 0
    ? []
    : [
        programFinding(
          'stop',
          'turned-twice',
          motion.line[row] as number,
          'The program is turned twice.',
          `Its moves are turned already (line ${by} says so), and here the control turns them once more.`,
          { row, fix: 'Take the rotation out, or open the text whose moves are not turned.' },
        ),
      ]
}

/** What a program is proved against. Lengths in `unit`; everything can be handed to another thread. */
export interface ProveCase {
  text: string
  profile: Profile
  machine: Machine
  unit: LengthUnit
  /** The offset whose part zero the layout counts from. */
  frame: string
  offsets: {
    name: string
    axes: Partial<Record<LinearAxis, number>>
    /** Where the machine shows the rotary at its 0, in degrees. */
    rotary?: number
    stale?: string
  }[]
  /** How far part zero of a lathe lies along Z from where the tools have it by their geometry. */
  workShift?: number
  lengths: { tool: number; length: number; stale?: string }[]
  tools: readonly ToolShape[]
  layout: Layout
  skipOptional?: boolean
  /** Work that may be spent on reading, in the reader's units; its usual limit where it is not said. */
  mostWork?: number
}

export interface Proof {
  program: Program
  time: CycleTime
  speeds: MachineSpeeds
  findings: ProgramFinding[]
  verdict: Verdict
  approaches: Approach[]
  /** Bodies in the unit of the motion, and the top of the part. */
  bodies: Body[]
  top: number | undefined
  /** Lengths that the tools were proved with. */
  lengths: ProveCase['lengths']
  /** What a rotary turns the part about; null where none does, or no part lies along it. */
  axis: PartAxis | null
  /** Reading was stopped by whoever asked for it: nothing else is complete. */
  cancelled: boolean
}

/** What share of the work has been done when reading is over, and when the hits are found. */
const READ_SHARE = 0.5
const HITS_SHARE = 0.9

/** Diagnostics of the reader as findings. */
function readerFindings({ diagnostics, further }: Program): ProgramFinding[] {
  const found = diagnostics.map(({ code, severity, line, from, to, says, does, mend, own, times }) =>
    programFinding(severity, code, line, says, does ?? 'The reader goes on after it.', {
      from,
      to,
      ...(own ? { own, fix: `Say on the profile’s page what ${own} is, or take it out.` } : {}),
      ...(times > 1 ? { more: times - 1 } : {}),
      ...(mend ? { mending: { says: mend.says, edits: [mend] } } : {}),
    }),
  )
  return further === 0
    ? found
    : [
        ...found,
        programFinding(
          'look',
          'further',
          1,
          `${further} more lines are not understood.`,
          'Only the first are listed: mend those first.',
        ),
      ]
}

const standInOf = (part: Body) => {
  const { least, greatest } = boundsOf(part)
  return boxStandIn(least, greatest)
}

const readOptions = (of: ProveCase, bodies: readonly Body[], standIn: StandIn | undefined) => {
  const part = bodies.find(({ role }) => role === 'part')
  return {
    profile: of.profile,
    machine: of.machine,
    unit: of.unit,
    frame: of.frame,
    offsets: new Map(of.offsets.map(({ name, axes }) => [name, axes])),
    rotaryZeros: new Map(
      of.offsets.flatMap(({ name, rotary }) => (rotary === undefined ? [] : [[name, rotary] as const])),
    ),
    ...(of.workShift === undefined ? {} : { workShift: of.workShift }),
    lengths: new Map(of.lengths.map(({ tool, length }) => [tool, length])),
    radii: cutterRadii(of.tools, of.unit),
    noses: insertNoses(of.tools, of.unit),
    ...(standIn ? { standIn } : part ? { standIn: standInOf(part) } : {}),
    ...(of.skipOptional ? { skipOptional: true } : {}),
    ...(of.mostWork === undefined ? {} : { mostWork: of.mostWork }),
  }
}

/** Tools without a shape that move near something: seen as a point. */
function shapeless({ motion }: Program, tools: ReadonlyMap<number, ToolShape>): ProgramFinding[] {
  const found = new Map<number, number>()
  for (const [index, { tool }] of motion.states.entries())
    if (tool > 0 && !tools.has(tool) && !found.has(tool)) {
      const row = motion.state.indexOf(index)
      if (row >= 0) found.set(tool, row)
    }
  return [...found].map(([tool, row]) =>
    programFinding(
      'look',
      'tool-unknown',
      motion.line[row] as number,
      `T${tool} has no shape in the tool table: it is seen as a point.`,
      'How wide it is, and where its holder begins, is not looked at.',
      { row, fix: `Enter T${tool} among the tools of the machine.` },
    ),
  )
}

/** What the probing of a program is held against: the machine's own probe, and the profile's variables. */
function probingFacts({ machine, profile, unit }: ProveCase): ProbingFacts {
  const results = Object.entries(profile.probing?.results ?? {})
  return {
    unit,
    shape: machine.probe ? probeIn(machine.probe, machine.unit, unit) : undefined,
    lookAhead: profile.reading.lookAhead,
    nameOf: (variable) => results.find(([, number]) => number === variable)?.[0] ?? '',
  }
}

/** What is above the tools, where the machine's page does not say it. */
function aboveUnknown(lathe: boolean, unit: LengthUnit): ProgramFinding {
  if (lathe)
    return programFinding(
      'note',
      'turret-unknown',
      1,
      'The turret and what is in its other stations are not looked at.',
      'The machine’s page does not say how large it is.',
      { fix: 'Enter the turret on the machine’s page; each tool’s number is its station.' },
    )
  const { nose, left, right, front, back } = usualHead(unit)
  const say = (value: number) => formatLength(value, unit)
  return programFinding(
    'note',
    'head-usual',
    1,
    'Spindle nose and head are taken as usual: the machine’s page does not say them.',
    `Nose ${say(nose.diameter)} wide and ${say(nose.length)} long; head ${say(left)} to the left, ${say(right)} to the right, ${say(front)} to the front, ${say(back)} to the back.`,
    { fix: 'Measure them, and enter them on the machine’s page.' },
  )
}

/** Wherever nothing stands in the work area, no crash can be found. */
const emptyScene = (): ProgramFinding =>
  programFinding(
    'look',
    'no-bodies',
    1,
    'Nothing is placed in the work area: no crash can be found.',
    'Modes, travels, lengths and offsets are looked at all the same.',
    { fix: 'Place the part, the vise and the clamps.' },
  )

/**
 * Proves a program for a setup: reads it as the control would, finds where a tool or holder hits something, what is wrong
 * with its modes, and how long it takes. `onProgress` is told the share done, and stops the work by giving false; `standIn` is what
 * probing meets, the part's own box where it is left out.
 */
export function prove(of: ProveCase, onProgress?: (share: number) => boolean, standIn?: StandIn): Proof {
  const { machine, unit, profile } = of
  const { bodies } = layoutIn(of.layout, unit)
  const lathe = machine.kind === 'lathe'
  const speeds = speedsOf(machine, profile, unit)
  const tools = new Map(of.tools.map((tool) => [tool.number, toolIn(tool, unit)]))
  const { probe } = machine
  // The probe has a shape of its own, on the machine's page.
  if (probe && !tools.has(probe.tool)) tools.set(probe.tool, toolIn(probeAsTool(probe, machine), unit))
  let cancelled = false
  const progress = (from: number, to: number) => (share: number) => {
    if (onProgress && !onProgress(from + (to - from) * share)) cancelled = true
    return !cancelled
  }
  const program = read(of.text, { ...readOptions(of, bodies, standIn), onProgress: progress(0, READ_SHARE) })
  const time = cycleTime(program.motion, speeds)
  let split: string[] | undefined
  const lineAt = (line: number) => {
    split ??= of.text.split(/\r\n|\r|\n/)
    return split[line - 1] ?? ''
  }
  const lengths = new Map(of.lengths.map(({ tool, length }) => [tool, length]))
  const above = { machine, unit, tools, lengths }
  const aboveKnown = (lathe ? machine.turret : machine.head) !== null
  const hits = cancelled
    ? []
    : findHits({
        motion: program.motion,
        bodies,
        tools,
        speeds,
        lathe,
        above: (tool) => aboveTool(above, tool),
        onProgress: progress(READ_SHARE, HITS_SHARE),
      })
  const clearance = convertLength(CLEARANCE_MM, 'mm', unit)
  const hitCase = {
    motion: program.motion,
    unit,
    lathe,
    tools,
    lineAt,
    clearance,
    open: speeds.openRapids,
    aboveKnown,
  }
  const parts = bodies.filter(({ role }) => role === 'part')
  const top =
    lathe || parts.length === 0 ? undefined : Math.max(...parts.map((part) => boundsOf(part).greatest[2]))
  const lying = parts.find((part) => part.shape === 'cylinder' && part.axis === 'X')
  const rotaryZero = of.offsets.find(({ name }) => name === of.frame)?.rotary
  const facts = {
    machine,
    ...(rotaryZero === undefined ? {} : { rotaryZero }),
    ...(top === undefined ? {} : { top }),
    ...(lying?.shape === 'cylinder' ? { lying: { radius: lying.diameter / 2, axisY: lying.at.y } } : {}),
    unit,
    tools,
    offsets: new Map(of.offsets.map(({ name, stale }) => [name, stale === undefined ? {} : { stale }])),
    lengths: new Map(of.lengths.map(({ tool, stale }) => [tool, stale === undefined ? {} : { stale }])),
  }
  const moves = program.motion.kind.some((kind) => kind !== ROW.EVENT)
  const findings = worstFirst([
    ...readerFindings(program),
    ...(moves
      ? [
          ...(bodies.length === 0 ? [emptyScene()] : []),
          ...hitFindings(hitCase, hits),
          ...stoppedFindings(hitCase, parts),
          ...turnedTwice(of.text, program),
          ...modeFindings(program, facts, lineAt),
          ...(lathe ? noseFindings(program.motion, of) : []),
          ...probeFindings(program, probingFacts(of)),
          ...shapeless(program, tools),
          ...(bodies.length === 0 || aboveKnown ? [] : [aboveUnknown(lathe, unit)]),
        ]
      : []),
  ]) as ProgramFinding[]
  return {
    program,
    time,
    speeds,
    findings,
    verdict: verdictOf(findings),
    approaches: top === undefined ? [] : approaches(program.motion, top, of.lengths),
    bodies,
    top,
    lengths: of.lengths,
    axis:
      lying && machine.rotary && program.motion.rotary
        ? { y: lying.at.y, z: lying.at.z, sense: senseOf(machine.rotary) }
        : null,
    cancelled,
  }
}

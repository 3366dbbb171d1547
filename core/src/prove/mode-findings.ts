import { leastStepIn, travelIn } from '../machine/index.ts'
import { FLAG, type ModalState, type Program, ROW } from '../program/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import { compensationChecks } from './compensation-checks.ts'
import { type ProgramFinding, programFinding } from './program-finding.ts'
import { tapChecks } from './tap-checks.ts'
import { type SetupFacts, say, stateAt, type Walk, wordIn } from './walk.ts'
import { wrapFindings } from './wrap-findings.ts'

function lengthChecks(walk: Walk, row: number, state: ModalState): void {
  const line = walk.motion.line[row] as number
  const { tool, length } = state
  if (tool === 0) return
  if (!length)
    say(walk, `length/${tool}`, () => {
      const z = wordIn(walk, line, /Z/i)
      return programFinding(
        'stop',
        'length-missing',
        line,
        `T${tool} moves in Z without its length.`,
        'Without G43 the control moves as if the tool had no length: the tip goes that much deeper.',
        {
          row,
          ...(z
            ? {
                ...{ from: z.from, to: z.to },
                mending: {
                  says: `Take the length on this line: G43 H${tool}.`,
                  edits: [{ line, from: z.from, to: z.from, insert: `G43 H${tool} ` }],
                },
              }
            : {}),
        },
      )
    })
  else if (length.h !== tool)
    say(walk, `h/${tool}/${length.h}`, () => {
      const where = lineOfH(walk, row, length.h)
      const h = wordIn(walk, where, new RegExp(`H\\s*0*${length.h}(?![\\d.])`, 'i'))
      return programFinding(
        'stop',
        'length-wrong',
        where,
        `T${tool} is used with the length of tool ${length.h}.`,
        `H${length.h} holds another tool's length: Z is off by the difference.`,
        {
          row,
          ...(h
            ? {
                from: h.from,
                to: h.to,
                mending: {
                  says: `Write H${tool}.`,
                  edits: [{ line: where, from: h.from, to: h.to, insert: `H${tool}` }],
                },
              }
            : {}),
        },
      )
    })
  const known = walk.facts.lengths.get(tool)
  if (!known)
    say(walk, `length-unknown/${tool}`, () =>
      programFinding(
        'look',
        'length-unknown',
        line,
        `The length of T${tool} has not been entered.`,
        'Its tip is taken to be where the program says; a wrong length in the table is not seen.',
        { row, fix: `Enter the length of T${tool} in the Zero step.` },
      ),
    )
  else if (known.stale)
    say(walk, `length-stale/${tool}`, () =>
      programFinding(
        'stop',
        'length-stale',
        line,
        `The length of T${tool} is stale.`,
        `It was ${known.stale}.`,
        { row },
      ),
    )
}

/** The last line up to a row that names this H. */
function lineOfH({ motion, lineAt }: Walk, row: number, h: number): number {
  const named = new RegExp(`H\\s*0*${h}(?![\\d.])`, 'i')
  const at = motion.line[row] as number
  for (let line = at; line > Math.max(0, at - 500); line--) if (named.test(lineAt(line))) return line
  return at
}

function offsetChecks(walk: Walk, row: number, { offset }: ModalState): void {
  const line = walk.motion.line[row] as number
  const lathe = walk.facts.machine.kind === 'lathe'
  if (lathe && offset === '') {
    say(walk, 'geometry', () =>
      programFinding(
        'stop',
        'offset-unknown',
        line,
        'No tool geometry is in force.',
        'A T word without its last two digits takes no offset: where the tip is, nobody knows.',
        { row },
      ),
    )
    return
  }
  const known = walk.facts.offsets.get(offset)
  if (!known)
    say(walk, `offset/${offset}`, () =>
      programFinding(
        'stop',
        'offset-unknown',
        line,
        `${offset} has not been taken in this setup.`,
        'The control uses whatever stands in it. The program is shown as if it were right.',
        { row, fix: `Take ${offset} in the Zero step, or change the offset in the program.` },
      ),
    )
  else if (known.stale)
    say(walk, `offset-stale/${offset}`, () =>
      programFinding('stop', 'offset-stale', line, `${offset} is stale.`, `It was ${known.stale}.`, {
        row,
        fix: `Take ${offset} again.`,
      }),
    )
}

/** Modes that should not outlive a tool or the program. */
function leftOn(walk: Walk, row: number, at: 'tool' | 'end'): void {
  const { motion } = walk
  const state = stateAt(walk, row)
  const line = motion.line[row] as number
  const when = at === 'end' ? 'when the program ends' : 'when the tool is changed'
  const mending = (code: string) => ({
    says: `Write ${code} before it.`,
    edits: [{ line, from: 0, to: 0, insert: `${code}\n` }],
  })
  if (state.rotation)
    say(walk, 'rotation', () =>
      programFinding(
        'look',
        'rotation-left',
        line,
        `The rotation is still on ${when}.`,
        'What comes next is turned too, until G69.',
        {
          row,
          mending: mending('G69'),
        },
      ),
    )
  if (state.mapping !== null)
    say(walk, 'mapping', () =>
      programFinding(
        'stop',
        'mapping-left',
        line,
        `Cylindrical mapping is still on ${when}.`,
        'Y of what comes next turns the rotary axis.',
        {
          row,
        },
      ),
    )
  if (state.scaled)
    say(walk, 'scaled', () =>
      programFinding(
        'stop',
        'scaling-left',
        line,
        `The program is still scaled or mirrored ${when}.`,
        'What comes next is made larger, smaller or the other way round.',
        { row, fix: 'Switch scaling and mirroring off where what they are for ends.' },
      ),
    )
  if (state.polar)
    say(walk, 'polar', () =>
      programFinding(
        'stop',
        'polar-left',
        line,
        `Positions are still by radius and angle ${when}.`,
        'X and Y of what comes next are read as a radius and an angle.',
        { row, mending: mending('G15') },
      ),
    )
  if (state.compensation !== 40)
    say(walk, 'compensation', () =>
      programFinding(
        'stop',
        'compensation-left',
        line,
        `${state.tip ? 'Nose' : 'Cutter'} compensation is still on ${when}.`,
        'The first moves of what comes next are offset by the radius.',
        {
          row,
          mending: mending('G40'),
        },
      ),
    )
  if (!state.absolute && walk.facts.machine.kind === 'mill')
    say(walk, 'distance', () =>
      programFinding(
        'look',
        'distance-left',
        line,
        `G91 is still in force ${when}.`,
        'Positions of what comes next are read as distances.',
        {
          row,
          mending: mending('G90'),
        },
      ),
    )
}

function spindleChecks(walk: Walk, row: number, state: ModalState): void {
  const top = walk.facts.machine.dynamics?.spindleTop
  if (top !== undefined && state.turning && state.rpm > top + 0.5)
    say(walk, 'spindle-fast', () =>
      programFinding(
        'stop',
        'spindle-fast',
        walk.motion.line[row] as number,
        `${Math.round(state.rpm)} rpm is more than the spindle turns: ${top}.`,
        'The control stops with an alarm, or turns at its top and the feed no longer fits.',
        { row },
      ),
    )
}

/** The first row beyond each end of each travel, in machine positions with the real offsets. */
function travelChecks(walk: Walk): void {
  const { motion, facts } = walk
  const { machine, unit } = facts
  const slack = leastStepIn(machine, unit)
  const lathe = machine.kind === 'lathe'
  const axes = (['X', 'Y', 'Z'] as const).flatMap((axis, index) =>
    machine.axes[axis]
      ? [{ axis, index, ...travelIn(machine, axis, unit), scale: lathe && axis === 'X' ? 2 : 1 }]
      : [],
  )
  const places = [motion.x, motion.y, motion.z] as const
  for (const { axis, index, least, greatest, scale } of axes) {
    const place = places[index] as Float64Array
    let state = -1
    let [low, high] = [0, 0]
    let beyond = 0
    for (let row = 0; row < motion.count && beyond < 2; row++) {
      if (motion.state[row] !== state) {
        state = motion.state[row] as number
        const shift = motion.states[state]?.toMachine[index] ?? Number.NaN
        low = (least - slack) / scale - shift
        high = (greatest + slack) / scale - shift
      }
      const at = place[row] as number
      // Not known offsets give NaN, and are never beyond.
      const out = at < low ? 'least' : at > high ? 'greatest' : undefined
      if (!out || motion.kind[row] === ROW.EVENT) continue
      const shift = motion.states[state]?.toMachine[index] as number
      const by = out === 'least' ? low - at : at - high
      say(walk, `travel/${axis}/${out}`, () => {
        beyond++
        return programFinding(
          'stop',
          'travel',
          motion.line[row] as number,
          `${axis} leaves its travel by ${formatWithUnit((by + slack / scale) * scale, unit)}.`,
          `It would go to machine ${axis} ${formatLength((at + shift) * scale, unit)}; the travel ends at ${formatLength(out === 'least' ? least : greatest, unit)}.`,
          { row, fix: 'Move the part, choose another offset, or shorten the move.' },
        )
      })
    }
  }
}

/** What is wrong with the modes of a program for this setup, row by row; the first of each kind, with a mending where one can be written. */
export function modeFindings(
  program: Program,
  facts: SetupFacts,
  lineAt: (line: number) => string,
): ProgramFinding[] {
  const { motion } = program
  const walk: Walk = { motion, facts, lineAt, found: [], said: new Set() }
  const mill = facts.machine.kind === 'mill'
  let state = -1
  /** States whose length has been looked at. */
  const seen = new Uint8Array(motion.states.length)
  for (let row = 0; row < motion.count; row++) {
    const kind = motion.kind[row] as number
    if (kind === ROW.EVENT) {
      const event = motion.events[motion.aux[row] as number]
      if (event?.does === 'tool' || event?.does === 'end') leftOn(walk, row, event.does)
      continue
    }
    if (kind === ROW.IN_STEP || kind === ROW.TAP_OUT) tapChecks(walk, row, stateAt(walk, row))
    if ((motion.flags[row] as number) & FLAG.TO_MACHINE) continue
    const changed = motion.state[row] !== state
    const before = row > 0 ? (motion.z[row - 1] as number) : motion.start[2]
    if (!changed && !mill) continue
    const now = stateAt(walk, row)
    if (changed) {
      state = motion.state[row] as number
      offsetChecks(walk, row, now)
      spindleChecks(walk, row, now)
      compensationChecks(walk, row, now)
    }
    if (mill && Math.abs((motion.z[row] as number) - before) > 1e-9 && seen[state] === 0) {
      seen[state] = 1
      lengthChecks(walk, row, now)
    }
  }
  if (program.unitSaid && program.inch !== (facts.unit === 'inch'))
    walk.found.push(
      programFinding(
        'look',
        'unit-differs',
        lineOfUnit(lineAt, program.inch),
        `The program is in ${program.inch ? 'inch' : 'mm'}; the setup is in ${facts.unit}.`,
        'Right if it is meant: lengths are converted. Wrong if the numbers are those of the setup.',
      ),
    )
  travelChecks(walk)
  walk.found.push(...wrapFindings(motion, facts))
  return walk.found
}

/** The line that says the unit; looked for near the top. */
function lineOfUnit(lineAt: (line: number) => string, inch: boolean): number {
  for (let line = 1; line < 1_000; line++) if ((inch ? /G\s*20/i : /G\s*21/i).test(lineAt(line))) return line
  return 1
}

import { type ToolShape, toolOnLathe } from '../machine/index.ts'
import { endOf, FLAG, type Motion, ROW } from '../program/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type Body, boundsOf, type Triple } from './body.ts'
import type { TextEdit } from './edit.ts'
import { type Hit, MOST_HITS } from './hits.ts'
import { type Mending, type ProgramFinding, programFinding } from './program-finding.ts'

const THING: Record<Hit['part'], string> = {
  cutter: 'the tool',
  shank: 'the shank',
  holder: 'the holder',
  nose: 'the spindle nose',
  head: 'the head',
  turret: 'the turret',
  station: 'another tool of the turret',
}

/** What goes into something, in words. */
const thingOf = ({ part, tool }: Hit) => (tool === undefined ? THING[part] : `T${tool} in the turret`)

const isAbove = ({ part }: Hit) =>
  part === 'nose' || part === 'head' || part === 'turret' || part === 'station'

export interface HitCase {
  motion: Motion
  unit: LengthUnit
  lathe: boolean
  /** Shapes by tool number. */
  tools: ReadonlyMap<number, ToolShape>
  lineAt: (line: number) => string
  /** Free height that is wanted over what stands in the way. */
  clearance: number
  /** Whether the machine's page says what is above the tool. */
  aboveKnown: boolean
  /** What the machine's page does not say of how its rapids go. */
  open: readonly string[]
}

/** The edit that makes a line's word another; none where it does not stand there. */
function replaceWord(
  lineAt: (line: number) => string,
  line: number,
  word: RegExp,
  insert: string,
): TextEdit | undefined {
  const found = word.exec(lineAt(line))
  return found ? { line, from: found.index, to: found.index + found[0].length, insert } : undefined
}

/** The line, going back, on which G99 was said. */
function lineOf(lineAt: (line: number) => string, from: number, word: RegExp): number | undefined {
  for (let line = from; line > Math.max(0, from - 2_000); line--) if (word.test(lineAt(line))) return line
  return undefined
}

/** A hit between holes: what return plane clears, and whether going back to the initial level would. */
function returnPlane(of: HitCase, hit: Hit): ProgramFinding | undefined {
  const { motion, unit, lineAt, clearance } = of
  const state = motion.states[motion.state[hit.row] as number]
  const row = hit.row
  const from = endOf(motion, row - 1)
  const to = endOf(motion, row)
  const level = from[2] === to[2]
  if (of.lathe || !state || !state.cycle || state.retract !== 99 || !level) return undefined
  if (((motion.flags[row] as number) & FLAG.CYCLE) === 0) return undefined
  const top = boundsOf(hit.body).greatest[2]
  const line = motion.line[row] as number
  // The initial level of the cycle: where the tool stood when it began.
  let first = row
  while (first > 0 && (motion.flags[first - 1] as number) & FLAG.CYCLE) first--
  const initial = endOf(motion, first - 1)[2]
  const clears = top + clearance
  const where = lineOf(lineAt, line, /G\s*99(?!\d)/i)
  const edit = where === undefined ? undefined : replaceWord(lineAt, where, /G\s*99(?!\d)/i, 'G98')
  const enough = initial >= top
  const mending: Mending | undefined =
    edit && enough
      ? {
          says: `Write G98: back to the initial level, ${formatLength(initial, unit)}, between holes.`,
          edits: [edit],
        }
      : undefined
  return programFinding(
    'stop',
    'return-low',
    line,
    `Between holes ${thingOf(hit)} goes through ${hit.body.name}: the return plane is too low.`,
    `G99 comes back to R ${formatLength(from[2], unit)} only; ${hit.body.name} is ${formatLength(top, unit)} high. R ${formatLength(clears, unit)} would clear it by ${formatLength(clearance, unit)}${enough ? ', and so would G98.' : '; the initial level is too low for G98 to help.'}`,
    { row, at: hit.at, body: hit.body.id, ...(mending ? { mending } : {}) },
  )
}

/** A line that goes up first, before a rapid that would go through something. */
function upFirst(of: HitCase, hit: Hit): Mending | undefined {
  const { motion, unit, lathe, lineAt, clearance } = of
  const row = hit.row
  const line = motion.line[row] as number
  const state = motion.states[motion.state[row] as number]
  if (lathe || !state || state.rotation || state.scaled) return undefined
  if ((motion.flags[row] as number) & (FLAG.CYCLE | FLAG.TO_MACHINE)) return undefined
  const [from, to] = [endOf(motion, row - 1), endOf(motion, row)]
  const top = boundsOf(hit.body).greatest[2] + clearance
  // Only a sideways move that is too low: one that comes down on something is another matter.
  if (to[0] === from[0] && to[1] === from[1]) return undefined
  if (!/^[^(;]*[XY]/i.test(lineAt(line)) || from[2] >= top) return undefined
  const scale = state.inch === (unit === 'inch') ? 1 : state.inch ? 1 / 25.4 : 25.4
  const z = Number(((top - state.shift[2]) * scale).toFixed(4))
  const word = Number.isInteger(z) ? `${z}.` : `${z}`
  return {
    says: `Go up to Z${word} first, ${formatLength(clearance, unit)} over ${hit.body.name}.`,
    edits: [{ line, from: 0, to: 0, insert: `G90 G0 Z${word}\n` }],
  }
}

const shapeAt = ({ motion, tools }: HitCase, row: number) =>
  tools.get(motion.states[motion.state[row] as number]?.tool ?? 0)

/** Whether a move goes the way in which its tool cuts deeper. */
function goesDeeper(of: HitCase, row: number): boolean {
  const [from, to] = [endOf(of.motion, row - 1), endOf(of.motion, row)]
  const shape = shapeAt(of, row)
  const side = !of.lathe ? 'face' : shape ? toolOnLathe(shape).side : 'outside'
  if (side === 'face') return to[2] < from[2]
  // A bar goes deeper along the bore as well.
  return side === 'inside' ? to[0] > from[0] || to[2] < from[2] : to[0] < from[0]
}

/** What is to be done about a piece of a tool that goes into something at feed. */
function feedFix(of: HitCase, hit: Hit): string {
  if (hit.part === 'cutter' || hit.part === 'turret' || hit.part === 'station')
    return 'Change the path, or move what stands there.'
  const shape = of.lathe ? shapeAt(of, hit.row) : undefined
  return shape && toolOnLathe(shape).side === 'inside'
    ? 'Use a thinner bar or a longer insert, or cut less deep.'
    : 'Use a longer tool, or cut less deep.'
}

function one(of: HitCase, hit: Hit): ProgramFinding {
  const { motion, unit, lathe } = of
  const row = hit.row
  const kind = motion.kind[row] as number
  const line = motion.line[row] as number
  const where = `The tip is then at ${lathe ? `X ${formatLength(2 * hit.at[0], unit)}` : `X ${formatLength(hit.at[0], unit)} Y ${formatLength(hit.at[1], unit)}`} Z ${formatWithUnit(hit.at[2], unit)}.`
  const rest = { row, at: hit.at, body: hit.body.id }
  if (isAbove(hit) && !of.aboveKnown)
    return programFinding(
      'look',
      'above-may-hit',
      line,
      `${capital(thingOf(hit))} may go into ${hit.body.name}.`,
      `The machine’s page does not say how large it is: what is usual was taken. ${where}`,
      { ...rest, fix: 'Measure it, and enter it on the machine’s page.' },
    )
  if (!hit.sure) {
    const mending = upFirst(of, hit)
    return programFinding(
      'look',
      'rapid-may-hit',
      line,
      `Rapid on more than one axis: ${thingOf(hit)} may go through ${hit.body.name}.`,
      of.open.length > 0
        ? `The machine’s page does not say ${of.open.join(', ')}: of the ways that leaves, one meets it. ${where}`
        : `At one override or another the path comes nearer to it than it is followed here. ${where}`,
      {
        ...rest,
        ...(mending
          ? { mending }
          : {
              fix: `Move one axis after the other${of.open.length > 0 ? ', or enter on the machine’s page how its rapids go' : ''}.`,
            }),
      },
    )
  }
  if ((motion.flags[row] as number) & FLAG.TO_MACHINE)
    return programFinding(
      'stop',
      'home-hits',
      line,
      `On the way home ${thingOf(hit)} goes through ${hit.body.name}.`,
      where,
      {
        ...rest,
        fix: 'Go up in Z first, then home in X and Y.',
      },
    )
  if (kind === ROW.RAPID) {
    if (hit.body.role === 'part' && goesDeeper(of, row))
      return programFinding(
        'stop',
        'plunge-rapid',
        line,
        `${capital(thingOf(hit))} goes into ${hit.body.name} at rapid.`,
        `${where} There is material there: nothing has cut it away by then.`,
        { ...rest, fix: 'Stop the rapid before the material and go on at feed.' },
      )
    const low = returnPlane(of, hit)
    if (low) return low
    const mending = upFirst(of, hit)
    return programFinding(
      'stop',
      'rapid-hits',
      line,
      `Rapid: ${thingOf(hit)} goes through ${hit.body.name}.`,
      where,
      {
        ...rest,
        ...(mending ? { mending } : { fix: 'Go round it, or over it.' }),
      },
    )
  }
  return programFinding(
    'stop',
    'feed-hits',
    line,
    `At feed ${thingOf(hit)} goes into ${hit.body.name}.`,
    where,
    {
      ...rest,
      fix: feedFix(of, hit),
    },
  )
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** Hits as findings: each line and body once, with how often. */
export function hitFindings(of: HitCase, hits: readonly Hit[]): ProgramFinding[] {
  const known = new Map<string, ProgramFinding>()
  for (const hit of hits) {
    const next = one(of, hit)
    const key = `${next.code}/${next.line}/${hit.body.id}`
    const before = known.get(key)
    if (before) before.more = (before.more ?? 0) + 1
    else known.set(key, next)
  }
  const last = hits.at(-1)
  if (last && hits.length >= MOST_HITS)
    known.set(
      'further',
      programFinding(
        'look',
        'hits-further',
        of.motion.line[last.row] as number,
        `After this line no further crash was looked for: ${MOST_HITS} were found.`,
        'What comes later may hit as well.',
        { row: last.row, fix: 'Mend those first.' },
      ),
    )
  return [...known.values()]
}

/** Whether a point is in the material that a part begins as; what was only cut away later counts as well. */
function inPart(part: Body, at: Triple, lathe: boolean): boolean {
  const { least, greatest } = boundsOf(part)
  const within = (axis: 0 | 1 | 2) => at[axis] > least[axis] + 1e-9 && at[axis] < greatest[axis] - 1e-9
  if (!lathe) return within(0) && within(1) && within(2)
  const bore = (part.shape === 'cylinder' && part.bore) || 0
  const radius = Math.abs(at[0])
  return within(2) && radius < greatest[0] - 1e-9 && (bore === 0 || radius > bore / 2 + 1e-9)
}

/** Cutting moves into the part with the spindle standing: the first of each tool. */
export function stoppedFindings({ motion, lathe }: HitCase, parts: readonly Body[]): ProgramFinding[] {
  const found: ProgramFinding[] = []
  const said = new Set<number>()
  for (let row = 0; row < motion.count; row++) {
    const kind = motion.kind[row] as number
    if (kind === ROW.RAPID || kind >= ROW.PROBE || (motion.flags[row] as number) & FLAG.SPINDLE) continue
    if ((kind === ROW.IN_STEP || kind === ROW.TAP_OUT) && motion.inStep[motion.aux[row] as number]?.starts)
      continue
    const tool = motion.states[motion.state[row] as number]?.tool ?? 0
    if (said.has(tool)) continue
    const at = endOf(motion, row)
    const part = parts.find((each) => inPart(each, at, lathe))
    if (!part) continue
    said.add(tool)
    found.push(
      programFinding(
        'stop',
        'spindle-stopped',
        motion.line[row] as number,
        `T${tool} goes into ${part.name} with the spindle standing.`,
        'It is off, or no M3 or M4 stands before it since the tool was put in.',
        { row, at, fix: 'Start the spindle before this line.' },
      ),
    )
  }
  return found
}

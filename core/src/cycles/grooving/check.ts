import { type Finding, finding, worstFirst } from '../../fact/index.ts'
import { toolOnLathe } from '../../machine/index.ts'
import { formatLength, formatWithUnit } from '../../quantity/index.ts'
import { type CycleCase, tooFast, toolOf, toolUnknown } from '../cycle/index.ts'
import type { GrooveParams } from './params.ts'
import { cutsOf, grooveMoves, plungePlaces } from './plan.ts'
import { type Left, leftStanding, type Ring } from './section.ts'
import type { GrooveSizes } from './sizes.ts'

/** What one groove is like once it is cut. */
export function grooveLeft(sizes: GrooveSizes): Left {
  const moves = grooveMoves(sizes, 0, 0)
  return leftStanding(sizes.section, cutsOf(moves, { u: sizes.start, v: sizes.level }), sizes.insert)
}

/** Farthest from one plunge to the next. */
const widestStep = (places: readonly number[]) =>
  Math.max(0, ...places.slice(1).map((place, n) => Math.abs(place - (places[n] as number))))

/** The rings that the plunges by themselves leave, where they stand wider apart than the insert. */
export function ringsBetween(sizes: GrooveSizes): Ring[] {
  const { start, last, stepover, insert, section, level } = sizes
  if (widestStep(plungePlaces(start, last, stepover)) < insert.width - 1e-9) return []
  const moves = grooveMoves({ ...sizes, finish: false }, 0, 0)
  // What the plunges leave for the finishing pass is no ring.
  const roughed = { ...section, depth: sizes.plungeDepth }
  return leftStanding(roughed, cutsOf(moves, { u: start, v: level }), insert).rings
}

/** What must hold before the section can be looked at: sizes that make a groove at all. */
function shapeChecks(params: GrooveParams, sizes: GrooveSizes, { unit, machine }: CycleCase): Finding[] {
  const say = (value: number) => formatWithUnit(value, unit)
  const { section, insert, tolerance } = sizes
  const { low, high, depth, corner } = section
  const width = high - low
  const found: Finding[] = []
  if (machine.kind !== 'lathe')
    found.push(
      finding('stop', 'no-lathe', 'where', 'Grooves are cut on a lathe.', `${machine.name} is a mill.`),
    )
  if (depth <= 0)
    found.push(
      finding(
        'stop',
        'groove-no-depth',
        'bottom',
        params.where === 'inside'
          ? 'The bottom of the groove is not larger than the bore.'
          : params.where === 'face'
            ? 'The bottom of the groove is not below the face.'
            : 'The bottom of the groove is not smaller than the bar.',
        'Its depth comes out as nothing, or the wrong way.',
        'Look at the two numbers on the drawing: both are as they are printed there.',
      ),
    )
  if (width <= 0)
    found.push(
      finding(
        'stop',
        'groove-no-width',
        'near',
        'Both walls are at the same place.',
        'The groove has no width.',
      ),
    )
  if (depth <= 0 || width <= 0) return found
  if (insert.width > width + 2 * tolerance.wall + 1e-9)
    found.push(
      finding(
        'stop',
        'insert-too-wide',
        'insertWidth',
        `The insert is ${say(insert.width)} wide; the groove is ${say(width)}.`,
        'One plunge would already cut it too wide.',
        'Take a narrower insert.',
      ),
    )
  if (2 * insert.corner > insert.width + 1e-9)
    found.push(
      finding(
        'stop',
        'insert-corner',
        'insertCorner',
        'The corner radius is more than half the width of the insert.',
        'There is no such insert.',
      ),
    )
  if (insert.corner > corner + 1e-9)
    found.push(
      finding(
        'stop',
        'corner-too-large',
        'insertCorner',
        `The insert's corner is ${say(insert.corner)}; the drawing allows ${say(corner)} in the groove.`,
        'The corner of the groove comes out as the insert is.',
        'Take an insert with a smaller corner radius.',
      ),
    )
  const fillet = Math.max(0, corner - insert.corner)
  if (sizes.finish && width - insert.width < 2 * fillet - 1e-9 && insert.width <= width)
    found.push(
      finding(
        'stop',
        'no-room-for-corners',
        'corner',
        `Between the corners of ${say(corner)} there is no room for the insert.`,
        `It needs a groove of ${say(insert.width + 2 * fillet)}.`,
        'Take a narrower insert, or one with the corner of the drawing and no finishing pass.',
      ),
    )
  if (depth > sizes.reach + 1e-9)
    found.push(
      finding(
        'stop',
        'reach',
        'reach',
        `The groove is ${say(depth)} deep; the insert reaches ${say(sizes.reach)}.`,
        'The holder would rub on the bar.',
        'Take a holder that reaches deeper.',
      ),
    )
  if (section.edge.kind !== 'none' && !sizes.finish)
    found.push(
      finding(
        'look',
        'edge-not-cut',
        'edge',
        'The edges of the groove are not broken: plunges do not reach them.',
        'Only the finishing pass goes over the edges.',
        'Switch the finishing pass on.',
      ),
    )
  if (section.edge.size + corner > depth + 1e-9)
    found.push(
      finding(
        'stop',
        'edge-meets-corner',
        'edgeSize',
        'The broken edge and the corner radius are together more than the depth.',
        'No wall is left between them.',
      ),
    )
  return found
}

function wayIn(params: GrooveParams, sizes: GrooveSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const say = (value: number) => formatWithUnit(value, unit)
  const found: Finding[] = []
  if (params.where === 'inside') {
    const bore = 2 * sizes.surface
    const { minBore, level } = sizes
    if (minBore === null)
      found.push(
        finding(
          'look',
          'bar-unknown',
          'minBore',
          'How small a bore the bar enters has not been entered.',
          'Whether it goes in at all is not looked at.',
          'Enter the smallest bore that its maker names.',
        ),
      )
    else if (minBore > bore + 2 * level + 1e-9)
      found.push(
        finding(
          'stop',
          'bar-cannot-enter',
          'minBore',
          `The bar needs a bore of ${say(minBore)}; with the clearance there is ${say(bore + 2 * level)}.`,
          'Its back meets the bore on the way in.',
          minBore <= bore ? 'Take less clearance, or a thinner bar.' : 'Take a thinner bar.',
        ),
      )
    if (sizes.surface + level <= 0)
      found.push(
        finding(
          'stop',
          'past-centre',
          'clearance',
          'The clearance in the bore is more than its radius.',
          'The start would lie beyond the centre.',
          'Take less clearance.',
        ),
      )
  }
  if (params.where === 'face') {
    const first = 2 * (sizes.insert.programmed === 'low' ? sizes.start + sizes.insert.width : sizes.start)
    const { least, most } = sizes.firstCut
    if (least === null || most === null)
      found.push(
        finding(
          'look',
          'face-range-unknown',
          'faceLeast',
          'The diameters at which this holder may make its first cut have not been entered.',
          'Its curved support meets the outer or the inner wall where they do not fit.',
          'Enter both from the page of its maker.',
        ),
      )
    else if (first < least - 1e-9 || first > most + 1e-9)
      found.push(
        finding(
          'stop',
          'face-range',
          'faceLeast',
          `The first cut is at ${say(first)} diameter; the holder is made for ${say(least)} to ${say(most)}.`,
          'Its curved support rubs on the wall and breaks.',
          'Take a holder for this diameter.',
        ),
      )
  }
  return found
}

function cutChecks(sizes: GrooveSizes, { unit }: CycleCase): Finding[] {
  const say = (value: number) => formatWithUnit(value, unit)
  const { insert, stepover, section, tolerance } = sizes
  const found: Finding[] = []
  const places = plungePlaces(sizes.start, sizes.last, stepover)
  const plunges = places.length
  if (widestStep(places) >= insert.width - 1e-9)
    found.push(
      finding(
        'stop',
        'rings-left',
        'stepover',
        `A stepover of ${say(stepover)} leaves rings: the insert is only ${say(insert.width)} wide.`,
        'Between two plunges the bar stays as it was; the rings are in the picture.',
        `About 80 % of the insert is usual: ${say(0.8 * insert.width)}.`,
      ),
    )
  const low = insert.programmed === 'low'
  const ends = [sizes.start, sizes.last].map((u) =>
    low ? [u, u + insert.width] : [u - insert.width, u],
  ) as [[number, number], [number, number]]
  const over = Math.max(...ends.map(([a, b]) => Math.max(section.low - a, b - section.high)))
  if (over > tolerance.wall + 1e-9) {
    const atStart = Math.max(section.low - ends[0][0], ends[0][1] - section.high) >= over - 1e-9
    found.push(
      finding(
        'stop',
        'start-cuts-wall',
        atStart ? 'start' : 'last',
        `${atStart ? 'The first' : 'The last'} plunge cuts ${say(over)} into the wall.`,
        'One end of the insert is programmed, the other stands its width away: that side must begin inside the groove by the width.',
        'Leave the field empty to have it calculated.',
      ),
    )
    return found
  }
  if (Math.sign(sizes.last - sizes.start) > 0 && plunges > 1)
    found.push(
      finding(
        'stop',
        'start-and-last',
        'last',
        'The first and the last plunge are the wrong way round.',
        'The cycle goes from the high wall to the low one.',
        'Leave both fields empty to have them calculated.',
      ),
    )
  const left = grooveLeft(sizes)
  const gouge = Math.max(tolerance.bottom, tolerance.wall, unit === 'inch' ? 0.0002 : 0.005)
  if (left.gouge > gouge)
    found.push(
      finding(
        'stop',
        'cuts-too-much',
        sizes.finish ? 'wallStock' : 'corner',
        `The plunges cut ${say(left.gouge)} more than the drawing wants.`,
        sizes.finish
          ? 'They stand too near to the corners: the finishing pass can put nothing back.'
          : `The insert's corner, ${say(insert.corner)}, is sharper than the corner of the groove, ${say(section.corner)}.`,
        sizes.finish
          ? 'Leave more on walls and floor.'
          : 'Add a finishing pass, or take an insert with this corner.',
      ),
    )
  const walls = Math.max(left.walls.low, left.walls.high)
  if (widestStep(places) < insert.width && left.floor > tolerance.bottom + 1e-9)
    found.push(
      finding(
        'look',
        'floor-left',
        'stepover',
        `${say(left.floor)} stands on the floor between plunges; ${say(tolerance.bottom)} is allowed.`,
        `The insert is flat over ${say(insert.width - 2 * insert.corner)} only.`,
        'Step over less, or add a finishing pass.',
      ),
    )
  if (walls > tolerance.wall + 1e-9)
    found.push(
      finding(
        'look',
        'walls-left',
        'wallStock',
        `${say(walls)} is left on a wall; ${say(tolerance.wall)} is allowed.`,
        'The plunges end before the wall.',
        'Leave start and last plunge empty, or add a finishing pass.',
      ),
    )
  return found
}

/** Where the tool table says another tool than the groove does. */
function tableChecks(params: GrooveParams, sizes: GrooveSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const tool = toolOf(on, params.tool)
  if (!tool)
    return [
      toolUnknown(
        params.tool,
        'tool',
        on,
        'Its width and its reach are taken as they are typed; its holder is not looked at.',
      ),
    ]
  if (tool.kind !== 'grooving')
    return [
      finding(
        'look',
        'not-grooving',
        'tool',
        `T${params.tool} is no grooving tool in the tool table.`,
        'What its insert is like is not known.',
      ),
    ]
  const found: Finding[] = []
  const { side, corner, point } = toolOnLathe(tool)
  if (point !== 'corner')
    found.push(
      finding(
        'stop',
        'point-differs',
        'programmed',
        `T${params.tool} is programmed at the ${point === 'nose' ? 'middle' : 'edge'} of its nose in the tool table.`,
        'This cycle is written for a corner of the insert: the groove would be off by the difference.',
        'Set the tool at its corner, and say so on the tools page.',
      ),
    )
  if (params.insertWidth && Math.abs(tool.diameter - sizes.insert.width) > (unit === 'inch' ? 0.0005 : 0.01))
    found.push(
      finding(
        'look',
        'width-differs',
        'insertWidth',
        `T${params.tool} is ${formatWithUnit(tool.diameter, unit)} wide in the tool table, ${formatLength(sizes.insert.width, unit)} here.`,
        'One of the two is wrong, and a wall with it.',
      ),
    )
  if (side !== params.where)
    found.push(
      finding(
        'look',
        'side-differs',
        'where',
        `T${params.tool} is a tool for ${SIDES[side]} in the tool table; this groove is ${WHERE[params.where]}.`,
        'Prove sees the tool as the table says, and may stop for it.',
        'Take another tool, or correct it on the tools page.',
      ),
    )
  else if (corner !== params.programmed)
    found.push(
      finding(
        'look',
        'corner-differs',
        'programmed',
        `T${params.tool} is programmed at its other corner in the tool table.`,
        'One of the two is wrong, and the groove is off by the width of the insert.',
        'Correct it here or on the tools page.',
      ),
    )
  return found
}

const SIDES = { outside: 'outside', inside: 'inside', face: 'the face' } as const
const WHERE = { outside: 'outside', inside: 'inside', face: 'in a face' } as const

function speedChecks(params: GrooveParams, sizes: GrooveSizes, on: CycleCase): Finding[] {
  const { machine } = on
  const { spindle } = sizes
  const top = machine.dynamics?.spindleTop
  const found: Finding[] = []
  if ('surface' in spindle) {
    if (spindle.clamp === null)
      found.push(
        finding(
          'stop',
          'no-clamp',
          'clamp',
          'Constant surface speed without a highest speed.',
          'The smaller the diameter the faster it turns: chuck and bar are made for less.',
          'Enter the highest speed that the chuck and this bar allow.',
        ),
      )
    else if (top !== undefined && spindle.clamp > top)
      found.push(
        finding(
          'look',
          'clamp-over-top',
          'clamp',
          `The clamp, ${spindle.clamp} rpm, is more than ${machine.name} turns: ${top} rpm.`,
          'It holds nothing back.',
          'Enter what the chuck and this bar allow.',
        ),
      )
  } else found.push(...tooFast(spindle.turns, 'turns', on))
  found.push(...tableChecks(params, sizes, on))
  return found
}

/** What is wrong with a groove, worst first. */
export function checkGroove(params: GrooveParams, sizes: GrooveSizes, on: CycleCase): Finding[] {
  const shape = shapeChecks(params, sizes, on)
  const whole = !shape.some(({ severity }) => severity === 'stop')
  const overlap =
    sizes.shifts.length > 1 &&
    Math.abs((sizes.shifts[1] ?? 0) - (sizes.shifts[0] ?? 0)) < sizes.section.high - sizes.section.low
  return worstFirst([
    ...shape,
    ...wayIn(params, sizes, on),
    ...(whole ? cutChecks(sizes, on) : []),
    ...(overlap
      ? [
          finding(
            'stop',
            'grooves-overlap',
            'pitch',
            'The grooves run into each other.',
            'From one to the next is less than a groove is wide.',
          ),
        ]
      : []),
    ...speedChecks(params, sizes, on),
  ])
}

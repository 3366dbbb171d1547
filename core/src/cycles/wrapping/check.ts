import { type Finding, finding, worstFirst } from '../../fact/index.ts'
import { lackingIn, layText } from '../../lettering/index.ts'
import { convertLength, formatLength, formatWithUnit, type TypedLength } from '../../quantity/index.ts'
import {
  type CycleCase,
  clearanceLow,
  cutsTooLittle,
  printed,
  tooFast,
  toolOf,
  toolUnknown,
} from '../cycle/index.ts'
import type { WrapParams } from './params.ts'
import type { WrapSizes } from './sizes.ts'

function axisChecks(sizes: WrapSizes, on: CycleCase): Finding[] {
  const { machine } = on
  const found: Finding[] = []
  if (!machine.rotary) {
    found.push(
      finding(
        'stop',
        'no-rotary',
        'way',
        `${machine.name} has no rotary axis that is known here.`,
        'Nobody has said which word it has, and which way it turns.',
        'Enter it on the machine’s page.',
      ),
    )
    return found
  }
  const { turns } = machine.rotary
  if (turns && (sizes.turnsFrom < turns.least - 1e-9 || sizes.turnsTo > turns.greatest + 1e-9))
    found.push(
      finding(
        'stop',
        'rotary-limits',
        'turn',
        `It turns from ${sizes.turnsFrom.toFixed(1)} to ${sizes.turnsTo.toFixed(1)} degrees; ${machine.rotary.word} goes from ${turns.least} to ${turns.greatest}.`,
        'The control stops with an alarm, with the tool in the part.',
        'Start at another angle.',
      ),
    )
  if (on.angle !== 0)
    found.push(
      finding(
        'stop',
        'wrap-turned',
        'turned',
        'A program that is turned as the part lies cannot be wrapped.',
        'What goes round the rotary’s axis must lie along it.',
        'Square the rotary, and switch the turning off.',
      ),
    )
  if (sizes.slowest < 1 - 1e-9) {
    const share = Math.round(100 * sizes.slowest)
    found.push(
      finding(
        'note',
        'rotary-slow',
        'feed',
        `The rotary holds it up: at its ${Math.round(sizes.rotaryTop)} degrees a minute some moves go at ${share} % of the feed.`,
        sizes.byMapping ? 'The control slows down by itself.' : 'It is written that slow.',
      ),
    )
  }
  return found
}

function layoutChecks(params: WrapParams, sizes: WrapSizes, { unit }: CycleCase): Finding[] {
  const say = (value: number) => formatWithUnit(value, unit)
  const found: Finding[] = []
  const { layout, extent, gap } = sizes
  for (const { line, says } of layout.lost)
    found.push(
      finding(
        'stop',
        'flat-program',
        'program',
        `Line ${line} of the flat program: ${says}`,
        'What cannot be read cannot be wrapped.',
        'Take it out, or mend it.',
      ),
    )
  if (layout.tools.length > 0)
    found.push(
      finding(
        layout.tools.length > 1 ? 'look' : 'note',
        'flat-tools',
        'program',
        `The flat program takes ${layout.tools.map((tool) => `T${tool}`).join(', ')}; here all of it is cut with T${params.tool}.`,
        'Its tool changes, speeds and stops are left out.',
        layout.tools.length > 1 ? 'Wrap the part of each tool by itself.' : undefined,
      ),
    )
  if (params.what === 'text' && lackingIn(params.text).length > 0)
    found.push(
      finding(
        'stop',
        'character-lacking',
        'text',
        `There is no letter for ${lackingIn(params.text)
          .map((each) => `“${each}”`)
          .join(' ')}.`,
        'Nothing is engraved in place of what is missing.',
        'Write the text without it.',
      ),
    )
  if (params.what === 'text' && params.text.includes('#'))
    found.push(
      finding(
        'look',
        'serial-wrapped',
        'text',
        'Round a cylinder # is engraved as it stands.',
        'Serial numbers are counted in engraving on a face only.',
        'Type the number itself.',
      ),
    )
  if (!extent) {
    if (layout.lost.length === 0)
      found.push(
        finding(
          'stop',
          'nothing-cut',
          params.what === 'program' ? 'program' : 'what',
          'Nothing of it goes into the part.',
          'There is nothing to write.',
        ),
      )
    return found
  }
  if (gap < -1e-9)
    found.push(
      finding(
        'look',
        'seam-overlap',
        'diameter',
        `It is longer than once round: it overlaps itself by ${say(-gap)} at the seam.`,
        `Once round is ${say(sizes.about)}.`,
        'Make it shorter, or mean it so.',
      ),
    )
  if (params.what === 'scale' && params.numeralEvery > 0) {
    const spacing = Math.abs(
      ((params.covers === 'turn' ? sizes.about : (sizes.about * params.span) / 360) / params.divisions) *
        params.numeralEvery,
    )
    const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
    const height = own(params.numeralHeight)
    const count = Math.floor((params.divisions - (params.covers === 'turn' ? 1 : 0)) / params.numeralEvery)
    const widest = Math.max(
      ...[0, count].map((n) => layText(String(params.numeralFirst + n * params.numeralStep)).width),
    )
    const room = params.numeralsRun === 'round' ? widest * height : height
    if (room > 0.9 * spacing)
      found.push(
        finding(
          'look',
          'numerals-touch',
          'numeralHeight',
          `A numeral takes ${say(room)} round; from one to the next there is ${say(spacing)}.`,
          'They run into each other.',
          'Make them smaller, or write fewer.',
        ),
      )
  }
  return found
}

function depthChecks(params: WrapParams, sizes: WrapSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const say = (value: number) => formatWithUnit(value, unit)
  const { radius, moves } = sizes
  const deepest = -Math.min(0, ...moves.map(({ z }) => z))
  const found: Finding[] = []
  if (deepest >= radius)
    found.push(
      finding(
        'stop',
        'past-centre',
        'depth',
        `It goes ${say(deepest)} deep; the radius is ${say(radius)}.`,
        'The tool would cut past the centre of the part.',
        'Correct the depth, or the diameter.',
      ),
    )
  const tool = toolOf(on, params.tool)
  if (!tool) found.push(toolUnknown(params.tool, 'tool', on))
  else {
    found.push(...cutsTooLittle(tool, deepest, 'it', on))
    if (
      params.what === 'holes'
        ? tool.kind !== 'drill' && tool.kind !== 'mill'
        : tool.kind !== 'mill' && tool.kind !== 'engraver'
    )
      found.push(
        finding(
          'stop',
          'tool-kind',
          'tool',
          `T${params.tool} is a ${tool.kind} in the tool table.`,
          'It is not made for this.',
          'Choose another tool.',
        ),
      )
    if (params.what === 'slots' && tool.kind === 'mill' && tool.diameter > 2 * radius)
      found.push(
        finding(
          'look',
          'tool-wide',
          'tool',
          `T${params.tool} is wider than the part: ${say(tool.diameter)}.`,
          'It takes off the whole side.',
        ),
      )
  }
  found.push(...tooFast(sizes.rpm, 'turns', on))
  if (printed(sizes.clearance, on) < printed(sizes.r, on)) found.push(clearanceLow)
  return found
}

/** Against the cylinder that stands in the work area. */
function bodyChecks(params: WrapParams, sizes: WrapSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const say = (value: number) => formatWithUnit(value, unit)
  const found: Finding[] = []
  const bodies = on.bodies ?? []
  const parts = bodies.filter(({ part }) => part)
  const part = parts.find(({ lies }) => lies !== undefined)
  const slack = unit === 'inch' ? 0.0005 : 0.01
  if (parts.length > 0 && !part)
    found.push(
      finding(
        'look',
        'part-not-round',
        'diameter',
        'The part in the work area is no cylinder that lies along X.',
        'What is wrapped goes round one; where the centre line lies cannot be looked at.',
        'Place it as a cylinder along X.',
      ),
    )
  if (part?.lies) {
    const { radius, axisZ, from, to } = part.lies
    const wanted = params.zZero === 'top' ? -sizes.radius : 0
    if (Math.abs(axisZ - wanted) > slack)
      found.push(
        finding(
          'stop',
          'z-zero-differs',
          'zZero',
          params.zZero === 'top'
            ? `Z zero on top of ${say(2 * sizes.radius)} puts the centre line at Z ${formatLength(-sizes.radius, unit)}; in the work area it lies at Z ${formatLength(axisZ, unit)}.`
            : `Z zero in the centre; in the work area the centre line lies at Z ${formatLength(axisZ, unit)}.`,
          'The tool would cut that much too deep, or air.',
          'Say where Z zero is, or correct the diameter or the work area.',
        ),
      )
    else if (Math.abs(radius - sizes.radius) > slack)
      found.push(
        finding(
          'stop',
          'diameter-differs',
          'diameter',
          `The part in the work area is ${say(2 * radius)}, not ${say(2 * sizes.radius)}.`,
          'The radius decides how far a length goes round, and how deep the tool goes.',
          'Correct one of the two.',
        ),
      )
    const { extent } = sizes
    if (extent && (extent.x[0] < from - slack || extent.x[1] > to + slack))
      found.push(
        finding(
          'stop',
          'text-off-part',
          'x',
          `It reaches from X ${formatLength(extent.x[0], unit)} to ${formatLength(extent.x[1], unit)}; the part from ${formatLength(from, unit)} to ${formatLength(to, unit)}.`,
          'As the part stands in the work area.',
          'Move it along, or place the part where it is.',
        ),
      )
  }
  const { extent } = sizes
  const tool = toolOf(on, params.tool)
  const reach = (tool?.diameter ?? 0) / 2
  for (const body of bodies) {
    if (body.part || !extent) continue
    const { shape } = body
    const [low, high] =
      shape.kind === 'circle'
        ? [shape.at.x - shape.radius, shape.at.x + shape.radius]
        : [shape.least.x, shape.greatest.x]
    const acrossCentre =
      shape.kind === 'circle'
        ? Math.abs(shape.at.y) < shape.radius + reach
        : shape.least.y < reach && shape.greatest.y > -reach
    if (!acrossCentre || extent.x[1] + reach < low || extent.x[0] - reach > high) continue
    if (body.top > sizes.zShift - sizes.depth)
      found.push(
        finding(
          'stop',
          'text-on-body',
          'x',
          `It comes to the ${body.name}.`,
          `It stands up to Z ${formatLength(body.top, unit)} there.`,
          'Move it along the part.',
        ),
      )
  }
  return found
}

/** What is wrong with a layout on a cylinder, worst first. */
export function checkWrap(params: WrapParams, sizes: WrapSizes, on: CycleCase): Finding[] {
  return worstFirst([
    ...axisChecks(sizes, on),
    ...layoutChecks(params, sizes, on),
    ...depthChecks(params, sizes, on),
    ...bodyChecks(params, sizes, on),
  ])
}

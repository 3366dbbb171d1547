import { type Finding, finding, worstFirst } from '../../fact/index.ts'
import { lackingIn } from '../../lettering/index.ts'
import { formatLength, formatWithUnit } from '../../quantity/index.ts'
import {
  type CycleCase,
  clearanceLow,
  cutsTooLittle,
  outside,
  placeHole,
  printed,
  tooFast,
  toolOf,
  toolUnknown,
} from '../cycle/index.ts'
import { pointsAlong } from './fits.ts'
import { type EngraveParams, hasSerial } from './params.ts'
import { piecesRunOver } from './pieces.ts'
import { atItsLongest, cutLetters, type EngraveSizes, fallOff, STROKE_A, STROKE_B } from './sizes.ts'

/** Letters whose strokes are wider than this share of their height fill in. By judgement: ISO 3098 has 1/10. */
const THICK = 6
/** Strokes thinner than this share are hard to read, twice as thin as type A of ISO 3098. By judgement. */
const THIN = 2 * STROKE_A

const quoted = (characters: readonly string[]) => characters.map((each) => `“${each}”`).join(' ')

function textChecks(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Finding[] {
  const { profile } = on
  const { lettering } = profile.reading
  const found: Finding[] = []
  if (sizes.moves) {
    const lacking = lackingIn(sizes.text)
    if (lacking.length > 0)
      found.push(
        finding(
          'stop',
          'character-lacking',
          'text',
          `There ${lacking.length === 1 ? 'is no letter' : 'are no letters'} for ${quoted(lacking)}.`,
          'Nothing is engraved in place of what is missing.',
          'Write the text without it.',
        ),
      )
    if (params.way === 'cycle' && profile.reading.text !== null && params.sits === 'arc')
      found.push(
        finding(
          'note',
          'arc-as-moves',
          'sits',
          "On an arc the letters are written out: the control's cycle engraves in a row only.",
          '',
        ),
      )
    return found
  }
  const cannot = [
    ...new Set([...sizes.text].filter((each) => !lettering.characters.includes(each) && each !== '#')),
  ]
  if (cannot.length > 0)
    found.push(
      finding(
        'stop',
        'character-not-carried',
        'text',
        `The control's text cycle cannot carry ${quoted(cannot)}.`,
        `The profile ${profile.name} lists what it can.`,
        lackingIn(cannot.join('')).length === 0
          ? 'Have the letters written out, or write it without.'
          : 'Write the text without it.',
      ),
    )
  const unseen = lackingIn(sizes.text).filter((each) => !cannot.includes(each))
  if (unseen.length > 0)
    found.push(
      finding(
        'look',
        'letter-not-seen',
        'text',
        `The control may carry ${quoted(unseen)}; there is no letter for it here.`,
        'It is not in the picture, and the text comes out longer than is said.',
        'Leave room for it.',
      ),
    )
  const over = piecesRunOver(params, sizes, on)
  if (over)
    found.push(
      finding(
        'stop',
        'serial-over-letters',
        'text',
        `“${over.said}” may come out up to ${formatWithUnit(over.by, on.unit)} longer than there is room before what follows.`,
        `How wide this control's letters are has not been measured, and the number is set by itself, where it should begin: it may be cut over the letters before it.`,
        'Engrave one text on scrap, measure it, and tell the length: Letters. Or have the letters written out.',
      ),
    )
  if (sizes.doubt > 0)
    found.push(
      finding(
        hasSerial(params.text) ? 'look' : 'note',
        'width-unknown',
        'text',
        `How wide this control's letters are has not been measured: the length is right within ${Math.round(100 * sizes.doubt)} %.`,
        '',
        'Engrave one on scrap, measure it, and tell the length: Letters.',
      ),
    )
  return found
}

function roomChecks(params: EngraveParams, sizes: EngraveSizes, { unit }: CycleCase): Finding[] {
  const { room, width, doubt, height, laid } = sizes
  if (!room) return []
  const say = (value: number) => formatWithUnit(value, unit)
  const tall = height * (laid.high - laid.low)
  const where = { box: 'the box', line: 'the line', arc: 'the circle', start: '' }[params.sits]
  if (width > room.along * (1 + 1e-9))
    return [
      finding(
        'stop',
        'text-too-long',
        'height',
        `The text is ${say(width)} long; ${where} has ${say(room.along)}.`,
        params.sits === 'arc' ? 'It would run over its own beginning.' : 'It would run out of it.',
        'Leave the height empty to have it as high as possible.',
      ),
    ]
  if (room.across !== null && tall > room.across * (1 + 1e-9))
    return [
      finding(
        'stop',
        'text-too-tall',
        'height',
        `The text is ${say(tall)} tall; the box has ${say(room.across)}.`,
        'It would run out of it.',
        'Leave the height empty to have it as high as possible.',
      ),
    ]
  if (room.before + width * (1 + doubt) > room.along * (1 + 1e-9))
    return [
      finding(
        // One text is looked at before it is cut; a series is not.
        hasSerial(params.text) ? 'stop' : 'look',
        'text-may-run-out',
        'height',
        `As long as it may become, ${say(width * (1 + doubt))}, it runs out of ${where}.`,
        "How wide this control's letters are has not been measured.",
        'Measure one first, or take a smaller height.',
      ),
    ]
  return []
}

function cutChecks(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const say = (value: number) => formatWithUnit(value, unit)
  const { depth, lineWidth, ratio, tip } = sizes
  const found: Finding[] = []
  if (depth <= 0) {
    found.push(
      finding(
        'stop',
        'line-under-tip',
        'lineWidth',
        `The tip alone is ${say(tip)} wide: no depth makes a line of ${say(sizes.height / STROKE_B)} or what was typed.`,
        'A tool cuts no line narrower than its tip.',
        'Take a finer tip, or a wider line.',
      ),
    )
    return found
  }
  if (ratio < THICK)
    found.push(
      finding(
        'look',
        'line-thick',
        'lineWidth',
        `The line is ${say(lineWidth)} wide: a ${ratio.toFixed(1)}th of the height. Small letters fill in.`,
        `Standard lettering has a tenth, or a fourteenth (ISO 3098).`,
        'Cut less deep, or taller letters.',
      ),
    )
  else if (ratio > THIN)
    found.push(
      finding(
        'look',
        'line-thin',
        'lineWidth',
        `The line is ${say(lineWidth)} wide: a ${Math.round(ratio)}th of the height. It is hard to read.`,
        'Standard lettering has a tenth, or a fourteenth (ISO 3098).',
        'Cut deeper.',
      ),
    )
  const uneven = fallOff(sizes)
  if (sizes.round) {
    const across = sizes.round.runs === 'across' ? sizes.width : sizes.height
    if (across / 2 > sizes.round.radius)
      found.push(
        finding(
          'stop',
          'text-off-round',
          'surfaceDiameter',
          `The text is ${say(across)} across a round face of ${say(2 * sizes.round.radius)}.`,
          'It runs off the face.',
        ),
      )
    else if (uneven >= depth)
      found.push(
        finding(
          'stop',
          'round-too-deep',
          'surfaceDiameter',
          `On the round face the surface falls away by ${say(uneven)} over the text; the tool goes ${say(depth)} deep.`,
          'The ends of the text are not cut at all.',
          'Wrap it round the face, or make it smaller.',
        ),
      )
    else if (uneven > 0.25 * depth)
      found.push(
        finding(
          'look',
          'round-uneven',
          'surfaceDiameter',
          `On the round face the depth varies by ${say(uneven)} over the text, of ${say(depth)}.`,
          'Lines at the ends come out thinner.',
          'Wrap it round the face, or make it smaller.',
        ),
      )
  }
  const tool = toolOf(on, params.tool)
  if (!tool) found.push(toolUnknown(params.tool, 'tool', on))
  else {
    found.push(...cutsTooLittle(tool, depth, 'the text', on))
    if (tool.kind !== 'engraver' && tool.kind !== 'mill')
      found.push(
        finding(
          'stop',
          'tool-no-engraver',
          'tool',
          `T${params.tool} is no engraver in the tool table, but a ${tool.kind}.`,
          'It would be dragged sideways through the part.',
          'Choose the tool that has the point.',
        ),
      )
    if (tip > tool.diameter)
      found.push(
        finding(
          'stop',
          'tip-too-wide',
          'tip',
          `A tip of ${say(tip)} is wider than T${params.tool}, ${say(tool.diameter)}.`,
          '',
          'Correct one of the two.',
        ),
      )
  }
  found.push(...tooFast(sizes.rpm, 'turns', on))
  if (printed(sizes.feed, on) <= 0 || printed(sizes.plungeFeed, on) <= 0)
    found.push(
      finding(
        'stop',
        'feed-zero',
        'feed',
        'As the control prints it, the feed is zero.',
        'Nothing moves.',
        'Feed faster.',
      ),
    )
  if (sizes.r <= sizes.top)
    found.push(
      finding(
        'stop',
        'r-plane-low',
        'rPlane',
        'The R plane is not above the part.',
        'Between strokes the tool would drag through it.',
      ),
    )
  if (sizes.clearance < sizes.r) found.push(clearanceLow)
  return found
}

/** Against what stands in the work area: off the part, through a clamp. */
function bodyChecks(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Finding[] {
  const bodies = on.bodies ?? []
  if (bodies.length === 0) return []
  const parts = bodies.filter(({ part }) => part)
  const say = (value: number) => formatWithUnit(value, on.unit)
  const at = ([x, y]: readonly [number, number]) =>
    `X ${formatLength(x, on.unit)} Y ${formatLength(y, on.unit)}`
  const half = sizes.lineWidth / 2
  const pointsOf = (of: EngraveSizes) =>
    pointsAlong(
      cutLetters(of).flatMap(({ strokes }) => strokes),
      Math.max(sizes.height / 10, half),
    ).map(([x, y]): [number, number] => {
      const { meant } = placeHole({ x, y }, on)
      return [meant.x, meant.y]
    })
  const points = pointsOf(sizes)
  const found: Finding[] = []
  const off = parts.length > 0 && points.find((point) => parts.every((body) => outside(body, point) > -half))
  if (off)
    found.push(
      finding(
        'stop',
        'text-off-part',
        params.sits === 'box' ? 'boxWidth' : 'x',
        `The text leaves the part at ${at(off)}.`,
        'As the part stands in the work area.',
        'Move it, or make it smaller; or place the part where it is.',
      ),
    )
  const tool = toolOf(on, params.tool)
  const reach = Math.max(half, (tool?.diameter ?? 0) / 2)
  for (const body of bodies) {
    if (body.part || body.top < sizes.top - sizes.depth) continue
    const hit = points.find((point) => outside(body, point) < reach)
    if (hit)
      found.push(
        finding(
          'stop',
          'text-on-body',
          'x',
          `The text comes to the ${body.name} at ${at(hit)}.`,
          `It stands up to Z ${formatLength(body.top, on.unit)} there.`,
          'Move the text, or what stands there.',
        ),
      )
  }
  if (found.length === 0 && sizes.doubt > 0) {
    const longest = pointsOf(atItsLongest(sizes))
    const away =
      parts.length > 0 && longest.find((point) => parts.every((body) => outside(body, point) > -half))
    const met = bodies.find(
      (body) =>
        !body.part &&
        body.top >= sizes.top - sizes.depth &&
        longest.some((point) => outside(body, point) < reach),
    )
    if (away || met)
      found.push(
        finding(
          hasSerial(params.text) ? 'stop' : 'look',
          'text-may-hit',
          'text',
          met
            ? `As long as it may become, the text comes to the ${met.name}.`
            : `As long as it may become, the text leaves the part${away ? ` at ${at(away)}` : ''}.`,
          "How wide this control's letters are has not been measured.",
          'Measure one first, or leave more room.',
        ),
      )
  }
  const under = parts.filter((body) => points.some((point) => outside(body, point) < 0))
  const top = Math.max(...under.map((body) => body.top))
  if (!off && under.length > 0 && Math.abs(top - sizes.top) > 1e-6)
    found.push(
      finding(
        'look',
        'text-not-on-top',
        'top',
        top < sizes.top
          ? `The top of the part is ${say(sizes.top - top)} lower than the text.`
          : `The part stands ${say(top - sizes.top)} higher than the text's own top.`,
        top < sizes.top
          ? 'Nothing is cut, or not as deep as it is meant.'
          : 'Right only where it is recessed that much there.',
      ),
    )
  return found
}

function serialChecks(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Finding[] {
  if (!hasSerial(params.text)) return []
  const found: Finding[] = []
  const runs = params.text.match(/#+/g) ?? []
  if (runs.length > 1)
    found.push(
      finding(
        'stop',
        'serial-twice',
        'text',
        'The text has more than one place for the serial number.',
        'It is not clear which one counts.',
        'Write # in one place only, one for each digit.',
      ),
    )
  const digits = runs[0]?.length ?? 0
  if (String(params.serial).length > digits)
    found.push(
      finding(
        'stop',
        'serial-digits',
        'serial',
        `${params.serial} has more than ${digits} digit${digits === 1 ? '' : 's'}.`,
        'The number would be cut off, or begin again.',
        'Write one more # in the text.',
      ),
    )
  const counts = !sizes.moves && on.profile.reading.lettering.counts
  if (counts && params.step !== 1)
    found.push(
      finding(
        'stop',
        'serial-step',
        'step',
        'The control counts by ones.',
        'A step of its own it does not know.',
        'Count by 1, or have the letters written out.',
      ),
    )
  if (counts && params.counter !== null && params.counter !== params.serial)
    found.push(
      finding(
        'stop',
        'serial-counter',
        'counter',
        `The control would engrave ${params.counter} next; the list says ${params.serial}.`,
        params.counter < params.serial
          ? 'That number has been given out already.'
          : 'Numbers would be left out.',
        `Set the counter at the control to ${params.serial}.`,
      ),
    )
  if (counts && params.counter === null)
    found.push(
      finding(
        'look',
        'serial-counter-unknown',
        'counter',
        'The control keeps this number itself. What its counter shows has not been told.',
        'It may engrave a number that was given out.',
        'Read it at the control, and type it in: Serial.',
      ),
    )
  return found
}

/** What is wrong with a text, worst first. */
export function checkEngrave(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Finding[] {
  return worstFirst([
    ...textChecks(params, sizes, on),
    ...roomChecks(params, sizes, on),
    ...cutChecks(params, sizes, on),
    ...bodyChecks(params, sizes, on),
    ...serialChecks(params, sizes, on),
  ])
}

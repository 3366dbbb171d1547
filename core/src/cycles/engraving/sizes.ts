import { type Material, materialIn, roundRpm, rpmFor } from '../../cutting/index.ts'
import { cosineOf, sineOf } from '../../geometry/index.ts'
import {
  arcPoses,
  type Laid,
  layText,
  poseAt,
  type Stroke,
  type TextArc,
  type TextPose,
} from '../../lettering/index.ts'
import { convertLength, type LengthUnit, type TypedLength } from '../../quantity/index.ts'
import { type CycleCase, type HolePlace, printed } from '../cycle/index.ts'
import { type EngraveParams, hasSerial } from './params.ts'

/** How far off a text's width may be that nobody has measured on this control, as a share of it. By judgement. */
export const WIDTH_DOUBT = 0.2
/** Stroke width of lettering type B: a tenth of the height (ISO 3098-1). */
export const STROKE_B = 10
/** Type A: a fourteenth (ISO 3098-1). */
export const STROKE_A = 14
/** A height of the standard series, where nothing else says how tall (ISO 3098-1: 3.5 mm). */
const usualHeight = (unit: LengthUnit) => (unit === 'inch' ? 0.125 : 3.5)
/** Sharper corners than a control's own; 0.002 in, 0.05 mm (trade.md 7). */
const usualTolerance = (unit: LengthUnit) => (unit === 'inch' ? 0.002 : 0.05)
const usualR = (unit: LengthUnit) => (unit === 'inch' ? 0.05 : 1)
/** Feed a turn, as a share of the line's width. By judgement: points are weak. */
const BITE = 0.04
const USUAL_TOP = 8_000

/** Everything that a text comes to, in the case's unit. */
export interface EngraveSizes {
  /** What is engraved, the serial number filled in. */
  text: string
  laid: Laid
  /** Written out as moves; else by the control's text cycle. */
  moves: boolean
  /** In a row, or on a circle. */
  stands: { row: TextPose } | { arc: TextArc }
  height: number
  /** How long it comes out, and how far off that may be, as a share. */
  width: number
  doubt: number
  /** The room that it is to fit: along and across, where there is one. */
  room: { along: number; across: number | null; before: number } | null
  lineWidth: number
  depth: number
  /** Flat of the tool's tip. */
  tip: number
  /** Height over line width. */
  ratio: number
  top: number
  r: number
  clearance: number
  rpm: number
  feed: number
  plungeFeed: number
  /** Path tolerance round the text; null where the control's own is left. */
  tolerance: number | null
  /** Radius of the round face that it is on, and whether the text runs along or across; null on a flat one. */
  round: { radius: number; runs: 'along' | 'across' } | null
}

/** Tool angle's part of it: line width = 2 d tan(half angle) + tip (trade.md 7). */
export const lineWidthAt = (depth: number, angle: number, tip: number) =>
  2 * depth * Math.tan((angle * Math.PI) / 360) + tip

/** The depth that makes a line this wide: the same, turned round. */
export const depthFor = (width: number, angle: number, tip: number) =>
  (width - tip) / (2 * Math.tan((angle * Math.PI) / 360))

/** The text with the number of the part in place of each run of #. */
export const withNumber = (text: string, serial: number) =>
  text.replace(/#+/g, (digits) => String(serial).padStart(digits.length, '0'))

/** The digit that takes the most room beside its like. */
const WIDEST_DIGIT = [...'0123456789'].reduce((widest, digit) =>
  layText(digit.repeat(8)).width > layText(widest.repeat(8)).width ? digit : widest,
)

/** The widest that a text can become with a serial number of so many digits: all numbers of a series are as tall as it is. */
const widestOf = (text: string, serial: number) =>
  text.replace(/#+/g, (digits) => WIDEST_DIGIT.repeat(Math.max(digits.length, String(serial).length)))

/**
 * The control's width factor from one text that was engraved: measured from the left of the first stroke to the right of the
 * last, line width included; undefined where the text has no width.
 */
export function widthFactorFrom(text: string, height: number, lineWidth: number, measured: number) {
  const own = layText(text).width * height
  return own > 0 && measured > lineWidth ? (measured - lineWidth) / own : undefined
}

/** A feed as somebody would write it: two digits. */
const evenFeed = (feed: number) => Number(Math.max(feed, 0.01).toPrecision(2))

/** Whether a text is written out: on a circle, where the control has no text cycle, or where it is wanted. */
const writtenOut = ({ sits, way }: EngraveParams, { profile }: CycleCase) =>
  sits === 'arc' || way === 'moves' || profile.reading.text === null

/** Which share of the room that is over lies before the text. */
const SHARE = { left: 0, middle: 0.5, right: 1 }

/**
 * How much of its width a text may need besides, so that it surely ends within its room: it grows from its start only, and
 * half of the room that is over lies before one that is centred.
 */
const spread = (doubt: number, share: number) => (share === 0.5 ? 2 * doubt : doubt)

type Stand = Pick<EngraveSizes, 'stands' | 'height' | 'room'>

/**
 * Where it stands and how tall, from what was meant. `stretch` and `doubt` are of its width; `widest` is what has to have room, so that
 * every number of a series is as tall.
 */
function standing(
  params: EngraveParams,
  { laid, widest, stretch, doubt }: { laid: Laid; widest: Laid; stretch: number; doubt: number },
  on: CycleCase,
): Stand {
  const { unit } = on
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const [x, y] = [own(params.x), own(params.y)]
  const typed = params.height ? own(params.height) : undefined
  const usual = usualHeight(unit)
  const long = laid.width * stretch
  const longest = widest.width * stretch
  // Rounded down, so that what is as high as possible still fits.
  const step = unit === 'inch' ? 1e-3 : 1e-2
  const most = (height: number) => Math.max(step, Math.floor(height / step + 1e-9) * step)
  if (params.sits === 'arc')
    return {
      stands: {
        arc: {
          x,
          y,
          radius: own(params.diameter) / 2,
          at: params.angle,
          height: typed ?? usual,
          reads: params.reads,
        },
      },
      height: typed ?? usual,
      room: { along: Math.PI * own(params.diameter), across: null, before: 0 },
    }
  if (params.sits === 'start') {
    const height = typed ?? usual
    return { stands: { row: { x, y, angle: params.angle, height, stretch } }, height, room: null }
  }
  if (params.sits === 'line') {
    const [dx, dy] = [own(params.toX) - x, own(params.toY) - y]
    const along = Math.hypot(dx, dy)
    const share = SHARE[params.align]
    const height =
      typed ?? (longest > 0 && along > 0 ? most(along / (longest * (1 + spread(doubt, share)))) : usual)
    const from = along > 0 ? (share * (along - long * height)) / along : 0
    const angle = (Math.atan2(dy, dx) * 180) / Math.PI
    return {
      stands: { row: { x: x + from * dx, y: y + from * dy, angle, height, stretch } },
      height,
      room: { along, across: null, before: share * (along - long * height) },
    }
  }
  const [boxWidth, boxHeight] = [own(params.boxWidth), own(params.boxHeight)]
  const tall = widest.high - widest.low
  const height =
    typed ??
    most(
      Math.min(
        boxHeight / tall,
        longest > 0 ? boxWidth / (longest * (1 + spread(doubt, 0.5))) : Number.POSITIVE_INFINITY,
      ),
    )
  const [u, v] = [(boxWidth - long * height) / 2, boxHeight / 2 - ((laid.low + laid.high) / 2) * height]
  const [cos, sin] = [cosineOf(params.angle), sineOf(params.angle)]
  return {
    stands: {
      row: { x: x + u * cos - v * sin, y: y + u * sin + v * cos, angle: params.angle, height, stretch },
    },
    height,
    room: { along: boxWidth, across: boxHeight, before: u },
  }
}

/** All sizes of a text. */
export function engraveSizes(params: EngraveParams, on: CycleCase, material: Material): EngraveSizes {
  const { unit, machine, profile } = on
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const said = params.text.trim()
  const text = hasSerial(said) ? withNumber(said, params.serial) : said
  const laid = layText(text)
  const widest = hasSerial(said) ? layText(widestOf(said, params.serial)) : laid
  const moves = writtenOut(params, on)
  const factor = moves ? 1 : profile.reading.lettering.widthFactor
  const doubt = factor === null ? WIDTH_DOUBT : 0
  const stand = standing(params, { laid, widest, stretch: factor ?? 1, doubt }, on)
  const { height } = stand
  const tip = own(params.tip)
  // Without a depth that was typed it is as deep as makes the line of standard lettering.
  const wanted = params.by === 'width' && params.lineWidth ? own(params.lineWidth) : height / STROKE_B
  const depth = printed(
    params.by === 'depth' && params.depth ? own(params.depth) : depthFor(wanted, params.toolAngle, tip),
    on,
  )
  const lineWidth = lineWidthAt(Math.max(0, depth), params.toolAngle, tip)
  const speeds = materialIn(material, unit)
  const top = machine.dynamics?.spindleTop ?? USUAL_TOP
  const rpm =
    params.turns ?? Math.min(roundRpm(rpmFor(speeds.grooving, Math.max(lineWidth, 1e-4), unit)), top)
  const feed = params.feed ? own(params.feed) : evenFeed(BITE * lineWidth * rpm)
  return {
    ...stand,
    text,
    laid,
    moves,
    width: laid.width * (factor ?? 1) * height,
    doubt,
    lineWidth,
    depth,
    tip,
    ratio: height / Math.max(lineWidth, 1e-9),
    top: own(params.top),
    r: own(params.top) + (params.rPlane ? own(params.rPlane) : usualR(unit)),
    clearance: own(params.top) + own(params.clearance),
    rpm,
    feed,
    plungeFeed: params.plungeFeed ? own(params.plungeFeed) : evenFeed(feed / 2),
    tolerance:
      params.sharp && profile.reading.pathTolerance !== null
        ? params.tolerance
          ? own(params.tolerance)
          : usualTolerance(unit)
        : null,
    round:
      params.surface === 'flat' ? null : { radius: own(params.surfaceDiameter) / 2, runs: params.surface },
  }
}

/** One letter of a text where it is cut. */
export interface CutLetter {
  character: string
  strokes: readonly Stroke[]
}

/** The letters of a text where they are cut, from part zero, in the order of the pen. */
export function cutLetters({
  text,
  laid,
  stands,
}: Pick<EngraveSizes, 'text' | 'laid' | 'stands'>): CutLetter[] {
  const cut = (strokes: readonly Stroke[], pose: TextPose, at: number) =>
    strokes.map((stroke) => stroke.map(([px, py]) => poseAt(pose, at + px, py)))
  if ('arc' in stands)
    return arcPoses(text, stands.arc).map(({ letter: { character, glyph }, pose }) => ({
      character,
      strokes: cut(glyph.strokes, pose, 0),
    }))
  return laid.letters.map(({ character, glyph, at }) => ({
    character,
    strokes: cut(glyph.strokes, stands.row, at),
  }))
}

/**
 * A row of text whose width is in doubt: the corners of the band in which its end lies, and of the longest that it may
 * become; none where nothing is in doubt. Its start stands fast.
 */
export function rowSpan({
  laid,
  stands,
  doubt,
}: EngraveSizes): { band: HolePlace[]; longest: HolePlace[] }[] {
  if ('arc' in stands || doubt === 0 || laid.width === 0) return []
  const { low, high, width } = laid
  const corners = (from: number, to: number) =>
    [
      [from, low],
      [to, low],
      [to, high],
      [from, high],
    ].map(([px, py]): HolePlace => {
      const [x, y] = poseAt(stands.row, px as number, py as number)
      return { x, y }
    })
  return [
    { band: corners(width * (1 - doubt), width * (1 + doubt)), longest: corners(0, width * (1 + doubt)) },
  ]
}

/** The same text as long as it may become, where its width is in doubt. */
export function atItsLongest(sizes: EngraveSizes): EngraveSizes {
  if ('arc' in sizes.stands) return sizes
  const { row } = sizes.stands
  return { ...sizes, stands: { row: { ...row, stretch: (row.stretch ?? 1) * (1 + sizes.doubt) } } }
}

/** The room that was asked for, for drawings: the corners of a box, the ends of a line, the one point of the others. */
export function askedRoom(params: EngraveParams, unit: LengthUnit): HolePlace[] {
  const own = ({ value, unit: from }: TypedLength) => convertLength(value, from, unit)
  const at = { x: own(params.x), y: own(params.y) }
  if (params.sits === 'line') return [at, { x: own(params.toX), y: own(params.toY) }]
  if (params.sits !== 'box') return [at]
  const [cos, sin] = [cosineOf(params.angle), sineOf(params.angle)]
  const [w, h] = [own(params.boxWidth), own(params.boxHeight)]
  return [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ].map(([u = 0, v = 0]) => ({ x: at.x + u * cos - v * sin, y: at.y + u * sin + v * cos }))
}

/** How much less deep a text on a round face is at its edges: R - root of (R^2 - (w / 2)^2), w across the axis. */
export function fallOff({ round, width, height, laid }: EngraveSizes): number {
  if (!round) return 0
  const across = round.runs === 'across' ? width : height * (laid.high - laid.low)
  const half = Math.min(across / 2, round.radius)
  return round.radius - Math.sqrt(round.radius ** 2 - half ** 2)
}

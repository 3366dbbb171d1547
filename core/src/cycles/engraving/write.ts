import type { Block } from '../../control/index.ts'
import type { Material } from '../../cutting/index.ts'
import { layText, poseAt, type Stroke, type TextPose, textStrokes } from '../../lettering/index.ts'
import {
  ANGLE_DIGITS,
  type CycleCase,
  meantAt,
  type Operation,
  type Pen,
  type PlannedRow,
  penOf,
  placeHole,
  printed,
  programAngle,
  type WrittenCycle,
} from '../cycle/index.ts'
import { checkEngrave } from './check.ts'
import type { EngraveParams } from './params.ts'
import { piecesOf } from './pieces.ts'
import { cutLetters, type EngraveSizes, engraveSizes } from './sizes.ts'

interface Heights {
  r: number
  z: number
  clear: number
  feed: number
  plunge: number
}

const heights = (sizes: EngraveSizes, on: CycleCase): Heights => ({
  r: printed(sizes.r, on),
  z: printed(sizes.top - sizes.depth, on),
  clear: printed(sizes.clearance, on),
  feed: printed(sizes.feed, on),
  plunge: printed(sizes.plungeFeed, on),
})

/** One stroke as it is meant: over its start, down, along, up. `from` is the height that it comes from. */
function planStroke(stroke: Stroke, from: number, { r, z, feed, plunge }: Heights): PlannedRow[] {
  const [first, ...rest] = stroke
  if (!first) return []
  const last = stroke.at(-1) ?? first
  return [
    { does: 'rapid', to: [first[0], first[1], from] },
    { does: 'rapid', to: [first[0], first[1], r] },
    { does: 'feed', to: [first[0], first[1], z], feed: plunge },
    ...rest.map(([x, y]): PlannedRow => ({ does: 'feed', to: [x, y, z], feed })),
    { does: 'rapid', to: [last[0], last[1], r] },
  ]
}

interface Work {
  blocks: Block[]
  planned: PlannedRow[]
  start: { x: number; y: number }
}

/** The letters written out, stroke by stroke. */
function asMoves(params: EngraveParams, sizes: EngraveSizes, on: CycleCase, pen: Pen): Work {
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  const high = heights(sizes, on)
  let from = high.clear
  let start: Work['start'] | undefined
  for (const { character, strokes } of cutLetters(sizes)) {
    strokes.forEach((stroke, n) => {
      const points = stroke.map(([x, y]) => placeHole({ x, y }, on))
      const first = points[0]
      if (!first) return
      if (start) blocks.push(pen.block(['G0', ...pen.place(first, 'text')], n === 0 ? character : undefined))
      start ??= { x: stroke[0]?.[0] ?? 0, y: stroke[0]?.[1] ?? 0 }
      if (from !== high.r) blocks.push(pen.block(['G0', pen.length('Z', high.r, 'rPlane')], character))
      blocks.push(
        pen.block([
          'G1',
          pen.length('Z', high.z, params.by === 'depth' ? 'depth' : 'lineWidth'),
          pen.length('F', high.plunge, 'plungeFeed'),
        ]),
      )
      points.slice(1).forEach((point, index) => {
        blocks.push(
          pen.block([
            ...(index === 0 ? ['G1'] : []),
            ...pen.place(point, 'text'),
            index === 0 ? pen.length('F', high.feed, 'feed') : undefined,
          ]),
        )
      })
      blocks.push(pen.block(['G0', pen.length('Z', high.r, 'rPlane')]))
      planned.push(
        ...planStroke(
          points.map(({ meant }) => [meant.x, meant.y] as const),
          from,
          high,
        ),
      )
      from = high.r
    })
  }
  return { blocks, planned, start: start ?? { x: 0, y: 0 } }
}

/** The control's own text cycle. */
function asCycle(params: EngraveParams, sizes: EngraveSizes, pose: TextPose, on: CycleCase, pen: Pen): Work {
  const { reading } = on.profile
  const high = heights(sizes, on)
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  let from = high.clear
  const angle = programAngle(pose.angle, on)
  const height = printed(pose.height, on)
  for (const { said, text, counts, at } of piecesOf(params, sizes, reading.lettering.counts)) {
    const [x, y] = poseAt(pose, at, 0)
    const start = placeHole({ x, y }, on)
    blocks.push(
      pen.block([
        reading.text ?? '',
        pen.code(counts ? 'P1' : 'P0', counts ? 'serial' : 'text'),
        pen.code(`(${said})`, 'text'),
        ...pen.place(start, 'x'),
        pen.decimal('I', angle, ANGLE_DIGITS, 'angle'),
        pen.length('J', height, 'height'),
        pen.length('R', high.r, 'rPlane'),
        pen.length('Z', high.z, params.by === 'depth' ? 'depth' : 'lineWidth'),
        pen.length('F', high.feed, 'feed'),
        pen.length('E', high.plunge, 'plungeFeed'),
      ]),
    )
    const written: TextPose = { ...pose, x: Number(start.x), y: Number(start.y), angle, height }
    const scene = ([px, py]: readonly [number, number]) => {
      const meant = meantAt({ x: px, y: py }, on)
      return [meant.x, meant.y] as const
    }
    for (const stroke of textStrokes(text, written)) {
      planned.push(...planStroke(stroke.map(scene), from, high))
      from = high.r
    }
    const end = scene(poseAt(written, layText(text).width, 0))
    planned.push({ does: 'rapid', to: [end[0], end[1], from] })
  }
  return { blocks, planned, start: { x: pose.x, y: pose.y } }
}

/** The operation of a text, without its checks. */
export function engraveOperation(params: EngraveParams, sizes: EngraveSizes, on: CycleCase): Operation {
  const pen = penOf(on.profile, on.unit)
  const { reading } = on.profile
  const { stands, tolerance } = sizes
  const work =
    sizes.moves || !('row' in stands)
      ? asMoves(params, sizes, on, pen)
      : asCycle(params, sizes, stands.row, on, pen)
  const clear = printed(sizes.clearance, on)
  const last = work.planned.at(-1)
  const code = reading.pathTolerance
  const sharp = tolerance !== null && code !== null
  return {
    tool: params.tool,
    toolField: 'tool',
    says: `engrave ${sizes.text}`,
    spindle: { turning: 3, rpm: sizes.rpm, field: 'turns' },
    start: { ...work.start, z: sizes.clearance, zField: 'clearance' },
    coolant: params.coolant,
    blocks: [
      ...(sharp
        ? [
            pen.block(
              [code, 'P3', pen.length('E', printed(tolerance, on), 'tolerance')],
              'corners held this close',
            ),
          ]
        : []),
      ...work.blocks,
      pen.block(['G0', pen.length('Z', clear, 'clearance')]),
      ...(sharp ? [pen.block([pen.code(code, 'tolerance')], 'path tolerance as the control has it')] : []),
    ],
    planned: [
      ...work.planned,
      { does: 'rapid', to: last && 'to' in last ? [last.to[0], last.to[1], clear] : [null, null, clear] },
    ],
  }
}

/** A text for a control, with what its checks say; nothing is written where one says stop. */
export function writeEngrave(params: EngraveParams, on: CycleCase, material: Material): WrittenCycle {
  const sizes = engraveSizes(params, on, material)
  const findings = checkEngrave(params, sizes, on)
  if (findings.some(({ severity }) => severity === 'stop')) return { operations: [], findings }
  return { operations: [engraveOperation(params, sizes, on)], findings }
}

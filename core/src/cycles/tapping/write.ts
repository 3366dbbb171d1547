import type { Material } from '../../cutting/index.ts'
import {
  type CycleCase,
  type Operation,
  type PlacedHole,
  type PlannedRow,
  penOf,
  placeHole,
  printed,
  type WrittenCycle,
} from '../cycle/index.ts'
import { type HoleWay, type HoleWork, writeCentreHole, writeHoles } from '../drilling/index.ts'
import { checkTap } from './check.ts'
import type { TapParams } from './params.ts'
import { type TapSizes, tapSizes } from './sizes.ts'

/** What is meant at one hole of the tap: in step down, out at the multiple, as often as it pecks; then to `out`. */
function planTap(
  params: TapParams,
  sizes: TapSizes,
  at: readonly [number, number | null],
  r: number,
  out: number,
): PlannedRow[] {
  const { rpm, tapFeed, multiple, tapPecks } = sizes
  const turning = params.hand === 'right' ? (3 as const) : (4 as const)
  const stroke = { rpm: rpm.tap, lead: tapFeed.lead, turning }
  return [
    { does: 'rapid', to: [...at, r] },
    ...tapPecks.flatMap((depth): PlannedRow[] => [
      { does: 'tap-in', to: [...at, depth], ...stroke },
      { does: 'tap-out', to: [...at, r], ...stroke, multiple: multiple.value },
    ]),
    { does: 'rapid', to: [...at, out] },
  ]
}

/** The multiple as a word: whole, or with a point. */
const multipleWord = (address: string, value: number) =>
  `${address}${Number.isInteger(value) ? value : Number(value.toFixed(2))}`

function tapHoles(
  params: TapParams,
  sizes: TapSizes,
  on: CycleCase,
  places: readonly PlacedHole[],
): HoleWork {
  const pen = penOf(on.profile, on.unit)
  const { reading } = on.profile
  const initial = printed(sizes.top + sizes.clearance, on)
  const r = printed(sizes.top + sizes.r.tap, on)
  const out = params.returns === 'initial' ? Math.max(initial, r) : r
  const planned: PlannedRow[] = places.flatMap(({ meant }, n) => [
    { does: 'rapid', to: [meant.x, meant.y, n === 0 ? initial : out] },
    ...planTap(params, sizes, [meant.x, meant.y], r, out),
  ])
  const at = (hole: PlacedHole) => pen.place(hole, 'places')
  const level = (initialToo: boolean) => pen.code(initialToo ? 'G98' : 'G99', 'returns')
  const returns = params.returns === 'initial'
  const byWord = params.tapPeck && reading.peckTap === 'depth-word'
  const again = params.tapPeck && !byWord
  const depths = again ? sizes.tapPecks : [sizes.tapPecks.at(-1) as number]
  const head = [
    pen.length('R', r, 'rPlane'),
    byWord ? pen.length('Q', printed(r - (sizes.tapPecks[0] as number), on), 'tapPeckDepth') : undefined,
    pen.length('F', sizes.tapFeed.printed, 'feedMode'),
    sizes.multiple.written && reading.tapRetract
      ? pen.code(multipleWord(reading.tapRetract.address, sizes.multiple.value), 'multiple')
      : undefined,
  ]
  const code = pen.code(params.hand === 'right' ? 'G84' : 'G74', 'hand')
  const turnMode = params.feedMode === 'turn'
  return {
    planned,
    blocks: [
      ...(turnMode ? [pen.block([pen.code('G95', 'feedMode')], 'feed is length a turn')] : []),
      ...places.flatMap((hole, n) =>
        depths.map((depth, peck) => {
          const first = n === 0 && peck === 0
          const last = peck === depths.length - 1
          return pen.block(
            first
              ? [level(returns && last), code, ...at(hole), pen.length('Z', depth, 'tapDepth'), ...head]
              : again
                ? [
                    level(returns && last),
                    ...at(hole),
                    pen.length('Z', depth, peck === 0 ? 'tapPeckDepth' : 'tapDepth'),
                  ]
                : at(hole),
          )
        }),
      ),
      pen.block(['G80'], 'cycle off'),
      ...(turnMode ? [pen.block([pen.code('G94', 'feedMode')], 'feed is length a minute again')] : []),
    ],
  }
}

/** Tapping on a lathe's centre line: the feed is a turn's. */
function tapCentre(params: TapParams, sizes: TapSizes, on: CycleCase): HoleWork {
  const pen = penOf(on.profile, on.unit)
  const { reading } = on.profile
  const initial = printed(sizes.top + sizes.clearance, on)
  const r = printed(sizes.top + sizes.r.tap, on)
  const planned = planTap(params, sizes, [0, null], r, initial)
  return {
    planned,
    blocks: [
      ...sizes.tapPecks.map((depth, n) =>
        pen.block([
          ...(n === 0
            ? [pen.code(params.hand === 'left' && reading.leftTap !== null ? reading.leftTap : 'G84', 'hand')]
            : []),
          pen.length('Z', depth, 'tapDepth'),
          pen.length('R', r, 'rPlane'),
          ...(n === 0 ? [pen.length('F', sizes.tapFeed.printed, 'feedMode')] : []),
          ...(sizes.multiple.written && reading.tapRetract
            ? [pen.code(multipleWord(reading.tapRetract.address, sizes.multiple.value), 'multiple')]
            : []),
        ]),
      ),
      pen.block(['G80'], 'cycle off'),
      pen.block(['G0', pen.length('Z', initial, 'clearance')]),
    ],
  }
}

function holeWay(params: TapParams, sizes: TapSizes): HoleWay {
  if (params.drillWay === 'plain') return { way: 'plain' }
  return { way: params.drillWay, q: sizes.drillPeck }
}

const count = (holes: number) => (holes === 1 ? '1 hole' : `${holes} holes`)

/** The operations of the set, in order, without its checks. */
export function tapOperations(params: TapParams, sizes: TapSizes, on: CycleCase): Operation[] {
  const lathe = on.machine.kind === 'lathe'
  const { top, clearance, rpm, feeds } = sizes
  const first = lathe ? { x: 0, y: 0 } : (sizes.places[0] ?? { x: 0, y: 0 })
  const places = lathe ? [] : sizes.places.map((place) => placeHole(place, on))
  const start = { ...first, z: top + clearance, zField: 'clearance' }
  const holes = count(lathe ? 1 : places.length)
  const clear = lathe ? { clear: { x: 0, z: printed(top + clearance, on) } } : {}
  const drilled = (
    z: number,
    rpm: number,
    aTurn: number,
    how: HoleWay,
    fields: { z: string; q?: string; feed: string },
  ): HoleWork => {
    const common = {
      z,
      r: top + sizes.r.other,
      initial: top + clearance,
      how,
      fields: { place: 'places', r: 'rPlane', returns: 'returns', ...fields },
    }
    return lathe
      ? writeCentreHole({ ...common, feed: aTurn * rpm, aTurn, rpm }, on)
      : writeHoles({ ...common, places, returns: params.returns, feed: aTurn * rpm }, on)
  }
  const { coolant } = params
  const operations: Operation[] = []
  if (params.chamfer)
    operations.push({
      tool: params.chamferTool,
      toolField: 'chamferTool',
      says: `chamfer ${params.chamferAngle} deg, ${holes}`,
      spindle: { turning: 3, rpm: rpm.chamfer, field: 'chamferTurns' },
      start,
      coolant,
      ...clear,
      ...drilled(
        top - sizes.chamfer.depth,
        rpm.chamfer,
        feeds.chamfer,
        { way: 'plain' },
        {
          z: 'chamferDiameter',
          feed: 'drillFeed',
        },
      ),
    })
  if (params.drill)
    operations.push({
      tool: params.drillTool,
      toolField: 'drillTool',
      says: `drill, ${holes}`,
      spindle: { turning: 3, rpm: rpm.drill, field: 'drillTurns' },
      start,
      coolant,
      ...clear,
      ...drilled(top - sizes.drillDepth - sizes.pointLength, rpm.drill, feeds.drill, holeWay(params, sizes), {
        z: 'drillDepth',
        q: 'drillPeck',
        feed: 'drillFeed',
      }),
    })
  if (params.tapping)
    operations.push({
      tool: params.tapTool,
      toolField: 'tapTool',
      says: `tap ${sizes.thread.id === 'own' ? 'thread' : sizes.thread.id}${params.hand === 'left' ? ' left hand' : ''}, ${holes}`,
      spindle: {
        turning: params.hand === 'right' ? 3 : 4,
        rpm: rpm.tap,
        field: 'tapTurns',
        announces: params.holder === 'rigid',
      },
      start,
      coolant,
      ...clear,
      ...(lathe ? tapCentre(params, sizes, on) : tapHoles(params, sizes, on, places)),
    })
  return operations
}

/** A set of tapped holes for a control, with what its checks say; nothing is written where one says stop. */
export function writeTap(params: TapParams, on: CycleCase, material: Material): WrittenCycle {
  const sizes = tapSizes(params, on, material)
  const findings = checkTap(params, sizes, on)
  if (findings.some(({ severity }) => severity === 'stop')) return { operations: [], findings }
  return { operations: tapOperations(params, sizes, on), findings }
}

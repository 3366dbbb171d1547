import { type Block, writeNumber } from '../../control/index.ts'
import type { Material } from '../../cutting/index.ts'
import { convertLength, fixedDigits } from '../../quantity/index.ts'
import {
  ANGLE_DIGITS,
  type CycleCase,
  type Operation,
  type Pen,
  type PlannedRow,
  penOf,
  printed,
  type WrittenCycle,
} from '../cycle/index.ts'
import { checkWrap } from './check.ts'
import { arcFrom } from './flat.ts'
import type { WrapParams } from './params.ts'
import { degreesRound, type WrapSizes, wrapSizes } from './sizes.ts'

const DEGREE = 180 / Math.PI

/** How a place round the cylinder is written: a length that the control wraps, or degrees. */
interface Round {
  /** The word of a length round, and the degrees that it makes. */
  word: (y: number) => { text: string; degrees: number }
  /** Length round of degrees that were written. */
  lengthOf: (degrees: number) => number
}

function roundOf(sizes: WrapSizes, on: CycleCase, letter: string): Round {
  const { mapped, sense } = sizes
  const lengthOf = (degrees: number) => (degrees / DEGREE) * mapped
  if (sizes.byMapping && on.profile.reading.mapping?.by === 'radius')
    return {
      word: (y) => {
        const said = writeNumber(sense * y, on.unit, on.profile)
        return { text: `Y${said}`, degrees: degreesRound(Number(said), mapped) }
      },
      lengthOf,
    }
  return {
    word: (y) => {
      const said = fixedDigits(sense * degreesRound(y, mapped), ANGLE_DIGITS).replace(/0+$/, '')
      return { text: `${letter}${said}`, degrees: Number(said) }
    },
    lengthOf,
  }
}

/** Inverse time with as many digits as its rounding needs: five that count. */
const inverseDigits = (f: number) => Math.min(6, Math.max(1, 4 - Math.floor(Math.log10(Math.max(f, 1e-6)))))

/** What stands in for a rapid where none is allowed, a minute; by judgement where the machine's page does not say its top. */
const quickFeed = ({ machine, unit }: CycleCase) => {
  const own = machine.dynamics ? convertLength(machine.dynamics.topFeed, machine.unit, unit) : undefined
  return Math.floor(own ?? (unit === 'inch' ? 100 : 2500))
}

/** Writes the moves one by one; where the tool stands is what was printed. */
function writeMoves(sizes: WrapSizes, on: CycleCase, pen: Pen, letter: string) {
  const { mapped, byMapping, zShift, sense, rotaryTop } = sizes
  const { reading } = on.profile
  const round = roundOf(sizes, on, letter)
  const byRadiusWord = byMapping && reading.mapping?.by === 'rotary-word'
  const alongWay = reading.rotaryFeed === 'along-way'
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  const { moves } = sizes
  const first = moves[0]
  const at = {
    x: first ? printed(first.x, on) : 0,
    degrees: 0,
    z: printed(sizes.clearance + zShift, on),
    code: '',
    feed: -1,
  }
  moves.forEach((move, n) => {
    const x = printed(move.x, on)
    const { text, degrees } = round.word(move.y)
    const z = printed(move.z + zShift, on)
    const [dx, dz, turn] = [x - at.x, z - at.z, degrees - at.degrees]
    const still = dx === 0 && dz === 0 && turn === 0
    // An arc that ends where it begins is a full circle to the control: one that only rounds to that is left out.
    const whole =
      move.does === 'arc' && still && Math.abs(arcFrom(move, moves[n - 1] ?? move).sweep) > Math.PI
    if (still && !whole) return
    const place = [
      dx === 0 && !whole ? undefined : pen.length('X', x, 'x'),
      turn === 0 && !whole ? undefined : pen.code(text, 'diameter'),
      dz === 0 ? undefined : pen.length('Z', z, move.does === 'rapid' ? 'rPlane' : 'depth'),
    ]
    const to = [x, 0, z] as const
    const before = { ...at }
    Object.assign(at, { x, degrees, z })
    if (move.does === 'rapid' && byRadiusWord) {
      // No rapid is allowed where the rotary word is wrapped: as quick as it feeds.
      const feed = quickFeed(on)
      blocks.push(
        pen.block([
          before.code === 'G1' ? undefined : 'G1',
          ...place,
          feed === before.feed ? undefined : pen.length('F', feed),
        ]),
      )
      planned.push({ does: 'feed', to, turn: degrees, feed })
      Object.assign(at, { code: 'G1', feed })
      return
    }
    if (move.does === 'rapid') {
      blocks.push(pen.block([before.code === 'G0' ? undefined : 'G0', ...place]))
      planned.push({ does: 'rapid', to, turn: degrees })
      at.code = 'G0'
      return
    }
    if (move.does === 'arc') {
      const clockwise = sense === 1 ? move.clockwise : !move.clockwise
      const code = clockwise ? 'G2' : 'G3'
      const [cx, cy] = [move.cx, sense * move.cy]
      const start = { x: before.x, y: round.lengthOf(before.degrees) }
      const [i, j] = [printed(cx - start.x, on), printed(cy - start.y, on)]
      const feed = printed(move.feed, on)
      blocks.push(
        pen.block([
          code,
          ...place,
          pen.length('I', i),
          pen.length('J', j),
          feed === before.feed ? undefined : pen.length('F', feed, 'feed'),
        ]),
      )
      planned.push({
        does: 'wrapped-arc',
        to,
        turn: degrees,
        radius: mapped,
        centre: [start.x + i, start.y + j],
        clockwise,
        feed,
      })
      Object.assign(at, { code, feed })
      return
    }
    const flat = Math.hypot(dx, round.lengthOf(turn), dz)
    const g = before.code === 'G1' ? undefined : 'G1'
    at.code = 'G1'
    if (byMapping) {
      const feed = printed(move.feed, on)
      blocks.push(pen.block([g, ...place, feed === before.feed ? undefined : pen.length('F', feed, 'feed')]))
      planned.push({ does: 'feed', to, turn: degrees, feed })
      at.feed = feed
      return
    }
    const minutes = Math.max(flat / move.feed, Math.abs(turn) / rotaryTop)
    const way = Math.hypot(dx, dz, turn)
    // Straight up and down, or along, the feed is what it is; turning, F holds the time of the move.
    const f = alongWay ? way / minutes : 1 / minutes
    const digits = inverseDigits(f)
    const said = Number(fixedDigits(f, digits))
    blocks.push(pen.block([g, ...place, pen.decimal('F', said, digits, 'feed')]))
    planned.push(
      turn === 0
        ? { does: 'feed', to, turn: degrees, feed: alongWay ? said : said * Math.hypot(dx, dz) }
        : { does: 'timed', to, turn: degrees, seconds: alongWay ? (60 * way) / said : 60 / said },
    )
  })
  return { blocks, planned, at }
}

/** The operation of a layout on a cylinder, without its checks. */
export function wrapOperation(params: WrapParams, sizes: WrapSizes, on: CycleCase): Operation {
  const pen = penOf(on.profile, on.unit)
  const { mapping, rotaryFeed } = on.profile.reading
  const letter = on.machine.rotary?.word ?? 'A'
  const clear = printed(sizes.clearance + sizes.zShift, on)
  const { blocks, planned, at } = writeMoves(sizes, on, pen, letter)
  const zero = `${letter}${writeNumber(0, on.unit, on.profile)}`
  const mapped = sizes.byMapping && mapping !== null
  const wordMapped = mapped && mapping.by === 'rotary-word'
  const inverse = !mapped && rotaryFeed === 'inverse-time'
  const slashedBlock = (...of: Parameters<Pen['block']>): Block => ({
    ...pen.block(...of),
    ...(params.slash ? { slashed: true } : {}),
  })
  const begin: Block[] = mapped
    ? [
        // It is not called while G0 holds (common practice).
        ...(mapping.by === 'radius' ? [] : [pen.block(['G1', pen.length('F', quickFeed(on))])]),
        slashedBlock(
          mapping.by === 'radius'
            ? [
                pen.code(mapping.code, 'way'),
                zero,
                pen.length('Y', 0),
                pen.length('R', sizes.mapped, 'diameter'),
              ]
            : [pen.code(mapping.code, 'way'), pen.length(letter, sizes.mapped, 'diameter')],
          mapping.by === 'radius'
            ? 'Y goes round the cylinder from here'
            : `${letter} goes round the cylinder from here`,
        ),
      ]
    : inverse
      ? [pen.block([pen.code('G93', 'way')], 'F is one over the minutes of each move')]
      : []
  const end: Block[] = mapped
    ? [
        pen.block(
          mapping.by === 'radius' ? [pen.code(mapping.code, 'way')] : [pen.code(mapping.code, 'way'), zero],
          'wrapping off, clear of the part',
        ),
      ]
    : inverse
      ? [pen.block([pen.code('G94', 'way')], 'feed is length a minute again')]
      : []
  return {
    tool: params.tool,
    toolField: 'tool',
    says: `${NAMES[params.what]} round ${sizes.mapped === sizes.radius ? '' : 'at depth, '}R${writeNumber(sizes.mapped, on.unit, on.profile)}`,
    spindle: { turning: 3, rpm: sizes.rpm, field: 'turns' },
    start: { x: sizes.moves[0]?.x ?? 0, y: 0, z: sizes.clearance + sizes.zShift, zField: 'clearance' },
    coolant: params.coolant,
    blocks: [
      pen.block(['G0', pen.code(zero, 'turn')], 'rotary to its zero, above the centre line'),
      ...begin,
      ...blocks,
      ...(wordMapped
        ? [pen.block(['G1', pen.length('Z', clear, 'clearance'), pen.length('F', quickFeed(on))], 'clear')]
        : [pen.block(['G0', pen.length('Z', clear, 'clearance')], 'clear')]),
      ...end,
      pen.block(['G0', pen.code(zero, 'turn')], 'rotary back'),
    ],
    planned: [
      ...planned,
      wordMapped
        ? { does: 'feed', to: [at.x, 0, clear], turn: at.degrees, feed: quickFeed(on) }
        : { does: 'rapid', to: [at.x, 0, clear], turn: at.degrees },
      { does: 'rapid', to: [at.x, 0, clear], turn: 0 },
    ],
  }
}

const NAMES: Record<WrapParams['what'], string> = {
  scale: 'scale',
  text: 'text',
  slots: 'slots',
  holes: 'holes',
  program: 'layout',
}

/** A layout on a cylinder for a control, with what its checks say; nothing is written where one says stop. */
export function writeWrap(params: WrapParams, on: CycleCase, material: Material): WrittenCycle {
  const sizes = wrapSizes(params, on, material)
  const findings = checkWrap(params, sizes, on)
  if (findings.some(({ severity }) => severity === 'stop')) return { operations: [], findings }
  return { operations: [wrapOperation(params, sizes, on)], findings }
}

import { type Block, type Profile, type ProgramLine, programLines, writeNumber } from '../control/index.ts'
import type { Material } from '../cutting/index.ts'
import {
  ANGLE_DIGITS,
  type CycleCase,
  homeBlocks,
  type Operation,
  type Pen,
  type PlannedRow,
  penOf,
  placeHole,
  plannedDiffers,
  printed,
  turnsByCode,
  type WrittenCycle,
} from '../cycles/cycle/index.ts'
import { hasSerial, writeEngrave } from '../cycles/engraving/index.ts'
import { writeGroove } from '../cycles/grooving/index.ts'
import { writeTap } from '../cycles/tapping/index.ts'
import { writeWrap } from '../cycles/wrapping/index.ts'
import { type Finding, finding, verdictOf, worstFirst } from '../fact/index.ts'
import { notReadBack, type Program, read } from '../program/index.ts'
import { fixedDigits } from '../quantity/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { neighbourFindings } from './neighbours.ts'
import type { CycleSheet, Item } from './sheet.ts'

/** What a program is written for. Lengths in the case's unit. */
export interface SheetCase extends CycleCase {
  /** 'G54', 'G154 P3'; on a lathe the geometry is the tool's own. */
  offset: string
  materials: readonly Material[]
  /** Lines under the caution: the setup, its log. */
  about: string[]
}

/** One cycle of the program, as it was written. */
export interface WrittenItem {
  id: string
  findings: Finding[]
  operations: Operation[]
  /** Seconds of the cycle with its tool changes; undefined where nothing is written. */
  seconds?: number
}

export interface CodeLine extends ProgramLine {
  /** The cycle that it is of. */
  item?: string
}

export interface WrittenSheet {
  items: WrittenItem[]
  findings: Finding[]
  /** Undefined where a check says stop. */
  code?: { text: string; lines: CodeLine[]; program: Program; seconds: number }
}

const materialOf = ({ materials }: SheetCase, id: string) => materials.find((each) => each.id === id)

function writeItem(item: Item, on: SheetCase, material: Material): WrittenCycle {
  switch (item.cycle) {
    case 'tap':
      return writeTap(item.params, on, material)
    case 'groove':
      return writeGroove(item.params, on, material)
    case 'engrave':
      return writeEngrave(item.params, on, material)
    case 'wrap':
      return writeWrap(item.params, on, material)
  }
}

/** A block of the program, and the cycle that it is of. */
interface Line extends Block {
  item?: string
}

const angleWord = (angle: number) => `R${fixedDigits(angle, ANGLE_DIGITS).replace(/0+$/, '')}`

function spindleBlocks(
  { spindle, tool }: Operation,
  on: SheetCase,
  pen: Pen,
): { blocks: Block[]; planned: PlannedRow[] } {
  const code = `M${spindle.turning}`
  if ('rpm' in spindle) {
    const s = pen.whole('S', spindle.rpm, spindle.field)
    const { rigidTap } = on.profile.reading
    if (spindle.announces && rigidTap !== null)
      return {
        blocks: [pen.block([`M${rigidTap}`, s], 'rigid tapping: the cycle starts the spindle')],
        planned: [],
      }
    const lathe = on.machine.kind === 'lathe'
    return {
      blocks: [pen.block([...(lathe ? ['G97'] : []), s, code], `T${tool} turns`)],
      planned: [{ does: 'spindle', turning: spindle.turning, rpm: Math.round(spindle.rpm) }],
    }
  }
  return {
    blocks: [
      ...(spindle.clamp === null
        ? []
        : [pen.block(['G50', pen.whole('S', spindle.clamp, spindle.clampField)], 'no faster than this')]),
      pen.block(['G96', pen.whole('S', spindle.surface, spindle.field), code], 'constant surface speed'),
    ],
    planned: [{ does: 'spindle', turning: spindle.turning }],
  }
}

/** The name of a tool, for the comment at its change. */
const toolName = (on: SheetCase, number: number) =>
  on.tools.find((tool) => tool.number === number)?.name ?? ''

function millOperation(of: Operation, on: SheetCase, pen: Pen, same: boolean, last: boolean) {
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  const hole = placeHole(of.start, on)
  const { meant } = hole
  const z = printed(of.start.z, on)
  const spin = spindleBlocks(of, on, pen)
  const announced = spin.planned.length === 0
  const turned = turnsByCode(on)
  const at = pen.place(hole, 'places')
  if (!same) {
    blocks.push(
      pen.block(
        [pen.whole('T', of.tool, of.toolField), 'M6'],
        [toolName(on, of.tool), of.says].filter(Boolean).join(': '),
      ),
    )
    planned.push({ does: 'tool', tool: of.tool })
    if (turned) {
      blocks.push(pen.block(['G90', on.offset]))
      blocks.push(
        pen.block(
          [
            `${on.profile.rotation?.on} X${writeNumber(0, on.unit, on.profile)} Y${writeNumber(0, on.unit, on.profile)} ${angleWord(on.angle)}`,
          ],
          'turned as the part lies',
        ),
      )
      blocks.push(pen.block(['G0', ...at]))
    } else blocks.push(pen.block(['G90', on.offset, 'G0', ...at]))
    planned.push({ does: 'rapid', to: [meant.x, meant.y, null] })
    if (!announced) blocks.push(...spin.blocks)
    planned.push(...spin.planned)
    blocks.push(
      pen.block(
        [
          'G43',
          pen.whole('H', of.tool, of.toolField),
          pen.length('Z', z, of.start.zField),
          ...(of.coolant ? [pen.code('M8', 'coolant')] : []),
        ],
        'its length, down to the clearance',
      ),
    )
    planned.push({ does: 'rapid', to: [meant.x, meant.y, z] })
  } else {
    if (!announced) blocks.push(...spin.blocks)
    planned.push(...spin.planned)
    blocks.push(pen.block(['G0', pen.length('Z', z, of.start.zField)], of.says), pen.block(['G0', ...at]))
    planned.push({ does: 'rapid', to: [null, null, z] }, { does: 'rapid', to: [meant.x, meant.y, z] })
  }
  // Between the code that announces rigid tapping and the cycle no axis may be named (common practice).
  if (announced) blocks.push(...spin.blocks)
  blocks.push(...of.blocks)
  planned.push(...of.planned)
  if (!last) return { blocks, planned }
  if (turned) blocks.push(pen.block([on.profile.rotation?.off], 'turning off'))
  if (of.coolant) blocks.push(pen.block([pen.code('M9', 'coolant')]))
  blocks.push(...homeBlocks(on.machine, on.unit, on.profile))
  planned.push({ does: 'up' })
  return { blocks, planned }
}

const two = (value: number) => String(value).padStart(2, '0')

function latheOperation(of: Operation, on: SheetCase, pen: Pen) {
  const blocks: Block[] = []
  const planned: PlannedRow[] = []
  const spin = spindleBlocks(of, on, pen)
  const x = printed(2 * of.start.x, on)
  const z = printed(of.start.z, on)
  const announced = spin.planned.length === 0
  // One axis after the other: on two at once nobody sees beforehand where the tool passes.
  const zFirst = of.zFirst === true
  const [across, along] = [pen.length('X', x, 'clearance'), pen.length('Z', z, of.start.zField)]
  blocks.push(
    pen.block(
      [pen.code(`T${two(of.tool)}${two(of.tool)}`, of.toolField)],
      [toolName(on, of.tool), of.says].filter(Boolean).join(': '),
    ),
    ...(announced ? [] : spin.blocks),
    pen.block(['G0', zFirst ? along : across], zFirst ? 'Z first, clear of what is turned' : 'to the start'),
    pen.block(['G0', zFirst ? across : along, ...(of.coolant ? [pen.code('M8', 'coolant')] : [])]),
    ...(announced ? spin.blocks : []),
    ...of.blocks,
    pen.block(['M5', ...(of.coolant ? [pen.code('M9', 'coolant')] : [])]),
    ...homeBlocks(on.machine, on.unit, on.profile),
  )
  planned.push(
    { does: 'tool', tool: of.tool },
    ...spin.planned,
    { does: 'rapid', to: zFirst ? [null, null, z] : [x / 2, null, null] },
    { does: 'rapid', to: [x / 2, null, z] },
    ...of.planned,
    ...(announced ? [] : [{ does: 'spindle', turning: 0 } as const]),
    { does: 'up' },
  )
  return { blocks, planned }
}

/** What a reader may say of a program that is meant: the rest is a fault of what was written. */
const MEANT = new Set(['missing-point', 'text-character'])

const sheetNotReadBack = (line: number, says: string, { profile }: SheetCase): Finding =>
  notReadBack(
    `Line ${line} ${says}. The profile ${profile.name} writes with codes that mean something else to the reader, or a number is rounded too far.`,
    'Check the codes and digits of the profile.',
  )

/**
 * Writes one program from the cycles that are on, in order: a safe start, each tool once for as many operations as follow
 * each other, a safe end. Nothing is written where a check says stop; what is written is read back by the program reader
 * and compared with what was planned, move by move, before it is given out.
 */
export function writeSheet(of: CycleSheet, on: SheetCase, against: readonly Finding[] = []): WrittenSheet {
  const material = materialOf(on, of.material)
  if (!material)
    return {
      items: [],
      findings: [
        finding(
          'stop',
          'material-unknown',
          'material',
          'The material is not in the list.',
          'Speeds are calculated from it.',
          'Choose one.',
        ),
      ],
    }
  const neighbours = neighbourFindings(of, on, material)
  const items: WrittenItem[] = of.items
    .filter(({ off }) => !off)
    .map((item) => {
      const { operations, findings } = writeItem(item, on, material)
      const met = neighbours.get(item.id) ?? []
      return {
        id: item.id,
        operations,
        findings: met.length > 0 ? worstFirst([...findings, ...met]) : findings,
      }
    })
  const findings = worstFirst([
    ...against,
    ...(items.length === 0 ? [nothing] : []),
    ...numberFindings(of, on.profile),
  ])
  if (verdictOf([...findings, ...items.flatMap((item) => item.findings)]) === 'stop')
    return { items, findings }

  const pen = penOf(on.profile, on.unit)
  const lathe = on.machine.kind === 'lathe'
  const lines: Line[] = homeBlocks(on.machine, on.unit, on.profile)
  const planned: PlannedRow[] = [{ does: 'up' }]
  const operations = items.flatMap(({ id, operations }) => operations.map((operation) => ({ id, operation })))
  operations.forEach(({ id, operation }, index) => {
    const same = !lathe && operations[index - 1]?.operation.tool === operation.tool
    const last = lathe || operations[index + 1]?.operation.tool !== operation.tool
    const { blocks, planned: rows } = lathe
      ? latheOperation(operation, on, pen)
      : millOperation(operation, on, pen, same, last)
    lines.push(...blocks.map((block) => ({ ...block, item: id })))
    planned.push(...rows)
  })
  const lastSpindle = operations.at(-1)?.operation.spindle
  const turns =
    !lathe &&
    lastSpindle !== undefined &&
    !('announces' in lastSpindle && lastSpindle.announces && on.profile.reading.rigidTap !== null)
  if (!lathe) lines.push({ words: 'M5', does: 'spindle off' })
  if (turns) planned.push({ does: 'spindle', turning: 0 })
  lines.push({ words: 'M30' })
  planned.push({ does: 'end' })

  const text = programLines(
    { title: of.title, about: on.about, unit: on.unit, blocks: lines, number: of.number, lathe },
    on.profile,
  )
  const code: CodeLine[] = text.map((line) => {
    const item = line.block === undefined ? undefined : lines[line.block]?.item
    return item === undefined ? line : Object.assign(line, { item })
  })
  const whole = code.map((line) => `${line.text}\n`).join('')
  const program = read(whole, {
    profile: on.profile,
    machine: on.machine,
    unit: on.unit,
    ...(lathe ? {} : { frame: on.offset }),
    serial: serialOf(of),
  })
  const wrong = program.diagnostics.find(({ code, severity }) => severity !== 'note' && !MEANT.has(code))
  const differs = wrong
    ? { line: wrong.line, says: `is read so: ${wrong.says}` }
    : plannedDiffers(program.motion, planned)
  if (differs) return { items, findings: [sheetNotReadBack(differs.line, differs.says, on), ...findings] }
  const time = cycleTime(program.motion, speedsOf(on.machine, on.profile, on.unit))
  const seconds = new Map<string, number>()
  for (let row = 0; row < program.motion.count; row++) {
    const item = code[(program.motion.line[row] as number) - 1]?.item
    if (item !== undefined) seconds.set(item, (seconds.get(item) ?? 0) + (time.rows[row] as number))
  }
  return {
    items: items.map((item) => ({ ...item, seconds: seconds.get(item.id) ?? 0 })),
    findings,
    code: { text: whole, lines: code, program, seconds: time.total },
  }
}

/** The serial number that the program begins with. */
const serialOf = ({ items }: CycleSheet): number =>
  items.flatMap((item) =>
    item.cycle === 'engrave' && !item.off && hasSerial(item.params.text) ? [item.params.serial] : [],
  )[0] ?? 0

/** A number that this control cannot carry. */
function numberFindings({ number }: CycleSheet, { name, program }: Profile): Finding[] {
  if (String(number).length <= program.digits) return []
  return [
    finding(
      'stop',
      'program-number',
      'number',
      `O${number} has more digits than this control carries: ${program.digits}.`,
      `The profile ${name} says so.`,
      'Give the program a shorter number.',
    ),
  ]
}

const nothing: Finding = finding(
  'stop',
  'no-cycles',
  'items',
  'The program has no cycle that is on.',
  'There is nothing to write.',
  'Add one.',
)

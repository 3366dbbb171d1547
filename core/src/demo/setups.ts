import { monotonicFactory } from 'ulid'
import { readSheet, type SheetDraft } from '../code/index.ts'
import type { Bolts } from '../hold/index.ts'
import { type Machine, readyListOf } from '../machine/index.ts'
import type { Reading } from '../pickup/index.ts'
import { prove } from '../prove/index.ts'
import { asTyped, type TypedLength } from '../quantity/index.ts'
import {
  codedOffset,
  codeFor,
  codeRests,
  codeTools,
  deriveSetup,
  deriveTools,
  type Entry,
  type EntryOf,
  isUnreadable,
  offsetTable,
  programFor,
  proofRests,
  proveCase,
  restsOf,
} from '../setup/index.ts'
import {
  HOUSING_HASH,
  housingLayout,
  housingProgram,
  housingSheet,
  scaleLayout,
  scaleSheet,
  tubeLayout,
  tubeSheet,
} from './programs.ts'
import { demoReference } from './reference.ts'

const MINUTE = 60_000
const DAY = 24 * 60 * MINUTE

/** Digits as the operator typed them. */
const typed = (text: string): TypedLength => ({ text, value: Number(text), unit: 'inch' })

const edgeFinder = (axis: 'X' | 'Y', machinePosition: string, drawingPosition: string): Reading => ({
  method: 'edge-finder',
  axis,
  direction: '+',
  diameter: typed('.200'),
  machinePosition: typed(machinePosition),
  drawingPosition: typed(drawingPosition),
})

const toolOnBlock = (tool: number, length: string, machinePosition: string): Reading => ({
  method: 'tool-on-block',
  axis: 'Z',
  tool,
  toolLength: typed(length),
  blockHeight: typed('1.000'),
  machinePosition: typed(machinePosition),
  drawingPosition: typed('0'),
})

type WithoutStamp<T> = T extends Entry ? Omit<T, 'id' | 'setup' | 'at' | 'by'> : never

/** A pen that adds entries to one log: each `write` is some minutes after the last. */
function openLog(
  start: number,
  by: string,
  nextId: (at: number) => string,
  opening: WithoutStamp<EntryOf<'opened'>>,
) {
  const setup = nextId(start)
  let at = start
  const stamp = (id: string) => ({ id, setup, at: new Date(at).toISOString(), by })
  const log: Entry[] = [{ ...stamp(setup), ...opening }]
  const write = (minutes: number, entry: WithoutStamp<Entry>): string => {
    at += minutes * MINUTE
    const id = nextId(at)
    log.push({ ...stamp(id), ...entry } as Entry)
    return id
  }
  const { machine } = opening
  /** Walk-round and power-up, half a minute a line, and the home positions. */
  const getReady = (by: Machine) => {
    for (const { id: item, says } of readyListOf(by))
      write(0.5, { kind: 'ticked', list: 'ready', item, says })
    write(1, {
      kind: 'homed',
      machine,
      shown: { X: typed('0'), ...(by.axes.Y ? { Y: typed('0') } : {}), Z: typed('0') },
    })
  }
  const sweep = (minutes: number, bolts: Bolts, far: string) =>
    write(minutes, {
      kind: 'swept',
      sweep: {
        bolts,
        pivot: typed('-1'),
        points: [
          { at: typed('.25'), reading: typed('0') },
          { at: typed('5.75'), reading: typed(far) },
        ],
        plusMeans: 'towards',
        stylusAngle: 10,
        dialStep: typed('.0005'),
        partLength: typed('4.000'),
        allowed: typed('.001'),
      },
    })
  const clear = (minutes: number) =>
    write(minutes, {
      kind: 'cleared',
      vise: { id: 'vise-6', version: 1 },
      machine,
      jawAt: typed('10.9'),
      wanted: typed('.250'),
      lowestZ: typed('-12'),
    })
  const take = (minutes: number, reading: Reading) =>
    write(minutes, { kind: 'pickup', offset: 'G54', reading, machine })
  const offset = () => {
    const setup = deriveSetup(log, demoReference)
    const first = isUnreadable(setup) ? undefined : setup.offsets[0]
    if (isUnreadable(setup) || !first) throw new Error('the demo log does not give a setup')
    return { setup, first }
  }
  const takeProgram = (minutes: number) => {
    const { setup, first } = offset()
    const program = programFor(setup, first)
    if (!program.ok) throw new Error(`the demo program is refused: ${program.findings[0]?.says}`)
    write(minutes, {
      kind: 'program',
      offset: first.name,
      rests: restsOf(first, 'program', setup.part),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine: { id: setup.machine.id, version: setup.machine.version },
      how: 'downloaded',
      text: program.text,
    })
  }
  const check = (minutes: number, note: string) =>
    write(minutes, {
      kind: 'checked',
      offset: 'G54',
      rests: restsOf(offset().first, 'checked', offset().setup.part),
      result: 'agrees',
      note,
    })
  /** A tool's length against the master, 4.000 long, which stands at -10.3460 on the same block. */
  const measureTool = (minutes: number, tool: number, machinePosition: string) =>
    write(minutes, {
      kind: 'tool-length',
      tool,
      machinePosition: typed(machinePosition),
      masterPosition: typed('-10.3460'),
      masterLength: typed('4.0000'),
      machine,
    })
  /** What stands on the table, and the program proved against it. */
  const proveHousing = (minutes: number) => {
    write(minutes, { kind: 'laid-out', ...housingLayout })
    const { setup } = offset()
    const lengths = deriveTools(log, demoReference.machines[0] as Machine, 'inch')
    const table = offsetTable(setup, log, demoReference)
    const { tools, profiles } = demoReference
    const proof = prove(
      proveCase(setup, table, lengths, tools, housingLayout, { text: housingProgram, frame: 'G54' }),
    )
    const used = { offsets: ['G54'], tools: [3, 7, 12] }
    write(minutes, {
      kind: 'proved',
      title: 'O5410 first side',
      frame: 'G54',
      hash: HOUSING_HASH,
      characters: housingProgram.length,
      text: housingProgram,
      verdict: proof.verdict,
      counts: { stop: 0, look: 0, note: 0 },
      worst: proof.findings.map(({ code, line, says }) => ({ code, line, says })),
      seconds: proof.time.total,
      rests: proofRests(setup, lengths, used),
      lengths: lengths.map(({ tool, length }) => ({ tool, length: length.value })),
      tools: tools
        .filter(({ number }) => used.tools.includes(number))
        .map(({ id, version }) => ({ id, version })),
      profile: { id: setup.profile.id, version: profiles[0]?.version ?? 1 },
      machine,
    })
  }
  /** A program built from cycles. */
  const build = (minutes: number, draft: SheetDraft) => {
    const { setup } = offset()
    const read = readSheet(draft, setup.unit)
    if (!read.ok) throw new Error(`the demo program is not complete: ${read.says}`)
    const { sheet } = read
    const name = codedOffset(setup, sheet, 'G54')
    const { code } = codeFor(setup, sheet, name, demoReference)
    if (!code) throw new Error(`the demo program ${sheet.title} is refused`)
    write(minutes, {
      kind: 'coded',
      offset: name,
      sheet,
      rests: codeRests(setup, sheet, name),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine,
      material: { id: sheet.material, version: 1 },
      tools: codeTools(setup, sheet, demoReference.tools),
    })
  }
  return { log, write, build, proveHousing, getReady, sweep, clear, take, takeProgram, check, measureTool }
}

const opening = (title: string, machine: Machine, tolerance: number): WithoutStamp<EntryOf<'opened'>> => ({
  kind: 'opened',
  title,
  machine: { id: machine.id, version: machine.version },
  unit: 'inch',
  tolerance: asTyped(tolerance, 'inch'),
})

/** One side of a part, touched with the probe: X and Y of the corner from touches on both faces. */
const cornerOf = (axis: 'X' | 'Y', x: string, y: string, rise: string): Reading => ({
  method: 'corner',
  axis,
  device: 'probe',
  diameter: typed('.2362'),
  directionX: '+',
  pointsX: [{ x: typed(x), y: typed('-7.5') }],
  directionY: '+',
  pointsY: [
    { x: typed('-20.5'), y: typed(y) },
    { x: typed('-15.5'), y: typed(rise) },
  ],
  cornerAngle: 90,
  drawingX: typed('0'),
  drawingY: typed('0'),
})

/** Where the corner of the counterweight bracket stood, run by run: the touch on X, the two on Y, and Z. */
const BRACKET_RUNS = [
  [-41, '-21.1183', '-9.1182', '-9.1180', '-9.2115'],
  [-34, '-21.1180', '-9.1179', '-9.1183', '-9.2121'],
  [-27, '-21.1185', '-9.1181', '-9.1179', '-9.2109'],
  [-20, '-21.1182', '-9.1184', '-9.1182', '-9.2112'],
  [-13, '-21.1179', '-9.1180', '-9.1181', '-9.2118'],
  [-6, '-21.1184', '-9.1182', '-9.1184', '-9.2114'],
  [-2.4, '-21.0971', '-9.1290', '-9.0420', '-9.2116'],
] as const

/** The bracket that comes back every week; the last time it lay askew, and was turned to. */
function bracketRuns(now: number, nextId: (at: number) => string, mill: Machine): Entry[] {
  return BRACKET_RUNS.flatMap(([days, x, y, rise, z], index) => {
    const run = openLog(
      now + days * DAY,
      index % 2 ? 'MK' : 'RT',
      nextId,
      opening('Counterweight bracket', mill, 0.002),
    )
    run.take(25, cornerOf('X', x, y, rise))
    run.take(0, cornerOf('Y', x, y, rise))
    run.take(6, toolOnBlock(7, '4.5120', z))
    if (index === BRACKET_RUNS.length - 1) {
      run.write(3, {
        kind: 'identified',
        distances: [
          {
            name: 'bore-slot',
            measured: typed('2.7506'),
            drawing: typed('2.750'),
            within: typed('.010'),
            turned: typed('3.125'),
          },
          { name: 'bore-edge', measured: typed('1.1252'), drawing: typed('1.125'), within: typed('.010') },
        ],
      })
      run.write(4, {
        kind: 'angled',
        offset: 'G54',
        reading: {
          method: 'edge',
          device: 'probe',
          points: (
            [
              ['-20.5', '-9.1290'],
              ['-19.0', '-9.1029'],
              ['-17.5', '-9.0767'],
              ['-15.5', '-9.0420'],
            ] as const
          ).map(([px, py]) => ({ x: typed(px), y: typed(py) })),
          nominal: 0,
        },
        reach: typed('6'),
        allowed: typed('.002'),
        needsSquare: false,
        machine: { id: mill.id, version: mill.version },
      })
    }
    run.takeProgram(3)
    run.check(5, '')
    return run.log
  })
}

/**
 * The demo's logs: on Mill 1 one setup finished, one stale, one open, and a job that came back seven times; on Lathe 1 one in Hold. All of it is made up.
 * @param now the time, in ms since 1970, that 'yesterday' and 'this morning' are reckoned from
 * @param random numbers from 0 to 1 for the ids
 */
export function demoEntries(now: number, random: () => number): Entry[] {
  const nextId = monotonicFactory(random)
  const [mill, lathe] = demoReference.machines as [Machine, Machine]

  const brackets = bracketRuns(now, nextId, mill)
  const scale = openLog(now - 2.2 * DAY, 'MK', nextId, opening('Drawtube, scale', mill, 0.002))
  scale.getReady(mill)
  scale.take(7, edgeFinder('X', '-19.8840', '0'))
  scale.take(5, {
    method: 'indicator',
    axis: 'Y',
    minusSide: typed('-8.6255'),
    plusSide: typed('-7.3745'),
    drawingPosition: typed('0'),
  })
  scale.measureTool(3, 15, '-10.8460')
  scale.take(3, toolOnBlock(15, '3.5000', '-9.1220'))
  scale.takeProgram(2)
  scale.check(4, 'Point over the end, on the centre line.')
  scale.write(2, { kind: 'laid-out', ...scaleLayout })
  scale.build(9, scaleSheet)

  const finished = openLog(now - 1.2 * DAY, 'RT', nextId, opening('Focuser housing, first side', mill, 0.002))
  finished.getReady(mill)
  finished.sweep(9, 'one', '-.030')
  finished.sweep(4, 'one', '.0005')
  finished.sweep(2, 'snug', '.0005')
  finished.sweep(2, 'tight', '0')
  finished.clear(3)
  const slip = finished.take(6, edgeFinder('X', '-81.451', '0'))
  finished.write(1, {
    kind: 'struck',
    target: slip,
    reason: 'Digits turned round: the display says -18.4510.',
  })
  finished.take(1, edgeFinder('X', '-18.4510', '0'))
  finished.take(4, edgeFinder('Y', '-9.2205', '-3'))
  finished.measureTool(3, 7, '-9.8340')
  finished.measureTool(2, 3, '-9.3195')
  finished.measureTool(2, 12, '-11.2210')
  finished.measureTool(2, 5, '-10.1875')
  finished.take(4, toolOnBlock(7, '4.5120', '-9.8340'))
  finished.takeProgram(3)
  finished.check(5, 'Point over the corner, both ways.')
  finished.build(9, housingSheet)
  finished.proveHousing(6)
  const sixDone = finished.write(95, {
    kind: 'note',
    text: 'Six done, all good. Deburr the tapped holes before turning the part over.',
  })

  const stale = openLog(now - 0.7 * DAY, 'MK', nextId, opening('Focuser housing, serial number', mill, 0.005))
  stale.write(1, { kind: 'acknowledged', note: sixDone })
  stale.getReady(mill)
  stale.sweep(6, 'tight', '.0005')
  stale.clear(3)
  stale.take(8, edgeFinder('X', '-12.6030', '0'))
  stale.take(3, edgeFinder('Y', '-8.9415', '-3'))
  stale.take(6, toolOnBlock(3, '5.0265', '-9.3210'))
  stale.takeProgram(2)
  stale.check(4, '')
  stale.write(20, {
    kind: 'numbered',
    series: 'HSG-####',
    first: 41,
    last: 44,
    fate: 'engraved',
    note: '',
  })
  stale.write(4, {
    kind: 'numbered',
    series: 'HSG-####',
    first: 45,
    last: 45,
    fate: 'left-out',
    note: 'Scrapped: a bore came out large.',
  })
  stale.write(14, {
    kind: 'happened',
    what: 'vise-moved',
    note: 'Swung it off to clear chips from under the jaw.',
  })
  stale.write(6, {
    kind: 'note',
    text: 'Vise is back on, but only one bolt is in. Square it before you go on. T3 is getting dull.',
  })

  const open = openLog(now - 80 * MINUTE, 'RT', nextId, opening('Focuser housing, second side', mill, 0.0005))
  open.getReady(mill)
  open.sweep(8, 'one', '.012')
  open.sweep(5, 'one', '0')
  open.sweep(2, 'snug', '-.0005')
  open.sweep(2, 'tight', '0')
  open.clear(2)
  open.take(9, {
    method: 'indicator',
    axis: 'X',
    minusSide: typed('-16.8021'),
    plusSide: typed('-14.4987'),
    drawingPosition: typed('0'),
  })

  const tube = openLog(now - 35 * MINUTE, 'LB', nextId, opening('Drawtube, first operation', lathe, 0.002))
  tube.getReady(lathe)
  tube.write(6, {
    kind: 'gripped',
    collet: { id: '16c', version: 1 },
    stop: 'draw-tube',
    operation: 'first',
    bars: { known: 'tolerance', diameter: typed('1.250'), spread: typed('.004') },
    allowed: typed('.020'),
    rests: [],
  })
  tube.write(2, {
    kind: 'ticked',
    list: 'hold',
    item: 'anti-rotation',
    says: "Anti-rotation screw in the collet's keyway",
  })

  const rings = openLog(now - 1.6 * DAY, 'LB', nextId, opening('Drawtube, O-ring grooves', lathe, 0.002))
  rings.getReady(lathe)
  const turned = (axis: 'X' | 'Z', reading: Reading) =>
    rings.write(axis === 'X' ? 5 : 3, {
      kind: 'pickup',
      offset: 'T4',
      reading,
      machine: { id: lathe.id, version: lathe.version },
    })
  turned('Z', {
    method: 'faced',
    axis: 'Z',
    machinePosition: typed('-11.4060'),
    drawingPosition: typed('0'),
  })
  turned('X', {
    method: 'skimmed',
    axis: 'X',
    machinePosition: typed('-9.1180'),
    measured: typed('1.2500'),
  })
  rings.write(3, { kind: 'laid-out', ...tubeLayout })
  rings.build(8, tubeSheet)

  return [...brackets, ...scale.log, ...rings.log, ...finished.log, ...stale.log, ...open.log, ...tube.log]
}

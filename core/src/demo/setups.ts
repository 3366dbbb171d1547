import { monotonicFactory } from 'ulid'
import type { Machine } from '../machine/index.ts'
import type { Reading } from '../pickup/index.ts'
import type { Entry } from '../setup/index.ts'
import { CHIP_PART, FACE_CORRECTED_AFTER, housingGauging, measuredHousings, OUT_PART } from './gauging.ts'
import { edgeFinder, MINUTE, opening, openLog, toolOnBlock, typed } from './log-pen.ts'
import { palletSetup } from './pallet-setup.ts'
import {
  housingLayout,
  housingSheet,
  REBATE_HASH,
  rebateProgram,
  scaleLayout,
  scaleSheet,
  TAPER_HASH,
  taperProgram,
  tubeLayout,
  tubeSheet,
} from './programs.ts'
import { demoReference } from './reference.ts'

const DAY = 24 * 60 * MINUTE

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
 * The demo's logs: on Mill 1 one setup finished, one stale, one open, and a job that came back seven times; on Lathe 1 one in Hold; on Mill 2 a job on two pallets. All of it is made up.
 * @param now the time, in ms since 1970, that 'yesterday' and 'this morning' are computed from
 * @param random numbers from 0 to 1 for the ids
 */
export function demoEntries(now: number, random: () => number): Entry[] {
  const nextId = monotonicFactory(random)
  const [mill, lathe, pallets] = demoReference.machines as [Machine, Machine, Machine]

  const brackets = bracketRuns(now, nextId, mill)
  const scale = openLog(now - 2.2 * DAY, 'MK', nextId, opening('Drawtube, scale', mill, 0.002))
  scale.getReady(mill)
  scale.take(7, edgeFinder('X', '-19.8840', '0'))
  scale.take(5, {
    method: 'indicator',
    axis: 'Y',
    minusSide: typed('-8.6880'),
    plusSide: typed('-7.3120'),
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
  finished.readJaw(3, '.0003', '.0005')
  finished.clear(3)
  const slip = finished.take(6, edgeFinder('X', '-81.451', '0'))
  finished.write(1, {
    kind: 'struck',
    target: slip,
    reason: 'Digits turned round: the display says -18.4510.',
  })
  finished.take(1, edgeFinder('X', '-18.4510', '0'))
  finished.take(4, edgeFinder('Y', '-9.2205', '-3.4'))
  finished.measureTool(3, 7, '-9.8340')
  finished.measureTool(2, 3, '-9.3195')
  finished.measureTool(2, 12, '-11.2210')
  finished.measureTool(2, 5, '-10.1875')
  finished.measureTool(2, 16, '-9.0110')
  finished.take(4, toolOnBlock(7, '4.5120', '-9.8340'))
  finished.takeProgram(3)
  finished.check(5, 'Point over the corner, both ways.')
  finished.build(9, housingSheet)
  finished.proveHousing(6)
  const gauging = finished.composeGauging(8, housingGauging)
  const housings = measuredHousings()
  const { title } = housingGauging.head
  const early = finished.measure(55, title, gauging, housings.slice(0, FACE_CORRECTED_AFTER))
  finished.write(2, {
    kind: 'corrected',
    plan: title,
    key: 'FACE',
    gauged: early,
    part: FACE_CORRECTED_AFTER - 1,
    label: String(FACE_CORRECTED_AFTER),
    tool: 7,
    amount: typed('-.0013'),
    note: 'Length of T7 less by that much.',
  })
  const late = finished.measure(30, title, gauging, housings.slice(FACE_CORRECTED_AFTER))
  finished.write(1, {
    kind: 'settled',
    gauged: late,
    part: OUT_PART - FACE_CORRECTED_AFTER - 1,
    label: String(OUT_PART),
    did: 'scrapped',
    note: 'The dowel hole was cut twice after a stop.',
  })
  finished.write(1, {
    kind: 'settled',
    gauged: late,
    part: CHIP_PART - FACE_CORRECTED_AFTER - 1,
    label: String(CHIP_PART),
    did: 'not-counted',
    note: 'A chip in the bore; measured again by hand, it is good.',
  })
  const sixDone = finished.write(6, {
    kind: 'handed-over',
    stale: [],
    open: [],
    left: ['Prove: Prove Housing, tapped holes.'],
    note: 'Six done, all good. Deburr the tapped holes before turning the part over. A tapping program that chamfers first is built, not proved.',
  })

  const stale = openLog(now - 0.7 * DAY, 'MK', nextId, opening('Focuser housing, serial number', mill, 0.005))
  stale.write(1, { kind: 'acknowledged', note: sixDone })
  stale.getReady(mill)
  stale.sweep(6, 'tight', '.0005')
  stale.clear(3)
  stale.take(8, edgeFinder('X', '-12.6030', '0'))
  stale.take(3, edgeFinder('Y', '-8.9415', '-3.4'))
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
    seated: null,
    bars: { known: 'tolerance', diameter: typed('1.375'), spread: typed('.004') },
    allowed: typed('.035'),
    rests: [],
  })
  tube.write(2, {
    kind: 'ticked',
    list: 'hold',
    item: 'anti-rotation',
    says: "Anti-rotation screw in the collet's keyway",
  })

  /** The face and the skimmed diameter of the bar, as a tool finds them. */
  const facedAndSkimmed = (log: typeof tube, offset: string, z: string, x: string) => {
    const of = { kind: 'pickup', offset, machine: { id: lathe.id, version: lathe.version } } as const
    log.write(3, {
      ...of,
      reading: { method: 'faced', axis: 'Z', machinePosition: typed(z), drawingPosition: typed('0') },
    })
    log.write(5, {
      ...of,
      reading: { method: 'skimmed', axis: 'X', machinePosition: typed(x), measured: typed('1.3750') },
    })
  }

  const rebate = openLog(now - 6.2 * DAY, 'RT', nextId, opening('Focuser housing, rebate', mill, 0.002))
  rebate.getReady(mill)
  rebate.take(6, edgeFinder('X', '-18.4490', '0'))
  rebate.take(4, edgeFinder('Y', '-9.2230', '-3.4'))
  rebate.measureTool(3, 7, '-9.8355')
  rebate.take(4, toolOnBlock(7, '4.5105', '-9.8355'))
  rebate.write(3, { kind: 'laid-out', ...housingLayout })
  rebate.proveText(6, {
    title: 'O5412 rebate',
    text: rebateProgram,
    hash: REBATE_HASH,
    layout: housingLayout,
    offset: 'G54',
    tools: [7],
  })

  const taper = openLog(now - 5 * DAY, 'LB', nextId, opening('Drawtube, tapered nose', lathe, 0.002))
  taper.getReady(lathe)
  facedAndSkimmed(taper, 'T1', '-12.0340', '-9.5025')
  taper.write(3, { kind: 'laid-out', ...tubeLayout })
  taper.proveText(6, {
    title: 'O5422 tapered nose',
    text: taperProgram,
    hash: TAPER_HASH,
    layout: tubeLayout,
    offset: 'T1',
    tools: [1],
  })

  const rings = openLog(now - 1.6 * DAY, 'LB', nextId, opening('Drawtube, O-ring grooves', lathe, 0.002))
  rings.getReady(lathe)
  facedAndSkimmed(rings, 'T4', '-11.4060', '-9.1180')
  rings.write(3, { kind: 'laid-out', ...tubeLayout })
  rings.build(8, tubeSheet)

  return [
    ...brackets,
    ...rebate.log,
    ...taper.log,
    ...scale.log,
    ...rings.log,
    ...palletSetup(now - 1.1 * DAY, nextId, pallets),
    ...finished.log,
    ...stale.log,
    ...open.log,
    ...tube.log,
  ]
}

import { readSheet, type SheetDraft } from '../code/index.ts'
import { type GaugePlanDraft, type MeasuredPart, readPlan } from '../gauge/index.ts'
import type { Bolts } from '../hold/index.ts'
import { type Machine, readyListOf } from '../machine/index.ts'
import type { Reading } from '../pickup/index.ts'
import {
  codedOffset,
  codeFor,
  codeRests,
  codeTools,
  gaugeProgram,
  gaugeRests,
  programFor,
  proofRests,
  proveCase,
  restsOf,
} from '../prepare/index.ts'
import { coverageOf, type Layout, prove } from '../prove/index.ts'
import { asTyped, type TypedLength } from '../quantity/index.ts'
import {
  deriveSetup,
  deriveTools,
  type Entry,
  type EntryOf,
  isUnreadable,
  offsetTable,
  shapeNow,
} from '../setup/index.ts'
import { HOUSING_HASH, housingLayout, housingProgram } from './programs.ts'
import { demoReference } from './reference.ts'

export const MINUTE = 60_000

/** Digits as the operator typed them. */
export const typed = (text: string): TypedLength => ({ text, value: Number(text), unit: 'inch' })

export const edgeFinder = (axis: 'X' | 'Y', machinePosition: string, drawingPosition: string): Reading => ({
  method: 'edge-finder',
  axis,
  direction: '+',
  diameter: typed('.200'),
  machinePosition: typed(machinePosition),
  drawingPosition: typed(drawingPosition),
})

export const toolOnBlock = (tool: number, length: string, machinePosition: string): Reading => ({
  method: 'tool-on-block',
  axis: 'Z',
  tool,
  toolLength: typed(length),
  blockHeight: typed('1.000'),
  machinePosition: typed(machinePosition),
  drawingPosition: typed('0'),
})

type WithoutStamp<T> = T extends Entry ? Omit<T, 'id' | 'setup' | 'at' | 'by' | 'shape'> : never

/** A pen that adds entries to one log: each `write` is some minutes after the last. */
export function openLog(
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
    log.push({ ...stamp(id), ...entry, ...shapeNow(entry.kind) } as Entry)
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
          { at: typed('.3'), reading: typed('0') },
          { at: typed('6'), reading: typed(far) },
        ],
        plusMeans: 'towards',
        stylusAngle: 10,
        dialStep: typed('.0005'),
        partLength: typed('4.800'),
        allowed: typed('.001'),
      },
      vise: { id: 'vise-160', version: 1 },
    })
  const readJaw = (minutes: number, up: string, lift: string) =>
    write(minutes, {
      kind: 'upright',
      height: typed('1.4'),
      up: typed(up),
      lift: typed(lift),
      plusMeans: 'towards',
      stylusAngle: 10,
      dialStep: typed('.0005'),
      partHeight: typed('1.100'),
      allowed: typed('.001'),
      machine,
    })
  const clear = (minutes: number) =>
    write(minutes, {
      kind: 'cleared',
      vise: { id: 'vise-160', version: 1 },
      machine,
      jawAt: typed('10.8'),
      wanted: typed('.180'),
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
  /** A program proved against what stands in the work area. */
  const proveText = (
    minutes: number,
    of: { title: string; text: string; hash: string; layout: Layout; offset: string; tools: number[] },
  ) => {
    const { title, text, hash, layout } = of
    const { setup } = offset()
    const on = demoReference.machines.find(({ id }) => id === machine.id) as Machine
    const lengths = deriveTools(log, on, 'inch')
    const table = offsetTable(setup, log, demoReference)
    const { tools } = demoReference
    const proof = prove(proveCase(setup, table, lengths, tools, layout, { text, frame: 'G54' }))
    const count = (severity: string) => proof.findings.filter((each) => each.severity === severity).length
    write(minutes, {
      kind: 'proved',
      title,
      frame: 'G54',
      hash,
      characters: text.length,
      text,
      verdict: proof.verdict,
      counts: { stop: count('stop'), look: count('look'), note: count('note') },
      worst: proof.findings.map(({ code, line, says }) => ({ code, line, says })),
      seconds: proof.time.total,
      rests: proofRests(setup, lengths, { offsets: [of.offset], tools: of.tools }),
      lengths: lengths
        .filter(({ tool }) => of.tools.includes(tool))
        .map(({ tool, length }) => ({ tool, length: length.value })),
      tools: tools
        .filter(({ machineId, number }) => machineId === machine.id && of.tools.includes(number))
        .map(({ id, version }) => ({ id, version })),
      uses: of.tools,
      coverage: coverageOf(proof.program),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine,
    })
  }
  /** What stands on the table, and the program proved against it. */
  const proveHousing = (minutes: number) => {
    write(minutes, { kind: 'laid-out', ...housingLayout })
    proveText(minutes, {
      layout: housingLayout,
      offset: 'G54',
      title: 'O5410 first side',
      text: housingProgram,
      hash: HOUSING_HASH,
      tools: [3, 7, 12],
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
  /** A plan of what is measured on each part. */
  const composeGauging = (minutes: number, draft: GaugePlanDraft) => {
    const { setup, first } = offset()
    const { plan, complete } = readPlan(draft, setup.unit)
    const { written } = plan ? gaugeProgram(setup, plan, first, demoReference) : {}
    if (!plan || !complete || !written) throw new Error('the demo gauging is refused')
    return write(minutes, {
      kind: 'gauging',
      offset: first.name,
      plan,
      rests: gaugeRests(setup, first, plan),
      profile: { id: setup.profile.id, version: setup.profile.version },
      machine,
    })
  }
  const measure = (minutes: number, plan: string, revision: string, parts: MeasuredPart[]) =>
    write(minutes, { kind: 'gauged', plan, rests: [revision], unit: 'inch', parts, came: 'file' })
  return {
    composeGauging,
    measure,
    log,
    write,
    build,
    proveHousing,
    proveText,
    getReady,
    sweep,
    readJaw,
    clear,
    take,
    takeProgram,
    check,
    measureTool,
  }
}

export const opening = (
  title: string,
  machine: Machine,
  tolerance: number,
): WithoutStamp<EntryOf<'opened'>> => ({
  kind: 'opened',
  title,
  machine: { id: machine.id, version: machine.version },
  unit: 'inch',
  tolerance: asTyped(tolerance, 'inch'),
})

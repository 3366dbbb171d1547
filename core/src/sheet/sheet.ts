import { characteristicsOf, digitsOf, SETTLED_NAMES } from '../gauge/index.ts'
import { STOPS } from '../hold/index.ts'
import { UNREAD_TITLES } from '../log/index.ts'
import { noseWords } from '../machine/index.ts'
import { tableToKey } from '../pallet/index.ts'
import { describeTyped, formatDuration, formatLength, formatWithUnit } from '../quantity/index.ts'
import {
  deriveTools,
  type Logged,
  lastHandedOver,
  looksOf,
  type Reference,
  type Setup,
} from '../setup/index.ts'
import { inWords, type Traveler, toolsNeeded } from '../traveler/index.ts'
import { offsetsOf, type SheetOffset } from './offsets.ts'
import { type SheetLine, type Stated, stated } from './stated.ts'

interface SheetTool extends Partial<Stated> {
  tool: number
  name: string
  length: string
  doubt: string
}

interface SheetProgram extends Stated {
  title: string
  what: string
  /** The first digits of the SHA-256 of a proved text, or the id of the entry that it came from. */
  revision: string
  verdict: string
  time: string
}

/** All that a setup comes to on one or two pages, in words and formatted numbers; also what stands in its file for others to read. */
export interface SetupSheet {
  title: string
  machine: string
  profile: string
  unit: string
  tolerance: string
  opened: Stated
  made: string
  hold: SheetLine[]
  offsets: SheetOffset[]
  tools: SheetTool[]
  programs: SheetProgram[]
  /** What was not good and was let stand, and by whom. */
  accepted: SheetLine[]
  pallets: {
    lines: { pallet: number; program: number; says: string; more: string }[]
    start?: SheetLine
  } & Partial<Stated>
  gauging: { title: string; values: { name: string; nominal: string; lower: string; upper: string }[] }[]
  saved: SheetLine[]
  cautions: string[]
  left: string[]
  stale: string[]
  notes: SheetLine[]
  handedOver?: SheetLine
}

function holdLines({ hold, centre, unit, prove: { layout } }: Setup): SheetLine[] {
  const lines: SheetLine[] = []
  const square = hold.sweeps.at(-1)
  if (hold.clearance) {
    const { entry, vise, freshness } = hold.clearance
    lines.push({
      what: 'Vise',
      says: `${vise.name}, fixed jaw ${describeTyped(entry.jawAt)} along the table`,
      more: `clear by ${describeTyped(entry.wanted)}, Z down to ${describeTyped(entry.lowestZ)}`,
      ...stated(entry, freshness),
    })
  }
  if (square)
    lines.push({
      what: 'Square',
      says: square.squared.ok
        ? `out by ${formatWithUnit(square.squared.outOfSquare.value, unit)} over the part`
        : 'not known',
      more: square.squared.ok ? `within ${formatWithUnit(square.squared.outOfSquare.doubt.value, unit)}` : '',
      ...stated(square.entry, square.freshness),
    })
  if (hold.upright) {
    const { entry, read, freshness } = hold.upright
    lines.push({
      what: 'Fixed jaw',
      says: `leans ${formatWithUnit(read.lean.value, unit)} over the part, ${read.lift.value < 0 ? 'goes down' : 'rises'} ${formatWithUnit(Math.abs(read.lift.value), unit)}`,
      more: read.findings.length > 0 ? 'more than the part allows' : '',
      ...stated(entry, freshness),
    })
  }
  if (hold.grip) {
    const { entry, collet, freshness } = hold.grip
    lines.push({
      what: 'Collet',
      says: `${collet.name}, stop: ${STOPS[entry.stop].name}`,
      more: `${entry.operation} operation`,
      ...stated(entry, freshness),
    })
  }
  if (centre) {
    const { Y, Z, runsOut } = centre.centre
    lines.push({
      what: 'Rotary',
      says: `centre line at ${[Y, Z].flatMap((of) => (of ? [`${of.axis} ${formatLength(of.value, unit)}`] : [])).join(', ')}`,
      more: runsOut ? `the part runs out ${formatWithUnit(runsOut.value, unit)}` : 'not turned by half',
      ...stated(centre.entry, centre.freshness),
    })
  }
  for (const { says, tick } of hold.checks)
    if (tick) lines.push({ what: 'Looked at', says, more: '', ...stated(tick.entry, tick.freshness) })
  if (layout)
    lines.push({
      what: 'In the work area',
      says: layout.layout.bodies.map(({ name }) => name).join(', '),
      more: '',
      ...stated(layout.entry, layout.freshness),
    })
  return lines
}

/** The tools that the setup's programs use, and those whose length was measured in it. */
function toolsOf(setup: Setup, machineEntries: readonly Logged[], { tools }: Reference): SheetTool[] {
  const { machine, unit } = setup
  const lathe = machine.kind === 'lathe'
  const lengths = deriveTools(machineEntries, machine, unit)
  const used = new Set([
    ...toolsNeeded(setup, { reference: { tools } }),
    ...lengths.filter(({ entry }) => entry.setup === setup.id).map(({ tool }) => tool),
  ])
  return [...used]
    .filter((tool) => tool > 0)
    .sort((a, b) => a - b)
    .map((tool) => {
      const known = lengths.find((each) => each.tool === tool)
      const shape = tools.find(({ machineId, number }) => machineId === machine.id && number === tool)
      return {
        tool,
        name: shape ? [shape.name, ...(lathe ? noseWords(shape, unit) : [])].join(', ') : '',
        length: known ? formatLength(known.length.value, unit) : 'not measured',
        doubt: known ? formatLength(known.length.doubt.value, unit) : '',
        ...(known ? stated(known.entry, known.freshness) : {}),
      }
    })
}

const VERDICTS = { good: 'good', look: 'check this', stop: 'stop' }

function programsOf({ prove, code, gauge, offsets }: Setup): SheetProgram[] {
  const revision = (id: string) => id.slice(-6)
  return [
    ...prove.proofs.map(({ entry, freshness }) => ({
      title: entry.title,
      what: 'proved',
      revision: entry.hash.slice(0, 8),
      verdict: VERDICTS[entry.verdict],
      time: formatDuration(entry.seconds),
      ...stated(entry, freshness),
    })),
    ...code.coded.map(({ entry, freshness }) => ({
      title: entry.sheet.title,
      what: 'built from cycles',
      revision: revision(entry.id),
      verdict: '',
      time: '',
      ...stated(entry, freshness),
    })),
    ...[...code.taken, ...gauge.taken].map(([title, { entry, freshness }]) => ({
      title,
      what: 'at the control',
      revision: revision(entry.id),
      verdict: '',
      time: '',
      ...stated(entry, freshness),
    })),
    ...offsets.flatMap(({ name, program }) =>
      program
        ? [
            {
              title: `loads ${name}`,
              what: 'at the control',
              revision: revision(program.entry.id),
              verdict: '',
              time: '',
              ...stated(program.entry, program.freshness),
            },
          ]
        : [],
    ),
  ]
}

/** What was looked at and let stand, by whoever recorded it. */
function acceptedOf({ prove, offsets, gauge, log, unread }: Setup): SheetLine[] {
  const lines: SheetLine[] = unread.map((entry) => ({
    what: 'Logbook',
    says: `an entry cannot be read here. ${UNREAD_TITLES[entry.why]}.`,
    more: entry.says,
    ...stated(entry),
  }))
  for (const proof of prove.proofs)
    for (const { line, says, stands } of looksOf(proof, prove))
      if (stands)
        lines.push({ what: proof.entry.title, says: `line ${line}: ${says}`, more: '', ...stated(stands) })
  for (const { name, axes, angle, rotary } of offsets) {
    for (const { axis, findings, entry } of [...Object.values(axes), ...(rotary ? [rotary] : [])])
      for (const { severity, says } of findings)
        if (severity !== 'note') lines.push({ what: `${name} ${axis}`, says, more: '', ...stated(entry) })
    for (const { severity, says } of angle?.findings ?? [])
      if (angle && severity !== 'note')
        lines.push({ what: `${name} angle`, says, more: '', ...stated(angle.entry) })
  }
  const settled = log.flatMap(({ entry, standing }) =>
    entry.kind === 'settled' && standing !== 'struck' ? [entry] : [],
  )
  for (const entry of settled)
    lines.push({
      what: `Part ${entry.label}`,
      says: `out of tolerance: ${SETTLED_NAMES[entry.did]}`,
      more: entry.note,
      ...stated(entry),
    })
  for (const { parts, title } of gauge.series)
    for (const part of parts.filter(({ open }) => open))
      lines.push({
        what: `Part ${part.label}`,
        says: `out of tolerance in ${title}, and nothing was done about it`,
        more: '',
        ...stated(part.entry),
      })
  return lines
}

function palletsOf({ run: { pallets, start } }: Setup): SetupSheet['pallets'] {
  if (!pallets) return { lines: [] }
  const { plan } = pallets.entry
  return {
    lines: tableToKey(plan).map(({ pallet, program, says }) => {
      const params = plan.pallets[pallet - 1]?.params
      return {
        pallet,
        program,
        says,
        more: params
          ? `${params.parts} ${params.parts === 1 ? 'part' : 'parts'}, unload ${formatDuration(params.unload)}, load ${formatDuration(params.load)}`
          : '',
      }
    }),
    ...stated(pallets.entry, pallets.freshness),
    ...(start
      ? {
          start: {
            what: 'Before the start',
            says: `pallet ${start.entry.inside} inside, O${start.entry.loaded} loaded, interlock ${start.entry.interlock ? 'on' : 'off'}`,
            more: '',
            ...stated(start.entry, start.freshness),
          },
        }
      : {}),
  }
}

const gaugingOf = ({ gauge, unit }: Setup): SetupSheet['gauging'] =>
  gauge.plans.map(({ entry: { plan } }) => ({
    title: plan.head.title,
    values: plan.features.flatMap((feature) =>
      characteristicsOf(feature, unit).map((of) => {
        const digits = digitsOf(of.unit)
        return {
          name: of.key,
          nominal: of.nominal.toFixed(digits),
          lower: of.lower.toFixed(digits),
          upper: of.upper.toFixed(digits),
        }
      }),
    ),
  }))

function cautionsOf({ run, machine, prove }: Setup): string[] {
  return [
    'First run: single block, 5 % rapid, a hand on feed hold.',
    ...(machine.kind === 'mill'
      ? ['Clear the table before homing; Z first.']
      : ['Never reach in with the spindle turning.']),
    ...(run.pallets ? ['The pallet interlock stays on: with it off the wrong program is a crash.'] : []),
    ...(prove.proofs.some(({ entry }) => entry.verdict !== 'good')
      ? ['A program has findings that were let stand: read them before you run it.']
      : []),
  ]
}

/** The sheet of a setup at a moment (ISO 8601), from its log and those of its machine, and what is left to do. */
export function setupSheet(
  setup: Setup,
  machineEntries: readonly Logged[],
  reference: Reference,
  { left, stale }: Pick<Traveler, 'left' | 'stale'>,
  made: string,
): SetupSheet {
  const { opened, machine, profile, unit, run, log } = setup
  const last = lastHandedOver(setup)
  return {
    title: opened.title,
    machine: machine.name,
    profile: profile.name,
    unit,
    tolerance: describeTyped(opened.tolerance),
    opened: stated(opened),
    made,
    hold: holdLines(setup),
    offsets: offsetsOf(setup, machineEntries, reference),
    tools: toolsOf(setup, machineEntries, reference),
    programs: programsOf(setup),
    accepted: acceptedOf(setup),
    pallets: palletsOf(setup),
    gauging: gaugingOf(setup),
    saved: run.saved.map((entry) => ({
      what: entry.title,
      says: entry.says,
      more: `${formatDuration(entry.before.seconds)} before, ${formatDuration(entry.after.seconds)} after`,
      ...stated(entry),
    })),
    cautions: cautionsOf(setup),
    left: left.map(inWords),
    stale: [...stale],
    notes: log.flatMap(({ entry, standing }) =>
      entry.kind === 'note' && standing !== 'struck'
        ? [{ what: 'Note', says: entry.text, more: '', ...stated(entry) }]
        : [],
    ),
    ...(last ? { handedOver: { what: 'Handed over', says: last.note, more: '', ...stated(last) } } : {}),
  }
}

/** What is open when a setup is handed over: findings that were let stand, and parts that wait for a word. */
export const openFindings = (setup: Setup): string[] =>
  acceptedOf(setup).map(({ what, says }) => `${what}: ${says}`)

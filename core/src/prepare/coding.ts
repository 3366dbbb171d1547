import { formatAngle } from '../angle/index.ts'
import { type CycleSheet, type SheetCase, toolsOf, type WrittenSheet, writeSheet } from '../code/index.ts'
import { movesTurned } from '../control/index.ts'
import type { PlanBody } from '../cycles/cycle/index.ts'
import { type Finding, finding } from '../fact/index.ts'
import { type ToolShape, toolIn } from '../machine/index.ts'
import { boundsOf, layoutIn } from '../prove/index.ts'
import { type CodedFact, type OffsetState, offsetOf, type Reference, type Setup } from '../setup/index.ts'
import { offsetHindrances, wrongPart } from './load.ts'

/** The offsets that a program runs in: the one in hand, or on a lathe the geometry of each of its tools. */
function offsetsOf(setup: Setup, sheet: Pick<CycleSheet, 'items'>, offset: string): OffsetState[] {
  if (setup.machine.kind === 'mill') return [offsetOf(setup, offset)]
  const tools = sheet.items.filter(({ off }) => !off).flatMap(toolsOf)
  return [...new Set(tools)].map((tool) => offsetOf(setup, `T${tool}`))
}

/** The name that a program's offset has in the log; on a lathe whose cycles are all off, that of the first that could be on. */
export function codedOffset(setup: Setup, sheet: Pick<CycleSheet, 'items'>, offset: string): string {
  const all = { items: sheet.items.map((item) => ({ ...item, off: false })) }
  return (offsetsOf(setup, sheet, offset)[0] ?? offsetsOf(setup, all, offset)[0])?.name ?? offset
}

function againstOffset(offset: OffsetState, lathe: boolean): Finding[] {
  const missing = offset.wants.filter((axis) => !offset.axes[axis])
  return [
    ...offset.findings,
    ...offsetHindrances(offset),
    ...(missing.length > 0
      ? [
          finding(
            'look',
            'offset-missing',
            offset.name,
            lathe
              ? `The geometry of ${offset.name} has not been taken: ${missing.join(' and ')}.`
              : `${missing.join(' and ')} of ${offset.name} ${missing.length > 1 ? 'have' : 'has'} not been taken.`,
            'The program uses whatever stands at the control.',
            'Take it in the Zero step.',
          ),
        ]
      : []),
  ]
}

/** Ways to find Y that look at one side only: the centre line of what is wrapped lies between two. */
const ONE_SIDE: ReadonlySet<string> = new Set(['edge-finder', 'sensor', 'probe', 'corner'])

/** What is wrapped turns about Y zero: that it is the centre line shows only where both sides were looked at. */
function againstCentreLine({ axes, name }: OffsetState, { items }: Pick<CycleSheet, 'items'>): Finding[] {
  const method = axes.Y?.entry.reading.method
  const wraps = items.some(({ cycle, off }) => cycle === 'wrap' && !off)
  if (!wraps || method === undefined || !ONE_SIDE.has(method)) return []
  return [
    finding(
      'look',
      'centre-one-side',
      name,
      `Y of ${name} was found from one side.`,
      'What is wrapped needs Y zero on the rotary’s centre line: half of what the diameter is off by would be cut beside it.',
      'Find it from both sides of the stock, or of a web, in the Zero step.',
    ),
  ]
}

function againstAngle({ angle, name }: OffsetState): Finding[] {
  if (!angle) return []
  if (angle.freshness.state === 'stale')
    return [
      finding(
        'stop',
        'angle-stale',
        'turned',
        `The angle of ${name} is stale: ${angle.freshness.cause.says}.`,
        'Nothing stale goes to the machine.',
        'Measure it again, or switch the turning off.',
      ),
    ]
  return angle.findings.filter(({ severity }) => severity === 'stop')
}

/** What is known of a setup against a program that is to run in it: stale offsets, a stale angle, the wrong part. */
export function againstCode(setup: Setup, sheet: CycleSheet, offset: string): Finding[] {
  const lathe = setup.machine.kind === 'lathe'
  const offsets = offsetsOf(setup, sheet, offset)
  return [
    ...wrongPart(setup),
    ...offsets.flatMap((each) => againstOffset(each, lathe)),
    ...(sheet.turned && !lathe ? offsets.flatMap(againstAngle) : []),
    ...offsets.flatMap((each) => againstCentreLine(each, sheet)),
  ]
}

/** What the programs of a setup are written for. */
export function sheetCase(
  setup: Setup,
  sheet: Pick<CycleSheet, 'turned'>,
  offset: string,
  { tools, materials }: Pick<Reference, 'tools' | 'materials'>,
): SheetCase {
  const { machine, profile, unit } = setup
  const angle = sheet.turned && machine.kind === 'mill' ? offsetOf(setup, offset).angle : undefined
  return {
    machine,
    profile,
    unit,
    tools: toolsOn(setup, tools),
    angle: angle?.angle.value ?? 0,
    bodies: bodiesOf(setup),
    offset,
    materials,
    about: [
      `Setup: ${setup.opened.title}, ${machine.name}.`,
      `Log ${setup.id}.`,
      ...(angle
        ? [
            `${profile.rotation ? `Turned ${formatAngle(angle.angle.value)} deg` : movesTurned(formatAngle(angle.angle.value))} about X0 Y0 of ${offset}, measured by ${angle.entry.by} ${angle.entry.at.slice(0, 16).replace('T', ' ')} UTC.`,
          ]
        : []),
    ],
  }
}

/** What stands in the work area, seen from above; a cylinder that lies is as wide as it is thick. */
function bodiesOf({ prove: { layout }, unit, machine }: Setup): PlanBody[] {
  if (!layout || machine.kind === 'lathe') return []
  return layoutIn(layout.entry, unit).bodies.map((of): PlanBody => {
    const { least, greatest } = boundsOf(of)
    return {
      name: of.name,
      part: of.role === 'part',
      top: greatest[2],
      ...(of.shape === 'cylinder' && of.axis === 'X'
        ? { lies: { radius: of.diameter / 2, axisZ: of.at.z, from: of.at.x, to: of.at.x + of.length } }
        : {}),
      shape:
        of.shape === 'cylinder' && of.axis === 'Z'
          ? { kind: 'circle', at: { x: of.at.x, y: of.at.y }, radius: of.diameter / 2 }
          : {
              kind: 'rectangle',
              least: { x: least[0], y: least[1] },
              greatest: { x: greatest[0], y: greatest[1] },
            },
    }
  })
}

const toolsOn = ({ machine, unit }: Setup, tools: readonly ToolShape[]) =>
  tools.filter(({ machineId }) => machineId === machine.id).map((tool) => toolIn(tool, unit))

/** The program of a sheet for a setup, or the findings that stand against it. */
export const codeFor = (
  setup: Setup,
  sheet: CycleSheet,
  offset: string,
  reference: Pick<Reference, 'tools' | 'materials'>,
): WrittenSheet =>
  writeSheet(sheet, sheetCase(setup, sheet, offset, reference), againstCode(setup, sheet, offset))

/** The facts that a program rests on: the offsets' pickups, the angle that it is turned by, the look at the part. */
export function codeRests(setup: Setup, sheet: CycleSheet, offset: string): string[] {
  const { part } = setup
  return offsetsOf(setup, sheet, offset)
    .flatMap(({ axes, angle }) => [
      ...Object.values(axes).map(({ entry }) => entry.id),
      ...(angle && sheet.turned && setup.machine.kind === 'mill' ? [angle.entry.id] : []),
    ])
    .concat(part ? [part.entry.id] : [])
}

/** The tools of a program as the log names them. */
export function codeTools(setup: Setup, sheet: CycleSheet, tools: readonly ToolShape[]) {
  const used = new Set(sheet.items.flatMap(toolsOf))
  return tools
    .filter(({ machineId, number }) => machineId === setup.machine.id && used.has(number))
    .map(({ id, version }) => ({ id, version }))
    .sort((a, b) => (a.id < b.id ? -1 : 1))
}

/** The program of the log that has just this text: a proof of it rests on it. */
export function codedWith(
  setup: Setup,
  text: string,
  reference: Pick<Reference, 'tools' | 'materials'>,
): CodedFact | undefined {
  return setup.code.coded.find(
    ({ entry }) => codeFor(setup, entry.sheet, entry.offset, reference).code?.text === text,
  )
}

import { finding, howStale } from '../fact/index.ts'
import type { ToolShape } from '../machine/index.ts'
import type { Layout, ProveCase } from '../prove/index.ts'
import { convertLength } from '../quantity/index.ts'
import type { CodedFact, OffsetRow, ProofFact, Setup, ToolFact } from '../setup/index.ts'

/** The text that is proved, without the setup. */
type ProgramCase = Pick<ProveCase, 'text' | 'frame' | 'skipOptional'>

/** Everything that a program is proved against: offsets, lengths and tools of the machine as they stand for this setup. */
export function proveCase(
  setup: Setup,
  table: readonly OffsetRow[],
  lengths: readonly ToolFact[],
  tools: readonly ToolShape[],
  layout: Layout,
  program: ProgramCase,
): ProveCase {
  const { machine, profile, unit, shift } = setup
  const shiftStale =
    shift?.freshness.state === 'stale' ? [`the work shift ${howStale(shift.freshness.cause)}`] : []
  return {
    ...program,
    machine,
    profile,
    unit,
    offsets: table.flatMap(({ name, axes, rotary }) => {
      const known = Object.entries(axes)
      if (known.length === 0 && !rotary) return []
      const stale = [...known.map(([, cell]) => cell), ...(rotary ? [rotary] : [])]
        .flatMap(({ fact }) => (fact.freshness.state === 'stale' ? [fact.freshness.cause.says] : []))
        .concat(shiftStale)
      return [
        {
          name,
          axes: Object.fromEntries(known.map(([axis, { value }]) => [axis, value])),
          ...(rotary ? { rotary: rotary.value } : {}),
          ...(stale[0] === undefined ? {} : { stale: stale[0] }),
        },
      ]
    }),
    ...(shift ? { workShift: shift.shift.value } : {}),
    lengths: lengths.map(({ tool, length, freshness }) => ({
      tool,
      length: length.value,
      ...(freshness.state === 'stale' ? { stale: freshness.cause.says } : {}),
    })),
    tools: tools.filter(({ machineId }) => machineId === machine.id),
    layout,
  }
}

/** The greatest number that a tool can have. */
const GREATEST_TOOL = 9999

/** The tools that a program calls, as a proof keeps them: numbers that no tool can have are left out, whatever a program says. */
export const toolsUsed = (states: readonly { tool: number }[]): number[] =>
  [...new Set(states.map(({ tool }) => tool))].filter(
    (tool) => Number.isInteger(tool) && tool >= 0 && tool <= GREATEST_TOOL,
  )

/** The entries of this log that a proof rests on: the offsets' pickups and angles, tool lengths that were measured here, the layout, the cycles. */
export function proofRests(
  setup: Setup,
  lengths: readonly ToolFact[],
  used: { offsets: string[]; tools: number[] },
  coded?: CodedFact,
): string[] {
  const pickups = setup.offsets
    .filter(({ name }) => used.offsets.includes(name))
    .flatMap(({ axes, angle, rotary }) => [
      ...Object.values(axes),
      ...(angle ? [angle] : []),
      ...(rotary ? [rotary] : []),
    ])
    .map(({ entry }) => entry.id)
  const measured = lengths
    .filter(({ tool, entry }) => used.tools.includes(tool) && entry.setup === setup.id)
    .map(({ entry }) => entry.id)
  return [
    ...pickups,
    ...measured,
    ...(setup.shift ? [setup.shift.entry.id] : []),
    ...(setup.prove.layout ? [setup.prove.layout.entry.id] : []),
    ...(coded ? [coded.entry.id] : []),
  ]
}

/**
 * Why a proof does not hold although nothing in this log says so: another text, block delete the other way, or a length
 * that was not known then or that another setup has changed.
 */
export function proofAgainst(
  { entry }: ProofFact,
  now: { hash: string; blockDelete: boolean; lengths: readonly ToolFact[]; setup: Setup },
): string | undefined {
  if (entry.hash !== now.hash) return 'proved before the text was changed'
  const wasOn = entry.blockDelete ?? false
  if (wasOn !== now.blockDelete) return `proved with block delete ${wasOn ? 'on' : 'off'}`
  const same = (a: number, b: number) => Math.abs(a - b) < convertLength(0.0005, 'mm', now.setup.unit)
  const other = entry.lengths.find(({ tool, length }) => {
    const known = now.lengths.find((each) => each.tool === tool)
    return !known || known.freshness.state === 'stale' || !same(known.length.value, length)
  })
  if (other) return `proved before the length of T${other.tool} was changed`
  const measured = now.lengths.find(
    ({ tool, freshness }) =>
      freshness.state === 'fresh' &&
      entry.uses?.includes(tool) &&
      !entry.lengths.some((each) => each.tool === tool),
  )
  return measured && `proved before the length of T${measured.tool} was measured`
}

/** A layout that no longer holds. */
export const staleLayout = ({ prove: { layout } }: Setup) =>
  layout?.freshness.state === 'stale'
    ? [
        finding(
          'look',
          'layout-stale',
          'layout',
          'What stands in the work area is stale.',
          `It ${howStale(layout.freshness.cause)}.`,
          'Look at each body, and record the layout again.',
        ),
      ]
    : []

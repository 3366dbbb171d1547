import { finding } from '../fact/index.ts'
import type { ToolShape } from '../machine/index.ts'
import type { Layout, ProveCase } from '../prove/index.ts'
import { convertLength } from '../quantity/index.ts'
import type { CodedFact } from './code-facts.ts'
import type { Setup } from './derive.ts'
import type { OffsetRow } from './offset-table.ts'
import type { ProofFact } from './proof.ts'
import type { ToolFact } from './tools.ts'

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
  const { machine, profile, unit } = setup
  return {
    ...program,
    machine,
    profile,
    unit,
    offsets: table.flatMap(({ name, axes }) => {
      const known = Object.entries(axes)
      if (known.length === 0) return []
      const stale = known.flatMap(([, { fact }]) =>
        fact.freshness.state === 'stale' ? [fact.freshness.cause.says] : [],
      )
      return [
        {
          name,
          axes: Object.fromEntries(known.map(([axis, { value }]) => [axis, value])),
          ...(stale[0] === undefined ? {} : { stale: stale[0] }),
        },
      ]
    }),
    lengths: lengths.map(({ tool, length, freshness }) => ({
      tool,
      length: length.value,
      ...(freshness.state === 'stale' ? { stale: freshness.cause.says } : {}),
    })),
    tools: tools.filter(({ machineId }) => machineId === machine.id),
    layout,
  }
}

/** The entries of this log that a proof rests on: the offsets' pickups, tool lengths that were measured here, the layout, the cycles. */
export function proofRests(
  setup: Setup,
  lengths: readonly ToolFact[],
  used: { offsets: string[]; tools: number[] },
  coded?: CodedFact,
): string[] {
  const pickups = setup.offsets
    .filter(({ name }) => used.offsets.includes(name))
    .flatMap(({ axes }) => Object.values(axes).map(({ entry }) => entry.id))
  const measured = lengths
    .filter(({ tool, entry }) => used.tools.includes(tool) && entry.setup === setup.id)
    .map(({ entry }) => entry.id)
  return [
    ...pickups,
    ...measured,
    ...(setup.prove.layout ? [setup.prove.layout.entry.id] : []),
    ...(coded ? [coded.entry.id] : []),
  ]
}

/**
 * Why a proof does not hold although nothing in this log says so: another text, block delete the other way, or a length
 * that another setup has changed.
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
  return other ? `proved before the length of T${other.tool} was changed` : undefined
}

/** What to do next in the Prove step, with the reason. */
export function nextProve({ prove: { proofs, layout } }: Setup): { says: string; why: string } {
  const stale = proofs.find(({ freshness }) => freshness.state === 'stale')
  if (stale?.freshness.state === 'stale')
    return { says: `Prove ${stale.entry.title} again.`, why: `It was ${stale.freshness.cause.says}.` }
  const stopped = proofs.find(({ entry }) => entry.verdict === 'stop')
  if (stopped)
    return {
      says: `Mend ${stopped.entry.title}: something in it says stop.`,
      why: stopped.entry.worst[0]?.says ?? '',
    }
  if (proofs.length > 0)
    return {
      says: 'The program is proved.',
      why: 'For this text and these facts, until one of them changes.',
    }
  return layout
    ? {
        says: 'Open the program and step through it.',
        why: 'Nobody has seen yet what it will do in this setup.',
      }
    : {
        says: 'Place the part, the vise and the clamps, and open the program.',
        why: 'A crash is found only against what is placed.',
      }
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
          `It was ${layout.freshness.cause.says}.`,
          'Look at each body, and record the layout again.',
        ),
      ]
    : []

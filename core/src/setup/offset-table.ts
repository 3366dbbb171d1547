import { LINEAR_AXES, type LinearAxis, tipOf, toolIn } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import { addressNames } from './addresses.ts'
import { deriveSetup, type Setup } from './derive.ts'
import type { Logged } from './kinds.ts'
import { isUnreadable } from './log-lines.ts'
import type { AxisFact } from './offsets.ts'
import type { Reference } from './reference.ts'
import type { FlatFact } from './rotary.ts'

/** One axis of an offset as the control should show it. */
interface TableCell {
  /** In the unit of the setup that looks. */
  value: number
  doubt: number
  fact: AxisFact
  /** The setup that put it there, where it is another one. */
  other?: { id: string; title: string }
}

/** The rotary's angle of an offset as the control should show it, in degrees. */
interface RotaryCell {
  value: number
  doubt: number
  fact: FlatFact
  other?: { id: string; title: string }
}

export interface OffsetRow {
  name: string
  axes: Partial<Record<LinearAxis, TableCell>>
  rotary?: RotaryCell
  /** Of a lathe's insert: its nose radius in the unit of the setup that looks, where it was entered, and the number of its tip. */
  nose?: { radius?: number; tip: number }
}

/** The logs of the other setups on the machine, by setup. */
function otherLogs(setup: Setup, machineEntries: readonly Logged[]): Logged[][] {
  const logs = new Map<string, Logged[]>()
  for (const entry of machineEntries)
    if (entry.setup !== setup.id) logs.set(entry.setup, [...(logs.get(entry.setup) ?? []), entry])
  return [...logs.values()]
}

/**
 * Every offset of the machine as its control should show it: for each axis what was taken last, by whichever setup;
 * the standard ones even where nothing is known of them.
 */
export function offsetTable(
  setup: Setup,
  machineEntries: readonly Logged[],
  reference: Reference,
): OffsetRow[] {
  const rows = new Map<string, OffsetRow>()
  const row = (name: string) => {
    const known = rows.get(name) ?? { name, axes: {} }
    rows.set(name, known)
    return known
  }
  const standard = setup.machine.kind === 'mill' ? setup.profile.offsets.standard : []
  for (const name of standard) row(name)
  const put = (from: Setup, own: boolean) => {
    const other = own ? {} : { other: { id: from.id, title: from.opened.title } }
    for (const { name, axes, rotary } of from.offsets) {
      const known = rotary && row(name).rotary
      if (rotary && !(known && !own && (!known.other || known.fact.entry.at > rotary.entry.at)))
        row(name).rotary = {
          value: rotary.flat.value,
          doubt: rotary.flat.doubt.value,
          fact: rotary,
          ...other,
        }
      for (const axis of LINEAR_AXES) {
        const fact = axes[axis]
        if (!fact) continue
        const before = row(name).axes[axis]
        // Of this setup what it took; of others the last, where this one took none.
        if (!own && before && (!before.other || before.fact.entry.at > fact.entry.at)) continue
        row(name).axes[axis] = {
          value: convertLength(fact.value, from.unit, setup.unit),
          doubt: convertLength(fact.doubt.value, from.unit, setup.unit),
          fact,
          ...other,
        }
      }
    }
  }
  put(setup, true)
  for (const log of otherLogs(setup, machineEntries)) {
    const other = deriveSetup(log, reference)
    if (!isUnreadable(other)) put(other, false)
  }
  for (const shape of setup.machine.kind === 'lathe' ? reference.tools : []) {
    const tip = tipOf(shape)
    const known = shape.machineId === setup.machine.id ? rows.get(`T${shape.number}`) : undefined
    if (!tip || !known) continue
    const { nose } = toolIn(shape, setup.unit)
    known.nose = { tip: tip.number, ...(nose ? { radius: nose } : {}) }
  }
  const order = addressNames(setup.machine, setup.profile)
  return [...rows.values()]
    .filter(({ name, axes, rotary }) => standard.includes(name) || Object.keys(axes).length > 0 || rotary)
    .sort((a, b) => order.indexOf(a.name) - order.indexOf(b.name))
}

import { z } from 'zod'
import { type LinearAxis, withinTravel } from '../machine/index.ts'
import type { ReadingOf } from '../pickup/index.ts'
import {
  asTyped,
  type FieldProblems,
  formatLength,
  type LengthUnit,
  lengthFields,
  roundTo,
  type TypedLength,
} from '../quantity/index.ts'
import { addressNames, type OffsetState, type Setup } from '../setup/index.ts'

/** What stands in the form of copies: from one offset to one or more others, each shifted by one step more. */
export const copyDraft = z.object({
  source: z.string(),
  first: z.string(),
  count: z.string(),
  X: z.string(),
  Y: z.string(),
  Z: z.string(),
  within: z.string(),
})
export type CopyDraft = z.infer<typeof copyDraft>
export type CopyField = 'count' | 'X' | 'Y' | 'Z' | 'within'

/** One axis of one copy: what is recorded, and what it comes to. */
export interface Copy {
  offset: string
  axis: LinearAxis
  value: number
  reading: ReadingOf<'from-offset'>
  /** The pickup that it is copied from. */
  rests: [string]
  /** The offset holds something fresh there already. */
  replaces: boolean
  outside: boolean
}

export type CopyRead =
  | { ok: true; copies: Copy[]; left: LinearAxis[] }
  | { ok: false; problems: FieldProblems }

const MOST_COPIES = 40

const exact = (value: number, unit: LengthUnit): TypedLength =>
  asTyped(roundTo(value, unit === 'inch' ? 6 : 5), unit)

/**
 * The copies that a form asks for: the n-th is the source and n times the step. Axes of the source that are stale or
 * missing are left out, and named.
 */
export function readCopies(draft: CopyDraft, setup: Setup): CopyRead {
  const { unit, machine, profile } = setup
  const problems: FieldProblems = {}
  const source: OffsetState | undefined = setup.offsets.find(({ name }) => name === draft.source)
  const read = lengthFields(unit, problems)
  const length = (field: Exclude<CopyField, 'count'>) => read(field, draft[field]) ?? asTyped(0, unit)
  const steps = { X: length('X'), Y: length('Y'), Z: length('Z') }
  const within = length('within')
  if (within.value < 0)
    problems.within = { says: 'How well the step is known cannot be negative.', empty: false }
  const count = /^\d{1,2}$/.test(draft.count.trim()) ? Number(draft.count) : Number.NaN
  if (!(count >= 1 && count <= MOST_COPIES))
    problems.count = {
      says: `Type a whole number from 1 to ${MOST_COPIES}.`,
      empty: draft.count.trim() === '',
    }
  const names = addressNames(machine, profile)
  const from = names.indexOf(draft.first)
  if (from < 0)
    problems.first = { says: `${draft.first || 'That'} is not an offset of this control.`, empty: false }
  const targets = from < 0 || Number.isNaN(count) ? [] : names.slice(from, from + count)
  if (from >= 0 && !Number.isNaN(count) && targets.length < count)
    problems.count = {
      says: `From ${draft.first} on this control has ${targets.length} offsets.`,
      empty: false,
    }
  if (targets.includes(draft.source))
    problems.first = {
      says: `${draft.source} itself would be among them. Choose offsets beside it.`,
      empty: false,
    }
  const facts = Object.values(source?.axes ?? {})
  const fresh = facts.filter(({ freshness, verdict }) => freshness.state === 'fresh' && verdict !== 'stop')
  if (fresh.length === 0)
    problems.source = { says: `${draft.source} has nothing fresh to copy. Take it first.`, empty: false }
  if (Object.keys(problems).length > 0) return { ok: false, problems }
  const copies = targets.flatMap((offset, index) =>
    fresh.map((fact): Copy => {
      const { axis } = fact
      const shift = steps[axis].value * (index + 1)
      const value = fact.value + shift
      const standing = setup.offsets.find(({ name }) => name === offset)?.axes[axis]
      return {
        offset,
        axis,
        value,
        rests: [fact.entry.id],
        replaces: standing?.freshness.state === 'fresh',
        outside: axis !== 'Z' && !withinTravel(machine, axis, value, unit),
        reading: {
          method: 'from-offset',
          axis,
          source: draft.source,
          base: exact(fact.value, unit),
          baseDoubt: exact(fact.doubt.value, unit),
          shift: index === 0 ? steps[axis] : exact(shift, unit),
          shiftWithin: steps[axis].value === 0 ? asTyped(0, unit) : within,
        },
      }
    }),
  )
  const left = source?.wants.filter((axis) => !fresh.some((fact) => fact.axis === axis)) ?? []
  return { ok: true, copies, left }
}

/** The form as it comes: to the next offset, without a shift. */
export function startingCopies(setup: Setup): CopyDraft {
  const names = addressNames(setup.machine, setup.profile)
  const source = setup.offsets[0]?.name ?? names[0] ?? ''
  const free = names.find((name) => !setup.offsets.some((each) => each.name === name)) ?? names[1] ?? ''
  const known = setup.unit === 'inch' ? 0.001 : 0.02
  return { source, first: free, count: '1', X: '0', Y: '0', Z: '0', within: formatLength(known, setup.unit) }
}

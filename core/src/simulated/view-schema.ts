import { z } from 'zod'
import { linearAxis, machineKind } from '../machine/index.ts'
import { lengthUnit } from '../quantity/index.ts'
import { alarm, boltState, finderKind, heldAgainst, looks, rotaryWord, tally } from './state-schema.ts'

// What of a simulated machine leaves the server. Lengths are in its unit.

const spot = z.object({ x: z.number(), y: z.number() })
const across = z.object({ y: z.number(), z: z.number() })
const byAxis = z.partialRecord(linearAxis, z.number())
const byNumber = z.record(z.number(), z.number()).readonly()

/** A body in plan as the eye sees it. */
const seenBody = z.object({
  id: z.string(),
  name: z.string(),
  role: z.string(),
  corners: z.array(spot).readonly(),
  bottom: z.number(),
  top: z.number(),
})
export type SeenBody = z.infer<typeof seenBody>

const mounted = z.object({
  kind: z.enum([...finderKind.options, 'tool', 'nothing']),
  tool: z.number().nullable(),
  name: z.string(),
  length: z
    .number()
    .nullable()
    .describe(
      'from the gauge line, where it is known: of a device as its label says, of a tool as it was measured',
    ),
  diameter: z.number().nullable(),
  kicked: z.boolean(),
  touching: z.boolean().describe('pressed against something'),
  harmed: z.string().nullable(),
  looks: looks.nullable(),
  triggered: z.object({ axis: linearAxis, at: z.number() }).nullable(),
})

const seen = z.object({
  bodies: z.array(seenBody),
  spindle: spot,
  tip: spot,
  tipZ: z.number(),
  tipRadius: z.number(),
  pieces: z
    .array(z.object({ radius: z.number(), from: z.number(), to: z.number() }))
    .readonly()
    .describe('what is in the spindle, from the tip up: radius, and from where to where'),
})

const end = z.object({
  round: z
    .array(
      z.object({
        id: z.string(),
        role: z.string(),
        middle: across,
        radius: z.number(),
        flat: z.array(across).readonly(),
      }),
    )
    .readonly(),
  tip: across,
})

const bar = z.object({
  diameter: z.number(),
  face: z.number(),
  turned: z.object({ diameter: z.number(), to: z.number() }).nullable(),
  tip: z.object({ X: z.number(), Z: z.number() }).nullable(),
})

const run = z.object({
  phase: z.enum(['ready', 'running', 'held', 'stopped', 'done']),
  block: z.number().describe('that runs, or that the next press starts'),
  row: z.number(),
  single: z.boolean(),
  rapid: z.number().describe('per cent'),
  feed: z.number().describe('per cent'),
  presses: z.number().describe('presses of cycle start so far'),
  loads: z.number().describe('programs that were loaded so far, this one with them'),
  blocks: z.number(),
  line: z.number(),
  toGo: z.tuple([z.number(), z.number(), z.number()]).readonly().nullable(),
  next: z.string().nullable().describe('what the next press does, in a sentence'),
})

/** What an operator sees and reads at the simulated machine. Lengths in its unit; nothing in it tells what is hidden. */
const simulatedView = z.object({
  kind: machineKind,
  name: z.string(),
  unit: lengthUnit,
  leastStep: z.number(),
  rapidMarks: z.array(z.number()).readonly().describe('marks of the rapid override, per cent'),
  axes: z.array(linearAxis).readonly(),
  positions: byAxis.describe('as the control shows them, to its last digit'),
  rpm: z.number(),
  mounted,
  dial: z
    .object({ value: z.number(), step: z.number(), gives: z.number() })
    .nullable()
    .describe('what it shows, to its last digit; null where there is none'),
  measured: z.number().nullable().describe('what the micrometer showed last; null before'),
  partIn: z.boolean(),
  setter: z.boolean().describe('a tool can be sought down on one'),
  vise: z
    .object({
      left: boltState,
      right: boltState,
      length: z.number(),
      pivots: z.object({ left: z.number(), right: z.number() }),
    })
    .nullable(),
  held: heldAgainst.nullable(),
  alarm: alarm.nullable(),
  says: z.string(),
  seen: seen
    .nullable()
    .describe('what stands on the table, and the tip, as the eye sees it; null on a lathe'),
  rotary: z
    .object({ word: rotaryWord, shown: z.number(), onTable: z.boolean() })
    .nullable()
    .describe('of a mill that has one, in degrees'),
  end: end
    .nullable()
    .describe(
      "across the rotary's axis as the eye sees it, from the right end: Y to the right, Z up; null where it is not on the table",
    ),
  bar: bar
    .nullable()
    .describe("the bar as the eye sees it, from the chuck's face, and the tip of the tool; null on a mill"),
  tools: z
    .array(z.object({ number: z.number(), name: z.string(), length: z.number().nullable() }))
    .readonly(),
  offsets: z.record(z.string(), byAxis).readonly(),
  rotaryZeros: z.record(z.string(), z.number()).readonly().describe('degrees, by offset'),
  lengths: byNumber.describe('by the number of the tool'),
  variables: byNumber.describe('common variables that programs have set, as the macro page shows them'),
  run: run.nullable(),
  tally,
  worked: z.number().describe('seconds that the work took so far, as computed for a steady hand'),
})
export type SimulatedView = z.infer<typeof simulatedView>

/** What is hidden in a simulated machine, in its unit. */
export const hiddenTruth = z.object({
  zero: z.object({ X: z.number(), Y: z.number(), Z: z.number(), angle: z.number() }).nullable(),
  rotary: z
    .object({ Y: z.number(), Z: z.number(), word: z.string(), level: z.number() })
    .nullable()
    .describe('where it stands on the table: its centre line, and its angle with the flat up'),
  tools: z
    .array(
      z.object({
        number: z.number(),
        length: z.number().nullable(),
        geometry: z.object({ X: z.number(), Z: z.number() }).nullable(),
      }),
    )
    .readonly(),
})
export type HiddenTruth = z.infer<typeof hiddenTruth>

/** A simulated machine that is on. */
export const simulatedMachine = z.object({
  id: z.string(),
  seed: z.number(),
  startedAt: z.iso.datetime(),
  view: simulatedView,
})
export type SimulatedMachine = z.infer<typeof simulatedMachine>

import { z } from 'zod'
import { linearAxis } from '../machine/index.ts'
import { boltState, finderKind, looks, rotaryWord } from './state-schema.ts'

/** Turns of a rotary that can be asked for at once, in degrees. */
const MOST_TURN = 360
const far = z.number().min(-10_000).max(10_000)
const tool = z.int().min(0).max(9999)
const end = z.enum(['left', 'right'])

/** What a person can do at the simulated machine. Lengths in the machine's unit. */
export const simulatedAction = z.discriminatedUnion('do', [
  /** Clicks of the handwheel, of a step each; it goes on when something is touched, as a hand does. */
  z.object({
    do: z.literal('wheel'),
    axis: linearAxis,
    step: z.number().positive().max(1),
    clicks: z.int().min(-200).max(200),
  }),
  /** A move by a distance at jog speed; it stops only where something is hit, or at the end of the travel. */
  z.object({ do: z.literal('jog'), axis: linearAxis, by: far }),
  /** The rotary by so many degrees. */
  z.object({ do: z.literal('turn'), by: z.number().min(-MOST_TURN).max(MOST_TURN) }),
  /** What stands on the table of a mill that has a rotary. */
  z.object({ do: z.literal('table'), stands: z.enum(['vise', 'rotary']) }),
  /** A protected move of the probe, at most so far: it stops where it triggers. */
  z.object({ do: z.literal('search'), axis: linearAxis, by: far }),
  /** The spindle to the top of its travel. */
  z.object({ do: z.literal('up') }),
  z.object({ do: z.literal('home') }),
  z.object({ do: z.literal('spindle'), rpm: z.number().min(0).max(50_000) }),
  z.object({
    do: z.literal('mount'),
    what: z.enum(['nothing', 'tool', ...finderKind.options]),
    tool: tool.optional(),
  }),
  z.object({ do: z.literal('look'), way: looks }),
  /** Rocks the spindle by hand and leaves an indicator on its high spot. */
  z.object({ do: z.literal('rock') }),
  z.object({ do: z.literal('zero-dial') }),
  z.object({ do: z.literal('hold-block'), side: looks.nullable() }),
  /** Puts the part into the vise, or takes it out. */
  z.object({ do: z.literal('part'), in: z.boolean() }),
  /** Tries whether a gauge block or feeler goes in under the tool. */
  z.object({ do: z.literal('try-block'), height: z.number().positive().max(1000) }),
  z.object({ do: z.literal('bolt'), which: end, to: boltState }),
  z.object({
    do: z.literal('tap'),
    end,
    way: z.enum(['front', 'back']),
    strength: z.enum(['light', 'medium', 'firm']),
  }),
  /** Lathe: the chuck is opened, the bar pulled or pushed against what stands in front of it, and clamped. */
  z.object({ do: z.literal('bar'), way: z.enum(['pull', 'push']) }),
  /** Lathe: the spindle stands, and a micrometer is put on. */
  z.object({ do: z.literal('measure') }),
  z.object({
    do: z.literal('key-offset'),
    offset: z.string().regex(/^(G\d{2,3}(\.\d)?( P\d{1,3})?|T\d{1,4})$/, 'Write an offset like G54 or T1.'),
    axis: z.union([linearAxis, rotaryWord]),
    value: far.describe('of a rotary in degrees'),
  }),
  z.object({ do: z.literal('key-length'), tool, length: far }),
  z.object({
    do: z.literal('load'),
    text: z.string().min(1, 'There is no program.').max(200_000, 'Longer than 200,000 characters.'),
  }),
  z.object({ do: z.literal('single'), on: z.boolean() }),
  z.object({
    do: z.literal('override'),
    rapid: z.number().min(1).max(100).optional(),
    feed: z.number().min(0).max(150).optional(),
  }),
  z.object({ do: z.literal('start') }),
  z.object({ do: z.literal('feed-hold') }),
  /** Clears an alarm; after a collision the spindle goes up, and what was harmed is taken out. */
  z.object({ do: z.literal('reset') }),
])
export type SimulatedAction = z.infer<typeof simulatedAction>
export type ActionOf<Does extends SimulatedAction['do']> = Extract<SimulatedAction, { do: Does }>

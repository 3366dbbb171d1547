import { z } from 'zod'
import { linearAxis } from '../machine/index.ts'
import { STEPS } from '../setup/index.ts'

// What the shop's board says, as it goes from the server to a page.

const step = z.enum(STEPS)
const stepState = z.enum(['open', 'done', 'stale'])

/** The part of a step's page where a thing is done. */
const taskPart = z.enum([
  ...linearAxis.options,
  'list',
  'home',
  'clear',
  'square',
  'grip',
  'bar',
  'ratio',
  'checks',
  'tools',
  'check',
  'load',
  'probe',
  'stock',
  'rotary',
  'shift',
  'lies',
  'turn',
  'part',
  'area',
  'pallets',
  'start',
  'gauge',
  'chart',
  'take',
  'whole',
])
export type TaskPart = z.infer<typeof taskPart>

/** One thing to do, in the trade's words, with its reason and its place. */
const task = z.object({
  step,
  part: taskPart.describe(
    "the part of the step's page: 'start' is what is answered before the pallets start, 'load' the program that loads an offset, 'take' a built program on its way to the control, 'whole' a step of one part",
  ),
  about: z
    .string()
    .exactOptional()
    .describe(
      'what it is about, where there are several: an offset (G54), a tool (T4), the title of a program',
    ),
  says: z.string(),
  why: z.string(),
  stale: z
    .boolean()
    .describe('it was done once and no longer holds; else it was not done yet, or came out wrong'),
  waits: z
    .literal(true)
    .exactOptional()
    .describe(
      'it depends on what is asked for before it about the same thing, and cannot be done until then',
    ),
})
export type Task = z.infer<typeof task>

/** A setup at a glance. */
export const setupSummary = z.object({
  id: z.string(),
  title: z.string(),
  steps: z.array(z.object({ step, state: stepState, asked: z.boolean() })),
  stale: z.array(z.string()).describe('the facts that are stale, by name'),
  unread: z.int().min(0).describe('how many entries of its log cannot be read here'),
  next: task.exactOptional().describe('what to do next; nothing where all is done and handed over'),
  lastAt: z.string().describe('when its last entry was made, ISO 8601'),
  away: z
    .string()
    .exactOptional()
    .describe('of one that is put away: when it was worked on last before that, ISO 8601'),
})
export type SetupSummary = z.infer<typeof setupSummary>

/** A note that waits to be read by whoever comes next. */
const waitingNote = z.object({
  id: z.string(),
  setup: z.string(),
  text: z.string(),
  by: z.string(),
  at: z.string(),
})
export type WaitingNote = z.infer<typeof waitingNote>

/** A machine at a glance: the setups worked on of late, the last first, and what waits. */
const machineGlance = z.object({
  id: z.string(),
  name: z.string(),
  setups: z.array(setupSummary),
  more: z.int().min(0).describe('how many setups of the machine are not among them: older, or put away'),
  cleared: z.literal(true).exactOptional().describe('what was worked on last is put away'),
  notes: z.array(waitingNote),
  ready: stepState,
})
export type MachineGlance = z.infer<typeof machineGlance>

/** A board as it is told to who knows one: of a machine on which nothing has changed since only that. */
export const toldBoard = z.object({
  machines: z.array(z.union([machineGlance, z.object({ id: z.string(), same: z.literal(true) })])),
  unreadable: z.array(z.object({ id: z.string(), says: z.string() })),
})
export type ToldBoard = z.infer<typeof toldBoard>

/** The whole shop at a glance, and logs that no machine can be found for. */
export const shopBoardSchema = z.object({
  machines: z.array(machineGlance),
  unreadable: z.array(z.object({ id: z.string(), says: z.string() })),
})
export type ShopBoard = z.infer<typeof shopBoardSchema>

import {
  type Block,
  ownNumber,
  type Profile,
  printedDigits,
  writeNumber,
  writeProgram,
} from '../control/index.ts'
import { homeBlocks, type PlannedRow, plannedDiffers } from '../cycles/cycle/index.ts'
import type { Finding } from '../fact/index.ts'
import { notReadBack, read } from '../program/index.ts'
import { formatWithUnit, roundTo } from '../quantity/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { type BarStopSituation, checkBarStop } from './check.ts'
import { type BarStopTask, stopAt } from './task.ts'

export type WrittenBarStop =
  | { ok: true; text: string; findings: Finding[]; seconds: number }
  | { ok: false; findings: Finding[] }

const two = (value: number) => String(value).padStart(2, '0')

/** What the operator is told at each stop, in the order of the work. Common practice. */
function toldAt({ way, standsOut }: BarStopTask, unit: BarStopSituation['unit']) {
  const length = formatWithUnit(standsOut, unit)
  return way === 'pull'
    ? {
        before: `spindle stands, bar clamped: it must stand out less than ${length}`,
        there:
          'open the chuck, pull the bar against the stop, hold it there, clamp; hands away, then cycle start',
      }
    : {
        before: `spindle stands: open the chuck; the bar must stand out more than ${length}, and slide`,
        there: 'the pusher holds the bar: clamp it; hands away, then cycle start',
      }
}

/**
 * Writes the program that puts the stop where the bar is to end, stops, says what to pull or push and to clamp, and goes away clear:
 * along Z first, then home with X first. It is read back move by move before it is given out; nothing is written where a check says stop.
 */
export function writeBarStop(
  task: BarStopTask,
  situation: BarStopSituation,
  profile: Profile,
  about: string[],
): WrittenBarStop {
  const { machine, unit } = situation
  const findings = checkBarStop(task, situation)
  if (findings.some(({ severity }) => severity === 'stop')) return { ok: false, findings }
  const digits = printedDigits(profile, unit)
  const number = (value: number) => writeNumber(value, unit, profile)
  const [z, clear, x, feed] = [stopAt(task), stopAt(task) + task.away, task.x, task.feed].map((value) =>
    roundTo(value, digits),
  ) as [number, number, number, number]
  const station = two(task.tool)
  const home = homeBlocks(machine, unit, profile)
  const { before, there } = toldAt(task, unit)
  const blocks: Block[] = [
    ...home,
    { words: 'M5', does: 'the spindle stands for all of this' },
    { words: 'M0', does: before },
    { words: `T${station}${station}`, does: task.way === 'pull' ? 'the stop' : 'the pusher' },
    { words: `G0 Z${number(clear)}`, does: 'along the bar first, clear of its end' },
    { words: `G0 X${number(x)}`, does: 'in front of the bar' },
    {
      words: `G98 G1 Z${number(z)} F${number(feed)}`,
      does: task.way === 'pull' ? 'to where the bar is to end' : 'pushes the bar back to there',
    },
    { words: 'M0', does: there },
    { words: `G0 Z${number(clear)}`, does: 'away along Z, clear of the bar' },
    { words: 'G99' },
    ...home,
    { words: 'M30' },
  ]
  const text = writeProgram(
    {
      title: task.way === 'pull' ? 'stop for the bar' : 'push the bar back',
      about: [
        ...about,
        `T${task.tool}: the bar stands out ${formatWithUnit(task.standsOut, unit)} of the chuck and ends at Z${number(z)}.`,
        'Nobody reaches in while the turret moves. Chuck pressure and interlocks stay as they are.',
      ],
      unit,
      lathe: true,
      blocks,
      number: ownNumber(profile, 'bar'),
    },
    profile,
  )
  const planned: PlannedRow[] = [
    { does: 'up' },
    { does: 'stop' },
    { does: 'tool', tool: task.tool },
    { does: 'rapid', to: [null, null, clear] },
    { does: 'rapid', to: [x / 2, null, clear] },
    { does: 'feed', to: [x / 2, null, z], feed },
    { does: 'stop' },
    { does: 'rapid', to: [x / 2, null, clear] },
    { does: 'up' },
    { does: 'end' },
  ]
  const { X = 0, Z = 0 } = situation.geometry
  const program = read(text, {
    profile,
    machine,
    unit,
    offsets: new Map([[`T${task.tool}`, { X, Z }]]),
  })
  const differs = plannedDiffers(program.motion, planned)
  const wrong = program.diagnostics.find(({ severity }) => severity === 'stop')
  if (differs || wrong)
    return {
      ok: false,
      findings: [
        notReadBack(
          `Line ${differs?.line ?? wrong?.line} ${differs?.says ?? wrong?.says}.`,
          `Check the codes and digits of the profile ${profile.name}.`,
        ),
      ],
    }
  return {
    ok: true,
    text,
    findings,
    seconds: cycleTime(program.motion, speedsOf(machine, profile, unit)).total,
  }
}

import { type Block, target, turningTarget } from './block.ts'
import { noFeed } from './check-words.ts'
import { ballOf, meeting } from './meeting.ts'
import { ROW } from './motion.ts'
import type { Run } from './run.ts'
import type { Triple } from './ways.ts'

/**
 * G31, and G38.2 on a mill: straight at feed until a signal comes, at the latest to where the words lead. It is followed to where the tool
 * meets the stand-in part, and to its end where it meets nothing; where it stopped is kept for #5061 and on. G38.2 without a touch is an alarm
 * (RS274/NGC, NISTIR 6556, 3.5.9, from memory); what G31 does then is common practice.
 */
export function signalMove({ run }: Block, code: 31 | 38.2): void {
  const to = run.lathe ? turningTarget(run) : target(run, { machine: false })
  const from: Triple = [run.wx, run.wy, run.wz]
  const share = meeting(run, from, to)
  const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2])
  if (length === 0) {
    run.wrong('signal-no-way', 'stop', `G${code} that leads nowhere.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  if (code === 38.2 && run.options.standIn && share === undefined)
    run.wrong('probe-misses', 'look', 'G38.2 does not meet the part as it is placed.', {
      does: 'The control stops with an alarm: no contact. Read on from its end.',
    })
  noFeed(run)
  // The middle of the ball stops before the face.
  const free = share ? Math.max(0, share - ballOf(run) / length) : 1
  const [x, y, z] = from.map((start, axis) => start + ((to[axis] as number) - start) * free) as Triple
  run.go(ROW.PROBE, x, y, z, 0, -1, run.feedFor(length * free, x))
  run.stoppedAt = placeOf(run)
  const doubt = signalDoubt(run)
  run.wrong(
    'signal-move',
    doubt ? 'look' : 'note',
    `G${code} ends where its signal comes: it is shown ${share ? 'to the part as it is placed' : 'to its end'}.`,
    { does: doubt ?? 'What comes after it goes from there, and is proved from there.', once: doubt ?? 'all' },
  )
}

/** Why the signal may not come: then the tool goes on to the end of the move. On a lathe it can be that of a stop, a puller or a torque. */
function signalDoubt({ lathe, options: { machine }, tool, turning }: Run): string | undefined {
  if (lathe) return undefined
  const doubt = !machine.probe
    ? 'The machine’s page has no probe'
    : tool !== machine.probe.tool
      ? `T${tool} is not the probe of the machine’s page, T${machine.probe.tool}`
      : turning !== 0
        ? 'The spindle turns'
        : undefined
  return doubt && `${doubt}: without the signal the tool goes on to the end of the move.`
}

/** Where the tool stands, as variables say it: X of a lathe is a diameter. */
const placeOf = (run: Run): Triple => [run.wx * (run.lathe ? 2 : 1), run.wy, run.wz]

import type { PalletReading } from './check.ts'
import { palletsOfProgram } from './check.ts'
import type { PalletPlan } from './plan.ts'
import { judgeStart } from './start.ts'

/** The machine as it stands while it is played. */
export interface PalletPlay {
  inside: number
  loaded: number
  interlock: boolean
  /** Pallets whose ready button was pressed at the load station. */
  ready: readonly number[]
  /** 'waits': for the ready button of `waitsFor`. */
  state: 'idle' | 'runs' | 'waits' | 'alarm' | 'crash' | 'ended'
  waitsFor?: number
  /** The next event of the trace. */
  at: number
  seconds: number
  swaps: number
  /** Stays that were cut to their end, by pallet. */
  cuts: readonly number[]
  /** What happened, the newest last. */
  told: readonly { seconds: number; says: string }[]
}

export type PalletAction =
  | { do: 'inside'; pallet: number }
  | { do: 'load'; program: number }
  | { do: 'interlock'; on: boolean }
  | { do: 'ready'; pallet: number }
  | { do: 'start' }
  /** On to the next thing that happens. */
  | { do: 'next' }
  | { do: 'reset' }

const MOST_TOLD = 200

export const newPlay = (plan: PalletPlan, loaded: number): PalletPlay => ({
  inside: 1,
  loaded,
  interlock: true,
  ready: [],
  state: 'idle',
  at: 0,
  seconds: 0,
  swaps: 0,
  cuts: plan.pallets.map(() => 0),
  told: [],
})

const tell = (play: PalletPlay, says: string, more: Partial<PalletPlay> = {}): PalletPlay => ({
  ...play,
  ...more,
  told: [...play.told, { seconds: more.seconds ?? play.seconds, says }].slice(-MOST_TOLD),
})

function started(play: PalletPlay, plan: PalletPlan, reading: PalletReading): PalletPlay {
  const { happens, says } = judgeStart(plan, play)
  const trace = reading.traces.find(({ started: of }) => of === play.loaded)
  if (happens === 'refused') return tell(play, says, { state: 'alarm' })
  if (!trace)
    // A pallet's own program, started by itself where a main program is there: it cuts once on what is inside.
    return happens === 'crash'
      ? tell(play, says, { state: 'crash' })
      : tell(play, `O${play.loaded} runs by itself, once. Start the main program.`, { state: 'ended' })
  return tell(
    play,
    happens === 'unguarded' ? `O${play.loaded} starts. The interlock is off.` : `O${play.loaded} starts.`,
    { state: 'runs', at: 0 },
  )
}

/** What the program does next; a pallet change waits for the ready button of the pallet that is to come in. */
function onward(play: PalletPlay, plan: PalletPlan, reading: PalletReading, swap: number): PalletPlay {
  const trace = reading.traces.find(({ started: of }) => of === play.loaded)
  if (!trace) return play
  const event = trace.events[play.at]
  if (event === undefined) {
    if (trace.ends === 'again') return tell(play, `O${play.loaded} begins again from the top.`, { at: 0 })
    if (trace.ends === 'levels')
      return tell(play, `Alarm after ${play.swaps} changes: calls nest deeper than the control has levels.`, {
        state: 'alarm',
      })
    return tell(play, `O${play.loaded} ends. The machine stands.`, { state: 'ended' })
  }
  if (event.does === 'cut') {
    const meant = palletsOfProgram(plan)(event.program)
    if (meant.length > 0 && !meant.includes(play.inside))
      return tell(
        play,
        `Crash: O${event.program} cuts on pallet ${play.inside}; its own is pallet ${meant.join(', ')}.`,
        { state: 'crash' },
      )
    return tell(play, `O${event.program} cuts on pallet ${play.inside}.`, {
      at: play.at + 1,
      seconds: play.seconds + event.seconds,
      cuts: play.cuts.map((cuts, index) => (meant.length > 0 && index + 1 === play.inside ? cuts + 1 : cuts)),
    })
  }
  if (event.pallet === play.inside)
    return tell(play, `Pallet ${event.pallet} is called, and is inside.`, { at: play.at + 1 })
  if (event.pallet > plan.pallets.length)
    return tell(play, `Alarm: pallet ${event.pallet} is called, and there is none.`, { state: 'alarm' })
  if (!play.ready.includes(event.pallet))
    return tell(play, `Waits for the ready button of pallet ${event.pallet}.`, {
      state: 'waits',
      waitsFor: event.pallet,
    })
  return tell(play, `Pallet ${play.inside} goes out, pallet ${event.pallet} comes in.`, {
    at: play.at + 1,
    inside: event.pallet,
    ready: play.ready.filter((pallet) => pallet !== event.pallet),
    seconds: play.seconds + swap,
    swaps: play.swaps + 1,
  })
}

/** The machine after one thing was done at it; what can't be done in its state changes nothing. `swap` is seconds of a change. */
export function playPallets(
  play: PalletPlay,
  action: PalletAction,
  { plan, reading, swap }: { plan: PalletPlan; reading: PalletReading; swap: number },
): PalletPlay {
  const stands = play.state !== 'runs' && play.state !== 'waits'
  switch (action.do) {
    case 'inside':
      return stands ? { ...play, inside: action.pallet, state: 'idle' } : play
    case 'load':
      return stands ? { ...play, loaded: action.program, state: 'idle', at: 0 } : play
    case 'interlock':
      return { ...play, interlock: action.on }
    case 'ready': {
      if (action.pallet === play.inside || play.ready.includes(action.pallet)) return play
      const next = tell(play, `Ready is pressed for pallet ${action.pallet}.`, {
        ready: [...play.ready, action.pallet],
      })
      if (next.state !== 'waits' || play.waitsFor !== action.pallet) return next
      const { waitsFor: _, ...going } = next
      return { ...going, state: 'runs' }
    }
    case 'start':
      return stands ? started(play, plan, reading) : play
    case 'next':
      return play.state === 'runs' ? onward(play, plan, reading, swap) : play
    case 'reset':
      return newPlay(plan, play.loaded)
  }
}

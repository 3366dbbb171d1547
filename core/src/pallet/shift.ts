import type { PalletPlan } from './plan.ts'

/** One pallet's work: seconds on the machine, seconds of hands. */
export interface PalletWork {
  cut: number
  unload: number
  load: number
  /** Work on the parts that came off, away from the load station: deburring, measuring. */
  aside: number
  parts: number
  /** Parts come finished off this pallet. */
  finishes: boolean
}

export interface ShiftCase {
  pallets: readonly PalletWork[]
  /** Seconds of one change. */
  swap: number
  /** People who load and do what stands aside. */
  hands: number
  /** Seconds. */
  length: number
}

export type LaneState = 'cuts' | 'changes' | 'waits' | 'unloads' | 'loads' | 'ready' | 'aside' | 'idle'

/** A stretch of time on a lane of the chart. Lanes: 'machine', 'pallet 1', 'person 1'. Seconds from the start. */
export interface ShiftSpan {
  lane: string
  does: LaneState
  pallet: number
  from: number
  to: number
}

export interface Shift {
  spans: ShiftSpan[]
  /** Stays cut to their end within the shift, by pallet. */
  cuts: number[]
  /** Parts that come finished off the machine by the end. */
  parts: number
  /** Seconds of one round over all pallets once it is steady; undefined where the shift is too short to tell. */
  cycle: number | undefined
  /** Seconds that the machine waits for the load station, and that people have nothing to do. */
  machineWaits: number
  handsIdle: number
  /** The same as shares of the shift, of all hands together. */
  waitsShare: number
  idleShare: number
}

/** A shift is followed for no more rounds than this. */
const MOST_CHANGES = 20_000

export const shiftCase = (plan: PalletPlan, seconds: readonly number[], swap: number): ShiftCase => ({
  pallets: plan.pallets.map(({ params }, index) => ({
    cut: seconds[index] ?? 0,
    unload: params.unload,
    load: params.load,
    aside: params.aside,
    parts: params.parts,
    finishes: params.finishes,
  })),
  swap: plan.shift.swap ?? swap,
  hands: plan.shift.hands,
  length: plan.shift.length,
})

/** A piece of work for hands, and when it can begin. Loading comes before what stands aside. */
interface Job {
  kind: 'load' | 'aside'
  pallet: number
  from: number
}

/**
 * Two or more pallets on one machine in turn, and people at the load station: a discrete-event simulation. At the start
 * pallet 1 is on the machine and the others are loaded. A pallet that comes out is unloaded and loaded by one person, who
 * then presses ready; the machine changes to the next pallet when it has cut and that one is ready. What stands aside is done
 * by whoever has nothing to load; nobody leaves a piece of work half done.
 */
export function simulateShift(of: ShiftCase): Shift {
  const { pallets, swap, length } = of
  const spans: ShiftSpan[] = []
  const span = (lane: string, does: LaneState, pallet: number, from: number, to: number) => {
    if (to > from && from < length) spans.push({ lane, does, pallet, from, to: Math.min(to, length) })
  }
  const hands = Array.from({ length: of.hands }, () => 0)
  const readyAt = pallets.map(() => 0)
  const cuts = pallets.map(() => 0)
  const jobs: Job[] = []
  let [machineWaits, busy, parts] = [0, 0, 0]
  const inBetween = (from: number, to: number) => Math.max(0, Math.min(to, length) - Math.min(from, length))

  const work = (person: number, job: Job, from: number) => {
    const { unload, load, aside } = pallets[job.pallet] as PalletWork
    const lane = `person ${person + 1}`
    const pallet = job.pallet + 1
    const to = from + (job.kind === 'load' ? unload + load : aside)
    if (job.kind === 'load') {
      span(lane, 'unloads', pallet, from, from + unload)
      span(lane, 'loads', pallet, from + unload, to)
      span(`pallet ${pallet}`, 'waits', pallet, job.from, from)
      span(`pallet ${pallet}`, 'unloads', pallet, from, from + unload)
      span(`pallet ${pallet}`, 'loads', pallet, from + unload, to)
      readyAt[job.pallet] = to
      if (aside > 0) jobs.push({ kind: 'aside', pallet: job.pallet, from: to })
    } else span(lane, 'aside', pallet, from, to)
    hands[person] = to
    busy += inBetween(from, to)
  }
  /** Gives out work that can begin by `until`; all of it where a pallet must be loaded before anything else happens. */
  const giveOut = (until: number, wanted?: number) => {
    while (jobs.length > 0) {
      const person = hands.indexOf(Math.min(...hands))
      const free = hands[person] as number
      const begin = (job: Job) => Math.max(free, job.from)
      // The first that can begin; of those that can begin together, loading.
      const at = jobs.reduce((best, job, index) => {
        const [a, b] = [begin(job), begin(jobs[best] as Job)]
        return a < b || (a === b && job.kind === 'load' && jobs[best]?.kind !== 'load') ? index : best
      }, 0)
      const job = jobs[at] as Job
      const waitsFor =
        wanted !== undefined && jobs.some(({ kind, pallet }) => kind === 'load' && pallet === wanted)
      if (begin(job) >= until && !waitsFor) return
      jobs.splice(at, 1)
      work(person, job, begin(job))
    }
  }

  let now = 0
  let inside = 0
  const rounds: number[] = []
  for (let change = 0; now < length && change < MOST_CHANGES; change++) {
    const { cut, finishes, parts: on } = pallets[inside] as PalletWork
    if (inside === 0) rounds.push(now)
    const done = now + cut
    span('machine', 'cuts', inside + 1, now, done)
    span(`pallet ${inside + 1}`, 'cuts', inside + 1, now, done)
    if (done <= length) {
      cuts[inside] = (cuts[inside] ?? 0) + 1
      if (finishes) parts += on
    }
    const next = (inside + 1) % pallets.length
    giveOut(done, next)
    const ready = readyAt[next] as number
    const go = Math.max(done, ready)
    machineWaits += inBetween(done, go)
    span('machine', 'waits', next + 1, done, go)
    span(`pallet ${next + 1}`, 'ready', next + 1, ready, go)
    span(`pallet ${inside + 1}`, 'waits', inside + 1, done, go)
    for (const lane of ['machine', `pallet ${inside + 1}`, `pallet ${next + 1}`])
      span(lane, 'changes', next + 1, go, go + swap)
    now = go + swap
    jobs.push({ kind: 'load', pallet: inside, from: now })
    // Until it has been unloaded and loaded it is not ready.
    readyAt[inside] = Number.POSITIVE_INFINITY
    inside = next
  }
  giveOut(length)
  // The first rounds depend on how the shift began.
  const last = rounds.length - 1
  const first = Math.floor(last / 2)
  const handsIdle = of.hands * length - busy
  return {
    spans,
    cuts,
    parts,
    cycle: last >= 4 ? ((rounds[last] as number) - (rounds[first] as number)) / (last - first) : undefined,
    machineWaits,
    handsIdle,
    waitsShare: machineWaits / length,
    idleShare: handsIdle / (of.hands * length),
  }
}

/**
 * One round of two pallets in the steady state, by itself: the sum over both changes of the longer of cutting the one and
 * unloading and loading the other, and the change (trade.md 10). Without work aside, or with hands enough for it.
 */
export function steadyCycle([first, second]: readonly [PalletWork, PalletWork], swap: number): number {
  const stay = (inside: PalletWork, out: PalletWork) => Math.max(inside.cut, out.unload + out.load) + swap
  return stay(first, second) + stay(second, first)
}

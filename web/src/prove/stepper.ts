import { endOf } from '@dogleg/core/program'
import { alongRow, blockAt, cumulate, type Proof, rowsOfBlock, type Triple } from '@dogleg/core/prove'
import { listenerSet } from '../log/listeners.ts'

/** Where stepping stands. */
export interface Standing {
  proof: Proof | undefined
  /** The block that runs next; the number of blocks when the program has ended. */
  block: number
  /** The row of the motion that runs next, and where the tip is. */
  row: number
  tip: Triple
  /** How many times faster than the machine it plays; 0 when it stands. */
  speed: number
  /** How many times faster it plays, once it does. */
  pace: number
}

const USUAL_PACE = 4

/**
 * Which block runs next, and playing on from there: the tool moves as the machine would, so many times faster. A store
 * outside the page's tree, so that a step renders only what shows it.
 */
export class Stepper {
  private readonly listeners = listenerSet()
  private standing: Standing = {
    proof: undefined,
    block: 0,
    row: 0,
    tip: [0, 0, 0],
    speed: 0,
    pace: USUAL_PACE,
  }
  private frame = 0

  readonly subscribe = (listener: () => void) => this.listeners.subscribe(listener)
  readonly get = () => this.standing

  /** Another proof, of another text perhaps: the place stays as far as there is one. */
  readonly load = (proof: Proof | undefined) => this.stand(proof, this.standing.block)

  readonly go = (block: number) => this.stand(this.standing.proof, block)

  /** Plays on from here, so many times faster than the machine; 0 holds. */
  readonly play = (speed: number) => {
    const { proof, block } = this.standing
    if (speed === 0 || !proof) {
      this.stand(proof, block)
      return
    }
    cancelAnimationFrame(this.frame)
    const { motion } = proof.program
    const sums = cumulate(proof.time.rows)
    const { from } = rowsOfBlock(motion, block)
    let seconds = from > 0 ? (sums[from - 1] as number) : 0
    let last: number | undefined
    this.set({ ...this.standing, speed })
    const tick = (now: number) => {
      seconds += last === undefined ? 0 : ((now - last) / 1000) * speed
      last = now
      if (seconds >= (sums.at(-1) ?? 0)) {
        this.stand(proof, motion.blocks)
        return
      }
      const running = blockAt(motion, sums, seconds)
      const { from, to } = rowsOfBlock(motion, running)
      let row = from
      while (row < to - 1 && (sums[row] as number) < seconds) row++
      const before = row > 0 ? (sums[row - 1] as number) : 0
      const took = (sums[row] as number) - before
      const share = took > 0 ? Math.max(0, Math.min(1, (seconds - before) / took)) : 1
      this.set({
        ...this.standing,
        proof,
        block: running,
        row,
        tip: alongRow(motion, row, share, proof.speeds),
        speed,
      })
      this.frame = requestAnimationFrame(tick)
    }
    this.frame = requestAnimationFrame(tick)
  }

  /** Sets how quickly it plays; where it stands it goes on standing. */
  readonly setPace = (pace: number) => {
    if (this.standing.speed > 0) this.play(pace)
    this.set({ ...this.standing, pace })
  }

  end(): void {
    cancelAnimationFrame(this.frame)
  }

  private stand(proof: Proof | undefined, block: number): void {
    cancelAnimationFrame(this.frame)
    const motion = proof?.program.motion
    const at = Math.max(0, motion ? Math.min(block, motion.blocks) : block)
    const row = motion ? rowsOfBlock(motion, at).from : 0
    this.set({
      ...this.standing,
      proof,
      block: at,
      row,
      tip: motion ? endOf(motion, row - 1) : [0, 0, 0],
      speed: 0,
    })
  }

  private set(next: Standing): void {
    this.standing = next
    this.listeners.notify()
  }
}

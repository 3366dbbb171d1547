import { endOf, type Motion } from '@dogleg/core/program'
import { blockAt, type Proof, pathOf, rowsOfBlock, type Triple } from '@dogleg/core/prove'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'

/** Seconds up to the end of each row. */
function cumulate(rows: Float32Array): Float64Array {
  const sums = new Float64Array(rows.length)
  let sum = 0
  for (let row = 0; row < rows.length; row++) {
    sum += rows[row] as number
    sums[row] = sum
  }
  return sums
}

/** Where the tip is, a share of the way along a row, by length. */
function along(motion: Motion, row: number, share: number, speeds: Proof['speeds']): Triple {
  const path = pathOf(motion, row, speeds)
  const lengths = path
    .slice(1)
    .map((point, n) =>
      Math.hypot(...point.map((each, axis) => each - ((path[n] as Triple)[axis as 0 | 1 | 2] as number))),
    )
  let left = lengths.reduce((sum, each) => sum + each, 0) * share
  for (const [n, length] of lengths.entries()) {
    if (left <= length && length > 0) {
      const [a, b] = [path[n], path[n + 1]] as [Triple, Triple]
      const t = left / length
      return [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t]
    }
    left -= length
  }
  return path.at(-1) ?? motion.start
}

/** Which block runs next, and playing on from there: the tool moves as the machine would, so many times faster. */
export function useStepper(proof: Proof | undefined) {
  const [chosen, setChosen] = useState(0)
  const [speed, setSpeed] = useState(0)
  /** While it plays: the row that runs, and the tip on its way. */
  const [running, setRunning] = useState<{ row: number; tip: Triple }>()
  const sums = useMemo(() => (proof ? cumulate(proof.time.rows) : undefined), [proof])
  const motion = proof?.program.motion
  const block = Math.min(chosen, motion?.blocks ?? 0)
  const at = useRef(block)
  at.current = block
  const go = useCallback((to: number) => {
    setSpeed(0)
    setRunning(undefined)
    setChosen(Math.max(0, to))
  }, [])
  useEffect(() => {
    if (speed === 0 || !motion || !sums || !proof) return
    const { from } = rowsOfBlock(motion, at.current)
    let seconds = from > 0 ? (sums[from - 1] as number) : 0
    let last: number | undefined
    let frame = 0
    const tick = (now: number) => {
      seconds += last === undefined ? 0 : ((now - last) / 1000) * speed
      last = now
      const total = sums.at(-1) ?? 0
      if (seconds >= total) {
        setSpeed(0)
        setRunning(undefined)
        setChosen(motion.blocks)
        return
      }
      const next = blockAt(motion, sums, seconds)
      let row = rowsOfBlock(motion, next).from
      const { to } = rowsOfBlock(motion, next)
      while (row < to - 1 && (sums[row] as number) < seconds) row++
      const before = row > 0 ? (sums[row - 1] as number) : 0
      const took = (sums[row] as number) - before
      const share = took > 0 ? Math.max(0, Math.min(1, (seconds - before) / took)) : 1
      setChosen(next)
      setRunning({ row, tip: along(motion, row, share, proof.speeds) })
      frame = requestAnimationFrame(tick)
    }
    frame = requestAnimationFrame(tick)
    return () => cancelAnimationFrame(frame)
  }, [speed, motion, sums, proof])
  const standing = motion ? rowsOfBlock(motion, block).from : 0
  const row = running?.row ?? standing
  const tip: Triple = running?.tip ?? (motion ? endOf(motion, standing - 1) : [0, 0, 0])
  return { block, row, tip, speed, go, play: setSpeed }
}

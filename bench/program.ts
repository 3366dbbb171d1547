import { demoReference } from '@dogleg/core/demo'
import { extents, type ReadOptions, read } from '@dogleg/core/program'
import { type Body, findHits } from '@dogleg/core/prove'
import { cycleTime, speedsOf } from '@dogleg/core/timing'
import { medianTime, report } from './report.ts'

const BLOCKS = 1_000_000
const WORD = /[A-Z][-+]?\d*\.?\d+/g

/** Repeatable numbers from 0 to 1 (a linear congruence, Numerical Recipes' constants). */
function numbers(seed: number) {
  let state = seed
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 32
  }
}

/** Ordinary linear moves, as a surface is cut: two or three axes a block, a feed now and then. One flat string. */
function ordinaryProgram(blocks: number): string {
  const next = numbers(1)
  const bytes: Buffer[] = [Buffer.from('G20 G90 G54\nG1 F30.\n')]
  for (let n = 0; n < blocks; n++) {
    const z = n % 4 === 0 ? ` Z${(-next()).toFixed(4)}` : ''
    const f = n % 50 === 0 ? ' F40.' : ''
    bytes.push(Buffer.from(`X${(next() * 10).toFixed(4)} Y${(next() * 10).toFixed(4)}${z}${f}\n`))
  }
  return Buffer.concat([...bytes, Buffer.from('M30\n')]).toString('latin1')
}

function options(): ReadOptions {
  const [machine] = demoReference.machines
  const profile = demoReference.profiles.find(({ id }) => id === machine?.profileId)
  if (!machine || !profile) throw new Error('the demo has no machine with a profile')
  return { machine, profile, unit: machine.unit }
}

/** Clamps and stops among the moves, which go over X and Y 0 to 10 and down to Z -1: most just below, a few in their way. */
const twentyBoxes = (): Body[] =>
  Array.from({ length: 20 }, (_, n) => ({
    id: `b${n}`,
    name: `clamp ${n}`,
    role: 'clamp',
    shape: 'box',
    at: { x: (n % 5) * 2, y: Math.floor(n / 5) * 2.5, z: n < 2 ? -1.02 : -3 },
    size: { x: 1, y: 1, z: n < 2 ? 0.021 : 1.999 },
  }))

/** A million blocks read, interpreted, timed and measured for extents, against pulling the words out of them; and the memory that it takes. */
export function benchProgram() {
  const on = options()
  const speeds = speedsOf(on.machine, on.profile, on.unit)
  const text = ordinaryProgram(BLOCKS)
  const words = () => {
    let count = 0
    for (const line of text.split('\n')) count += line.match(WORD)?.length ?? 0
    return count
  }
  const readAll = () => {
    const { motion } = read(text, on)
    return { motion, time: cycleTime(motion, speeds), box: extents(motion) }
  }
  const [wordsMs, readMs] = medianTime([words, readAll], 9)
  report({
    name: `a program of ${BLOCKS.toLocaleString('en')} blocks: read, interpreted, timed, extents`,
    baseline: 'its words by split and one regular expression',
    measured: `${readMs.toFixed(0)} ms`,
    against: `${wordsMs.toFixed(0)} ms`,
    ratio: readMs / wordsMs,
    limit: 1,
  })
  const { motion } = read(text, on)
  const tools = new Map(demoReference.tools.map((tool) => [tool.number, tool]))
  const crash = () => findHits({ motion, bodies: twentyBoxes(), tools, speeds, lathe: false })
  const [baseMs, crashMs] = medianTime([words, crash], 5)
  report({
    name: `crash finding over them against 20 boxes among the moves (${crash().length} hits)`,
    baseline: 'their words by split and one regular expression',
    measured: `${crashMs.toFixed(0)} ms`,
    against: `${baseMs.toFixed(0)} ms`,
    ratio: crashMs / baseMs,
    limit: 2,
  })
  globalThis.gc?.()
  const before = process.memoryUsage()
  const kept = readAll()
  const after = process.memoryUsage()
  const used = after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers
  report({
    name: `memory for it, ${(kept.motion.count / 1e6).toFixed(1)} million rows of motion with their times`,
    baseline: 'the bytes of the program',
    measured: `${(used / 1e6).toFixed(0)} MB`,
    against: `${(text.length / 1e6).toFixed(0)} MB`,
    ratio: used / text.length,
    limit: 12,
  })
}

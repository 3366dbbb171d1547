import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
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

/** Clamps that stand among the moves, up to Z 0.25. */
const twentyBoxes = (): Body[] =>
  Array.from({ length: 20 }, (_, n) => ({
    id: `b${n}`,
    name: `clamp ${n}`,
    role: 'clamp',
    shape: 'box',
    at: { x: (n % 5) * 2 + 0.5, y: Math.floor(n / 5) * 2.5 + 0.5, z: -2 },
    size: { x: 0.6, y: 0.6, z: 2.25 },
  }))

/** A surface cut line by line between those clamps and over them: below their tops wherever the tool just fits. */
function surfaceProgram(blocks: number, bodies: readonly Body[]): string {
  const side = Math.sqrt(blocks)
  const free = 0.3
  const bytes: Buffer[] = [Buffer.from('G20 G90 G54\nT7 M6\nS4000 M3\nG43 H7 G0 Z1.\nG1 F60.\n')]
  const over = (x: number, y: number) =>
    bodies.some(
      ({ at, ...of }) =>
        of.shape === 'box' &&
        x > at.x - free &&
        x < at.x + of.size.x + free &&
        y > at.y - free &&
        y < at.y + of.size.y + free,
    )
  for (let n = 0; n < blocks; n++) {
    const row = Math.floor(n / side)
    const along = n % side
    const x = ((row % 2 ? side - 1 - along : along) * 10) / side
    const y = (row * 10) / side
    const z = over(x, y) ? 0.3 : -0.5 + 0.2 * Math.sin(x + y)
    bytes.push(Buffer.from(`X${x.toFixed(4)} Y${y.toFixed(4)} Z${z.toFixed(4)}\n`))
  }
  return Buffer.concat([...bytes, Buffer.from('G0 Z1.\nM30\n')]).toString('latin1')
}

const wordCount = (text: string) => {
  let count = 0
  for (const line of text.split('\n')) count += line.match(WORD)?.length ?? 0
  return count
}

/** A million blocks read, interpreted, timed and measured for extents, against pulling the words out of them; and the memory that it takes. */
export async function benchProgram() {
  const on = options()
  const speeds = speedsOf(on.machine, on.profile, on.unit)
  const text = ordinaryProgram(BLOCKS)
  const words = () => wordCount(text)
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
    limit: 0.9,
  })
  benchCompensated(text)
  benchCrashes()
  const before = await settledMemory()
  const kept = readAll()
  const after = await settledMemory()
  const used = after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers
  report({
    name: `memory for it, ${(kept.motion.count / 1e6).toFixed(1)} million rows of motion with their times`,
    baseline: 'the bytes of the program',
    measured: `${(used / 1e6).toFixed(0)} MB`,
    against: `${(text.length / 1e6).toFixed(0)} MB`,
    ratio: used / text.length,
    limit: 5.1,
  })
}

/** The same moves with the cutter led beside them, against pulling the words out of the text. */
function benchCompensated(plain: string) {
  const on = { ...options(), radii: new Map([[1, 0.00001]]) }
  const text = plain.replace('G1 F30.\n', 'G1 F30.\nG41 D1 X-1. Y-1.\n').replace('M30', 'G40 X-9.\nM30')
  const speeds = speedsOf(on.machine, on.profile, on.unit)
  const readAll = () => {
    const { motion, written } = read(text, on)
    if (!written) throw new Error('nothing was compensated')
    return { motion, time: cycleTime(motion, speeds), box: extents(motion) }
  }
  const [wordsMs, readMs] = medianTime([() => wordCount(text), readAll], 7)
  report({
    name: 'the same under cutter compensation',
    baseline: 'its words by split and one regular expression',
    measured: `${readMs.toFixed(0)} ms`,
    against: `${wordsMs.toFixed(0)} ms`,
    ratio: readMs / wordsMs,
    limit: 2,
  })
}

/** Memory when all that others left behind is collected: arrays are let go only some turns after nobody holds them. */
async function settledMemory() {
  // Node hides its collector unless it is asked for.
  setFlagsFromString('--expose-gc')
  const collect: () => void = runInNewContext('gc')
  for (let turn = 0; turn < 5; turn++) {
    collect()
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  return process.memoryUsage()
}

/** Finding the crashes of a million moves that go between and over twenty clamps, tool and holder. */
function benchCrashes() {
  const on = options()
  const bodies = twentyBoxes()
  const text = surfaceProgram(BLOCKS, bodies)
  const { motion } = read(text, on)
  const tools = new Map(demoReference.tools.map((tool) => [tool.number, tool]))
  const speeds = speedsOf(on.machine, on.profile, on.unit)
  const crash = () => findHits({ motion, bodies, tools, speeds, lathe: false })
  const [wordsMs, crashMs] = medianTime([() => wordCount(text), crash], 5)
  report({
    name: `crash finding: a surface of ${BLOCKS.toLocaleString('en')} moves among 20 clamps (${crash().length} hits)`,
    baseline: 'its words by split and one regular expression',
    measured: `${crashMs.toFixed(0)} ms`,
    against: `${wordsMs.toFixed(0)} ms`,
    ratio: crashMs / wordsMs,
    limit: 2,
  })
}

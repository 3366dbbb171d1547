import { demoReference, housingLayout, housingProgram } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { endOf } from '@dogleg/core/program'
import { prove, rowsOfBlock } from '@dogleg/core/prove'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Stepper } from './stepper.ts'

const [machine] = demoReference.machines as [Machine]
const [profile] = demoReference.profiles
if (!profile) throw new Error('the demo has no profile')
const proofOf = (text: string) =>
  prove({
    text,
    machine,
    profile,
    unit: 'inch',
    frame: 'G54',
    offsets: [{ name: 'G54', axes: { X: -18, Y: -6, Z: -15 } }],
    lengths: [],
    tools: demoReference.tools,
    layout: housingLayout,
  })
const proof = proofOf(housingProgram)
const { motion } = proof.program

/** Frames that come when the test says. */
let frames: FrameRequestCallback[] = []
const frameAt = (ms: number) => {
  const due = frames
  frames = []
  for (const call of due) call(ms)
}
beforeEach(() => {
  frames = []
  vi.stubGlobal('requestAnimationFrame', (call: FrameRequestCallback) => frames.push(call))
  vi.stubGlobal('cancelAnimationFrame', () => {
    frames = []
  })
})

describe('stepping', () => {
  it('stands before the block that runs next, the tip where the one before left it', () => {
    const stepper = new Stepper()
    stepper.load(proof)
    for (const block of [0, 1, 9, motion.blocks]) {
      stepper.go(block)
      const { row, tip } = stepper.get()
      expect(row).toBe(rowsOfBlock(motion, block).from)
      expect(tip).toEqual(endOf(motion, row - 1))
    }
  })

  it('stays within the program, also within a shorter one that comes after', () => {
    const stepper = new Stepper()
    stepper.load(proof)
    stepper.go(-3)
    expect(stepper.get().block).toBe(0)
    stepper.go(1e9)
    expect(stepper.get().block).toBe(motion.blocks)
    const short = proofOf('G20 G90\nG0 X1.\nM30')
    stepper.load(short)
    expect(stepper.get().block).toBe(short.program.motion.blocks)
    stepper.load(undefined)
    expect(stepper.get().tip).toEqual([0, 0, 0])
  })

  it('keeps the speed that is chosen: it starts nothing, and changes what plays already', () => {
    const stepper = new Stepper()
    stepper.load(proof)
    stepper.go(3)
    stepper.setPace(16)
    expect(stepper.get()).toMatchObject({ block: 3, speed: 0, pace: 16 })
    expect(frames).toEqual([])
    stepper.play(stepper.get().pace)
    frameAt(0)
    expect(stepper.get()).toMatchObject({ speed: 16, pace: 16 })
    stepper.setPace(64)
    frameAt(10)
    expect(stepper.get()).toMatchObject({ speed: 64, pace: 64 })
    stepper.go(0)
    expect(stepper.get()).toMatchObject({ block: 0, speed: 0, pace: 64 })
  })

  it('tells only those who still listen', () => {
    const stepper = new Stepper()
    const told = vi.fn()
    const leave = stepper.subscribe(told)
    stepper.load(proof)
    leave()
    stepper.go(3)
    expect(told).toHaveBeenCalledTimes(1)
  })
})

describe('playing', () => {
  it('is so many times faster than the machine, block after block, and ends at the end', () => {
    const stepper = new Stepper()
    stepper.load(proof)
    stepper.play(4)
    frameAt(0)
    let before = 0
    const total = proof.time.total
    for (let seconds = 0.25; 4 * seconds < total; seconds += 0.25) {
      frameAt(1000 * seconds)
      const { block, row, speed } = stepper.get()
      expect(speed).toBe(4)
      expect(block).toBeGreaterThanOrEqual(before)
      before = block
      // The rows up to this one have taken what has passed, to within this one.
      const passed = proof.time.rows.slice(0, row).reduce((sum, each) => sum + each, 0)
      expect(passed).toBeLessThanOrEqual(4 * seconds + 1e-3)
      expect(passed + (proof.time.rows[row] as number)).toBeGreaterThanOrEqual(4 * seconds - 1e-3)
    }
    frameAt(1000 * total)
    expect(stepper.get()).toMatchObject({ block: motion.blocks, speed: 0 })
    expect(frames).toEqual([])
  })

  it('is held by a step, and by its own key, where it is', () => {
    const stepper = new Stepper()
    stepper.load(proof)
    stepper.play(16)
    frameAt(0)
    frameAt(500)
    const { block } = stepper.get()
    expect(block).toBeGreaterThan(0)
    stepper.play(0)
    expect(stepper.get()).toMatchObject({ block, speed: 0 })
    expect(frames).toEqual([])
    stepper.play(16)
    stepper.go(2)
    expect(stepper.get()).toMatchObject({ block: 2, speed: 0 })
  })
})

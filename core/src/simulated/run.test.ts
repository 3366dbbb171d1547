import { describe, expect, it } from 'vitest'
import { toolIn } from '../machine/index.ts'
import { prove } from '../prove/index.ts'
import { act, advance, switchOn } from './act.ts'
import type { SimulatedMill } from './contact.ts'
import { EXERCISES } from './exercises.ts'
import { handOn } from './hand.ts'
import { skimAndFace } from './hand-setting.ts'
import { practiceTools } from './practice-tools.ts'
import { planRun } from './run.ts'
import type { SimulatedState } from './state.ts'
import { millOf, UNITS } from './testing.ts'
import { trueBodies } from './true-path.ts'
import { viewOf } from './view.ts'
import { latheWorld, partZeroOf, practiceMachine } from './world.ts'

/** A mill with everything keyed in as it truly is. */
function setUp(seed: number): SimulatedMill {
  const simulated = millOf(seed, 'inch', { squared: true, block: { x: 4, y: 2, z: 1.5 } })
  const { X, Y, Z } = partZeroOf(simulated.world, simulated.vise.frame)
  return {
    ...simulated,
    offsets: { G54: { X, Y, Z } },
    lengths: Object.fromEntries(simulated.world.tools.map(({ shape, length }) => [shape.number, length])),
  }
}

const DRILL =
  'G20 G90 G17 G40 G49 G80\nG53 G0 Z0.\nT3 M6\nG0 G54 X1. Y1.\nS2000 M3\nG43 H3 Z1.\nZ.1\nG1 Z-.5 F10.\nG0 Z1.\nM5\nG53 G0 Z0.\nM30'

/** Runs a program to its end, or to where it stops. */
const runAll = (simulated: SimulatedState, text: string): SimulatedState => {
  let now = act(act(act(simulated, { do: 'load', text }), { do: 'single', on: false }), {
    do: 'override',
    rapid: 100,
  })
  now = act(now, { do: 'start' })
  for (let n = 0; n < 20 && now.run?.phase === 'running'; n++) now = advance(now, 1000)
  return now
}

describe('a program that runs on the simulated machine', () => {
  it('ends without harm where all is keyed in as it is', () => {
    const ends = runAll(setUp(3), DRILL)
    expect([ends.alarm, ends.run?.phase, ends.tally.collisions]).toEqual([null, 'done', 0])
    expect(ends.at).toMatchObject({ Z: 0 })
  })

  it('stops in single block after each, shows the distance to go before, and takes its time by the overrides', () => {
    let now: SimulatedState = act(setUp(3), { do: 'load', text: DRILL })
    const lengths: number[] = []
    for (let press = 0; press < 40 && now.run?.phase !== 'done'; press++) {
      now = advance(act(now, { do: 'start' }), 600)
      expect(now.run?.phase).toMatch(/stopped|done/)
      lengths.push(viewOf(now).run?.line ?? 0)
    }
    expect(now.run?.phase).toBe('done')
    // Blocks that do nothing that is seen are stepped as well; no line is passed over.
    expect(Math.max(...lengths)).toBe(12)

    const before = (line: number) => {
      let at: SimulatedState = act(setUp(3), { do: 'load', text: DRILL })
      for (let press = 0; press < 40 && viewOf(at).run?.line !== line; press++)
        at = advance(act(at, { do: 'start' }), 600)
      return at
    }
    // G1 Z-.5 from Z.1: 0.6 to go, at 10 in/min 3.6 s (trade.md 9: distance to go before each press).
    const feeding = before(8)
    expect(viewOf(feeding).run?.toGo?.[2]).toBeCloseTo(-0.6, 9)
    const half = advance(act(act(feeding, { do: 'override', feed: 50 }), { do: 'start' }), 3.6)
    expect(viewOf(half).run?.toGo?.[2]).toBeCloseTo(-0.3, 2)
    const held = advance(act(half, { do: 'feed-hold' }), 100)
    expect(held.at).toEqual(half.at)
    const stands = advance(act(act(held, { do: 'override', feed: 0 }), { do: 'start' }), 100)
    expect(stands.at).toEqual(half.at)
    expect(act(half, { do: 'jog', axis: 'X', by: 1 }).at).toEqual(half.at)
  })

  it('goes beside its path under cutter compensation, by the radius of the cutter; one that D does not know is refused', () => {
    const simulated = setUp(3)
    const shape = simulated.world.tools.find((each) => each.shape.kind === 'mill')?.shape
    if (!shape) throw new Error('the mill has no cutter')
    const { number, diameter } = shape
    const beside = (d: number) =>
      `G20 G90 G17 G40 G49 G80\nG53 G0 Z0.\nT${number} M6\nG0 G54 X-2. Y-2.\nS2000 M3\nG43 H${number} Z1.\nG1 G42 D${d} Y-1. F50.\nX1.\nM30`
    const ends = runAll(simulated, beside(number))
    expect([ends.alarm, ends.run?.phase]).toEqual([null, 'done'])
    expect(ends.at.Y - (simulated.offsets.G54?.Y ?? 0)).toBeCloseTo(-1 - diameter / 2, 9)
    expect(runAll(simulated, beside(99)).alarm?.says).toContain('D99')
  })

  it('shows an offset that is keyed in wrong as it would show: the tip stands that far off', () => {
    const right = setUp(3)
    const wrong = {
      ...right,
      offsets: { G54: { ...right.offsets.G54, X: (right.offsets.G54?.X ?? 0) + 0.25 } },
    }
    const over = (simulated: SimulatedState) => {
      let now: SimulatedState = act(simulated, { do: 'load', text: DRILL })
      for (let press = 0; press < 40 && viewOf(now).run?.line !== 7; press++)
        now = advance(act(now, { do: 'start' }), 600)
      return now.at.X
    }
    expect(over(wrong) - over(right)).toBeCloseTo(0.25, 9)
  })

  it('crashes where a length is too short, as Prove foretells with the same length, and harms nothing', () => {
    const simulated = setUp(3)
    const short = { ...simulated, lengths: { ...simulated.lengths, 3: (simulated.lengths[3] ?? 0) - 1.3 } }
    const hit = runAll(short, DRILL)
    expect(hit.alarm).toMatchObject({ code: 'collision' })
    expect(hit.alarm?.says).toContain('line 6')
    // It stands where it hit, and shows what was left of the move: the tip is at the top of the part, meant to end 0.3 below.
    expect(viewOf(hit).run?.toGo?.[2]).toBeCloseTo(-0.3, 2)
    const again = runAll(act(hit, { do: 'reset' }), DRILL)
    expect(again.alarm?.says).toBe(hit.alarm?.says)

    // The same program proved with G54 lower by as much: the tip goes to the same places.
    const { machine, profile } = simulated.world
    const proof = prove({
      text: DRILL.replaceAll('Z1.', 'Z-.3').replace('Z.1\n', 'Z-1.2\n').replace('Z-.5', 'Z-1.8'),
      profile,
      machine,
      unit: 'inch',
      frame: 'G54',
      offsets: [{ name: 'G54', axes: simulated.offsets.G54 ?? {} }],
      lengths: Object.entries(simulated.lengths).map(([tool, length]) => ({ tool: Number(tool), length })),
      tools: practiceTools('mill', 'inch'),
      layout: { unit: 'inch', bodies: trueBodies(simulated) },
    })
    const foretold = proof.findings.filter(({ severity, body }) => severity === 'stop' && body !== undefined)
    expect(Math.min(...foretold.map(({ line }) => line))).toBe(6)
  })

  it('refuses with an alarm what leaves the travel or is not understood, before anything moves', () => {
    const beyond = runAll(setUp(3), DRILL.replace('X1. Y1.', 'X40. Y1.'))
    expect([beyond.alarm?.code, beyond.alarm?.says]).toEqual([
      'program',
      expect.stringContaining('X would leave its travel'),
    ])
    expect(runAll(setUp(3), 'M30').run?.phase).toBe('done')
    expect(act(setUp(3), { do: 'load', text: '%' }).run).toBeNull()
  })

  it('runs a probe call against the true part, and gives its alarm where it touches nothing', () => {
    const simulated = setUp(3)
    const machine = practiceMachine('mill', 'inch')
    const shape = { ...practiceTools('mill', 'inch')[0], number: 20, kind: 'probe', name: 'Probe' }
    const world = {
      ...simulated.world,
      tools: [...simulated.world.tools, { shape: shape as never, length: 6 }],
    }
    const probing: SimulatedState = { ...simulated, world, lengths: { ...simulated.lengths, 20: 6 } }
    const text = (x: number) =>
      `G20 G90 G17 G40 G49 G80\nT20 M6\nG0 G54 X${x}. Y1.\nG43 H20 Z1.\nG65 P9832\nG65 P9810 Z-.3 F100.\nG65 P9811 X0. Q.2\nG65 P9810 Z1. F100.\nG65 P9833\nM30`
    expect(machine.probe?.tool).toBe(20)
    expect(runAll(probing, text(-1)).alarm).toBeNull()
    const shifted = {
      ...probing,
      offsets: { G54: { ...probing.offsets.G54, X: (probing.offsets.G54?.X ?? 0) - 0.6 } },
    }
    expect(runAll(shifted, text(-1)).alarm?.code).toBe('program')
  })

  it('takes a tool whose shape is in the other unit for what it is, and no program without an end', () => {
    const inch = practiceTools('mill', 'inch').filter(({ number }) => number === 3)
    const mm = inch.map((tool) => ({ ...toolIn(tool, 'mm'), unit: 'mm' as const }))
    const hit = (tools: typeof inch) => {
      const simulated = millOf(3, 'inch', { squared: true, tools })
      const { X, Y, Z } = partZeroOf(simulated.world, simulated.vise.frame)
      // Beside the part by a little more than the drill is thick: nothing; by a little less: the part.
      return [0.105, 0.095].map((off) => {
        const { hits } = planRun(
          {
            ...simulated,
            offsets: { G54: { X: X - off, Y, Z } },
            lengths: { 3: simulated.world.tools[0]?.length ?? 0 },
          },
          'G20 G90 G54\nT3 M6\nG0 X0. Y1.\nG43 H3 Z1.\nG0 Z-.3\nM30',
        )
        return hits.size > 0
      })
    }
    expect(hit(inch)).toEqual([false, true])
    expect(hit(mm)).toEqual([false, true])
    const endless = runAll(setUp(3), 'G20 G90\nN1 G4 P1\nGOTO 1')
    expect([endless.plan?.motion.blocks ?? 0, 60_010].sort((a, b) => a - b)[1]).toBe(60_010)
  })

  it('has just one first collision in every program with a clamp, whatever the seed', () => {
    const exercise = EXERCISES.find(({ id }) => id === 'spot-clamp')
    for (const unit of UNITS)
      for (let seed = 1; seed <= 25; seed++) {
        const simulated = exercise?.start(seed, unit)
        const { text = '' } = exercise?.task(seed, unit) ?? {}
        if (!simulated) throw new Error('no exercise')
        const { hits, motion } = planRun(simulated, text)
        const row = Math.min(...hits.keys())
        const line = text.split('\n')[(motion.line[row] as number) - 1]
        expect(line).toMatch(/^(G0 )?X/)
        expect(runAll(simulated, text).alarm?.says).toMatch(/cutter of T3 met the clamp/)
      }
  })
})

describe('a lathe', () => {
  it('runs a program that calls no tool before its first move, and tells where it is', () => {
    const keyed = act(act(lathe(4), { do: 'key-offset', offset: 'T1', axis: 'X', value: -14 }), {
      do: 'key-offset',
      offset: 'T1',
      axis: 'Z',
      value: -16,
    })
    const ends = runAll(keyed, 'G20 G90\nG53 G0 Z-1.\nT101\nG0 X3.\nG28 U0. W0.\nM30')
    expect([ends.alarm, ends.run?.phase]).toEqual([null, 'done'])
    expect(Object.values(ends.at).every(Number.isFinite)).toBe(true)
  })

  const lathe = (seed: number) =>
    switchOn(
      latheWorld(seed, { machine: practiceMachine('lathe', 'inch'), tools: practiceTools('lathe', 'inch') }),
    )

  it('gives the geometry of a tool by a skim and a face, within half a thousandth', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const hand = handOn(lathe(seed))
      const { X, measured, Z } = skimAndFace(hand, 1)
      const geometry = hand.simulated.world.tools[0]?.geometry
      // trade.md 4: X geometry = machine X - diameter, Z = machine Z at the face; repeatability 0.0005 in on diameter.
      expect(Math.abs(X - measured - (geometry?.X ?? 0))).toBeLessThan(0.0005)
      expect(Math.abs(Z - (geometry?.Z ?? 0) - (hand.simulated.bar?.face ?? 0))).toBeLessThan(0.0005)
    }
  })

  it('hits the bar with the spindle standing, and the chuck where it goes too far', () => {
    const simulated = act(lathe(4), { do: 'mount', what: 'tool', tool: 1 })
    const { bar } = viewOf(simulated)
    const beside = act(simulated, {
      do: 'jog',
      axis: 'X',
      by: (bar?.diameter ?? 0) - 0.02 - (bar?.tip?.X ?? 0),
    })
    expect(act(beside, { do: 'jog', axis: 'Z', by: -23 }).alarm?.says).toContain('spindle standing')
    const turning = act(beside, { do: 'spindle', rpm: 800 })
    expect(act(turning, { do: 'jog', axis: 'Z', by: -23 }).alarm?.says).toContain('chuck')
    const deep = act(turning, { do: 'jog', axis: 'X', by: -0.5 })
    expect(act(deep, { do: 'jog', axis: 'Z', by: -23 }).alarm?.says).toContain('too deep')
    const reaching = act(turning, { do: 'measure' })
    expect(reaching.alarm?.code).toBe('spindle')
    // Nothing was hit: the tool is still at work, and where it was.
    const calm = act(reaching, { do: 'reset' })
    expect([calm.alarm, calm.mounted, calm.at]).toEqual([null, turning.mounted, turning.at])
  })
})

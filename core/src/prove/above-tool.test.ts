import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { machineOf } from '../code/testing.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine, ToolShape } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import { aboveTool } from './above-tool.ts'
import { type Body, layoutIn, solidsBeside } from './body.ts'
import { prove } from './prove.ts'
import { placeAt, sweep } from './sweep.ts'
import type { FlatPart } from './tool-parts.ts'

const [compact] = BUILT_IN_PROFILES as [Profile]
const mill = machineOf('mill')
const lathe = machineOf('lathe')

const shape = (number: number, more: Partial<ToolShape>): ToolShape => ({
  ...(demoReference.tools[0] as ToolShape),
  kind: 'mill',
  pitch: null,
  number,
  diameter: 0.5,
  flute: 1,
  stickOut: 2,
  holderDiameter: 1.75,
  holderLength: 2,
  ...more,
})
const box = (role: Body['role'], at: [number, number, number], size: [number, number, number]): Body => ({
  id: role,
  name: role,
  role,
  shape: 'box',
  at: { x: at[0], y: at[1], z: at[2] },
  size: { x: size[0], y: size[1], z: size[2] },
})
const part = box('part', [0, -4, -1], [6, 4, 1])

const proofOf = (
  machine: Machine,
  text: string,
  bodies: Body[],
  tools: ToolShape[],
  lengths: { tool: number; length: number }[] = [],
) =>
  prove({
    text,
    profile: compact,
    machine,
    unit: 'inch',
    frame: machine.kind === 'mill' ? 'G54' : (tools[0] as ToolShape).number > 0 ? 'G54' : '',
    offsets: [
      { name: 'G54', axes: machine.kind === 'mill' ? { X: -20, Y: -10, Z: -20 } : { X: 0, Z: -15 } },
      ...tools.map(({ number }) => ({ name: `T${number}`, axes: { X: -20, Z: -5 } })),
    ],
    lengths,
    tools,
    layout: { unit: 'inch', bodies },
  })

describe('what is above the holder on a mill', () => {
  /** Down into a pocket, and along it; a stop stands a good inch beside the tool. */
  const TEXT = 'G20 G90 G54\nT1 M6\nS3000 M3\nG43 H1\nG0 X1. Y-2.\nZ.1\nG1 Z-.5 F20.\nX3.\nG0 Z5.\nM30'
  const stop = box('stop', [-1.3, -2.5, -1], [1, 1, 6])
  const tool = shape(1, {})
  const lengths = [{ tool: 1, length: 4 }]
  const codes = (proof: ReturnType<typeof proofOf>) =>
    proof.findings
      .filter(({ severity }) => severity !== 'note')
      .map(({ severity, code, says }) => `${severity} ${code} ${says}`)

  it('a 6 in stop beside the tool goes into the nose: it was called good', () => {
    // The holder is 0.875 wide to one side and clears; the nose, 1.5 to one side, is 4 above the tip: 3.5 over the part.
    expect(codes(proofOf(mill, TEXT, [part, stop], [tool], lengths)).slice(0, 2)).toEqual([
      'stop rapid-hits Rapid: the spindle nose goes through stop.',
      'stop feed-hits At feed the spindle nose goes into stop.',
    ])
  })

  it('a measured length counts before the one that is described; a longer tool keeps the nose clear', () => {
    expect(codes(proofOf(mill, TEXT, [part, stop], [tool], [{ tool: 1, length: 7 }]))).toEqual([])
    // Against a master tool lengths say nothing of the gauge line: the tool as it is described does.
    const master = { ...mill, toolLengths: 'master-tool' as const }
    expect(
      codes(proofOf(master, TEXT, [part, stop], [tool], [{ tool: 1, length: 7 }])).length,
    ).toBeGreaterThan(0)
  })

  it('the head goes into what stands farther off, where it is high enough for it', () => {
    // 4 of tool and 2 of nose: the head begins 5.5 over the part, 5 to the left of X1.
    const far = box('stop', [-3.9, -2.5, -1], [1, 1, 6.4])
    expect(codes(proofOf(mill, TEXT, [part, far], [tool], lengths))).toEqual([])
    const higher = { ...far, size: { x: 1, y: 1, z: 6.6 } } as Body
    expect(codes(proofOf(mill, TEXT, [part, higher], [tool], lengths))).toContain(
      'stop feed-hits At feed the head goes into stop.',
    )
  })

  it('is taken as usual where the page does not say, and says so: a look, and a note in any case', () => {
    const unknown = { ...mill, head: null }
    const { findings, verdict } = proofOf(unknown, TEXT, [part, stop], [tool], lengths)
    expect(findings.map(({ severity, code }) => `${severity} ${code}`)).toEqual(
      expect.arrayContaining(['look above-may-hit', 'note head-usual']),
    )
    expect(verdict).not.toBe('stop')
    const low = proofOf(unknown, TEXT, [part], [tool], lengths).findings
    expect(low.map(({ code }) => code)).toContain('head-usual')
    expect(low.every(({ severity }) => severity === 'note')).toBe(true)
  })

  it('is the same in the other unit', () => {
    const above = (unit: 'inch' | 'mm') =>
      aboveTool(
        { machine: mill, unit, tools: new Map(), lengths: new Map([[1, convertLength(4, 'inch', unit)]]) },
        1,
      )
    const [inch, mm] = [above('inch').parts[0], above('mm').parts[0]]
    if (inch?.form !== 'round' || mm?.form !== 'round') throw new Error('the nose is round')
    expect(mm.radius).toBeCloseTo(inch.radius * 25.4, 9)
    expect(mm.from).toBeCloseTo(101.6, 9)
  })

  it('goes into a clamp on the part at no other height than its own', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 99 }), (tenths) => {
        const high = tenths / 10
        const post = box('clamp', [-0.6, -2.2, 0], [0.4, 0.4, high])
        const found = codes(proofOf(mill, TEXT, [post], [tool], lengths))
        // 1.2 to 3.6 off the axis: only the nose (1.5) and the head (5) reach it, from 3.5 up.
        expect(found.length > 0).toBe(high > 3.5)
      }),
      depth(30, 200),
    )
  })
})

describe('what is in the turret of a lathe', () => {
  const turning = shape(3, {
    kind: 'turning',
    diameter: 0.2,
    flute: 0.3,
    stickOut: 1.2,
    holderDiameter: 1,
    holderLength: 2,
  })
  const bar = shape(4, {
    kind: 'turning',
    diameter: 0.2,
    flute: 0.1,
    stickOut: 5,
    holderDiameter: 1.5,
    holderLength: 2,
    onLathe: { side: 'inside', corner: 'low', point: 'corner', bar: 1 },
  })
  const chuck: Body = {
    id: 'chuck',
    name: 'chuck',
    role: 'chuck',
    shape: 'cylinder',
    axis: 'Z',
    at: { x: 0, y: 0, z: -8 },
    diameter: 11,
    length: 4,
  }
  const bodies: Body[] = [
    chuck,
    { ...chuck, id: 'bar', name: 'part', role: 'part', at: { x: 0, y: 0, z: -4 }, diameter: 2, length: 4 },
  ]
  const TEXT = 'G20 G90 G54\nT303\nG97 S1000 M3\nG0 Z.1\nX2.1\nG99 G1 X1.9 F.01\nZ-3.\nG0 X6.\nZ5.\nM30'
  const hits = (machine: Machine, tools: ToolShape[]) =>
    proofOf(machine, TEXT, bodies, tools).findings.filter(({ severity }) => severity === 'stop')

  it('a boring bar in the next station goes into the chuck while the tool at work turns near it', () => {
    // The turret's axis is 9.2 from the insert's point, the bar on a circle of 6 about it, 30 degrees on: 4.0 farther
    // from the centre line than the point and 3 beside it, half an inch thick to each side. At X1.9 that is 4.95 and 3:
    // 5.8 from the centre, its near side 5.2, in a chuck of 5.5. It reaches 7 past the turret's face.
    const found = hits(lathe, [turning, bar])
    expect(found.map(({ says }) => says).join()).toContain('T4 in the turret')
  })

  it('in the station across it does not; nor without it', () => {
    expect(hits(lathe, [turning, { ...bar, number: 9 }])).toEqual([])
    expect(hits(lathe, [turning])).toEqual([])
  })

  it('is not looked at where the page does not say it, and that is said', () => {
    const { findings } = proofOf({ ...lathe, turret: null }, TEXT, bodies, [turning, bar])
    expect(findings.map(({ severity, code }) => `${severity} ${code}`)).toContain('note turret-unknown')
  })

  it('a tool in another station is where turning it about the axis puts it: met where its section meets the chuck', () => {
    // Independently: points of the bar turned in the plane across the spindle, each asked whether it is in the round.
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 11 }),
        fc.integer({ min: 0, max: 80 }),
        fc.integer({ min: 5, max: 60 }),
        (station, away, size) => {
          const [x, diameter] = [away / 10, size / 5]
          const tools = new Map([
            [3, turning],
            [4, { ...bar, number: ((3 + station - 1) % 12) + 1 }],
          ])
          const { parts } = aboveTool({ machine: lathe, unit: 'inch', tools, lengths: new Map() }, 3)
          const other = parts.filter((each) => each.name === 'station') as FlatPart[]
          const disc = parts.find((each) => each.name === 'turret') as FlatPart
          const axis = x + (disc.x[0] + disc.x[1]) / 2
          const angle = (station * 2 * Math.PI) / 12
          // The middle line of the bar: on a circle of the turret's radius.
          const [cx, cy] = [axis - 6 * Math.cos(angle), 6 * Math.sin(angle)]
          const round: Body = { ...chuck, diameter, at: { x: 0, y: 0, z: -50 }, length: 100 }
          const met = other.some((piece) =>
            solidsBeside(round, piece.beside ?? 0).some(
              (solid) => sweep(piece, placeAt([x, 0, 0]), placeAt([x, 0, -0.001]), solid) <= 1,
            ),
          )
          // What the bar's middle line is in must be met; what is farther than its own width off must not.
          const off = Math.hypot(cx, cy) - diameter / 2
          if (off < -1e-6) expect(met).toBe(true)
          if (off > 2.5) expect(met).toBe(false)
        },
      ),
      depth(200, 2000),
    )
  })
})

describe('a layout in the other unit', () => {
  it('keeps what it is', () => {
    expect(layoutIn({ unit: 'inch', bodies: [part] }, 'mm').bodies[0]?.at).toEqual({
      x: 0,
      y: -101.6,
      z: -25.4,
    })
  })
})

import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import {
  demoReference,
  housingLayout,
  housingProgram,
  housingSlips,
  rebateProgram,
  ringProgram,
  taperProgram,
  tubeLayout,
  turnedProgram,
  withSlip,
} from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { endOf } from '../program/index.ts'
import { adviseRun } from './advice.ts'
import { withEdits } from './edit.ts'
import { type ProveCase, prove } from './prove.ts'

const [machine] = demoReference.machines as [Machine]
const profile = demoReference.profiles.find(({ id }) => id === machine.profileId) ?? demoReference.profiles[0]

const setup = (text: string, more: Partial<ProveCase> = {}): ProveCase => {
  if (!profile) throw new Error('the demo has no profile')
  return {
    text,
    machine,
    profile,
    unit: 'inch',
    frame: 'G54',
    offsets: [{ name: 'G54', axes: { X: -18.351, Y: -6.1205, Z: -15.346 } }],
    lengths: [
      { tool: 3, length: 5.0265 },
      { tool: 7, length: 4.512 },
      { tool: 12, length: 3.125 },
    ],
    tools: demoReference.tools.filter(({ machineId }) => machineId === 'mill-1'),
    layout: housingLayout,
    ...more,
  }
}
const codes = (of: ProveCase) => prove(of).findings.map(({ code }) => code)

describe('a program in its setup', () => {
  it('that is good has nothing said of it but that its comments are', () => {
    const { findings, verdict, time, approaches } = prove(setup(housingProgram))
    expect(findings).toEqual([])
    expect(verdict).toBe('good')
    expect(time.total).toBeGreaterThan(30)
    expect(approaches.map(({ tool }) => tool)).toEqual([7, 3, 12])
  })

  it('a rebate is cut beside its edge, by the radius of the cutter and the wear that was gauged', () => {
    const { findings, program } = prove(setup(rebateProgram))
    expect(findings.map(({ severity, code }) => `${severity} ${code}`)).toEqual([
      'look loads-offset',
      'note compensation-by',
    ])
    const { motion, written } = program
    // Along X0.4 the middle of the cutter goes 0.249 to the left: half of 0.5 - 0.002.
    const along = Array.from(motion.line, (line, row) =>
      line === 16 ? endOf(motion, row) : undefined,
    ).filter(Boolean)
    expect(along[0]?.[0]).toBeCloseTo(0.151, 9)
    expect(written).toBeDefined()
  })

  it('may count its holes in a loop and cut its levels by a subprogram', () => {
    const { findings, program } = prove(setup(ringProgram))
    expect(findings).toEqual([])
    const { motion } = program
    // Twelve bottoms at Z -0.4, each 0.9 from the middle; two levels.
    const ends = Array.from({ length: motion.count }, (_, row) => endOf(motion, row))
    const bottoms = ends.filter(([, , z]) => Math.abs(z + 0.4) < 1e-9)
    expect(bottoms).toHaveLength(12)
    for (const [x, y] of bottoms) expect(Math.hypot(x - 1.2, y + 1.5)).toBeCloseTo(0.9, 9)
    expect(ends.filter(([x, y, z]) => x === 0.05 && y === -0.9 && z < 0).map(([, , z]) => z)).toEqual([
      expect.closeTo(-0.1, 9),
      expect.closeTo(-0.2, 9),
    ])
  })

  it('is tapped without M3 where rigid tapping is announced: the cycle starts the spindle; G80 ends that', () => {
    const twoLine = BUILT_IN_PROFILES.find(({ id }) => id === 'two-line') as Profile
    const tapped = (announce: string) =>
      codes(
        setup(
          `G20 G90 G17 G40 G49 G80 G94\nT12 M6\nG54 G0 X.75 Y-.6\n${announce}\nG43 H12 Z.5\nG98 G84 X.75 Y-.6 Z-.5 R.1 F30.\nG80\nG91 G28 Z0.\nG90\nM30`,
          { profile: twoLine },
        ),
      ).filter((code) => code === 'spindle-stopped' || code === 'tap-floating')
    expect(tapped('M29 S600')).toEqual([])
    expect(tapped('S600 M3')).toEqual(['tap-floating'])
    expect(tapped('S600')).toEqual(['spindle-stopped', 'tap-floating'])
    expect(tapped('M29 S600\nG80')).toEqual(['spindle-stopped', 'tap-floating'])
  })

  it.each(housingSlips.map((slip) => [slip.code, slip.title, slip] as const))('%s: %s', (code, _, slip) => {
    const text = withSlip(slip)
    expect(text).not.toBe(housingProgram)
    expect(codes(setup(text))).toContain(code)
  })

  it.each(housingSlips.map((slip) => [slip.code, slip] as const))(
    '%s: where a mending is offered, it mends just that, and brings nothing new',
    (code, slip) => {
      const text = withSlip(slip)
      const before = prove(setup(text)).findings
      const mending = before.find((each) => each.code === code)?.mending
      if (!mending) return
      const after = codes(setup(withEdits(text, mending.edits)))
      expect(after).not.toContain(code)
      expect(after.filter((each) => !before.some(({ code: was }) => was === each))).toEqual([])
    },
  )

  it('mends by itself at least these', () => {
    const mended = housingSlips.filter(({ code, ...slip }) =>
      prove(setup(withSlip({ code, ...slip }))).findings.some((each) => each.code === code && each.mending),
    )
    expect(mended.map(({ code }) => code)).toEqual(
      expect.arrayContaining([
        'rapid-hits',
        'return-low',
        'length-missing',
        'length-wrong',
        'rotation-left',
        'compensation-left',
        'distance-left',
        'missing-point',
        'tap-pitch',
      ]),
    )
  })

  it('stale offsets and lengths say stop', () => {
    const stale = 'taken before the vise was moved'
    const offsets = [{ name: 'G54', axes: { X: -18.351, Y: -6.1205, Z: -15.346 }, stale }]
    expect(codes(setup(housingProgram, { offsets }))).toEqual(['offset-stale'])
    const lengths = setup('').lengths.map((each) => (each.tool === 7 ? { ...each, stale } : each))
    expect(codes(setup(housingProgram, { lengths }))).toEqual(['length-stale'])
  })

  it('with nothing placed says that no crash can be found', () => {
    expect(codes(setup(housingProgram, { layout: { unit: 'inch', bodies: [] } }))).toEqual(['no-bodies'])
  })

  it('is the same setup in mm', () => {
    const layout = {
      unit: 'inch' as const,
      bodies: housingLayout.bodies,
    }
    const offsets = [{ name: 'G54', axes: { X: -18.351 * 25.4, Y: -6.1205 * 25.4, Z: -15.346 * 25.4 } }]
    const lengths = setup('').lengths.map(({ tool, length }) => ({ tool, length: length * 25.4 }))
    const metric = (text: string) => codes(setup(text, { unit: 'mm', layout, offsets, lengths }))
    expect(metric(housingProgram)).toEqual(['unit-differs'])
    for (const slip of housingSlips.filter(({ code }) => /hits|low|plunge|tap-pitch|travel/.test(code)))
      expect(metric(withSlip(slip))).toContain(slip.code)
  })

  it('a length that is not taken goes deeper by it: into the part', () => {
    const slip = housingSlips.find(({ code }) => code === 'length-missing')
    if (slip)
      expect(codes(setup(withSlip(slip)))).toEqual(expect.arrayContaining(['length-missing', 'plunge-rapid']))
  })

  it('that hits everywhere says where it stopped looking', () => {
    const through = 'G0 Z.1\nX4. Y-1.5\nX2.\n'
    const said = (times: number) =>
      prove(setup(housingProgram.replace('(T3', `${through.repeat(times)}(T3`))).findings.filter(
        ({ code }) => code === 'hits-further',
      )
    expect(said(10)).toEqual([])
    expect(said(500)).toMatchObject([{ severity: 'look', says: expect.stringContaining('400 were found') }])
  })

  it('says where it stands and what it hits', () => {
    const slip = housingSlips.find(({ code }) => code === 'return-low')
    const [found] = slip ? prove(setup(withSlip(slip))).findings : []
    expect(found).toMatchObject({
      line: 26,
      body: 'clamp',
      says: 'Between holes the tool goes through clamp 1: the return plane is too low.',
      mending: { edits: [{ line: 24, insert: 'G98' }] },
    })
  })

  it('advises not to run what says stop', () => {
    const ready = { proved: true, allDown: true }
    const { findings } = prove(setup(housingProgram))
    expect(adviseRun(findings, ready)).toMatchObject({ rapid: 25, feed: 100 })
    expect(adviseRun(prove(setup(housingProgram.replace('G43 H7', 'G43 H3'))).findings, ready).rapid).toBe(0)
  })

  it('advises one number at a time: 5 % until the last tool has come down once (common practice)', () => {
    const { findings } = prove(setup(housingProgram))
    const early = adviseRun(findings, { proved: true, allDown: false })
    expect(early.rapid).toBe(5)
    // No other percentage stands beside it.
    expect(early.says.join(' ')).not.toContain('%')
    expect(adviseRun(findings, { proved: false, allDown: true }).rapid).toBe(5)
  })

  it('can be stopped, and says how far it is', () => {
    const shares: number[] = []
    const { cancelled } = prove(
      setup(housingProgram + 'X1.\n'.repeat(20_000)),
      (share) => shares.push(share) > 9,
    )
    expect(cancelled).toBe(true)
  })
})

describe('on a lathe', () => {
  const [, lathe] = demoReference.machines as [Machine, Machine]
  const turningCase = (text: string) =>
    setup(text, {
      machine: lathe,
      offsets: [
        { name: 'T1', axes: { X: -10, Z: -12 } },
        { name: 'T4', axes: { X: -10, Z: -12 } },
      ],
      lengths: [],
      frame: 'G54',
      tools: demoReference.tools
        .filter(({ id }) => id === 'mill-1-t3')
        .flatMap((tool) =>
          [1, 4].map((number) => ({
            ...tool,
            number,
            kind: 'grooving' as const,
            diameter: 0.125,
            flute: 0.5,
            stickOut: 1,
            holderDiameter: 1,
          })),
        ),
      layout: {
        unit: 'inch',
        bodies: [
          {
            id: 'bar',
            name: 'bar',
            role: 'part',
            shape: 'cylinder',
            axis: 'Z',
            at: { x: 0, y: 0, z: -3 },
            diameter: 1,
            length: 3,
          },
          {
            id: 'chuck',
            name: 'chuck',
            role: 'chuck',
            shape: 'cylinder',
            axis: 'Z',
            at: { x: 0, y: 0, z: -5 },
            diameter: 5,
            length: 2,
          },
        ],
      },
    })
  const turning = (text: string) => codes(turningCase(text))
  const head = 'G20 G99\nT0101\nG50 S2000\nG97 S500 M3\n'
  it('a shoulder is roughed, finished and grooved', () => {
    const { findings, program } = prove(turningCase(turnedProgram))
    expect(findings).toEqual([])
    const { motion } = program
    const ends = Array.from({ length: motion.count }, (_, row) => endOf(motion, row))
    // The groove's last plunge stands at Z -0.52 and radius 0.285; nothing goes behind the shoulder's 1 in.
    expect(ends.some(([x, , z]) => Math.abs(x - 0.285) < 1e-9 && Math.abs(z + 0.52) < 1e-9)).toBe(true)
    expect(Math.min(...ends.map(([, , z]) => z))).toBeCloseTo(-1, 9)
  })
  it('a groove in front of the chuck is good; into the chuck, or into the bar at rapid, is not', () => {
    expect(turning(`${head}G0 X1.1 Z-.5\nG1 X.8 F.004\nG0 X1.1\nG28 U0. W0.\nM30`)).toEqual([])
    expect(turning(`${head}G0 X1.1 Z-.5\nG0 X.8\nG0 X1.1\nG28 U0. W0.\nM30`)).toEqual(['plunge-rapid'])
    expect(turning(`${head}G0 X1.1 Z-3.5\nX1.2\nG28 U0. W0.\nM30`)).toContain('rapid-hits')
    // Through the groove that was cut before, no harm.
    expect(turning(`${head}G0 X1.1 Z-.5\nG1 X.8 F.004\nG0 X1.1\nX.85\nX1.1\nG28 U0. W0.\nM30`)).toEqual([])
  })
  it('a taper is finished with the nose beside it, and without G42 it is said how large it comes out', () => {
    const tools = demoReference.tools.filter(({ machineId }) => machineId === lathe.id)
    const proved = (text: string) => prove({ ...turningCase(text), tools, layout: tubeLayout }).findings
    expect(proved(taperProgram).map(({ severity, code }) => `${severity} ${code}`)).toEqual(
      ['note compensation-by', 'note turret-unknown'].filter(
        (each) => lathe.turret === null || !each.includes('turret'),
      ),
    )
    const plainly = proved(taperProgram.replace('G42 ', '').replace('G40 X1.5', 'X1.5'))
    // 0.12 out on the radius over 0.45: 14.93 deg. R (sin + cos - 1) / cos, twice: 2 x 0.03125 x 0.22391 / 0.96624.
    expect(plainly.map(({ says }) => says)).toContain(
      'Without compensation for the nose of T1, this taper comes out 0.0145 in large in diameter.',
    )
    expect(plainly.find(({ code }) => code === 'nose-arc')?.says).toContain(
      'this arc of 0.0600 in comes out with a radius of 0.0287 in',
    )
  })
  it('a T word without its geometry says stop', () => {
    expect(turning(`G20\nT0100\nG97 S500 M3\nG0 X2. Z1.\nM30`)).toContain('offset-unknown')
  })
})

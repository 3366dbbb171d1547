import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { demoReference, scaleLayout } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { cycleTime } from '../timing/index.ts'
import type { Layout } from './body.ts'
import { pathPicture } from './picture.ts'
import { prove } from './prove.ts'

const [mill] = demoReference.machines as [Machine]
const proved = (body: string, layout: Layout = scaleLayout, machine: Machine = mill, rotary?: number) =>
  prove({
    text: `G20 G90 G17 G40 G49 G80 G94\nT15 M6\nG90 G54 G0 X-0.5 Y0.\nS6000 M3\nG43 H15 Z1.\nF8.\n${body}\nG0 Z1.\nM5\nM30\n`,
    profile: demoReference.profiles[0] as (typeof demoReference.profiles)[number],
    machine,
    unit: 'inch',
    frame: 'G54',
    offsets: [{ name: 'G54', axes: { X: -15, Y: -8, Z: -12 }, ...(rotary === undefined ? {} : { rotary }) }],
    lengths: [{ tool: 15, length: 3.5 }],
    tools: demoReference.tools,
    layout,
  })
const codes = (...of: Parameters<typeof proved>) =>
  proved(...of).findings.flatMap(({ severity, code }) => (severity === 'note' ? [] : [`${severity} ${code}`]))

const WRAP = 'G107 A0. Y0. R0.6875'
const RING = 'G0 Z0.05\nG1 Z-0.006\nY2.1598\nG0 Z0.05'
const limited: Machine = {
  ...mill,
  rotary: { word: 'A', top: 'front', turns: { least: -170, greatest: 170 } },
}
const tubeOf = (z: number, diameter = 1.375): Layout => ({
  unit: 'inch',
  bodies: scaleLayout.bodies.map((body) =>
    body.shape === 'cylinder' && body.role === 'part' ? { ...body, diameter, at: { ...body.at, z } } : body,
  ),
})

describe('wrapping in the setup', () => {
  it('that begins above the centre line, ends clear and touches the part is good', () => {
    expect(codes(`${WRAP}\n${RING}\nG107\nG0 A0.`)).toEqual([])
  })
  it('goes by where the machine shows the rotary at its zero, and notes where nobody took that', () => {
    // 180 degrees of the program; from -100 on, the machine shows 80.
    const limits = (rotary?: number) => codes(`${WRAP}\n${RING}\nG107\nG0 A0.`, scaleLayout, limited, rotary)
    expect(limits(-100)).toEqual([])
    expect(limits(0)).toEqual(['stop rotary-limits'])
    const notes = (rotary?: number) =>
      proved(`${WRAP}\n${RING}\nG107\nG0 A0.`, scaleLayout, mill, rotary).findings.map(({ code }) => code)
    expect(notes()).toContain('rotary-zero-unknown')
    expect(notes(0)).not.toContain('rotary-zero-unknown')
  })
  it.each<[code: string, severity: string, wrong: string, ...more: [layout?: Layout, machine?: Machine]]>([
    ['mapping-off-centre', 'stop', `G0 Y0.5\n${WRAP}\n${RING}\nG107`],
    ['mapping-in-part', 'stop', `G0 Z0.05\nG1 Z-0.01\n${WRAP}\nY1.\nG0 Z.05\nG107`],
    ['mapping-ends-in-part', 'stop', `${WRAP}\nG0 Z.05\nG1 Z-0.01\nY.5\nG107\nG1 X-.6\nG0 Z.1`],
    ['mapping-left', 'stop', `${WRAP}\n${RING}`],
    ['mapping-radius-differs', 'look', `G107 A0. Y0. R0.8\n${RING}\nG107`],
    // Z zero in the centre, but the program takes it to be on top; and the other way round.
    ['past-centre', 'stop', `${WRAP}\nG0 Z0.05\nG1 Z-0.006\nY1.\nG0 Z1.\nG107`, tubeOf(0)],
    ['mapping-air', 'look', `${WRAP}\nG0 Z0.7\nG1 Z0.619\nY1.\nG0 Z1.\nG107`],
    ['rotary-limits', 'stop', `${WRAP}\n${RING}\nG107\nG0 A0.`, scaleLayout, limited],
    ['no-rotary', 'look', `${WRAP}\n${RING}\nG107`, scaleLayout, { ...mill, rotary: null }],
    // The holder comes down into the chuck that holds the part.
    ['rapid-hits', 'stop', `${WRAP}\nG0 X-2.4 Z0.05\nG1 Z-0.006\nY1.\nG0 Z1.\nG107`],
  ])('%s is found', (code, severity, wrong, ...more) => {
    const found = codes(wrong, ...more)
    expect(found).toContain(`${severity} ${code}`)
  })
  it('a rapid into the part at another angle is found though the part was cut at this place before it turned', () => {
    const slot = 'G0 Z0.05\nG1 Z-0.1\nX-0.8\nG0 Z0.05\n'
    const rapid = 'G0 X-0.65\nG0 Z-0.08\nG0 Z.1'
    const stops = (body: string) => codes(body).filter((each) => each.startsWith('stop'))
    expect(stops(`G0 A0.\n${slot}${rapid}`)).toEqual([])
    expect(stops(`G0 A0.\n${slot}G0 A90.\n${rapid}\nG0 A0.`).length).toBeGreaterThan(0)
  })
})

describe('the path on a part that turns', () => {
  it('lies on the cylinder, where the length round says, whichever way the axis counts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -2000, max: 2000 }),
        fc.integer({ min: 1, max: 300 }),
        fc.constantFrom('front' as const, 'back' as const),
        (around, depth, top) => {
          const machine: Machine = { ...mill, rotary: { word: 'A', top, turns: null } }
          const y = around / 1000
          const z = depth / 1000
          const { program, speeds, axis } = proved(
            `${WRAP}\nG0 Y${y.toFixed(3)}\nG1 Z-${z.toFixed(3)}\nG0 Z1.\nG107\nG0 A0.`,
            scaleLayout,
            machine,
          )
          const { feed } = pathPicture(program.motion, speeds, axis)
          const [px, py, pz] = feed.slice(-3)
          expect(px).toBeCloseTo(-0.5, 5)
          // By hand: the point at this length round, on the radius that is left, counted from the top.
          const angle = (top === 'front' ? 1 : -1) * (y / 0.6875)
          const radius = 0.6875 - z
          expect(py).toBeCloseTo(radius * Math.sin(angle), 4)
          expect((pz as number) + 0.6875).toBeCloseTo(radius * Math.cos(angle), 4)
        },
      ),
      depth(60, 600),
    )
  })
})

describe('the time of a turn at feed', () => {
  it('is that of the way over the face, but no less than the rotary needs', () => {
    const { program, speeds } = proved(
      `${WRAP}\nG0 Z.05\nG1 Z-.006\nG1 Y2.1598 F10.\nG1 Y0. F2000.\nG0 Z1.\nG107\nG0 A0.`,
    )
    const { rows } = cycleTime(program.motion, speeds)
    const at = (line: string) => {
      const found = [...program.motion.line].findIndex(
        (each, row) => each === Number(line) && program.motion.kind[row] === 1,
      )
      return rows[found] as number
    }
    // 2.1598 in at 10 in/min: 12.959 s. Back at 2000 in/min it would take 0.06 s; half a turn at 4000 degrees a minute takes 2.7.
    expect(at('10')).toBeCloseTo(12.959, 3)
    expect(at('11')).toBeCloseTo(2.7, 2)
  })
})

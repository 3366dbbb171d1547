import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { demoReference } from '../demo/index.ts'
import type { ToolShape } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { onLathe, twoLine } from '../program/testing.ts'
import { leftByNose, noseFindings } from './nose-findings.ts'

const options = onLathe({ profile: { ...twoLine, reading: { ...twoLine.reading, noPoint: 'whole' } } })
const lathe = options.machine
const [usual] = demoReference.tools.filter(({ machineId }) => machineId === 'lathe-1') as [ToolShape]
const insert = (nose: number | null, onLathe?: ToolShape['onLathe']): ToolShape => {
  const { onLathe: _, ...rest } = usual
  return { ...rest, number: 1, diameter: 0.375, nose, ...(onLathe ? { onLathe } : {}) }
}

const findings = (text: string, tool = insert(1 / 32), more = {}) =>
  noseFindings(read(`G20 T0101\nG97 S500 M3\nG98 F10.\n${text}\nM30`, { ...options, ...more }).motion, {
    machine: lathe,
    tools: [tool],
    unit: 'inch',
  }).map(({ says, line, severity, more }) => `${severity} ${line}${more ? ` +${more}` : ''}: ${says}`)

describe('what a nose leaves without compensation', () => {
  it.each([
    // R (sin t + cos t - 1), worked with the sine and cosine of a table: 0.7071 each at 45 deg, 0.5 and 0.8660 at 30.
    [45, 0.41421],
    [30, 0.36603],
    [60, 0.36603],
    [0, 0],
    [90, 0],
  ])('of a surface at %i deg to the axis %f of its radius stands', (degrees, share) => {
    const angle = (degrees * Math.PI) / 180
    expect(leftByNose(1, Math.sin(angle) + Math.cos(angle))).toBeCloseTo(share, 5)
  })

  it('a taper of 45 deg comes out large by twice that over the cosine, in diameter', () => {
    // 2 x 0.03125 x 0.41421 / 0.70711 = 0.0366
    expect(findings('G0 X1. Z.1\nG1 Z-.5\nX2. Z-1.\nX3.')).toEqual([
      'note 6: Without compensation for the nose of T1, this taper comes out 0.0366 in large in diameter.',
    ])
  })

  it('in a bore it comes out small; steeper than 45 deg it is told along Z', () => {
    const boring = insert(1 / 32, { side: 'inside', corner: 'low', point: 'corner', bar: 0.3 })
    expect(findings('G0 X2. Z.1\nG1 Z0.\nX1. Z-.5\nZ-1.', boring)).toEqual([
      'note 6: Without compensation for the nose of T1, this taper comes out 0.0366 in small in diameter.',
    ])
    // 60 deg: 0.03125 x 0.36603 / sin 60 = 0.0132.
    expect(findings('G0 X1. Z.1\nG1 Z-.5\nX2. Z-.7887\nX3.')).toEqual([
      'note 6: Without compensation for the nose of T1, this taper comes out 0.0132 in too far out along Z.',
    ])
  })

  it('a ridge comes out sharper by the nose, a fillet rounder; of many the worst is told, and how many there are', () => {
    expect(findings('G0 X1. Z0.\nG1 X1.5\nG3 X2. Z-.25 R.25\nG1 Z-1.')).toEqual([
      'note 6: Without compensation for the nose of T1, this arc of 0.2500 in comes out with a radius of 0.2188 in.',
    ])
    expect(findings('G0 X1. Z0.\nG1 Z-1.\nG2 X1.5 Z-1.25 R.25\nG1 X3.')).toEqual([
      'note 6: Without compensation for the nose of T1, this arc of 0.2500 in comes out with a radius of 0.2813 in.',
    ])
    expect(findings('G0 X1. Z0.\nG1 X1.5\nG3 X1.55 Z-.025 R.025\nG1 Z-1.')).toEqual([
      'note 6: Without compensation for the nose of T1, this arc of 0.0250 in comes out as a sharp corner.',
    ])
    expect(findings('G0 X1. Z.1\nG1 Z-.5\nX1.2 Z-1.\nX1.6 Z-1.2\nX1.8 Z-2.\nX3.')).toEqual([
      'note 7 +2: Without compensation for the nose of T1, this taper comes out 0.0366 in large in diameter.',
    ])
  })

  it('nothing is said of diameters, faces, rapids, roughing, threads, a nose that nobody entered, or under compensation', () => {
    expect(findings('G0 X1. Z.1\nG1 Z-.5\nX2.\nG0 X3. Z1.')).toEqual([])
    expect(findings('G0 X1. Z.1\nG1 Z-.5\nX2. Z-1.', insert(null))).toEqual([])
    expect(findings('G0 X1. Z.1\nG32 X1.2 Z-1. F.05')).toEqual([])
    const cycle = 'G0 X2.2 Z.1\nG71 U.1 R.05\nG71 P10 Q20 U.02 W.005 F10.\nN10 G0 X1.\nG1 Z-.5\nN20 X2. Z-1.'
    expect(findings(cycle)).toEqual([])
    expect(findings(`${cycle}\nG70 P10 Q20`)).toEqual([
      'note 9: Without compensation for the nose of T1, this taper comes out 0.0366 in large in diameter.',
    ])
    const noses = new Map([[1, { radius: 1 / 32, x: -1, z: -1 }]])
    expect(
      findings('G0 X1.4 Z.3\nG42 G1 X1. Z.1\nZ-.5\nX2. Z-1.\nG40 X3.', insert(1 / 32), { noses }),
    ).toEqual([])
  })

  it('is what compensation takes away: the tip goes so much deeper along a taper', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 85 }), fc.integer({ min: 10, max: 60 }), (degrees, nose) => {
        const angle = (degrees * Math.PI) / 180
        const radius = nose / 1000
        const [x, z] = [1 + 2 * Math.sin(angle), -0.5 - Math.cos(angle)]
        const text = `G20 T0101\nG97 S500 M3\nG98 F10.\nG0 X1.4 Z.3\nG42 G1 X1. Z.1\nZ-.5\nX${x.toFixed(7)} Z${z.toFixed(7)}\nG40 X8.\nM30`
        const noses = new Map([[1, { radius, x: -1, z: -1 }]])
        const { motion } = read(text, { ...options, noses })
        const row = [...motion.line].indexOf(7)
        const [tx, tz] = [motion.x[row] as number, motion.z[row] as number]
        // From the taper to the tip, square to it.
        const off = (tx - 0.5) * Math.cos(angle) + (tz + 0.5) * Math.sin(angle)
        expect(-off).toBeCloseTo(leftByNose(radius, Math.sin(angle) + Math.cos(angle)), 6)
      }),
      { numRuns: times(100, 1_000) },
    )
  })
})

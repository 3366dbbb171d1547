import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { alongArc, endOf, isArc } from '../program/index.ts'
import type { Body } from './body.ts'
import { pathPicture } from './picture.ts'
import { type ProveCase, prove } from './prove.ts'

const [machine] = demoReference.machines as [Machine]
const [compact] = BUILT_IN_PROFILES as [Profile]

/** A clamp before the front edge of the part: free of a half-inch cutter on the edge, in the way of one a radius before it. */
const clamp: Body = {
  id: 'c',
  name: 'clamp 1',
  role: 'clamp',
  shape: 'box',
  at: { x: 1, y: -0.45, z: -0.5 },
  size: { x: 1, y: 0.15, z: 1 },
}

const of = (text: string, more: Partial<ProveCase> = {}): ProveCase => ({
  text,
  machine,
  profile: compact,
  unit: 'inch',
  frame: 'G54',
  offsets: [{ name: 'G54', axes: { X: -18, Y: -6, Z: -15 } }],
  lengths: [{ tool: 7, length: 4.5 }],
  tools: demoReference.tools.filter(({ machineId }) => machineId === 'mill-1'),
  layout: { unit: 'inch', bodies: [clamp] },
  ...more,
})

const HEAD = 'G20 G90 G17 G40 G49 G80 G94\nT7 M6\nG54 G0 X-1. Y-1.\nS3000 M3\nG43 H7 Z1.\nG1 Z-.1 F20.\n'
const END = '\nG40 X4.5\nG0 Z1.\nG53 Z0.\nM30'
/** Along the front edge, Y 0, from left to right. */
const edge = (on: string) => `${HEAD}${on} X0. Y0.\nX4.${END}`
const said = (text: string, more?: Partial<ProveCase>) =>
  prove(of(text, more)).findings.map(({ code, severity, line }) => `${code} ${severity} ${line}`)

describe('a cutter that is led beside its path', () => {
  it('hits what stands there, and not what stands on the written path only', () => {
    const hits = (on: string) => said(edge(on)).filter((each) => each.includes('hits'))
    expect(hits('G1')).toEqual([])
    expect(hits('G1 G41 D7')).toEqual([])
    expect(hits('G1 G42 D7')).toEqual([expect.stringMatching(/ stop 8$/)])
  })

  it('says by how much, and whose radius; the radius of another tool is to be looked at, one that nobody entered a stop', () => {
    const about = (d: string, more?: Partial<ProveCase>) =>
      said(edge(`G1 G41 ${d}`), more).filter((each) => each.startsWith('compensation'))
    expect(about('D7')).toEqual(['compensation-by note 7'])
    expect(about('D3')).toEqual(['compensation-other look 7'])
    expect(about('D99')).toEqual(['compensation-radius stop 7'])
    expect(about('D7', { tools: [] })).toEqual(['compensation-radius stop 7'])
  })

  it('left on at the end is a stop, and mended by a line of its own', () => {
    const text = edge('G1 G41 D7').replace('\nG40 ', '\n')
    const finding = prove(of(text)).findings.find(({ code }) => code === 'compensation-left')
    expect(finding).toMatchObject({ severity: 'stop' })
    expect(finding?.mending?.edits[0]?.insert).toBe('G40\n')
  })

  it('is drawn with the written path beside it; without compensation there is none', () => {
    const { program, speeds } = prove(of(edge('G1 G42 D7')))
    const picture = pathPicture(program.motion, speeds, null, program.written)
    expect([...(picture.written ?? [])].map((value) => Number(value.toFixed(6)))).toEqual([
      ...[-1, -1, -0.1, 0, 0, -0.1],
      ...[0, 0, -0.1, 4, 0, -0.1],
    ])
    expect(pathPicture(program.motion, speeds).written).toBeNull()
    expect(prove(of(edge('G1'))).program.written).toBeUndefined()
  })

  it('takes as long as the way that it goes: round an outside corner by an arc a quarter of the radius more', () => {
    const profile: Profile = {
      ...compact,
      reading: { ...compact.reading, compensation: { ...compact.reading.compensation, outside: 'arc' } },
    }
    const text = `${HEAD}G1 G42 D7 X0. Y0.\nX4.\nY2.\nG40 Y3.\nG0 Z1.\nG53 Z0.\nM30`
    const { program } = prove(of(text, { profile }))
    const { motion } = program
    const row = [...motion.kind].findIndex(isArc)
    expect(endOf(motion, row).map((value) => Number(value.toFixed(9)))).toEqual([4.25, 0, -0.1])
    const [x, y] = alongArc(motion, row, 0.5)
    expect(Math.hypot(x - 4, y)).toBeCloseTo(0.25, 12)
  })
})

describe('two ways to say one thing: compensated, and written out by hand with the radius', () => {
  it.each([
    // A square pocket corner by corner, a boss with a round corner, a slot.
    ['G1 G41 D7 X1. Y.5\nX3.\nY2.\nX1.\nY.4', 'G1 X1. Y.75\nX2.75\nY1.75\nX1.25\nY.4'],
    ['G1 G42 D7 X0. Y0.\nX2.\nG3 X3. Y1. R1.\nG1 Y2.', 'G1 X0. Y-.25\nX2.\nG3 X3.25 Y1. R1.25\nG1 Y2.'],
    ['G1 G41 D7 X0. Y0.\nX2.\nG3 X3. Y1. R1.\nG1 Y2.', 'G1 X0. Y.25\nX2.\nG3 X2.75 Y1. R.75\nG1 Y2.'],
    ['G1 G41 D7 X0. Y0.\nX2.\nG2 X3. Y-1. R1.\nG1 Y-2.', 'G1 X0. Y.25\nX2.\nG2 X3.25 Y-1. R1.25\nG1 Y-2.'],
  ])('%s', (compensated, byHand) => {
    const places = (body: string) => {
      const { motion } = prove(of(`${HEAD}${body}\nG40 X-3. Y-3.\nG0 Z1.\nG53 Z0.\nM30`)).program
      return Array.from(
        { length: motion.count },
        (_, row) =>
          `${motion.kind[row]} ${endOf(motion, row)
            .map((value) => value.toFixed(9))
            .join(' ')}`,
      )
    }
    expect(places(compensated)).toEqual(places(byHand))
  })
})

import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { beforeStart } from './before-start.ts'

const [mill] = demoReference.machines as [Machine]
const lathe = demoReference.machines.find(({ kind }) => kind === 'lathe') as Machine
const of = (profile: Profile, machine = mill) => ({ profile, machine, unit: 'inch' as const })
const TEXT = '%\nO05402 (PROBE)\nG20 G90 G17\nG53 G0 Z0.\nT20 M6\nG65 P9832\nM30\n%'

describe('what stands between a program and cycle start', () => {
  it.each(BUILT_IN_PROFILES)(
    '$name: its own steps, with the number as it writes it, and the look at the end',
    (profile) => {
      const { steps } = beforeStart(TEXT, of(profile))
      const name = profile.program.digits === 5 ? 'O05402' : 'O5402'
      expect(steps.length).toBeGreaterThan(2)
      expect(steps.filter((step) => step.includes(name)).length).toBeGreaterThan(1)
      expect(steps.join()).not.toContain('{')
    },
  )
  it('of a control whose page says nothing: the look alone; a text without a number is this program', () => {
    const [compact] = BUILT_IN_PROFILES as [Profile]
    const bare = { ...compact, program: { ...compact.program, before: ' \n' } }
    expect(beforeStart('G20\nG0 X1.', of(bare)).steps).toEqual([
      'Look once more: this program stands in the display, at its top.',
    ])
  })
  it('the first move that tells: the spindle up, the turret home, or nothing where it is another', () => {
    const [compact] = BUILT_IN_PROFILES as [Profile]
    const tells = (text: string, machine = mill) => beforeStart(text, of(compact, machine)).tells
    expect(tells(TEXT)[0]).toContain('First the spindle goes up')
    expect(tells('G20 G91 G28 Z0.\nG90 G0 X1.\nM30')[0]).toContain('First the spindle goes up')
    expect(tells('G20 G28 U0. W0.\nM30', lathe)[0]).toContain('First the turret goes home')
    expect(tells('G20 G90 G54\nG0 X1. Y1.\nM30')).toEqual([])
    expect(tells('G20 G90\nG53 G0 X-1. Z0.\nM30')).toEqual([])
    expect(tells('')).toEqual([])
  })
})

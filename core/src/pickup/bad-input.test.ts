import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { readRows } from '../quantity/index.ts'
import { adviseMethod } from './choose-method.ts'
import { type PickupDraft, readDraft } from './draft.ts'
import { identify, readIdentification } from './identify.ts'
import { judgePickup } from './judge.ts'
import { pickUp } from './pick-up.ts'
import { judgeToolLength, readToolLengthDraft, toolLength } from './tool-length.ts'
import { pickupSettings } from './words.ts'

const [mill, lathe] = demoReference.machines as [Machine, Machine]
const settings = pickupSettings(mill, 'inch')

const circle = (points: string, more: Partial<PickupDraft['fields']> = {}): PickupDraft => ({
  axis: 'X',
  method: 'circle',
  choices: { side: 'bore', device: 'probe' },
  fields: { diameter: '.2362', points, drawingX: '0', drawingY: '0', ...more },
})
const middle = (fields: PickupDraft['fields'], side = 'pocket', device = 'edge-finder'): PickupDraft => ({
  axis: 'X',
  method: 'middle',
  choices: { side, device },
  fields: { diameter: '.2', drawingPosition: '0', ...fields },
})

/** What the form says, and what the judgement finds once it is understood. */
function told(draft: PickupDraft, machine = mill, last?: number) {
  const read = readDraft(draft, 'inch')
  if (!read.ok) return Object.values(read.problems).map(({ says }) => says)
  const expected = { machine, unit: 'inch', tolerance: 0.01 } as const
  const earlier =
    last === undefined ? {} : { last: { value: last, position: last, doubt: 0.0005, fresh: true } }
  return judgePickup(read.reading, pickUp(read.reading, settings), { ...expected, ...earlier }).map(
    ({ severity, code, says }) => `${severity} ${code}: ${says}`,
  )
}

describe('what cannot be a reading is said in a sentence', () => {
  it.each([
    ['one point', circle('-10 -5'), /Three touches or more/],
    ['points on a line', circle('-10 -5\n-9 -5\n-8 -5'), /lie on one line/],
    ['all points equal', circle('-10 -5\n-10 -5\n-10 -5'), /same place/],
    ['a decimal comma', circle('-10,25 -5,5\n-9 -5\n-8 -4'), /Line 1, "-10,25 -5,5".*decimal point/],
    ['a word', circle('-10 -5\n-9 abc\n-8 -4'), /Line 2/],
    ['three numbers', circle('-10 -5 -3\n-9 -5 -3\n-8 -4 -3'), /write 2 numbers/],
    [
      'a stylus larger than the pocket',
      middle({ diameter: '.5', width: '.4', low: '-10', high: '-10.1' }),
      /stop tip-larger-than-pocket: A tip of 0\.5000 in does not go into a pocket of 0\.4000 in/,
    ],
    ['a web with nothing left', middle({ low: '-10', high: '-9.9' }, 'web'), /stop no-size-left/],
    ['a sensor with a tip', middle({ low: '-10', high: '-9' }, 'web', 'sensor'), /stop tip-of-sensor/],
    [
      'a web that was a pocket',
      middle({ width: '1.000', low: '-10', high: '-9.2' }, 'web'),
      /look other-size: It measures 0\.6000 in; the drawing says 1\.0000 in/,
    ],
    [
      'three touches of a bore of another size',
      circle('-10 -5\n-9.5 -4.5\n-9 -5', { nominal: '.75' }),
      /look other-size: It measures 1\.2362 in/,
    ],
    [
      'a touch that does not fit',
      circle('-10 -5\n-9.5 -4.5\n-9 -5\n-9.5 -5.52'),
      /look out-of-form: The touches do not fit: touch \d is off/,
    ],
    [
      'touches on a small part of the circle',
      circle('-10 -5\n-9.99 -4.9\n-9.96 -4.804'),
      /look touches-bunched/,
    ],
    [
      'repeats that lie apart',
      {
        axis: 'X',
        method: 'sensor',
        choices: {},
        fields: { machinePosition: '-9.2; -9.21; -9.2', drawingPosition: '0' },
      },
      /look repeats-apart: The readings of one place lie 0\.0100 in apart/,
    ],
    [
      'an angle past a full turn',
      {
        axis: 'X',
        method: 'corner',
        choices: { device: 'probe', directionX: '+', directionY: '+' },
        fields: {
          pointsX: '-10 -4',
          pointsY: '-9 -5\n-8 -5',
          diameter: '.2',
          cornerAngle: '400',
          drawingX: '0',
          drawingY: '0',
        },
      },
      /more than a full turn/,
    ],
  ] as [string, PickupDraft, RegExp][])('%s', (_, draft, says) => {
    expect(told(draft).join(' | ')).toMatch(says)
  })

  it('a radius for a diameter on the lathe', () => {
    const skim = {
      axis: 'X',
      method: 'skimmed',
      choices: {},
      fields: { machinePosition: '-10', measured: '.625' },
    } as const
    expect(told(skim, lathe, -11.25).join()).toMatch(
      /look radius-for-diameter: 0\.6250 in looks like a radius/,
    )
    expect(told(skim, lathe, -10.625)).toEqual([])
  })
})

describe('a list that is typed or pasted', () => {
  const rows = (text: string) => {
    const read = readRows(text, 'inch', { columns: ['X', 'Y'], needs: 'Type some.', least: 1 })
    return read.ok ? read.rows.map(({ cells }) => cells.map(({ value }) => value)) : read.says
  }
  it.each([
    [
      'numbers with spaces',
      '-1.5 2\n3 4',
      [
        [-1.5, 2],
        [3, 4],
      ],
    ],
    [
      'position lines of a control',
      'N10 X-1.5 Y2. Z-3.\nX 3. Y 4.',
      [
        [-1.5, 2],
        [3, 4],
      ],
    ],
    [
      'a table with a heading in another order',
      'n,y,x\n1,2,-1.5\n2,4.0,3',
      [
        [-1.5, 2],
        [3, 4],
      ],
    ],
    [
      'semicolons and units',
      '25.4mm; 1/2\n1-1/2;0.5in',
      [
        [1, 0.5],
        [1.5, 0.5],
      ],
    ],
    ['a unit after a space', '25.4 mm 2', [[1, 2]]],
    ['nothing', ' \n', 'Type some.'],
  ])('%s', (_, text, expected) => expect(rows(text)).toEqual(expected))

  it('says the line that could be read two ways, and how many it takes', () => {
    expect(rows('1 1/2 3')).toMatch(/Line 1.*hyphen/)
    expect(rows('1,5')).toMatch(/comma a decimal point/)
    expect(rows(Array.from({ length: 501 }, () => '1 2').join('\n'))).toMatch(/501 lines; at most 500/)
  })
})

describe('which method', () => {
  it('takes the quickest that leaves half of what is allowed (common practice: an edge finder is good for a thousandth)', () => {
    const bare: Machine = { ...mill, probe: null }
    const advised = (tolerance: number, machine = bare) =>
      adviseMethod('X', machine, 'inch', tolerance)?.advised.name
    expect(advised(0.005)).toBe('edge finder')
    expect(advised(0.001)).toBe('3D sensor')
    expect(advised(0.0003)).toBe('indicator, both sides')
    expect(advised(0.0003, mill)).toBe('probe')
    expect(adviseMethod('X', bare, 'inch', 0.00005)).toMatchObject({
      says: 'No way here is good enough; an indicator, both sides comes nearest.',
    })
    expect(adviseMethod('X', lathe, 'inch', 0.001)).toBeUndefined()
  })
})

describe('tool lengths, in both conventions (common practice: the same block under both)', () => {
  const form = {
    tool: 'T3',
    machinePosition: '-9.1000',
    masterPosition: '-10.3000',
    on: 'block' as const,
  }
  const of = (masterLength: string, machine: Machine, last?: number) => {
    const read = readToolLengthDraft({ ...form, masterLength }, 'inch')
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    const answer = toolLength(read.reading, settings)
    return {
      value: answer.value,
      codes: judgeToolLength(read.reading, answer, { machine, unit: 'inch', last }).map(({ code }) => code),
    }
  }
  it('is the master and how much higher the spindle stands', () => {
    expect(of('4', mill).value).toBeCloseTo(5.2, 10)
    expect(of('0', { ...mill, toolLengths: 'master-tool' })).toMatchObject({ codes: [] })
    expect(of('0', { ...mill, toolLengths: 'master-tool' }).value).toBeCloseTo(1.2, 10)
  })
  it('is looked at where it cannot be, or differs from the last time', () => {
    expect(of('-2', mill).codes).toEqual(['tool-length-sign'])
    expect(of('4', { ...mill, toolLengths: 'master-tool' }).codes).toEqual(['master-has-length'])
    expect(of('4', mill, 5.21).codes).toEqual(['length-changed'])
    expect(of('4', mill, 5.2003).codes).toEqual([])
  })
})

describe('is it the right part, the right way round (common practice: a distance that only the right one has)', () => {
  const as = (text: string) => {
    const read = readIdentification(text, 'inch')
    if (!read.ok) throw new Error(read.says)
    const { as: what, findings } = identify(read.value, 'inch')
    return [what, ...findings.map(({ code }) => code)]
  }
  it('tells the right part from one that is turned round and from another', () => {
    expect(as('A-B 2.0004 2.000 .005 3.000\nB-C 1.0 1.0 .005')).toEqual(['right'])
    expect(as('A-B 2.9996 2.000 .005 3.000')).toEqual(['turned', 'turned-round'])
    expect(as('A-B 2.5 2.000 .005 3.000')).toEqual(['wrong', 'wrong-part'])
    expect(as('A-B 2.0 2.000 .005 2.008')).toEqual(['right', 'cannot-tell'])
  })
  it('says which line is not clear', () => {
    expect(readIdentification('A-B 2.0 2.0 .005\nB-C 1.0 1.0 0', 'inch')).toMatchObject({
      says: expect.stringMatching(/Line 2: Within how much/),
    })
    expect(readIdentification('A-B 2.0 2.0 .005\nB-C 1,0', 'inch')).toMatchObject({
      says: expect.stringMatching(/Line 2/),
    })
  })
})

import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { draftOf, isUntouched, type PickupDraft, readDraft } from './draft.ts'
import { judgePickup } from './judge.ts'
import { METHODS, methodsFor, type PickupMethod, pickupMethod } from './methods.ts'
import { pickUp, readingIn, unitIn } from './pick-up.ts'
import { pickupSettings } from './words.ts'

const [mill, lathe] = demoReference.machines as [Machine, Machine]

/** A form of each method with numbers that make sense. */
const FORMS: Record<Exclude<PickupMethod, 'from-offset' | 'centre-line'>, Omit<PickupDraft, 'method'>> = {
  'edge-finder': {
    axis: 'X',
    choices: { direction: '+' },
    fields: { diameter: '.2', machinePosition: '-9.2; -9.2002', drawingPosition: '0' },
  },
  probe: {
    axis: 'Y',
    choices: { direction: '-' },
    fields: { diameter: '.2362', machinePosition: '-9.2', drawingPosition: '-1' },
  },
  sensor: { axis: 'X', choices: {}, fields: { machinePosition: '-9.2', drawingPosition: '0' } },
  indicator: { axis: 'X', choices: {}, fields: { minusSide: '-10', plusSide: '-8', drawingPosition: '1/2' } },
  middle: {
    axis: 'Y',
    choices: { side: 'web', device: 'edge-finder' },
    fields: { diameter: '.2', width: '1.8', low: '-10', high: '-8', drawingPosition: '0' },
  },
  swept: {
    axis: 'X',
    choices: { side: 'bore' },
    fields: { machinePosition: '-9', plusDial: '.001', minusDial: '-.001', drawingPosition: '0' },
  },
  circle: {
    axis: 'X',
    choices: { side: 'boss', device: 'sensor' },
    fields: { diameter: '0', points: '-10 -5\n-9 -4\n-8 -5', drawingX: '0', drawingY: '1' },
  },
  corner: {
    axis: 'Y',
    choices: { device: 'probe', directionX: '+', directionY: '-' },
    fields: {
      pointsX: '-10 -6',
      pointsY: '-9 -5\n-6 -5',
      diameter: '.2',
      cornerAngle: '90',
      drawingX: '0',
      drawingY: '0',
    },
  },
  'tool-on-block': {
    axis: 'Z',
    choices: {},
    fields: {
      tool: 'T7',
      toolLength: '4.5',
      blockHeight: '25.4mm',
      machinePosition: '-9',
      drawingPosition: '0',
    },
  },
  'tool-on-feeler': {
    axis: 'Z',
    choices: {},
    fields: {
      tool: '7',
      toolLength: '4.5',
      blockHeight: '.002',
      machinePosition: '-9',
      drawingPosition: '0',
    },
  },
  'sensor-down': {
    axis: 'Z',
    choices: {},
    fields: { tool: '21', toolLength: '5', machinePosition: '-9', drawingPosition: '0' },
  },
  'probe-down': {
    axis: 'Z',
    choices: {},
    fields: { tool: '20', toolLength: '6', machinePosition: '-9', drawingPosition: '0' },
  },
  'probe-set': { axis: 'X', choices: {}, fields: { shown: '-9.2' } },
  skimmed: { axis: 'X', choices: {}, fields: { machinePosition: '-10.5', measured: '1.25' } },
  faced: { axis: 'Z', choices: {}, fields: { machinePosition: '-8', drawingPosition: '.02' } },
}
const METHOD_NAMES = pickupMethod.options.filter(
  (method) => method !== 'from-offset' && method !== 'centre-line',
)

describe.each(METHOD_NAMES)('%s', (method) => {
  const draft: PickupDraft = { ...FORMS[method as keyof typeof FORMS], method }
  const machine = method === 'skimmed' || method === 'faced' ? lathe : mill
  const read = readDraft(draft, 'inch')
  if (!read.ok) throw new Error(JSON.stringify(read.problems))

  it('is offered where it can be used', () => {
    expect(methodsFor(draft.axis, machine)).toContain(method)
    if (METHODS[method].probe)
      expect(methodsFor(draft.axis, { ...machine, probe: null })).not.toContain(method)
  })

  it('needs each of its fields and choices, and says so in a sentence', () => {
    const { fields, choices } = METHODS[method]
    for (const { name, optional } of fields) {
      const without = readDraft({ ...draft, fields: { ...draft.fields, [name]: '' } }, 'inch')
      if (optional || draft.fields[name] === undefined) expect(without.ok).toBe(true)
      else expect(!without.ok && without.problems[name]?.says).toMatch(/^[A-Z].*\.$/)
    }
    for (const { name } of choices) {
      const without = readDraft(
        { ...draft, choices: { ...draft.choices, [name]: undefined } } as PickupDraft,
        'inch',
      )
      expect(!without.ok && without.problems[name]?.says).toMatch(/^Say .*\.$/)
    }
  })

  it('becomes the same reading again from the form that it is shown in', () => {
    const again = readDraft(draftOf(read.reading), 'inch')
    if (!again.ok) throw new Error(JSON.stringify(again.problems))
    const value = (of: typeof read.reading) => pickUp(of, pickupSettings(machine, 'inch')).value
    expect(value(again.reading)).toBeCloseTo(value(read.reading), 12)
  })

  it('gives the same zero, doubt and judgement in mm', () => {
    const inch = pickUp(read.reading, pickupSettings(machine, 'inch'))
    const mm = pickUp(read.reading, pickupSettings(machine, 'mm'))
    expect(mm.value).toBeCloseTo(inch.value * 25.4, 8)
    // Repeatability is given in round numbers of both units: they differ by a few per cent.
    expect(mm.doubt.value / (inch.doubt.value * 25.4)).toBeGreaterThan(0.9)
    expect(mm.doubt.value / (inch.doubt.value * 25.4)).toBeLessThan(1.25)
    const judge = (unit: 'inch' | 'mm') =>
      judgePickup(read.reading, unit === 'inch' ? inch : mm, {
        machine,
        unit,
        tolerance: unit === 'inch' ? 0.01 : 0.254,
      }).map(({ code }) => code)
    expect(judge('mm')).toEqual(judge('inch'))
    expect(unitIn(readingIn(read.reading, 'mm'))).toBe('mm')
  })

  it('shows its working to the end: the last line gives the value', () => {
    const { working, value } = pickUp(read.reading, pickupSettings(machine, 'inch'))
    expect(Number(working.at(-1)?.gives)).toBeCloseTo(value, 4)
  })

  it('is untouched until something was read', () => {
    expect(isUntouched(draft)).toBe(false)
    expect(isUntouched({ ...draft, fields: { diameter: '.2', tool: '7', drawingPosition: '0' } })).toBe(true)
  })
})

import { z } from 'zod'
import { readPosition, readToolNumber } from '../pickup/index.ts'
import {
  asTyped,
  type DraftRead,
  draftRead,
  type FieldProblems,
  fixedDigits,
  type LengthUnit,
  lengthFields,
  readDegrees,
  type TypedLength,
} from '../quantity/index.ts'
import {
  type CentreReading,
  centreReading,
  type FlatReading,
  flatFaces,
  flatReading,
  MOST_DEGREES,
  rotaryDevice,
  type Sides,
} from './reading.ts'

/** What stands in the form of a flat: everything as typed, nothing promised. */
export const flatDraft = z.object({
  method: z.enum(['touches', 'level']),
  device: rotaryDevice,
  faces: flatFaces,
  turned: z.string(),
  y1: z.string(),
  z1: z.string(),
  y2: z.string(),
  z2: z.string(),
  span: z.string(),
  front: z.string(),
  back: z.string(),
  drawing: z.string(),
})
export type FlatDraft = z.infer<typeof flatDraft>
export type FlatField = Exclude<keyof FlatDraft, 'method' | 'device' | 'faces'>

/** What stands in the form of the centre line. */
export const centreDraft = z.object({
  device: rotaryDevice,
  diameter: z.string(),
  round: z.boolean(),
  across: z.string(),
  acrossWithin: z.string(),
  tool: z.string(),
  toolLength: z.string(),
  block: z.string(),
  turned: z.string(),
  front: z.string(),
  back: z.string(),
  top: z.string(),
  halfTurned: z.string(),
  halfFront: z.string(),
  halfBack: z.string(),
  halfTop: z.string(),
})
export type CentreDraft = z.infer<typeof centreDraft>
export type CentreField = Exclude<keyof CentreDraft, 'device' | 'round'>

export const startingFlat = (device: FlatDraft['device']): FlatDraft => ({
  method: 'touches',
  device,
  faces: 'up',
  turned: '',
  y1: '',
  z1: '',
  y2: '',
  z2: '',
  span: '',
  front: '0',
  back: '0',
  drawing: '0',
})

export const startingCentre = (
  device: CentreDraft['device'],
  unit: LengthUnit,
  probe: { tool: string; diameter: string } = { tool: '', diameter: '' },
): CentreDraft => ({
  device,
  diameter: probe.diameter,
  round: true,
  across: '',
  acrossWithin: unit === 'inch' ? '.0005' : '.01',
  tool: probe.tool,
  toolLength: '',
  block: '0',
  turned: '',
  front: '',
  back: '',
  top: '',
  halfTurned: '',
  halfFront: '',
  halfBack: '',
  halfTop: '',
})

/** Where each part of a reading is typed, where the two have other names. */
const FLAT_FIELD: Record<string, FlatField> = { first: 'y1', second: 'y2' }
const CENTRE_FIELD: Record<string, CentreField> = { first: 'front', half: 'halfFront', height: 'toolLength' }

/** Readers of the fields of a form, which note in `problems` what is wrong with each. */
function readers(unit: LengthUnit, problems: FieldProblems) {
  const note = (field: string, { says, empty }: { says: string; empty: boolean }) => {
    problems[field] = { says, empty }
    return undefined
  }
  return {
    length: lengthFields(unit, problems),
    position: (field: string, typed: string) => {
      const read = readPosition(typed, unit)
      return read.ok ? read.value : note(field, read)
    },
    degrees: (field: string, typed: string, needs: string) => {
      const read = readDegrees(typed, needs, MOST_DEGREES)
      return read.ok ? read.value : note(field, read)
    },
    note,
  }
}

/** What the schema has against fields that are understood, each at the field where it is typed. */
function inFields<T>(read: DraftRead<T>, fields: Record<string, string>): DraftRead<T> {
  if (read.ok) return read
  const problems: FieldProblems = {}
  for (const [path, told] of Object.entries(read.problems))
    problems[fields[path.split('.')[0] ?? ''] ?? path] ??= told
  return { ok: false, problems }
}

const AS_SHOWN = 'Type where the machine shows the rotary to stand, in degrees.'

/** Turns the form of a flat into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readFlatDraft(draft: FlatDraft, unit: LengthUnit): DraftRead<FlatReading> {
  const problems: FieldProblems = {}
  const { length, position, degrees } = readers(unit, problems)
  const turned = degrees('turned', draft.turned, AS_SHOWN)
  const parts =
    draft.method === 'touches'
      ? {
          device: draft.device,
          faces: draft.faces,
          first: { y: position('y1', draft.y1), z: position('z1', draft.z1) },
          second: { y: position('y2', draft.y2), z: position('z2', draft.z2) },
        }
      : {
          span: length('span', draft.span),
          front: length('front', draft.front),
          back: length('back', draft.back),
        }
  const drawing = degrees('drawing', draft.drawing, 'Type where the program has the rotary then; usually 0.')
  const read = flatReading.safeParse({ method: draft.method, turned, ...parts, drawing })
  return inFields(draftRead<FlatReading>(read, problems), FLAT_FIELD)
}

const isTyped = (...texts: string[]) => texts.some((text) => text.trim() !== '')

/** Turns the form of a centre line into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readCentreDraft(draft: CentreDraft, unit: LengthUnit): DraftRead<CentreReading> {
  const problems: FieldProblems = {}
  const { length, position, degrees, note } = readers(unit, problems)
  const { front, back, top, halfFront, halfBack, halfTop } = draft
  const Y = isTyped(front, back, halfFront, halfBack)
  const Z = isTyped(top, halfTop)
  const bySides = (names: readonly [CentreField, CentreField, CentreField], turned: number | undefined) => {
    const [frontName, backName, topName] = names
    const across = isTyped(draft[frontName], draft[backName])
    return {
      turned,
      ...(across
        ? { front: position(frontName, draft[frontName]), back: position(backName, draft[backName]) }
        : {}),
      ...(isTyped(draft[topName]) ? { top: position(topName, draft[topName]) } : {}),
    }
  }
  const first = bySides(['front', 'back', 'top'], degrees('turned', draft.turned, AS_SHOWN))
  const half = isTyped(halfFront, halfBack, halfTop, draft.halfTurned)
    ? bySides(
        ['halfFront', 'halfBack', 'halfTop'],
        degrees('halfTurned', draft.halfTurned, 'Type where the machine shows it after half a turn.'),
      )
    : undefined
  if (!Y && !Z)
    for (const field of ['front', 'back']) note(field, { says: 'Touch the front and the back.', empty: true })
  for (const [had, twice, field] of [
    [isTyped(front, back), isTyped(halfFront, halfBack), 'front'],
    [isTyped(top), isTyped(halfTop), 'top'],
  ] as const)
    if (twice && !had)
      note(field, { says: 'Type what was touched before it was turned by half as well.', empty: true })
  const tool = Z ? readToolNumber(draft.tool) : undefined
  if (tool && !tool.ok) note('tool', tool)
  const height = Z
    ? {
        tool: tool?.ok ? tool.value : undefined,
        toolLength: length('toolLength', draft.toolLength),
        block: length('block', draft.block),
      }
    : undefined
  const read = centreReading.safeParse({
    device: draft.device,
    // An indicator's own radius is not known, and a 3D sensor at zero has none.
    diameter:
      draft.device === 'indicator' || draft.device === 'sensor'
        ? asTyped(0, unit)
        : length('diameter', draft.diameter),
    round: draft.round,
    ...(Z || isTyped(draft.across)
      ? {
          across: length('across', draft.across),
          acrossWithin: length('acrossWithin', draft.acrossWithin),
        }
      : {}),
    height,
    first,
    half,
  })
  return inFields(draftRead<CentreReading>(read, problems), CENTRE_FIELD)
}

/** Degrees as they would be typed: never with an exponent. */
const degreesText = (value: number) => fixedDigits(value, 9).replace(/\.?0+$/, '')
const text = (of: TypedLength | undefined) => (of ? of.text : '')
const positionText = (of: (TypedLength & { repeats?: TypedLength[] | undefined }) | undefined) =>
  of ? [of, ...(of.repeats ?? [])].map((each) => each.text).join('; ') : ''

/** A recorded flat as a form, for the picture. */
export function flatDraftOf(reading: FlatReading): FlatDraft {
  const blank = startingFlat('device' in reading ? reading.device : 'indicator')
  const common = { ...blank, turned: degreesText(reading.turned), drawing: degreesText(reading.drawing) }
  if (reading.method === 'level')
    return {
      ...common,
      method: 'level',
      span: text(reading.span),
      front: text(reading.front),
      back: text(reading.back),
    }
  const { faces, first, second } = reading
  return {
    ...common,
    faces,
    y1: positionText(first.y),
    z1: positionText(first.z),
    y2: positionText(second.y),
    z2: positionText(second.z),
  }
}

/** A recorded centre line as a form. */
export function centreDraftOf(reading: CentreReading): CentreDraft {
  const { device, round, first, half, height } = reading
  const sides = (of: Sides | undefined) => [of?.front, of?.back, of?.top].map(positionText)
  const [front = '', back = '', top = ''] = sides(first)
  const [halfFront = '', halfBack = '', halfTop = ''] = sides(half)
  return {
    device,
    round,
    diameter: text(reading.diameter),
    across: text(reading.across),
    acrossWithin: text(reading.acrossWithin),
    tool: height ? String(height.tool) : '',
    toolLength: text(height?.toolLength),
    block: text(height?.block),
    turned: degreesText(first.turned),
    front,
    back,
    top,
    halfTurned: half ? degreesText(half.turned) : '',
    halfFront,
    halfBack,
    halfTop,
  }
}

/** Degrees that a rotary must not have been turned by between two touches: a step of its display and a half. */
const SAME_TURN = 0.0015

/** Whether the rotary stands elsewhere than it is typed to have stood; not where that is no angle. */
export const wasTurned = (typed: string, now: string) => Math.abs(Number(now) - Number(typed)) > SAME_TURN

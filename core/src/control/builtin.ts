import type { OwnCode } from './own-codes.ts'
import { type Macros, type Profile, USUAL_COMPENSATION, USUAL_LETTERING, USUAL_READING } from './profile.ts'

const SIX_OFFSETS = ['G54', 'G55', 'G56', 'G57', 'G58', 'G59']

/** Common practice, in general words: what each control calls its pages, its manual says. */
const BEFORE_START = [
  'Load the file into the memory of the control; the old {program} is overwritten.',
  'Select {program} in memory mode: the program that ran last stays selected until another is.',
  'Reset, so that it begins at its top.',
].join('\n')

/** The numbers that probe macros commonly have. Common practice. */
const USUAL_MACROS = {
  on: 9832,
  off: 9833,
  protectedMove: 9810,
  surface: 9811,
  webPocket: 9812,
  boreBoss: 9814,
  outsideCorner: 9816,
  insideCorner: 9815,
  angle: 9843,
  feed: { inch: 120, mm: 3000 },
}
const USUAL_RESULTS = { X: 135, Y: 136, Z: 137, size: 138, angle: 139 }

/** The macro of a tool setter as it is commonly loaded. Common practice, from memory. */
export const USUAL_SETTING = { length: 9851, word: 'T', seconds: 20, note: '' }

/** The numbers that macro variables commonly have. Common practice, from memory. */
export const USUAL_MACRO_LANGUAGE: Macros = {
  alarm: 3000,
  longestMessage: 31,
  free: { first: 100, last: 134 },
  offsets: { first: 5221, step: 20 },
  lengthWear: 2001,
  diameterWear: 2401,
  wearAs: 'radius',
  print: 'opened',
  note: '',
}

/** A code that moves no axis and takes no time worth counting. */
const quiet = (code: string, says: string, on: OwnCode['on'] = 'both'): OwnCode => ({
  code,
  on,
  says,
  by: '',
  does: 'harmless',
  seconds: 0,
})

/** One-line cycles; extended offsets by their own code. Common practice; check each value against the control's manual. */
const compact: Profile = {
  shape: 3,
  id: 'compact',
  version: 1,
  writesSince: 1,
  name: 'Compact',
  numbers: { inchDigits: 4, mmDigits: 3, leadingZero: true, trailingZeros: false, note: '' },
  blocks: { numbered: false, step: 10, note: '' },
  comments: { style: 'parentheses', longest: 72, amount: 'every-block', note: '' },
  program: {
    digits: 5,
    number: 5400,
    percentSigns: true,
    before: BEFORE_START,
    note: 'Where programs are loaded and selected: list of programs.',
  },
  offsets: {
    standard: SIX_OFFSETS,
    extended: { code: 'G154', count: 99 },
    note: 'Work zero page of the offset display.',
  },
  loadOffset: { code: 'G10', standardL: 2, extendedL: 20, note: '' },
  clearUp: { way: 'machine-position', note: '' },
  rotation: { on: 'G68', off: 'G69', note: '' },
  probing: {
    ...USUAL_MACROS,
    results: { X: 185, Y: 186, Z: 187, size: 188, angle: 189 },
    furtherBase: 154,
    furtherStep: 0.01,
    note: '',
  },
  setting: USUAL_SETTING,
  macros: {
    ...USUAL_MACRO_LANGUAGE,
    free: { first: 100, last: 149 },
    lengthWear: 2201,
    diameterWear: 2601,
    wearAs: 'diameter',
    print: 'plain',
    note: 'Whether wear of a cutter is a diameter or a radius: settings page.',
  },
  reading: {
    rapids: 'dogleg',
    noPoint: 'whole',
    dwell: 'milliseconds',
    levels: 9,
    repeats: 'L',
    retreat: { inch: 0.1, mm: 2.5 },
    tapRetract: { address: 'J', usual: 1, most: 9, decimal: true },
    peckTap: 'again',
    drilling: true,
    initialLevel: 'before-first',
    chipBreak: true,
    rigidTap: null,
    leftTap: 'G184',
    text: 'G47',
    lettering: USUAL_LETTERING,
    mapping: { code: 'G107', by: 'radius' },
    rotaryFeed: 'inverse-time',
    pathTolerance: 'G187',
    lookAhead: 'G103',
    compensation: { ...USUAL_COMPENSATION, outside: 'lines', roughing: 'beside' },
    positions: {
      polar: false,
      scaling: true,
      patterns: true,
      pockets: true,
      oneSide: null,
      mirror: { on: 'G101', off: 'G100', about: 'zero' },
      corners: 'words',
    },
    turningCycles: 'one-line',
    threads: { leads: 1, starts: false },
    driven: null,
    pallets: [61, 62],
    note: 'Retract multiple, peck retreat and the speed of rapids: settings page.',
  },
  // Common practice, from memory: what a code of the machine does, its manual says.
  ownCodes: [
    quiet('M31', 'Chip conveyor on, forward.'),
    quiet('M33', 'Chip conveyor off.'),
    quiet('M83', 'Air through the nozzle on.', 'mill'),
    quiet('M84', 'Air through the nozzle off.', 'mill'),
    quiet('M88', 'Coolant through the spindle on.', 'mill'),
    quiet('M89', 'Coolant through the spindle off.', 'mill'),
  ],
}

/** Two-block cycles in least increments; extended offsets under G54.1. */
const twoLine: Profile = {
  shape: 3,
  id: 'two-line',
  version: 1,
  writesSince: 1,
  name: 'Two-line',
  numbers: { inchDigits: 4, mmDigits: 3, leadingZero: false, trailingZeros: false, note: '' },
  blocks: { numbered: true, step: 10, note: '' },
  comments: { style: 'parentheses', longest: 60, amount: 'every-block', note: '' },
  program: { digits: 4, number: 5400, percentSigns: true, before: BEFORE_START, note: '' },
  offsets: {
    standard: SIX_OFFSETS,
    extended: { code: 'G54.1', count: 48 },
    note: 'Work screen; the option for more than six offsets must be fitted.',
  },
  loadOffset: {
    code: 'G10',
    standardL: 2,
    extendedL: 20,
    note: 'Writing offsets from a program may need a setting switched on.',
  },
  clearUp: { way: 'home-return', note: '' },
  rotation: { on: 'G68', off: 'G69', note: 'An option on many controls of this kind.' },
  probing: { ...USUAL_MACROS, results: USUAL_RESULTS, furtherBase: 100, furtherStep: 1, note: '' },
  setting: USUAL_SETTING,
  macros: { ...USUAL_MACRO_LANGUAGE, note: 'The macro language and printing are options on many controls.' },
  reading: {
    rapids: 'dogleg',
    noPoint: 'least-increment',
    dwell: 'milliseconds',
    levels: 4,
    repeats: 'K',
    retreat: { inch: 0.04, mm: 1 },
    tapRetract: null,
    peckTap: 'depth-word',
    drilling: true,
    initialLevel: 'before-first',
    chipBreak: true,
    rigidTap: 29,
    leftTap: null,
    text: null,
    lettering: USUAL_LETTERING,
    mapping: { code: 'G7.1', by: 'rotary-word' },
    rotaryFeed: 'inverse-time',
    pathTolerance: null,
    lookAhead: null,
    compensation: USUAL_COMPENSATION,
    positions: {
      polar: true,
      scaling: true,
      patterns: false,
      pockets: false,
      oneSide: null,
      mirror: { on: 'G51.1', off: 'G50.1', about: 'word' },
      corners: 'comma',
    },
    turningCycles: 'two-line',
    threads: null,
    driven: null,
    pallets: [],
    note: 'Straight or dogleg rapids, and what a missing point means, are parameters.',
  },
  // Common practice, from memory: what a code of the machine does, its builder's manual says.
  ownCodes: [
    quiet('M10', 'Clamps the rotary.', 'mill'),
    quiet('M11', 'Lets the rotary go.', 'mill'),
    quiet('M41', 'Low gear.', 'lathe'),
    quiet('M42', 'High gear.', 'lathe'),
  ],
}

/** A control with nothing but the basic words: six offsets, written out in full. */
const plain: Profile = {
  shape: 3,
  id: 'plain',
  version: 1,
  writesSince: 1,
  name: 'Plain',
  numbers: { inchDigits: 4, mmDigits: 3, leadingZero: true, trailingZeros: true, note: '' },
  blocks: { numbered: false, step: 10, note: '' },
  comments: { style: 'semicolon', longest: 72, amount: 'every-block', note: '' },
  program: { digits: 4, number: 5400, percentSigns: false, before: BEFORE_START, note: '' },
  offsets: { standard: SIX_OFFSETS, extended: null, note: '' },
  loadOffset: { code: 'G10', standardL: 2, extendedL: 20, note: '' },
  clearUp: { way: 'machine-position', note: '' },
  rotation: null,
  probing: null,
  setting: null,
  macros: null,
  reading: { ...USUAL_READING, rapids: 'straight', chipBreak: false, retreat: { inch: 0.05, mm: 1 } },
  ownCodes: [],
}

export const BUILT_IN_PROFILES: readonly Profile[] = [compact, twoLine, plain]

/** The built-in profile of a kind of control, which is told by the form of its turning cycles. */
const kindOf = (reading: Record<string, unknown>) =>
  BUILT_IN_PROFILES.find((each) => each.reading.turningCycles === (reading.turningCycles ?? null))

/** What a profile of the first shape did not say: what its kind of control usually has of codes of its own and of compensation. */
export function withUsual(older: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const reading = (older.reading ?? {}) as Record<string, unknown>
  const usual = kindOf(reading)
  const { compensation } = usual?.reading ?? USUAL_READING
  return {
    ...older,
    ownCodes: usual?.ownCodes ?? [],
    ...(older.reading ? { reading: { ...reading, compensation } } : {}),
  }
}

/** What one of the second shape did not say either: further ways of writing positions, how threads run out, driven tools. */
export function withUsualMoves(older: Readonly<Record<string, unknown>>): Record<string, unknown> {
  if (!older.reading) return { ...older }
  const reading = older.reading as Record<string, unknown>
  const { positions, threads } = kindOf(reading)?.reading ?? USUAL_READING
  const said = (reading.positions ?? {}) as Record<string, unknown>
  return { ...older, reading: { ...reading, threads, driven: null, positions: { ...positions, ...said } } }
}

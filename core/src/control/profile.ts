import { z } from 'zod'
import { ownCodes } from './own-codes.ts'

const wordCode = z
  .string()
  .trim()
  .regex(/^[A-Z]\d{1,3}(\.\d)?$/, 'Write a letter and a number, such as G54 or G54.1.')

const manualNote = z
  .string()
  .max(300, 'Keep the note under 300 characters.')
  .describe('where the setting lives on this control, or what its manual says')

/** How numbers are printed. Lengths, feeds and angles always carry a decimal point. */
const numbers = z.object({
  inchDigits: z.int().min(3, 'At least 3 digits.').max(5, 'At most 5 digits.'),
  mmDigits: z.int().min(2, 'At least 2 digits.').max(4, 'At most 4 digits.'),
  leadingZero: z.boolean().describe('0.5 when true, .5 when false'),
  trailingZeros: z.boolean().describe('0.5000 when true, 0.5 when false'),
  note: manualNote,
})

const blocks = z.object({
  numbered: z.boolean(),
  step: z.int().min(1, 'At least 1.').max(100, 'At most 100.'),
  note: manualNote,
})

const comments = z.object({
  style: z.enum(['parentheses', 'semicolon']),
  longest: z.int().min(20, 'At least 20 characters.').max(120, 'At most 120 characters.'),
  amount: z.enum(['every-block', 'head-only']),
  note: manualNote,
})

const program = z.object({
  digits: z.int().min(4, 'Four or five.').max(5, 'Four or five.').describe('digits of the O number'),
  number: z
    .int()
    .min(1)
    .max(99999)
    .describe('O number of the program that loads an offset; others that Dogleg writes begin behind it'),
  percentSigns: z.boolean().describe('a % line before and after, for sending over a cable or card'),
  before: z
    .string()
    .max(600, 'Keep it under 600 characters.')
    .default('')
    .describe(
      'what is done at this control before cycle start runs a program that was brought to it: a line each, {program} for its number',
    ),
  note: manualNote,
})

/** Work offsets: the six standard codes, and how further ones are called, if the control has them. */
const offsets = z.object({
  standard: z.array(wordCode).min(1).max(6).describe('in order: the first is P1 of G10 L2'),
  extended: z
    .object({ code: wordCode, count: z.int().min(1).max(300) })
    .nullable()
    .describe('called as code and P word, P1 up to count'),
  note: manualNote,
})

/** Loading offsets from a program; null when the control can't, so that they are keyed in by hand. */
const loadOffset = z
  .object({
    code: wordCode,
    standardL: z.int().min(0).max(99),
    extendedL: z.int().min(0).max(99),
    note: manualNote,
  })
  .nullable()

/** How the spindle is sent to the top before anything moves sideways. */
const clearUp = z.object({
  way: z.enum(['machine-position', 'home-return']).describe('G53 G0 Z.. or G91 G28 Z0.'),
  note: manualNote,
})

/** Turning the program about a point in the plane; null when the control can't. */
const rotation = z.object({ on: wordCode, off: wordCode, note: manualNote }).nullable().default(null)

const macro = z.int('Write a whole number.').min(1).max(9999)
const variable = z.int('Write a whole number.').min(1).max(19999)

/**
 * Probe macros by their numbers, the variables that they leave their results in, and the S word that names the offset
 * to set; null when there are none. Common practice; every number is a default to be checked against the manual.
 */
const probing = z
  .object({
    on: macro,
    off: macro,
    protectedMove: macro,
    surface: macro.describe('single surface on X, Y or Z'),
    webPocket: macro,
    boreBoss: macro,
    outsideCorner: macro,
    insideCorner: macro,
    angle: macro,
    results: z.object({ X: variable, Y: variable, Z: variable, size: variable, angle: variable }),
    furtherBase: z.number().min(0).max(999).describe('S of a further offset is base + step x P'),
    furtherStep: z.number().min(0.001).max(1),
    feed: z.object({
      inch: z.number().positive('A feed must be more than zero.'),
      mm: z.number().positive('A feed must be more than zero.'),
    }),
    note: manualNote,
  })
  .nullable()
  .default(null)
export type Probing = NonNullable<z.infer<typeof probing>>

/**
 * The macro of a tool setter: its number and the letter that names the tool; null where none is loaded. It goes over the setter, measures,
 * and writes the length into the tool table. Common practice, from memory; a default to be checked against the manual.
 */
const setting = z
  .object({
    length: macro,
    word: z.string().regex(/^[A-Z]$/, 'One letter.'),
    seconds: z.number().min(1, 'It takes some time.').max(600).describe('that one measurement takes'),
    note: manualNote,
  })
  .nullable()
  .default(null)

/**
 * What a macro statement can reach, by the numbers of its variables; null where the control has no macro language. Common
 * practice, from memory; every number is a default to be checked against the manual.
 */
const macros = z
  .object({
    alarm: variable.describe('the variable that stops with an alarm and a message'),
    longestMessage: z.int('Write a whole number.').min(10, 'At least 10.').max(60, 'At most 60.'),
    free: z
      .object({ first: variable, last: variable })
      .refine(({ first, last }) => last - first >= 4, {
        error: 'At least five variables in a row.',
        path: ['last'],
      })
      .describe('common variables that nothing else uses: results are kept in them'),
    offsets: z
      .object({ first: variable, step: z.int().min(3).max(1000) })
      .describe('X of the first standard offset, Y and Z after it; from one offset to the next'),
    lengthWear: variable.describe('wear of length of tool 1; that of tool 2 is the next'),
    diameterWear: variable.describe('wear of diameter or radius of tool 1; that of tool 2 is the next'),
    wearAs: z.enum(['diameter', 'radius']).describe('what wear of a cutter is counted in'),
    print: z
      .enum(['none', 'plain', 'opened'])
      .describe('DPRNT lines to a log file: none, as they are, or between POPEN and PCLOS'),
    note: manualNote,
  })
  .nullable()
  .default(null)
export type Macros = NonNullable<z.infer<typeof macros>>

const mCode = z.int('Write a whole number.').min(0).max(999)

/** What the control's own text cycle engraves. */
const lettering = z.object({
  widthFactor: z
    .number()
    .min(0.2, 'A width factor from 0.2 to 3.')
    .max(3, 'A width factor from 0.2 to 3.')
    .nullable()
    .describe(
      'how wide its text comes out, over single-stroke letters of the same height; null until one was measured',
    ),
  characters: z.string().min(1, 'At least one character.').max(150),
  counts: z.boolean().describe('it counts serial numbers by itself: P1 and a # a digit'),
})
export type Lettering = z.infer<typeof lettering>

/** Common practice, from memory; to be checked against the manual. */
export const USUAL_LETTERING: Lettering = {
  widthFactor: null,
  characters: "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789 .,:+-*/='!?&_@",
  counts: true,
}

/** How the control leads a cutter beside the path that is written (G41, G42). */
const compensation = z.object({
  comingOn: z
    .enum(['next', 'own'])
    .describe('the first move ends square to the start of the next, or to its own end'),
  outside: z
    .enum(['arc', 'lines'])
    .describe('outside of a corner: an arc, or the moves lengthened until they meet'),
  lookAhead: z.int('Write a whole number.').min(1, 'At least 1.').max(100, 'At most 100.').describe('blocks'),
  holds: z
    .enum(['radius', 'wear'])
    .describe(
      'what programs are written for: the edge, with the whole radius in the table, or the centre, with wear only',
    ),
  wear: z.enum(['added', 'taken']).describe('wear of a cutter is added to its radius, or taken from it'),
  roughing: z
    .enum(['beside', 'written'])
    .describe(
      'roughing of a lathe (G71 to G73) leads the nose beside the contour, or its tip along it as it is written',
    ),
})

/** Common practice, from memory; to be checked against the manual. */
export const USUAL_COMPENSATION: z.infer<typeof compensation> = {
  comingOn: 'next',
  outside: 'arc',
  lookAhead: 3,
  holds: 'radius',
  wear: 'added',
  roughing: 'written',
}

const overrun = z
  .number('A length in mm.')
  .min(-50, 'At most 50 mm.')
  .max(50, 'At most 50 mm.')
  .describe('mm')

/** Further ways of writing positions that a control has or has not. */
const positions = z.object({
  polar: z.boolean().describe('by radius and angle (G15, G16)'),
  scaling: z.boolean().describe('scaled (G50, G51)'),
  patterns: z.boolean().describe('holes of a canned cycle on a circle, an arc or a line (G70, G71, G72)'),
  pockets: z.boolean().describe('round pockets (G12, G13)'),
  oneSide: z
    .object({ X: overrun, Y: overrun, Z: overrun })
    .nullable()
    .describe(
      'how far past its end each axis goes before it comes back (G60), below 0 where it comes from below; null where that is not known',
    ),
  mirror: z
    .object({
      on: wordCode,
      off: wordCode,
      about: z.enum(['word', 'zero']).describe('about where the axis words say, or about part zero'),
    })
    .nullable(),
  corners: z
    .enum(['comma', 'words'])
    .nullable()
    .describe(
      'chamfers, roundings and angles of a drawing: ,C ,R (and ,A on a lathe), or on a lathe I or K, R and A; null where it has none',
    ),
})
export type Positions = z.infer<typeof positions>

/** A control that has none of them. */
const NO_POSITIONS: Positions = {
  polar: false,
  scaling: false,
  patterns: false,
  pockets: false,
  oneSide: null,
  mirror: null,
  corners: null,
}

/** A lathe whose turret drives tools, and whose spindle turns to an angle by itself: by which words. */
const driven = z.object({
  turns: z
    .object({ clockwise: mCode, counter: mCode, off: mCode, speed: z.enum(['S', 'P']) })
    .nullable()
    .describe('the M codes that turn the driven tool and stop it, and the word of its speed'),
  axis: z
    .object({ on: mCode, off: mCode })
    .nullable()
    .describe('the M codes that make the spindle an axis and let it go; null where it needs none'),
  face: z
    .object({
      on: wordCode,
      off: wordCode,
      x: z.enum(['diameter', 'radius']).describe('what X counts meanwhile'),
      across: z.enum(['C', 'Y']).describe('the word of the length across X'),
    })
    .nullable()
    .describe('polar interpolation: X and a length across it make the face of the part'),
})
export type Driven = z.infer<typeof driven>

/** How the control reads and moves, for proving a program. Every value is a default to be checked against the manual. */
const reading = z.object({
  rapids: z
    .enum(['dogleg', 'straight'])
    .describe('each axis at its own top speed, or all stretched to the slowest'),
  noPoint: z
    .enum(['whole', 'least-increment'])
    .describe('what a length without a decimal point means: X2 is two, or two least increments'),
  dwell: z.enum(['seconds', 'milliseconds']).describe('what P of a dwell without a decimal point counts'),
  levels: z.int('Write a whole number.').min(1).max(99).describe('how deep calls may nest'),
  repeats: z.enum(['L', 'K']).describe('the word that repeats a canned cycle'),
  retreat: z
    .object({ inch: z.number().positive(), mm: z.number().positive() })
    .describe(
      'how far a chip-breaking peck comes back, and how far above the last depth a peck starts again',
    ),
  tapRetract: z
    .object({
      address: z.string().regex(/^[A-Z]$/, 'One letter.'),
      usual: z.number().min(1).max(9),
      most: z.number().min(1).max(9).default(9).describe('highest multiple that the control takes'),
      decimal: z.boolean().default(true).describe('it takes 2.5 as well as 2'),
    })
    .nullable()
    .describe('word on the tapping line that multiplies the speed out, and the multiple without it'),
  peckTap: z
    .enum(['depth-word', 'again'])
    .default('again')
    .describe('peck tapping: a Q word on the tapping line, or the cycle again and again, deeper each time'),
  drilling: z.boolean().default(true).describe('it has drilling cycles; else each hole is written out'),
  initialLevel: z
    .enum(['before-first', 'each-code'])
    .default('before-first')
    .describe(
      'the level that G98 goes back to: that from before the first cycle, until G80; or taken anew wherever a cycle code stands',
    ),
  chipBreak: z.boolean().default(true).describe('it has chip-breaking drilling (G73)'),
  rigidTap: mCode.nullable().describe('the M code that announces rigid tapping; null where it needs none'),
  leftTap: wordCode
    .nullable()
    .default(null)
    .describe('taps a left-hand thread on the centre line of a lathe; null where it has no code of its own'),
  text: wordCode.nullable().describe('the text engraving cycle'),
  lettering: lettering.default(USUAL_LETTERING).describe('counts only where it has a text cycle'),
  mapping: z
    .object({ code: wordCode, by: z.enum(['radius', 'rotary-word']) })
    .nullable()
    .describe('wrapping Y on the rotary axis: by an R word, or by the rotary word that carries the radius'),
  rotaryFeed: z
    .enum(['inverse-time', 'along-way'])
    .default('inverse-time')
    .describe(
      'feed of a move that turns: minutes turned over (G93), or along the way with degrees counted as lengths (G94)',
    ),
  pathTolerance: wordCode.nullable(),
  lookAhead: wordCode.nullable(),
  compensation: compensation.default(USUAL_COMPENSATION),
  positions: positions.default(NO_POSITIONS),
  turningCycles: z.enum(['one-line', 'two-line']).nullable(),
  threads: z
    .object({
      leads: z.number('A number of leads.').min(0.1, 'From 0.1 to 5 leads.').max(5, 'From 0.1 to 5 leads.'),
      starts: z.boolean().describe('a program begins with it on'),
    })
    .nullable()
    .default(null)
    .describe(
      'threads run out at 45 degrees over so many leads (on by M23, off by M24); null where they run out square',
    ),
  driven: driven
    .nullable()
    .default(null)
    .describe('driven tools and the angle of the spindle (C, and H from where it stands) on a lathe'),
  pallets: z.array(mCode).max(12).describe('the M codes that call pallet 1, 2, ...'),
  note: manualNote,
})
export type Reading = z.infer<typeof reading>

/** A control with nothing of its own: also what a profile that is older than the program reader reads like. */
export const USUAL_READING: Reading = {
  rapids: 'dogleg',
  noPoint: 'whole',
  dwell: 'seconds',
  levels: 4,
  repeats: 'L',
  retreat: { inch: 0.1, mm: 2.5 },
  tapRetract: null,
  peckTap: 'again',
  drilling: true,
  initialLevel: 'before-first',
  chipBreak: true,
  rigidTap: null,
  leftTap: null,
  text: null,
  lettering: USUAL_LETTERING,
  mapping: null,
  rotaryFeed: 'inverse-time',
  pathTolerance: null,
  lookAhead: null,
  compensation: USUAL_COMPENSATION,
  positions: NO_POSITIONS,
  turningCycles: null,
  threads: null,
  driven: null,
  pallets: [],
  note: '',
}

/**
 * How one control wants things written, as data. Named by trait; edited in the app; a row with a version.
 * Every value is a default to be checked against the manual of the control in hand.
 */
export const profile = z
  .object({
    shape: z.literal(3),
    id: z.string().min(1).max(40),
    version: z.int().min(1),
    writesSince: z
      .int()
      .min(1)
      .describe(
        'version since which it says the same but for its own codes: what was written since then stands',
      ),
    name: z.string().trim().min(1, 'Give the profile a name.').max(40, 'Keep the name under 40 characters.'),
    numbers,
    blocks,
    comments,
    program,
    offsets,
    loadOffset,
    clearUp,
    rotation,
    probing,
    setting,
    macros,
    reading: reading.default(USUAL_READING),
    ownCodes,
  })
  .refine((of) => String(of.program.number).length <= of.program.digits, {
    error: 'The program number has more digits than this control carries.',
    path: ['program', 'number'],
  })
export type Profile = z.infer<typeof profile>

import {
  type CycleSheet,
  newSheet,
  readSheet,
  type SheetCase,
  type SheetDraft,
  writeSheet,
} from '@dogleg/core/code'
import { exampleEngraving, newEngraving } from '@dogleg/core/cycles/engraving'
import { exampleTap, newTap } from '@dogleg/core/cycles/tapping'
import { demoEntries, demoReference, housingSheet, scaleSheet, tubeSheet } from '@dogleg/core/demo'
import { codeFor, sheetCase } from '@dogleg/core/prepare'
import { read } from '@dogleg/core/program'
import { deriveSetup, isUnreadable, type Setup } from '@dogleg/core/setup'
import { medianTime, report } from './report.ts'

/** One frame of a screen that is drawn sixty times a second. */
const FRAME_MS = 1000 / 60

/** A setup of the demo by its title. */
export function setupOf(title: RegExp): Setup {
  let seed = 1
  const entries = demoEntries(Date.UTC(2026, 10, 25, 8), () => {
    seed = (seed * 16_807) % 2_147_483_647
    return seed / 2_147_483_647
  })
  const id = entries.find((each) => each.kind === 'opened' && title.test(each.title))?.setup
  const setup = deriveSetup(
    entries.filter((each) => each.setup === id),
    demoReference,
  )
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}

function sheetOf(draft: SheetDraft): CycleSheet {
  const of = readSheet(draft, 'inch')
  if (!of.ok) throw new Error(of.says)
  return of.sheet
}

/** A plate of holes in a grid, each chamfered, drilled and tapped: what a large operation is. */
const plate = (columns: number, rows: number): SheetDraft => ({
  ...newSheet('Plate', 5400, 'aluminium'),
  items: [
    {
      cycle: 'tap',
      id: 'plate',
      off: false,
      params: {
        ...newTap('inch', false),
        ...exampleTap('inch'),
        thread: '5/16-24 UNF',
        pattern: 'grid',
        count: String(columns),
        rows: String(rows),
        spacing: '.3',
        rowSpacing: '.3',
        chamferTool: '5',
        drillTool: '3',
        tapTool: '12',
      },
    },
  ],
})

/** Lines of text under each other, fifty characters each, as on a large plate; 40 is as many cycles as a program has. */
const plateOfText = (): SheetDraft => ({
  ...newSheet('Plate of text', 5401, 'aluminium'),
  items: Array.from({ length: 40 }, (_, n) => ({
    cycle: 'engrave' as const,
    id: `line-${n}`,
    off: false,
    params: {
      ...newEngraving('inch'),
      ...exampleEngraving('inch'),
      text: `LINE ${String(n).padStart(2, '0')} of the plate, 12.345 +0.002 -0.001 IN`
        .padEnd(50, 'X')
        .slice(0, 50),
      sits: 'start' as const,
      height: '.125',
      y: String(-0.25 * n),
      way: 'moves' as const,
      tool: '15',
    },
  })),
})
/** As often as makes 10,000 characters. */
const PLATES = 5

/** The part that all of its holes lie in, top at zero. */
const PLATE: NonNullable<SheetCase['bodies']>[number] = {
  name: 'plate',
  part: true,
  top: 0,
  shape: { kind: 'rectangle', least: { x: -1, y: -1 }, greatest: { x: 16, y: 13 } },
}

const written = (setup: Setup, sheet: CycleSheet) => {
  const { code } = codeFor(setup, sheet, 'G54', demoReference)
  if (!code) throw new Error('the program is refused')
  return code
}

/** Programs built from cycles: written, read back, compared with the plan and timed. */
export function benchCode() {
  const mill = setupOf(/first side/)
  const lathe = setupOf(/O-ring/)
  const large = sheetOf(plate(50, 40))
  const onPlate = { ...sheetCase(mill, large, 'G54', demoReference), bodies: [PLATE] }
  const drilled = () => {
    const { code, findings, items } = writeSheet(large, onPlate)
    if (!code) throw new Error(`the plate is refused: ${JSON.stringify([findings, items])}`)
    return code
  }
  const { text } = drilled()
  const { machine, profile, unit } = mill
  const [whole, alone] = medianTime([drilled, () => read(text, { machine, profile, unit, frame: 'G54' })], 24)
  report({
    name: '2,000 holes, each chamfered, drilled and tapped: written, read back, compared and timed',
    measured: `${whole.toFixed(1)} ms, ${text.split('\n').length} lines`,
    baseline: 'reading the text alone',
    against: `${alone.toFixed(1)} ms`,
    ratio: whole / alone,
    limit: 11,
  })
  const on = {
    ...sheetCase(mill, { turned: false }, 'G54', demoReference),
    bodies: [],
  }
  const lettered = sheetOf(plateOfText())
  const engrave = () => {
    const { code } = writeSheet(lettered, on)
    if (!code) throw new Error('the text is refused')
    return code.text
  }
  const letters = engrave()
  const often = (work: () => unknown) => () => {
    for (let n = 0; n < PLATES; n++) work()
  }
  const [laid, readAlone] = medianTime(
    [often(engrave), often(() => read(letters, { machine, profile, unit, frame: 'G54' }))],
    12,
  )
  report({
    name: '10,000 characters laid out, checked against each other, written, read back, compared and timed',
    measured: `${laid.toFixed(0)} ms, ${PLATES * letters.split('\n').length} lines`,
    baseline: 'reading the same code',
    against: `${readAlone.toFixed(0)} ms`,
    ratio: laid / readAlone,
    limit: 43,
  })
  const tubeScale = setupOf(/Drawtube, scale/)
  const [housing, tube] = [sheetOf(housingSheet), sheetOf(tubeSheet)]
  const scale = sheetOf(scaleSheet)
  const [tap, groove, wrap] = medianTime(
    [() => written(mill, housing), () => written(lathe, tube), () => written(tubeScale, scale)],
    40,
  )
  for (const [name, ms, limit] of [
    ['a keystroke in the tapped holes of the housing, code and checks', tap, 0.24],
    ['a keystroke in the grooves of the drawtube, code and what is left standing', groove, 0.57],
    ['a keystroke in the scale of the drawtube', wrap, 0.69],
  ] as const)
    report({
      name,
      measured: `${ms.toFixed(2)} ms`,
      baseline: 'one frame of the screen',
      against: `${FRAME_MS.toFixed(1)} ms`,
      ratio: ms / FRAME_MS,
      limit,
    })
}

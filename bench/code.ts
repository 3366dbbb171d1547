import { newSheet, readSheet, type Sheet, type SheetDraft } from '@dogleg/core/code'
import { newTap } from '@dogleg/core/cycles/tapping'
import { demoEntries, demoReference, housingSheet, tubeSheet } from '@dogleg/core/demo'
import { read } from '@dogleg/core/program'
import { codeFor, deriveSetup, isUnreadable, type Setup } from '@dogleg/core/setup'
import { medianTime, report } from './report.ts'

/** One frame of a screen that is drawn sixty times a second. */
const FRAME_MS = 1000 / 60

function setupOf(title: RegExp): Setup {
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

function sheetOf(draft: SheetDraft): Sheet {
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

const written = (setup: Setup, sheet: Sheet) => {
  const { code } = codeFor(setup, sheet, 'G54', demoReference)
  if (!code) throw new Error('the program is refused')
  return code
}

/** Programs built from cycles: written, read back, compared with the plan and timed. */
export function benchCode() {
  const mill = setupOf(/first side/)
  const lathe = setupOf(/O-ring/)
  const large = sheetOf(plate(50, 40))
  const { text } = written(mill, large)
  const { machine, profile, unit } = mill
  const [whole, alone] = medianTime(
    [() => written(mill, large), () => read(text, { machine, profile, unit, frame: 'G54' })],
    24,
  )
  report({
    name: '2,000 holes, each chamfered, drilled and tapped: written, read back, compared and timed',
    measured: `${whole.toFixed(1)} ms, ${text.split('\n').length} lines`,
    baseline: 'reading the text alone',
    against: `${alone.toFixed(1)} ms`,
    ratio: whole / alone,
    limit: 12,
  })
  const [housing, tube] = [sheetOf(housingSheet), sheetOf(tubeSheet)]
  const [tap, groove] = medianTime([() => written(mill, housing), () => written(lathe, tube)], 40)
  for (const [name, ms] of [
    ['a keystroke in the tapped holes of the housing, code and checks', tap],
    ['a keystroke in the grooves of the drawtube, code and what is left standing', groove],
  ] as const)
    report({
      name,
      measured: `${ms.toFixed(2)} ms`,
      baseline: 'one frame of the screen',
      against: `${FRAME_MS.toFixed(1)} ms`,
      ratio: ms / FRAME_MS,
      limit: 0.75,
    })
}

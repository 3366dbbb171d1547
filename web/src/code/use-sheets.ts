import { draftAgain, draftOfSheet, newSheet, type SheetDraft, sheetDraft } from '@dogleg/core/code'
import { ownNumber } from '@dogleg/core/control'
import { freeNumber, type NumberedProgram } from '@dogleg/core/prepare'
import type { Setup } from '@dogleg/core/setup'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'

const keptSheets = z.object({ at: z.int().min(0), sheets: z.array(sheetDraft).min(1) })

/** The programs of a setup as they are being built, kept on the tablet: those of the log to begin with. `known` are at the machine. */
export function useSheets(setup: Setup, known: readonly NumberedProgram[]) {
  const fresh = (sheets: readonly SheetDraft[]) =>
    newSheet(
      sheets.length === 0 ? setup.opened.title.slice(0, 60) : `Program ${sheets.length + 1}`,
      freeNumber(
        ownNumber(setup.profile, 'coded'),
        known,
        sheets.map(({ number }) => Number(number)),
      ),
      '',
    )
  const [{ at, sheets }, keep] = useKept(`${setup.id}.code`, keptSheets, () => {
    const recorded = setup.code.coded.map(({ entry }) =>
      entry.carried ? draftAgain(entry.sheet) : draftOfSheet(entry.sheet),
    )
    return { at: 0, sheets: recorded.length > 0 ? recorded : [fresh([])] }
  })
  const current = Math.min(at, sheets.length - 1)
  const sheet = sheets[current] as SheetDraft
  return {
    sheets,
    at: current,
    sheet,
    choose: (next: number) => keep({ at: next, sheets }),
    change: (next: SheetDraft) =>
      keep({ at: current, sheets: sheets.map((each, index) => (index === current ? next : each)) }),
    add: () =>
      keep({ at: sheets.length, sheets: [...sheets, { ...fresh(sheets), material: sheet.material }] }),
    /** One of the logbook, opened here. */
    take: (next: SheetDraft) => keep({ at: sheets.length, sheets: [...sheets, next] }),
    /** Away from this tablet: what was recorded stays in the logbook. */
    remove: () => {
      const left = sheets.filter((_, index) => index !== current)
      keep({ at: 0, sheets: left.length > 0 ? left : [fresh([])] })
    },
  }
}

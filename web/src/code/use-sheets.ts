import { draftAgain, draftOfSheet, newSheet, type SheetDraft, sheetDraft } from '@dogleg/core/code'
import { ownNumber } from '@dogleg/core/control'
import { freeNumber, type NumberedProgram } from '@dogleg/core/prepare'
import type { Setup } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useLatest } from '../ui/use-latest.ts'

const keptSheets = z.object({ at: z.int().min(0), sheets: z.array(sheetDraft).min(1) })

/** The programs that are being built, and the one in hand. */
export interface Programs {
  sheets: readonly SheetDraft[]
  at: number
  sheet: SheetDraft
}

/** What can be done to them; each is done to what stands by then. */
export interface ProgramChanges {
  choose: (at: number) => void
  /** The one in hand. */
  change: (next: (of: SheetDraft) => SheetDraft) => void
  add: () => void
  /** One of the logbook, opened here. */
  take: (sheet: SheetDraft) => void
  /** Away from this tablet: what was recorded stays in the logbook. */
  remove: () => void
}

/** The programs of a setup as they are being built, kept on the tablet: those of the log to begin with. `known` are at the machine. */
export function useSheets(
  setup: Setup,
  known: readonly NumberedProgram[],
): { programs: Programs; changes: ProgramChanges } {
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
  const choose = useLatest((next: number) => keep({ at: next, sheets }))
  const change = useLatest((next: (of: SheetDraft) => SheetDraft) =>
    keep({ at: current, sheets: sheets.map((each, index) => (index === current ? next(each) : each)) }),
  )
  const add = useLatest(() =>
    keep({ at: sheets.length, sheets: [...sheets, { ...fresh(sheets), material: sheet.material }] }),
  )
  const take = useLatest((next: SheetDraft) => keep({ at: sheets.length, sheets: [...sheets, next] }))
  const remove = useLatest(() => {
    const left = sheets.filter((_, index) => index !== current)
    keep({ at: 0, sheets: left.length > 0 ? left : [fresh([])] })
  })
  const programs: Programs = useMemo(() => ({ sheets, at: current, sheet }), [sheets, current, sheet])
  const changes: ProgramChanges = useMemo(
    () => ({ choose, change, add, take, remove }),
    [choose, change, add, take, remove],
  )
  return { programs, changes }
}

import type { SheetDraft } from '@dogleg/core/code'
import { useOpenSetup } from '../log/open-setup.ts'
import { useNumbersAt } from '../program/use-numbers-at.ts'
import { useAfterPaint } from '../ui/use-after-paint.ts'
import { useLatest } from '../ui/use-latest.ts'
import { CycleProgram } from './cycle-program.tsx'
import { TypedProvider } from './typed.tsx'
import { type Programs, useSheets } from './use-sheets.ts'

/** The Code step: a program built from cycles, with live code. */
export function CodeStep() {
  const { setup } = useOpenSetup()
  const known = useNumbersAt()
  const { programs, changes } = useSheets(setup, known)
  const [followed, follow] = useAfterPaint(programs)
  // What is typed into a field is followed once the field has been drawn; another cycle or another program is there at once.
  const shown = sameCycles(followed, programs) ? followed : programs
  /** Until the code has followed what was typed last, nothing is given out or recorded. */
  const isSettled = useLatest(() => shown === programs)
  return (
    <TypedProvider value={programs.sheet}>
      <CycleProgram
        programs={shown}
        changes={changes}
        known={known}
        isSettled={isSettled}
        onSettle={follow}
      />
    </TypedProvider>
  )
}

/** Whether the same program is in hand, with the same cycles in it. */
const sameCycles = (a: Programs, b: Programs) =>
  a.at === b.at && a.sheets.length === b.sheets.length && cyclesOf(a.sheet) === cyclesOf(b.sheet)

const cyclesOf = ({ items }: SheetDraft) => items.map(({ id, off }) => `${id} ${off}`).join()

import { type Sheet, type WrittenSheet, workOf, writeSheet } from '@dogleg/core/code'
import { againstCode, type Reference, type Setup, sheetCase } from '@dogleg/core/setup'
import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import type { Writer } from './code-worker.ts'

/** Programs with more work than so many holes are written in a worker. */
const MUCH_WORK = 300

/** A program as it was written, and what it was written of. */
interface Written {
  of: object
  written: WrittenSheet
}

/**
 * The program of a sheet for a setup. A large one is written off the page: meanwhile what was written last stands, and
 * `busy` says so; a change while it is being written ends that and begins anew.
 */
export function useWritten(
  setup: Setup,
  sheet: Sheet | undefined,
  offset: string,
  reference: Reference,
): { written: WrittenSheet | undefined; busy: boolean } {
  const asked = useMemo(
    () =>
      sheet && {
        sheet,
        on: sheetCase(setup, sheet, offset, reference),
        against: againstCode(setup, sheet, offset),
      },
    [setup, sheet, offset, reference],
  )
  const large = sheet !== undefined && workOf(sheet) > MUCH_WORK
  const here = useMemo(
    () => (asked && !large ? writeSheet(asked.sheet, asked.on, asked.against) : undefined),
    [asked, large],
  )
  const [last, setLast] = useState<Written>()
  useEffect(() => {
    if (!asked || !large) return
    const worker = new Worker(new URL('./code-worker.ts', import.meta.url), { type: 'module' })
    let live = true
    wrap<Writer>(worker)
      .write(asked.sheet, asked.on, asked.against)
      .then((written) => live && setLast({ of: asked, written }))
      .finally(() => worker.terminate())
    return () => {
      live = false
      worker.terminate()
    }
  }, [asked, large])
  if (!large) return { written: here, busy: false }
  return { written: last?.written, busy: last?.of !== asked }
}

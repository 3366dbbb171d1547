import { type CycleSheet, type WrittenSheet, workOf, writeSheet } from '@dogleg/core/code'
import { againstCode, sheetCase } from '@dogleg/core/prepare'
import type { Reference, Setup } from '@dogleg/core/setup'
import { wrap } from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { type Ended, howItEnded, untilItEnds } from '../ui/worker-ended.tsx'
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
 * `busy` says so; a change while it is being written ends that and begins anew. `failed` says how writing ended before it was done;
 * `again` tries once more.
 */
export function useWritten(
  setup: Setup,
  sheet: CycleSheet | undefined,
  offset: string,
  reference: Reference,
): { written: WrittenSheet | undefined; busy: boolean; failed: Ended | undefined; again: () => void } {
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
  const [broken, setBroken] = useState<{ of: object; ended: Ended }>()
  const [tries, setTries] = useState(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: trying again begins anew
  useEffect(() => {
    if (!asked || !large) return
    const worker = new Worker(new URL('./code-worker.ts', import.meta.url), { type: 'module' })
    let live = true
    Promise.race([wrap<Writer>(worker).write(asked.sheet, asked.on, asked.against), untilItEnds(worker)])
      .then((written) => live && setLast({ of: asked, written }))
      .catch((error) => live && setBroken({ of: asked, ended: howItEnded(error) }))
      .finally(() => worker.terminate())
    return () => {
      live = false
      worker.terminate()
    }
  }, [asked, large, tries])
  const again = () => {
    setBroken(undefined)
    setTries(tries + 1)
  }
  if (!large) return { written: here, busy: false, failed: undefined, again }
  const done = last?.of === asked
  const failed = !done && broken !== undefined && broken.of === asked ? broken.ended : undefined
  return { written: last?.written, busy: !done, failed, again }
}

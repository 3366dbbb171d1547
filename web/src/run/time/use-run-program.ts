import { type KeptProgram, programsOf, proveCase } from '@dogleg/core/prepare'
import { layoutIn, type ProveCase } from '@dogleg/core/prove'
import { LONGEST_LOOKED } from '@dogleg/core/saving'
import { machineCalibration, offsetTable } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { z } from 'zod'
import { useKept } from '../../log/kept.ts'
import { useOffset, useOpenSetup } from '../../log/open-setup.ts'
import { useMachineTimes } from '../../log/use-listed.ts'
import { useProgram } from '../../prove/use-program.ts'
import { useAsked } from '../use-asked.ts'
import { useSame } from '../use-same.ts'
import type { HashedOffer, SavingsAnswer, TimeAnswer, Timer } from './time-worker.ts'

const makeWorker = () => new Worker(new URL('./time-worker.ts', import.meta.url), { type: 'module' })

/** The program whose time is looked at: one of the log, or the one that stands in Prove; proved and timed off the page. */
export function useRunProgram() {
  const open = useOpenSetup()
  const { setup, machineEntries, lengths, reference } = open
  const timed = useMachineTimes(open)
  const [offset] = useOffset(setup)
  const { program: standing } = useProgram(setup.id, undefined)
  const kept = useMemo(() => programsOf(setup), [setup])
  const programs = useMemo<KeptProgram[]>(() => {
    const text = standing?.text
    if (
      !standing ||
      typeof text !== 'string' ||
      text.trim() === '' ||
      kept.some((each) => each.text === text)
    )
      return kept
    return [...kept, { title: `${standing.title || 'A program'}, as it stands in Prove`, text, at: '' }]
  }, [kept, standing])
  const [title, choose] = useKept(`${setup.id}.timed-program`, z.string(), () => '')
  const program = programs.find((each) => each.title === title) ?? programs[0]
  const { machine, profile, unit } = setup
  const table = useMemo(
    () => offsetTable(setup, machineEntries, reference),
    [setup, machineEntries, reference],
  )
  const recorded = setup.prove.layout?.layout
  const text = program?.text
  const frame = program?.frame ?? offset.name
  const of = useMemo<ProveCase | undefined>(
    () =>
      text === undefined
        ? undefined
        : proveCase(
            setup,
            table,
            lengths,
            reference.tools,
            layoutIn(recorded ?? { unit, bodies: [] }, unit),
            {
              text,
              frame,
            },
          ),
    [setup, table, lengths, reference.tools, recorded, unit, text, frame],
  )
  const question = useSame(of)
  const time = useAsked<ProveCase, Timer, TimeAnswer>(question, makeWorker, (worker, asked) =>
    worker.time(asked),
  )
  const calibration = useMemo(
    () => machineCalibration(timed, { machine, profile }),
    [timed, machine, profile],
  )
  return { programs, program, choose, question, time, calibration }
}
export type RunProgram = ReturnType<typeof useRunProgram>

/** What would save time in the program, while it is asked for. */
export function useSavings(question: ProveCase | undefined) {
  const short = question && question.text.length <= LONGEST_LOOKED ? question : undefined
  return useAsked<ProveCase, Timer, SavingsAnswer>(short, makeWorker, (worker, asked, onProgress) =>
    worker.savings(asked, onProgress),
  )
}

export type { HashedOffer }

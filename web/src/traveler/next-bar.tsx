import { STEP_NAMES, type Step } from '@dogleg/core/setup'
import { footOf, type InHand, NOTHING_LEFT, type Task, travelerOf } from '@dogleg/core/traveler'
import { useMemo } from 'react'
import { useLocation } from 'react-router'
import { useOpenSetup } from '../log/open-setup.ts'
import { NextLine } from '../ui/next-line.tsx'
import { addressOf } from './address.ts'

interface NextBarProps {
  step: Step
  /** Whether a task of this step is done in what is shown. */
  isHere: (task: Task) => boolean
  /** Another way to where a task is done than its address, if there is one. */
  way?: (task: Task) => (() => void) | undefined
  /** What is typed on this page and not recorded. */
  inHand?: InHand | undefined
}

/** The foot of a step's page: the next thing of the whole setup; where that is in another step, the next thing of this one too. */
export function NextBar({ step, isHere, way, inHand }: NextBarProps) {
  const { setup, ready, lengths, reference, traveler } = useOpenSetup()
  const { search } = useLocation()
  const now = useMemo(
    () => (inHand ? travelerOf(setup, { ready, lengths, reference, inHand }) : traveler),
    [setup, ready, lengths, reference, traveler, inHand],
  )
  const { next, here } = footOf(now, step, isHere)
  const go = (task: Task) => {
    if (task.step === step && isHere(task)) return {}
    const other = way?.(task)
    return other ? { go: other } : { to: addressOf(task, search) }
  }
  if (!next) return <NextLine {...NOTHING_LEFT} />
  return (
    <NextLine
      says={next.says}
      where={next.step === step ? undefined : STEP_NAMES[next.step]}
      why={next.why}
      {...go(next)}
      here={here && { says: here.says, ...go(here) }}
    />
  )
}

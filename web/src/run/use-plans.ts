import { ownNumber } from '@dogleg/core/control'
import { draftOfPlan, type GaugePlanDraft, gaugePlanDraft, newPlan } from '@dogleg/core/gauge'
import { freeNumber, type NumberedProgram } from '@dogleg/core/prepare'
import type { Setup } from '@dogleg/core/setup'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'

const keptPlans = z.object({ at: z.int().min(0), plans: z.array(gaugePlanDraft).min(1) })

/** The plans of a setup as they are being composed, kept on the tablet: those of the log to begin with. `known` are at the machine. */
export function usePlans(setup: Setup, known: readonly NumberedProgram[]) {
  const fresh = (plans: readonly GaugePlanDraft[]): GaugePlanDraft =>
    newPlan(
      plans.length === 0 ? setup.opened.title : `Gauging ${plans.length + 1}`,
      freeNumber(
        ownNumber(setup.profile, 'gauge'),
        known,
        plans.map(({ head }) => Number(head.number)),
      ),
    )
  const [{ at, plans }, keep] = useKept(`${setup.id}.gauge`, keptPlans, () => {
    const recorded = setup.gauge.plans.map(({ entry }) => draftOfPlan(entry.plan))
    return { at: 0, plans: recorded.length > 0 ? recorded : [fresh([])] }
  })
  const current = Math.min(at, plans.length - 1)
  return {
    plans,
    at: current,
    plan: plans[current] as GaugePlanDraft,
    choose: (next: number) => keep({ at: next, plans }),
    change: (next: GaugePlanDraft) =>
      keep({ at: current, plans: plans.map((each, index) => (index === current ? next : each)) }),
    add: () => keep({ at: plans.length, plans: [...plans, fresh(plans)] }),
    /** One of the logbook, opened here. */
    take: (next: GaugePlanDraft) => keep({ at: plans.length, plans: [...plans, next] }),
    /** Away from this tablet: what was recorded stays in the logbook. */
    remove: () => {
      const left = plans.filter((_, index) => index !== current)
      keep({ at: 0, plans: left.length > 0 ? left : [fresh([])] })
    },
  }
}

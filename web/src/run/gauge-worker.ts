import type { Macros, Probing } from '@dogleg/core/control'
import {
  type GaugeCase,
  type GaugePlan,
  type GaugeProof,
  type GaugeTime,
  gaugeTime,
  proveGauge,
  type WrittenGauge,
} from '@dogleg/core/gauge'
import type { ProveCase } from '@dogleg/core/prove'
import { expose } from 'comlink'

/** All that a gauging program is shown with. */
export interface GaugeQuestion {
  plan: GaugePlan
  written: Pick<WrittenGauge, 'arranged' | 'variables'>
  where: GaugeCase
  of: ProveCase
  probing: Probing
  macros: Macros
}

// A program is run against dozens of parts here, so that the page does not stand still.
const gauger = {
  prove({ plan, written, where, of }: GaugeQuestion, onProgress: (share: number) => void): GaugeProof {
    let last = 0
    return proveGauge(plan, written, where, of, (share) => {
      const now = performance.now()
      if (now - last > 50) {
        last = now
        onProgress(share)
      }
      return true
    })
  },
  time({ plan, where, probing, macros }: GaugeQuestion): GaugeTime {
    return gaugeTime(plan, where, probing, macros)
  },
}
export type Gauger = typeof gauger

expose(gauger)

import type { Finding } from '@dogleg/core/fact'
import {
  type MendedPallets,
  mendPallets,
  type PalletControl,
  type PalletPlan,
  type PalletReading,
  readPallets,
} from '@dogleg/core/pallet'
import { expose } from 'comlink'

export interface PalletQuestion {
  plan: PalletPlan
  control: PalletControl
  /** O number of a main program, and the lines under its caution. */
  number: number
  about: string[]
}

export interface PalletAnswer {
  reading: PalletReading
  /** The programs as they would be mended; where they can't be, why. */
  mended: { ok: true; mended: MendedPallets } | { ok: false; findings: Finding[] }
}

// Programs that call each other are run through many times over, so that the page does not stand still.
const pallets = {
  read({ plan, control, number, about }: PalletQuestion): PalletAnswer {
    const reading = readPallets(plan, control)
    // What is right needs no mending.
    const wanted = plan.main === null && !reading.repeats
    return {
      reading,
      mended: wanted ? mendPallets(plan, number, about, control) : { ok: false, findings: [] },
    }
  },
}
export type PalletReader = typeof pallets

expose(pallets)

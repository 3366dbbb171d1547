import type { Profile } from '../control/index.ts'
import { compact, testMill, twoLine } from '../program/testing.ts'
import { newPalletPlan, type PalletPlan, readPalletPlan } from './plan.ts'
import type { PalletControl } from './trace.ts'

/** Plans and controls for tests of pallets. */

const palletMill = { ...testMill, pallets: { count: 4, swap: 10 } }

/** A profile that calls up to four pallets. */
const withPallets = (profile: Profile, levels = profile.reading.levels): Profile => ({
  ...profile,
  reading: { ...profile.reading, levels, pallets: [61, 62, 63, 64] },
})

export const onPallets = (profile = compact, levels?: number): PalletControl => ({
  profile: withPallets(profile, levels),
  machine: palletMill,
  unit: 'inch',
})

export const palletControls = [compact, twoLine].map((profile) => onPallets(profile))

/** A program of a pallet: some moves, then how it ends. */
export const programOf = (number: number, end: string, moves = 'G0 X1. Y1.\nG1 Z-.5 F10.\nG0 Z1.') =>
  `%\nO${number} (OP)\nG20 G90 G17 G40 G49 G80 G69 G94\n${moves}\n${end}\n%\n`

/** A plan of programs in the order of the pallets; the pallet table names each by its number. */
export function planOf(texts: readonly string[], main: PalletPlan['main'] = null): PalletPlan {
  const draft = newPalletPlan(texts.length)
  const { plan, problems } = readPalletPlan(
    {
      ...draft,
      main,
      pallets: texts.map((text, index) => ({
        draft: {
          ...draft.pallets[0]?.draft,
          operation: `op ${index + 1}`,
          fixture: `fixture ${index + 1}`,
          parts: '2',
          table: String(main?.number ?? Number(/O(\d+)/.exec(text)?.[1] ?? 1)),
          unload: '20',
          load: '40',
          aside: '0',
          finishes: index === texts.length - 1,
        },
        program: { title: `op ${index + 1}`, text },
      })),
    },
    'inch',
  )
  if (!plan) throw new Error(JSON.stringify(problems))
  return plan
}

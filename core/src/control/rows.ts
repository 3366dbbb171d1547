import { defineRow } from '../rows/index.ts'
import { withUsual, withUsualMoves } from './builtin.ts'
import type { OwnCode } from './own-codes.ts'
import { type Profile, profile } from './profile.ts'

/** Both come by their schema: what is the same is written the same. */
const isSame = (a: object, b: object) => JSON.stringify(a) === JSON.stringify(b)

/** Whether a profile says the same as another but for its codes, what else of programs it understands, and what it is called: programs are written alike by both. */
const writesTheSame = (a: Profile, b: Profile) => {
  const written = ({ version: _, name: __, ownCodes: ___, writesSince: ____, reading, ...of }: Profile) => {
    const { compensation: _____, positions: ______, threads: _______, driven: ________, ...rest } = reading
    return { ...of, reading: rest }
  }
  return isSame(written(a), written(b))
}

const isSaid = (own: OwnCode, before: readonly OwnCode[] = []) => before.some((each) => isSame(each, own))

export const profiles = defineRow({
  noun: 'profiles',
  one: 'profile',
  schema: profile,
  // The first had no list of the machine's own codes, and less of how it reads, as the second had: each gets what is usual for its kind of control.
  upcast: [(older) => ({ ...withUsual(older), writesSince: older.version }), withUsualMoves],
  // On whose word a code was taken is not for the page to say.
  follows: (row, before, by) => ({
    ...row,
    writesSince: before && writesTheSame(row, before) ? before.writesSince : row.version,
    ownCodes: row.ownCodes.map((own) => (isSaid(own, before?.ownCodes) ? own : { ...own, by: by ?? '' })),
  }),
  inFile: { which: 'named', most: 1 },
})

import { storage } from '../log/storage.ts'

const KEY = 'dogleg.looked-round'

/** Somebody at this tablet chose to look round the demo: the question is not asked again here. */
export const lookRound = () => {
  storage.set(KEY, 'yes')
}

export const hasLookedRound = () => storage.get(KEY) !== null

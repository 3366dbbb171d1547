/** Set by `npm run test:thorough`. */
const { process } = globalThis as { process?: { env: Record<string, string | undefined> } }
const thoroughly = process?.env.DOGLEG_THOROUGH === '1'
/** Set by `npm run mutate`, which runs them hundreds of times: so many times fewer, since what a change breaks shows early. */
const fewer = Number(process?.env.MUTATE_FEWER ?? 1)

/** So many times on every run, and so many where the proof is wanted at the depth at which it was first given. */
export const times = (usual: number, thorough: number): number =>
  thoroughly ? thorough : Math.ceil(usual / fewer)

/** Random cases that a property is tried with, as fast-check takes it; 100 and 1,000 where a property says nothing. */
export const depth = (usual: number, thorough: number) => ({ numRuns: times(usual, thorough) })

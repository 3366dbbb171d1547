/**
 * The server's time in ms since 1970, as it is written and told: it never falls, though the clock of the computer may be set back,
 * so that what was received later has the later time. `last` is the latest that was ever written.
 */
export function serverTime(
  clock: () => number,
  last: number,
  steady = () => performance.now(),
): () => number {
  let told = last
  let toldAt = steady()
  return () => {
    const now = steady()
    // Set back, it goes on from what was told, as fast as time passes.
    told = Math.max(clock(), Math.floor(told + (now - toldAt)))
    toldAt = now
    return told
  }
}

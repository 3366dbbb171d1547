/** Lets one piece of work in at a time, in the order of asking. One that fails does not hold up the next. */
export function inTurn() {
  let last: Promise<unknown> = Promise.resolve()
  return <T>(work: () => Promise<T>): Promise<T> => {
    const mine = last.then(work)
    last = mine.catch(() => {})
    return mine
  }
}

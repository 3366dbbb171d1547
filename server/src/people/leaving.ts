/** What ends when nobody is at a tablet any more, or it is shut out: what it is told goes on for as long as it listens. */
export function leaving() {
  const ends = new Map<string, Set<() => void>>()
  return {
    /** Does something once when the tablet is left; returns how not to. */
    on: (tablet: string, end: () => void) => {
      const of = ends.get(tablet) ?? new Set()
      ends.set(tablet, of.add(end))
      return () => {
        of.delete(end)
        if (of.size === 0) ends.delete(tablet)
      }
    },
    left: (tablet: string) => {
      const of = ends.get(tablet) ?? []
      ends.delete(tablet)
      for (const end of of) end()
    },
  }
}
export type Leaving = ReturnType<typeof leaving>

import type { PathPicture } from '@dogleg/core/prove'

/** Pieces of one kind, one after the other, that look alike: `from` up to but not including `to`. */
export interface Lot {
  of: 'rapid' | 'feed' | 'written'
  done: boolean
  from: number
  to: number
}

type Counts = Pick<PathPicture, 'rapidBefore' | 'feedBefore'> & Partial<Pick<PathPicture, 'written'>>

/** How many pieces of each kind are done when a row begins. */
function doneAt({ rapidBefore, feedBefore }: Counts, row: number) {
  const at = Math.max(0, Math.min(row, feedBefore.length - 1))
  return { rapid: rapidBefore[at] ?? 0, feed: feedBefore[at] ?? 0 }
}

const notEmpty = ({ from, to }: Lot) => to > from

/** The whole picture as it looks when a row begins: what is done over what is to come, feed over rapids. */
export function wholeLots(counts: Counts, row: number): Lot[] {
  const done = doneAt(counts, row)
  const all = { rapid: counts.rapidBefore.at(-1) ?? 0, feed: counts.feedBefore.at(-1) ?? 0 }
  const path = (['rapid', 'feed'] as const).flatMap((of) => [
    { of, done: false, from: done[of], to: all[of] },
    { of, done: true, from: 0, to: done[of] },
  ])
  const written = { of: 'written' as const, done: false, from: 0, to: (counts.written?.length ?? 0) / 6 }
  return [written, ...path].filter(notEmpty)
}

/** What a step from one row to another changes, painted over what stands. */
export function stepLots(counts: Counts, before: number, row: number): Lot[] {
  const [a, b] = [doneAt(counts, before), doneAt(counts, row)]
  return (['rapid', 'feed'] as const)
    .map((of) => ({ of, done: row > before, from: Math.min(a[of], b[of]), to: Math.max(a[of], b[of]) }))
    .filter(notEmpty)
}

/** The first so many pieces, and what is left. */
export function cutLots(lots: readonly Lot[], pieces: number): { now: Lot[]; rest: Lot[] } {
  const now: Lot[] = []
  const rest: Lot[] = []
  let room = pieces
  for (const lot of lots) {
    const split = lot.from + Math.min(room, lot.to - lot.from)
    room -= split - lot.from
    if (split > lot.from) now.push({ ...lot, to: split })
    if (split < lot.to) rest.push({ ...lot, from: split })
  }
  return { now, rest }
}

import { findOffset, isFinding, type Profile } from '../control/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import type { ProbeStart, ProbeTask } from './task.ts'

const sign = (direction: '+' | '-') => (direction === '+' ? 1 : -1)

type Place = { X: number; Y: number }

/** Where the top of a block or a corner is touched, on the drawing, and where the probe stands at the start. */
export function topPlaceOf({ feature, x, y, directionX, directionY, inset = 0 }: ProbeTask): Place {
  if (feature !== 'corner-top') return { X: x, Y: y }
  return { X: x + sign(directionX) * inset, Y: y + sign(directionY) * inset }
}

/**
 * The offset as it follows from where the probe was put by hand: roughly, and near enough for a program that touches. In the
 * setup's unit, machine positions: X and Y where the spindle stands less that place on the drawing; Z less the probe's length and the
 * height that its tip stands at, in the shop's own convention for lengths (trade.md 4).
 */
export function roughZero(task: ProbeTask, { X, Y, Z, length }: ProbeStart): Record<LinearAxis, number> {
  const place = topPlaceOf(task)
  return { X: X - place.X, Y: Y - place.Y, Z: Z - length - task.top - task.clearance }
}

/** One thing that a program of a block or a corner does, on the drawing; `calls` name the macro that measures. */
export type WholeStep =
  | { does: 'move'; says: string; words: Partial<Record<LinearAxis, number>> }
  | {
      does: 'measure'
      macro: 'surface' | 'webPocket' | 'outsideCorner'
      says: string
      words: Record<string, number>
    }
  /** Keeps the size that the macro has just left, or stops for it to be read. */
  | { does: 'keep'; what: 'length' | 'width' }

/**
 * What is touched and in which order: the top first, because how high the probe stands is known by eye and the depth of all other
 * touches counts from there; then the faces, each time from over what was found. Common practice for the touches; the order is derived.
 */
export function wholeSteps(task: ProbeTask, stylus: number): WholeStep[] {
  const { x, y, top, depth, gap, size, sizeY = 0, within = 0 } = task
  const clear = top + task.clearance
  const overTop = topPlaceOf(task)
  const away: WholeStep = {
    does: 'move',
    says: 'protected move away, to the clear height',
    words: { Z: clear },
  }
  const begin: WholeStep[] = [
    { does: 'move', says: 'protected move over the top, spindle at its top', words: overTop },
    { does: 'move', says: 'protected move down to where the probe was put', words: { Z: clear } },
    { does: 'measure', macro: 'surface', says: 'measure the top', words: { Z: top, Q: within } },
    away,
  ]
  if (task.feature === 'block') {
    const across = { Z: top + depth, R: gap, Q: within }
    const middle: WholeStep = { does: 'move', says: 'over the middle as it was found', words: { X: x, Y: y } }
    return [
      ...begin,
      {
        does: 'measure',
        macro: 'webPocket',
        says: 'measure the length, along X',
        words: { X: size, ...across },
      },
      { does: 'keep', what: 'length' },
      middle,
      {
        does: 'measure',
        macro: 'webPocket',
        says: 'measure the width, along Y',
        words: { Y: sizeY, ...across },
      },
      { does: 'keep', what: 'width' },
      { ...middle, says: 'over the middle: it ends here' },
    ]
  }
  const off = gap + stylus / 2
  const beside = { X: x - sign(task.directionX) * off, Y: y - sign(task.directionY) * off }
  return [
    ...begin,
    { does: 'move', says: 'protected move out past the corner', words: beside },
    { does: 'move', says: 'protected move down to where the search begins', words: { Z: top + depth } },
    { does: 'measure', macro: 'outsideCorner', says: 'measure both faces', words: { X: x, Y: y, Q: within } },
    away,
    { does: 'move', says: 'over the corner: it ends here', words: { X: x, Y: y } },
  ]
}

/** Between which places of the drawing the spindle goes along an axis in such a program. */
export function spanOf(
  task: ProbeTask,
  axis: 'X' | 'Y',
  stylus: number,
): readonly [least: number, greatest: number] {
  const { feature, size, sizeY = 0, gap } = task
  const at = axis === 'X' ? task.x : task.y
  const off = gap + stylus / 2
  if (feature === 'block') {
    const reach = (axis === 'X' ? size : sizeY) / 2 + off
    return [at - reach, at + reach]
  }
  const places = [topPlaceOf(task)[axis], at - sign(task[`direction${axis}`]) * off]
  return [Math.min(...places), Math.max(...places)]
}

/** Where a block of the program loads an offset: its L and P words; null where the control takes none from a program. */
export function loadAddress(profile: Profile, offset: string): { code: string; l: number; p: number } | null {
  const address = findOffset(profile, offset)
  const { loadOffset } = profile
  if (isFinding(address) || !loadOffset) return null
  const { code, extendedL, standardL } = loadOffset
  return { code, l: address.extended ? extendedL : standardL, p: address.p }
}

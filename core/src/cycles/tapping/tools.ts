import { convertLength, type LengthUnit, roundTo } from '../../quantity/index.ts'
import { drillName } from '../drilling/index.ts'
import { findThread } from './threads.ts'

/** What a tool that is made for a set of holes is known by before anybody measures it. Lengths in `unit`. */
export interface ToolForThread {
  name: string
  unit: LengthUnit
  diameter: number
  /** Length a turn, of a tap. */
  pitch: number | null
}

/** Sizes of a new tool have no more decimal places than this, of its unit: nothing of a conversion is left in them. */
const PLACES = 6

/** The unit in which a thread is named, with its sizes; an own thread is in that of the form. */
function namedIn(id: string, unit: LengthUnit): { of: string; unit: LengthUnit } {
  const found = findThread(id)
  return found ? { of: `${found.id} `, unit: found.unit } : { of: '', unit }
}

/** The tap of a thread: its outside diameter and pitch, in the unit in which the thread is named. `thread` is in `unit`. */
export function tapFor(
  thread: { id: string; major: number; pitch: number },
  unit: LengthUnit,
): ToolForThread {
  const named = namedIn(thread.id, unit)
  const own = (value: number) => roundTo(convertLength(value, unit, named.unit), PLACES)
  return {
    name: `${named.of}tap`,
    unit: named.unit,
    diameter: own(thread.major),
    pitch: own(thread.pitch),
  }
}

/** The drill of a hole that is to be tapped with a thread, in the unit in which the thread is named. `diameter` is in `unit`. */
export function drillFor(diameter: number, thread: { id: string }, unit: LengthUnit): ToolForThread {
  const named = namedIn(thread.id, unit)
  const own = roundTo(convertLength(diameter, unit, named.unit), PLACES)
  const name = drillName(diameter, unit)
  return { name: name ? `${name} drill` : 'drill', unit: named.unit, diameter: own, pitch: null }
}

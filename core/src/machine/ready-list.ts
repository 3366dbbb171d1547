import { z } from 'zod'

/** What makes a thing on the list due again after it was ticked. Another person at the tablet always does. */
export const dueAgain = z.enum(['stood', 'operator', 'alarm'])
export type DueAgain = z.infer<typeof dueAgain>

/** One line of the walk-round or of powering up. */
export const readyItem = z.object({
  id: z.string().min(1).max(40),
  part: z.enum(['walk-round', 'power-up']),
  says: z
    .string()
    .trim()
    .min(1, 'Say what is to be done, or take the line out.')
    .max(120, 'Keep it under 120 characters.'),
  again: z.array(dueAgain).describe('after which of these it is due again'),
})
export type ReadyItem = z.infer<typeof readyItem>

export const readyList = z.array(readyItem).min(1, 'Leave at least one line.').max(20, 'At most 20 lines.')

const walkRound = (id: string, says: string): ReadyItem => ({
  id,
  part: 'walk-round',
  says,
  again: ['stood', 'operator', 'alarm'],
})
const powerUp = (id: string, says: string, ...also: DueAgain[]): ReadyItem => ({
  id,
  part: 'power-up',
  says,
  again: ['stood', 'alarm', ...also],
})

/** The usual list (common practice): look before power, clear alarms, home with Z first, warm up. */
export const USUAL_READY_LIST: Record<'mill' | 'lathe', readonly ReadyItem[]> = {
  mill: [
    walkRound('loose', 'Nothing loose in the work area: handles, wrenches, parts, chips'),
    walkRound('travel', 'Nothing that an axis could meet on its way home'),
    walkRound('doors', 'Doors and interlocks close and work'),
    walkRound('levels', 'Coolant, way oil and air as they should be'),
    powerUp('alarms', 'Power on, emergency stop released, alarms read and cleared'),
    powerUp('home', 'Homed: Z first, then X and Y, the rotary axis too'),
    powerUp('warm-up', 'Light on, warm-up run'),
  ],
  lathe: [
    walkRound('loose', 'Nothing loose in the work area: chuck key, wrenches, parts, chips'),
    walkRound('travel', 'Nothing that the turret could meet on its way home'),
    walkRound('doors', 'Doors and interlocks close and work'),
    walkRound('levels', 'Coolant, way oil, hydraulics and air as they should be'),
    powerUp('alarms', 'Power on, emergency stop released, alarms read and cleared'),
    powerUp('home', 'Homed: X first, clear of the chuck, then Z'),
    powerUp('warm-up', 'Light on, warm-up run'),
  ],
}

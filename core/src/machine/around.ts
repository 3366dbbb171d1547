import { z } from 'zod'

const name = z.string().trim().min(1, 'Give it a name.').max(30, 'Keep the name under 30 characters.')

/**
 * Something that a vise can meet at one end of the table's travel in Y: a way cover, the head, the door.
 * Places along the table are counted from its front edge, plus to the back; heights from the table's top.
 */
export const obstacle = z
  .object({
    name,
    side: z.enum(['back', 'front']).describe('the end of the travel at which it is met'),
    at: z
      .number()
      .describe('where it stands along the table, with the table at that end, in the machine unit'),
    bottom: z.number().describe('height above the table, with Z at the top of its travel'),
    top: z.number(),
    comesDownWithZ: z.boolean().describe('true for what is carried by the head'),
  })
  .refine(({ bottom, top }) => bottom < top, {
    error: 'The upper edge must lie above the lower one.',
    path: ['top'],
  })
export type Obstacle = z.infer<typeof obstacle>

/** What stands round the table of a mill, in the machine's unit. */
export const surroundings = z
  .object({
    tableDepth: z
      .number()
      .positive('The depth of the table must be more than zero.')
      .describe('front to back'),
    obstacles: z.array(obstacle).max(8, 'At most eight.'),
  })
  .superRefine(({ obstacles }, context) => {
    const nearest = Math.min(...obstacles.filter(({ side }) => side === 'back').map(({ at }) => at))
    for (const [index, { side, name, at }] of obstacles.entries()) {
      if (side === 'front' && at >= nearest)
        context.addIssue({
          code: 'custom',
          path: ['obstacles', index, 'at'],
          message: `${name} overlaps what is met at the back: nothing would fit between them. Check both places.`,
        })
    }
  })
export type Surroundings = z.infer<typeof surroundings>

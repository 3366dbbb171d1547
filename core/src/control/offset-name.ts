import { z } from 'zod'

/** An offset as an entry names it. */
export const offsetName = z
  .string()
  .regex(
    /^(G\d{2,3}(\.\d)?( P\d{1,3})?|T\d{1,4})$/,
    'An offset is written like G54 or G154 P3; the geometry of a lathe tool like T1.',
  )

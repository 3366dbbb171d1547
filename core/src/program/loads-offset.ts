import type { Run } from './run.ts'

/** A program that writes an offset: the reader goes on with the setup's own, and says so. */
export const loadsOffset = (run: Run, place: { at?: [number, number] } = {}) =>
  run.wrong(
    'loads-offset',
    'look',
    'The program writes an offset: what the setup knows of it is used as it was before.',
    { ...place, does: 'From here on the control uses what this line writes.' },
  )

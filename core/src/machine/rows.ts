import { defineRow } from '../rows/index.ts'
import { machine } from './machine.ts'
import { toolShape } from './tool.ts'

export const machines = defineRow({
  noun: 'machines',
  one: 'machine',
  schema: machine,
  // The first knew of no second home.
  upcast: [(older) => older],
  inFile: { which: 'named', most: 1 },
  needs: ({ profileId }) => [
    {
      noun: 'profiles',
      id: profileId,
      code: 'profile-unknown',
      says: `There is no profile "${profileId}". Choose one of the list.`,
    },
  ],
})

export const tools = defineRow({
  noun: 'tools',
  one: 'tool',
  schema: toolShape,
  // In the first an insert was programmed at its corner.
  upcast: [
    (older) =>
      older.onLathe && typeof older.onLathe === 'object'
        ? { ...older, onLathe: { ...older.onLathe, point: 'corner' } }
        : older,
  ],
  inFile: { which: 'of-machine', most: 1000 },
  // Two tools of one number on a machine would be one to every program.
  clashes: ({ machineId, number }, other) =>
    machineId === other.machineId && number === other.number
      ? `T${number} of this machine is ${other.name} already. Give this tool another number, or correct that one.`
      : undefined,
})

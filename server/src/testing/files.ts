import { demoReference } from '@dogleg/core/demo'

/** The file of a setup on a machine of the demo, with that machine and its profile and no other rows. */
export function setupFileOf(entries: readonly unknown[], machineId = 'mill-1') {
  const { machines, profiles } = demoReference
  const machine = machines.find(({ id }) => id === machineId)
  return {
    format: 'dogleg-setup',
    version: 1,
    made: new Date().toISOString(),
    by: 'LB',
    sheet: {},
    entries,
    reference: {
      machines: [machine],
      profiles: profiles.filter(({ id }) => id === machine?.profileId),
      vises: [],
      collets: [],
      tools: [],
      materials: [],
    },
  }
}

import { axesOf, type Machine, POSITION_DIGITS, type PositionsRead } from '@dogleg/core/machine'
import { convertLength, roundTo } from '@dogleg/core/quantity'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
import { currentDocument, devicesDocument } from '../simulated/mtconnect.ts'
import { machineOf, type SimulatedMachines } from '../simulated/sessions.ts'
import { callAgent } from './call-agent.ts'
import { type AgentDevice, chooseDevice, readCurrent, readDevices } from './read-documents.ts'

/** An agent that hands out the same document for so long is not believed. */
const FROZEN_MS = 10_000

interface Known {
  device: AgentDevice
  /** When the documents began to carry this time. */
  created: string
  since: number
}

function told(
  machine: Machine,
  device: AgentDevice,
  current: string,
  radius: boolean,
): Pick<PositionsRead, 'positions' | 'since' | 'rotary'> & { created: string } {
  const now = readCurrent(current, device)
  if (!now.available)
    throw new Problem(
      503,
      'machine-unavailable',
      `The agent runs, but has lost the machine ${device.name}. Read the position off the control and type it.`,
    )
  const positions: PositionsRead['positions'] = {}
  const since: PositionsRead['since'] = {}
  for (const { axis, id, unit } of device.items) {
    const found = now.positions.get(id)
    if (!machine.axes[axis] || !found || found.value === null) continue
    const value = convertLength(found.value, unit, machine.unit)
    positions[axis] = roundTo(radius && axis === 'X' ? 2 * value : value, POSITION_DIGITS[machine.unit])
    since[axis] = found.since
  }
  const angle = machine.rotary && now.positions.get(device.angles.get(machine.rotary.word) ?? '')
  if (Object.keys(positions).length === 0)
    throw new Problem(
      503,
      'no-positions',
      `The agent tells no machine position of ${axesOf(machine).join(', ')} now. Type it.`,
    )
  return {
    positions,
    since,
    created: now.created,
    ...(angle && angle.value !== null
      ? { rotary: { degrees: roundTo(angle.value, 4), since: angle.since } }
      : {}),
  }
}

/** Reads a machine's positions from where its page says: the simulated machine of this server, or an agent in the shop. */
export const positionRoutes: FastifyPluginAsync<{
  reference: ReferenceStore
  simulated: SimulatedMachines
  agents: ReadonlySet<string>
  clock: () => number
}> = async (app, { reference, simulated, agents, clock }) => {
  const known = new Map<string, Known>()

  async function fromSimulated(id: string): Promise<PositionsRead> {
    const session = await simulated.wanted(id)
    const machine = machineOf(session)
    // By the documents that it publishes, as from any other machine.
    const device = chooseDevice(readDevices(devicesDocument(session, clock())), '')
    const { created: _, ...read } = told(machine, device, currentDocument(session, clock()), false)
    return {
      unit: machine.unit,
      ...read,
      name: `the simulated ${machine.name}`,
      readAt: new Date(clock()).toISOString(),
      notes: [],
    }
  }

  async function fromAgent(machine: Machine): Promise<PositionsRead> {
    const source = machine.positions
    if (source?.from !== 'agent') throw new Error('asked of a machine with an agent only')
    const key = `${source.address} ${source.device}`
    const before = known.get(key)
    const device =
      before?.device ??
      chooseDevice(readDevices(await callAgent(source.address, 'probe', agents)), source.device)
    const current = await callAgent(source.address, 'current', agents)
    let read: ReturnType<typeof told>
    try {
      read = told(machine, device, current, machine.kind === 'lathe' && source.turnedX === 'radius')
    } catch (error) {
      // Another machine may answer there by now.
      known.delete(key)
      throw error
    }
    const now = clock()
    const since = before?.created === read.created ? before.since : now
    known.set(key, { device, created: read.created, since })
    if (now - since > FROZEN_MS)
      throw new Problem(
        503,
        'agent-frozen',
        `The agent has handed out the same document for ${Math.round((now - since) / 1000)} s: what it says may be old. Type the position.`,
      )
    const { created: _, ...found } = read
    return {
      unit: machine.unit,
      ...found,
      name: device.name || machine.name,
      readAt: new Date(now).toISOString(),
      notes: device.notes,
    }
  }

  answers(app, 'positions', async ({ params }) => {
    const machine = await reference.newest('machines', params.id)
    if (!machine) throw new Problem(404, 'not-found', `There is no machine "${params.id}" here.`)
    if (!machine.positions)
      throw new Problem(
        404,
        'no-source',
        `Nobody said where the positions of ${machine.name} can be read. Say it on the machine's page, or type them.`,
      )
    return machine.positions.from === 'simulated' ? fromSimulated(machine.id) : fromAgent(machine)
  })

  /** Those of an exercise's machine. */
  answers(app, 'simulatedPositions', async ({ params }) => fromSimulated(params.id))
}

import { type LinearAxis, linearAxis, type RotaryAxis, rotaryAxis } from '@dogleg/core/machine'
import type { LengthUnit } from '@dogleg/core/quantity'
import { XMLParser } from 'fast-xml-parser'
import { Problem } from '../problem.ts'

/** What names a machine's position on an axis in its agent's documents. */
interface PositionItem {
  axis: LinearAxis
  id: string
  unit: LengthUnit
}

export interface AgentDevice {
  name: string
  uuid: string
  items: PositionItem[]
  /** Data items that tell the angle of a rotary in degrees, by its word. */
  angles: ReadonlyMap<RotaryAxis['word'], string>
  notes: string[]
}

/** One position as an agent tells it: since when it stands there. */
interface AgentPosition {
  /** null where the agent says UNAVAILABLE. */
  value: number | null
  since: string
}

export interface AgentNow {
  created: string
  available: boolean
  positions: ReadonlyMap<string, AgentPosition>
}

type Node = { readonly [name: string]: unknown }

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: false,
})

const notUnderstood = (why: string) =>
  new Problem(
    502,
    'agent-not-understood',
    `What the address answers is no MTConnect document: ${why} Check the address of the machine's agent.`,
  )

function parsed(text: string, root: string): Node {
  if (/<!DOCTYPE/i.test(text)) throw notUnderstood('it declares a document type.')
  let tree: Node
  try {
    tree = parser.parse(text, true) as Node
  } catch {
    throw notUnderstood('it is not well-formed XML.')
  }
  const found = tree[root]
  if (isNode(found)) return found
  const errors = tree.MTConnectError
  if (isNode(errors)) throw notUnderstood('it is an error of the agent.')
  throw notUnderstood(`${root} is missing.`)
}

const isNode = (of: unknown): of is Node => typeof of === 'object' && of !== null && !Array.isArray(of)
const nodes = (of: unknown): Node[] => (Array.isArray(of) ? of : [of]).filter(isNode)
const child = (of: Node, name: string): Node | undefined => nodes(of[name])[0]
const text = (of: Node, name: string): string => (typeof of[name] === 'string' ? (of[name] as string) : '')

/** Every element below a node, with its name, however deep. */
function* below(of: Node): Generator<[name: string, node: Node]> {
  for (const [name, value] of Object.entries(of))
    for (const node of nodes(value)) {
      yield [name, node]
      yield* below(node)
    }
}

const UNITS: Record<string, LengthUnit> = { MILLIMETER: 'mm', INCH: 'inch' }

/** The data item of a type that tells what is, in machine positions where one says so. */
function actualOf(component: Node, type: 'POSITION' | 'ANGLE'): Node | undefined {
  const items = [...below(component)].flatMap(([name, node]) => (name === 'DataItem' ? [node] : []))
  const candidates = items.filter(
    (each) =>
      text(each, 'type') === type &&
      ['', 'ACTUAL'].includes(text(each, 'subType')) &&
      text(each, 'coordinateSystem') !== 'WORK',
  )
  return candidates.find((each) => text(each, 'coordinateSystem') === 'MACHINE') ?? candidates[0]
}

/** The item of a rotary that tells its angle, where that is in degrees; with a note where the agent leaves open which angle. */
function angleOf(word: string, component: Node): { id: string; note?: string } | undefined {
  const found = actualOf(component, 'ANGLE')
  if (!found || (text(found, 'units') || 'DEGREE') !== 'DEGREE') return undefined
  return {
    id: text(found, 'id'),
    ...(text(found, 'coordinateSystem') === 'MACHINE'
      ? {}
      : {
          note: `The agent does not say whether ${word} is a machine position: compare it with the machine page.`,
        }),
  }
}

/** The item of an axis that says where it is in machine positions; with a note where the agent leaves that open. */
function positionOf(axis: LinearAxis, component: Node): { item: PositionItem; note?: string } | undefined {
  const found = actualOf(component, 'POSITION')
  const unit = found && UNITS[text(found, 'units') || 'MILLIMETER']
  if (!found || !unit) return undefined
  return {
    item: { axis, id: text(found, 'id'), unit },
    ...(text(found, 'coordinateSystem') === 'MACHINE'
      ? {}
      : {
          note: `The agent does not say whether ${axis} is a machine position: compare it with the machine page.`,
        }),
  }
}

/** The machines of a `/probe` document, with where each tells its machine positions. Throws a Problem on anything else. */
export function readDevices(document: string): AgentDevice[] {
  const devices = child(parsed(document, 'MTConnectDevices'), 'Devices')
  return nodes(devices?.Device).map((device) => {
    const items: PositionItem[] = []
    const notes: string[] = []
    const angles = new Map<RotaryAxis['word'], string>()
    for (const [name, component] of below(device)) {
      const word = rotaryAxis.shape.word.safeParse(text(component, 'nativeName') || text(component, 'name'))
      if (name === 'Rotary' && word.success && !angles.has(word.data)) {
        const angle = angleOf(word.data, component)
        if (angle) angles.set(word.data, angle.id)
        if (angle?.note) notes.push(angle.note)
        continue
      }
      const axis = linearAxis.safeParse(text(component, 'nativeName') || text(component, 'name'))
      if (name !== 'Linear' || !axis.success || items.some((each) => each.axis === axis.data)) continue
      const found = positionOf(axis.data, component)
      if (!found) continue
      items.push(found.item)
      if (found.note) notes.push(found.note)
    }
    return { name: text(device, 'name'), uuid: text(device, 'uuid'), items, angles, notes }
  })
}

/** A decimal number as XML Schema has them, without words like INF. */
const DECIMAL = /^[-+]?(\d+(\.\d*)?|\.\d+)([eE][-+]?\d{1,2})?$/
/** No machine is longer, in mm or inch: a kilometre. */
const FURTHEST = 1e6

/** The position that an agent's text says; null where it says none, or one that no machine can have. */
function positionIn(text: string): number | null {
  const value = DECIMAL.test(text) ? Number(text) : Number.NaN
  return Math.abs(value) <= FURTHEST ? value : null
}

/** What a `/current` document says of one machine. Positions by the id of their data item. Throws a Problem on anything else. */
export function readCurrent(document: string, device: AgentDevice): AgentNow {
  const root = parsed(document, 'MTConnectStreams')
  const streams = nodes(child(root, 'Streams')?.DeviceStream)
  const own = streams.find((each) => text(each, 'uuid') === device.uuid || text(each, 'name') === device.name)
  if (!own) throw notUnderstood(`the stream of ${device.name || 'the machine'} is missing.`)
  const positions = new Map<string, AgentPosition>()
  let available = true
  for (const [name, node] of below(own)) {
    const value = text(node, '#text').trim()
    if (name === 'Availability') available = value !== 'UNAVAILABLE'
    if (name !== 'Position' && name !== 'Angle') continue
    positions.set(text(node, 'dataItemId'), {
      value: positionIn(value),
      since: text(node, 'timestamp'),
    })
  }
  return { created: text(child(root, 'Header') ?? {}, 'creationTime'), available, positions }
}

/** The machine among those of an agent that is meant. Throws a Problem that names what there is. */
export function chooseDevice(devices: readonly AgentDevice[], wanted: string): AgentDevice {
  const named = devices.filter(({ name, uuid }) => wanted === '' || name === wanted || uuid === wanted)
  const [only] = named
  if (only && named.length === 1) return only
  const names = devices.map(({ name }) => name).join(', ')
  throw new Problem(
    422,
    'agent-device',
    wanted === ''
      ? `The agent tells of ${devices.length} machines (${names}). Say on the machine's page which one it is.`
      : `The agent tells of no machine "${wanted}", but of ${names || 'none'}.`,
  )
}

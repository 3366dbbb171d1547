import { XMLBuilder } from 'fast-xml-parser'
import { type DataItem, dataItems, type Observation } from './observations.ts'
import { BUFFER, machineOf, type Session } from './sessions.ts'

/**
 * The documents of an MTConnect agent (ANSI/MTC1.4, version 1.4; structure from memory of parts 1 to 3): MTConnectDevices for
 * `/probe`, MTConnectStreams for `/current` and `/sample`, MTConnectError for what is refused.
 */
const builder = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true })

type Xml = Record<string, unknown>

const VERSION = '1.4.0.0'
const document = (root: string, content: Xml) =>
  builder.build({
    '?xml': { '@_version': '1.0', '@_encoding': 'UTF-8' },
    [root]: { '@_xmlns': `urn:mtconnect.org:${root}:1.4`, ...content },
  }) as string

const header = (instance: number, now: number, more: Record<string, number> = {}): Xml => ({
  '@_creationTime': new Date(now).toISOString(),
  '@_sender': 'dogleg',
  '@_instanceId': instance,
  '@_version': VERSION,
  '@_bufferSize': BUFFER,
  ...Object.fromEntries(Object.entries(more).map(([name, value]) => [`@_${name}`, value])),
})

const item = ({ id, category, type, subType, units, nativeUnits, coordinateSystem }: DataItem): Xml => ({
  '@_category': category,
  '@_id': id,
  '@_type': type,
  ...(subType ? { '@_subType': subType } : {}),
  ...(units ? { '@_units': units } : {}),
  ...(nativeUnits ? { '@_nativeUnits': nativeUnits } : {}),
  ...(coordinateSystem ? { '@_coordinateSystem': coordinateSystem } : {}),
})

const idOf = (of: string) => of.toLowerCase()

/** `/probe`: what the machine is made of, and what can be asked of each part. */
export function devicesDocument(session: Session, now: number): string {
  const items = dataItems(session.simulated)
  const machine = machineOf(session)
  const within = (component: DataItem['component'], of?: string) => ({
    DataItem: items
      .filter((each) => each.component === component && (of === undefined || each.of === of))
      .map(item),
  })
  const linear = items.filter(({ component }) => component === 'Linear')
  const rotary = items.filter(({ component }) => component === 'Rotary')
  return document('MTConnectDevices', {
    Header: header(session.instance, now, { assetBufferSize: 0, assetCount: 0 }),
    Devices: {
      Device: {
        '@_id': 'device',
        '@_name': machine.name,
        '@_uuid': session.id,
        Description: 'A simulated machine for practice: it moves nothing.',
        DataItems: within('Device'),
        Components: {
          Axes: {
            '@_id': 'axes',
            '@_name': 'axes',
            Components: {
              Linear: linear.map(({ of }) => ({
                '@_id': idOf(of),
                '@_name': of,
                DataItems: within('Linear', of),
              })),
              Rotary: rotary.map(({ of }) => ({
                '@_id': idOf(of),
                '@_name': of,
                DataItems: within('Rotary', of),
              })),
            },
          },
          Controller: {
            '@_id': 'controller',
            '@_name': 'controller',
            DataItems: within('Controller'),
            Components: { Path: { '@_id': 'path', '@_name': 'path', DataItems: within('Path') } },
          },
        },
      },
    },
  })
}

function observed(
  { id, type, subType }: DataItem,
  { sequence, value, at }: Observation,
  condition: boolean,
): Xml {
  return {
    '@_dataItemId': id,
    '@_timestamp': new Date(at).toISOString(),
    '@_sequence': sequence,
    ...(subType ? { '@_subType': subType } : {}),
    ...(condition ? { '@_type': type } : {}),
    ...(condition && value === 'NORMAL' ? {} : { '#text': value.replace(/^FAULT /, '') }),
  }
}

/** A stream of observations, grouped by component and within it by category, as the standard wants them. */
function streams(session: Session, observations: readonly Observation[]): Xml {
  const machine = machineOf(session)
  const items = dataItems(session.simulated)
  const components = [...new Set(items.map(({ component, of }) => `${component}/${of}`))]
  return {
    DeviceStream: {
      '@_name': machine.name,
      '@_uuid': session.id,
      ComponentStream: components.flatMap((key) => {
        const own = items.filter(({ component, of }) => `${component}/${of}` === key)
        const [first] = own
        if (!first) return []
        const lists: Record<string, Record<string, Xml[]>> = {}
        for (const each of observations) {
          const dataItem = own.find(({ id }) => id === each.id)
          if (!dataItem) continue
          const condition = dataItem.category === 'CONDITION'
          const list = condition ? 'Condition' : dataItem.category === 'SAMPLE' ? 'Samples' : 'Events'
          const element = condition ? (each.value === 'NORMAL' ? 'Normal' : 'Fault') : dataItem.element
          lists[list] ??= {}
          const within = lists[list]
          within[element] ??= []
          within[element].push(observed(dataItem, each, condition))
        }
        if (Object.keys(lists).length === 0) return []
        const { Samples, Events, Condition } = lists
        return [
          {
            '@_component': first.component,
            '@_name': first.component === 'Device' ? machine.name : first.of,
            '@_componentId': first.component === 'Device' ? 'device' : idOf(first.of),
            ...(Samples ? { Samples } : {}),
            ...(Events ? { Events } : {}),
            ...(Condition ? { Condition } : {}),
          },
        ]
      }),
    },
  }
}

const firstOf = ({ observations, next }: Session) => observations[0]?.sequence ?? next

const sequences = (session: Session, nextSequence: number) => ({
  nextSequence,
  firstSequence: firstOf(session),
  lastSequence: session.next - 1,
})

/** `/current`: the newest of every data item. */
export function currentDocument(session: Session, now: number): string {
  return document('MTConnectStreams', {
    Header: header(session.instance, now, sequences(session, session.next)),
    Streams: streams(session, [...session.newest.values()]),
  })
}

/** `/sample`: what was observed from a sequence number on. */
export function sampleDocument(session: Session, now: number, from: number, count: number): string {
  const wanted = session.observations.filter(({ sequence }) => sequence >= from).slice(0, count)
  return document('MTConnectStreams', {
    Header: header(session.instance, now, sequences(session, (wanted.at(-1)?.sequence ?? from - 1) + 1)),
    Streams: streams(session, wanted),
  })
}

/** Where `/sample` may begin. */
export const rangeOf = (session: Session) => ({ least: firstOf(session), most: session.next })

export type ErrorCode = 'NO_DEVICE' | 'OUT_OF_RANGE' | 'INVALID_REQUEST' | 'UNSUPPORTED'

export const errorDocument = (code: ErrorCode, says: string, now: number, instance = 0) =>
  document('MTConnectError', {
    Header: header(instance, now),
    Errors: { Error: { '@_errorCode': code, '#text': says } },
  })

import { ANGLE_METHODS, formatAngle, measureAngle } from '../angle/index.ts'
import { CYCLE_NAMES } from '../code/index.ts'
import { keyOf, REACTION_NAMES } from '../gauge/index.ts'
import { type Bolts, STOPS, squareness, uprightness } from '../hold/index.ts'
import {
  identify,
  type PickupSettings,
  pickUp,
  setterHeight,
  toolLength,
  workShift,
  ZERO_WORDS,
} from '../pickup/index.ts'
import { describeTyped, formatDuration, formatWithUnit, type TypedLength } from '../quantity/index.ts'
import type { Reference } from './derive.ts'
import type { Entry, EntryOf, ProgramKind } from './entries.ts'
import { SETTLED_NAMES } from './gauging.ts'
import { HAPPENINGS } from './happenings.ts'
import {
  centreWords,
  type Description,
  flatWords,
  partWords,
  pointWords,
  readingDetail,
} from './reading-words.ts'
import { numbersSaid } from './serials.ts'

const CAME = { typed: 'typed', pasted: 'pasted', file: 'from a file' } as const

function partsSaid({ parts }: EntryOf<'gauged'>): string {
  const [first, last] = [parts[0]?.label, parts.at(-1)?.label]
  return parts.length === 1 ? `Part ${first} measured` : `${parts.length} parts measured: ${first} to ${last}`
}

/** `says`: what came of it. `detail`: the points as typed. */
function angledWords({ offset, reading }: EntryOf<'angled'>, settings: PickupSettings): Description {
  const { value, doubt } = measureAngle(reading, settings)
  const detail =
    reading.method === 'edge'
      ? reading.points.map(pointWords)
      : reading.method === 'holes'
        ? [reading.first, reading.second].map(pointWords)
        : reading.method === 'features'
          ? reading.features.map(({ name, measured }) => `${name} at ${pointWords(measured)}`)
          : [`base ${describeTyped(reading.base)}`]
  return {
    says: `Part of ${offset} lies at ${formatAngle(value)} deg, within ${formatAngle(doubt.value)}`,
    detail: [ANGLE_METHODS[reading.method], ...detail].join(', '),
  }
}

const IDENTIFIED = { right: 'the right part', turned: 'the other way round', wrong: 'not the right part' }

export const TAKEN_HOW: Record<EntryOf<'program'>['how'], string> = {
  copied: 'copied',
  downloaded: 'downloaded',
  handed: 'loaded into the simulated machine',
}

const PROGRAMS: Record<ProgramKind, string> = {
  load: 'Program',
  angle: 'Turning program',
  turned: 'Turned program',
  probe: 'Probe program',
  coded: 'Program built from cycles',
  gauge: 'Gauging program',
  bar: 'Program of the bar stop',
  setting: 'Program for tool lengths',
}

const VERDICT_WORDS = { good: 'good', look: 'something to look at', stop: 'it says stop' }

const BOLT_WORDS: Record<Bolts, string> = {
  one: 'one bolt',
  snug: 'second bolt snug',
  tight: 'both bolts tight',
}

/** `says`: what came of a sweep. `detail`: the readings as typed. */
function sweptWords({ sweep }: EntryOf<'swept'>, { unit }: PickupSettings): Description {
  const squared = squareness(sweep, unit)
  const points = sweep.points.map(({ at, reading }) => `${describeTyped(at)} reads ${describeTyped(reading)}`)
  return {
    says: squared.ok
      ? `Jaw swept, ${BOLT_WORDS[sweep.bolts]}: out of square ${formatWithUnit(squared.outOfSquare.value, unit)} over the part`
      : `Jaw swept, ${BOLT_WORDS[sweep.bolts]}`,
    detail: [`bolt at ${describeTyped(sweep.pivot)}`, ...points].join(', '),
  }
}

/** `says`: what came of the two readings on the fixed jaw. `detail`: the readings as typed. */
function uprightWords(entry: EntryOf<'upright'>, { unit }: PickupSettings): Description {
  const { lean, lift } = uprightness(entry, unit)
  return {
    says: `Fixed jaw read: leans ${formatWithUnit(lean.value, unit)} over the part, ${lift.value < 0 ? 'goes down' : 'rises'} ${formatWithUnit(Math.abs(lift.value), unit)}`,
    detail: `${describeTyped(entry.up)} over ${describeTyped(entry.height)} up the face, ${describeTyped(entry.lift)} on top as it is clamped`,
  }
}

/** `says`: what was asked of the block. `detail`: where its zero is, and what else was said. */
function stockWords({ offset, asked }: EntryOf<'stock'>): Description {
  const { finished, offTop, offLow, zero, seat } = asked
  const sizes = [finished.X, finished.Y, ...(finished.Z ? [finished.Z] : [])].map(describeTyped).join(' by ')
  return {
    says: `Block of ${offset} held against a part of ${sizes}`,
    detail: [
      `X zero at the ${ZERO_WORDS.X[zero.X]}, Y at the ${ZERO_WORDS.Y[zero.Y]}, Z at the ${ZERO_WORDS.Z[zero.Z]}`,
      `${describeTyped(offTop)} off the top`,
      ...(offLow.X ? [`${describeTyped(offLow.X)} off the left`] : []),
      ...(offLow.Y ? [`${describeTyped(offLow.Y)} off the front`] : []),
      ...(seat ? [`seat at ${describeTyped(seat)}`] : []),
    ].join(', '),
  }
}

function grippedDetail({ stop, operation, bars, allowed }: EntryOf<'gripped'>): string {
  const known =
    bars.known === 'tolerance'
      ? `bar ${describeTyped(bars.diameter)}, spread ${describeTyped(bars.spread)}`
      : `${bars.diameters.length} bars measured: ${bars.diameters.map(describeTyped).join(', ')}`
  return `stop: ${STOPS[stop].name}, ${operation} operation, ${operation === 'first' ? 'to face' : 'length tolerance'} ${describeTyped(allowed)}, ${known}`
}

/** The name of a row of reference data by its id; the id itself where no row has it. */
export function namesIn(reference: Reference | undefined): (id: string) => string {
  const names = new Map(
    Object.values<readonly { id: string; name: string }[]>({ ...reference }).flatMap((rows) =>
      rows.map(({ id, name }) => [id, name] as const),
    ),
  )
  return (id) => names.get(id) ?? id
}

/** One line of the logbook for an entry. `describeTarget` words the entry that another one is about, `nameOf` names a row of reference data. */
export function describeEntry(
  entry: Entry,
  settings: PickupSettings,
  describeTarget: (id: string) => string,
  nameOf: (id: string) => string,
): Description {
  switch (entry.kind) {
    case 'opened':
      return {
        says: `${entry.again ? 'Job set up again' : 'Setup opened'}: ${entry.title}`,
        detail: `${nameOf(entry.machine.id)} version ${entry.machine.version}, ${entry.unit}, part zero within ${describeTyped(entry.tolerance)}`,
      }
    case 'ticked':
      return {
        says: `Ticked: ${entry.says}`,
        detail: entry.list === 'ready' ? 'walk-round and power-up' : '',
      }
    case 'acknowledged':
      return { says: `Read and acknowledged: ${describeTarget(entry.note)}`, detail: '' }
    case 'homed': {
      const { rotary, ...axes } = entry.shown
      const shown = Object.entries(axes) as [string, TypedLength | undefined][]
      return {
        says: 'Home positions read',
        detail: [
          ...shown.flatMap(([axis, of]) => (of ? [`${axis} ${describeTyped(of)}`] : [])),
          ...(rotary === undefined ? [] : [`rotary ${formatAngle(rotary)} deg`]),
        ].join(', '),
      }
    }
    case 'swept':
      return sweptWords(entry, settings)
    case 'upright':
      return uprightWords(entry, settings)
    case 'cleared':
      return {
        says: `Clearance of the vise: fixed jaw at ${describeTyped(entry.jawAt)} along the table`,
        detail: `${nameOf(entry.vise.id)}, ${describeTyped(entry.wanted)} wanted, Z down to ${describeTyped(entry.lowestZ)}`,
      }
    case 'gripped':
      return { says: `Collet and stop chosen: ${nameOf(entry.collet.id)}`, detail: grippedDetail(entry) }
    case 'lengths':
      return {
        says: `${entry.pairs.length} ${entry.what === 'face' ? 'face positions' : 'lengths'} measured on ${nameOf(entry.collet.id)}`,
        detail: entry.pairs
          .map(({ diameter, length }) => `${describeTyped(diameter)}: ${describeTyped(length)}`)
          .join(', '),
      }
    case 'pickup': {
      const { axis, value } = pickUp(entry.reading, settings)
      return {
        says: `${entry.offset} ${axis} is ${formatWithUnit(value, settings.unit)}`,
        detail: [
          readingDetail(entry.reading),
          ...(entry.moved ? [`part zero put ${describeTyped(entry.moved)} along ${axis}`] : []),
        ].join(', '),
      }
    }
    case 'tool-length': {
      const { value } = toolLength(entry, settings)
      const parts = Object.entries(entry).flatMap(([name, part]) => partWords(name, part))
      return {
        says: `T${entry.tool} is ${formatWithUnit(value, settings.unit)} long`,
        detail: parts.join(', '),
      }
    }
    case 'setter': {
      const { value, doubt } = setterHeight(entry.reading, settings)
      const parts = Object.entries(entry.reading).flatMap(([name, part]) => partWords(name, part))
      return {
        says: `Tool setter at ${formatWithUnit(value, settings.unit)}, within ${formatWithUnit(doubt.value, settings.unit)}`,
        detail: [entry.reading.how === 'master' ? 'by a master' : 'taken over', ...parts].join(', '),
      }
    }
    case 'centre-line':
      return centreWords(entry, settings)
    case 'flat':
      return flatWords(entry)
    case 'work-shift': {
      const { value, doubt } = workShift(entry.reading, settings)
      const parts = Object.entries(entry.reading).flatMap(([name, part]) => partWords(name, part))
      return {
        says: `Work shift ${formatWithUnit(value, settings.unit)}, within ${formatWithUnit(doubt.value, settings.unit)}`,
        detail: [`by ${entry.offset}`, ...parts].join(', '),
      }
    }
    case 'angled':
      return angledWords(entry, settings)
    case 'identified':
      return {
        says: `Part looked at: ${IDENTIFIED[identify(entry, settings.unit).as]}`,
        detail: entry.distances
          .map(
            ({ name, measured, drawing, within }) =>
              `${name} ${describeTyped(measured)}, drawing ${describeTyped(drawing)} within ${describeTyped(within)}`,
          )
          .join('; '),
      }
    case 'stock':
      return stockWords(entry)
    case 'checked':
      return {
        says:
          entry.result === 'agrees'
            ? `${entry.offset} checked with a pointed tool: it stands over part zero`
            : `${entry.offset} checked with a pointed tool: it stands off`,
        detail: [
          ...(entry.stood
            ? [
                `point ${describeTyped(entry.stood.height)} above, tool length ${describeTyped(entry.stood.toolLength)}`,
              ]
            : []),
          ...(entry.byHand ? ['gone there by hand, without the program'] : []),
          ...(entry.note ? [entry.note] : []),
        ].join('. '),
      }
    case 'program':
      return {
        says: `${PROGRAMS[entry.what ?? 'load']} ${entry.title ? `"${entry.title}"` : `for ${entry.offset}`} ${TAKEN_HOW[entry.how]}`,
        detail: `${entry.text.trimEnd().split('\n').length} lines, profile ${nameOf(entry.profile.id)} version ${entry.profile.version}`,
      }
    case 'coded':
      return {
        says: `Program built: ${entry.sheet.title}`,
        detail: [
          ...entry.sheet.items.map(({ cycle, off }) => `${CYCLE_NAMES[cycle]}${off ? ' (off)' : ''}`),
          nameOf(entry.material.id),
          entry.offset,
        ].join(', '),
      }
    case 'laid-out':
      return {
        says: `Work area laid out: ${entry.bodies.length} ${entry.bodies.length === 1 ? 'body' : 'bodies'}`,
        detail: entry.bodies.map(({ name }) => name).join(', '),
      }
    case 'proved':
      return {
        says: `Proved: ${entry.title}${entry.blockDelete ? ' with block delete on' : ''}, ${VERDICT_WORDS[entry.verdict]}`,
        detail: [
          `${entry.characters} characters, ${formatDuration(entry.seconds)}`,
          ...entry.worst.slice(0, 3).map(({ line, says }) => `line ${line}: ${says}`),
        ].join('; '),
      }
    case 'let-stand':
      return {
        says: `Looked at and let stand: line ${entry.line} of ${entry.title}`,
        detail: entry.says,
      }
    case 'numbered':
      return {
        says: `${numbersSaid(entry)} ${entry.fate === 'engraved' ? 'engraved' : 'left out'}`,
        detail: entry.note,
      }
    case 'gauging':
      return {
        says: `Gauging composed: ${entry.plan.head.title}`,
        detail: [
          ...entry.plan.features.map(({ params }) => `${keyOf(params.name)} ${REACTION_NAMES[params.react]}`),
          entry.offset,
        ].join(', '),
      }
    case 'gauged':
      return { says: partsSaid(entry), detail: `${entry.plan}, ${CAME[entry.came]}` }
    case 'settled':
      return {
        says: `Part ${entry.label}, out of tolerance: ${SETTLED_NAMES[entry.did]}`,
        detail: entry.note,
      }
    case 'corrected':
      return {
        says: `${entry.key} corrected by ${describeTyped(entry.amount)} after part ${entry.label}${entry.tool === null ? '' : `, T${entry.tool}`}`,
        detail: entry.note,
      }
    case 'palleted':
      return {
        says: `Pallets planned: ${entry.plan.pallets.length}, ${VERDICT_WORDS[entry.verdict]}`,
        detail: [
          ...entry.plan.pallets.map(
            ({ params, program }, index) =>
              `pallet ${index + 1}: ${params.operation}, ${program.title}, O${params.table} in the table`,
          ),
          ...(entry.plan.main ? [`main program O${entry.plan.main.number}`] : []),
          ...entry.worst.slice(0, 2),
        ].join('; '),
      }
    case 'start-checked':
      return {
        says: `Before the start: pallet ${entry.inside} inside, O${entry.loaded} loaded, interlock ${entry.interlock ? 'on' : 'off'}`,
        detail: '',
      }
    case 'timed':
      return {
        says: `${entry.title} timed: ${formatDuration(entry.seconds)} a cycle`,
        detail: `within ${formatDuration(entry.doubt)}, ${entry.cycles} ${entry.cycles === 1 ? 'cycle' : 'cycles'}, ${entry.how === 'typed' ? 'typed' : 'stopwatch'}`,
      }
    case 'saved':
      return {
        says: `Saved in ${entry.title}: ${entry.says}`,
        detail: `line ${entry.line}, ${formatDuration(entry.before.seconds)} before, ${formatDuration(entry.after.seconds)} after`,
      }
    case 'handed-over':
      return {
        says: 'Handed over',
        detail: [
          entry.note,
          ...(entry.stale.length > 0 ? [`stale when recorded: ${entry.stale.join(' ')}`] : []),
          ...(entry.left.length > 0 ? [`still open when recorded: ${entry.left.join(' ')}`] : []),
        ]
          .filter(Boolean)
          .join(' · '),
      }
    case 'happened':
      return {
        says: HAPPENINGS[entry.what].title + (entry.tool === undefined ? '' : `: T${entry.tool}`),
        detail: entry.note,
      }
    case 'note':
      return { says: 'Note', detail: entry.text }
    case 'struck':
      return { says: `Struck out: ${describeTarget(entry.target)}`, detail: entry.reason }
  }
}

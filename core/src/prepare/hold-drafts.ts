import type {
  Bolts,
  GripDraft,
  LengthsDraft,
  PlacedDraft,
  SweepDraft,
  UprightDraft,
  Vise,
} from '../hold/index.ts'
import { convertLength, formatLength, type LengthUnit } from '../quantity/index.ts'
import type { Logged, Setup } from '../setup/index.ts'

const USUAL_STEP: Record<LengthUnit, string> = { inch: '.0005', mm: '.01' }

/** How the vise is held for the sweep that comes next. */
function boltsNext({ hold }: Setup): Bolts {
  const last = hold.sweeps.at(-1)
  if (!last || last.freshness.state === 'stale' || !last.squared.ok) return 'one'
  if (!last.squared.within) return 'one'
  return last.entry.sweep.bolts === 'one' ? 'snug' : 'tight'
}

/**
 * The form of the sweep that comes next: places, dial and part as they were typed last in this setup, the dial zeroed at
 * the first place, the other readings typed anew. In a new setup the jaw may be out by what part zero may be off.
 */
export function startingSweep(setup: Setup): SweepDraft {
  const bolts = boltsNext(setup)
  const last = setup.hold.sweeps.at(-1)?.entry.sweep
  if (last)
    return {
      bolts,
      plusMeans: last.plusMeans,
      pivot: last.pivot.text,
      points: last.points.map(({ at }, index) => ({ at: at.text, reading: index === 0 ? '0' : '' })),
      stylusAngle: String(last.stylusAngle),
      dialStep: last.dialStep.text,
      partLength: last.partLength.text,
      allowed: last.allowed.text,
    }
  return {
    bolts,
    plusMeans: 'towards',
    pivot: '',
    points: [
      { at: '', reading: '0' },
      { at: '', reading: '' },
    ],
    stylusAngle: '0',
    dialStep: USUAL_STEP[setup.unit],
    partLength: '',
    allowed: setup.opened.tolerance.text,
  }
}

/**
 * The form of the two readings on the fixed jaw: dial, angle and what is allowed as in the last sweep; the part as high as
 * it was read last, the readings typed anew.
 */
export function startingUpright(setup: Setup): UprightDraft {
  const { stylusAngle, dialStep, allowed, plusMeans } = startingSweep(setup)
  const last = setup.hold.upright?.entry
  return {
    height: last?.height.text ?? '',
    up: '',
    lift: '',
    plusMeans,
    stylusAngle,
    dialStep,
    partHeight: last?.partHeight.text ?? '',
    allowed: last?.allowed.text ?? allowed,
  }
}

/** The length of a vise's jaw in the unit of a setup; six inches where no vise is known. */
export const jawLengthOf = ({ unit }: Pick<Setup, 'unit'>, vise: Vise | undefined): number =>
  vise ? convertLength(vise.jawLength, vise.unit, unit) : convertLength(6, 'inch', unit)

/** The vise in hand: the one that was chosen, else the one that was entered last on the machine; nothing where nobody said. */
export function viseInHand(
  chosen: string,
  machineEntries: readonly Logged[],
  vises: readonly Vise[],
): Vise | undefined {
  const last = machineEntries.findLast((entry) => entry.kind === 'cleared')?.vise.id
  const named = (id: string | undefined) => vises.find((each) => each.id === id)
  return named(chosen) ?? named(last)
}

/** The fields of the clearance form: as they were recorded last, else with the usual values and no vise chosen yet. */
export function startingPlace({ hold, unit, machine }: Setup): PlacedDraft {
  const last = hold.clearance?.entry
  if (last)
    return {
      vise: last.vise.id,
      jawAt: last.jawAt.text,
      wanted: last.wanted.text,
      lowestZ: last.lowestZ.text,
    }
  return {
    vise: '',
    jawAt: '',
    wanted: unit === 'inch' ? '1/4' : '6',
    lowestZ: formatLength(convertLength(machine.axes.Z.least, machine.unit, unit), unit),
  }
}

/** The form of collet and stop: as it was chosen last, else a first operation, and nothing chosen yet. */
export function startingGrip({ hold }: Setup): GripDraft {
  const last = hold.grip?.entry
  const draft: GripDraft = {
    collet: '',
    stop: '',
    operation: 'first',
    known: 'tolerance',
    diameter: '',
    spread: '',
    diameters: '',
    seated: '',
    allowed: '',
  }
  if (!last) return draft
  const { bars } = last
  return {
    ...draft,
    collet: last.collet.id,
    stop: last.stop,
    operation: last.operation,
    seated: last.seated ?? '',
    allowed: last.allowed.text,
    ...(bars.known === 'tolerance'
      ? { diameter: bars.diameter.text, spread: bars.spread.text }
      : { known: 'measured' as const, diameters: bars.diameters.map(({ text }) => text).join('\n') }),
  }
}

/** The form of measured lengths, for the collet in use: what was measured last, a pair to a line. */
export function startingLengths({ hold }: Setup, firstCollet: string): LengthsDraft {
  const collet = hold.grip?.entry.collet.id ?? firstCollet
  const last = hold.lengths.get(collet)?.entry
  return {
    collet,
    stop: last?.stop ?? hold.grip?.entry.stop ?? 'collet',
    what: last?.what ?? 'face',
    pairs: last?.pairs.map(({ diameter, length }) => `${diameter.text} ${length.text}`).join('\n') ?? '',
  }
}

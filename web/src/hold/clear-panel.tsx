import { verdictOf } from '@dogleg/core/fact'
import {
  type Clearance,
  type ClearanceCase,
  clearance,
  type FieldProblems,
  type Gap,
  libraryFit,
  type PlacedDraft,
  placedDraft,
  readPlacedDraft,
  sideSketch,
  type ViseState,
} from '@dogleg/core/hold'
import { convertLength, fixedDigits, formatLength, formatWithUnit, unitSymbol } from '@dogleg/core/quantity'
import { type ClearanceFact, startingPlace } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, record, restates } from '../log/use-setup.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { DoubtParts, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { Select } from '../ui/select.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'
import { MissingLine } from './missing-line.tsx'
import { ShareSlider } from './share-slider.tsx'
import { SideDrawing } from './side-drawing.tsx'

/** Does the vise clear what stands round the table, open and closed, over the whole travel? */
export function ClearPanel() {
  const { setup, reference } = useOpenSetup()
  const { unit, machine, hold } = setup
  const [draft, change] = useKept<PlacedDraft>(`${setup.id}.place`, placedDraft, () =>
    startingPlace(setup, reference.vises[0]?.id ?? ''),
  )
  const [lit, setLit] = useState<string>()
  const [share, setShare] = useState<number>()
  const [state, setState] = useState<ViseState>('closed')
  const signed = useSigned()

  const vise = reference.vises.find(({ id }) => id === draft.vise) ?? reference.vises[0]
  const live = useMemo(() => {
    const read = readPlacedDraft(draft, unit)
    // What is drawn while the place of the jaw is still to be typed: the middle of the table.
    const middle = convertLength(machine.around?.tableDepth ?? 0, machine.unit, unit) / 2
    if (!vise) return { read }
    const place = read.ok ? read.value : undefined
    const of: ClearanceCase = {
      machine,
      vise,
      unit,
      jawAt: place?.jawAt.value ?? middle,
      wanted: place?.wanted.value ?? 0,
      lowestZ: place?.lowestZ.value ?? convertLength(machine.axes.Z.least, machine.unit, unit),
    }
    const entry: NewEntry | undefined = place && {
      kind: 'cleared',
      vise: { id: vise.id, version: vise.version },
      machine: { id: machine.id, version: machine.version },
      ...place,
    }
    return { read, of, found: clearance(of), entry }
  }, [draft, unit, machine, vise])

  if (!machine.around || machine.around.obstacles.length === 0)
    return (
      <div className="max-w-prose space-y-3 py-6 text-lg">
        <p className="font-semibold">What stands round the table of {machine.name} is not known.</p>
        <p>Way cover, door and head are measured once and kept with the machine.</p>
        <Link
          to={`/machines/${machine.id}`}
          className="inline-flex min-h-11 items-center font-semibold underline"
        >
          Enter them
        </Link>
      </div>
    )
  if (!vise || !live.of)
    return (
      <p className="py-6 text-lg">
        There is no vise in the library.{' '}
        <Link to="/vises" className="underline">
          Enter one.
        </Link>
      </p>
    )

  const { read, of, found } = live
  const same = hold.clearance && live.entry && restates(hold.clearance.entry, live.entry)
  const problems: FieldProblems = read.ok ? {} : read.problems
  const field = (name: 'jawAt' | 'wanted' | 'lowestZ') => ({
    unit,
    value: draft[name],
    onChange: (text: string) => change({ ...draft, [name]: text }),
    lit: lit === name,
    onFocus: () => setLit(name),
    wrong: problems[name]?.empty ? undefined : problems[name]?.says,
  })
  const cannotBe = found.findings.some(({ severity, where }) => severity === 'stop' && where === 'lowestZ')
  const worse = (found.back?.gap ?? Infinity) <= (found.front?.gap ?? Infinity) ? 1 : 0
  const shown = share ?? worse
  const submit = () => {
    const { entry } = live
    if (entry && !cannotBe) signed(() => record(setup.id, entry))
  }

  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_22rem]">
      <form
        aria-label="Where the vise stands"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <label className="block font-semibold">
          Vise
          <Select
            value={vise.id}
            onChange={({ target }) => change({ ...draft, vise: target.value })}
            className="mt-0.5 block w-full font-normal"
          >
            {reference.vises.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </label>
        <LengthEntryField
          label="Fixed jaw, from the front edge of the table"
          hint="Its gripping face. Or drag it in the picture."
          {...field('jawAt')}
        />
        <LengthEntryField label="Must stay free at both ends" hint="Wanted gap." {...field('wanted')} />
        <LengthEntryField
          label="Lowest Z of the job"
          hint="Machine position; the head comes down with it."
          {...field('lowestZ')}
        />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!read.ok || cannotBe}
          className="mt-2 min-h-14 w-full text-lg"
        >
          Record the clearance
        </Button>
        <MissingLine problems={problems} />
        <GoesStale entry={live.entry} />
        <p className="text-sm text-ink-soft">
          Stop the spindle and keep the door rules of the shop while you measure. Move the table by hand to
          both ends once, slowly, and look.
        </p>
      </form>

      <div className="flex min-h-80 flex-col gap-1">
        <SideDrawing
          sketch={sideSketch(of, shown, found)}
          state={state}
          unit={unit}
          jawAt={of.jawAt}
          lit={lit}
          onDrag={(at) => change({ ...draft, jawAt: fixedDigits(at, unit === 'inch' ? 4 : 1) })}
        />
        <ShareSlider
          label="Travel of the table in Y"
          value={shown}
          onChange={setShare}
          ends={['fully forward', 'fully back']}
        />
        <Choice
          quiet
          label="Vise drawn"
          value={state}
          onChange={setState}
          options={[
            { value: 'open', label: 'vise open' },
            { value: 'closed', label: 'vise closed' },
          ]}
        />
        {read.ok && (
          <details>
            <summary className="min-h-11 content-center font-semibold">
              Every gap, other vises, and what the doubt is made of
            </summary>
            {found.roomWorking && (
              <Working answer={{ working: [found.roomWorking] }} title="Room for a vise" />
            )}
            <AllGaps gaps={found.gaps} of={of} />
            <OtherVises of={of} vises={reference.vises} />
            <DoubtParts answer={{ doubt: found.doubt, unit }} />
          </details>
        )}
      </div>

      <section
        aria-label="Does it clear?"
        className="grid gap-x-8 gap-y-2 md:col-span-2 md:grid-cols-2 xl:col-span-1 xl:grid-cols-1"
      >
        <h2 className="sr-only">Does it clear?</h2>
        {read.ok ? (
          <>
            <ClearAnswer found={found} of={of} fact={same ? hold.clearance : undefined} />
            <Working answer={found} />
          </>
        ) : (
          <p className="text-ink-soft">Type where the fixed jaw stands; the gaps appear here.</p>
        )}
      </section>
    </div>
  )
}

interface ClearAnswerProps {
  found: Clearance
  of: ClearanceCase
  /** What stands in the log, when it is what is typed. */
  fact: ClearanceFact | undefined
}

/** Both gaps at arm's length, the verdict, and where the jaw may stand. */
function ClearAnswer({ found, of: { unit }, fact }: ClearAnswerProps) {
  const { back, front, interval, room } = found
  const ends = [
    ['Free at the back', back, 'back'],
    ['Free at the front', front, 'front'],
  ] as const
  return (
    <div className="space-y-2">
      <dl className="grid grid-cols-2 gap-x-4">
        {ends.map(([title, gap, side]) => (
          <div key={side}>
            <dt className="font-semibold">{title}</dt>
            <dd className="digits text-3xl leading-tight tracking-tight" data-testid={`gap-${side}`}>
              {gap ? formatLength(gap.gap, unit) : 'open'}
            </dd>
          </div>
        ))}
      </dl>
      {fact && <FactLine fact={fact} />}
      <p className="flex items-center gap-4">
        {fact?.freshness.state !== 'stale' && <VerdictMark verdict={verdictOf(found.findings)} />}
        <span>
          <span className="digits text-lg">±{formatLength(found.doubt.value, unit)}</span>
          <span className="ml-2 text-ink-soft">{unitSymbol(unit)}, each</span>
        </span>
      </p>
      <Findings findings={found.findings} />
      <p className="leading-snug" data-testid="interval">
        {interval ? (
          <>
            The fixed jaw may stand{' '}
            {Number.isFinite(interval.from) && Number.isFinite(interval.to) ? 'from ' : ''}
            {Number.isFinite(interval.from) ? (
              <span className="digits text-xl">{formatLength(interval.from, unit)}</span>
            ) : (
              'anywhere up'
            )}{' '}
            to{' '}
            {Number.isFinite(interval.to) ? (
              <span className="digits text-xl">{formatLength(interval.to, unit)}</span>
            ) : (
              'the back'
            )}
            .
          </>
        ) : (
          <>There is no safe position for this vise.</>
        )}
        {room !== undefined && (
          <span className="block text-ink-soft">
            A vise of up to <span className="digits">{formatWithUnit(room, unit)}</span> would fit; this one
            reaches over <span className="digits">{formatLength(found.reach ?? 0, unit)}</span>.
          </span>
        )}
      </p>
    </div>
  )
}

/** Every part in every state against everything that it could meet. */
function AllGaps({ gaps, of: { unit } }: { gaps: readonly Gap[]; of: ClearanceCase }) {
  return (
    <div className="border-t border-rule pt-2 pb-3">
      <h3 className="font-semibold">Every gap, open and closed</h3>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-ink-soft">
            <th className="font-normal">part</th>
            <th className="font-normal">could meet</th>
            <th className="text-right font-normal">gap, {unitSymbol(unit)}</th>
          </tr>
        </thead>
        <tbody>
          {gaps.map(({ part, state, obstacle, gap, counts, clearAbove }) => (
            <tr key={`${part.name}-${state}-${obstacle.name}`} className="border-t border-rule align-top">
              <td>
                {part.name}, {state}
              </td>
              <td>
                {obstacle.name}
                <span className="block text-ink-soft">
                  {!counts && clearAbove === undefined
                    ? 'passes at another height'
                    : clearAbove !== undefined
                      ? `only with Z below ${formatLength(clearAbove, unit)}${counts ? '' : ', which the job is not'}`
                      : ''}
                </span>
              </td>
              <td className="digits text-right">{formatLength(gap, unit)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

/** Which vises of the library would fit here, and where. */
function OtherVises({ of, vises }: { of: ClearanceCase; vises: Parameters<typeof libraryFit>[1] }) {
  const { unit } = of
  return (
    <div className="border-t border-rule pt-2">
      <h3 className="font-semibold">Vises of the library here</h3>
      <ul className="pb-2 text-sm">
        {libraryFit(of, vises).map(({ vise, interval, shortfall }) => (
          <li key={vise.id} className="flex justify-between gap-3 border-t border-rule py-1">
            {vise.name}
            <span className="text-right">
              {interval ? (
                <>
                  fits, jaw{' '}
                  <span className="digits">
                    {Number.isFinite(interval.from) ? formatLength(interval.from, unit) : 'any'} to{' '}
                    {Number.isFinite(interval.to) ? formatLength(interval.to, unit) : 'any'}
                  </span>
                </>
              ) : (
                <>
                  too long by <span className="digits">{formatWithUnit(shortfall ?? 0, unit)}</span>
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}

import {
  beforeItStands,
  type ClearanceCase,
  clearance,
  middleOfTable,
  type PlacedDraft,
  placeWanted,
  readPlacedDraft,
  sideSketch,
  type Vise,
  type ViseState,
  worseEnd,
} from '@dogleg/core/hold'
import { travelIn } from '@dogleg/core/machine'
import type { FieldProblems } from '@dogleg/core/quantity'
import { inForce } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { Example } from '../drawing/example.ts'
import { draggedText } from '../drawing/use-drag.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, record, restates } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { DoubtParts, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Findings } from '../ui/verdict.tsx'
import { AllGaps, ClearAnswer, OtherVises, Room } from './clear-answer.tsx'
import { ShareSlider } from './share-slider.tsx'
import { SideDrawing } from './side-drawing.tsx'

interface ClearPanelProps {
  /** The vise in hand; undefined where nobody said which. */
  vise: Vise | undefined
  draft: PlacedDraft
  change: (draft: PlacedDraft) => void
}

/** Does the vise clear what stands round the table, open and closed, over the whole travel? */
export function ClearPanel({ vise, draft, change }: ClearPanelProps) {
  const { setup, reference } = useOpenSetup()
  const { unit, machine, hold } = setup
  const [lit, setLit] = useState<string>()
  const [share, setShare] = useState<number>()
  const [state, setState] = useState<ViseState>('closed')
  const signed = useSigned()

  // What is drawn before one is chosen is an example.
  const drawn = vise ?? inForce(reference, 'vises')[0]
  const live = useMemo(() => {
    const read = readPlacedDraft(draft, unit)
    if (!drawn) return { read }
    const place = read.ok ? read.value : undefined
    // Where the vise may stand, and whether it may at all, is known before anybody measures where it does.
    const asked = place ?? placeWanted(draft, unit)
    const of: ClearanceCase = {
      machine,
      vise: drawn,
      unit,
      jawAt: place?.jawAt.value ?? middleOfTable(machine, unit),
      wanted: asked?.wanted.value ?? 0,
      lowestZ: asked?.lowestZ.value ?? travelIn(machine, 'Z', unit).least,
    }
    const entry: NewEntry | undefined =
      place && vise
        ? {
            kind: 'cleared',
            vise: { id: vise.id, version: vise.version },
            machine: { id: machine.id, version: machine.version },
            ...place,
          }
        : undefined
    return { read, of, found: clearance(of), entry, asked }
  }, [draft, unit, machine, vise, drawn])

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
  if (!live.of)
    return (
      <p className="py-6 text-lg">
        There is no vise in the library.{' '}
        <Link to="/vises" className="underline">
          Enter one.
        </Link>
      </p>
    )

  const { read, of, found, asked } = live
  const same = hold.clearance && live.entry && restates(hold.clearance.entry, live.entry)
  const problems: FieldProblems = {
    ...(read.ok ? {} : read.problems),
    ...(vise ? {} : { vise: { says: 'Choose the vise.', empty: true } }),
  }
  const field = (name: 'jawAt' | 'wanted' | 'lowestZ') => ({
    unit,
    value: draft[name],
    onChange: (text: string) => change({ ...draft, [name]: text }),
    lit: lit === name,
    onFocus: () => setLit(name),
    wrong: problems[name]?.empty ? undefined : problems[name]?.says,
  })
  const cannotBe =
    vise !== undefined &&
    found.findings.some(({ severity, where }) => severity === 'stop' && where === 'lowestZ')
  // Until the table is moved in the picture it stands where the smaller gap is.
  const shown = share ?? (worseEnd(found) === 'back' ? 1 : 0)
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
        <PickOne
          label="Vise"
          value={vise?.id ?? ''}
          onChange={(id) => change({ ...draft, vise: id })}
          toChoose="choose it"
          hint={vise && draft.vise === '' ? 'The last on this machine.' : undefined}
          options={inForce(reference, 'vises', vise?.id).map(({ id, name }) => [id, name])}
        />
        <LengthEntryField
          label="Fixed jaw, from the front edge of the table"
          hint="Its gripping face. Or drag it in the picture."
          {...field('jawAt')}
        />
        <LengthEntryField label="Must stay free at both ends" hint="Wanted gap." {...field('wanted')} />
        <LengthEntryField
          label="Lowest spindle position, machine Z"
          hint="Of the whole job; the head comes down with it."
          {...field('lowestZ')}
        />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!read.ok || !vise || cannotBe}
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
        <Example value={vise ? undefined : 'the vise is still to be chosen'}>
          <SideDrawing
            sketch={sideSketch(of, shown, found)}
            state={state}
            unit={unit}
            jawAt={read.ok && vise ? of.jawAt : undefined}
            lit={lit}
            onDrag={(at) => change({ ...draft, jawAt: draggedText(at, unit) })}
          />
        </Example>
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
        {read.ok && vise && (
          <details>
            <summary className="min-h-11 content-center font-semibold">
              Every gap, other vises, and what the doubt is made of
            </summary>
            {found.roomWorking && (
              <Working answer={{ working: [found.roomWorking] }} title="Room for a vise" />
            )}
            <AllGaps gaps={found.gaps} of={of} />
            <OtherVises of={of} vises={inForce(reference, 'vises')} />
            <DoubtParts answer={{ doubt: found.doubt, unit }} />
          </details>
        )}
      </div>

      <section
        aria-label="Does it clear?"
        className="grid gap-x-8 gap-y-2 md:col-span-2 md:grid-cols-2 xl:col-span-1 xl:grid-cols-1"
      >
        <h2 className="sr-only">Does it clear?</h2>
        {!vise ? (
          <p>Choose the vise: where it may stand is told from its shape.</p>
        ) : read.ok ? (
          <>
            <ClearAnswer found={found} of={of} fact={same ? hold.clearance : undefined} />
            <Working answer={found} />
          </>
        ) : (
          <div className="space-y-2">
            {asked && <Findings findings={beforeItStands(found)} />}
            {asked && <Room found={found} unit={unit} />}
            {!found.interval && <OtherVises of={of} vises={inForce(reference, 'vises')} />}
            <p className="text-ink-soft">Type where the fixed jaw stands; the gaps appear here.</p>
          </div>
        )}
      </section>
    </div>
  )
}

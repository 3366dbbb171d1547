import { probeProgramFor, probeSituation } from '@dogleg/core/prepare'
import {
  FEATURES,
  fieldsOf,
  isTop,
  isWhole,
  labelOf,
  type ProbeDraft,
  type ProbeFeature,
  type ProbeField,
  probeDraft,
  probeFeature,
  probeSketch,
  readProbeDraft,
  startingProbeDraft,
  usualClearance,
} from '@dogleg/core/probe'
import type { OffsetState } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Taken, TakeProgram, WholeProgram } from '../program/take-program.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Findings } from '../ui/verdict.tsx'
import { ProbeDrawing } from './probe-drawing.tsx'
import { WholeDrawing } from './whole-drawing.tsx'
import { WholeFields } from './whole-fields.tsx'
import { WholeFound } from './whole-found.tsx'

/** A probe call: the feature, where the probe stands and how far it searches, the program for this control. */
export function ProbePanel({ offset, onRecorded }: { offset: OffsetState; onRecorded: () => void }) {
  const { setup, lengths } = useOpenSetup()
  const { unit } = setup
  const [draft, change] = useKept<ProbeDraft>(`${setup.id}.probe`, probeDraft, () => startingProbeDraft(unit))
  const [lit, setLit] = useState<ProbeField>()
  const situation = probeSituation(setup, offset)
  const stylus = situation?.shape.stylus ?? 0
  const read = useMemo(() => readProbeDraft(draft, unit, stylus), [draft, unit, stylus])
  const written = useMemo(
    () => (read.ok ? probeProgramFor(setup, offset, read.value) : undefined),
    [read, setup, offset],
  )
  const form = FEATURES[draft.feature]
  const set = (part: Partial<ProbeDraft>) => change({ ...draft, ...part })
  const whole = isWhole(draft)
  const choose = (feature: ProbeFeature) => {
    const clearance = usualClearance(draft, feature, unit)
    set({ feature, ...(clearance === undefined ? {} : { clearance }) })
  }
  const way = (axis: 'X' | 'Y') => (
    <PickOne
      label={form.asksDirection === 'both' ? `Into face, ${axis}` : 'Going'}
      value={draft[`direction${axis}`]}
      onChange={(value) => set({ [`direction${axis}`]: value as '+' | '-' })}
      options={[
        ['+', `${axis}+`],
        ['-', `${axis}−`],
      ]}
    />
  )
  return (
    <div
      className={`grid flex-1 content-start gap-x-6 gap-y-4 py-2 ${whole ? 'lg:grid-cols-[30rem_1fr] xl:grid-cols-[30rem_1fr_22rem]' : 'md:grid-cols-[20rem_1fr] xl:grid-cols-[20rem_1fr_25rem]'}`}
    >
      <form
        aria-label="Probe call"
        className="space-y-2"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => event.preventDefault()}
      >
        <div
          className={whole && form.asksDirection === 'both' ? 'grid grid-cols-[1fr_7rem_7rem] gap-x-2' : ''}
        >
          <PickOne
            label={`Set ${offset.name} from`}
            value={draft.feature}
            onChange={(feature) => choose(feature as ProbeFeature)}
            options={probeFeature.options.map((each) => [each, FEATURES[each].name])}
          />
          {whole && form.asksDirection === 'both' && way('X')}
          {whole && form.asksDirection === 'both' && way('Y')}
        </div>
        {!whole && (
          <div className="grid grid-cols-2 gap-x-3">
            {form.axes.length > 0 && (
              <PickOne
                label={form.asksDirection === 'none' ? 'Across' : 'Moving along'}
                value={form.axes.includes(draft.axis) ? draft.axis : 'X'}
                onChange={(axis) => set({ axis: axis as ProbeDraft['axis'] })}
                options={form.axes.map((axis) => [axis, axis === 'Z' ? 'Z, on top' : axis])}
              />
            )}
            {form.asksDirection === 'both' && way('X')}
            {form.asksDirection === 'both' && way('Y')}
            {form.asksDirection === 'axis' && !isTop(draft) && way(draft.axis === 'Y' ? 'Y' : 'X')}
          </div>
        )}
        {whole ? (
          <WholeFields
            draft={draft}
            unit={unit}
            probe={lengths.find(({ tool }) => tool === situation?.shape.tool)}
            lit={lit}
            onLit={setLit}
            onChange={set}
          />
        ) : (
          <div className="grid grid-cols-2 gap-x-3 gap-y-1">
            {fieldsOf(draft).map((field) => (
              <LengthEntryField
                key={field}
                {...labelOf(draft.feature, field)}
                unit={unit}
                value={draft[field]}
                onChange={(text) => set({ [field]: text })}
                lit={lit === field}
                onFocus={() => setLit(field)}
              />
            ))}
          </div>
        )}
      </form>
      <div className="min-h-80 space-y-2">
        {whole && situation && (
          <WholeDrawing draft={draft} unit={unit} stylus={situation.shape.stylus} lit={lit} />
        )}
        {!whole && read.ok && situation && (
          <ProbeDrawing
            sketch={probeSketch(read.value, situation.shape)}
            task={read.value}
            unit={unit}
            lit={lit}
          />
        )}
        {!whole && !read.ok && (
          <p className="text-ink-soft">The picture appears once every field is understood.</p>
        )}
      </div>
      <section
        aria-label="Probe program"
        className={`min-w-0 space-y-3 xl:col-span-1 ${whole ? 'lg:col-span-2' : 'md:col-span-2'}`}
      >
        {written && <Findings findings={written.findings} />}
        {written?.ok && (
          <>
            <TakeProgram setup={setup} offset={offset} what="probe" rests={[]} text={written.text} />
            <Taken program={offset.further.probe} text={written.text} />
            {!whole && (
              <>
                <p>
                  {draft.feature === 'edge'
                    ? 'Afterwards type the angle into the Angle step.'
                    : `Afterwards read ${offset.name} on the offset page and type it in: found with "set by the probe cycle".`}
                </p>
                <p className="digits rounded-sm border border-rule bg-white/50 px-3 py-2 text-lg font-semibold">
                  {written.measures[0]}
                </p>
                <p>Leaves {written.results.join(', ')}.</p>
              </>
            )}
            <p>Takes about {Math.round(written.seconds)} s, and what the macros wait.</p>
            <WholeProgram text={written.text} />
            {whole && read.ok && (
              <WholeFound
                setup={setup}
                offset={offset}
                task={read.value}
                variables={written.results}
                onRecorded={onRecorded}
              />
            )}
          </>
        )}
        {whole && !read.ok && (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">X, Y and Z of {offset.name} in one program</h2>
            <p>
              {draft.feature === 'block'
                ? 'Five touches: the top, both ends along X, both sides along Y. It ends over the middle, and keeps both sizes.'
                : 'Three touches: the top, then each face. It ends over the corner.'}
            </p>
            <p>
              The program begins with {offset.name} as it follows from where you put the probe, so nothing has
              to be set before.
            </p>
          </div>
        )}
        {written && !written.ok && (
          <p className="text-lg font-semibold">No program is written for this call.</p>
        )}
      </section>
    </div>
  )
}

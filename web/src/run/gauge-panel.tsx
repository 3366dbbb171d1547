import { type Finding, verdictOf, worstFirst } from '@dogleg/core/fact'
import {
  anotherFeature,
  type Characteristic,
  characteristicsOf,
  correctionOf,
  FEATURE_KINDS,
  type FeatureDraft,
  type FeatureKind,
  startingFeature,
  targetOf,
  usualClearance,
} from '@dogleg/core/gauge'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { useMemo, useState } from 'react'
import { CodeListing } from '../code/code-listing.tsx'
import { type CycleForm, CycleFormProvider } from '../code/cycle-field.tsx'
import { newId } from '../log/clock.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { Taken, TakeProgram } from '../program/take-program.tsx'
import { Button } from '../ui/button.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { TabList } from '../ui/tab-list'
import { Findings, VerdictMark } from '../ui/verdict.tsx'
import { EndedLine } from '../ui/worker-ended.tsx'
import { FeatureForm, type FeaturePart, featureParts } from './feature-form.tsx'
import { FeatureList } from './feature-list.tsx'
import { FeaturePicture } from './feature-picture.tsx'
import { formatSeconds, formatValue } from './format-value.ts'
import { PlanBar } from './plan-bar.tsx'
import type { Gauging } from './use-gauging.ts'

interface GaugePanelProps {
  gauging: Gauging
  offset: OffsetState
  onOffset: (name: string) => void
}

/** Composing: what is measured, what is done with it, the program that comes of it. */
export function GaugePanel({ gauging, offset, onOffset }: GaugePanelProps) {
  const { setup } = useOpenSetup()
  const { unit, machine, profile } = setup
  const signed = useSigned()
  const { plan: draft, change, read, program, trial, text, entry, same, fact, twin, whole } = gauging
  const { written, where } = program
  const [chosen, setChosen] = useState<string>()
  const [part, setPart] = useState<FeaturePart>('what')
  const [lit, setLit] = useState<string>()
  const item = draft.features.find(({ id }) => id === chosen) ?? draft.features[0]
  const parts = item ? featureParts(item.draft) : []
  const shown = parts.some(([value]) => value === part) ? part : 'what'

  const setFeatures = (features: typeof draft.features) => change({ ...draft, features })
  const add = (what: FeatureKind, from?: FeatureDraft) => {
    const id = newId().toLowerCase()
    const name = `${what.split('-').at(-1)?.toUpperCase()} ${draft.features.length + 1}`
    setFeatures([
      ...draft.features,
      { id, draft: from ? anotherFeature(from, name) : startingFeature(what, name, unit) },
    ])
    setChosen(id)
    // Of another one like it only the place is to be said.
    setPart(from ? 'where' : 'what')
  }
  const move = (id: string, by: -1 | 1) => {
    const at = draft.features.findIndex((each) => each.id === id)
    const features = [...draft.features]
    const [taken] = features.splice(at, 1)
    if (taken) features.splice(at + by, 0, taken)
    setFeatures(features)
  }
  const form: CycleForm | undefined = item && {
    draft: item.draft,
    change: (field, value) =>
      setFeatures(
        draft.features.map((each) =>
          each.id === item.id ? { ...each, draft: { ...each.draft, [field]: value } } : each,
        ),
      ),
    changeAll: (fields) =>
      setFeatures(
        draft.features.map((each) =>
          each.id === item.id ? { ...each, draft: { ...each.draft, ...fields } as FeatureDraft } : each,
        ),
      ),
    problems: item ? (read.features[item.id] ?? {}) : {},
    // What a gauging plan calculates comes from what is typed beside it.
    missing: [],
    drawn: [],
    unit,
    lit,
    onLit: setLit,
  }
  const feature = read.plan?.features.find(({ id }) => id === item?.id)
  const about = useMemo(() => {
    if (!feature) return undefined
    const [of] = characteristicsOf(feature, unit)
    if (!of) return undefined
    const corrects = where !== undefined && targetOf(feature, of, where) !== undefined
    return { of, correction: correctionOf(feature, of, unit), corrects }
  }, [feature, unit, where])
  const order = new Map<string, number>()
  for (const step of written?.arranged.steps ?? []) {
    if (step.does === 'measure') order.set(step.feature.id, order.size + 1)
  }
  const saves = new Map([...(trial.time?.saves ?? [])].map(([id, of]) => [id, formatSeconds(of)]))
  const findings: Finding[] = worstFirst([
    ...program.findings,
    ...(trial.proof?.findings ?? []).map((each) => ({ ...each, where: `line ${each.line}` })),
  ])
  const mine = findings.filter((each) => !each.where.includes('.') || each.where.startsWith(`${item?.id}.`))
  const others = findings.filter((each) => !mine.includes(each))
  const stopped = new Set(
    program.findings
      .filter(({ severity }) => severity === 'stop')
      .map((each) => each.where.split('.')[0] ?? ''),
  )
  const good = whole && trial.proof !== undefined && trial.proof.verdict !== 'stop'
  const given = good && entry && text !== undefined ? text : undefined
  const keep = (): string | undefined => {
    if (!entry) return undefined
    return same && fact ? fact.entry.id : record(setup.id, entry).id
  }
  const missing = item ? Object.values(read.features[item.id] ?? {}) : []
  return (
    <>
      <PlanBar
        setup={setup}
        plans={gauging.plans}
        at={gauging.at}
        draft={draft}
        problems={read.head}
        elsewhere={gauging.elsewhere}
        offset={offset}
        canRemove={draft.features.length === 0 || same}
        canPrint={profile.macros !== null && profile.macros.print !== 'none'}
        computed={{
          clearance: formatLength(usualClearance(unit), unit),
          feed: String(profile.probing?.feed[unit] ?? ''),
        }}
        onChoose={gauging.choose}
        onOpen={gauging.take}
        onAdd={gauging.add}
        onRemove={gauging.remove}
        onChange={change}
        onOffset={onOffset}
      >
        <span className="ml-auto flex items-center gap-3">
          {trial.time && (
            <span className="digits text-2xl font-semibold">{formatSeconds(trial.time.total)}</span>
          )}
          {trial.share !== undefined && written && (
            <span className="text-ink-soft" role="status">
              trying…
            </span>
          )}
          {(trial.proof || findings.length > 0) && <VerdictMark verdict={verdictOf(findings)} />}
        </span>
      </PlanBar>
      <div className="grid flex-1 content-start gap-x-4 gap-y-2 border-t border-rule py-1 md:grid-cols-[20rem_1fr] lg:grid-cols-[13rem_20rem_1fr] lg:grid-rows-[1fr]">
        <div className="md:col-span-2 lg:col-span-1">
          <FeatureList
            features={draft.features}
            chosen={item?.id}
            incomplete={new Set(Object.keys(read.features))}
            stopped={stopped}
            order={order}
            saves={saves}
            kinds={machine.probe ? FEATURE_KINDS : ['hand']}
            onChoose={setChosen}
            onAdd={(what) => add(what)}
            onMove={move}
            onCopy={(id) => {
              const of = draft.features.find((each) => each.id === id)
              if (of) add(of.draft.what, of.draft)
            }}
            onRemove={(id) => setFeatures(draft.features.filter((each) => each.id !== id))}
          />
        </div>
        {item && form ? (
          <>
            <form
              aria-label="Feature"
              onKeyDown={nextFieldOnEnter}
              onSubmit={(event) => event.preventDefault()}
              className="min-w-0"
            >
              <Tabs.Root value={shown} onValueChange={(next) => setPart(next as FeaturePart)}>
                <TabList aria-label="Parts of the feature" className="mb-2 flex border-b border-rule">
                  {parts.map(([value, name]) => (
                    <Tabs.Trigger
                      key={value}
                      value={value}
                      className="min-h-11 flex-1 border-b-4 border-transparent px-2 font-semibold data-[state=active]:border-ink"
                    >
                      {name}
                    </Tabs.Trigger>
                  ))}
                </TabList>
                <Tabs.Content value={shown} tabIndex={-1}>
                  <CycleFormProvider value={form}>
                    <FeatureForm
                      part={shown}
                      id={item.id}
                      features={draft.features}
                      computed={computedOf(about, unit)}
                    />
                  </CycleFormProvider>
                </Tabs.Content>
              </Tabs.Root>
              {trial.time && trial.time.joined > 0 && read.plan && read.plan.features.length > 1 && (
                <p className="text-sm leading-5">
                  In one program it saves <span className="digits">{formatSeconds(trial.time.joined)}</span>{' '}
                  over one each; the probe in, on and off cost{' '}
                  <span className="digits">{formatSeconds(trial.time.once)}</span>.
                </p>
              )}
            </form>
            <div className="flex min-w-0 flex-col gap-1">
              <div className="max-lg:h-72 lg:h-[min(18.75rem,calc(100dvh-35.5rem))] lg:min-h-44">
                <FeaturePicture
                  part={shown}
                  gauging={gauging}
                  feature={feature?.params}
                  id={item.id}
                  lit={lit}
                  unit={unit}
                  onChoose={setChosen}
                />
              </div>
              {missing.length > 0 && (
                <p className="font-semibold" role="status">
                  {missing.some(({ empty }) => !empty)
                    ? 'A field is not understood yet.'
                    : `${missing.length} ${missing.length === 1 ? 'answer is' : 'answers are'} still missing.`}
                </p>
              )}
              {twin && <p className="font-semibold">Another plan here has this name. Give each its own.</p>}
              {trial.failed && (
                <p>
                  <EndedLine
                    ended={trial.failed}
                    broke="Trying it broke off. Nothing is lost."
                    again={trial.again}
                  />
                </p>
              )}
              <Findings findings={mine} />
              {others.length > 0 && (
                <p className="text-sm">
                  {others.length} more about other features: they stand with them in the list.
                </p>
              )}
              {written && (
                <section
                  aria-label="Program text"
                  // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
                  tabIndex={0}
                  className="min-h-40 flex-1 basis-0 overflow-y-auto rounded-sm border border-rule bg-white/50"
                >
                  <CodeListing
                    lines={written.lines}
                    from={1}
                    lit={item.id}
                    onPoint={() => undefined}
                    onPick={setChosen}
                  />
                </section>
              )}
              {!written &&
                feature?.params.what !== 'hand' &&
                draft.features.some((each) => each.draft.what !== 'hand') && (
                  <p className="text-ink-soft">Nothing is written while something says stop or is missing.</p>
                )}
            </div>
          </>
        ) : (
          <p className="py-6 text-lg md:col-span-2">
            {machine.probe
              ? 'A gauging program is built from features: what the probe measures on each part. Add the first one.'
              : `${machine.name} has no probe: what is measured by hand is charted all the same. Add the first value.`}
          </p>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule py-1">
        <Button
          look={same ? 'plain' : 'primary'}
          disabled={!entry || same}
          onClick={() => signed(() => void keep())}
        >
          Record the plan
        </Button>
        {fact && <FactLine fact={fact} />}
        {fact && !same && entry && <span className="text-ink-soft">What stands here differs from it.</span>}
        <span className="ml-auto flex flex-wrap items-center gap-3">
          {given && (
            <span className="max-w-64 text-sm leading-4">
              First run: single block, low rapids, a hand on feed hold. Touch the stylus by hand to see that
              it stops.
            </span>
          )}
          {gauging.edited && <span className="font-semibold">As it was changed by hand:</span>}
          {given && (
            <TakeProgram
              setup={setup}
              offset={offset}
              what="gauge"
              title={gauging.title}
              rests={() => {
                const id = keep()
                return id ? [id] : []
              }}
              text={given}
            />
          )}
        </span>
      </div>
      <GoesStale entry={same ? undefined : entry} />
      {setup.gauge.taken.has(gauging.title) && (
        <Taken program={setup.gauge.taken.get(gauging.title)} text={given} />
      )}
    </>
  )
}

interface About {
  of: Characteristic
  correction: ReturnType<typeof correctionOf>
  corrects: boolean
}

/** What empty fields of a feature come to, and its limits as they are understood. */
function computedOf(about: About | undefined, unit: LengthUnit) {
  if (!about) return {}
  const { of, correction } = about
  return {
    tolerance: `${formatValue(of.lower, of.unit)} to ${formatValue(of.upper, of.unit)}`,
    deadBand: formatLength(correction.deadBand, unit),
    limit: 'tolerance',
  }
}

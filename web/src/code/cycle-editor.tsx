import { type CycleName, type ItemDraft, type SheetDraft, withFields } from '@dogleg/core/code'
import { undrawn } from '@dogleg/core/cycles/cycle'
import { engraveForm, engraveSizes, engraveWorking, exampleEngraving } from '@dogleg/core/cycles/engraving'
import {
  exampleGroove,
  type GrooveSizes,
  grooveForm,
  grooveLeft,
  grooveSizes,
  grooveWorking,
  type Left,
  ringsBetween,
} from '@dogleg/core/cycles/grooving'
import { exampleTap, holeSketch, tapForm, tapSizes, tapWorking } from '@dogleg/core/cycles/tapping'
import { exampleWrap, wrapForm, wrapSizes, wrapWorking } from '@dogleg/core/cycles/wrapping'
import { sheetCase } from '@dogleg/core/prepare'
import { type FieldProblems, formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { inForce } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { type ReactNode, useMemo, useState } from 'react'
import { Example } from '../drawing/example.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Working } from '../ui/answer.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { TabList } from '../ui/tab-list'
import { AnswersProvider, type CycleForm, CycleFormProvider } from './cycle-field.tsx'
import { EngraveDrawing } from './engrave-drawing.tsx'
import { EngraveForm, type EngravePart, engravePartOf, engraveParts } from './engrave-form.tsx'
import { GrooveDrawing } from './groove-drawing.tsx'
import { GROOVE_PARTS, GrooveForm, type GroovePart, groovePartOf } from './groove-form.tsx'
import { HoleDrawing } from './hole-drawing.tsx'
import { PlacesDrawing } from './places-drawing.tsx'
import { RetractPanel } from './retract-panel.tsx'
import { PLACES, TAP_PARTS, TapForm, type TapPart, tapPartOf } from './tap-form.tsx'
import { useTyped } from './typed.tsx'
import { WrapDrawing } from './wrap-drawing.tsx'
import { WrapForm, type WrapPart, wrapPartOf, wrapParts } from './wrap-form.tsx'

interface CycleEditorProps {
  item: ItemDraft
  problems: FieldProblems
  lit: string | undefined
  onLit: (field: string) => void
  /** Changes the item as it stands by then: a file may come late, when more was typed. */
  onChange: (next: (of: ItemDraft) => ItemDraft) => void
  draft: SheetDraft
  onPartsAShift: (typed: string) => void
  /** Where the tool ends, radius and Z, where anything is written. */
  ends: { x: number; z: number } | undefined
  /** What stands under the drawing: findings and code. */
  after: (working: ReactNode) => ReactNode
}

const EXAMPLES = { tap: exampleTap, groove: exampleGroove, engrave: exampleEngraving, wrap: exampleWrap }
const NO_BODIES: readonly never[] = []

const FIRST_PART: Record<CycleName, string> = {
  tap: 'thread',
  groove: 'groove',
  engrave: 'text',
  wrap: 'layout',
}
const PART_OF: Record<CycleName, (field: string) => string> = {
  tap: tapPartOf,
  groove: groovePartOf,
  engrave: engravePartOf,
  wrap: wrapPartOf,
}

/** The parts of a cycle's form, as it stands. */
function partsOf(item: ItemDraft): readonly (readonly [part: string, title: string])[] {
  switch (item.cycle) {
    case 'tap':
      return TAP_PARTS
    case 'groove':
      return GROOVE_PARTS
    case 'engrave':
      return engraveParts(item.params.text)
    case 'wrap':
      return wrapParts(item.params)
  }
}

/** One cycle: its form in parts, its drawing, its code. */
export function CycleEditor(props: CycleEditorProps) {
  const { item, problems, lit, onLit, onChange, draft, onPartsAShift, ends, after } = props
  const { setup, reference } = useOpenSetup()
  const { unit, machine, profile } = setup
  const [part, setPart] = useState<string>(FIRST_PART[item.cycle])
  const on = useMemo(
    () => sheetCase(setup, { turned: draft.turned }, 'G54', reference),
    [setup, draft.turned, reference],
  )
  const material =
    reference.materials.find(({ id }) => id === draft.material) ?? inForce(reference, 'materials')[0]
  const parts = partsOf(item)
  const partOf = PART_OF[item.cycle]
  // A word of the code that is picked opens the part that its field is in.
  const [picked, setPicked] = useState(lit)
  if (lit !== picked) {
    setPicked(lit)
    const shown = parts.some(([value]) => value === part)
    if (lit !== undefined && shown && partOf(lit) !== part && !fieldOnScreen(lit)) setPart(partOf(lit))
  }
  const changeAll: CycleForm['changeAll'] = (fields) => onChange((of) => withFields(of, fields))
  const example: Readonly<Record<string, string>> = useMemo(
    () => EXAMPLES[item.cycle](unit),
    [item.cycle, unit],
  )
  const drawn = [...Object.keys(example), 'material']
  const missing = [
    ...Object.keys(problems).filter((field) => problems[field]?.empty),
    ...(draft.material === '' ? ['material'] : []),
  ]
  const placesKnown = !missing.some((field) => PLACES.has(field))
  const isExample = undrawn(problems, example).length > 0
  const form: CycleForm = {
    missing,
    drawn,
    draft: item.params,
    change: (field, value) => changeAll({ [field]: value }),
    changeAll,
    problems,
    unit,
    lit,
    onLit,
  }
  const groove = useMemo(() => {
    if (item.cycle !== 'groove' || !material) return undefined
    const params = grooveForm.lenient(item.params, unit, example)
    const sizes = grooveSizes(params, on, material)
    const drawable = sizes.section.depth > 0 && sizes.section.high > sizes.section.low
    return {
      sizes,
      rings: drawable ? ringsBetween(sizes) : [],
      left: drawable ? grooveLeft(sizes) : undefined,
      drawable,
    }
  }, [item, unit, on, material, example])
  const tap = useMemo(() => {
    if (item.cycle !== 'tap' || !material) return undefined
    const params = tapForm.lenient(item.params, unit, example)
    const sizes = tapSizes(params, on, material)
    return { params, sizes, sketch: holeSketch(params, sizes) }
  }, [item, unit, on, material, example])
  const engraved = useMemo(() => {
    if (item.cycle !== 'engrave' || !material) return undefined
    const read = engraveForm.lenient(item.params, unit, example)
    const params = item.params.text.trim() === '' ? { ...read, text: ' ' } : read
    return { params, sizes: engraveSizes(params, on, material) }
  }, [item, unit, on, material, example])
  const wrapped = useMemo(() => {
    if (item.cycle !== 'wrap' || !material) return undefined
    const { params: draft } = item
    const params = { ...wrapForm.lenient(draft, unit, example), text: draft.text, program: draft.program }
    return { params, sizes: wrapSizes(params, on, material) }
  }, [item, unit, on, material, example])
  const isKnown = !missing.some((field) => drawn.includes(field))
  const working = useMemo(() => {
    if (!isKnown) return []
    if (tap) return tapWorking(tap.params, tap.sizes, unit)
    if (groove) return grooveWorking(groove.sizes, on)
    if (wrapped) return wrapWorking(wrapped.params, wrapped.sizes, unit)
    return engraved ? engraveWorking(engraved.params, engraved.sizes, unit) : []
  }, [isKnown, tap, groove, engraved, wrapped, unit, on])
  if (!material) return null

  return (
    <CycleFormProvider value={form}>
      <TypedAnswers item={item}>
        <form
          className="order-2 lg:order-none lg:row-span-2"
          aria-label="The cycle in hand"
          onKeyDown={nextFieldOnEnter}
          onSubmit={(event) => event.preventDefault()}
        >
          <Tabs.Root value={part} onValueChange={setPart}>
            <TabList aria-label="Parts of the cycle" className="mb-2 flex border-b border-rule">
              {parts.map(([value, title]) => (
                <Tabs.Trigger
                  key={value}
                  value={value}
                  className="min-h-11 flex-1 border-b-4 border-b-transparent px-1 font-semibold whitespace-nowrap hover:bg-stock-shade data-[state=active]:border-b-ink"
                >
                  {title}
                  {Object.keys(problems).some((field) => partOf(field) === value) && (
                    <>
                      <span aria-hidden> •</span>
                      <span className="sr-only">, something is missing</span>
                    </>
                  )}
                </Tabs.Trigger>
              ))}
            </TabList>
            <Tabs.Content value={part} tabIndex={-1} className="outline-none">
              {tap && (
                <TapForm
                  part={part as TapPart}
                  sizes={tap.sizes}
                  placesKnown={placesKnown}
                  unit={unit}
                  machine={machine}
                />
              )}
              {groove && <GrooveForm part={part as GroovePart} sizes={groove.sizes} unit={unit} />}
              {wrapped && <WrapForm part={part as WrapPart} {...wrapped} unit={unit} />}
              {engraved && <EngraveForm part={part as EngravePart} sizes={engraved.sizes} unit={unit} />}
            </Tabs.Content>
          </Tabs.Root>
        </form>
        <div className="order-1 min-w-0 md:col-span-2 lg:order-none lg:col-span-1">
          <Example value={isExample ? 'the sizes are still to be typed' : undefined}>
            {tap &&
              (part === 'out' && item.cycle === 'tap' ? (
                <RetractPanel
                  tap={item.params}
                  sizes={tap.sizes}
                  machine={machine}
                  holes={machine.kind === 'lathe' ? 1 : Math.max(1, tap.sizes.places.length)}
                  hasWord={profile.reading.tapRetract !== null}
                  partsAShift={draft.partsAShift}
                  onPartsAShift={onPartsAShift}
                />
              ) : (
                <div className="h-48 lg:h-60 2xl:h-80">
                  {part === 'places' && machine.kind === 'mill' ? (
                    <PlacesDrawing
                      places={placesKnown ? tap.sizes.places : []}
                      unit={unit}
                      lit={lit === 'places'}
                    />
                  ) : (
                    <HoleDrawing
                      sketch={tap.sketch}
                      unit={unit}
                      lit={lit}
                      threadName={
                        tap.sizes.thread.id === 'own' || missing.includes('thread')
                          ? 'thread'
                          : tap.sizes.thread.id
                      }
                      says={tapSays(tap.sizes)}
                    />
                  )}
                </div>
              ))}
            {wrapped && (
              <div className="h-48 lg:h-60 2xl:h-80">
                <WrapDrawing {...wrapped} rotary={machine.rotary} unit={unit} lit={lit} />
              </div>
            )}
            {engraved && (
              <div className="h-48 lg:h-60 2xl:h-80">
                <EngraveDrawing {...engraved} bodies={on.bodies ?? NO_BODIES} unit={unit} lit={lit} />
              </div>
            )}
            {groove?.drawable && (
              <div className="h-52 lg:h-64 2xl:h-96">
                <GrooveDrawing
                  sizes={groove.sizes}
                  rings={groove.rings}
                  says={grooveSays(groove.sizes, unit)}
                  unit={unit}
                  lit={lit}
                />
              </div>
            )}
          </Example>
        </div>
        <div className="order-3 flex min-w-0 flex-col gap-2 lg:order-none">
          {groove?.left && isKnown && <LeftLine left={groove.left} ends={ends} unit={unit} />}
          {after(isKnown && <Working answer={{ working }} title="With the numbers put in" />)}
        </div>
      </TypedAnswers>
    </CycleFormProvider>
  )
}

/** In the fields of a cycle stands what is typed this moment; all else is of `item`. */
function TypedAnswers({ item, children }: { item: ItemDraft; children: ReactNode }) {
  const { items } = useTyped()
  const { params } = items.find(({ id }) => id === item.id) ?? item
  return <AnswersProvider value={params}>{children}</AnswersProvider>
}

const fieldOnScreen = (field: string) => document.querySelector(`[data-field="${field}"]`) !== null

/** What is left once the groove is cut, and where the tool then stands. */
function LeftLine({
  left,
  ends,
  unit,
}: {
  left: Left
  ends: { x: number; z: number } | undefined
  unit: LengthUnit
}) {
  const say = (value: number) => formatLength(Math.abs(value) < 1e-6 ? 0 : value, unit)
  return (
    <p>
      Left standing: floor <span className="digits font-semibold">{say(left.floor)}</span>, walls{' '}
      <span className="digits font-semibold">{say(Math.max(left.walls.low, left.walls.high))}</span>.{' '}
      {ends && (
        <>
          Ends at{' '}
          <span className="digits font-semibold">
            X{say(2 * ends.x)} Z{say(ends.z)}
          </span>
          .
        </>
      )}
    </p>
  )
}

/** How the tap turns, feeds and comes out, for the drawing. */
const tapSays = ({ rpm, tapFeed, multiple }: ReturnType<typeof tapSizes>) =>
  [
    [`S${Math.round(rpm.tap)}`, 'tapTurns'],
    [`F${tapFeed.printed}`, 'feedMode'],
    [`${multiple.value} x infeed`, 'multiple', 'multipleTyped'],
  ] as const

const grooveSays = ({ spindle, feed, stepover, peck }: GrooveSizes, unit: LengthUnit) =>
  [
    'turns' in spindle
      ? [`S${spindle.turns}`, 'turns']
      : [
          `S${spindle.surface}${spindle.clamp === null ? '' : `, at most ${spindle.clamp}`}`,
          'surfaceSpeed',
          'clamp',
        ],
    [`F${formatLength(feed, unit)}, step ${formatLength(stepover, unit)}`, 'feed', 'stepover'],
    ...(peck > 0 ? [[`peck ${formatLength(peck, unit)}`, 'peck', 'pecking']] : []),
  ] as [string, ...string[]][]

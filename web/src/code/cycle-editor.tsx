import type { ItemDraft, SheetDraft } from '@dogleg/core/code'
import {
  type GrooveSizes,
  grooveForm,
  grooveLeft,
  grooveSizes,
  grooveWorking,
  type Left,
  ringsBetween,
} from '@dogleg/core/cycles/grooving'
import { holeSketch, tapForm, tapSizes, tapWorking } from '@dogleg/core/cycles/tapping'
import { type FieldProblems, formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { sheetCase } from '@dogleg/core/setup'
import { Tabs } from 'radix-ui'
import { type ReactNode, useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { Working } from '../ui/answer.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { type CycleForm, CycleFormProvider } from './cycle-field.tsx'
import { GrooveDrawing } from './groove-drawing.tsx'
import { GROOVE_PARTS, GrooveForm, type GroovePart, groovePartOf } from './groove-form.tsx'
import { HoleDrawing } from './hole-drawing.tsx'
import { PlacesDrawing } from './places-drawing.tsx'
import { RetractPanel } from './retract-panel.tsx'
import { TAP_PARTS, TapForm, type TapPart, tapPartOf } from './tap-form.tsx'

interface CycleEditorProps {
  item: ItemDraft
  problems: FieldProblems
  lit: string | undefined
  onLit: (field: string) => void
  onChange: (next: ItemDraft) => void
  draft: SheetDraft
  onDraft: (next: SheetDraft) => void
  /** Where the tool ends, radius and Z, where anything is written. */
  ends: { x: number; z: number } | undefined
  /** What stands under the drawing: findings and code. */
  after: (working: ReactNode) => ReactNode
}

/** One cycle: its form in parts, its drawing, its code. */
export function CycleEditor(props: CycleEditorProps) {
  const { item, problems, lit, onLit, onChange, draft, onDraft, ends, after } = props
  const { setup, reference } = useOpenSetup()
  const { unit, machine, profile } = setup
  const [part, setPart] = useState<string>(item.cycle === 'tap' ? 'thread' : 'groove')
  const on = useMemo(
    () => sheetCase(setup, { turned: draft.turned }, 'G54', reference),
    [setup, draft.turned, reference],
  )
  const material = reference.materials.find(({ id }) => id === draft.material) ?? reference.materials[0]
  const parts = item.cycle === 'tap' ? TAP_PARTS : GROOVE_PARTS
  const partOf = item.cycle === 'tap' ? tapPartOf : groovePartOf
  // A word of the code that is picked opens the part that its field is in.
  const [picked, setPicked] = useState(lit)
  if (lit !== picked) {
    setPicked(lit)
    const shown = parts.some(([value]) => value === part)
    if (lit !== undefined && shown && partOf(lit) !== part && !fieldOnScreen(lit)) setPart(partOf(lit))
  }
  const changeAll: CycleForm['changeAll'] = (fields) =>
    onChange({ ...item, params: { ...item.params, ...fields } } as ItemDraft)
  const form: CycleForm = {
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
    const params = grooveForm.lenient(item.params, unit)
    const sizes = grooveSizes(params, on, material)
    const drawable = sizes.section.depth > 0 && sizes.section.high > sizes.section.low
    return {
      sizes,
      rings: drawable ? ringsBetween(sizes) : [],
      left: drawable ? grooveLeft(sizes) : undefined,
      drawable,
    }
  }, [item, unit, on, material])
  const tap = useMemo(() => {
    if (item.cycle !== 'tap' || !material) return undefined
    const params = tapForm.lenient(item.params, unit)
    const sizes = tapSizes(params, on, material)
    return { params, sizes, sketch: holeSketch(params, sizes) }
  }, [item, unit, on, material])
  const working = useMemo(
    () => (tap ? tapWorking(tap.params, tap.sizes, unit) : groove ? grooveWorking(groove.sizes, on) : []),
    [tap, groove, unit, on],
  )
  if (!material) return null

  return (
    <CycleFormProvider value={form}>
      <form
        className="order-2 lg:order-none lg:row-span-2"
        aria-label="The cycle in hand"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => event.preventDefault()}
      >
        <Tabs.Root value={part} onValueChange={setPart}>
          <Tabs.List aria-label="Parts of the cycle" className="mb-2 flex border-b border-rule">
            {parts.map(([value, title]) => (
              <Tabs.Trigger
                key={value}
                value={value}
                className="min-h-11 flex-1 border-b-4 border-b-transparent px-1 font-semibold whitespace-nowrap hover:bg-stock-shade data-[state=active]:border-b-ink"
              >
                {title}
                {Object.keys(problems).some((field) => partOf(placeField(field)) === value) && (
                  <>
                    <span aria-hidden> •</span>
                    <span className="sr-only">, something is missing</span>
                  </>
                )}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value={part} tabIndex={-1} className="outline-none">
            {tap && <TapForm part={part as TapPart} sizes={tap.sizes} unit={unit} machine={machine} />}
            {groove && <GrooveForm part={part as GroovePart} sizes={groove.sizes} unit={unit} />}
          </Tabs.Content>
        </Tabs.Root>
      </form>
      <div className="order-1 min-w-0 md:col-span-2 lg:order-none lg:col-span-1">
        {tap &&
          (part === 'out' && item.cycle === 'tap' ? (
            <RetractPanel
              tap={item.params}
              sizes={tap.sizes}
              machine={machine}
              holes={machine.kind === 'lathe' ? 1 : Math.max(1, tap.sizes.places.length)}
              hasWord={profile.reading.tapRetract !== null}
              partsAShift={draft.partsAShift}
              onPartsAShift={(partsAShift) => onDraft({ ...draft, partsAShift })}
            />
          ) : (
            <div className="h-60 2xl:h-80">
              {part === 'places' && machine.kind === 'mill' ? (
                <PlacesDrawing places={tap.sizes.places} unit={unit} lit={lit === 'places'} />
              ) : (
                <HoleDrawing
                  sketch={tap.sketch}
                  unit={unit}
                  lit={lit}
                  threadName={tap.sizes.thread.id === 'own' ? 'thread' : tap.sizes.thread.id}
                  says={tapSays(tap.sizes)}
                />
              )}
            </div>
          ))}
        {groove?.drawable && (
          <div className="h-64 2xl:h-96">
            <GrooveDrawing
              sizes={groove.sizes}
              rings={groove.rings}
              says={grooveSays(groove.sizes, unit)}
              unit={unit}
              lit={lit}
            />
          </div>
        )}
      </div>
      <div className="order-3 flex min-w-0 flex-col gap-2 lg:order-none">
        {groove?.left && <LeftLine left={groove.left} ends={ends} unit={unit} />}
        {after(<Working answer={{ working }} title="With the numbers put in" />)}
      </div>
    </CycleFormProvider>
  )
}

/** The field of the form that holds a hole's places, whichever of them is asked for. */
const PLACES = new Set([
  'list',
  'x',
  'y',
  'count',
  'spacing',
  'angle',
  'rows',
  'rowSpacing',
  'diameter',
  'span',
])
const placeField = (field: string) => (PLACES.has(field) ? 'places' : field)

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
const tapSays = ({ turns, tapFeed, multiple }: ReturnType<typeof tapSizes>) =>
  [
    [`S${Math.round(turns.tap)}`, 'tapTurns'],
    [`F${tapFeed.printed}`, 'feedMode'],
    [`out x ${multiple.value}`, 'multiple', 'multipleTyped'],
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

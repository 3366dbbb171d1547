import { drillName } from '@dogleg/core/cycles/drilling'
import {
  drillFor,
  type TapDraft,
  type TapSizes,
  THREADS,
  type ThreadSeries,
  tapFor,
} from '@dogleg/core/cycles/tapping'
import type { Machine } from '@dogleg/core/machine'
import { formatLength, formatWithUnit, type LengthUnit } from '@dogleg/core/quantity'
import { useId } from 'react'
import type { BegunTool } from '../reference/new-tool.ts'
import { Select } from '../ui/select.tsx'
import {
  ChoiceField,
  LengthField,
  NumberField,
  Pair,
  SwitchField,
  useAnswer,
  useAnswers,
  useCycleForm,
} from './cycle-field.tsx'
import { KeepSpeed } from './keep-speed.tsx'
import { PlacesFields } from './places-fields.tsx'
import { ToolField } from './tool-field.tsx'

/** Parts of the form, with the fields that are in each: a word of the code leads to its part. */
export const TAP_PARTS = [
  ['thread', 'Thread'],
  ['hole', 'Hole'],
  ['work', 'Work'],
  ['places', 'Places'],
  ['speed', 'Speed'],
  ['out', 'Out'],
] as const
export type TapPart = (typeof TAP_PARTS)[number][0]

const PART_OF: Record<string, TapPart> = {
  thread: 'thread',
  ownMajor: 'thread',
  ownPitch: 'thread',
  hand: 'thread',
  lead: 'thread',
  drillDiameter: 'thread',
  tapDepth: 'hole',
  drillDepth: 'hole',
  threadDepth: 'hole',
  thickness: 'hole',
  drillPeck: 'work',
  drillWay: 'work',
  tapPeckDepth: 'work',
  chamferDiameter: 'work',
  clearance: 'hole',
  rPlane: 'hole',
  returns: 'hole',
  places: 'places',
  multiple: 'out',
  multipleTyped: 'out',
}
/** What the places of the holes come from, whichever of it is asked for. */
export const PLACES = new Set([
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

export const tapPartOf = (field: string): TapPart =>
  PLACES.has(field) ? 'places' : (PART_OF[field] ?? 'speed')

const SERIES: readonly (readonly [ThreadSeries, string])[] = [
  ['UNC', 'UN coarse'],
  ['UNF', 'UN fine'],
  ['M coarse', 'M coarse'],
  ['M fine', 'M fine'],
  ['pipe', 'Pipe, for reference'],
]

function ThreadPick() {
  const { change, onLit } = useCycleForm()
  const thread = useAnswer('thread')
  const id = useId()
  return (
    <div data-field="thread">
      <label htmlFor={id} className="font-semibold">
        Thread
      </label>
      <Select
        id={id}
        value={String(thread)}
        aria-required
        onChange={({ target }) => change('thread', target.value)}
        onFocus={() => onLit('thread')}
        className="mt-0.5 block w-full"
      >
        <option value="" disabled>
          choose the thread
        </option>
        {SERIES.map(([series, says]) => (
          <optgroup key={series} label={says}>
            {THREADS.filter((each) => each.series === series).map((each) => (
              <option key={each.id} value={each.id}>
                {each.id}
              </option>
            ))}
          </optgroup>
        ))}
        <option value="own">another thread</option>
      </Select>
    </div>
  )
}

/** What a thread is known by, and what speeds come from. */
const THREAD = ['thread', 'ownMajor', 'ownPitch']
const SPEED = [...THREAD, 'material']

/** The tool of one operation, and how fast it turns. */
const ToolAndSpeed = ({
  of,
  says,
  turns,
  begun,
}: {
  of: 'tap' | 'drill' | 'chamfer'
  says: string
  turns: number
  begun?: BegunTool | undefined
}) => (
  <Pair>
    <ToolField
      field={`${of}Tool`}
      label={`${says} is T`}
      kind={of === 'tap' ? 'tap' : 'drill'}
      begun={begun}
    />
    <NumberField
      field={`${of}Turns`}
      label={says}
      suffix="rpm"
      computed={`${Math.round(turns)}`}
      needs={SPEED}
    />
  </Pair>
)

interface TapFormProps {
  part: TapPart
  sizes: TapSizes
  /** Whether all that the places come from was typed. */
  placesKnown: boolean
  unit: LengthUnit
  machine: Machine
}

/** One part of the form of tapped holes. */
export function TapForm({ part, sizes, placesKnown, unit, machine }: TapFormProps) {
  const { missing } = useCycleForm()
  const draft = useAnswers()
  const threadKnown = !missing.some((field) => THREAD.includes(field))
  const tap = draft as unknown as TapDraft
  const say = (value: number) => formatLength(value, unit)
  const lathe = machine.kind === 'lathe'
  const { thread, rpm } = sizes
  switch (part) {
    case 'thread':
      return (
        <div className="space-y-1">
          <ThreadPick />
          {tap.thread === 'own' ? (
            <Pair>
              <LengthField field="ownMajor" label="Outside diameter" />
              <LengthField field="ownPitch" label="Pitch" />
            </Pair>
          ) : (
            threadKnown && (
              <p className="digits text-sm text-ink-soft">
                {formatWithUnit(thread.major, unit)} outside,{' '}
                {unit === 'inch'
                  ? `${Number((1 / thread.pitch).toFixed(2))} an inch`
                  : `pitch ${say(thread.pitch)}`}
              </p>
            )
          )}
          <ChoiceField
            quiet
            field="hand"
            label="Hand"
            options={[
              ['right', 'right hand'],
              ['left', 'left hand'],
            ]}
          />
          <ChoiceField
            quiet
            field="tap"
            label="Tap"
            options={[
              ['cut', 'cut tap'],
              ['form', 'form tap'],
            ]}
          />
          <ChoiceField
            quiet
            field="lead"
            label="Lead of the tap"
            options={[
              ['taper', 'taper'],
              ['plug', 'plug tap'],
              ['bottoming', 'bottoming'],
            ]}
          />
          <LengthField
            field="drillDiameter"
            label="Tap drill"
            computed={say(sizes.drillDiameter)}
            needs={THREAD}
          />
          {threadKnown && (
            <p className="text-lg">
              {drillName(sizes.drillDiameter, unit) ?? 'It'}
              {sizes.percent === null ? (
                ': a taper thread is as large as it is deep'
              ) : (
                <>
                  {' '}
                  leaves <span className="digits text-3xl font-semibold">{Math.round(sizes.percent)}</span> %
                  of the thread
                </>
              )}
            </p>
          )}
        </div>
      )
    case 'hole':
      return (
        <div className="space-y-1">
          <ChoiceField
            quiet
            field="hole"
            label="Hole"
            options={[
              ['blind', 'blind'],
              ['through', 'through'],
            ]}
          />
          <Pair>
            {tap.hole === 'blind' ? (
              <LengthField field="threadDepth" label="Full thread" />
            ) : (
              <LengthField field="thickness" label="Thickness" />
            )}
            <LengthField field="top" label="Top of part, Z" />
          </Pair>
          {(tap.drill || tap.tapping) && (
            <Pair>
              {tap.tapping && (
                <LengthField field="tapDepth" label="Tap tip, deep" computed={say(sizes.tapDepth)} />
              )}
              {tap.drill && (
                <LengthField field="drillDepth" label="Drill, full dia." computed={say(sizes.drillDepth)} />
              )}
            </Pair>
          )}
          <Pair>
            <LengthField field="clearance" label="Clearance" hint="above the part" />
            <LengthField field="rPlane" label="R plane" computed={say(sizes.r.tap)} needs={SPEED} />
          </Pair>
          {!lathe && (
            <ChoiceField
              field="returns"
              label="Between holes back to"
              options={[
                ['initial', 'clearance, G98'],
                ['r', 'R plane, G99'],
              ]}
            />
          )}
        </div>
      )
    case 'work':
      return (
        <div className="space-y-1">
          <SwitchField field="chamfer" label="Chamfer first" />
          {tap.chamfer && (
            <Pair>
              <LengthField
                field="chamferDiameter"
                label="Chamfer dia."
                computed={say(sizes.chamfer.diameter)}
                needs={THREAD}
              />
              <NumberField field="chamferAngle" label="Its angle" suffix="deg" />
            </Pair>
          )}
          <SwitchField field="drill" label="Drill" />
          {tap.drill && (
            <>
              <ChoiceField
                quiet
                field="drillWay"
                label="How it is drilled"
                options={[
                  ['peck', 'pecks'],
                  ['break', 'breaks chip'],
                  ['plain', 'in one'],
                ]}
              />
              <Pair>
                {tap.drillWay !== 'plain' && (
                  <LengthField field="drillPeck" label="Peck" computed={say(sizes.drillPeck)} />
                )}
                <NumberField field="point" label="Drill point" suffix="deg" />
              </Pair>
            </>
          )}
          <SwitchField field="tapping" label="Tap" />
          {tap.tapping && (
            <>
              <SwitchField field="tapPeck" label="in pecks: deep, or gummy material" />
              {tap.tapPeck && (
                <LengthField
                  field="tapPeckDepth"
                  label="Tap peck"
                  computed={say(4 * thread.pitch)}
                  needs={THREAD}
                />
              )}
            </>
          )}
        </div>
      )
    case 'places':
      return (
        <div className="space-y-1">
          {lathe ? (
            <p className="text-ink-soft">On a lathe the hole is on the centre line.</p>
          ) : (
            <PlacesFields places={placesKnown ? sizes.places : []} />
          )}
        </div>
      )
    case 'speed':
      return (
        <div className="space-y-1">
          {tap.tapping && (
            <>
              <ToolAndSpeed
                of="tap"
                says="Tap"
                turns={rpm.tap}
                begun={threadKnown ? tapFor(thread, unit) : undefined}
              />
              {threadKnown && (
                <KeepSpeed
                  of={tap.tap === 'cut' ? 'tapping' : 'forming'}
                  typed={tap.tapTurns}
                  diameter={thread.major}
                  unit={unit}
                />
              )}
              {!lathe && (
                <ChoiceField
                  quiet
                  field="feedMode"
                  label="Feed of the tap"
                  options={[
                    ['minute', 'feed a minute'],
                    ['turn', 'feed a turn'],
                  ]}
                />
              )}
            </>
          )}
          {tap.drill && (
            <>
              <ToolAndSpeed
                of="drill"
                says="Drill"
                turns={rpm.drill}
                begun={threadKnown ? drillFor(sizes.drillDiameter, thread, unit) : undefined}
              />
              {threadKnown && (
                <KeepSpeed of="drilling" typed={tap.drillTurns} diameter={sizes.drillDiameter} unit={unit} />
              )}
              <LengthField
                field="drillFeed"
                label="Drill feed a turn"
                computed={say(sizes.feeds.drill)}
                needs={SPEED}
              />
            </>
          )}
          {tap.chamfer && <ToolAndSpeed of="chamfer" says="Chamfer" turns={rpm.chamfer} />}
          <SwitchField field="coolant" label="Coolant" />
        </div>
      )
    case 'out':
      return (
        <div className="space-y-1">
          <ChoiceField
            quiet
            field="holder"
            label="Holder"
            options={[
              ['rigid', 'rigid'],
              ['floating', 'floating'],
            ]}
          />
          {tap.holder === 'rigid' && (
            <>
              <ChoiceField
                field="multiple"
                label="Retract speed"
                options={[
                  ['best', 'what pays'],
                  ['typed', 'a multiple'],
                  ['left', 'the control’s'],
                ]}
              />
              {tap.multiple === 'typed' && <NumberField field="multipleTyped" label="x infeed" />}
            </>
          )}
        </div>
      )
  }
}

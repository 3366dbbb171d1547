import {
  axesFor,
  FEATURE_NAMES,
  type FeatureDraft,
  type FeatureField,
  featureFields,
  type GaugePlanDraft,
  isProbed,
  REACTION_NAMES,
  reactionsOf,
  readSized,
} from '@dogleg/core/gauge'
import { formatAsMeant, unitSymbol } from '@dogleg/core/quantity'
import {
  ChoiceField,
  LengthField,
  NumberField,
  Pair,
  useCycleForm,
  WordsField,
} from '../code/cycle-field.tsx'
import { ToolField } from '../code/tool-field.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'

const FEATURE_PARTS = [
  ['what', 'Measure'],
  ['where', 'Where'],
  ['result', 'Result'],
] as const
export type FeaturePart = (typeof FEATURE_PARTS)[number][0]

/** The parts of the form that there are for a feature as it stands. */
export const featureParts = ({ what }: FeatureDraft) =>
  FEATURE_PARTS.filter(([part]) => part !== 'where' || isProbed(what))

interface FeatureFormProps {
  part: FeaturePart
  id: string
  features: GaugePlanDraft['features']
  /** What the empty fields come to, in words. */
  computed: { deadBand?: string; limit?: string; tolerance?: string }
}

const signs = (axis: 'X' | 'Y') =>
  [
    ['+', `${axis}+`],
    ['-', `${axis}−`],
  ] as const

/** One part of the form of a feature. */
export function FeatureForm({ part, id, features, computed }: FeatureFormProps) {
  const form = useCycleForm()
  const draft = form.draft as unknown as FeatureDraft
  const asked = new Set<FeatureField>(featureFields(draft))
  const pick = (field: FeatureField, label: string, options: readonly (readonly [string, string])[]) =>
    asked.has(field) && (
      <PickOne
        label={label}
        value={String(draft[field])}
        onChange={(value) => form.change(field, value)}
        onFocus={() => form.onLit(field)}
        options={options}
      />
    )
  const others = features.filter(
    (each) => each.id !== id && isProbed(each.draft.what) && each.draft.what !== 'edge',
  )
  const places: (readonly [string, string])[] = [
    ['', 'choose'],
    ...others.map((each) => [each.id, each.draft.name.trim() || 'no name yet'] as const),
  ]
  if (part === 'what')
    return (
      <div className="space-y-1">
        <WordsField field="name" label="Name" most={20} hint={FEATURE_NAMES[draft.what]} />
        <div className="grid grid-cols-2 gap-x-3">
          {pick(
            'axis',
            draft.what === 'surface' || draft.what === 'edge' ? 'Moving along' : 'Across',
            axesFor(draft.what).map((axis) => [axis, axis === 'Z' ? 'Z, on top' : axis]),
          )}
          {pick('directionX', draft.what.endsWith('corner') ? 'Into face, X' : 'Going', signs('X'))}
          {pick('directionY', draft.what.endsWith('corner') ? 'Into face, Y' : 'Going', signs('Y'))}
        </div>
        <div className="grid grid-cols-2 gap-x-3">
          {pick('from', 'From', places)}
          {pick('to', 'To', places)}
        </div>
        {asked.has('along') && (
          <ChoiceField
            field="along"
            label="Along"
            options={[
              ['straight', 'straight'],
              ['X', 'X'],
              ['Y', 'Y'],
            ]}
          />
        )}
        {asked.has('nominal') && (
          <Pair>
            <SizeField />
            <WordsField
              field="tolerance"
              label="Tolerance"
              most={30}
              narrow
              hint={computed.tolerance ?? '.0005, +.001 -.0005, H7, or limits'}
            />
          </Pair>
        )}
        {!asked.has('nominal') && (
          <Pair>
            {asked.has('angle') && <NumberField field="angle" label="Drawing, deg" suffix="deg" />}
            <WordsField
              field="tolerance"
              label="Tolerance"
              most={30}
              narrow
              hint={computed.tolerance ?? (draft.what === 'edge' ? 'degrees: .05' : '.0005, +.001 -.0005')}
            />
          </Pair>
        )}
      </div>
    )
  if (part === 'where')
    return (
      <div className="space-y-1">
        <Pair>
          <LengthField field="x" label="X" hint="On the drawing." />
          <LengthField field="y" label="Y" hint="On the drawing." />
        </Pair>
        <Pair>
          <LengthField
            field="top"
            label={draft.what === 'surface' && draft.axis === 'Z' ? 'Z, drawing' : 'Z of the top'}
            hint="On the drawing."
          />
          {asked.has('depth') && <LengthField field="depth" label="Depth" hint="Below is minus." />}
        </Pair>
        {asked.has('base') && (
          <LengthField field="base" label="Base between the touches" hint="As long as the edge allows." />
        )}
        <Pair>
          {asked.has('gap') && <LengthField field="gap" label="Gap at the start" hint="Stylus to surface." />}
          <LengthField field="past" label="Search past it" hint="No plenty: a little." />
        </Pair>
      </div>
    )
  return (
    <div className="space-y-1">
      {pick(
        'react',
        'With the result',
        reactionsOf(draft.what).map((each) => [each, REACTION_NAMES[each]]),
      )}
      <Pair>
        {asked.has('tool') && <ToolField field="tool" label="Cut by T" kind="mill" hint="Its number." />}
        {asked.has('share') && <NumberField field="share" label="Share" hint="Of the error: 0.5" />}
      </Pair>
      {draft.react === 'wear' && asked.has('share') && (
        <p className="text-sm leading-5">
          {draft.what === 'surface' && draft.axis === 'Z'
            ? 'Its length is corrected.'
            : 'Its diameter is corrected, as G41 and G42 use it.'}
        </p>
      )}
      {asked.has('deadBand') && (
        <Pair>
          <LengthField
            field="deadBand"
            label="Dead band"
            computed={computed.deadBand}
            hint="Nothing below it."
          />
          <LengthField field="limit" label="Stop beyond" computed={computed.limit} hint="Error that stops." />
        </Pair>
      )}
    </div>
  )
}

/** A size as the drawing has it: a length, or one with its tolerance. */
function SizeField() {
  const { draft, change, problems, unit, lit, onLit } = useCycleForm()
  const typed = String(draft.nominal)
  const sized = readSized(typed, unit)
  const problem = problems.nominal
  return (
    <div data-field="nominal">
      <TextEntry
        label="Drawing size"
        narrow
        value={typed}
        onChange={(next) => change('nominal', next)}
        onFocus={() => onLit('nominal')}
        lit={lit === 'nominal'}
        suffix={unitSymbol(unit)}
        maxLength={60}
        understood={
          sized && `${formatAsMeant(sized.value, unit)}${sized.tolerance ? ` ${sized.tolerance}` : ''}`
        }
        wrong={problem && !problem.empty ? problem.says : undefined}
        hint={unit === 'mm' ? '20, 20 H7, 19.99 to 20.01' : '.7500, .7495 to .7505, 20 H7'}
      />
    </div>
  )
}

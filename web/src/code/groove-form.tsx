import { type GrooveDraft, type GrooveSizes, plungePlaces } from '@dogleg/core/cycles/grooving'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { ChoiceField, LengthField, NumberField, Pair, SwitchField, useAnswers } from './cycle-field.tsx'
import { KeepSurface } from './keep-speed.tsx'
import { ToolField } from './tool-field.tsx'

export const GROOVE_PARTS = [
  ['groove', 'Groove'],
  ['finish', 'Finish'],
  ['insert', 'Insert'],
  ['cut', 'Cut'],
  ['speed', 'Speed'],
] as const
export type GroovePart = (typeof GROOVE_PARTS)[number][0]

const PART_OF: Record<string, GroovePart> = {
  where: 'groove',
  surface: 'groove',
  near: 'groove',
  far: 'groove',
  bottom: 'groove',
  corner: 'finish',
  edge: 'finish',
  edgeSize: 'finish',
  finish: 'finish',
  wallStock: 'finish',
  floorStock: 'finish',
  widthTolerance: 'finish',
  bottomTolerance: 'finish',
  count: 'groove',
  pitch: 'groove',
  tool: 'insert',
  insertWidth: 'insert',
  insertCorner: 'insert',
  programmed: 'insert',
  reach: 'insert',
  minBore: 'insert',
  front: 'insert',
  faceLeast: 'insert',
  surfaceSpeed: 'speed',
  clamp: 'speed',
  turns: 'speed',
  feed: 'speed',
  finishFeed: 'speed',
  coolant: 'speed',
}
export const groovePartOf = (field: string): GroovePart => PART_OF[field] ?? 'cut'

interface GrooveFormProps {
  part: GroovePart
  sizes: GrooveSizes
  unit: LengthUnit
}

/** One part of the form of a groove. */
export function GrooveForm({ part, sizes, unit }: GrooveFormProps) {
  const draft = useAnswers()
  const groove = draft as unknown as GrooveDraft
  const say = (value: number) => formatLength(value, unit)
  const face = groove.where === 'face'
  const scale = face ? 2 : 1
  switch (part) {
    case 'groove':
      return (
        <div className="space-y-1">
          <ChoiceField
            quiet
            field="where"
            label="Where"
            options={[
              ['outside', 'outside'],
              ['inside', 'inside'],
              ['face', 'in a face'],
            ]}
          />
          <Pair>
            <LengthField
              field="surface"
              label={face ? 'Z of the face' : groove.where === 'inside' ? 'Bore diameter' : 'Bar diameter'}
            />
            <LengthField field="bottom" label={face ? 'Z of the bottom' : 'Bottom diameter'} />
          </Pair>
          <Pair>
            <LengthField field="near" label={face ? 'Outer diameter' : 'Wall, Z'} />
            <LengthField field="far" label={face ? 'Inner diameter' : 'Other wall, Z'} />
          </Pair>
          <Pair>
            <NumberField field="count" label="Equal grooves" />
            {groove.count.trim() !== '1' && <LengthField field="pitch" label="One to the next" />}
          </Pair>
        </div>
      )
    case 'finish':
      return (
        <div className="space-y-1">
          <Pair>
            <LengthField field="widthTolerance" label={face ? 'Walls Ø within ±' : 'Walls within ±'} />
            <LengthField field="bottomTolerance" label={face ? 'Bottom within ±' : 'Bottom Ø within ±'} />
          </Pair>
          <ChoiceField
            field="edge"
            label="Edges"
            options={[
              ['none', 'sharp'],
              ['chamfer', 'chamfer'],
              ['round', 'round'],
            ]}
          />
          <Pair>
            <LengthField field="corner" label="Corner radius" hint="at the bottom" />
            {groove.edge !== 'none' && <LengthField field="edgeSize" label="Edge" />}
          </Pair>
          <SwitchField field="finish" label="Finishing pass, to the middle" />
          {groove.finish && (
            <Pair>
              <LengthField field="wallStock" label="Left on walls" />
              <LengthField field="floorStock" label="Left on floor" />
            </Pair>
          )}
        </div>
      )
    case 'insert':
      return (
        <div className="space-y-1">
          <Pair>
            <ToolField field="tool" label="Tool is T" kind="grooving" />
            <LengthField
              field="insertWidth"
              label="Width"
              computed={say(sizes.insert.width)}
              needs={['tool']}
            />
          </Pair>
          <Pair>
            <LengthField field="insertCorner" label="Its corner radius" />
            <LengthField
              field="reach"
              label="Reaches"
              {...(Number.isFinite(sizes.reach) ? { computed: say(sizes.reach) } : {})}
              needs={['tool']}
            />
          </Pair>
          <ChoiceField
            field="programmed"
            label="Programmed corner"
            options={
              face
                ? [
                    ['low', 'towards centre'],
                    ['high', 'outwards'],
                  ]
                : [
                    ['low', 'chuck side'],
                    ['high', 'other side'],
                  ]
            }
          />
          {groove.where === 'inside' && (
            <Pair>
              <LengthField
                field="minBore"
                label="Smallest bore"
                hint="that the bar enters"
                {...(sizes.minBore === null ? {} : { computed: say(sizes.minBore) })}
                needs={['tool']}
              />
              <LengthField field="front" label="Clear in front, Z" />
            </Pair>
          )}
          {face && (
            <Pair>
              <LengthField field="faceLeast" label="First cut from" hint="diameter" />
              <LengthField field="faceMost" label="to" hint="diameter" />
            </Pair>
          )}
        </div>
      )
    case 'cut':
      return (
        <div className="space-y-1">
          <Pair>
            <LengthField
              field="start"
              label={face ? 'Start, X' : 'Start, Z'}
              computed={formatLength(sizes.start * scale, unit)}
            />
            <LengthField
              field="last"
              label={face ? 'Last, X' : 'Last, Z'}
              computed={formatLength(sizes.last * scale, unit)}
            />
          </Pair>
          <Pair>
            <LengthField field="clearance" label="Clearance" hint={face ? 'off the face' : 'on diameter'} />
            <LengthField field="stepover" label="Stepover" computed={say(sizes.stepover)} />
          </Pair>
          <p className="text-lg">
            <span className="digits text-3xl font-semibold">
              {plungePlaces(sizes.start, sizes.last, sizes.stepover).length}
            </span>{' '}
            plunges, stepping{' '}
            <span className="digits">{Math.round((100 * sizes.stepover) / sizes.insert.width)} %</span> of the
            insert
          </p>
          <SwitchField field="pecking" label="In pecks" />
          {groove.pecking && (
            <Pair>
              <LengthField field="peck" label="Peck" computed={say(sizes.peck)} />
              <LengthField field="peckRetreat" label="Comes back" computed={say(sizes.peckRetreat)} />
            </Pair>
          )}
        </div>
      )
    case 'speed':
      return (
        <div className="space-y-1">
          <ChoiceField
            quiet
            field="speed"
            label="Speed"
            options={[
              ['surface', 'over the surface'],
              ['turns', 'turns'],
            ]}
          />
          {groove.speed === 'surface' ? (
            <>
              <Pair>
                <NumberField
                  field="surfaceSpeed"
                  label="Surface"
                  suffix={unit === 'inch' ? 'ft/min' : 'm/min'}
                  computed={'surface' in sizes.spindle ? String(sizes.spindle.surface) : undefined}
                />
                <NumberField field="clamp" label="At most" suffix="rpm" hint="chuck and bar" />
              </Pair>
              <KeepSurface typed={groove.surfaceSpeed} unit={unit} />
            </>
          ) : (
            <NumberField field="turns" label="Spindle" suffix="rpm" />
          )}
          <Pair>
            <LengthField field="feed" label="Feed a turn" computed={say(sizes.feed)} />
            {groove.finish && (
              <LengthField field="finishFeed" label="Finishing" computed={say(sizes.finishFeed)} />
            )}
          </Pair>
          <SwitchField field="coolant" label="Coolant" />
        </div>
      )
  }
}
